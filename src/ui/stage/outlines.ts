import type { Box, Frame, Vec3 } from "@/core/geometry/vec";
import { fromFrame } from "@/core/geometry/vec";
import { sampleLoop, type Loop } from "@/core/outline";
import type { PlacedStock } from "@/core/stock/stock";

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
export function stockEdges(s: PlacedStock): [Vec3, Vec3][] {
  if (s.shape === "plate") return boxEdges(s.box);
  const c = { x: (s.box.min.x + s.box.max.x) / 2, y: (s.box.min.y + s.box.max.y) / 2 },
    r = s.diameter! / 2,
    n = 72;
  const p = (i: number, z: number): Vec3 => ({
    x: c.x + r * Math.cos((2 * Math.PI * i) / n),
    y: c.y + r * Math.sin((2 * Math.PI * i) / n),
    z,
  });
  const out: [Vec3, Vec3][] = [];
  for (const z of [s.box.min.z, s.box.max.z]) for (let i = 0; i < n; i++) out.push([p(i, z), p(i + 1, z)]);
  for (let i = 0; i < n; i += n / 4) out.push([p(i + 9, s.box.min.z), p(i + 9, s.box.max.z)]);
  return out;
}

/** The underside of a stock as triangles, for its hatching. */
export function stockBottom(s: PlacedStock): number[] {
  const { min, max } = s.box;
  if (s.shape === "plate")
    return [
      [min.x, min.y],
      [max.x, min.y],
      [max.x, max.y],
      [min.x, min.y],
      [max.x, max.y],
      [min.x, max.y],
    ].flatMap(([x, y]) => [x, y, min.z]);
  const cx = (min.x + max.x) / 2,
    cy = (min.y + max.y) / 2,
    r = s.diameter! / 2,
    n = 72;
  return Array.from({ length: n }, (_, i) =>
    [0, i, i + 1].flatMap((k, j) =>
      j === 0
        ? [cx, cy, min.z]
        : [cx + r * Math.cos((2 * Math.PI * k) / n), cy + r * Math.sin((2 * Math.PI * k) / n), min.z],
    ),
  ).flat();
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
