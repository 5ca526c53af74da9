import { distance2, v2, type Vec2 } from "../geometry/vec";
import { loopArea, loopBox, type Loop, type Segment } from "./outline";
import {
  carriers,
  directionAt,
  distanceTo,
  meetings,
  onSegment,
  parallel,
  parameterOf,
  pointAt,
  reversed,
  SAME,
  splitAt,
} from "./meet";
import { stitch, withoutLooseEnds } from "./ends";
import { COINCIDENT, CONTACT, MEET } from "../geometry/tolerance";

/** Closed loops: what lies to their left is inside. Outer loops run counter-clockwise, holes clockwise. */
export type Region = Loop[];

const RAY = { to: v2(Math.cos(0.7123), Math.sin(0.7123)) };

/** Whether a point lies inside a region; on its boundary is undefined. Crossings of a ray that runs along no axis. */
export function insideRegion(region: Region, p: Vec2): boolean {
  let n = 0;
  const ray: Segment = { kind: "line", from: p, to: v2(p.x + RAY.to.x, p.y + RAY.to.y) };
  const across = p.y * RAY.to.x - p.x * RAY.to.y,
    along = p.x * RAY.to.x + p.y * RAY.to.y;
  for (const loop of region)
    for (const s of loop)
      if (reached(s, across, along))
        for (const q of carriers(ray, s)) {
          if ((q.x - p.x) * RAY.to.x + (q.y - p.y) * RAY.to.y <= 0) continue;
          const t = parameterOf(s, q);
          if (t >= 0 && t < 1) {
            // A touch is no crossing.
            const d = directionAt(s, t);
            if (Math.abs(d.x * RAY.to.y - d.y * RAY.to.x) > COINCIDENT) n++;
          }
        }
  return n % 2 === 1;
}

const spans = new WeakMap<Segment, [lo: number, hi: number, far: number]>();
/**
 * Whether the ray could meet a segment at all: what it takes up across the ray's direction, and how far along it
 * reaches.
 */
function reached(s: Segment, across: number, along: number): boolean {
  let w = spans.get(s);
  if (!w) {
    const u = (p: Vec2) => p.y * RAY.to.x - p.x * RAY.to.y,
      t = (p: Vec2) => p.x * RAY.to.x + p.y * RAY.to.y;
    w =
      s.kind === "line"
        ? [Math.min(u(s.from), u(s.to)), Math.max(u(s.from), u(s.to)), Math.max(t(s.from), t(s.to))]
        : [u(s.centre) - s.radius, u(s.centre) + s.radius, t(s.centre) + s.radius];
    spans.set(s, w);
  }
  return across >= w[0] - SAME && across <= w[1] + SAME && along <= w[2] + SAME;
}

/** Joins, takes away or overlaps two regions. Lines and arcs stay exact. */
export function combine(a: Region, b: Region, how: "join" | "cutout" | "overlap"): Region {
  const kept: Segment[] = [];
  // What lies beyond all of the other region is kept or dropped as it is.
  const pieces = (of: Region, other: Region, keep: boolean) => {
    const all = boxOfRegion(other),
      near = index(other.flat());
    return of.flatMap((loop) =>
      loop.flatMap((s) => {
        const q = boxOf(s);
        if (
          !all ||
          q.max.x < all.min.x - SAME ||
          all.max.x < q.min.x - SAME ||
          q.max.y < all.min.y - SAME ||
          all.max.y < q.min.y - SAME
        ) {
          if (keep) kept.push(s);
          return [];
        }
        return splitAt(
          s,
          near(q).flatMap((o) => meetings(s, o)),
        );
      }),
    );
  };
  const mine = pieces(a, b, how !== "overlap"),
    theirs = pieces(b, a, how === "join");
  const place = (s: Segment, other: (b: Flat) => Segment[], region: Region): "in" | "out" | "same" | "against" => {
    const m = pointAt(s, 0.5),
      d = directionAt(s, 0.5);
    for (const o of other({ min: m, max: m }))
      if (onSegment(o, m)) {
        const e = directionAt(o, Math.max(0, Math.min(1, parameterOf(o, m))));
        if (Math.abs(d.x * e.y - d.y * e.x) < MEET) return d.x * e.x + d.y * e.y > 0 ? "same" : "against";
      }
    return insideRegion(region, m) ? "in" : "out";
  };
  const nearTheirs = index(theirs),
    nearMine = index(mine);
  for (const s of mine) {
    const w = place(s, nearTheirs, b);
    if (
      w === (how === "overlap" ? "in" : "out") ||
      (w === "same" && how !== "cutout") ||
      (w === "against" && how === "cutout")
    )
      kept.push(s);
  }
  for (const s of theirs) {
    const w = place(s, nearMine, a);
    if (how === "join" ? w === "out" : w === "in") kept.push(how === "cutout" ? reversed(s) : s);
  }
  return stitch(withoutLooseEnds(kept)).loops.filter((l) => Math.abs(loopArea(l)) > COINCIDENT);
}

