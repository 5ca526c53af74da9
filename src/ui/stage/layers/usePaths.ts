import { useEffect } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { PathPlan } from "@/core/paths/plan";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { readPalette, type Palette } from "../ink";
import { drillMark, loopLines } from "../outlines";
import type { SceneRef } from "./useScene";

/** A drill's mark, as a share of the part's diagonal. */
const MARKS_ACROSS = 60;

/** Wireframe of the paths; what the cutter cannot reach in vermilion. */
export function usePaths(scene: SceneRef, evaluation: Evaluation | null): void {
  const { planned, selected, step } = useBench(
    useShallow((s) => ({ planned: s.planned, selected: s.selected, step: s.step })),
  );
  const light = useLight((s) => s.light);
  const box = evaluation?.part?.box;
  useEffect(() => {
    const s = scene.current!;
    if (step !== "paths" || !planned) return s.setLines("paths", []);
    const mark = box ? Math.hypot(box.max.x - box.min.x, box.max.y - box.min.y) / MARKS_ACROSS : 1;
    const plans = planned.plans.filter((q) => !selected || selected === q.rowId);
    s.setLines("paths", linesOf(plans, mark, readPalette()));
  }, [scene, planned, box, step, selected, light]);
}

function linesOf(plans: PathPlan[], mark: number, p: Palette) {
  return [
    {
      points: plans.flatMap((q) => q.chains.flatMap((l) => q.levels.flatMap((d) => loopLines(q.frame, l, d)))),
      colour: p.dye,
      width: 1.8,
      onTop: true,
    },
    {
      points: plans.flatMap((q) => q.clearing.flatMap((l) => loopLines(q.frame, l, q.depth))),
      colour: p.dyeLight,
      width: 1,
      onTop: true,
      opacity: 0.7,
    },
    {
      points: plans.flatMap((q) => q.points.flatMap((c) => drillMark(q.frame, c, q.depth, mark))),
      colour: p.dye,
      width: 1.5,
      onTop: true,
    },
    {
      points: plans.flatMap((q) =>
        q.rest.loops.flatMap((l) => [...loopLines(q.frame, l, 0), ...loopLines(q.frame, l, q.depth)]),
      ),
      colour: p.vermilion,
      width: 2,
      onTop: true,
    },
  ];
}
