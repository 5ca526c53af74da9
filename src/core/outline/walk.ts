import type { NumberScope, NumberText, Quantity } from "../number";
import { evaluateNumber } from "../number";
import type { Problem } from "../base/result";
import { v2, type Vec2 } from "../geometry/vec";
import type { OutlineItem } from "./items";
import type { Segment } from "./outline";
import type { Equation, System } from "./solve/system";
import { COINCIDENT, CONTACT, ROUNDING } from "../geometry/tolerance";

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
interface NearPoint {
  item: number;
  point: number;
  x: number | null;
  y: number | null;
}

/** Value of a number, or null while it is open (`?`). */
type Read = (text: NumberText | undefined, quantity: Quantity, item: number) => number | null;

/** x as meant: half of what is typed where it is typed as a diameter. */
const halved = (p: { diameter?: true }, x: number | null): number | null => (p.diameter && x !== null ? x / 2 : x);

/** Centre of the next arc after an item, where it is known. */
function nextCentre(items: OutlineItem[], after: number, read: Read): Vec2 | null {
  for (let i = after + 1; i < items.length; i++) {
    const it = items[i];
    if (it.item !== "arc" || !it.centre) continue;
    const x = read(it.centre.x, "coordinate", i),
      y = read(it.centre.y, "coordinate", i);
    return x !== null && y !== null ? v2(it.centre.diameter ? x / 2 : x, y) : null;
  }
  return null;
}

/**
 * Turns a walk into unknowns and equations, with a first guess that goes step by step from what is known.
 * What a step leaves out of `TO` stays as it was, unless length, angle, radius or tangency are to find it.
 */