/**
 * Joins two regions; loops that lie apart from all of the other are taken over as they are, which is most of them
 * where a shape is repeated.
 */
export function joined(a: Region, b: Region): Region {
  const near = (l: Loop, other: Region) => {
    const p = boxOfLoop(l);
    return other.some((o) => {
      const q = boxOfLoop(o);
      return !(
        p.max.x < q.min.x - SAME ||
        q.max.x < p.min.x - SAME ||
        p.max.y < q.min.y - SAME ||
        q.max.y < p.min.y - SAME
      );
    });
  };
  const mine = a.filter((l) => near(l, b)),
    theirs = b.filter((l) => near(l, a));
  if (!mine.length || !theirs.length) return [...a, ...b];
  return [
    ...a.filter((l) => !mine.includes(l)),
    ...b.filter((l) => !theirs.includes(l)),
    ...combine(mine, theirs, "join"),
  ];
}

const boxOfRegion = (r: Region) => {
  const all = r.map(boxOfLoop);
  return all.length
    ? {
        min: v2(Math.min(...all.map((b) => b.min.x)), Math.min(...all.map((b) => b.min.y))),
        max: v2(Math.max(...all.map((b) => b.max.x)), Math.max(...all.map((b) => b.max.y))),
      }
    : null;
};
const loopBoxes = new WeakMap<Loop, { min: Vec2; max: Vec2 }>();
const boxOfLoop = (l: Loop) => {
  let b = loopBoxes.get(l);
  if (!b) loopBoxes.set(l, (b = loopBox(l)));
  return b;
};

const boxes = new WeakMap<Segment, { min: Vec2; max: Vec2 }>();
const boxOf = (s: Segment) => {
  let b = boxes.get(s);
  if (!b) boxes.set(s, (b = loopBox([s])));
  return b;
};
interface Flat {
  min: Vec2;
  max: Vec2;
}
/** Thrown where more pairs of elements come near one another than can be followed while somebody types. */
export class TooMany extends Error {}
let left = Infinity;
/** Runs geometry with a limit on the pairs it may look at. @throws TooMany beyond it */
export function within<T>(pairs: number, work: () => T): T {
  const before = left;
  left = pairs;
  try {
    return work();
  } finally {
    left = before;
  }
}

/** Finds the segments whose boxes come near a box. */
export function index(segments: Segment[]): (b: Flat) => Segment[] {
  const n = segments.length,
    x0 = new Float64Array(n),
    x1 = new Float64Array(n),
    y0 = new Float64Array(n),
    y1 = new Float64Array(n),
    e = 4 * SAME;
  segments.forEach((s, i) => {
    const b = boxOf(s);
    x0[i] = b.min.x - e;
    x1[i] = b.max.x + e;
    y0[i] = b.min.y - e;
    y1[i] = b.max.y + e;
  });
  return ({ min, max }) => {
    const out: Segment[] = [];
    for (let i = 0; i < n; i++)
      if (max.x >= x0[i] && min.x <= x1[i] && max.y >= y0[i] && min.y <= y1[i]) out.push(segments[i]);
    if ((left -= out.length) < 0) throw new TooMany();
    return out;
  };
}

