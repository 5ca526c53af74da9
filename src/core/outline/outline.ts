import { distance2, v2, type Vec2 } from "../geometry/vec";
import { COINCIDENT } from "../geometry/tolerance";

/** Straight piece of an outline. */
export interface Line {
  kind: "line";
  from: Vec2;
  to: Vec2;
}
/** Arc of a circle, exact. Angles in radians, counter-clockwise positive; lengths in millimetres. */
export interface Arc {
  kind: "arc";
  centre: Vec2;
  radius: number;
  start: number;
  sweep: number;
}
export type Segment = Line | Arc;
/** A closed chain of segments, counter-clockwise. */
export type Loop = Segment[];
/** One closed region: an outer loop and the loops of its holes. */
export interface Outline {
  outer: Loop;
  holes: Loop[];
}

export const arcPoint = (a: Arc, t: number): Vec2 =>
  v2(a.centre.x + a.radius * Math.cos(a.start + a.sweep * t), a.centre.y + a.radius * Math.sin(a.start + a.sweep * t));
export const startOf = (s: Segment): Vec2 => (s.kind === "line" ? s.from : arcPoint(s, 0));
export const endOf = (s: Segment): Vec2 => (s.kind === "line" ? s.to : arcPoint(s, 1));
export const segmentLength = (s: Segment): number =>
  s.kind === "line" ? distance2(s.from, s.to) : Math.abs(s.sweep) * s.radius;
export const perimeter = (loop: Loop): number => loop.reduce((sum, s) => sum + segmentLength(s), 0);

/**
 * Area of a loop, positive when counter-clockwise.
 * Green's theorem over the chords, plus the segment r²(φ - sin φ)/2 between each arc and its chord.
 */
export function loopArea(loop: Loop): number {
  let area = 0;
  for (const s of loop) {
    const a = startOf(s),
      b = endOf(s);
    area += (a.x * b.y - b.x * a.y) / 2;
    if (s.kind === "arc") area += (s.radius * s.radius * (s.sweep - Math.sin(s.sweep))) / 2;
  }
  return area;
}

export const outlineArea = (o: Outline): number => loopArea(o.outer) - o.holes.reduce((sum, h) => sum + loopArea(h), 0);

/** Whole circle, counter-clockwise. */
export const circle = (radius: number, centre: Vec2 = v2(0, 0)): Loop => [
  { kind: "arc", centre, radius, start: 0, sweep: 2 * Math.PI },
];

/**
 * Closed loop through convex corners (counter-clockwise), each rounded with `radius`.
 * The tangent length at a corner of interior angle φ is r / tan(φ/2).
 * @returns null when the rounds of two neighbours do not fit on the wall between them
 */
export function roundedLoop(corners: Vec2[], radius: number): Loop | null {
  const n = corners.length;
  if (radius <= 0) return corners.map((from, i) => ({ kind: "line", from, to: corners[(i + 1) % n] }));
  const rounds = corners.map((c, i) => {
    const before = corners[(i + n - 1) % n],
      after = corners[(i + 1) % n];
    const a = Math.atan2(before.y - c.y, before.x - c.x),
      b = Math.atan2(after.y - c.y, after.x - c.x);
    let inner = a - b;
    while (inner < 0) inner += 2 * Math.PI;
    const tangent = radius / Math.tan(inner / 2);
    const reach = radius / Math.sin(inner / 2);
    const middle = b + inner / 2;
    const centre = v2(c.x + reach * Math.cos(middle), c.y + reach * Math.sin(middle));
    return {
      tangent,
      centre,
      sweep: Math.PI - inner,
      enter: v2(c.x + tangent * Math.cos(a), c.y + tangent * Math.sin(a)),
      leave: v2(c.x + tangent * Math.cos(b), c.y + tangent * Math.sin(b)),
    };
  });
  const loop: Loop = [];
  for (let i = 0; i < n; i++) {
    const here = rounds[i],
      next = rounds[(i + 1) % n];
    const wall = distance2(corners[i], corners[(i + 1) % n]);
    const used = here.tangent + next.tangent;
    if (used > wall * (1 + COINCIDENT)) return null;
    loop.push({
      kind: "arc",
      centre: here.centre,
      radius,
      start: Math.atan2(here.enter.y - here.centre.y, here.enter.x - here.centre.x),
      sweep: here.sweep,
    });
    if (wall - used > COINCIDENT) loop.push({ kind: "line", from: here.leave, to: next.enter });
  }
  return loop;
}

