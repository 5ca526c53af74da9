import { useEffect } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { Finding } from "@/core/findings";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { readPalette } from "../ink";
import { pairs } from "../outlines";
import type { SceneRef } from "./useScene";

/** What is measured, and the lines of the finding looked at; gives that finding. */
export function useMarks(scene: SceneRef, evaluation: Evaluation | null, outlineOpen: boolean): Finding | undefined {
  const { measured, selected, step } = useBench(
    useShallow((s) => ({ measured: s.measured, selected: s.selected, step: s.step })),
  );
  const light = useLight((s) => s.light);
  const open = evaluation?.findings.filter((f) => !f.waived) ?? [];
  const finding =
    selected === null
      ? open.find((f) => f.rowId === null && f.lines)
      : open.find((f) => f.place && f.rowId === selected);
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    const m = measured.map((q) => q.point);
    s.setLines("marks", [
      { points: m.length === 2 ? pairs([[m[0], m[1]]]) : [], colour: p.dye, width: 2.2, onTop: true },
      {
        points: step === "shape" && !outlineOpen && finding?.lines ? pairs(finding.lines) : [],
        colour: p.vermilion,
        width: 2.4,
        onTop: true,
      },
    ]);
  }, [scene, measured, finding, step, outlineOpen, light]);
  return finding;
}