/** Loops turned so that every one at even depth runs counter-clockwise and every hole clockwise. */
export function oriented(loops: Loop[]): Region {
  return loops.map((l, i) => {
    const p = pointAt(l[0], 0.37);
    const depth = loops.filter((o, k) => {
      if (k === i) return false;
      const b = boxOfLoop(o);
      return p.x > b.min.x && p.x < b.max.x && p.y > b.min.y && p.y < b.max.y && insideRegion([o], p);
    }).length;
    const ccw = loopArea(l) > 0;
    return ccw === (depth % 2 === 0) ? l : [...l].reverse().map(reversed);
  });
}

/**
 * A region grown by `by` to the outside (or shrunk, when negative), with exact arcs round its corners.
 * Every segment's parallel and an arc round every corner that opens; what comes nearer than the distance to the
 * region's boundary is left out.
 */
export function offsetRegion(region: Region, by: number): Region {
  if (Math.abs(by) < SAME) return region;
  const d = Math.abs(by),
    raw: Segment[] = [];
  for (const loop of region)
    loop.forEach((s, i) => {
      const p = parallel(s, -by);
      if (p) raw.push(p);
      const next = loop[(i + 1) % loop.length];
      const u = directionAt(s, 1),
        w = directionAt(next, 0);
      const turn = Math.atan2(u.x * w.y - u.y * w.x, u.x * w.x + u.y * w.y);
      // Turning away from the side the parallel lies on opens a gap there.
      // Where it turns right back, which way it turned is chance: the gap is there, or what it adds is left out again.
      const isBack = Math.abs(turn) > Math.PI - COINCIDENT;
      const opens = isBack || (by > 0 ? turn > COINCIDENT : turn < -COINCIDENT);
      if (!opens) return;
      const c = pointAt(s, 1),
        from = Math.atan2(-u.x * Math.sign(by), u.y * Math.sign(by));
      const isWrongWay = by > 0 ? turn < 0 : turn > 0;
      const sweep = isBack && isWrongWay ? turn + Math.sign(by) * 2 * Math.PI : turn;
      raw.push({ kind: "arc", centre: c, radius: d, start: from, sweep });
    });
  const crossing = index(raw),
    boundary = index(region.flat());
  const pieces = raw.flatMap((s) =>
    splitAt(
      s,
      crossing(boxOf(s)).flatMap((o) => (o === s ? [] : meetings(s, o))),
    ),
  );
  const clear = pieces.filter((s) =>
    [0.5, 0.13, 0.91].every((t) => {
      const m = pointAt(s, t);
      return boundary({ min: v2(m.x - d, m.y - d), max: v2(m.x + d, m.y + d) }).every(
        (o) => distanceTo(o, m) > d - CONTACT,
      );
    }),
  );
  // Two parallels on one another (a slot that just closes) cancel out.
  const others = index(clear);
  const alone = clear.filter(
    (s) =>
      !others(boxOf(s)).some(
        (o) =>
          o !== s &&
          distance2(pointAt(o, 0), pointAt(s, 1)) < CONTACT &&
          distance2(pointAt(o, 1), pointAt(s, 0)) < CONTACT &&
          onSegment(o, pointAt(s, 0.5)),
      ),
  );
  return stitch(withoutLooseEnds(alone)).loops.filter((l) => Math.abs(loopArea(l)) > COINCIDENT);
}

/** The band within `by` of an open chain, round at both ends. */
export const band = (chain: Segment[], by: number): Region =>
  offsetRegion([[...chain, ...[...chain].reverse().map(reversed)]], by);
