import {
  cross,
  dot,
  fromFrame,
  scale,
  sideNormal,
  unit,
  type Frame,
  type Side,
  type Vec2,
  type Vec3,
} from "../geometry/vec";
import { COINCIDENT, PARALLEL } from "../geometry/tolerance";
import { arcPoint, endOf, loopArea, loopBox, rectangleBetween, startOf, type Loop, type Segment } from "../outline";
import { directionAt } from "../outline/meet";
import type { BodyStep, PlacedBody } from "./kernel";

/** What a row put there: its body as it was placed. */
export type RowShape = Pick<BodyStep, "op" | "frame" | "body" | "places">;

/** A flat of a body: a point of it and the way it looks, out of the body. */
interface Flat {
  point: Vec3;
  normal: Vec3;
}

const segmentsOf = (body: PlacedBody): Segment[] => {
  switch (body.body) {
    case "prism":
      return [body.outline, ...(body.more ?? [])].flatMap((o) => o.outer);
    case "turned":
      return body.outlines.flatMap((o) => o.outer);
    case "vee":
    case "wrappedVee":
      return body.chains.flat();
    case "tube":
    case "rib":
      return body.chain;
    case "wrapped":
      return body.outlines.flatMap((o) => o.outer);
    case "imported":
      return rectangleBetween(body.box.min, body.box.max);
    case "helix":
    case "revolved":
      return [];
  }
};

/** The loop of a body's outline, counter-clockwise; null where it has none. */
const loopOf = (body: PlacedBody): Loop | null => (body.body === "prism" ? body.outline.outer : null);

/** The straight walls of a prism, in the order of its outline's steps. */
export function wallsOf(shape: RowShape): Flat[] {
  const loop = loopOf(shape.body);
  if (!loop) return [];
  const turn = loopArea(loop) > 0 ? 1 : -1;
  const ordered = turn > 0 ? loop : [...loop].reverse();
  const at = shape.places[0];
  return ordered.flatMap((s): Flat[] => {
    if (s.kind !== "line") return [];
    const d = directionAt(s, 0);
    const out: Vec2 = { x: d.y * turn, y: -d.x * turn };
    const middle = { x: (s.from.x + s.to.x) / 2 + at.x, y: (s.from.y + s.to.y) / 2 + at.y };
    const normal = unit(sum(scale(shape.frame.x, out.x), scale(shape.frame.y, out.y)));
    return [{ point: fromFrame(shape.frame, middle), normal }];
  });
}
const sum = (a: Vec3, b: Vec3): Vec3 => ({ x: a.x + b.x, y: a.y + b.y, z: a.z + b.z });

/** Heights over its frame between which a body lies. */
export function levelsOfBody(body: PlacedBody): { low: number; high: number } {
  switch (body.body) {
    case "prism":
      return { low: -Math.max(body.from, body.to), high: -Math.min(body.from, body.to) };
    case "revolved": {
      const z = body.profile.map((p) => -p.z);
      return { low: Math.min(...z), high: Math.max(...z) };
    }
    case "turned": {
      const b = loopBox(segmentsOf(body));
      return { low: b.min.y, high: b.max.y };
    }
    case "vee":
    case "wrappedVee":
      return { low: -body.depth, high: 0 };
    case "helix":
    case "wrapped":
      return { low: -Math.max(body.from, body.to), high: -Math.min(body.from, body.to) };
    case "tube":
      return { low: -body.outer, high: body.outer };
    case "rib":
      return { low: body.depth === "next" ? 0 : -body.depth, high: 0 };
    case "imported":
      return { low: body.box.min.z, high: body.box.max.z };
  }
}

/** Flats across the frame's normal: where a body begins and ends. */
function endsOf({ frame, body, places }: RowShape): Flat[] {
  const { low, high } = levelsOfBody(body);
  return [
    { point: fromFrame(frame, places[0], -high), normal: frame.normal },
    { point: fromFrame(frame, places[0], -low), normal: scale(frame.normal, -1) },
  ];
}

