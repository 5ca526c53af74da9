import { problems } from "./problems";
import { saidLength, saidMost, saidPlace } from "../number";
import { fail, ok, type Result } from "../base/result";
import { distance2, v2, type Vec2 } from "../geometry/vec";
import type { Made } from "./chains";
import { combine, oriented, type Region } from "./boolean";
import { circle, endOf, startOf, type Arc, type Loop, type Segment } from "./outline";
import { carriers, directionAt, parameterOf, pointAt, splitAt } from "./meet";
import { COINCIDENT, CONTACT, MEET, ROUNDING } from "../geometry/tolerance";

/** A corner of a loop: between segment `at` and the next one. */
interface Corner {
  loop: number;
  at: number;
  point: Vec2;
  turn: number;
}

/** Corners of loops; of chains that are open, with `isOpen`, those between their ends. */
export function cornersOf(region: Region, isOpen = false): Corner[] {
  return region.flatMap((loop, k) =>
    loop.flatMap((s, at): Corner[] => {
      if (isOpen && at === loop.length - 1) return [];
      const u = directionAt(s, 1),
        w = directionAt(loop[(at + 1) % loop.length], 0),
        turn = Math.atan2(u.x * w.y - u.y * w.x, u.x * w.x + u.y * w.y);
      return Math.abs(turn) > CONTACT ? [{ loop: k, at, point: endOf(s), turn }] : [];
    }),
  );
}

export type Which = "all" | "inside" | "outside" | Vec2[];
/** The corners meant; an outside corner is one where the outline turns to the left. */
function chosen(all: Corner[], which: Which): Result<Corner[]> {
  if (typeof which === "string") {
    const meant = which === "all" ? all : all.filter((c) => c.turn > 0 === (which === "outside"));
    return meant.length ? ok(meant) : fail(problems.noCornerOfSort(which === "all" ? "" : `${which} `));
  }
  const out: Corner[] = [];
  for (const p of which) {
    const c = all.find((k) => distance2(k.point, p) < MEET);
    if (!c) return fail(problems.noCorner(saidPlace(p)));
    out.push(c);
  }
  return ok(out);
}

/** Rounds or chamfers corners, of open chains too. What does not fit says the largest that does. */
export function treat(made: Made, treatment: "round" | "chamfer", size: number, which: Which): Result<Made> {
  const loops = made.region.length;
  const all = [...made.region, ...made.open];
  const open = cornersOf(made.open, true).map((c) => ({ ...c, loop: c.loop + loops }));
  const corners = chosen([...cornersOf(made.region), ...open], which);
  if (!corners.ok) return corners;
  const tryAt = (s: number): Made | null => {
    const out: Loop[] = [];
    for (const [k, loop] of all.entries()) {
      const mine = corners.value.filter((c) => c.loop === k).map((c) => c.at);
      const treated = mine.length ? treatLoop(loop, mine, treatment, s) : loop;
      if (!treated) return null;
      out.push(treated);
    }
    return { region: out.slice(0, loops), open: out.slice(loops) };
  };
  const done = tryAt(size);
  if (done) return ok(done);
  let lo = 0,
    hi = size;
  for (let i = 0; i < 40; i++) {
    const mid = (lo + hi) / 2;
    if (tryAt(mid)) lo = mid;
    else hi = mid;
  }
  const most = Math.floor(lo * 1e4) / 1e4;
  return fail(
    problems.cornerDoesNotFit(
      treatment === "round" ? "a round" : "a chamfer",
      saidLength(size),
      most > 0 ? `; the largest that does is ${saidMost(most)}` : " here",
    ),
    { path: "size", expected: most > 0 ? `at most ${saidMost(most)}` : "another corner" },
  );
}

interface Cut {
  end: Vec2;
  start: Vec2;
  middle: Segment;
}

