"use client";
import { useEffect, useRef, useState } from "react";
import type { Explanation, Mismatch } from "@/core/mismatch";
import type { Job } from "@/core/job";
import { explainNow } from "../engine/useEngine";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

interface Progress {
  done: number;
  of: number;
}

/** The search for the slip: begun, watched, stopped; and one of its answers being tried. */
export function useFinder() {
  const job = useJob((s) => s.job)!;
  const isTrying = useJob((s) => s.trial !== null);
  const tryOut = useJob((s) => s.tryOut);
  const set = useBench((s) => s.set);
  const [found, setFound] = useState<{ job: Job; list: Mismatch[] } | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [problem, setProblem] = useState("");
  const [tried, setTried] = useState<Explanation | null>(null);
  const running = useRef<{ stop: () => void } | null>(null);
  useEffect(() => () => running.current?.stop(), []);
  const look = () => {
    setProblem("");
    setProgress({ done: 0, of: 1 });
    setFound(null);
    // What is told on the way comes by another channel than the answer, and may come after it.
    let isOver = false;
    const run = explainNow(
      (done, of) => isOver || setProgress({ done, of }),
      (list) => isOver || (running.current === run && setFound({ job, list })),
    );
    running.current = run;
    const ended = () => {
      isOver = true;
      setProgress(null);
    };
    run.found.then(
      (list) => {
        ended();
        if (list) setFound({ job, list });
      },
      (e) => {
        ended();
        setProblem(e instanceof Error ? e.message : "the engine stopped");
      },
    );
  };
  const stop = () => {
    running.current?.stop();
    setProgress(null);
  };
  const attempt = (x: Explanation) => {
    const why = tryOut(x.edits, x.kind);
    if (why) return setProblem(why);
    setTried(x);
    if (x.row !== null) set({ selected: job.rows[x.row - 1]?.id ?? null });
  };
  /** Found for another job than is here now. */
  const isStale = found !== null && found.job !== job && !isTrying;
  return { found: isStale ? null : (found?.list ?? null), progress, problem, tried, look, stop, attempt };
}

export type Finder = ReturnType<typeof useFinder>;
