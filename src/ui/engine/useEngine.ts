"use client";
import * as Comlink from "comlink";
import { useEffect, useRef } from "react";
import type { Mismatch } from "@/core/mismatch";
import type { Job } from "@/core/job";
import type { News } from "@/kernel/worker";
import { useBench } from "../store/benchStore";
import { engine, restartEngine } from "./engine";

let turn = 0;

/**
 * Keeps the evaluation and the picture in step with the job. Typing never waits: an older run is superseded by a
 * newer one.
 */
export function useEngine(job: Job | null): void {
  const set = useBench((s) => s.set);
  const showRow = useBench((s) => s.showRow);
  const evaluated = useBench((s) => s.evaluated);
  const shown = useRef<string | null>(null);

  useEffect(() => {
    if (!job) return;
    const mine = ++turn;
    const start = performance.now();
    const tell = (news: News) => {
      if (mine !== turn) return;
      set({ atRow: { row: news.row, of: news.of } });
      // The picture follows row by row, unless another row's state is being looked at.
      if (!news.picture || useBench.getState().showRow) return;
      shown.current = news.picture.key;
      set({ picture: news.picture });
    };
    set({ busy: true, busySince: start });
    engine()
      .evaluate(JSON.parse(JSON.stringify(job)), mine, Comlink.proxy(tell))
      .then(
        (r) => {
          if (!r || mine !== turn) return;
          set({ evaluated: r, busy: false, engineProblem: "", atRow: null });
          return engine()
            .plans(mine)
            .then((planned) => void (planned && mine === turn && set({ planned })));
        },
        (e) => {
          if (mine === turn) set({ busy: false, engineProblem: e instanceof Error ? e.message : "the engine stopped" });
        },
      );
  }, [job, set]);

  useEffect(() => {
    if (!evaluated) return;
    const rows = evaluated.evaluation.solved.rows;
    const row = showRow ? rows.find((r) => r.row.id === showRow) : null;
    const key = row ? row.key : evaluated.evaluation.solved.finalKey;
    if (key !== null && key === shown.current && useBench.getState().picture?.key === key) return;
    shown.current = key;
    if (key === null) return set({ picture: null });
    engine()
      .picture(key)
      .then(
        (p) => {
          if (shown.current === key) set({ picture: p });
        },
        () => {},
      );
  }, [evaluated, showRow, set]);
}

/** Gives up what the engine is doing and starts it anew on the job as it is. */
export function cancelEngine(): void {
  restartEngine();
  const { set } = useBench.getState();
  turn++;
  set({ busy: false, engineProblem: "stopped; change something to compute again" });
}

/** Starts the mismatch finder on the job as it is; a change of the job gives it up. */
export function explainNow(
  job: Job,
  progress: (done: number, of: number) => void,
  sofar: (list: Mismatch[]) => void,
): { found: Promise<Mismatch[] | null>; stop: () => void } {
  const mine = turn;
  return {
    found: engine().explain(JSON.parse(JSON.stringify(job)), mine, Comlink.proxy(progress), Comlink.proxy(sofar)),
    stop: () => void engine().stopExplaining(mine),
  };
}
