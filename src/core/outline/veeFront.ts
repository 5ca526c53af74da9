import { distance2, v2, type Vec2 } from "../geometry/vec";
import { COINCIDENT, DISPLAY, MEET, ROUNDING } from "../geometry/tolerance";
import { carriers, directionAt, parallel, placeOn } from "./meet";
import { endOf, startOf, type Arc, type Line, type Segment } from "./outline";

/**
 * One side of a groove as a front that sets out from its middle and goes outwards at one speed: every element shifts
 * square to itself, neighbours meet at points that run along their bisector, and an element between two such points may
 * be used up; then the elements beside it meet. What an element sweeps over is its wall.
 */

/** What a groove runs along: segments, and sharp corners as arcs of no radius. */
export type Element = Line | Arc;
export type Side = 1 | -1;

/** How two neighbours meet between two distances from the middle. */
export interface Meeting {
  from: number;
  to: number;
  at: (out: number) => Vec2;
  /** Square to both, as in a smooth joint. */
  isSquare: boolean;
  isStraight: boolean;
}
/** What an element sweeps over: from its start and its end outwards, as far as it lasts. */
export interface Swept {
  element: Element;
  start: Meeting[];
  end: Meeting[];
  /** How far out it is used up; the whole way where it is not. */
  until: number;
}

/** The element that has no wall. */
export interface Unwalled {
  element: number;
}

const cross2 = (a: Vec2, b: Vec2) => a.x * b.y - a.y * b.x;
export const moved = (p: Vec2, along: Vec2, by: number): Vec2 => v2(p.x + along.x * by, p.y + along.y * by);
export const normalOf = (u: Vec2, side: Side): Vec2 => v2(-u.y * side, u.x * side);
export const isInner = (a: Arc, side: Side): boolean => a.sweep > 0 === side > 0;
export const isCorner = (e: Element): boolean => e.kind === "arc" && e.radius <= COINCIDENT;
/** Direction of an element that may be a corner. */
const along = (e: Element, t: 0 | 1): Vec2 => {
  if (e.kind === "line" || !isCorner(e)) return directionAt(e, t);
  const angle = e.start + e.sweep * t + (Math.sign(e.sweep) * Math.PI) / 2;
  return v2(Math.cos(angle), Math.sin(angle));
};

/** An element shifted outwards; null where nothing of it is left. */
const shifted = (e: Element, side: Side, out: number): Segment | null => parallel(e, side * out, ROUNDING);

/** The point where two neighbours meet, followed outwards from where they met first. */
function follow(a: Element, b: Element, side: Side, from: number, start: Vec2): (out: number) => Vec2 {
  let last = { out: from, at: start };
  return (out) => {
    // Steps small enough to stay with the same crossing.
    if (Math.abs(out - from) < Math.abs(out - last.out)) last = { out: from, at: start };
    const steps = Math.max(1, Math.ceil(Math.abs(out - last.out) / STEP));
    const begun = last;
    for (let i = 1; i <= steps; i++) {
      const at = begun.out + ((out - begun.out) * i) / steps;
      const [p, q] = [shifted(a, side, at), shifted(b, side, at)];
      const found = p && q ? carriers(p, q) : [];
      if (!found.length) return v2(NaN, NaN);
      const near = last.at;
      last = { out: at, at: found.reduce((x, y) => (distance2(y, near) < distance2(x, near) ? y : x)) };
    }
    return last.at;
  };
}
/** Longest step by which a meeting is followed; the unit is the groove's half width. */
const STEP = 1 / 24;

class Moving {
  before: Moving | null = null;
  after: Moving | null = null;
  start: Meeting[] = [];
  end: Meeting[] = [];
  until = 1;
  constructor(public element: Element) {}
  get first(): Meeting {
    return this.start[this.start.length - 1];
  }
  get last(): Meeting {
    return this.end[this.end.length - 1];
  }
}

