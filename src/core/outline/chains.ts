import { problems } from "./problems";
import { saidLength, saidPlace } from "../number";
import { fail, ok, type Result } from "../base/result";
import { distance2, v2, type Vec2 } from "../geometry/vec";
import { carriers, distanceTo, meetings, merged, parameterOf, pointAt, reversed, splitAt } from "./meet";
import { joinEnds, stitch, turned } from "./ends";
import { endOf, loopArea, loopBox, segmentLength, startOf, type Segment } from "./outline";
import { index, type Region } from "./boolean";
import { COINCIDENT, CONTACT, DISPLAY, MEET, ROUNDING } from "../geometry/tolerance";

/** What stands so far: closed loops and open chains. */
export interface Made {
  region: Region;
  open: Segment[][];
}

/** How far a typed place may lie from what it means, mm. */
const TYPED = 0.05;

interface Chain {
  segments: Segment[];
  closed: boolean;
}
const chainsOf = (m: Made): Chain[] => [
  ...m.region.map((segments) => ({ segments, closed: true })),
  ...m.open.map((segments) => ({ segments, closed: false })),
];
/** Chains put together again: open ones are joined where their ends meet, and closed where they come home. */
function remade(chains: Chain[]): Made {
  const region: Region = [],
    open: Segment[][] = [];
  for (const c of chains) if (c.segments.length) (c.closed ? region : open).push(c.segments);
  const joined = joinEnds(open);
  return { region: [...region, ...joined.loops], open: joined.open };
}

/** The segment nearest to a place: which chain, which of its segments, how far. */
function nearest(chains: Chain[], p: Vec2): { chain: number; segment: number; distance: number } | null {
  let best: { chain: number; segment: number; distance: number } | null = null;
  chains.forEach((c, chain) =>
    c.segments.forEach((s, segment) => {
      const distance = distanceTo(s, p);
      if (!best || distance < best.distance - ROUNDING) best = { chain, segment, distance };
    }),
  );
  return best;
}

/** Opens a loop at a place, or parts an open chain there. */
export function breakAt(made: Made, p: Vec2): Result<Made> {
  const chains = chainsOf(made),
    hit = nearest(chains, p);
  if (!hit) return fail(problems.nothingToBreak());
  if (hit.distance > TYPED) return fail(problems.nothingThere(saidPlace(p), saidLength(hit.distance)), { path: "at" });
  const c = chains[hit.chain],
    s = c.segments[hit.segment],
    parts = splitAt(s, [foot(s, p)]);
  const atStart = parts.length === 1 && distance2(p, startOf(s)) < distance2(p, endOf(s));
  const before = [...c.segments.slice(0, hit.segment), ...(parts.length === 2 ? [parts[0]] : atStart ? [] : [s])],
    after = [...(parts.length === 2 ? [parts[1]] : atStart ? [s] : []), ...c.segments.slice(hit.segment + 1)];
  const open = c.closed ? [[...after, ...before]] : [before, after];
  return ok({
    region: chains.filter((x, k) => x.closed && k !== hit.chain).map((x) => x.segments),
    open: [...chains.filter((x, k) => !x.closed && k !== hit.chain).map((x) => x.segments), ...open].filter(
      (x) => x.length,
    ),
  });
}
const foot = (s: Segment, p: Vec2): Vec2 => pointAt(s, Math.max(0, Math.min(1, parameterOf(s, p))));

/**
 * Takes away the piece nearest to a place, between the crossings on either side of it: crossings with `other`, or
 * with all that stands when there is no other.
 */
