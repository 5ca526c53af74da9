import { bezierThrough } from "../geometry/bezier";
import { v2, type Vec2 } from "../geometry/vec";
import { COINCIDENT, MEET } from "../geometry/tolerance";
import { directionAt, placeOn, reversed } from "./meet";
import { endOf, loopArea, startOf, type Arc, type Line, type Loop, type Segment } from "./outline";
import {
  isCorner,
  isInner,
  moved,
  normalOf,
  sweptBy,
  type Element,
  type Meeting,
  type Side,
  type Swept,
  type Unwalled,
} from "./veeFront";

/** A stretch of a chain whose groove is one solid: whether it comes back to its own start, and which ends are round. */
export interface VeeRun {
  elements: Element[];
  closed: boolean;
  /** Ends where the chain itself ends: the pointed cutter leaves half a cone there. Elsewhere the groove ends flat. */
  caps: { start: boolean; end: boolean };
}

/** A corner of a face: where, and how far out of the middle of the groove (0 at its bottom, its half width on top). */
export interface Corner {
  at: Vec2;
  out: number;
}
/** An edge of a flat wall, straight or a Bézier curve by its poles. */
export type FlatEdge = Corner[];
/** An edge on a cone, straight or a Bézier curve in the cone's own terms: angle, and how far out. */
export type ConeEdge = { angle: number; out: number }[];

/** A wall of a groove: flat; a line turned about an upright axis; or part of the cone an arc leaves on one side. */
export type VeeWall =
  | { wall: "flat"; edges: FlatEdge[] }
  | { wall: "turned"; centre: Vec2; from: number; sweep: number; profile: [TurnedPoint, TurnedPoint] }
  | { wall: "cone"; centre: Vec2; radius: number; isInner: boolean; edges: ConeEdge[] };
interface TurnedPoint {
  radius: number;
  out: number;
}
export interface VeeCells {
  walls: VeeWall[];
  lid: { outer: Loop; holes: Loop[] };
  /** Flat ends, as triangles. */
  ends: Corner[][];
  /** What the lid would measure if nothing lapped. */
  area: number;
}

/** How near a fitted edge keeps to the true one, in half widths. */
const NEAR = 1e-9;

const turn = (u: Vec2, v: Vec2) => Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);

/** The corner between two segments as an arc of no radius about it; null where they run on smoothly. */
function cornerBetween(a: Segment, b: Segment): Arc | null {
  const u = directionAt(a, 1);
  const sweep = turn(u, directionAt(b, 0));
  if (Math.abs(sweep) < MEET) return null;
  const out = normalOf(u, sweep > 0 ? -1 : 1);
  return { kind: "arc", centre: endOf(a), radius: 0, start: Math.atan2(out.y, out.x), sweep };
}

/** A chain with its sharp corners put in. */
export function withCorners(chain: Segment[], closed: boolean): Element[] {
  return chain.flatMap((s, i): Element[] => {
    const next = chain[i + 1] ?? (closed ? chain[0] : undefined);
    const corner = next && cornerBetween(s, next);
    return corner ? [s, corner] : [s];
  });
}

const times = (p: Vec2, k: number): Vec2 => v2(p.x * k, p.y * k);
/** The same thing in other units. */
function resized<E extends Element>(e: E, k: number): E {
  return e.kind === "line"
    ? { ...e, from: times(e.from, k), to: times(e.to, k) }
    : { ...e, centre: times(e.centre, k), radius: e.radius * k };
}

/** A meeting as edges, each fitted; null where none fits. */
function fitted(m: Meeting, way: (out: number) => number[], depth = 0): number[][][] | null {
  const poles = bezierThrough((t) => way(m.from + (m.to - m.from) * t), NEAR);
  if (poles) return [poles];
  if (depth === MOST_HALVED) return null;
  const middle = (m.from + m.to) / 2;
  const halves = [
    { ...m, to: middle },
    { ...m, from: middle },
  ].map((half) => fitted(half, way, depth + 1));
  return halves.every((h) => h !== null) ? halves.flat() : null;
}
const MOST_HALVED = 8;

