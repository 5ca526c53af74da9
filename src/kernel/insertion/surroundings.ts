import type { TopoDS_Face } from "replicad-opencascadejs";
import { cross, dot, unit, v2, v3, type Box, type Vec2, type Vec3 } from "@/core/geometry/vec";
import type { FaceInfo } from "@/core/engine/kernel";
import type { FaceCache } from "../faceCache";
import type { OC } from "../oc";
import { edgesOf, freeEdges, samples, type Turned } from "../topology";
import {
  ahead,
  apart2,
  aside,
  boxOf2,
  crosses,
  CLEAR,
  ringClear,
  stretchClear,
  type Box2,
  type Silhouette,
} from "./silhouette";
import { COINCIDENT, EXACTLY_PARALLEL, ROUNDING } from "@/core/geometry/tolerance";

/** A direction with two axes across it: everything is looked at along it. */
export interface Sight {
  normal: Vec3;
  x: Vec3;
  y: Vec3;
}
export const flatten = (s: Sight, p: Vec3): Vec2 => v2(dot(p, s.x), dot(p, s.y));

export function sightAlong(normal: Vec3): Sight {
  const rough = Math.abs(normal.z) > 0.9 ? v3(1, 0, 0) : v3(0, 0, 1);
  const y = unit(cross(normal, rough));
  return { normal, x: cross(y, normal), y };
}

/** An edge of a flat in pieces, each bulging from its chord by at most `sag`. */
interface Border {
  points: Vec2[];
  sag: number;
  box: Box2;
}
/** A flat as a region: its borders in the plane it is looked at in. */
export type Region = Border[];

/** What a face of the part is to a cut that goes down beside it. */
export interface Obstacle {
  low: number;
  high: number;
  box: Box2;
  /** A flat across the sight: which face it is, and whether it looks against the cut. */
  flat?: { face: number; up: boolean };
  /** A wall along the sight, seen as a stretch. */
  wall?: [Vec2, Vec2];
  /** Round about an axis along the sight: all of it lies between two radii. */
  ring?: { centre: Vec2; inner: number; outer: number };
  /** The mouth of the cut the face belongs to: all of it lies under that. */
  under?: Region;
  /** The face itself, measured when its box and its cut's mouth do not settle it. */
  precise?: () => Obstacle;
}

/** What stands round a cut, looked at along one direction. */
export interface Surroundings {
  sight: Sight;
  obstacles: Obstacle[];
  regions: Map<number, Region>;
}

const along = (a: Vec3, b: Vec3) => Math.abs(dot(a, b)) > EXACTLY_PARALLEL;

/** Heights and widths of a box, looked at along a sight. */
function spread(sight: Sight, box: Box): { low: number; high: number; box: Box2 } {
  const corners = [box.min.x, box.max.x].flatMap((x) =>
    [box.min.y, box.max.y].flatMap((y) => [box.min.z, box.max.z].map((z) => v3(x, y, z))),
  );
  const heights = corners.map((c) => dot(c, sight.normal));
  return {
    low: Math.min(...heights),
    high: Math.max(...heights),
    box: boxOf2(corners.map((c) => flatten(sight, c))),
  };
}

function ringOf(sight: Sight, info: FaceInfo, turned: Turned | null): Obstacle["ring"] {
  if (turned && along(turned.axis, sight.normal))
    return { centre: flatten(sight, turned.centre), inner: turned.inner, outer: turned.outer };
  if (info.surface !== "cylinder" || !info.axis || !along(info.axis.direction, sight.normal)) return undefined;
  const radius = info.radius as number;
  return { centre: flatten(sight, info.axis.origin), inner: radius, outer: radius };
}

const isMainAxis = (v: Vec3) => Math.max(Math.abs(v.x), Math.abs(v.y), Math.abs(v.z)) > EXACTLY_PARALLEL;

/** A plane along the sight is a stretch: its box's diagonal that lies in the plane. Boxes fit only main directions. */
function wallOf(sight: Sight, info: FaceInfo, box: Box2): Obstacle["wall"] {
  if (info.surface !== "plane" || Math.abs(dot(info.normal, sight.normal)) > COINCIDENT) return undefined;
  if (!isMainAxis(sight.normal) || !isMainAxis(sight.x)) return undefined;
  const n = flatten(sight, info.normal);
  const rising = n.x * n.y < 0;
  return rising ? [box.min, box.max] : [v2(box.min.x, box.max.y), v2(box.max.x, box.min.y)];
}

/** Whether a face is a flat across the sight. */
export function isLevel(cache: FaceCache, face: TopoDS_Face, sight: Sight): boolean {
  const flat = cache.flat(face);
  return flat !== null && along(flat.normal, sight.normal);
}