export function trimAt(made: Made, p: Vec2, other: Segment[] | null): Result<Made> {
  const chains = chainsOf(made),
    hit = nearest(chains, p);
  if (!hit) return fail(problems.nothingToTrim());
  const { segments, closed } = chains[hit.chain],
    n = segments.length;
  const cuts = (s: Segment, i: number): Vec2[] => {
    if (other) return other.flatMap((o) => meetings(s, o));
    return chains.flatMap((c, k) =>
      c.segments.flatMap((o, j) =>
        k === hit.chain && j === i
          ? []
          : meetings(s, o).filter((m) => {
              // Where neighbours meet is no crossing.
              const shared =
                k === hit.chain &&
                (((j === i + 1 || (closed && j === (i + 1) % n)) && distance2(m, endOf(s)) < MEET) ||
                  ((j === i - 1 || (closed && j === (i + n - 1) % n)) && distance2(m, startOf(s)) < MEET));
              return !shared;
            }),
      ),
    );
  };
  const pieces: { s: Segment; from: boolean; to: boolean }[] = [];
  segments.forEach((s, i) => {
    const at = cuts(s, i),
      there = (q: Vec2) => at.some((m) => distance2(m, q) < MEET);
    for (const part of splitAt(s, at)) pieces.push({ s: part, from: there(startOf(part)), to: there(endOf(part)) });
  });
  let best = 0;
  pieces.forEach((q, i) => {
    if (distanceTo(q.s, p) < distanceTo(pieces[best].s, p) - ROUNDING) best = i;
  });
  const m = pieces.length,
    at = (i: number) => ((i % m) + m) % m;
  const cutBefore = (i: number) => pieces[at(i)].from || pieces[at(i - 1)].to,
    cutAfter = (i: number) => pieces[at(i)].to || pieces[at(i + 1)].from;
  let back = 0,
    on = 0;
  while (back < m - 1 && (closed || best - back > 0) && !cutBefore(best - back)) back++;
  while (back + on < m - 1 && (closed || best + on < m - 1) && !cutAfter(best + on)) on++;
  if (back + on + 1 >= m) return fail(problems.nothingCrosses(saidPlace(p)), { path: "at" });
  const run = (from: number, count: number) =>
    Array.from({ length: Math.max(0, count) }, (_, k) => pieces[at(from + k)].s);
  const runs = closed
    ? [run(best + on + 1, m - back - on - 1)]
    : [run(0, best - back), run(best + on + 1, m - best - on - 1)];
  const rest = chains.filter((_, k) => k !== hit.chain);
  return ok(
    remade([...rest, ...runs.filter((r) => r.length).map((s) => ({ segments: joinedStraight(s), closed: false }))]),
  );
}
/** Pieces of one line or circle in a row made one again, without closing. */
const joinedStraight = (c: Segment[]): Segment[] => {
  const out: Segment[] = [];
  for (const s of c) {
    const before = out[out.length - 1];
    const two = before ? merged([before, s]) : [];
    if (before && two.length === 1) out[out.length - 1] = two[0];
    else out.push(s);
  }
  return out;
};

/**
 * Lengthens an open chain at one end, straight on or along its circle: up to the first meeting with `other`, or by a
 * length.
 */
export function extend(made: Made, end: "start" | "end", to: { other: Segment[] } | { length: number }): Result<Made> {
  if (made.open.length !== 1)
    return fail(made.open.length ? problems.manyOpenChains(made.open.length) : problems.noOpenChain());
  const chain = end === "end" ? [...made.open[0]] : turned(made.open[0]);
  const s = chain[chain.length - 1],
    l = segmentLength(s);
  if (l < COINCIDENT) return fail(problems.endWithoutLength());
  let by: number;
  if ("length" in to) by = to.length;
  else {
    const ahead = to.other
      .flatMap((o) => carriers(s, o).filter((q) => distanceTo(o, q) < MEET))
      .map((q) => {
        const t = parameterOf(s, q);
        return (t - 1) * l;
      })
      .filter((d) => d > MEET);
    if (!ahead.length) return fail(problems.chainMeetsNothing(), { path: "to" });
    by = Math.min(...ahead);
  }
  if (s.kind === "arc" && Math.abs(s.sweep) + by / s.radius >= 2 * Math.PI) return fail(problems.arcRunsIntoItself());
  chain[chain.length - 1] =
    s.kind === "line"
      ? { ...s, to: v2(s.to.x + ((s.to.x - s.from.x) / l) * by, s.to.y + ((s.to.y - s.from.y) / l) * by) }
      : { ...s, sweep: s.sweep * (1 + by / l) };
  return ok(
    remade([
      ...made.region.map((segments) => ({ segments, closed: true })),
      { segments: end === "end" ? chain : turned(chain), closed: false },
    ]),
  );
}

