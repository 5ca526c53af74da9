import { ROUNDING } from "../geometry/tolerance";
import { v2, type Vec2 } from "../geometry/vec";
import { evaluateNumber, type NumberScope, type NumberText, type Quantity } from "../number";
import { arcCentre, arcEnd, lineEnd, type ArcGuess, type Maybe2, type StepGuess } from "./guess";
import type { OutlineItem } from "./items";
import type { Equation } from "./solve/system";
import { apart, between, keeps, turnedBy, unknownsOf, xOf, yOf } from "./solve/terms";
import { hasLength, tangentAt, unknownsOfBoth, type Element, type NearPoint, type Walk } from "./walk";

type Start = Extract<OutlineItem, { item: "start" }>;
type LineStep = Extract<OutlineItem, { item: "line" }>;
type ArcStep = Extract<OutlineItem, { item: "arc" }>;
type Step = LineStep | ArcStep;
type Axis = "x" | "y";
const axes: Axis[] = ["x", "y"];
/** The unknown of a point along an axis. */
const unknown = { x: xOf, y: yOf };

/** A place as it is typed; with `diameter` x is typed as a diameter, and half of it is meant. */
interface TypedPlace {
  x?: NumberText;
  y?: NumberText;
  diameter?: true;
}
/** A step while it is built: what is typed of it, and where it stands in the walk. */
interface OpenStep {
  step: Step;
  item: number;
  /** Its number, from 1. */
  n: number;
  from: number;
  /** Its end has other reasons than its coordinates: one left out is open then, and not unchanged. */
  otherwise: boolean;
}

/**
 * Turns a walk into unknowns and equations, with a first guess that goes step by step from what is known.
 * What a step leaves out of `TO` stays as it was, unless length, angle, radius or tangency are to find it.
 */
export function buildWalk(items: OutlineItem[], scope: NumberScope, size: number): Walk {
  const builder = new WalkBuilder(items, scope, size);
  items.forEach((it, item) => builder.put(it, item));
  return builder.walk();
}

class WalkBuilder {
  private readonly problems: Walk["problems"] = [];
  private readonly at: Vec2[] = [];
  private readonly elements: Element[] = [];
  private readonly equations: Equation[] = [];
  private readonly points = new Map<string, number>();
  /** Points nothing said so far gives a place to. */
  private readonly loose = new Set<number>();
  private readonly near: NearPoint[] = [];
  private closed = false;
  private heading = 0;

  constructor(
    private readonly items: OutlineItem[],
    private readonly scope: NumberScope,
    private readonly size: number,
  ) {}

  walk(): Walk {
    const { elements, points, closed, near, problems } = this;
    const start = Float64Array.from(this.at.flatMap((p) => [p.x, p.y]));
    const sound = (v: Float64Array) => elements.every((e) => e.closes || hasLength(e, v));
    return { system: { start, equations: this.equations, sound }, elements, points, closed, near, problems };
  }

  put(it: OutlineItem, item: number): void {
    if (it.item === "start") return this.start(it, item);
    if (it.item !== "line" && it.item !== "arc") return;
    if (this.closed) return this.fault(item, "the walk is closed already", "END, or a relation or dimension");
    if (!this.points.has("P0")) this.begin(item, { x: 0, y: 0 });
    this.step(it, item);
  }

  // What is typed.

  private fault(item: number, message: string, expected: string): void {
    this.problems.push({ item, message, expected });
  }
  /** Value of a number; null while it is open (`?`) or wrong, which is said. */
  private read(text: NumberText | undefined, quantity: Quantity, item: number): number | null {
    if (text === undefined || text === "?") return null;
    const r = evaluateNumber(text, quantity, this.scope);
    if (r.ok) return r.value.value;
    this.problems.push({ ...r.problems[0], item });
    return null;
  }
  private coordinate(place: TypedPlace, axis: Axis, item: number): number | null {
    const typed = this.read(place[axis], "coordinate", item);
    return axis === "x" && place.diameter && typed !== null ? typed / 2 : typed;
  }
  private place(place: TypedPlace | undefined, item: number): Maybe2 | null {
    return place ? { x: this.coordinate(place, "x", item), y: this.coordinate(place, "y", item) } : null;
  }

  // What it comes to.

  private add(p: Vec2): number {
    return this.at.push(p) - 1;
  }
  private equation(e: Equation): void {
    this.equations.push({ ...e, vars: [...new Set(e.vars)] });
  }
  private set(item: number, point: number, axis: Axis, value: number, words: string, role?: "start"): void {
    const i = unknown[axis](point);
    this.equation({
      item,
      kind: "dimension",
      vars: [i],
      words,
      residual: (u) => u.at(i).shifted(-value),
      ...(role && { role }),
    });
  }

