import { useEffect, useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { Finding } from "@/core/findings";
import type { Box, Vec3 } from "@/core/geometry/vec";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { readPalette } from "../ink";
import { pairs } from "../outlines";
import type { SceneRef } from "./useScene";

/** Arm of a small mark, of the part's longest side. */
const ARM = 0.012;

/** A small cross at the place of every remark: where they are, seen together; a picked one shows its whole place. */
function smallMarks(findings: Finding[], box: Box | undefined): number[] {
  if (!box) return [];
  const arm = ARM * Math.max(box.max.x - box.min.x, box.max.y - box.min.y, box.max.z - box.min.z);
  return pairs(
    findings.flatMap(({ place, places }) =>
      (places ?? (place ? [place] : [])).flatMap((p) =>
        (["x", "y", "z"] as const).map((k): [Vec3, Vec3] => [
          { ...p, [k]: p[k] - arm },
          { ...p, [k]: p[k] + arm },
        ]),
      ),
    ),
  );
}

/** What is measured, and the lines of the finding looked at; gives that finding. */
export function useMarks(scene: SceneRef, evaluation: Evaluation | null, outlineOpen: boolean): Finding | undefined {
  const { measured, selected, step } = useBench(
    useShallow((s) => ({ measured: s.measured, selected: s.selected, step: s.step })),
  );
  const light = useLight((s) => s.light);
  const findings = evaluation?.findings;
  const open = useMemo(() => findings?.filter((f) => !f.waived) ?? [], [findings]);
  const box = evaluation?.part?.box;
  const finding =
    selected === null
      ? open.find((f) => f.rowId === null && f.lines)
      : open.find((f) => f.place && f.rowId === selected);
  const isShown = step === "shape" && !outlineOpen;
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    const m = measured.map((q) => q.point);
    s.setLines("marks", [
      { points: m.length === 2 ? pairs([[m[0], m[1]]]) : [], colour: p.dye, width: 2.2, onTop: true },
      // What the part hides is hidden: red lines lie on it, and do not shine through.
      { points: isShown && finding?.lines ? pairs(finding.lines) : [], colour: p.vermilion, width: 2.4 },
      {
        points: isShown ? smallMarks(selected === null ? open : finding?.places ? [finding] : [], box) : [],
        colour: p.vermilion,
        width: 1.6,
      },
    ]);
  }, [scene, measured, finding, open, box, selected, isShown, light]);
  return finding;
}