/** Where an element is used up, later than a given moment; Infinity where it lasts. */
function endOfLife(m: Moving, side: Side, now: number): number {
  const { element } = m;
  if (element.kind === "arc" && isInner(element, side) && isCorner(element)) return now;
  const room = (out: number) => placeOn(element, m.last.at(out)) - placeOn(element, m.first.at(out));
  if (m.first.isSquare && m.last.isSquare) {
    const lasts = element.kind === "line" || !isInner(element, side) || element.radius > 1;
    return lasts ? Infinity : (element as Arc).radius;
  }
  // An arc's inner side is gone at its centre at the latest.
  const most = element.kind === "arc" && isInner(element, side) ? Math.min(1, element.radius * (1 - COINCIDENT)) : 1;
  let low = now;
  for (let i = 1; i <= CHECKS; i++) {
    const high = now + ((most - now) * i) / CHECKS;
    // Once it is used up its neighbours may not meet it any more: no number is no room.
    if (room(high) > 0) {
      low = high;
      continue;
    }
    let [a, b] = [low, high];
    for (let k = 0; k < 60; k++) {
      const m = (a + b) / 2;
      if (room(m) > 0) a = m;
      else b = m;
    }
    return (a + b) / 2;
  }
  return most < 1 ? (element as Arc).radius : Infinity;
}
const CHECKS = 12;

/** Neighbours as they set out: square to both where the joint is smooth. Lengths are in half widths. */
function setOut(elements: Element[], closed: boolean, side: Side): Moving[] {
  const list = elements.map((e) => new Moving(e));
  const n = list.length;
  list.forEach((m, i) => {
    m.before = i > 0 ? list[i - 1] : closed && n > 1 ? list[n - 1] : null;
    m.after = i < n - 1 ? list[i + 1] : closed && n > 1 ? list[0] : null;
    const square = (t: 0 | 1): Meeting => {
      const p = t ? endOf(m.element) : startOf(m.element);
      const normal = normalOf(along(m.element, t), side);
      return { from: 0, to: 1, at: (out) => moved(p, normal, out), isSquare: true, isStraight: true };
    };
    m.start = [square(0)];
    m.end = [square(1)];
  });
  return list;
}

/** The elements beside a used up one meet from there on. */
function closeUp(m: Moving, side: Side, now: number): boolean {
  const [a, b] = [m.before, m.after];
  if (!a || !b || a === b) return false;
  m.until = now;
  const at = m.first.at(now);
  if (!(distance2(at, m.last.at(now)) < MEET)) return false;
  m.first.to = m.last.to = now;
  a.last.to = now;
  b.first.to = now;
  const isStraight = a.element.kind === "line" && b.element.kind === "line";
  if (isStraight && Math.abs(cross2(directionAt(a.element, 0), directionAt(b.element, 0))) < DISPLAY) return false;
  const meeting = () => ({
    from: now,
    to: 1,
    at: follow(a.element, b.element, side, now, at),
    isSquare: false,
    isStraight,
  });
  a.end.push(meeting());
  b.start.push(meeting());
  a.after = b;
  b.before = a;
  return true;
}

/**
 * What every element sweeps over on one side, out to 1 (lengths in half widths of the groove).
 * @returns where the front cannot be followed: which element is used up at an open end, or between two that lose each
 * other
 */
export function sweptBy(elements: Element[], closed: boolean, side: Side): Swept[] | Unwalled {
  const list = setOut(elements, closed, side);
  const moving = new Set(list);
  const ends = new Map(list.map((m) => [m, endOfLife(m, side, 0)]));
  for (let guard = 0; guard <= list.length; guard++) {
    let next: Moving | null = null;
    for (const m of moving) {
      const end = ends.get(m)!;
      if (end < 1 && (!next || end < ends.get(next)!)) next = m;
    }
    if (!next) break;
    const now = ends.get(next)!;
    moving.delete(next);
    if (!closeUp(next, side, now)) return { element: list.indexOf(next) };
    for (const m of [next.before!, next.after!]) ends.set(m, endOfLife(m, side, now));
  }
  return list.map(({ element, start, end, until }) => ({
    element,
    until,
    start: start.filter((q) => q.to > q.from),
    end: end.filter((q) => q.to > q.from),
  }));
}