  private start(it: Start, item: number): void {
    if (this.points.has("P0")) return this.fault(item, "a walk starts once", "LINE or ARC");
    this.begin(item, this.place(it.at, item)!);
  }

  /** The walk's first point; one without a START begins at zero. */
  private begin(item: number, p: Maybe2): void {
    const k = this.add(v2(p.x ?? 0, p.y ?? 0));
    this.points.set("P0", k);
    if (p.x === null && p.y === null) this.loose.add(k);
    for (const axis of axes) if (p[axis] !== null) this.set(item, k, axis, p[axis]!, `${axis} of the start`, "start");
  }

  private step(step: Step, item: number): void {
    const { elements } = this;
    const previous = elements[elements.length - 1];
    const from = previous ? previous.to : this.points.get("P0")!;
    const open: OpenStep = { step, item, n: elements.length + 1, from, otherwise: isFoundOtherwise(step) };
    const near = this.place(step.near, item);
    const arc = step.item === "arc" ? this.arcGuess(step, item) : null;
    if (arc) this.settleLooseStart(from, arc, item);
    const wanted = this.wantedEnd(open);
    const guess: StepGuess = {
      from: this.at[from],
      heading: this.heading,
      first: !previous,
      tangent: Boolean(step.tangent),
      known: { x: orKept(wanted.x, this.at[from].x), y: orKept(wanted.y, this.at[from].y) },
      near,
      size: this.size,
    };
    const line = step.item === "line" ? this.lineNumbers(step, item) : null;
    let end = line ? lineEnd(guess, line.angle, line.length) : arcEnd(guess, arc!);
    let to: number;
    if (step.close) {
      to = this.points.get("P0")!;
      this.closed = true;
      end = this.at[to];
    } else {
      to = this.add(end);
      if (wanted.x === null && wanted.y === null && !near) this.loose.add(to);
      if (near) this.near.push({ item, point: to, ...near });
    }
    this.points.set(`P${open.n}`, to);
    const element: Element = {
      kind: step.item,
      from,
      to,
      centre: -1,
      side: arc?.side ?? 1,
      item,
      ...(step.close && { closes: true as const }),
    };
    this.sayEnd(open, to, wanted);
    if (line) this.sayLine(open, to, line, end);
    else this.sayArc(open, element, arc!, guess, end);
    elements.push(element);
    if (step.tangent) this.saySmooth(open, previous, element);
  }

  private lineNumbers(step: LineStep, item: number) {
    return { angle: this.read(step.angle, "angle", item), length: this.read(step.length, "length", item) };
  }
  private arcGuess(step: ArcStep, item: number): ArcGuess {
    return {
      radius: this.read(step.radius, "length", item),
      sweep: this.read(step.sweep, "angle", item),
      centre: this.place(step.centre, item),
      side: step.side === "cw" ? -1 : 1,
      long: Boolean(step.long),
      endOpen: !step.to && !step.by && !step.near,
    };
  }

  /**
   * A loose start of an arc whose circle is known goes onto the circle: where the way so far runs along it, or turned
   * away from the next circle.
   */
  private settleLooseStart(from: number, arc: ArcGuess, item: number): void {
    if (!this.loose.has(from) || arc.centre?.x == null || arc.centre.y === null || arc.radius === null) return;
    const { x, y } = arc.centre as Vec2;
    const next = this.elements.length ? null : this.nextCentre(item);
    const along = next
      ? Math.atan2(next.y - y, next.x - x) + (arc.side * Math.PI) / 2
      : this.heading - (arc.side * Math.PI) / 2;
    this.at[from] = v2(x + arc.radius * Math.cos(along), y + arc.radius * Math.sin(along));
  }

  /** Centre of the next arc after an item, where it is known. */
  private nextCentre(after: number): Vec2 | null {
    const i = this.items.findIndex((it, k) => k > after && it.item === "arc" && it.centre);
    if (i < 0) return null;
    const c = this.place((this.items[i] as ArcStep).centre, i)!;
    return c.x !== null && c.y !== null ? v2(c.x, c.y) : null;
  }

  /** Coordinates of a step's end as typed: null where open, no number where they stay as they were. */
  private wantedEnd({ step, item, from, otherwise }: OpenStep): Maybe2 {
    const one = (axis: Axis): number | null => {
      if (step.to?.[axis] !== undefined) return this.coordinate(step.to, axis, item);
      if (step.by?.[axis] !== undefined) {
        const d = this.coordinate(step.by, axis, item);
        return d === null ? null : this.at[from][axis] + d;
      }
      if (otherwise) return null;
      if (step.to) return NaN;
      return step.by ? this.at[from][axis] : null;
    };
    return { x: one("x"), y: one("y") };
  }

