"use client";
import { useEffect } from "react";
import type { Evaluated, Picture, Planned } from "@/kernel/worker";
import { unpackStanding } from "@/core/evaluate/standing";
import { summarise } from "@/io/summary";
import { shopMark } from "@/core/tables";
import { useShop } from "../store/shopStore";
import { api } from "../store/api";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { engine } from "./engine";

const ENGINE = process.env.ENGINE_VERSION ?? "";
const addressOf = (id: string) => `/api/jobs/${id}/standing`;

/**
 * Shows the job as it was last computed, until the engine has caught up: nothing where the server has none, or where
 * the engine was quicker.
 */
export async function showStanding(id: string): Promise<void> {
  const answer = await fetch(addressOf(id), { credentials: "same-origin" });
  if (answer.status !== 200) return;
  const { evaluated, planned, picture } = await unpackStanding<{ evaluated: Evaluated; planned: Planned }, Picture>(
    new Uint8Array(await answer.arrayBuffer()),
  );
  const bench = useBench.getState();
  // A job that was left meanwhile, or has been computed by now, keeps what it has.
  if (useJob.getState().id !== null && useJob.getState().id !== id) return;
  if (bench.evaluated || bench.openFor !== id) return;
  bench.set({ evaluated, planned, picture, checking: true });
  performance.mark("picture");
  performance.mark("kept");
}

/** Nothing is sent to be kept sooner than this after the last change, ms. */
const QUIET = 2000;

/** Keeps what was computed of a saved job with the server, once it is quiet. */
export function useKeepStanding(id: string): void {
  const { pending, revision, save, trial, other } = useJobSaved();
  const turn = useBench((s) => s.evaluatedTurn);
  const busy = useBench((s) => s.busy || s.checking);
  useEffect(() => {
    if (pending || busy || trial || other || save !== "saved" || !turn || !revision || !ENGINE) return;
    const timer = setTimeout(() => {
      void engine()
        .standing(turn)
        .then((standing) => {
          const { evaluated, evaluatedTurn } = useBench.getState();
          if (!standing || !evaluated || evaluatedTurn !== turn) return;
          if (useJob.getState().revision !== revision || useJob.getState().id !== id) return;
          const by = ENGINE + shopMark(useShop.getState().settings);
          const query = new URLSearchParams({ revision: String(revision), engine: by });
          const body = standing.bytes as Uint8Array<ArrayBuffer>;
          // What is not kept is only slower to open, and is worked out once more for the shelf.
          return Promise.all([
            fetch(`${addressOf(id)}?${query}`, { method: "PUT", body }),
            api.keepSummary(id, revision, summarise(evaluated.evaluation, standing.lines)),
          ]);
        })
        .catch(() => {});
    }, QUIET);
    return () => clearTimeout(timer);
  }, [id, pending, busy, trial, other, save, turn, revision]);
}

function useJobSaved() {
  const pending = useJob((s) => s.pending);
  const revision = useJob((s) => s.revision);
  const save = useJob((s) => s.save);
  const trial = useJob((s) => s.trial !== null);
  // What is kept is the workpiece's.
  const other = useJob((s) => s.part !== null);
  return { pending, revision, save, trial, other };
}