/** How far a body reaches in a direction, about exactly where it is a prism or round about its axis. */
function reach(shape: RowShape, direction: Vec3): number {
  const { frame, body, places } = shape;
  const { low, high } = levelsOfBody(body);
  const inPlane = { x: dot(direction, frame.x), y: dot(direction, frame.y) };
  const along = dot(direction, frame.normal);
  const size = Math.hypot(inPlane.x, inPlane.y);
  const side =
    body.body === "revolved" || body.body === "turned" ? size * widest(body) : support(segmentsOf(body), inPlane);
  return (
    Math.max(...places.map((p) => dot(direction, fromFrame(frame, p)))) + side + Math.max(along * low, along * high)
  );
}
const widest = (body: PlacedBody): number =>
  body.body === "revolved" ? Math.max(...body.profile.map((p) => p.r)) : loopBox(segmentsOf(body)).max.x;

/** How far segments reach in a direction of their plane. */
function support(segments: Segment[], d: Vec2): number {
  let most = -Infinity;
  for (const s of segments) {
    for (const p of [startOf(s), endOf(s)]) most = Math.max(most, p.x * d.x + p.y * d.y);
    if (s.kind !== "arc") continue;
    let angle = (Math.atan2(d.y, d.x) - s.start) * Math.sign(s.sweep);
    while (angle < 0) angle += 2 * Math.PI;
    if (angle > Math.abs(s.sweep)) continue;
    const p = arcPoint(s, angle / Math.abs(s.sweep));
    most = Math.max(most, p.x * d.x + p.y * d.y);
  }
  return most;
}

/**
 * The plane of a side of what a row left or cut, looking out of the material: of what is left outwards, of what is cut
 * inwards. Its origin is the job's, dropped onto it.
 */
export function sideOfShape(shape: RowShape, side: Side): Frame {
  const n = sideNormal(side);
  const flats = [...wallsOf(shape), ...endsOf(shape)].filter((f) => dot(f.normal, n) > PARALLEL);
  const offset = flats.length ? Math.max(...flats.map((f) => dot(f.point, n))) : reach(shape, n);
  return facing(shape.op === "cut" ? scale(n, -1) : n, scale(n, offset));
}

/** The k-th upright flat of a row, its x to the right seen from outside, its y along the row's own normal. */
export function flatOfShape(shape: RowShape, k: number): Frame | null {
  const wall = wallsOf(shape)[k - 1];
  if (!wall) return null;
  const normal = shape.op === "cut" ? scale(wall.normal, -1) : wall.normal;
  return frameUp(normal, wall.point, shape.frame.normal);
}

/** A plane with a way up in it, its origin the job's own dropped onto it. */
export function frameUp(normal: Vec3, point: Vec3, up: Vec3): Frame {
  const y = unit(sum(up, scale(normal, -dot(up, normal))));
  return { origin: scale(normal, dot(point, normal)), x: cross(y, normal), y, normal };
}

/** The plane that looks a way, seen as the sheet's views are: Z up, or Y for what looks up or down. */
function facing(normal: Vec3, point: Vec3): Frame {
  const upright = Math.abs(normal.z) > 1 - COINCIDENT;
  return frameUp(normal, point, upright ? { x: 0, y: Math.sign(normal.z), z: 0 } : { x: 0, y: 0, z: 1 });
}

/** A row's round: its axis, where it begins and ends along it, and its radius. */
export interface Shaft {
  frame: Frame;
  radius: number;
  low: number;
  high: number;
}

/** The round outside of a row; null where it is not round about its own axis. */
export function shaftOf({ frame, body, places }: RowShape): Shaft | null {
  const { low, high } = levelsOfBody(body);
  const on: Frame = { ...frame, origin: fromFrame(frame, places[0]) };
  if (body.body === "turned" || body.body === "revolved") return { frame: on, radius: widest(body), low, high };
  const loop = loopOf(body);
  const arcs = loop?.every((s) => s.kind === "arc") ? loop : null;
  const first = arcs?.[0];
  if (first?.kind !== "arc" || Math.abs(Math.abs(first.sweep) - 2 * Math.PI) > COINCIDENT) return null;
  return { frame: { ...on, origin: fromFrame(on, first.centre) }, radius: first.radius, low, high };
}

/** The line a row is made about: its axis where it is round, else through its place along its plane's normal. */
export const axisOfShape = (shape: RowShape): Frame =>
  shaftOf(shape)?.frame ?? { ...shape.frame, origin: fromFrame(shape.frame, shape.places[0]) };

/** The plane half way between where a row begins and ends. */
export function middleOfShape({ frame, body }: RowShape): Frame {
  const { low, high } = levelsOfBody(body);
  return { ...frame, origin: fromFrame(frame, { x: 0, y: 0 }, -(low + high) / 2) };
}
