import { problems } from "./problems";
import {
  add,
  boxInFrame,
  dot,
  fromFrame,
  scale,
  sideFrame,
  sideNormal,
  toFrame,
  unit,
  v3,
  type Box,
  type Frame,
  type Side,
  type Vec3,
} from "../geometry/vec";
import { axisDirections, frameAcross, motionTo, movedFrame, turnAbout, turnedFrame } from "../geometry/motion";
import { fail, ok, type Result } from "../base/result";
import type { PlaneMade, PlanePlace } from "../rows";
import type { Element } from "./element";
import type { SolidKernel } from "./kernel";
import { COINCIDENT, CONTACT, PARALLEL } from "../geometry/tolerance";
import {
  axisOfShape,
  flatOfShape,
  frameUp,
  middleOfShape,
  shaftOf,
  sideOfShape,
  type RowShape,
  type Shaft,
} from "./rowShape";

/** What a finished row offers to later ones: where it starts, its floor, its top, and the body it put there. */
export interface RowPlanes {
  start: Frame | null;
  floor: Frame | null;
  top: Frame | null;
  shape?: RowShape;
  /** What it put there, place by place, for repeats; without it the row cannot be repeated. */
  elements?: Element[];
  /** The axis a repeat turns about, where a row of the part has it. */
  axis?: Frame;
  /** Where the job's zero comes to lie with each copy of a repeat, without the original. */
  copies?: Frame[];
}

/** What planes are found on: a state, and what the rows before it offer. */
export interface Seat {
  kernel: SolidKernel;
  key: string | null;
  earlier: Map<string, RowPlanes>;
  nameOf: (id: string) => string;
  /** Where the part and what waits to be put on it can lie, where that is more than the part of `key`. */
  room?: Box;
}

/** Whether a plane touches a round: depths on it count from where the axis meets the face. */
export const isOnRound = (plane: PlanePlace): boolean =>
  plane.on === "roundOf" || (plane.on === "named" && plane.made.is === "tangent");

/** The outermost flat of a state that looks in a direction; where none does, the outermost point. */
export function offsetAlong(kernel: SolidKernel, key: string, n: Vec3): { offset: number; flat: boolean } {
  let best = -Infinity;
  for (const f of kernel.flats(key)) if (dot(f.normal, n) > PARALLEL) best = Math.max(best, dot(f.point, n));
  if (best > -Infinity) return { offset: best, flat: true };
  return { offset: kernel.reach(key, n), flat: false };
}
export const sideOffset = (kernel: SolidKernel, key: string, side: Side): { offset: number; flat: boolean } =>
  offsetAlong(kernel, key, sideNormal(side));

/** The frame a row starts on, already `start` below its plane. */
export function frameOf(place: PlanePlace, seat: Seat): Result<Frame> {
  if (place.on === "origin") return ok(sideFrame("top", place.z));
  const found = planeOfPlace(place, seat);
  return found.ok && place.start ? ok(lowered(found.value, place.start)) : found;
}

function planeOfPlace(place: Exclude<PlanePlace, { on: "origin" }>, seat: Seat): Result<Frame> {
  const { kernel, key } = seat;
  switch (place.on) {
    case "floorOf":
      return ofRow(place.row, seat, (p) => p.floor, "floor", "a pocket, step, groove or flat hole with a depth");
    case "topOf":
      return ofRow(place.row, seat, (p) => p.top ?? sideOf(p, "top"), "top", "a leave row");
    case "sideOf":
      return ofRow(place.row, seat, (p) => sideOf(p, place.side), `${place.side} side`, "a row with a body of its own");
    case "flatOf":
      return ofRow(
        place.row,
        seat,
        (p) => p.shape && flatOfShape(p.shape, place.flat),
        `flat ${place.flat}`,
        "a polygon, a block or an outline with so many straight sides",
      );
    case "roundOf":
      return shaftFrame(place, seat);
    case "frame":
      return ok(place.frame);
    case "named":
      return madePlane(place.made, seat);
    case "axis":
      return axisFrame(place, seat);
    default:
      // The first row stands on the main planes through the job's zero.
      return ok(sideFrame(place.on, key === null ? 0 : sideOffset(kernel, key, place.on).offset));
  }
}

const sideOf = (p: RowPlanes, side: Side): Frame | null => (p.shape ? sideOfShape(p.shape, side) : null);

/** What a row before this one offers. */
function ofRow<T>(
  row: string,
  { earlier, nameOf }: Seat,
  take: (p: RowPlanes) => T | null | undefined,
  what: string,
  expected: string,
): Result<T> {
  const planes = earlier.get(row);
  if (!planes) return fail(problems.notAnEarlierRow(nameOf(row)));
  const found = take(planes);
  return found ? ok(found) : fail(problems.rowLacks(nameOf(row), what), { expected });
}

/** The round outside of a row. */
export const shaftOfRow = (row: string, seat: Seat): Result<Shaft> =>
  ofRow(row, seat, (p) => p.shape && shaftOf(p.shape), "round outside", "a round, ring or turned row");

