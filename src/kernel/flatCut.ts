import earcut from "earcut";
import type { Vec2 } from "@/core/geometry/vec";

/** Triangles of a flat in its own plane, counter-clockwise: corners as x, y pairs, three of their numbers a triangle. */
export interface FlatTriangles {
  corners: number[];
  triangles: number[];
}

type Triangle = [number, number, number];

const cornerAt = ({ corners }: FlatTriangles, i: number): Vec2 => ({ x: corners[2 * i], y: corners[2 * i + 1] });
const sideOf = (a: Vec2, b: Vec2, p: Vec2): number => (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);

export const ringArea = (r: Vec2[]): number =>
  r.reduce((sum, p, i) => sum + p.x * r[(i + 1) % r.length].y - p.y * r[(i + 1) % r.length].x, 0) / 2;

/** Ears of an outer ring less its holes, as numbers into all their points; every triangle counter-clockwise. */
export function earsOf(rings: Vec2[][]): number[] {
  const points = rings.flat();
  const starts = rings.slice(1).map((_, i) => rings.slice(0, i + 1).reduce((n, r) => n + r.length, 0));
  const out = earcut(
    points.flatMap((p) => [p.x, p.y]),
    starts,
  );
  for (let i = 0; i < out.length; i += 3)
    if (sideOf(points[out[i]], points[out[i + 1]], points[out[i + 2]]) < 0)
      [out[i + 1], out[i + 2]] = [out[i + 2], out[i + 1]];
  return out;
}

/** Whether a point lies within the circle through three others that run counter-clockwise. */
function inCircle(a: Vec2, b: Vec2, c: Vec2, p: Vec2): boolean {
  const [ax, ay, bx, by, cx, cy] = [a.x - p.x, a.y - p.y, b.x - p.x, b.y - p.y, c.x - p.x, c.y - p.y];
  const [a2, b2, c2] = [ax * ax + ay * ay, bx * bx + by * by, cx * cx + cy * cy];
  const det = a2 * (bx * cy - cx * by) - b2 * (ax * cy - cx * ay) + c2 * (ax * by - bx * ay);
  return det > ROUND_ENOUGH * (a2 + b2 + c2) ** 2;
}
const ROUND_ENOUGH = 1e-10;

/**
 * Flips the side two triangles share wherever the other diagonal of the two is the better one (Lawson, 1977): thin
 * triangles reach far, and the next ring would touch many of them.
 */
export function betterSides(points: Vec2[], triangles: number[]): number[] {
  const out = [...triangles];
  const sides = new Map<number, number>();
  const keyOf = (a: number, b: number) => a * points.length + b;
  const note = (t: number) => {
    for (let k = 0; k < 3; k++) sides.set(keyOf(out[t + k], out[t + ((k + 1) % 3)]), t);
  };
  for (let t = 0; t < out.length; t += 3) note(t);
  const open = [...sides.keys()];
  for (let guard = 30 * out.length; open.length && guard > 0; guard--) {
    const key = open.pop() as number;
    const [a, b] = [Math.floor(key / points.length), key % points.length];
    const [t, u] = [sides.get(key), sides.get(keyOf(b, a))];
    if (t === undefined || u === undefined) continue;
    const [c, d] = [t, u].map((w) => out.slice(w, w + 3).find((i) => i !== a && i !== b) as number);
    const convex = sideOf(points[c], points[d], points[b]) > 0 && sideOf(points[d], points[c], points[a]) > 0;
    if (!convex || !inCircle(points[a], points[b], points[c], points[d])) continue;
    sides.delete(key);
    sides.delete(keyOf(b, a));
    [out[t], out[t + 1], out[t + 2]] = [a, d, c];
    [out[u], out[u + 1], out[u + 2]] = [d, b, c];
    note(t);
    note(u);
    open.push(keyOf(a, d), keyOf(d, b), keyOf(b, c), keyOf(c, a));
  }
  return out;
}

const areaOf = (points: Vec2[], triangles: number[]): number => {
  let sum = 0;
  for (let i = 0; i < triangles.length; i += 3)
    sum += sideOf(points[triangles[i]], points[triangles[i + 1]], points[triangles[i + 2]]) / 2;
  return sum;
};

/** Whether two stretches meet; what only just touches does. */
function meet(a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean {
  return sideOf(a, b, c) * sideOf(a, b, d) <= 0 && sideOf(c, d, a) * sideOf(c, d, b) <= 0;
}

function inside(p: Vec2, ring: Vec2[]): boolean {
  let within = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [a, b] = [ring[i], ring[j]];
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x)) within = !within;
  }
  return within;
}

