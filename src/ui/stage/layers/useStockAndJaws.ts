import { useEffect, useMemo } from "react";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { placeVise, type ViseSetup } from "@/core/hold/vise";
import type { Job } from "@/core/job";
import type { NumberScope } from "@/core/number";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { useSetups } from "../../store/setupsStore";
import { readPalette } from "../ink";
import { boxEdges, boxFaces, chainDotted, pairs, stockBottom, stockEdges } from "../outlines";
import type { SceneRef } from "./useScene";

/** Stretches of the stock's chain dots across its diagonal. */
const CHAINS_ACROSS = 110;

/** Stock: chain-dotted brass with a hatched underside. */
export function useStock(scene: SceneRef, evaluation: Evaluation | null): void {
  const inSetup = useSetups((s) => s.bodies.length > 0);
  const shown = useBench(
    (s) => s.showStock && (s.view !== "section" || s.step === "stock") && !(inSetup && s.step === "hold"),
  );
  const light = useLight((s) => s.light);
  const placed = evaluation?.stock?.placed ?? null;
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    if (!placed || !shown) return s.setLines("stock", []);
    const { min, max } = placed.box;
    const unit = Math.hypot(max.x - min.x, max.y - min.y) / CHAINS_ACROSS;
    s.setLines(
      "stock",
      [{ points: chainDotted(stockEdges(placed), unit), colour: p.brass, width: 1.3 }],
      [{ positions: stockBottom(placed), hatch: { ink: p.brass, opacity: 0.5 } }],
    );
  }, [scene, placed, shown, light]);
}

/** The jaws round the piece on the Hold step; null on any other, and where they do not hold. */
export function useJaws(
  scene: SceneRef,
  job: Job,
  evaluation: Evaluation | null,
  scope: NumberScope,
): ViseSetup | null {
  const inSetup = useSetups((s) => s.bodies.length > 0);
  const holding = useBench((s) => s.step === "hold") && !inSetup;
  const light = useLight((s) => s.light);
  const piece = evaluation?.stock?.placed.box ?? evaluation?.part?.box ?? null;
  const vise = useMemo(() => {
    const v = holding && job.hold && piece ? placeVise(job.hold, scope, piece) : null;
    return v?.ok ? v.value : null;
  }, [holding, job.hold, piece, scope]);
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    const jaws = vise?.jaws ?? [];
    s.setLines(
      "vise",
      jaws.map((j) => ({ points: pairs(boxEdges(j)), colour: p.ink, width: 1.4 })),
      jaws.map((j) => ({ positions: boxFaces(j), fill: { colour: p.steelDark, opacity: 0.28 } })),
    );
  }, [scene, vise, light]);
  return vise;
}
