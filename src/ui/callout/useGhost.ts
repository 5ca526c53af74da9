import { useEffect } from "react";
import type { Job, Row } from "@/core/job";
import { ghostOf } from "../engine/useEngine";
import { useBench } from "../store/benchStore";

/** How long the hand rests before its row is worked out, ms. */
const REST = 40;

/** The rows being typed on the stage, loosely; none while they cannot be made. */
export function useGhost(rows: Row[] | null, job: Job, at: number): void {
  const set = useBench((s) => s.set);
  useEffect(() => {
    if (!rows) {
      if (useBench.getState().ghost) set({ ghost: null });
      return;
    }
    let live = true;
    const t = setTimeout(() => {
      ghostOf(rows, at).then(
        (g) => {
          if (live) set({ ghost: g });
        },
        () => {},
      );
    }, REST);
    return () => {
      live = false;
      clearTimeout(t);
    };
  }, [rows, job, at, set]);
  useEffect(() => () => set({ ghost: null }), [set]);
}
