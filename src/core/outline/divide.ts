import { distance2, type Vec2 } from "../geometry/vec";
import { COINCIDENT, CONTACT } from "../geometry/tolerance";
import { combine, insideRegion, offsetRegion, type Region } from "./boolean";
import { directionAt, distanceTo, lengthOf, meetings, pointAt, reversed, splitAt, parameterOf } from "./meet";
import { endOf, loopArea, startOf, type Loop, type Segment } from "./outline";

/**
 * How far beyond the region's edge a piece of it may reach, mm, the farthest that changes nothing of what lies in it:
 * a cutter comes in from outside, and no wall of a cut lies on a wall of the part.
 */
const BEYOND = [30, 8, 2, 0.5];
const LEAST_BEYOND = 0.05;

/**
 * What of a region lies to the left of an open chain. An end on the region's edge, or outside it, is where it is; one
 * inside goes straight on to where it first leaves the region.
 * @param near how near to the edge an end counts as on it
 * @returns closed loops that reach beyond the region's edge; none where the chain parts nothing
 */
export function leftOf(region: Region, chain: Segment[], near: number): Loop[] {
  const whole = withItsEnds(region, chain, near);
  const least = facesWithin(region, whole, LEAST_BEYOND) ?? [];
  if (!least.length) return [];
  const taken = areaIn(least, region);
  for (const beyond of BEYOND) {
    const faces = facesWithin(region, whole, beyond);
    if (faces && Math.abs(areaIn(faces, region) - taken) < SAME_AREA) return faces;
  }
  return least;
}
/** Areas this near are the same piece, mm². */
const SAME_AREA = 1e-3;
const areaIn = (faces: Loop[], region: Region): number =>
  faces.reduce((sum, f) => sum + combine([f], region, "overlap").reduce((s, l) => s + loopArea(l), 0), 0);

/** The faces to the left within the grown region; null where an end does not come straight out to its edge. */
function facesWithin(region: Region, chain: Segment[], beyond: number): Loop[] | null {
  const grown = offsetRegion(region, beyond);
  const ends = [startOf(chain[0]), endOf(chain[chain.length - 1])].map((p) => toEdge(grown, p));
  if (ends.flat().some((s) => lengthOf(s) > beyond + CONTACT)) return null;
  const across = [...ends[0].map(reversed), ...chain, ...ends[1]];
  const edges = grown.flat();
  const cuts = across
    .flatMap((s) => splitAt(s, [...edges.flatMap((e) => meetings(s, e)), ...crossingsOf(s, across)]))
    .filter((s) => insideRegion(grown, pointAt(s, 0.5)));
  const rim = edges.flatMap((e) =>
    splitAt(
      e,
      across.flatMap((s) => meetings(e, s)),
    ),
  );
  return facesAlong(cuts, rim);
}

/** Where a segment meets others of its own chain, but where they follow one another. */
const crossingsOf = (s: Segment, all: Segment[]): Vec2[] => all.flatMap((o) => (o === s ? [] : meetings(s, o)));

/** The chain with its ends as far as they are meant: those inside the region go on straight until they leave it. */
function withItsEnds(region: Region, chain: Segment[], near: number): Segment[] {
  const before = onwards(region, startOf(chain[0]), turned(directionAt(chain[0], 0)), near).map(reversed);
  const last = chain[chain.length - 1];
  return [...before, ...chain, ...onwards(region, endOf(last), directionAt(last, 1), near)];
}
const turned = (d: Vec2): Vec2 => ({ x: -d.x, y: -d.y });

function onwards(region: Region, from: Vec2, d: Vec2, near: number): Segment[] {
  const edges = region.flat();
  const off = Math.min(Infinity, ...edges.map((s) => distanceTo(s, from)));
  if (off <= near || !insideRegion(region, from)) return [];
  const far = Math.max(...edges.flatMap((s) => [distance2(from, pointAt(s, 0)), distance2(from, pointAt(s, 0.5))]));
  const ray: Segment = { kind: "line", from, to: { x: from.x + d.x * 3 * far, y: from.y + d.y * 3 * far } };
  const met = edges.flatMap((s) => meetings(ray, s)).filter((p) => distance2(p, from) > CONTACT);
  if (!met.length) return [];
  const to = met.reduce((a, b) => (distance2(b, from) < distance2(a, from) ? b : a));
  return [{ kind: "line", from, to }];
}

/** From an end out to the nearest place of the edge; nothing where it lies beyond it. */
function toEdge(grown: Region, from: Vec2): Segment[] {
  if (!insideRegion(grown, from)) return [];
  const nearest = grown
    .flat()
    .map((s) => nearestOn(s, from))
    .reduce((a, b) => (distance2(b, from) < distance2(a, from) ? b : a));
  return distance2(nearest, from) < COINCIDENT ? [] : [{ kind: "line", from, to: nearest }];
}
const nearestOn = (s: Segment, p: Vec2): Vec2 => pointAt(s, Math.max(0, Math.min(1, parameterOf(s, p))));

/** The faces that lie to the left of the cuts, each traced once: at every corner the way that keeps it on the left. */
function facesAlong(cuts: Segment[], rim: Segment[]): Loop[] {
  const backs = new Map(cuts.map((s) => [s, reversed(s)]));
  const ways = [...cuts, ...backs.values(), ...rim];
  const used = new Set<Segment>();
  const faces: Loop[] = [];
  for (const first of cuts) {
    if (used.has(first)) continue;
    const loop: Segment[] = [];
    let at: Segment | undefined = first;
    while (at && !used.has(at) && loop.length <= ways.length) {
      used.add(at);
      loop.push(at);
      at = nextWay(at, ways);
    }
    const isClosed = distance2(endOf(loop[loop.length - 1]), startOf(first)) < CONTACT;
    // With both sides of a cut in one face, the chain parts nothing there.
    const isParted = loop.every((s) => !backs.has(s) || !loop.includes(backs.get(s)!));
    if (isClosed && isParted && loopArea(loop) > COINCIDENT) faces.push(loop);
  }
  return faces;
}

/** The way that turns most to the left where one ends, but not straight back. */
function nextWay(from: Segment, ways: Segment[]): Segment | undefined {
  const end = endOf(from);
  const back = turned(directionAt(from, 1));
  let best: { way: Segment; turn: number } | undefined;
  for (const way of ways) {
    if (distance2(startOf(way), end) > CONTACT || isBack(from, way)) continue;
    const d = directionAt(way, 0);
    // Clockwise from the way back: the first one met keeps the face on the left.
    const angle = Math.atan2(back.x * d.y - back.y * d.x, back.x * d.x + back.y * d.y);
    const turn = (2 * Math.PI - angle) % (2 * Math.PI);
    if (!best || turn < best.turn) best = { way, turn };
  }
  return best?.way;
}
const isBack = (a: Segment, b: Segment): boolean =>
  distance2(endOf(b), startOf(a)) < CONTACT && distance2(pointAt(a, 0.5), pointAt(b, 0.5)) < CONTACT;
