import type { Problem } from "../base/result";
import { COINCIDENT, ROUNDING } from "../geometry/tolerance";
import { v2 } from "../geometry/vec";
import type { Segment } from "./outline";
import { at, between, smooth, unknownsOf, type DualVec, type Residual } from "./solve/terms";
import type { Unknowns } from "./solve/dual";
import type { System } from "./solve/system";

/**
 * One element of a walk: a line or an arc from point `from` to point `to` (indices of points); `centre` is an arc's
 * centre.
 */
export interface Element {
  kind: "line" | "arc";
  from: number;
  to: number;
  centre: number;
  side: 1 | -1;
  item: number;
  radius?: number;
  closes?: true;
}
/** A walk as unknowns and equations. Point k has variables 2k and 2k + 1. */
export interface Walk {
  system: System;
  elements: Element[];
  /** Points by their name in the text: P0, P1, ..., C2. */
  points: Map<string, number>;
  closed: boolean;
  /** Points a step says to look near, as far as it says. */
  near: NearPoint[];
  problems: (Problem & { item: number })[];
}
/** Where the end of a step is looked for. */
export interface NearPoint {
  item: number;
  point: number;
  x: number | null;
  y: number | null;
}

/** Shorter than this an element is none, mm. */
export const NO_LENGTH = 1e-6;
/** Whether an element is more than a point; an arc from a point to itself is a whole circle. */
export function hasLength(e: Element, v: Float64Array): boolean {
  const apart = (a: number, b: number) => Math.hypot(v[2 * b] - v[2 * a], v[2 * b + 1] - v[2 * a + 1]) > NO_LENGTH;
  return e.kind === "line" ? apart(e.from, e.to) : apart(e.from, e.centre);
}

/** The unknowns of two elements. */
export const unknownsOfBoth = (a: Element, b: Element): number[] =>
  unknownsOf(...[a, b].flatMap((e) => [e.from, e.to, ...(e.centre >= 0 ? [e.centre] : [])]));

/** Direction of an element at one of its ends, along the way it is walked; not of unit length. */
function direction(e: Element, end: number, u: Unknowns): DualVec {
  if (e.kind === "line") return between(u, e.from, e.to);
  const c = at(u, e.centre),
    p = at(u, end);
  return { x: c.y.minus(p.y).scaled(e.side), y: p.x.minus(c.x).scaled(e.side) };
}

/**
 * Zero where two elements run into one another smoothly at a shared point.
 * @param eitherWay turned back on itself counts too
 */
export const tangentAt =
  (a: Element, b: Element, end: number, eitherWay = false): Residual =>
  (u) =>
    smooth(direction(a, end, u), direction(b, end, u), eitherWay);

/** The walk's elements as exact segments at a solution. */
export function segmentsOf(w: Walk, v: Float64Array): Segment[] {
  return w.elements.map((e): Segment => {
    const p = v2(v[2 * e.from], v[2 * e.from + 1]),
      q = v2(v[2 * e.to], v[2 * e.to + 1]);
    if (e.kind === "line") return { kind: "line", from: p, to: q };
    const c = v2(v[2 * e.centre], v[2 * e.centre + 1]);
    const start = Math.atan2(p.y - c.y, p.x - c.x);
    let sweep = Math.atan2(q.y - c.y, q.x - c.x) - start;
    while (sweep <= ROUNDING) sweep += 2 * Math.PI;
    while (sweep > 2 * Math.PI + ROUNDING) sweep -= 2 * Math.PI;
    // A full circle ends where it starts.
    if (e.from === e.to || Math.hypot(p.x - q.x, p.y - q.y) < COINCIDENT) sweep = 2 * Math.PI;
    else if (e.side < 0) sweep -= 2 * Math.PI;
    return {
      kind: "arc",
      centre: c,
      radius: Math.hypot(p.x - c.x, p.y - c.y),
      start,
      sweep: e.side < 0 && sweep === 2 * Math.PI ? -sweep : sweep,
    };
  });
}
