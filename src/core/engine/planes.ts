import {
  dot,
  fromFrame,
  sideFrame,
  sideNormal,
  toFrame,
  v3,
  boxInFrame,
  type Box,
  type Frame,
  type Side,
} from "../geometry/vec";
import { fail, ok, type Result } from "../base/result";
import type { PlanePlace } from "../rows";
import type { SolidKernel } from "./kernel";
import { CONTACT, PARALLEL } from "../geometry/tolerance";

/** What a finished row offers to later ones: where it starts, its floor, its top. */
export interface RowPlanes {
  start: Frame | null;
  floor: Frame | null;
  top: Frame | null;
}

/** The outermost flat of a state that looks to a side; where none does, the outermost point. */
export function sideOffset(kernel: SolidKernel, key: string, side: Side): { offset: number; flat: boolean } {
  const n = sideNormal(side);
  let best = -Infinity;
  for (const f of kernel.flats(key)) if (dot(f.normal, n) > PARALLEL) best = Math.max(best, dot(f.point, n));
  if (best > -Infinity) return { offset: best, flat: true };
  return { offset: extent(kernel.measure(key).box, side), flat: false };
}

/** How far a box reaches to a side. */
export const extent = (box: Box, side: Side): number => {
  const n = sideNormal(side);
  return Math.max(dot(box.min, n), dot(box.max, n));
};

/**
 * The frame a cut starts on, already `start` below its plane.
 * @param earlier planes of the rows before this one, by row id
 */
export function frameOf(
  place: PlanePlace,
  kernel: SolidKernel,
  key: string | null,
  earlier: Map<string, RowPlanes>,
  nameOf: (id: string) => string,
): Result<Frame> {
  if (place.on === "origin") return ok(sideFrame("top", place.z));
  let frame: Frame;
  if (place.on === "floorOf" || place.on === "topOf") {
    const planes = earlier.get(place.row);
    if (!planes)
      return fail(`${nameOf(place.row)} is no row before this one`, {
        expected: "the number of an earlier row that is on",
      });
    const found = place.on === "floorOf" ? planes.floor : planes.top;
    if (!found)
      return fail(`${nameOf(place.row)} has no ${place.on === "floorOf" ? "floor" : "top"}`, {
        expected: place.on === "floorOf" ? "a pocket, step, groove or flat hole with a depth" : "a leave row",
      });
    frame = found;
  } else {
    if (key === null) return fail("there is nothing to cut yet", { expected: "a LEAVE row first" });
    frame = sideFrame(place.on, sideOffset(kernel, key, place.on).offset);
  }
  return ok(place.start ? lowered(frame, place.start) : frame);
}

/** The same plane, a distance deeper in the material. */
export const lowered = (f: Frame, depth: number): Frame => ({ ...f, origin: fromFrame(f, { x: 0, y: 0 }, depth) });

/** Depth from a frame to just beyond the far side of a box. */
export const depthThrough = (f: Frame, box: Box): number => -boxInFrame(f, box).min.z + 1;

/**
 * The side of a plane, as x or y of its coordinates: by direction in space where that lies in the plane, else as
 * seen.
 */
export function sideInPlane(frame: Frame, side: Side): { axis: "x" | "y"; sign: 1 | -1 } {
  const n = sideNormal(side);
  for (const axis of ["x", "y"] as const) {
    const d = dot(frame[axis], n);
    if (Math.abs(d) > 0.5) return { axis, sign: d > 0 ? 1 : -1 };
  }
  const seen: Record<Side, { axis: "x" | "y"; sign: 1 | -1 }> = {
    left: { axis: "x", sign: -1 },
    right: { axis: "x", sign: 1 },
    front: { axis: "y", sign: -1 },
    back: { axis: "y", sign: 1 },
    bottom: { axis: "y", sign: -1 },
    top: { axis: "y", sign: 1 },
  };
  return seen[side];
}

/** Box, in the coordinates of a frame, of the faces lying in its plane; of the whole part where none does. */
export function outlineBox(kernel: SolidKernel, key: string, frame: Frame): Box {
  const part = boxInFrame(frame, kernel.measure(key).box);
  let min = v3(Infinity, Infinity, 0),
    max = v3(-Infinity, -Infinity, 0);
  for (const f of kernel.faces(key)) {
    if (
      f.surface !== "plane" ||
      dot(f.normal, frame.normal) < PARALLEL ||
      Math.abs(toFrame(frame, f.point).z) > CONTACT
    )
      continue;
    const b = boxInFrame(frame, f.box);
    min = v3(Math.min(min.x, b.min.x), Math.min(min.y, b.min.y), 0);
    max = v3(Math.max(max.x, b.max.x), Math.max(max.y, b.max.y), 0);
  }
  return min.x === Infinity ? part : { min, max };
}
