"use client";
import * as Comlink from "comlink";
import { useEffect, useRef } from "react";
import type { Trial } from "@/core/evaluate/triedFixes";
import type { Mesh } from "@/core/engine/kernel";
import { delta } from "@/core/job/delta";
import type { Mismatch } from "@/core/mismatch";
import type { Job, Row } from "@/core/job";
import type { News, Outcome, Told } from "@/kernel/worker";
import { useBench } from "../store/benchStore";
import { engine, restartEngine } from "./engine";

let turn = 0;
let run = 0;
/** What the engine has been told last: the next time it is told what has changed. */
let told: { turn: number; job: Job } | null = null;

function evaluate(job: Job, mine: number, tell: (news: News) => void): Promise<Outcome> {
  const ask = (t: Told) => engine().evaluate(t, mine, Comlink.proxy(tell));
  const before = told;
  told = { turn: mine, job };
  if (!before) return ask({ whole: job });
  return ask({ from: before.turn, patches: delta(before.job, job) }).then((outcome) =>
    outcome.is === "unknown job" && mine === turn ? ask({ whole: job }) : outcome,
  );
}

/** A fix that was tried: only what clears its remark is offered. */
function tried(mine: number, key: string, trial: Trial): void {
  const { trials, set } = useBench.getState();
  if (mine === turn) set({ trials: new Map(trials).set(key, trial) });
}

const stoppedAt = ({ row, of }: { row: number; of: number }) =>
  `stopped at row ${row} of ${of}; the rows before it stand`;

/** Puts what became of an evaluation on the bench. */
function settle(outcome: Outcome, mine: number): void {
  const { set } = useBench.getState();
  if (mine !== turn) return;
  if (outcome.is === "stopped") return set({ busy: false, atRow: null, engineProblem: stoppedAt(outcome) });
  if (outcome.is !== "done") return;
  const evaluated = { evaluation: outcome.evaluation };
  performance.mark("evaluated");
  set({
    trials: new Map(),
    evaluated,
    evaluatedTurn: mine,
    busy: false,
    engineProblem: "",
    atRow: null,
    checking: false,
  });
  void engine()
    .plans(mine)
    .then((planned) => void (planned && mine === turn && set({ planned })))
    // What is offered has been tried: after everything that is waited for.
    .then(() =>
      engine().tryFixes(
        mine,
        Comlink.proxy((key, trial) => tried(mine, key, trial)),
      ),
    )
    .catch(() => undefined);
}

/**
 * Keeps the evaluation and the picture in step with the job. Typing never waits: an older run is superseded by a
 * newer one.
 */
export function useEngine(job: Job | null): void {
  const set = useBench((s) => s.set);
  const showRow = useBench((s) => s.showRow);
  const evaluated = useBench((s) => s.evaluated);
  const checking = useBench((s) => s.checking);
  const again = useBench((s) => s.again);
  const shown = useRef<string | null>(null);

  useEffect(() => {
    if (!job) return;
    const mine = ++turn;
    const tell = (news: News) => {
      // It comes by another channel than the answer, and may come after it.
      if (mine !== turn || !useBench.getState().busy) return;
      set({ atRow: { row: news.row, of: news.of } });
      // The picture follows row by row, unless another row's state is being looked at, or the whole part stands there.
      if (!news.picture || useBench.getState().showRow || (useBench.getState().checking && news.row < news.of)) return;
      shown.current = news.picture.key;
      set({ picture: news.picture });
      performance.mark("picture");
    };
    set({ busy: true, busySince: performance.now() });
    evaluate(job, mine, tell).then(
      (outcome) => settle(outcome, mine),
      (e) => {
        if (mine === turn) set({ busy: false, engineProblem: e instanceof Error ? e.message : "the engine stopped" });
      },
    );
  }, [job, again, set]);

  useEffect(() => {
    if (!evaluated || checking) return;
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
  }, [evaluated, checking, showRow, set]);
}

/** A row that does not end within this after "stop" is in the middle of a boolean: the engine itself is ended, ms. */
const END_WITHIN = 1500;

/** Stops between two rows and keeps those that stand; where a row does not end, the engine is started anew. */
export function stopEngine(): void {
  const mine = turn;
  void engine().stop(mine);
  setTimeout(() => {
    const { busy, atRow, set } = useBench.getState();
    if (!busy || mine !== turn) return;
    restartEngine();
    told = null;
    turn++;
    set({ busy: false, atRow: null, engineProblem: stoppedAt(atRow ?? { row: 1, of: 1 }) });
  }, END_WITHIN);
}

/** Goes on from where it was stopped. */
export const goOn = (): void => useBench.getState().set({ again: useBench.getState().again + 1, engineProblem: "" });

/** Tool solid of a row that is being typed, standing at `at` in the list of the job the engine has. */
export async function ghostOf(rows: Row[], at: number): Promise<Mesh | null> {
  return told ? engine().ghost(told.turn, JSON.parse(JSON.stringify(rows)), at) : null;
}

/** Starts the mismatch finder on the job as it is; a change of the job gives it up. */
export function explainNow(
  progress: (done: number, of: number) => void,
  sofar: (list: Mismatch[]) => void,
): { found: Promise<Mismatch[] | null>; stop: () => void } {
  const mine = ++run;
  return {
    found: engine().explain(turn, mine, Comlink.proxy(progress), Comlink.proxy(sofar)),
    stop: () => void engine().stopExplaining(mine),
  };
}
