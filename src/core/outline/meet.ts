import { add2, distance2, v2, type Vec2 } from "../geometry/vec";
import { arcPoint, endOf, startOf, type Arc, type Line, type Segment } from "./outline";
import { COINCIDENT, ROUNDING } from "../geometry/tolerance";

/** Points closer than this are one, mm. */
export const SAME = 1e-7;

export const reversed = (s: Segment): Segment =>
  s.kind === "line" ? { kind: "line", from: s.to, to: s.from } : { ...s, start: s.start + s.sweep, sweep: -s.sweep };
export const pointAt = (s: Segment, t: number): Vec2 =>
  s.kind === "line" ? v2(s.from.x + (s.to.x - s.from.x) * t, s.from.y + (s.to.y - s.from.y) * t) : arcPoint(s, t);
/** Unit direction of travel at t. */
export function directionAt(s: Segment, t: number): Vec2 {
  if (s.kind === "line") {
    const l = distance2(s.from, s.to) || 1;
    return v2((s.to.x - s.from.x) / l, (s.to.y - s.from.y) / l);
  }
  const a = s.start + s.sweep * t,
    d = Math.sign(s.sweep);
  return v2(-Math.sin(a) * d, Math.cos(a) * d);
}
/** Share along a segment of a point that lies on it (or on its line or circle). */
export function parameterOf(s: Segment, p: Vec2): number {
  if (s.kind === "line") {
    const dx = s.to.x - s.from.x,
      dy = s.to.y - s.from.y;
    return ((p.x - s.from.x) * dx + (p.y - s.from.y) * dy) / (dx * dx + dy * dy || 1);
  }
  let a = (Math.atan2(p.y - s.centre.y, p.x - s.centre.x) - s.start) / Math.sign(s.sweep);
  const turn = Math.abs(s.sweep),
    slack = SAME / s.radius;
  while (a < -slack) a += 2 * Math.PI;
  while (a > 2 * Math.PI - slack) a -= 2 * Math.PI;
  // A hair before the start counts as the start.
  return a / turn;
}
export const lengthOf = (s: Segment) => (s.kind === "line" ? distance2(s.from, s.to) : Math.abs(s.sweep) * s.radius);
const within = (s: Segment, t: number) => {
  const e = (2 * SAME) / Math.max(lengthOf(s), SAME);
  return t >= -e && t <= 1 + e;
};
export const onSegment = (s: Segment, p: Vec2): boolean => distanceTo(s, p) < 2 * SAME;

/** Distance of a point from a segment. */
export function distanceTo(s: Segment, p: Vec2): number {
  if (s.kind === "line") {
    const t = Math.max(0, Math.min(1, parameterOf(s, p)));
    return distance2(p, pointAt(s, t));
  }
  const t = parameterOf(s, p);
  return t >= 0 && t <= 1
    ? Math.abs(distance2(p, s.centre) - s.radius)
    : Math.min(distance2(p, startOf(s)), distance2(p, endOf(s)));
}