/** How often a region winds round a point; crossings of a ray that runs along no axis, with their sense. */
export function winding(region: Region, p: Vec2): number {
  const d = v2(Math.cos(0.7123), Math.sin(0.7123)),
    ray: Segment = { kind: "line", from: p, to: v2(p.x + d.x, p.y + d.y) };
  let w = 0;
  for (const loop of region)
    for (const s of loop)
      for (const q of carriers(ray, s)) {
        if ((q.x - p.x) * d.x + (q.y - p.y) * d.y <= 0) continue;
        const t = parameterOf(s, q);
        if (t < 0 || t >= 1) continue;
        const e =
          s.kind === "line"
            ? v2(s.to.x - s.from.x, s.to.y - s.from.y)
            : v2(-(q.y - s.centre.y) * Math.sign(s.sweep), (q.x - s.centre.x) * Math.sign(s.sweep));
        const cross = d.x * e.y - d.y * e.x;
        if (Math.abs(cross) > ROUNDING) w += Math.sign(cross);
      }
  return w;
}

/**
 * Mends what can be mended without inventing anything larger than `gap`: elements of no length go, ends within the
 * gap meet (where their lines cross, else by a short line),
 * of elements on one another one stays, and an outline that crosses itself becomes the loops round what it encloses.
 */
export function mend(made: Made, gap: number): Made {
  const chains = chainsOf(made)
    .map((c) => ({ ...c, segments: c.segments.filter((s) => segmentLength(s) > CONTACT) }))
    .filter((c) => c.segments.length);
  let open = chains.filter((c) => !c.closed).map((c) => c.segments);
  let region = chains.filter((c) => c.closed).map((c) => c.segments);
  open = closeGaps(single(open), gap);
  const joined = joinEnds(open);
  region = [...region, ...joined.loops];
  return { region: uncrossed(region), open: joined.open };
}

/** Of elements lying on one another one stays. */
function single(open: Segment[][]): Segment[][] {
  const all = open.flat();
  if (all.length < 2 || all.length > 1500) return open;
  const pieces = open.map((c) =>
    c.flatMap((s) =>
      splitAt(
        s,
        all.flatMap((o) => (o === s ? [] : overlaps(s, o) ? meetings(s, o) : [])),
      ),
    ),
  );
  const seen: Segment[] = [];
  return pieces.flatMap((c) => {
    const runs: Segment[][] = [[]];
    for (const s of c) {
      const twin = seen.some(
        (o) =>
          o.kind === s.kind &&
          distance2(pointAt(o, 0.5), pointAt(s, 0.5)) < MEET &&
          ((distance2(startOf(o), startOf(s)) < MEET && distance2(endOf(o), endOf(s)) < MEET) ||
            (distance2(startOf(o), endOf(s)) < MEET && distance2(endOf(o), startOf(s)) < MEET)),
      );
      if (twin) runs.push([]);
      else {
        seen.push(s);
        runs[runs.length - 1].push(s);
      }
    }
    return runs.filter((r) => r.length).map(joinedStraight);
  });
}
const overlaps = (a: Segment, b: Segment) =>
  [0.03, 0.25, 0.5, 0.75, 0.97].some((t) => distanceTo(b, pointAt(a, t)) < CONTACT && near(a, b, pointAt(a, t))) ||
  [0.03, 0.5, 0.97].some((t) => distanceTo(a, pointAt(b, t)) < CONTACT && near(a, b, pointAt(b, t)));
const near = (a: Segment, b: Segment, p: Vec2): boolean => {
  const d = (s: Segment) =>
    s.kind === "line"
      ? Math.atan2(s.to.y - s.from.y, s.to.x - s.from.x)
      : Math.atan2(p.y - s.centre.y, p.x - s.centre.x) + Math.PI / 2;
  return Math.abs(Math.sin(d(a) - d(b))) < MEET;
};

