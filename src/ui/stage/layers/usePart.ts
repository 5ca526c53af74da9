import { useEffect } from "react";
import { useShallow } from "zustand/react/shallow";
import { sectionOrigin } from "@/core/engine/views";
import { isClaimed } from "@/core/print/claims";
import { sideNormal } from "@/core/geometry/vec";
import { useLight } from "../../common/light";
import { engine } from "../../engine/engine";
import { useBench } from "../../store/benchStore";
import { useSetups } from "../../store/setupsStore";
import { readPalette } from "../ink";
import type { SceneRef } from "./useScene";

const none = () => false;

/** The part, or what a section leaves of it; the row at hand in dye; and the ghost of what is being typed. */
export function usePart(scene: SceneRef): void {
  const b = useBench(
    useShallow((s) => ({
      picture: s.picture,
      view: s.view,
      section: s.section,
      lit: s.showRow ?? s.selected,
      claimed: s.step === "proof" ? s.claimed : null,
      picked: s.picked,
      measured: s.measured,
      ghost: s.ghost,
      holding: s.step === "hold",
    })),
  );
  const light = useLight((s) => s.light);
  // A setup draws its own piece, on its datum.
  const inSetup = useSetups((s) => s.bodies.length > 0) && b.holding;
  const { picture, view, section, lit, claimed, picked, measured, ghost } = b;
  useEffect(() => {
    const s = scene.current!;
    if (inSetup) return;
    s.setPalette(readPalette());
    if (!picture) return s.setPart(null, none, none);
    if (view !== "section") {
      const picks = new Set([picked?.face, ...measured.map((m) => m.face)]);
      const tagOf = (f: number) => picture.faces[f]?.tag ?? null;
      const isLit = (f: number) => (claimed ? isClaimed(claimed, tagOf(f)) : lit !== null && tagOf(f)?.row === lit);
      return s.setPart(picture.mesh, isLit, (f) => picks.has(f));
    }
    let live = true;
    const origin = sectionOrigin(picture.measure.box, section.side, section.at);
    engine()
      .section(picture.key, origin, sideNormal(section.side))
      .then(
        (r) => {
          if (live && r) s.setPart(r.mesh, none, none, new Set(r.sectionFaces));
        },
        () => {},
      );
    return () => {
      live = false;
    };
  }, [scene, picture, lit, claimed, picked, measured, view, section, light, inSetup]);
  useEffect(() => scene.current!.setGhost(ghost), [scene, ghost, light]);
}
