import { useEffect, useMemo } from "react";
import { boxOfMeshes, placedMesh } from "@/core/geometry/placedMesh";
import { scale, v3, type Box } from "@/core/geometry/vec";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { useSetups } from "../../store/setupsStore";
import { readPalette } from "../ink";
import type { SceneRef } from "./useScene";

/** How far wide open jaws stand off, as a share of what stands there. */
const WIDE = 0.25;
const none = () => false;

/** The setup that is looked at: the piece on its datum, and what holds it, as far open as the slider says. */
export function useSetup(scene: SceneRef): Box | null {
  const holding = useBench((s) => s.step === "hold");
  const bodies = useSetups((s) => s.bodies);
  const opened = useSetups((s) => s.opened);
  const light = useLight((s) => s.light);
  const shown = holding && bodies.length > 0;
  const size = useMemo(() => {
    const box = boxOfMeshes(bodies.map((b) => placedMesh(b.mesh, b.place)));
    return box && Math.hypot(box.max.x - box.min.x, box.max.y - box.min.y);
  }, [bodies]);
  const laid = useMemo(
    () =>
      bodies.map((b) => ({
        is: b.is,
        mesh: placedMesh(b.mesh, b.place, b.opens ? scale(b.opens, opened * WIDE * (size ?? 0)) : v3(0, 0, 0)),
      })),
    [bodies, opened, size],
  );
  useEffect(() => {
    const s = scene.current!;
    const palette = readPalette();
    s.setPalette(palette);
    const jaws = { ...palette, steelLight: palette.jawLight, steel: palette.jaw, steelDark: palette.jawDark };
    const others = shown ? laid.filter((b) => b.is !== "piece") : [];
    s.setBodies(others.map(({ is, mesh }) => ({ mesh, palette: is === "holder" ? jaws : palette })));
    const piece = shown ? laid.find((b) => b.is === "piece") : undefined;
    if (piece) {
      s.setPart(piece.mesh, none, none);
      s.setCross(0.08 * (size ?? 1));
    } else s.setCross(null);
  }, [scene, laid, shown, size, light]);
  // The view is fitted to the jaws as they are closed: it does not jump while they are opened.
  return useMemo(() => (shown ? boxOfMeshes(bodies.map((b) => placedMesh(b.mesh, b.place))) : null), [bodies, shown]);
}