/** Ends of open chains within the gap of one another brought together, nearest pair first. */
function closeGaps(open: Segment[][], gap: number): Segment[][] {
  const left = open.map((c) => [...c]);
  if (left.length > 200) return left;
  for (let guard = 0; guard < 5000; guard++) {
    let best: { i: number; j: number; a: 0 | 1; b: 0 | 1; d: number } | null = null;
    const end = (c: Segment[], k: 0 | 1) => (k ? endOf(c[c.length - 1]) : startOf(c[0]));
    for (let i = 0; i < left.length; i++)
      for (let j = i; j < left.length; j++)
        for (const a of [0, 1] as const)
          for (const b of [0, 1] as const) {
            if (i === j && (a !== 0 || b !== 1)) continue;
            const d = distance2(end(left[i], a), end(left[j], b));
            if (d <= gap && (!best || d < best.d) && !(i === j && left[i].length === 1 && left[i][0].kind === "line"))
              best = { i, j, a, b, d };
          }
    if (!best) break;
    const { i, j, a, b, d } = best;
    const first = i === j ? left[i] : a === 1 ? left[i] : turned(left[i]),
      second = i === j ? left[i] : b === 0 ? left[j] : turned(left[j]);
    const bridge = d > MEET ? meetAt(first, second, gap) : [];
    const chain = i === j ? [...first, ...bridge] : [...first, ...bridge, ...second];
    for (const k of [...new Set([i, j])].sort((x, y) => y - x)) left.splice(k, 1);
    if (i === j) {
      left.push(chain);
      if (distance2(startOf(chain[0]), endOf(chain[chain.length - 1])) > MEET) break;
      return [...closeGaps(left.slice(0, -1), gap), chain];
    }
    left.push(chain);
  }
  return left;
}
/**
 * Brings the end of one chain and the start of another together where their lines cross; else says the short line
 * between them.
 */
function meetAt(first: Segment[], second: Segment[], gap: number): Segment[] {
  const s = first[first.length - 1],
    o = second[0];
  const p =
    s === o
      ? undefined
      : carriers(s, o).filter((q) => distance2(q, endOf(s)) <= 2 * gap && distance2(q, startOf(o)) <= 2 * gap)[0];
  if (!p) return [{ kind: "line", from: endOf(s), to: startOf(o) }];
  first[first.length - 1] =
    s.kind === "line" ? { ...s, to: p } : { ...s, sweep: s.sweep * near1(parameterOf(s, p), Math.abs(s.sweep)) };
  second[0] =
    o.kind === "line"
      ? { ...o, from: p }
      : reversed({
          ...(reversed(o) as typeof o),
          sweep: -o.sweep * near1(parameterOf(reversed(o), p), Math.abs(o.sweep)),
        });
  return [];
}
const near1 = (t: number, turn: number) => (t < 0.5 ? t + (2 * Math.PI) / turn : t);

/** Loops that cross themselves made the boundary of what they wind round. */
function uncrossed(region: Region): Region {
  const all = region.flat(),
    near = index(all),
    about = (s: Segment) => near(loopBox([s])).filter((o) => o !== s);
  const crossed = all.some((s) =>
    about(s).some((o) =>
      meetings(s, o).some(
        (m) =>
          Math.min(distance2(m, startOf(s)), distance2(m, endOf(s))) > MEET ||
          Math.min(distance2(m, startOf(o)), distance2(m, endOf(o))) > MEET,
      ),
    ),
  );
  if (!crossed) return region;
  const pieces = all.flatMap((s) =>
    splitAt(
      s,
      about(s).flatMap((o) => meetings(s, o)),
    ),
  );
  const kept = pieces.flatMap((s): Segment[] => {
    const m = pointAt(s, 0.5),
      a = pointAt(s, 0.5 - DISPLAY),
      b = pointAt(s, 0.5 + DISPLAY),
      l = distance2(a, b) || 1,
      nx = (-(b.y - a.y) / l) * MEET,
      ny = ((b.x - a.x) / l) * MEET;
    const left = winding(region, v2(m.x + nx, m.y + ny)) !== 0,
      right = winding(region, v2(m.x - nx, m.y - ny)) !== 0;
    return left === right ? [] : [left ? s : reversed(s)];
  });
  const order = new Map(kept.map((s, i) => [s, i])),
    twins = index(kept);
  const single = kept.filter(
    (s, i) =>
      !twins(loopBox([s])).some(
        (o) =>
          order.get(o)! < i &&
          o.kind === s.kind &&
          distance2(startOf(o), startOf(s)) < MEET &&
          distance2(endOf(o), endOf(s)) < MEET &&
          distance2(pointAt(o, 0.5), pointAt(s, 0.5)) < MEET,
      ),
  );
  return stitch(single).loops.filter((l) => Math.abs(loopArea(l)) > COINCIDENT);
}