/** A convex loop as straight walls with rounds between them. */
export interface ConvexShape {
  corners: Vec2[];
  radius: number;
}

/** The rectangle between two corners, counter-clockwise from the lower left. */
export const rectangleBetween = (min: Vec2, max: Vec2): Loop =>
  roundedLoop([v2(min.x, min.y), v2(max.x, min.y), v2(max.x, max.y), v2(min.x, max.y)], 0)!;

/** Corners of a rectangle, counter-clockwise from the lower left. `corner` puts the lower left at 0,0. */
export function rectangleCorners(l: number, w: number, corner = false): Vec2[] {
  const x = corner ? 0 : -l / 2,
    y = corner ? 0 : -w / 2;
  return [v2(x, y), v2(x + l, y), v2(x + l, y + w), v2(x, y + w)];
}

/** Corners of a regular polygon with a flat facing -y, from its distance across flats: R = (AF/2) / cos(π/n). */
export function polygonCorners(sides: number, acrossFlats: number): Vec2[] {
  const r = acrossFlats / 2 / Math.cos(Math.PI / sides);
  return Array.from({ length: sides }, (_, i) => {
    const a = -Math.PI / 2 - Math.PI / sides + (2 * Math.PI * i) / sides;
    return v2(r * Math.cos(a), r * Math.sin(a));
  });
}

/** Across flats of a polygon given across corners, measured as the circle through them. */
export const flatsFromCorners = (sides: number, acrossCorners: number): number =>
  acrossCorners * Math.cos(Math.PI / sides);

/** The loop turned about 0,0 and then moved. */
export function moveLoop(loop: Loop, by: Vec2, turn = 0): Loop {
  const c = Math.cos(turn),
    s = Math.sin(turn);
  const p = (q: Vec2): Vec2 =>
    turn === 0 ? v2(q.x + by.x, q.y + by.y) : v2(q.x * c - q.y * s + by.x, q.x * s + q.y * c + by.y);
  return loop.map((g) =>
    g.kind === "line"
      ? { kind: "line", from: p(g.from), to: p(g.to) }
      : { ...g, centre: p(g.centre), start: g.start + turn },
  );
}

/** Smallest box of a loop in its plane; arcs count with their quadrant points. */
export function loopBox(loop: Loop): { min: Vec2; max: Vec2 } {
  const points: Vec2[] = [];
  for (const s of loop) {
    points.push(startOf(s), endOf(s));
    if (s.kind === "arc")
      for (let q = -8; q <= 8; q++) {
        const t = ((q * Math.PI) / 2 - s.start) / s.sweep;
        if (t > 0 && t < 1) points.push(arcPoint(s, t));
      }
  }
  return {
    min: v2(Math.min(...points.map((p) => p.x)), Math.min(...points.map((p) => p.y))),
    max: v2(Math.max(...points.map((p) => p.x)), Math.max(...points.map((p) => p.y))),
  };
}

/** Points along a loop, for drawing and for hit tests; the outline itself stays exact. */
export function sampleLoop(loop: Loop, step = Math.PI / 36): Vec2[] {
  return loop.flatMap((s) => {
    if (s.kind === "line") return [s.from];
    const n = Math.max(2, Math.ceil(Math.abs(s.sweep) / step));
    return Array.from({ length: n }, (_, i) => arcPoint(s, i / n));
  });
}