/** Crossings of the lines or circles two segments lie on. */
export function carriers(a: Segment, b: Segment): Vec2[] {
  if (a.kind === "line" && b.kind === "line") {
    const ux = a.to.x - a.from.x,
      uy = a.to.y - a.from.y,
      vx = b.to.x - b.from.x,
      vy = b.to.y - b.from.y,
      d = ux * vy - uy * vx;
    if (Math.abs(d) < ROUNDING * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return [];
    const t = ((b.from.x - a.from.x) * vy - (b.from.y - a.from.y) * vx) / d;
    return [v2(a.from.x + ux * t, a.from.y + uy * t)];
  }
  if (a.kind === "line") return lineCircle(a, b as Arc);
  if (b.kind === "line") return lineCircle(b, a);
  const d = distance2(a.centre, b.centre);
  if (d < SAME) return [];
  const x = (d * d + a.radius * a.radius - b.radius * b.radius) / (2 * d),
    h2 = a.radius * a.radius - x * x;
  const ex = (b.centre.x - a.centre.x) / d,
    ey = (b.centre.y - a.centre.y) / d;
  if (h2 < -SAME * a.radius * 2) return [];
  const h = Math.sqrt(Math.max(0, h2)),
    m = v2(a.centre.x + x * ex, a.centre.y + x * ey);
  return h < Math.sqrt(SAME * a.radius) * 0.01 ? [m] : [v2(m.x - h * ey, m.y + h * ex), v2(m.x + h * ey, m.y - h * ex)];
}
function lineCircle(l: Line, c: Arc): Vec2[] {
  const len = distance2(l.from, l.to) || 1,
    ux = (l.to.x - l.from.x) / len,
    uy = (l.to.y - l.from.y) / len;
  const t = (c.centre.x - l.from.x) * ux + (c.centre.y - l.from.y) * uy,
    fx = l.from.x + t * ux,
    fy = l.from.y + t * uy;
  const d = Math.hypot(c.centre.x - fx, c.centre.y - fy),
    h2 = c.radius * c.radius - d * d;
  if (h2 < -SAME * c.radius * 2) return [];
  const h = Math.sqrt(Math.max(0, h2));
  return h < Math.sqrt(SAME * c.radius) * 0.01
    ? [v2(fx, fy)]
    : [v2(fx - h * ux, fy - h * uy), v2(fx + h * ux, fy + h * uy)];
}

/** Points two segments have in common: crossings, touches, and the ends of stretches they share. */
export function meetings(a: Segment, b: Segment): Vec2[] {
  const out = carriers(a, b).filter((p) => within(a, parameterOf(a, p)) && within(b, parameterOf(b, p)));
  for (const p of [startOf(b), endOf(b)]) if (onSegment(a, p)) out.push(p);
  for (const p of [startOf(a), endOf(a)]) if (onSegment(b, p)) out.push(p);
  return out.filter((p, i) => out.findIndex((q) => distance2(p, q) < 4 * SAME) === i);
}

/** A segment cut at points that lie on it; pieces of no length are left out. */
export function splitAt(s: Segment, points: Vec2[]): Segment[] {
  const e = (4 * SAME) / Math.max(lengthOf(s), SAME);
  const t = points
    .map((p) => parameterOf(s, p))
    .filter((x) => x > e && x < 1 - e)
    .sort((x, y) => x - y)
    .filter((x, i, all) => i === 0 || x - all[i - 1] > e);
  return [0, ...t].map((from, i): Segment => {
    const to = t[i] ?? 1;
    return s.kind === "line"
      ? { kind: "line", from: pointAt(s, from), to: pointAt(s, to) }
      : { ...s, start: s.start + s.sweep * from, sweep: s.sweep * (to - from) };
  });
}

/** Neighbouring pieces of one line or one circle made one again. */
export function merged(loop: Segment[]): Segment[] {
  const out: Segment[] = [];
  const joins = (a: Segment, b: Segment): Segment | null => {
    if (a.kind === "line" && b.kind === "line") {
      const d = directionAt(a, 1),
        e = directionAt(b, 0);
      return Math.abs(d.x * e.y - d.y * e.x) < COINCIDENT && d.x * e.x + d.y * e.y > 0
        ? { kind: "line", from: a.from, to: b.to }
        : null;
    }
    if (
      a.kind === "arc" &&
      b.kind === "arc" &&
      Math.sign(a.sweep) === Math.sign(b.sweep) &&
      distance2(a.centre, b.centre) < 2 * SAME &&
      Math.abs(a.radius - b.radius) < 2 * SAME &&
      Math.abs(a.sweep + b.sweep) <= 2 * Math.PI + COINCIDENT
    )
      return { ...a, sweep: a.sweep + b.sweep };
    return null;
  };
  for (const s of loop) {
    const j = out.length ? joins(out[out.length - 1], s) : null;
    if (j) out[out.length - 1] = j;
    else out.push(s);
  }
  if (out.length > 1) {
    const j = joins(out[out.length - 1], out[0]);
    if (j) {
      out[0] = j;
      out.pop();
    }
  }
  return out;
}

/**
 * A segment moved to the left of its way, mm; to the right with a negative distance.
 * @param least an arc of a radius under this is nothing: null
 */
export function parallel(s: Segment, left: number, least = SAME): Segment | null {
  if (s.kind === "line") {
    const u = directionAt(s, 0);
    const aside = v2(-u.y * left, u.x * left);
    return { kind: "line", from: add2(s.from, aside), to: add2(s.to, aside) };
  }
  const radius = s.radius - Math.sign(s.sweep) * left;
  return radius > least ? { ...s, radius } : null;
}

/** How far along a segment or one beside it a point lies, in its direction: a length, or an angle from the arc's start. */
export function placeOn(e: Segment, p: Vec2): number {
  if (e.kind === "line") {
    const u = directionAt(e, 0);
    return (p.x - e.from.x) * u.x + (p.y - e.from.y) * u.y;
  }
  const turn = Math.sign(e.sweep);
  const middle = e.start + e.sweep / 2;
  const off = Math.atan2(p.y - e.centre.y, p.x - e.centre.x) - middle;
  return Math.abs(e.sweep) / 2 + turn * Math.atan2(Math.sin(off), Math.cos(off));
}