/** What a face is to a cut beside it. */
export function obstacleOf(cache: FaceCache, face: TopoDS_Face, index: number, sight: Sight): Obstacle {
  const flat = cache.flat(face);
  if (flat && along(flat.normal, sight.normal)) {
    const height = dot(flat.point, sight.normal);
    const { box } = spread(sight, cache.box(face));
    return { low: height, high: height, box, flat: { face: index, up: dot(flat.normal, sight.normal) > 0 } };
  }
  // Most faces are told apart by their boxes: what one is more closely is asked of those that are near.
  const s = spread(sight, cache.box(face));
  let known: Obstacle | null = null;
  const read = (): Obstacle => {
    const info = cache.info(face);
    return { ...s, wall: wallOf(sight, info, s.box), ring: ringOf(sight, info, cache.turned(face)) };
  };
  return { ...s, precise: () => (known ??= read()) };
}

/** The borders of a flat face. */
export function regionOf(oc: OC, face: TopoDS_Face, sight: Sight): Region {
  const raw = edgesOf(oc, [face]);
  const region = raw.map(({ edge }) => {
    const points = samples(oc, edge).map((p) => flatten(sight, p));
    return { points, sag: sagOf(points), box: boxOf2(points, sagOf(points)) };
  });
  freeEdges(raw);
  return region;
}

/** How far an arc leaves its chords, from three of its points: none for a line. */
export function sagOf(points: Vec2[]): number {
  if (points.length < 3) return 0;
  // Between neighbouring points of a circle the way bulges by about a quarter of what it bulges over two of them.
  let most = 0;
  for (let i = 1; i + 1 < points.length; i++) {
    const [a, b, c] = [points[i - 1], points[i], points[i + 1]];
    const chord = Math.hypot(c.x - a.x, c.y - a.y);
    if (chord < ROUNDING) continue;
    most = Math.max(most, Math.abs((c.x - a.x) * (b.y - a.y) - (c.y - a.y) * (b.x - a.x)) / chord);
  }
  return most / 2;
}

export const borderOf = (s: Silhouette): Border => ({ points: [...s.points, s.points[0]], sag: s.sag, box: s.box });

/** Whether a silhouette meets none of a region's borders and has none of them within it. */
function clearOfBorders(region: Region, s: Silhouette): boolean {
  return region.every(
    (b) => apart2(b.box, s.box) || b.points.slice(1).every((q, i) => stretchClear(b.points[i], q, b.sag, s)),
  );
}

/** Whether a ray from a point can meet a box at all. */
function mayMeet(p: Vec2, { min, max }: Box2): boolean {
  const corners = [min, max, v2(min.x, max.y), v2(max.x, min.y)];
  const across = corners.map((c) => aside(c) - aside(p));
  return Math.min(...across) <= 0 && Math.max(...across) >= 0 && corners.some((c) => ahead(c) >= ahead(p));
}

/** Whether a point lies in a region: crossings of a ray, border by border. */
function inRegion(region: Region, p: Vec2): boolean {
  let inside = false;
  for (const { points, box } of region) {
    if (!mayMeet(p, box)) continue;
    for (let i = 1; i < points.length; i++) if (crosses(p, points[i - 1], points[i])) inside = !inside;
  }
  return inside;
}

type Lie = "in" | "out" | "across";

/** How a silhouette lies to a flat: wholly in it, wholly out of it, or across a border of it. */
export function lieOf(region: Region, s: Silhouette): Lie {
  if (!clearOfBorders(region, s)) return "across";
  return inRegion(region, s.points[0]) ? "in" : "out";
}

/** A wall of a cut that was put in: it lies under the cut's mouth, which is known; what it is itself is read when asked. */
export function obstacleUnder(under: Region, low: number, high: number, read: () => Obstacle): Obstacle {
  const box = boxOf2(under.flatMap((b) => [b.box.min, b.box.max]));
  let known: Obstacle | null = null;
  return { low, high, box, under, precise: () => (known ??= read()) };
}

/** Whether an obstacle that is no flat keeps out of a silhouette. */
export function keepsOut(o: Obstacle, s: Silhouette): boolean {
  if (apart2(o.box, s.box)) return true;
  if (o.under && lieOf(o.under, s) === "out") return true;
  if (o.precise) return keepsOut(o.precise(), s);
  if (o.wall) return stretchClear(o.wall[0], o.wall[1], 0, s);
  if (o.ring) return ringClear(o.ring.centre, o.ring.inner, o.ring.outer, s);
  return false;
}

export const heightsApart = (o: Obstacle, low: number, high: number): boolean =>
  o.high < low - CLEAR || o.low > high + CLEAR;
export const levelWith = (o: Obstacle, height: number): boolean => Math.abs(o.low - height) < 1e-7;
