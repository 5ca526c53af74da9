import { distance2, type Vec2 } from "@/core/geometry/vec";

/** What lies nearer than this to something else is taken to touch it, mm. */
export const CLEAR = 1e-5;

export interface Box2 {
  min: Vec2;
  max: Vec2;
}

/** A closed way round what a cut takes, seen along its direction: points, and how far the true way leaves their chords. */
export interface Silhouette {
  points: Vec2[];
  sag: number;
  box: Box2;
}

export function boxOf2(points: Vec2[], more = 0): Box2 {
  const box = { min: { x: Infinity, y: Infinity }, max: { x: -Infinity, y: -Infinity } };
  for (const p of points) {
    box.min.x = Math.min(box.min.x, p.x - more);
    box.min.y = Math.min(box.min.y, p.y - more);
    box.max.x = Math.max(box.max.x, p.x + more);
    box.max.y = Math.max(box.max.y, p.y + more);
  }
  return box;
}
export const apart2 = (a: Box2, b: Box2): boolean =>
  a.max.x + CLEAR < b.min.x || b.max.x + CLEAR < a.min.x || a.max.y + CLEAR < b.min.y || b.max.y + CLEAR < a.min.y;

export const silhouette = (points: Vec2[], sag: number): Silhouette => ({ points, sag, box: boxOf2(points, sag) });

/** Least distance of a point from a stretch. */
function fromStretch(p: Vec2, a: Vec2, b: Vec2): number {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const square = dx * dx + dy * dy;
  const t = square > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / square)) : 0;
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

const sideOf = (a: Vec2, b: Vec2, p: Vec2): number => (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);

/** Least distance between two stretches; 0 where they cross. */
export function between(a: Vec2, b: Vec2, c: Vec2, d: Vec2): number {
  const crossing = sideOf(a, b, c) * sideOf(a, b, d) < 0 && sideOf(c, d, a) * sideOf(c, d, b) < 0;
  if (crossing) return 0;
  return Math.min(fromStretch(c, a, b), fromStretch(d, a, b), fromStretch(a, c, d), fromStretch(b, c, d));
}

/**
 * A ray is sent out aslant: level ones run through corners, for the corners of a print lie in rows. Coordinates along
 * and across it.
 */
const SLANT = { x: Math.cos(0.4142), y: Math.sin(0.4142) };
export const ahead = (p: Vec2): number => p.x * SLANT.x + p.y * SLANT.y;
export const aside = (p: Vec2): number => p.y * SLANT.x - p.x * SLANT.y;

/** Whether the ray from a point crosses a stretch. */
export function crosses(p: Vec2, a: Vec2, b: Vec2): boolean {
  const [va, vb, v] = [aside(a), aside(b), aside(p)];
  if (va > v === vb > v) return false;
  return ahead(p) < ahead(a) + ((v - va) / (vb - va)) * (ahead(b) - ahead(a));
}

/** Whether a point lies within a closed way (even and odd). */
export function within(p: Vec2, points: Vec2[]): boolean {
  let inside = false;
  for (let i = 0, j = points.length - 1; i < points.length; j = i++)
    if (crosses(p, points[i], points[j])) inside = !inside;
  return inside;
}

/** Whether a stretch (which may bulge by `sag`) stays out of a silhouette altogether: neither meets it nor lies in it. */
export function stretchClear(a: Vec2, b: Vec2, sag: number, s: Silhouette): boolean {
  const room = CLEAR + sag + s.sag;
  if (apart2(boxOf2([a, b], sag), s.box)) return true;
  for (let i = 0; i < s.points.length; i++)
    if (between(a, b, s.points[i], s.points[(i + 1) % s.points.length]) < room) return false;
  return !within(a, s.points);
}

/** Whether two silhouettes are apart, neither within the other. */
function silhouettesApart(a: Silhouette, b: Silhouette): boolean {
  if (apart2(a.box, b.box)) return true;
  return (
    a.points.every((p, i) => stretchClear(p, a.points[(i + 1) % a.points.length], a.sag, b)) &&
    !within(b.points[0], a.points)
  );
}

/**
 * Silhouettes in groups that meet one another, by their places in the list; null as soon as one group is larger than is
 * of use.
 */
export function groupsThatMeet(list: Silhouette[], most: number): number[][] | null {
  const left = new Set(list.keys());
  const groups: number[][] = [];
  for (const first of list.keys()) {
    if (!left.delete(first)) continue;
    const group = [first];
    for (let k = 0; k < group.length; k++)
      for (const other of [...left])
        if (!silhouettesApart(list[group[k]], list[other])) {
          left.delete(other);
          if (group.push(other) > most) return null;
        }
    groups.push(group);
  }
  return groups;
}

/** Whether all silhouettes are apart from each other: sorted along x, each against those it could touch. */
export function allApart(list: Silhouette[]): boolean {
  const sorted = [...list].sort((a, b) => a.box.min.x - b.box.min.x);
  for (let i = 0; i < sorted.length; i++)
    for (let j = i + 1; j < sorted.length && sorted[j].box.min.x <= sorted[i].box.max.x + CLEAR; j++)
      if (!silhouettesApart(sorted[i], sorted[j])) return false;
  return true;
}

/** Whether a ring between two radii stays out of a silhouette altogether: it lies within the ring's hole, or outside it. */
export function ringClear(centre: Vec2, inner: number, outer: number, s: Silhouette): boolean {
  const room = CLEAR + s.sag;
  if (s.points.every((p) => distance2(p, centre) + room < inner)) return true;
  if (within(centre, s.points)) return false;
  return s.points.every((p, i) => fromStretch(centre, p, s.points[(i + 1) % s.points.length]) - room > outer);
}