/** The way of a meeting as edges of a wall: of what `read` makes of a point. */
function edgesOf(list: Meeting[], read: (p: Vec2, out: number) => number[], isCone: boolean): number[][][] | null {
  const all = list.map((m) => {
    const way = (out: number) => read(m.at(out), out);
    const isStraight = isCone ? m.isSquare : m.isStraight;
    return isStraight ? [[way(m.from), way(m.to)]] : fitted(m, way);
  });
  return all.every((e) => e !== null) ? all.flat() : null;
}

const backwards = <T>(edges: T[][]): T[][] => edges.map((e) => [...e].reverse()).reverse();

/** Edges all round what an element sweeps over, in coordinates that `read` makes of points. */
function roundOf(s: Swept, read: (p: Vec2, out: number) => number[], isCone: boolean): number[][][] | null {
  const [up, down] = [edgesOf(s.end, read, isCone), edgesOf(s.start, read, isCone)];
  if (!up || !down) return null;
  const level = (out: number) =>
    [s.start, s.end].map((list) => read((out ? list[list.length - 1] : list[0]).at(out), out));
  const bottom = level(0);
  return [bottom, ...up, ...(s.until < 1 ? [] : [level(1).reverse()]), ...backwards(down)];
}

/** What an element sweeps over, as a wall; null where it has none or none can be made. */
function wallOf(s: Swept, side: Side): VeeWall | null {
  const { element } = s;
  if (element.kind === "line") {
    const edges = roundOf(s, (p, out) => [p.x, p.y, out], false);
    return edges && { wall: "flat", edges: edges.map((e) => e.map(([x, y, out]) => ({ at: v2(x, y), out }))) };
  }
  const inner = isInner(element, side);
  const isSimple = [s.start, s.end].every((list) => list.length === 1 && list[0].isSquare);
  if (isSimple) return turnedWall(element, inner, s.until);
  if (isCorner(element)) return null;
  const read = (p: Vec2, out: number) => [element.start + Math.sign(element.sweep) * placeOn(element, p), out];
  const edges = roundOf(s, read, true);
  if (!edges) return null;
  const onCone = edges.map((e) => e.map(([angle, out]) => ({ angle, out })));
  return { wall: "cone", centre: element.centre, radius: element.radius, isInner: inner, edges: onCone };
}

function turnedWall(e: Arc, inner: boolean, until: number): VeeWall {
  const top = { radius: until < 1 ? 0 : e.radius + (inner ? -1 : 1), out: until };
  const from = e.sweep > 0 ? e.start : e.start + e.sweep;
  const profile: [TurnedPoint, TurnedPoint] = [{ radius: e.radius, out: 0 }, top];
  return { wall: "turned", centre: e.centre, from, sweep: Math.abs(e.sweep), profile };
}

/** The edge of the lid along one side of an element, from its start to its end. */
function topOf({ element, start, end, until }: Swept, side: Side): Segment[] {
  if (until < 1) return [];
  const [from, to] = [start, end].map((list) => list[list.length - 1].at(1));
  if (element.kind === "line") return [{ kind: "line", from, to }];
  const radius = element.radius + (isInner(element, side) ? -1 : 1);
  if (radius < COINCIDENT) return [];
  const sense = Math.sign(element.sweep);
  const isWhole = Math.abs(element.sweep) > 2 * Math.PI - COINCIDENT;
  const places = isWhole ? [0, Math.abs(element.sweep)] : [placeOn(element, from), placeOn(element, to)];
  return [{ ...element, radius, start: element.start + sense * places[0], sweep: sense * (places[1] - places[0]) }];
}

const turnedBack = (loop: Segment[]): Segment[] => [...loop].reverse().map(reversed);
const around = (loop: Loop): Loop => (loopArea(loop) < 0 ? turnedBack(loop) : loop);

interface End {
  walls: VeeWall[];
  ends: Corner[][];
  edge: Segment[];
}