export function buildWalk(items: OutlineItem[], scope: NumberScope, size: number): Walk {
  const problems: Walk["problems"] = [];
  const read: Read = (text, quantity, item) => {
    if (text === undefined || text === "?") return null;
    const r = evaluateNumber(text, quantity, scope);
    if (r.ok) return r.value.value;
    problems.push({ ...r.problems[0], item });
    return null;
  };
  const at: Vec2[] = [],
    elements: Element[] = [],
    equations: Equation[] = [];
  const points = new Map<string, number>();
  /** Points nothing said so far gives a place to. */
  const loose = new Set<number>();
  const nearPoints: NearPoint[] = [];
  let closed = false,
    heading = 0;
  const add = (p: Vec2) => at.push(p) - 1;
  const X = (k: number) => 2 * k,
    Y = (k: number) => 2 * k + 1;
  const eq = (
    item: number,
    kind: Equation["kind"],
    vars: number[],
    words: string,
    f: Equation["f"],
    role?: Equation["role"],
  ) => equations.push({ item, kind, vars: [...new Set(vars)], words, f, ...(role && { role }) });
  const set = (item: number, k: number, axis: "x" | "y", value: number, words: string, role?: Equation["role"]) => {
    const i = axis === "x" ? X(k) : Y(k);
    eq(item, "dimension", [i], words, (v) => v[i] - value, role);
  };

  items.forEach((it, item) => {
    if (it.item === "start") {
      if (points.has("P0")) return void problems.push({ item, message: "a walk starts once", expected: "LINE or ARC" });
      const x = halved(it.at, read(it.at.x, "coordinate", item)),
        y = read(it.at.y, "coordinate", item);
      const k = add(v2(x ?? 0, y ?? 0));
      points.set("P0", k);
      if (x === null && y === null) loose.add(k);
      if (x !== null) set(item, k, "x", x, "x of the start", "start");
      if (y !== null) set(item, k, "y", y, "y of the start", "start");
      return;
    }
    if (it.item !== "line" && it.item !== "arc") return;
    if (closed)
      return void problems.push({
        item,
        message: "the walk is closed already",
        expected: "END, or a relation or dimension",
      });
    if (!points.has("P0")) {
      // A walk without a start begins at zero.
      const k = add(v2(0, 0));
      points.set("P0", k);
      set(item, k, "x", 0, "x of the start", "start");
      set(item, k, "y", 0, "y of the start", "start");
    }
    const n = elements.length + 1;
    const from = elements.length ? elements[elements.length - 1].to : points.get("P0")!;
    let p = at[from];
    const near = it.near
      ? { x: halved(it.near, read(it.near.x, "coordinate", item)), y: read(it.near.y, "coordinate", item) }
      : null;
    const angle = it.item === "line" ? read(it.angle, "angle", item) : null;
    const length = it.item === "line" ? read(it.length, "length", item) : null;
    const radius = it.item === "arc" ? read(it.radius, "length", item) : null;
    const sweep = it.item === "arc" ? read(it.sweep, "angle", item) : null;
    const centre =
      it.item === "arc" && it.centre
        ? { x: halved(it.centre, read(it.centre.x, "coordinate", item)), y: read(it.centre.y, "coordinate", item) }
        : null;
    const side: 1 | -1 = it.item === "arc" && it.side === "cw" ? -1 : 1;
    // What finds the end besides its coordinates: then a coordinate left out is open, not unchanged.
    const otherwise =
      (it.item === "line" && (it.angle !== undefined || it.length !== undefined)) ||
      Boolean(it.tangent) ||
      (it.item === "arc" && (it.sweep !== undefined || it.centre !== undefined));
    const wanted: { x: number | null; y: number | null } = { x: null, y: null };
    for (const axis of ["x", "y"] as const) {
      if (it.to?.[axis] !== undefined)
        wanted[axis] =
          axis === "x" ? halved(it.to, read(it.to.x, "coordinate", item)) : read(it.to.y, "coordinate", item);
      else if (it.by?.[axis] !== undefined) {
        const typed = read(it.by[axis], "coordinate", item),
          d = axis === "x" ? halved(it.by, typed) : typed;
        if (d !== null) wanted[axis] = p[axis] + d;
      } else if (it.to && !otherwise) wanted[axis] = NaN;
      else if (it.by && !otherwise) wanted[axis] = p[axis];
    }
    // A loose start of an arc whose circle is known goes onto the circle: where the way so far runs along it, or
    // turned away from the next circle.
    if (loose.has(from) && centre?.x != null && centre.y !== null && radius !== null) {
      const next = elements.length ? null : nextCentre(items, item, read),
        along = next
          ? Math.atan2(next.y - centre.y!, next.x - centre.x!) + (side * Math.PI) / 2
          : heading - (side * Math.PI) / 2;
      p = at[from] = v2(centre.x! + radius * Math.cos(along), centre.y! + radius * Math.sin(along));
    }
    // Guess of the end, before anything is solved.
    const reach = length ?? size / 4;
    const turn = angle ?? heading;
    const known = { x: Number.isNaN(wanted.x) ? p.x : wanted.x, y: Number.isNaN(wanted.y) ? p.y : wanted.y };
    let end: Vec2;
    if (it.item === "line") {
      // A line left open goes the way walks usually go, round to the left; one coordinate alone is reached straight,
      // or along it to the left.
      const open = angle === null && !it.tangent;
      const way =
        open && known.x === null && known.y === null && length === null && elements.length ? turn + Math.PI / 2 : turn;
      end = v2(known.x ?? near?.x ?? p.x + reach * Math.cos(way), known.y ?? near?.y ?? p.y + reach * Math.sin(way));
      if (open && elements.length) {
        if (known.y !== null && known.x === null && near?.x == null)
          end.x =
            Math.abs(known.y - p.y) > COINCIDENT
              ? p.x
              : p.x -
                reach *
                  (Math.abs(Math.sin(heading)) > CONTACT
                    ? Math.sign(Math.sin(heading))
                    : -Math.sign(Math.cos(heading)));
        if (known.x !== null && known.y === null && near?.y == null)
          end.y =
            Math.abs(known.x - p.x) > COINCIDENT
              ? p.y
              : p.y +
                reach *
                  (Math.abs(Math.cos(heading)) > CONTACT ? Math.sign(Math.cos(heading)) : Math.sign(Math.sin(heading)));
      } else {
        if (known.x !== null && known.y === null && near?.y == null && Math.abs(Math.cos(turn)) > CONTACT)
          end.y = p.y + (known.x - p.x) * Math.tan(turn);
        if (known.y !== null && known.x === null && near?.x == null && Math.abs(Math.sin(turn)) > CONTACT)
          end.x = p.x + (known.y - p.y) / Math.tan(turn);
      }
    } else if (centre?.x != null && centre.y !== null && (sweep !== null || (!it.to && !it.by && !near))) {
      const a = Math.atan2(p.y - centre.y!, p.x - centre.x!) + side * Math.abs(sweep ?? 0.9 * Math.PI),
        r = radius ?? Math.hypot(p.x - centre.x!, p.y - centre.y!);
      end = v2(centre.x! + r * Math.cos(a), centre.y! + r * Math.sin(a));
    } else {
      const r = radius ?? size / 8,
        a = heading + (side * (sweep ?? Math.PI / 2)) / 2,
        chord = 2 * r * Math.abs(Math.sin((sweep ?? Math.PI / 2) / 2));
      end = v2(known.x ?? near?.x ?? p.x + chord * Math.cos(a), known.y ?? near?.y ?? p.y + chord * Math.sin(a));
    }
    let to: number;
    if (it.close) {
      to = points.get("P0")!;
      closed = true;
      end = at[to];
    } else {
      to = add(end);
      if (wanted.x === null && wanted.y === null && !near) loose.add(to);
      if (near) nearPoints.push({ item, point: to, ...near });
    }
    points.set(`P${n}`, to);
    const e: Element = { kind: it.item, from, to, centre: -1, side, item, ...(it.close && { closes: true as const }) };
    if (it.close && (it.to || it.by))
      problems.push({ item, message: "a step that closes ends at the start", expected: "CLOSE without TO or BY" });
    if (!it.close)
      for (const axis of ["x", "y"] as const) {
        const name = `${axis} of the end of step ${n}`,
          i = axis === "x" ? X : Y;
        if (it.to?.[axis] !== undefined) {
          if (wanted[axis] !== null) set(item, to, axis, wanted[axis]!, name);
        } else if (it.by && (it.by[axis] !== undefined || (!it.to && !otherwise))) {
          const typed = it.by[axis] === undefined ? 0 : read(it.by[axis], "coordinate", item),
            d = axis === "x" ? halved(it.by, typed) : typed;
          if (d !== null)
            eq(item, "dimension", [i(from), i(to)], `${axis} of step ${n}`, (v) => v[i(to)] - v[i(from)] - d);
        } else if (it.to && Number.isNaN(wanted[axis]))
          eq(item, "relation", [i(from), i(to)], `step ${n} keeps its ${axis}`, (v) => v[i(to)] - v[i(from)], "step");
      }
    if (it.item === "line") {
      if (angle !== null) {
        const c = Math.cos(angle),
          s = Math.sin(angle);
        eq(
          item,
          "dimension",
          [X(from), Y(from), X(to), Y(to)],
          `angle of step ${n}`,
          (v) => (v[X(to)] - v[X(from)]) * s - (v[Y(to)] - v[Y(from)]) * c,
        );
      }
      if (length !== null)
        eq(
          item,
          "dimension",
          [X(from), Y(from), X(to), Y(to)],
          `length of step ${n}`,
          (v) => Math.hypot(v[X(to)] - v[X(from)], v[Y(to)] - v[Y(from)]) - length,
        );
      heading = Math.hypot(end.x - p.x, end.y - p.y) > ROUNDING ? Math.atan2(end.y - p.y, end.x - p.x) : heading;
    } else {
      // Guess of the centre: given, square to the way in for a tangent arc, else left (or right) of the chord.
      const chord = Math.hypot(end.x - p.x, end.y - p.y) || COINCIDENT;
      let c: Vec2;
      if (centre && (centre.x !== null || centre.y !== null)) c = v2(centre.x ?? p.x, centre.y ?? p.y);
      else if (it.tangent && elements.length) {
        const nx = -Math.sin(heading) * side,
          ny = Math.cos(heading) * side;
        const along = (end.x - p.x) * nx + (end.y - p.y) * ny;
        const r = radius ?? (along > COINCIDENT ? (chord * chord) / (2 * along) : size / 8);
        c = v2(p.x + r * nx, p.y + r * ny);
      } else {
        const r = Math.max(radius ?? chord * 0.75, chord / 2),
          h =
            Math.sqrt(Math.max(0, r * r - (chord * chord) / 4)) *
            ((it.item === "arc" && it.long) || (sweep !== null && Math.abs(sweep) > Math.PI) ? -1 : 1);
        c = v2(
          (p.x + end.x) / 2 - (side * h * (end.y - p.y)) / chord,
          (p.y + end.y) / 2 + (side * h * (end.x - p.x)) / chord,
        );
      }
      const k = (e.centre = add(c));
      points.set(`C${n}`, k);
      const all = [X(from), Y(from), X(to), Y(to), X(k), Y(k)];
      const r1 = (v: Float64Array) => Math.hypot(v[X(from)] - v[X(k)], v[Y(from)] - v[Y(k)]),
        r2 = (v: Float64Array) => Math.hypot(v[X(to)] - v[X(k)], v[Y(to)] - v[Y(k)]);
      if (from !== to) eq(item, "shape", all, `step ${n} is an arc`, (v) => r2(v) - r1(v));
      if (radius !== null) e.radius = radius;
      if (radius !== null)
        eq(item, "dimension", [X(from), Y(from), X(k), Y(k)], `radius of step ${n}`, (v) => r1(v) - radius);
      if (centre?.x != null) set(item, k, "x", centre.x, `x of the centre of step ${n}`);
      if (centre?.y != null) set(item, k, "y", centre.y, `y of the centre of step ${n}`);
      if (sweep !== null) {
        // The end is the start turned about the centre: said once, across the turned radius, it does not repeat what
        // makes it an arc.
        const a = side * Math.abs(sweep),
          ca = Math.cos(a),
          sa = Math.sin(a);
        eq(item, "dimension", all, `sweep of step ${n}`, (v) => {
          const ux = v[X(from)] - v[X(k)],
            uy = v[Y(from)] - v[Y(k)],
            wx = v[X(to)] - v[X(k)],
            wy = v[Y(to)] - v[Y(k)];
          const tx = ux * ca - uy * sa,
            ty = ux * sa + uy * ca,
            r = Math.hypot(ux, uy) || COINCIDENT;
          const off = Math.atan2(tx * wy - ty * wx, tx * wx + ty * wy);
          return off * r;
        });
      }
      heading = Math.atan2(end.y - c.y, end.x - c.x) + (side * Math.PI) / 2;
    }
    const previous = elements[elements.length - 1];
    elements.push(e);
    if (it.tangent) {
      if (!previous)
        problems.push({
          item,
          message: "nothing comes before the first step to be tangent to",
          expected: "TANGENT on a later step, or the relation TANGENT",
        });
      else {
        eq(
          item,
          "relation",
          tangentVars(previous, e),
          `step ${n} leaves step ${n - 1} smoothly`,
          tangentAt(previous, e, from),
          "step",
        );
        equations[equations.length - 1].eitherWay = tangentAt(previous, e, from, true);
      }
    }
  });
  const start = new Float64Array(at.length * 2);
  at.forEach((p, k) => {
    start[2 * k] = p.x;
    start[2 * k + 1] = p.y;
  });
  return {
    system: { start, equations, sound: (v) => elements.every((e) => e.closes || hasLength(e, v)) },
    elements,
    points,
    closed,
    near: nearPoints,
    problems,
  };
}

