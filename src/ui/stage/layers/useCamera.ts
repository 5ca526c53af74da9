import { useEffect, useMemo, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import { sectionView, viewOf } from "@/core/engine/views";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { boxOf, type Box } from "@/core/geometry/vec";
import type { ViseSetup } from "@/core/hold/vise";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { useBench } from "../../store/benchStore";
import { framed, withPiece, type CloseUp } from "../closeUp";
import type { SceneRef } from "./useScene";

/** Sizes that differ by less than this many decimals of a millimetre are looked at from the same place. */
const DECIMALS = 2;

/**
 * Fitting: when the view changes, or the piece becomes another size. A small outline is looked at closely, and the
 * view stays while it is typed.
 */
export function useCamera(
  scene: SceneRef,
  evaluation: Evaluation | null,
  vise: ViseSetup | null,
  drawn: EvaluatedOutline | null,
  printLaid: boolean,
  inSetup: Box | null,
): void {
  const { view, section, proving, showStock, openOutline, fits } = useBench(
    useShallow((s) => ({
      view: s.view,
      section: s.section,
      proving: s.step === "proof",
      showStock: s.showStock,
      openOutline: s.openOutline,
      fits: s.fits,
    })),
  );
  // Rows come one by one: what stands of the part is looked at before all of it is worked out.
  const standing = useBench((s) => (evaluation ? null : (s.picture?.measure.box ?? null)));
  const part = evaluation?.part?.box ?? standing;
  const placed = evaluation?.stock?.placed ?? null;
  const closeUp = useRef<CloseUp | null>(null);
  const fittedBy = useRef(fits);
  const bounds = useMemo((): Box | null => {
    if (inSetup) return inSetup;
    const piece = placed && showStock ? placed.box : part;
    if (drawn?.box) {
      if (fittedBy.current !== fits) closeUp.current = null;
      fittedBy.current = fits;
      closeUp.current = framed(closeUp.current, openOutline!, drawn.box);
      return withPiece(closeUp.current, piece);
    }
    return piece && vise ? boxOf([piece.min, piece.max, ...vise.jaws.flatMap((j) => [j.min, j.max])]) : piece;
  }, [placed, showStock, part, vise, drawn, openOutline, inSetup, fits]);
  // With a print over it a section is looked at straight on, as the print shows it.
  const straight = view === "section" && proving && printLaid;
  const viewKey = `${view}${view === "section" ? section.side : ""}${straight}`;
  const fitted = useRef("");
  useEffect(() => {
    const s = scene.current!;
    // With nothing there yet the view is the right way up all the same: an outline that is begun is drawn in it.
    const seen = bounds ?? EMPTY;
    s.setBounds(seen.min, seen.max);
    const sizeKey = `${viewKey}|${fits}|${sizeOf(seen)}`;
    if (fitted.current === sizeKey) return;
    fitted.current = sizeKey;
    if (view === "section") s.look(straight ? viewOf[section.side] : sectionView(section.side), !straight);
    else s.look(viewOf[view], view === "pictorial");
  }, [scene, bounds, view, viewKey, fits, section.side, straight]);
}

/** What is looked at before there is anything, mm. */
const EMPTY: Box = { min: { x: -25, y: -25, z: -1 }, max: { x: 25, y: 25, z: 1 } };

const sizeOf = ({ min, max }: Box): string =>
  [min.x, min.y, min.z, max.x, max.y, max.z].map((n) => n.toFixed(DECIMALS)).join();