function touches([a, b, c]: Vec2[], ring: Vec2[], box: Vec2[]): boolean {
  const beside = (p: Vec2, q: Vec2) => box.every((corner) => sideOf(p, q, corner) < 0);
  if (beside(a, b) || beside(b, c) || beside(c, a)) return false;
  if (ring.some((p) => sideOf(a, b, p) >= 0 && sideOf(b, c, p) >= 0 && sideOf(c, a, p) >= 0)) return true;
  if (inside(a, ring)) return true;
  return ring.some((p, i) => {
    const q = ring[(i + 1) % ring.length];
    return meet(a, b, p, q) || meet(b, c, p, q) || meet(c, a, p, q);
  });
}

/** Numbers of the triangles a ring touches: by their boxes first, for most are far from it. */
function touched(flat: FlatTriangles, ring: Vec2[]): number[] {
  const { corners, triangles } = flat;
  const xs = ring.map((p) => p.x);
  const ys = ring.map((p) => p.y);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const box = [left, right].flatMap((x) => [low, high].map((y) => ({ x, y })));
  const list: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [2 * triangles[t], 2 * triangles[t + 1], 2 * triangles[t + 2]];
    if (corners[a] < left && corners[b] < left && corners[c] < left) continue;
    if (corners[a] > right && corners[b] > right && corners[c] > right) continue;
    if (corners[a + 1] < low && corners[b + 1] < low && corners[c + 1] < low) continue;
    if (corners[a + 1] > high && corners[b + 1] > high && corners[c + 1] > high) continue;
    const three = [0, 1, 2].map((k) => cornerAt(flat, triangles[t + k]));
    if (touches(three, ring, box)) list.push(t);
  }
  return list;
}

/** The ways round a patch of triangles, as numbers of corners; null where one corner is passed twice. */
function waysRound(patch: Triangle[]): number[][] | null {
  const next = new Map<string, [number, number]>();
  for (const [a, b, c] of patch)
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ])
      if (!next.delete(`${to},${from}`)) next.set(`${from},${to}`, [from, to]);
  const onward = new Map<number, number>();
  for (const [from, to] of next.values()) {
    if (onward.has(from)) return null;
    onward.set(from, to);
  }
  const ways: number[][] = [];
  while (onward.size) {
    const start = onward.keys().next().value as number;
    const way: number[] = [];
    for (let at = start; onward.has(at);) {
      way.push(at);
      const to = onward.get(at) as number;
      onward.delete(at);
      at = to;
    }
    ways.push(way);
  }
  return ways;
}

/** How far the area of a patch may be from what it should be, relative. */
const SAME_AREA = 1e-7;

/**
 * Cuts a ring out of triangles: those it touches are made anew round it, all others stay. Ear clipping over a whole
 * flat costs with the square of its holes; this costs what the ring touches.
 * The new ring's points come after the corners there are.
 * @returns false where it could not be done so, and nothing is changed then
 */
export function cutOut(flat: FlatTriangles, ring: Vec2[]): boolean {
  const hit = touched(flat, ring);
  const patch = hit.map((t): Triangle => [flat.triangles[t], flat.triangles[t + 1], flat.triangles[t + 2]]);
  const ways = waysRound(patch);
  if (!ways?.length) return false;
  const rounds = ways.map((way) => way.map((i) => cornerAt(flat, i)));
  const outer = rounds.findIndex((r) => ringArea(r) > 0);
  if (outer < 0 || rounds.some((r, i) => i !== outer && ringArea(r) > 0)) return false;
  const order = [outer, ...rounds.keys()].filter((i, k) => k === 0 || i !== outer);
  const rings = [...order.map((i) => rounds[i]), ring];
  const count = flat.corners.length / 2;
  const numbers = [...order.flatMap((i) => ways[i]), ...ring.map((_, i) => count + i)];
  const points = rings.flat();
  const ears = betterSides(points, earsOf(rings));
  const wanted = order.reduce((sum, i) => sum + ringArea(rounds[i]), 0) - Math.abs(ringArea(ring));
  if (Math.abs(areaOf(points, ears) - wanted) > SAME_AREA * Math.max(Math.abs(wanted), 1e-6)) return false;
  replace(
    flat.triangles,
    hit,
    ears.map((i) => numbers[i]),
  );
  for (const p of ring) flat.corners.push(p.x, p.y);
  return true;
}

/** Puts triangles in the place of others: the list stays without gaps. */
function replace(triangles: number[], gone: number[], fresh: number[]): void {
  const room = [...gone];
  let k = 0;
  for (; k < fresh.length && room.length; k += 3) triangles.splice(room.shift() as number, 3, ...fresh.slice(k, k + 3));
  for (; k < fresh.length; k += 3) triangles.push(fresh[k], fresh[k + 1], fresh[k + 2]);
  for (const t of room.reverse()) triangles.splice(t, 3);
}
