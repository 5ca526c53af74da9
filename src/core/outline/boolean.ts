import { distance2, v2, type Vec2 } from '../geometry/vec';
import { loopArea, loopBox, type Loop, type Segment } from './outline';
import { carriers, directionAt, distanceTo, meetings, onSegment, parameterOf, pointAt, reversed, SAME, splitAt, stitch } from './meet';

/** Closed loops: what lies to their left is inside. Outer loops run counter-clockwise, holes clockwise. */
export type Region = Loop[];

const RAY = { to: v2(Math.cos(0.7123), Math.sin(0.7123)) };

/** Whether a point lies inside a region; on its boundary is undefined. Crossings of a ray that runs along no axis. */
export function insideRegion(region: Region, p: Vec2): boolean {
  let n = 0;
  const ray: Segment = { kind: 'line', from: p, to: v2(p.x + RAY.to.x, p.y + RAY.to.y) };
  for (const loop of region) for (const s of loop) for (const q of carriers(ray, s)) {
    if ((q.x - p.x) * RAY.to.x + (q.y - p.y) * RAY.to.y <= 0) continue;
    const t = parameterOf(s, q);
    if (t >= 0 && t < 1) {
      // A touch is no crossing.
      const d = directionAt(s, t);
      if (Math.abs(d.x * RAY.to.y - d.y * RAY.to.x) > 1e-9) n++;
    }
  }
  return n % 2 === 1;
}

/** Joins, takes away or overlaps two regions. Lines and arcs stay exact. */
export function combine(a: Region, b: Region, how: 'join' | 'cutout' | 'overlap'): Region {
  const pieces = (of: Region, other: Region) => of.flatMap((loop) => loop.flatMap((s) => splitAt(s, other.flatMap((l) => l.flatMap((o) => (apart(s, o) ? [] : meetings(s, o)))))));
  const mine = pieces(a, b), theirs = pieces(b, a);
  const kept: Segment[] = [];
  const place = (s: Segment, other: Segment[], region: Region): 'in' | 'out' | 'same' | 'against' => {
    const m = pointAt(s, 0.5), d = directionAt(s, 0.5);
    for (const o of other) if (onSegment(o, m)) {
      const e = directionAt(o, Math.max(0, Math.min(1, parameterOf(o, m))));
      if (Math.abs(d.x * e.y - d.y * e.x) < 1e-5) return d.x * e.x + d.y * e.y > 0 ? 'same' : 'against';
    }
    return insideRegion(region, m) ? 'in' : 'out';
  };
  for (const s of mine) {
    const w = place(s, theirs, b);
    if (w === (how === 'overlap' ? 'in' : 'out') || (w === 'same' && how !== 'cutout') || (w === 'against' && how === 'cutout')) kept.push(s);
  }
  for (const s of theirs) {
    const w = place(s, mine, a);
    if (how === 'join' ? w === 'out' : w === 'in') kept.push(how === 'cutout' ? reversed(s) : s);
  }
  return stitch(kept).loops.filter((l) => Math.abs(loopArea(l)) > 1e-9);
}

const boxes = new WeakMap<Segment, { min: Vec2; max: Vec2 }>();
const boxOf = (s: Segment) => {
  let b = boxes.get(s);
  if (!b) boxes.set(s, (b = loopBox([s])));
  return b;
};
const apart = (s: Segment, o: Segment) => { const a = boxOf(s), b = boxOf(o); return a.max.x < b.min.x - SAME || b.max.x < a.min.x - SAME || a.max.y < b.min.y - SAME || b.max.y < a.min.y - SAME; };

/** Loops turned so that every one at even depth runs counter-clockwise and every hole clockwise. */
export function oriented(loops: Loop[]): Region {
  return loops.map((l, i) => {
    const p = pointAt(l[0], 0.37);
    const depth = loops.filter((o, k) => k !== i && insideRegion([o], p)).length;
    const ccw = loopArea(l) > 0;
    return ccw === (depth % 2 === 0) ? l : [...l].reverse().map(reversed);
  });
}

/**
 * A region grown by `by` to the outside (or shrunk, when negative), with exact arcs round its corners.
 * Every segment's parallel and an arc round every corner that opens; what comes nearer than the distance to the region's boundary is left out.
 */
export function offsetRegion(region: Region, by: number): Region {
  if (Math.abs(by) < SAME) return region;
  const d = Math.abs(by), raw: Segment[] = [];
  for (const loop of region) loop.forEach((s, i) => {
    const p = parallel(s, by);
    if (p) raw.push(p);
    const next = loop[(i + 1) % loop.length];
    const u = directionAt(s, 1), w = directionAt(next, 0);
    const turn = Math.atan2(u.x * w.y - u.y * w.x, u.x * w.x + u.y * w.y);
    // Turning away from the side the parallel lies on opens a gap there.
    const opens = by > 0 ? turn > 1e-9 || turn < -Math.PI + 1e-9 : turn < -1e-9;
    if (!opens) return;
    const c = pointAt(s, 1), from = Math.atan2(-u.x * Math.sign(by), u.y * Math.sign(by));
    const sweep = by > 0 && turn < 0 ? turn + 2 * Math.PI : turn;
    raw.push({ kind: 'arc', centre: c, radius: d, start: from, sweep });
  });
  const pieces = raw.flatMap((s, i) => splitAt(s, raw.flatMap((o, k) => (k === i || apart(s, o) ? [] : meetings(s, o)))));
  const boundary = region.flat();
  const clear = pieces.filter((s) => [0.5, 0.13, 0.91].every((t) => { const m = pointAt(s, t); return boundary.every((o) => distanceTo(o, m) > d - 1e-6); }));
  // Two parallels on one another (a slot that just closes) cancel out.
  const alone = clear.filter((s, i) => !clear.some((o, k) => k !== i && distance2(pointAt(o, 0), pointAt(s, 1)) < 1e-6 && distance2(pointAt(o, 1), pointAt(s, 0)) < 1e-6 && onSegment(o, pointAt(s, 0.5))));
  return stitch(alone).loops.filter((l) => Math.abs(loopArea(l)) > 1e-9);
}

/** A segment moved to its right by `by`; null where an arc shrinks to nothing. */
function parallel(s: Segment, by: number): Segment | null {
  if (s.kind === 'line') {
    const u = directionAt(s, 0), x = u.y * by, y = -u.x * by;
    return { kind: 'line', from: v2(s.from.x + x, s.from.y + y), to: v2(s.to.x + x, s.to.y + y) };
  }
  const radius = s.radius + (s.sweep > 0 ? by : -by);
  return radius > SAME ? { ...s, radius } : null;
}

/** The band within `by` of an open chain, round at both ends. */
export const band = (chain: Segment[], by: number): Region => offsetRegion([[...chain, ...[...chain].reverse().map(reversed)]], by);