function treatLoop(loop: Loop, at: number[], treatment: "round" | "chamfer", size: number): Loop | null {
  const n = loop.length,
    cuts = new Map<number, Cut>();
  for (const i of at) {
    const c =
      treatment === "round" ? roundCut(loop[i], loop[(i + 1) % n], size) : chamferCut(loop[i], loop[(i + 1) % n], size);
    if (!c) return null;
    cuts.set(i, c);
  }
  const out: Loop = [];
  for (let i = 0; i < n; i++) {
    const before = cuts.get((i + n - 1) % n),
      after = cuts.get(i),
      s = loop[i];
    const from = before ? parameterOf(s, before.start) : 0,
      to = after ? parameterOf(s, after.end) : 1;
    const whole = s.kind === "line" ? distance2(s.from, s.to) : Math.abs(s.sweep) * s.radius;
    if (from > to + 1e-7 / whole || from < -COINCIDENT || to > 1 + COINCIDENT) return null;
    if ((to - from) * whole > 1e-7)
      out.push(
        s.kind === "line"
          ? { kind: "line", from: pointAt(s, from), to: pointAt(s, to) }
          : { ...s, start: s.start + s.sweep * from, sweep: s.sweep * (to - from) },
      );
    if (after) out.push(after.middle);
  }
  return out;
}

/**
 * A full round through three lines: the line between two corners and its neighbours become one arc tangent to all
 * three.
 * Its centre lies on the bisectors of both corners.
 */
export function fullRound(region: Region, from: Vec2, to: Vec2): Result<Region> {
  for (let k = 0; k < region.length; k++) {
    const loop = region[k],
      n = loop.length;
    const i = loop.findIndex(
      (s) =>
        (distance2(startOf(s), from) < MEET && distance2(endOf(s), to) < MEET) ||
        (distance2(startOf(s), to) < MEET && distance2(endOf(s), from) < MEET),
    );
    if (i < 0) continue;
    const a = loop[(i + n - 1) % n],
      b = loop[i],
      c = loop[(i + 1) % n];
    if (a.kind !== "line" || b.kind !== "line" || c.kind !== "line") return fail(problems.fullRoundNeedsThreeLines());
    const u = directionAt(a, 1),
      v = directionAt(b, 0),
      w = directionAt(c, 0),
      side = u.x * v.y - u.y * v.x > 0 ? 1 : -1;
    if ((v.x * w.y - v.y * w.x) * side <= ROUNDING) return fail(problems.cornersTurnApart());
    // The centre at distance r to the inner side of all three: c = P + s v + r m, with m square to the middle line.
    const m = v2(-v.y * side, v.x * side),
      half1 = Math.atan2(Math.abs(u.x * v.y - u.y * v.x), -(u.x * v.x + u.y * v.y)) / 2,
      half2 = Math.atan2(Math.abs(v.x * w.y - v.y * w.x), -(v.x * w.x + v.y * w.y)) / 2;
    const r = distance2(b.from, b.to) / (1 / Math.tan(half1) + 1 / Math.tan(half2)),
      s = r / Math.tan(half1);
    const centre = v2(b.from.x + v.x * s + m.x * r, b.from.y + v.y * s + m.y * r);
    const end = pointAt(a, parameterOf(a, centre)),
      start = pointAt(c, parameterOf(c, centre));
    if (parameterOf(a, centre) < -COINCIDENT || parameterOf(c, centre) > 1 + COINCIDENT)
      return fail(problems.fullRoundTooLong(saidLength(r)));
    const s0 = Math.atan2(end.y - centre.y, end.x - centre.x);
    let sweep = Math.atan2(start.y - centre.y, start.x - centre.x) - s0;
    while (sweep <= 0) sweep += 2 * Math.PI;
    if (side < 0) sweep -= 2 * Math.PI;
    const out = loop.flatMap((x, j): Segment[] =>
      j === i
        ? [{ kind: "arc", centre, radius: r, start: s0, sweep }]
        : x === a
          ? [{ kind: "line", from: a.from, to: end }]
          : x === c
            ? [{ kind: "line", from: start, to: c.to }]
            : [x],
    );
    return ok(region.map((l, j) => (j === k ? out : l)));
  }
  return fail(problems.noLineBetweenCorners());
}

