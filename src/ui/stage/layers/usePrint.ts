import { useEffect, useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import { viewOf } from "@/core/engine/views";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { v3 } from "@/core/geometry/vec";
import type { Job } from "@/core/job";
import type { NumberScope } from "@/core/number";
import { usePage } from "../../print/pagePicture";
import { useBench } from "../../store/benchStore";
import { layPrint } from "../printPlace";
import type { SceneRef } from "./useScene";

interface ShownPrint {
  /** Whether a stretch of a print is calibrated to the view at hand. */
  laid: boolean;
  opacity: number;
  /** How far the part is wiped away over it; null where it is not. */
  wipe: number | null;
}

/** The print over the view a stretch of it was calibrated to; over a section, the view the section is seen from. */
export function usePrint(
  scene: SceneRef,
  job: Job,
  evaluation: Evaluation | null,
  scope: NumberScope,
  tracing: boolean,
): ShownPrint {
  const b = useBench(
    useShallow((s) => ({
      shownView: s.view === "pictorial" ? "" : s.view === "section" ? s.section.side : s.view,
      proving: s.step === "proof",
      blink: s.blink,
      wipe: s.wipe,
      printOpacity: s.printOpacity,
      traceOpacity: s.traceOpacity,
    })),
  );
  const laid = useMemo(
    () =>
      job.prints
        .flatMap((q) => q.regions.map((region) => ({ print: q, region })))
        .find(({ region }) => region.view === b.shownView) ?? null,
    [job.prints, b.shownView],
  );
  const { picture: sheet } = usePage(laid?.print, laid?.region.page ?? 1);
  const part = evaluation?.part?.box ?? null;
  useEffect(() => {
    const at = laid && sheet && part ? layPrint(laid.region, laid.print.turn ?? 0, sheet.aspect, part, scope) : null;
    scene.current!.setPrint(at ? { url: sheet!.url, ...at } : null);
  }, [scene, laid, sheet, part, scope]);
  const wipe = laid && b.proving && !b.blink ? b.wipe : null;
  useEffect(
    () => scene.current!.setWipe(wipe, laid ? viewOf[laid.region.view].right : v3(1, 0, 0)),
    [scene, wipe, laid, sheet, part],
  );
  const opacity = opacityOf(b.blink || wipe !== null, b.proving ? b.printOpacity : tracing ? b.traceOpacity : 0);
  useEffect(() => scene.current!.setPrintOpacity(opacity), [scene, opacity]);
  return { laid: laid !== null, opacity, wipe };
}

const opacityOf = (whole: boolean, chosen: number): number => (whole ? 1 : chosen);
