"use client";
import { useEffect, useState } from "react";
import type { LengthUnit } from "@/core/number";
import type { ReadFile } from "@/io/chainItems";
import { askDrawing } from "./askDrawing";

type DrawingState =
  { state: "reading"; stop: () => void } | { state: "read"; file: ReadFile } | { state: "failed"; problem: string };

/** The chains of a drawing file, read in a worker; read anew when its unit is said otherwise. */
export function useDrawing(
  drawing: { name: string; text: string },
  unit: LengthUnit,
  taken: LengthUnit | undefined,
): DrawingState {
  const [state, setState] = useState<DrawingState>({ state: "reading", stop: () => {} });
  useEffect(() => {
    let live = true;
    const { answer, stop } = askDrawing({ want: "chains", ...drawing, unit, taken });
    setState({ state: "reading", stop });
    void answer.then((r) => {
      if (live) setState(r.ok ? { state: "read", file: r.value } : { state: "failed", problem: r.problems[0].message });
    });
    return () => {
      live = false;
      stop();
    };
  }, [drawing, unit, taken]);
  return state;
}
