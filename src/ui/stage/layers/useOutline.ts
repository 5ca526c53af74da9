import { useEffect, useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { Job } from "@/core/job";
import type { NumberScope } from "@/core/number";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { readPalette } from "../ink";
import { outlineLines, shownOutline } from "../wireframe";
import type { SceneRef } from "./useScene";

/** The outline that is open: located elements in ink, free ones in loose pencil, a conflict in vermilion. */
export function useOutline(
  scene: SceneRef,
  job: Job,
  evaluation: Evaluation | null,
  scope: NumberScope,
): EvaluatedOutline | null {
  const { open, draft } = useBench(
    useShallow((s) => ({ open: s.step === "shape" ? s.openOutline : null, draft: s.outlineDraft })),
  );
  const light = useLight((s) => s.light);
  const shapes = evaluation?.solved.shapes;
  const drawn = useMemo(
    () => (open === null ? null : shownOutline(job, open, draft, scope, shapes)),
    [job, open, draft, shapes, scope],
  );
  const top = evaluation?.part?.box.max.z ?? 0;
  useEffect(() => {
    scene.current!.setLines("outline", drawn ? outlineLines(drawn, top, readPalette()) : []);
  }, [scene, drawn, top, light]);
  return drawn;
}
