import { useEffect, useMemo } from "react";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { fromFrame, length, sub, type Frame, type Vec2, type Vec3 } from "@/core/geometry/vec";
import type { Job } from "@/core/job";
import type { PlaneRef } from "@/core/rows";
import { useLight } from "../../common/light";
import { useBench } from "../../store/benchStore";
import { readPalette } from "../ink";
import type { NamedPoint } from "../Marks";
import type { SceneRef } from "./useScene";

/** Half the side of the square a plane is drawn as, and the length of its axes, as shares of the part's diagonal. */
const SHARE = { half: 0.35, axis: 0.18 };

/** The named plane that is looked at: of the shelf, or the one the open row stands on. */
function shownFrame(job: Job, evaluation: Evaluation | null, shown: string | null, open: string | null) {
  const planes = evaluation?.solved.planes ?? [];
  const body = job.rows.find((r) => r.id === open)?.body as { plane?: PlaneRef } | undefined;
  const named = body?.plane?.on === "named" ? body.plane.plane.toLowerCase() : null;
  return planes.find((p) => p.id === shown) ?? planes.find((p) => p.name.toLowerCase() === named) ?? null;
}

/** A named plane drawn as a square with its little axes. @returns what is written beside it */
export function useShownPlane(scene: SceneRef, job: Job, evaluation: Evaluation | null): NamedPoint[] {
  const shown = useBench((s) => (s.step === "shape" ? s.planeShown : null));
  const open = useBench((s) => (s.step === "shape" ? s.openRow : null));
  const light = useLight((s) => s.light);
  const plane = useMemo(() => shownFrame(job, evaluation, shown, open), [job, evaluation, shown, open]);
  const box = evaluation?.part?.box ?? null;
  const frame = plane?.frame ?? null;
  const size = box ? length(sub(box.max, box.min)) : 0;
  useEffect(() => {
    const p = readPalette();
    if (!frame || !box || !size) return scene.current!.setLines("planes", []);
    const { square, axes } = linesOf(frame, centreOn(frame, box), size);
    scene.current!.setLines("planes", [
      { points: square, colour: p.ink, width: 1, opacity: 0.6 },
      { points: axes, colour: p.ink, width: 1.8, onTop: true },
    ]);
  }, [scene, frame, box, size, light]);
  return useMemo(() => {
    if (!plane || !frame || !box) return [];
    const c = centreOn(frame, box);
    const at = (x: number, y: number) => fromFrame(frame, { x: c.x + x * size, y: c.y + y * size });
    return [
      { name: plane.name, at: at(-SHARE.half, SHARE.half) },
      { name: "x", at: at(SHARE.axis, 0) },
      { name: "y", at: at(0, SHARE.axis) },
    ];
  }, [plane, frame, box, size]);
}

/** The middle of the part, seen square to the plane. */
function centreOn(frame: Frame, { min, max }: { min: Vec3; max: Vec3 }): Vec2 {
  const middle = { x: (min.x + max.x) / 2, y: (min.y + max.y) / 2, z: (min.z + max.z) / 2 };
  const d = sub(middle, frame.origin);
  const along = (a: Vec3) => d.x * a.x + d.y * a.y + d.z * a.z;
  return { x: along(frame.x), y: along(frame.y) };
}

function linesOf(frame: Frame, c: Vec2, size: number): { square: number[]; axes: number[] } {
  const at = (x: number, y: number) => {
    const p = fromFrame(frame, { x: c.x + x * size, y: c.y + y * size });
    return [p.x, p.y, p.z];
  };
  const h = SHARE.half;
  const corners: [number, number][] = [
    [-h, -h],
    [h, -h],
    [h, h],
    [-h, h],
  ];
  const square = corners.flatMap(([x, y], i) => {
    const [u, v] = corners[(i + 1) % 4];
    return [...at(x, y), ...at(u, v)];
  });
  return { square, axes: [...at(0, 0), ...at(SHARE.axis, 0), ...at(0, 0), ...at(0, SHARE.axis)] };
}
