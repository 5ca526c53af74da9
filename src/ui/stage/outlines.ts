import type { Box, Frame, Vec3 } from "@/core/geometry/vec";
import { fromFrame } from "@/core/geometry/vec";
import { sampleLoop, type Loop } from "@/core/outline";
import type { PlacedStock } from "@/core/engine/placedStock";

const seg = (a: Vec3, b: Vec3): number[] => [a.x, a.y, a.z, b.x, b.y, b.z];

/** Twelve edges of a box, as point pairs. */
export function boxEdges(b: Box): [Vec3, Vec3][] {
  const p = (i: number): Vec3 => ({
    x: i & 1 ? b.max.x : b.min.x,
    y: i & 2 ? b.max.y : b.min.y,
    z: i & 4 ? b.max.z : b.min.z,
  });
  return [
    [0, 1],
    [1, 3],
    [3, 2],
    [2, 0],
    [4, 5],
    [5, 7],
    [7, 6],
    [6, 4],
    [0, 4],
    [1, 5],
    [2, 6],
    [3, 7],
  ].map(([i, j]) => [p(i), p(j)]);
}

/** A chain-dotted line, as stock is drawn: long, gap, short, gap. */
export function chainDotted(lines: [Vec3, Vec3][], unit: number): number[] {
  const pattern = [unit * 4, unit * 1.4, unit * 0.9, unit * 1.4];
  const out: number[] = [];
  for (const [a, b] of lines) {
    const d = { x: b.x - a.x, y: b.y - a.y, z: b.z - a.z };
    const l = Math.hypot(d.x, d.y, d.z);
    if (l < 1e-9) continue;
    const at = (t: number): Vec3 => ({ x: a.x + (d.x * t) / l, y: a.y + (d.y * t) / l, z: a.z + (d.z * t) / l });
    for (let t = 0, k = 0; t < l; t += pattern[k], k = (k + 1) % 4)
      if (k % 2 === 0) out.push(...seg(at(t), at(Math.min(l, t + pattern[k]))));
  }
  return out;
}

/** Edges of a stock: the box of a plate; two circles and four generators of a bar. */
/** Corners of a stock's section, counter-clockwise; a round in many. */
function sectionOf(s: PlacedStock): { x: number; y: number }[] {
  const { min, max } = s.box;
  const c = { x: (min.x + max.x) / 2, y: (min.y + max.y) / 2 };
  const ring = (radius: number, n: number, from: number) =>
    Array.from({ length: n }, (_, i) => ({
      x: c.x + radius * Math.cos(from + (2 * Math.PI * i) / n),
      y: c.y + radius * Math.sin(from + (2 * Math.PI * i) / n),
    }));
  if (s.diameter !== undefined) return ring(s.diameter / 2, ROUND, 0);
  if (s.flats !== undefined) return ring(s.flats / Math.sqrt(3), 6, 0);
  return [
    { x: min.x, y: min.y },
    { x: max.x, y: min.y },
    { x: max.x, y: max.y },
    { x: min.x, y: max.y },
  ];
}
const ROUND = 72;

/** Edges of a stock, as point pairs: its two ends and what stands between them. */
export function stockEdges(s: PlacedStock): [Vec3, Vec3][] {
  const corners = sectionOf(s);
  const { min, max } = s.box;
  const at = (i: number, z: number): Vec3 => ({ ...corners[i % corners.length], z });
  const out: [Vec3, Vec3][] = [];
  for (const z of [min.z, max.z]) corners.forEach((_, i) => out.push([at(i, z), at(i + 1, z)]));
  const upright = corners.length === ROUND ? [0, 1, 2, 3].map((k) => (k * ROUND) / 4 + 9) : corners.map((_, i) => i);
  for (const i of upright) out.push([at(i, min.z), at(i, max.z)]);
  return out;
}

/** The underside of a stock as triangles, for its hatching. */
export function stockBottom(s: PlacedStock): number[] {
  const corners = sectionOf(s);
  const { z } = s.box.min;
  return corners.slice(1, -1).flatMap((p, i) => [corners[0], p, corners[i + 2]].flatMap((q) => [q.x, q.y, z]));
}

export function boxFaces(b: Box): number[] {
  const p = (i: number): number[] => [i & 1 ? b.max.x : b.min.x, i & 2 ? b.max.y : b.min.y, i & 4 ? b.max.z : b.min.z];
  return [
    [0, 1, 3, 2],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 3, 7, 6],
    [0, 2, 6, 4],
    [1, 3, 7, 5],
  ].flatMap(([a, q, c, d]) => [a, q, c, a, c, d].flatMap(p));
}

/** A loop in space, as point pairs. */
export function loopLines(frame: Frame, loop: Loop, depth: number): number[] {
  const pts = sampleLoop(loop).map((p) => fromFrame(frame, p, depth));
  return pts.flatMap((p, i) => seg(p, pts[(i + 1) % pts.length]));
}

/** A cross at a drill point, and its axis. */
export function drillMark(frame: Frame, p: { x: number; y: number }, depth: number, size: number): number[] {
  const at = (dx: number, dy: number, d = 0) => fromFrame(frame, { x: p.x + dx, y: p.y + dy }, d);
  return [
    ...seg(at(-size, 0), at(size, 0)),
    ...seg(at(0, -size), at(0, size)),
    ...seg(at(0, 0, -size), at(0, 0, depth)),
  ];
}
export const pairs = (lines: [Vec3, Vec3][]): number[] => lines.flatMap(([a, b]) => seg(a, b));