/** An end of an open run: half a cone, or flat. `u` points out of the run; the edge runs from its right to its left. */
function endAt(at: Vec2, u: Vec2, isRound: boolean): End {
  const right = normalOf(u, -1);
  const [a, b] = [moved(at, right, 1), moved(at, right, -1)];
  if (!isRound) {
    const corners = [
      { at, out: 0 },
      { at: a, out: 1 },
      { at: b, out: 1 },
    ];
    return { walls: [], ends: [corners], edge: [{ kind: "line", from: a, to: b }] };
  }
  const arc: Arc = { kind: "arc", centre: at, radius: 0, start: Math.atan2(right.y, right.x), sweep: Math.PI };
  return { walls: [turnedWall(arc, false, 1)], ends: [], edge: [{ ...arc, radius: 1 }] };
}

interface Sides {
  walls: VeeWall[];
  left: Segment[];
  right: Segment[];
}

/** What both sides of a run sweep over, as walls and as the two edges of the lid. */
function bothSides(run: VeeRun): Sides | Unwalled {
  const walls: VeeWall[] = [];
  const tops: Segment[][] = [];
  for (const side of [1, -1] as const) {
    const swept = sweptBy(run.elements, run.closed, side);
    if ("element" in swept) return swept;
    for (const [element, s] of swept.entries()) {
      // The inner side of a corner is used up at once.
      if (s.until <= COINCIDENT) continue;
      const wall = wallOf(s, side);
      if (!wall) return { element };
      walls.push(wall);
    }
    tops.push(swept.flatMap((s) => topOf(s, side)));
  }
  return { walls, left: tops[0], right: tops[1] };
}

/** A groove as wide as two of its units. */
function unitCells(run: VeeRun): VeeCells | Unwalled {
  const sides = bothSides(run);
  if ("element" in sides) return sides;
  const { walls, left, right } = sides;
  if (run.closed) {
    const [inner, outer] = [around(left), around(right)].sort((a, b) => loopArea(a) - loopArea(b));
    return { walls, lid: { outer, holes: [inner] }, ends: [], area: loopArea(outer) - loopArea(inner) };
  }
  const [first, last] = [run.elements[0], run.elements[run.elements.length - 1]];
  const back = directionAt(first, 0);
  const start = endAt(startOf(first), v2(-back.x, -back.y), run.caps.start);
  const end = endAt(endOf(last), directionAt(last, 1), run.caps.end);
  const outer = [...right, ...end.edge, ...turnedBack(left), ...start.edge];
  return {
    walls: [...walls, ...start.walls, ...end.walls],
    lid: { outer, holes: [] },
    ends: [...start.ends, ...end.ends],
    area: loopArea(outer),
  };
}

function resizedWall(wall: VeeWall, w: number): VeeWall {
  const corner = (c: Corner): Corner => ({ at: times(c.at, w), out: c.out * w });
  if (wall.wall === "flat") return { ...wall, edges: wall.edges.map((e) => e.map(corner)) };
  const centre = times(wall.centre, w);
  if (wall.wall === "turned") {
    const [low, high] = wall.profile.map((p) => ({ radius: p.radius * w, out: p.out * w }));
    return { ...wall, centre, profile: [low, high] };
  }
  const edges = wall.edges.map((e) => e.map((p) => ({ angle: p.angle, out: p.out * w })));
  return { ...wall, centre, radius: wall.radius * w, edges };
}

/**
 * The faces of the groove of a pointed cutter along a run, its half width on top w. What is nearest to one side of one
 * segment is that segment's wall; walls meet in the bisectors of what they belong to.
 * @returns which element has no wall where they cannot be followed; whether the groove laps over itself is not asked here: then its lid
 * covers another area than `area`
 */
export function veeCells(run: VeeRun, w: number): VeeCells | Unwalled {
  const elements = run.elements.map((e: Line | Arc) => resized(e, 1 / w));
  const unit = unitCells({ ...run, elements });
  if ("element" in unit) return unit;
  const loop = (l: Loop) => l.map((s) => resized(s, w));
  return {
    walls: unit.walls.map((q) => resizedWall(q, w)),
    lid: { outer: loop(unit.lid.outer), holes: unit.lid.holes.map(loop) },
    ends: unit.ends.map((e) => e.map((c) => ({ at: times(c.at, w), out: c.out * w }))),
    area: unit.area * w * w,
  };
}