/** The round between two segments: its centre lies at the radius from both, on the side the corner turns to. */
function roundCut(a: Segment, b: Segment, r: number): Cut | null {
  const corner = endOf(a),
    u = directionAt(a, 1),
    w = directionAt(b, 0),
    side = u.x * w.y - u.y * w.x > 0 ? 1 : -1;
  const shift = (s: Segment): Segment | null => {
    if (s.kind === "line") {
      const d = directionAt(s, 0),
        x = -d.y * r * side,
        y = d.x * r * side;
      return { kind: "line", from: v2(s.from.x + x, s.from.y + y), to: v2(s.to.x + x, s.to.y + y) };
    }
    const radius = s.radius - Math.sign(s.sweep) * side * r;
    return Math.abs(radius) < COINCIDENT ? null : { ...s, radius: Math.abs(radius) };
  };
  const p = shift(a),
    q = shift(b);
  if (!p || !q) return null;
  const foot = (s: Segment, c: Vec2): Vec2 => {
    if (s.kind === "line") return pointAt(s, parameterOf(s, c));
    const d = distance2(c, s.centre) || 1;
    return v2(s.centre.x + ((c.x - s.centre.x) * s.radius) / d, s.centre.y + ((c.y - s.centre.y) * s.radius) / d);
  };
  let best: Cut | null = null,
    near = Infinity;
  for (const c of carriers(p, q)) {
    const end = foot(a, c),
      start = foot(b, c);
    if (Math.abs(distance2(end, c) - r) > CONTACT || Math.abs(distance2(start, c) - r) > CONTACT) continue;
    const ta = parameterOf(a, end),
      tb = parameterOf(b, start);
    if (ta < -COINCIDENT || ta > 1 + COINCIDENT || tb < -COINCIDENT || tb > 1 + COINCIDENT) continue;
    const s0 = Math.atan2(end.y - c.y, end.x - c.x);
    let sweep = Math.atan2(start.y - c.y, start.x - c.x) - s0;
    while (sweep <= 0) sweep += 2 * Math.PI;
    if (side < 0) sweep -= 2 * Math.PI;
    const d = distance2(c, corner);
    if (d < near && Math.abs(sweep) < Math.PI + COINCIDENT) {
      near = d;
      best = { end, start, middle: { kind: "arc", centre: c, radius: r, start: s0, sweep } satisfies Arc };
    }
  }
  return best;
}

/** The chamfer between two segments: as far from the corner along either. */
function chamferCut(a: Segment, b: Segment, size: number): Cut | null {
  const back = (s: Segment, from: "start" | "end"): Vec2 | null => {
    const len = s.kind === "line" ? distance2(s.from, s.to) : 2 * s.radius;
    if (size > len) return null;
    const c = from === "end" ? endOf(s) : startOf(s);
    if (s.kind === "line") return pointAt(s, from === "end" ? 1 - size / len : size / len);
    // On an arc the distance is the straight one from the corner.
    const t = (2 * Math.asin(size / (2 * s.radius))) / Math.abs(s.sweep);
    void c;
    return t > 1 ? null : pointAt(s, from === "end" ? 1 - t : t);
  };
  const end = back(a, "end"),
    start = back(b, "start");
  return end && start ? { end, start, middle: { kind: "line", from: end, to: start } } : null;
}

/**
 * Overcuts corners with a circle so that a mating corner clears: centred on the corner, or through it and shifted along
 * the wall that comes in or the bisector. Shifted along a wall it is tangent to the wall that goes out, whatever their
 * angle, and takes nothing from that; between square walls its centre lies on the wall that comes in.
 * Outside corners of the outline gain the circle, inside corners lose it.
 */
export function relieve(
  region: Region,
  diameter: number,
  which: Which,
  placement: "corner" | "wall" | "bisector",
): Result<Region> {
  const corners = chosen(cornersOf(region), which);
  if (!corners.ok) return corners;
  let out = region;
  for (const c of corners.value) {
    const loop = region[c.loop],
      u = directionAt(loop[c.at], 1),
      w = directionAt(loop[(c.at + 1) % loop.length], 0),
      r = diameter / 2;
    const bx = w.x - u.x,
      by = w.y - u.y,
      bl = Math.hypot(bx, by) || 1;
    const centre =
      placement === "corner"
        ? c.point
        : placement === "wall"
          ? v2(c.point.x - w.y * r * Math.sign(c.turn), c.point.y + w.x * r * Math.sign(c.turn))
          : v2(c.point.x + (bx / bl) * r, c.point.y + (by / bl) * r);
    out = combine(out, [circle(r, centre)], c.turn > 0 ? "join" : "cutout");
  }
  return ok(oriented(out));
}
export { splitAt };