/** The line a row is made about, as a frame whose normal runs along it. */
export const axisOfRow = (row: string, seat: Seat): Result<Frame> =>
  ofRow(row, seat, (p) => p.shape && axisOfShape(p.shape), "axis", "a row with a body of its own");

export const middleOfRow = (row: string, seat: Seat): Result<Frame> =>
  ofRow(row, seat, (p) => p.shape && middleOfShape(p.shape), "middle", "a row with a body of its own");

function axisFrame(place: Extract<PlanePlace, { on: "axis" }>, seat: Seat): Result<Frame> {
  if (!("row" in place.axis)) return ok(turnedFrame(frameAcross(place.axis.along, place.axis.at), place.from));
  const frame = axisOfRow(place.axis.row, seat);
  return frame.ok ? ok(turnedFrame(frame.value, place.from)) : frame;
}

/** The plane that touches a row's round at an angle about its axis, y along the axis. */
function tangentFrame(shaft: Shaft, angle: number): Frame {
  const out = add(scale(shaft.frame.x, Math.cos(angle)), scale(shaft.frame.y, Math.sin(angle)));
  return frameUp(out, add(shaft.frame.origin, scale(out, shaft.radius)), shaft.frame.normal);
}

function shaftFrame(place: Extract<PlanePlace, { on: "roundOf" }>, seat: Seat): Result<Frame> {
  const shaft = shaftOfRow(place.row, seat);
  if (!shaft.ok) return shaft;
  const { frame, radius } = shaft.value;
  const tangent = tangentFrame(shaft.value, place.angle);
  // Along the axis from the job's zero; across it on the line where the plane touches the round.
  const foot = add(frame.origin, scale(frame.normal, place.along - dot(frame.origin, frame.normal)));
  return ok({ ...tangent, origin: add(foot, scale(tangent.normal, radius)) });
}

/** A named plane as it stands on a state. */
function madePlane(made: PlaneMade, seat: Seat): Result<Frame> {
  switch (made.is) {
    case "offset": {
      const from = frameOf(made.from, seat);
      return from.ok ? ok(lowered(from.value, -made.by)) : from;
    }
    case "midway":
      return midway(made, seat);
    case "tilt": {
      const { x, y, normal } = sideFrame("top", 0);
      const turning = turnAbout(made.at, axisDirections[made.about], made.angle);
      const [nx, ny, n] = [x, y, normal].map((d) => turning.direction(d));
      return ok({ origin: scale(n, dot(made.at, n)), x: nx, y: ny, normal: n });
    }
    case "tangent": {
      const shaft = shaftOfRow(made.row, seat);
      return shaft.ok ? ok(tangentFrame(shaft.value, made.angle)) : shaft;
    }
    case "index": {
      // What comes to lie on top when the piece is turned looked this way before.
      const back = turnAbout(v3(0, 0, 0), axisDirections[made.about], -made.angle);
      const { x, y, normal } = sideFrame("top", 0);
      const [nx, ny, n] = [x, y, normal].map((d) => back.direction(d));
      const offset = seat.key === null ? 0 : offsetAlong(seat.kernel, seat.key, n).offset;
      return ok({ origin: scale(n, offset), x: nx, y: ny, normal: n });
    }
    case "copy":
      return planeOfCopy(made, seat);
  }
}

/** A plane as a copy of a repeat has it, whether the copy is left out or not. */
function planeOfCopy({ copy, row, from }: Extract<PlaneMade, { is: "copy" }>, seat: Seat): Result<Frame> {
  const take = (p: RowPlanes) => p.copies?.[copy - 2];
  const zero = ofRow(row, seat, take, `copy ${copy}`, "a repeat of so many; the original is copy 1");
  if (!zero.ok) return zero;
  const frame = frameOf(from, seat);
  return frame.ok ? ok(movedFrame(frame.value, motionTo(zero.value))) : frame;
}

/** The plane half way between two others, looking as the first does; between planes that meet it halves their angle. */
function midway({ a, b }: { a: PlanePlace; b: PlanePlace }, seat: Seat): Result<Frame> {
  const first = frameOf(a, seat);
  if (!first.ok) return first;
  const second = frameOf(b, seat);
  if (!second.ok) return second;
  const [p, q] = [first.value, second.value];
  const c = dot(p.normal, q.normal);
  if (Math.abs(c) > PARALLEL) {
    const level = (dot(p.origin, p.normal) + Math.sign(c) * dot(q.origin, q.normal)) / 2;
    return ok({ ...p, origin: scale(p.normal, level) });
  }
  const n = unit(add(p.normal, q.normal));
  // The line both planes share lies in the one that halves them.
  const [d, e] = [dot(p.origin, p.normal), dot(q.origin, q.normal)];
  const on = add(scale(p.normal, (d - e * c) / (1 - c * c)), scale(q.normal, (e - d * c) / (1 - c * c)));
  return ok(frameUp(n, on, Math.abs(dot(p.y, n)) < 1 - COINCIDENT ? p.y : p.x));
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