  // What a step says, as equations.

  private sayEnd({ step, item, n, from, otherwise }: OpenStep, to: number, wanted: Maybe2): void {
    if (step.close) {
      if (step.to || step.by) this.fault(item, "a step that closes ends at the start", "CLOSE without TO or BY");
      return;
    }
    for (const axis of axes) {
      const [a, b] = [unknown[axis](from), unknown[axis](to)];
      if (step.to?.[axis] !== undefined) {
        if (wanted[axis] !== null) this.set(item, to, axis, wanted[axis]!, `${axis} of the end of step ${n}`);
      } else if (step.by && (step.by[axis] !== undefined || (!step.to && !otherwise))) {
        const d = step.by[axis] === undefined ? 0 : this.coordinate(step.by, axis, item);
        if (d !== null) this.equation(kept(item, "dimension", a, b, d, `${axis} of step ${n}`));
      } else if (step.to && Number.isNaN(wanted[axis]))
        this.equation({ ...kept(item, "relation", a, b, 0, `step ${n} keeps its ${axis}`), role: "step" });
    }
  }

  private sayLine(
    { item, n, from }: OpenStep,
    to: number,
    { angle, length }: { angle: number | null; length: number | null },
    end: Vec2,
  ): void {
    const vars = unknownsOf(from, to);
    if (angle !== null) {
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      this.equation({
        item,
        kind: "dimension",
        vars,
        words: `angle of step ${n}`,
        residual: (u) => {
          const d = between(u, from, to);
          return d.x.scaled(s).minus(d.y.scaled(c));
        },
      });
    }
    if (length !== null)
      this.equation({
        item,
        kind: "dimension",
        vars,
        words: `length of step ${n}`,
        residual: (u) => apart(u, from, to).shifted(-length),
      });
    const p = this.at[from];
    if (Math.hypot(end.x - p.x, end.y - p.y) > ROUNDING) this.heading = Math.atan2(end.y - p.y, end.x - p.x);
  }

  private sayArc({ item, n, from }: OpenStep, e: Element, arc: ArcGuess, guess: StepGuess, end: Vec2): void {
    const c = arcCentre(guess, arc, end);
    const k = (e.centre = this.add(c));
    const { to } = e;
    const { radius, sweep, centre, side } = arc;
    this.points.set(`C${n}`, k);
    const all = unknownsOf(from, to, k);
    if (from !== to)
      this.equation({
        item,
        kind: "shape",
        vars: all,
        words: `step ${n} is an arc`,
        residual: (u) => apart(u, to, k).minus(apart(u, from, k)),
      });
    if (radius !== null) {
      e.radius = radius;
      this.equation({
        item,
        kind: "dimension",
        role: "radius",
        vars: unknownsOf(from, k),
        words: `radius of step ${n}`,
        residual: (u) => apart(u, from, k).shifted(-radius),
      });
    }
    for (const axis of axes)
      if (centre?.[axis] != null) this.set(item, k, axis, centre[axis]!, `${axis} of the centre of step ${n}`);
    if (sweep !== null)
      this.equation({
        item,
        kind: "dimension",
        vars: all,
        words: `sweep of step ${n}`,
        residual: turnedBy(from, to, k, side * Math.abs(sweep)),
      });
    this.heading = Math.atan2(end.y - c.y, end.x - c.x) + (side * Math.PI) / 2;
  }

  private saySmooth({ item, n, from }: OpenStep, previous: Element | undefined, e: Element): void {
    if (!previous)
      return this.fault(
        item,
        "nothing comes before the first step to be tangent to",
        "TANGENT on a later step, or the relation TANGENT",
      );
    this.equation({
      item,
      kind: "relation",
      role: "step",
      vars: unknownsOfBoth(previous, e),
      words: `step ${n} leaves step ${n - 1} smoothly`,
      residual: tangentAt(previous, e, from),
      eitherWay: tangentAt(previous, e, from, true),
    });
  }
}

const orKept = (wanted: number | null, was: number): number | null => (Number.isNaN(wanted) ? was : wanted);

const isFoundOtherwise = (step: Step): boolean =>
  Boolean(step.tangent) ||
  (step.item === "line"
    ? step.angle !== undefined || step.length !== undefined
    : step.sweep !== undefined || step.centre !== undefined);

/** v[b] − v[a] = d. */
const kept = (item: number, kind: Equation["kind"], a: number, b: number, d: number, words: string): Equation => ({
  item,
  kind,
  vars: [a, b],
  words,
  keeps: d,
  residual: keeps(a, b, d),
});