/** Shorter than this an element is none, mm. */
export const NO_LENGTH = 1e-6;
/** Whether an element is more than a point; an arc from a point to itself is a whole circle. */
function hasLength(e: Element, v: Float64Array): boolean {
  const apart = (a: number, b: number) => Math.hypot(v[2 * b] - v[2 * a], v[2 * b + 1] - v[2 * a + 1]) > NO_LENGTH;
  return e.kind === "line" ? apart(e.from, e.to) : apart(e.from, e.centre);
}

const vars = (e: Element): number[] =>
  [e.from, e.to, ...(e.centre >= 0 ? [e.centre] : [])].flatMap((k) => [2 * k, 2 * k + 1]);
export const tangentVars = (a: Element, b: Element): number[] => [...new Set([...vars(a), ...vars(b)])];

/** Direction of an element at one of its ends, along the way it is walked; not of unit length. */
function direction(e: Element, at: number, v: Float64Array): Vec2 {
  if (e.kind === "line") return v2(v[2 * e.to] - v[2 * e.from], v[2 * e.to + 1] - v[2 * e.from + 1]);
  const dx = v[2 * at] - v[2 * e.centre],
    dy = v[2 * at + 1] - v[2 * e.centre + 1];
  return v2(-dy * e.side, dx * e.side);
}

/**
 * Zero where two elements run into one another smoothly at a shared point: the sine of the angle between them, as a
 * length.
 * @param eitherWay turned back on itself counts too
 */
export function tangentAt(a: Element, b: Element, at: number, eitherWay = false): Equation["f"] {
  return (v) => {
    const p = direction(a, at, v);
    const q = direction(b, at, v);
    const lp = Math.hypot(p.x, p.y) || COINCIDENT;
    const lq = Math.hypot(q.x, q.y) || COINCIDENT;
    const cross = (p.x * q.y - p.y * q.x) / (lp * lq);
    const dot = (p.x * q.x + p.y * q.y) / (lp * lq);
    // Turned back on itself is not smooth: the residual grows on that side instead of coming to zero again.
    return (dot >= 0 || eitherWay ? cross : Math.sign(cross || 1) * (2 - Math.abs(cross))) * Math.min(lp, lq);
  };
}

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
