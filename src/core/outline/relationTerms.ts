import type { Problem } from "../base/result";
import type { OutlineItem } from "./items";
import { Dual, type Unknowns } from "./solve/dual";
import type { Equation } from "./solve/system";
import { apart, at, between, constant, unitOf, unknownsOf, type DualVec, type Residual } from "./solve/terms";
import type { Element, Walk } from "./walk";

export type Said = Extract<OutlineItem, { item: "relation" | "dimension" }>;
export type Ref = Said["of"][number];
/** A straight step, or an axis of the outline. */
export type StraightLine = { a: number; b: number } | { axis: "X" | "Y" };

/** A relation or dimension that speaks of the wrong things, and what it could be said of. */
export class Refusal {
  constructor(
    readonly message: string,
    readonly expected: string,
  ) {}
}

/** What a relation or dimension comes to, beside the item and words all its equations share. */
export type Clause = Pick<Equation, "vars" | "residual"> & Partial<Pick<Equation, "keeps" | "eitherWay" | "role">>;

/** What the references of a walk stand for, and the terms its relations are made of. */
export class Terms {
  /** The first guess: which side of a line or circle is kept. */
  readonly first: Unknowns;
  constructor(
    readonly walk: Walk,
    guess: Unknowns,
  ) {
    this.first = guess;
  }

  element(ref: Ref | undefined): Element | null {
    return typeof ref === "number" ? (this.walk.elements[ref - 1] ?? null) : null;
  }
  arc(ref: Ref | undefined): Element | null {
    const e = this.element(ref);
    return e?.kind === "arc" ? e : null;
  }
  point(ref: Ref | undefined): number | null {
    return typeof ref === "string" ? (this.walk.points.get(ref) ?? null) : null;
  }
  line(ref: Ref | undefined): StraightLine | null {
    if (ref === "X" || ref === "Y") return { axis: ref };
    const e = this.element(ref);
    return e?.kind === "line" ? { a: e.from, b: e.to } : null;
  }
  /** The two points a relation is said of: two by name, or the ends of a line. */
  ends(of: readonly Ref[]): [number, number] | null {
    if (of.length === 2) {
      const [a, b] = [this.point(of[0]), this.point(of[1])];
      return a === null || b === null ? null : [a, b];
    }
    const e = this.element(of[0]);
    return e?.kind === "line" ? [e.from, e.to] : null;
  }

  /** What of its references is not there. */
  missing(of: readonly Ref[]): Refusal | null {
    const { elements, points } = this.walk;
    const gone = of.find((r) => (typeof r === "number" ? !elements[r - 1] : r !== "X" && r !== "Y" && !points.has(r)));
    if (gone === undefined) return null;
    return typeof gone === "number"
      ? new Refusal(`there is no step ${gone}`, `a step from 1 to ${elements.length}`)
      : new Refusal(`there is no point ${gone}`, [...points.keys()].slice(0, 12).join(", "));
  }

  /** How far a residual is at the first guess. */
  guessed(r: Residual): number {
    return r(this.first).value;
  }
}

export type Faults = (Problem & { item: number })[];

export const unknownsOfLine = (l: StraightLine): number[] => ("axis" in l ? [] : unknownsOf(l.a, l.b));
/** Direction of a line, of length one. */
export const directionOf = (l: StraightLine, u: Unknowns): DualVec => {
  if ("axis" in l) return l.axis === "X" ? constant(1, 0) : constant(0, 1);
  return unitOf(between(u, l.a, l.b));
};
/** Length of a line; an axis has none. */
export const extentOf = (l: StraightLine, u: Unknowns): Dual | null => ("axis" in l ? null : apart(u, l.a, l.b));
/** Signed distance of a point from a line, left positive. */
export const offLine =
  (point: number, l: StraightLine): Residual =>
  (u) => {
    const d = directionOf(l, u);
    const p = at(u, point);
    const origin = "axis" in l ? constant(0, 0) : at(u, l.a);
    return d.x.times(p.y.minus(origin.y)).minus(d.y.times(p.x.minus(origin.x)));
  };

export const radiusOf = (e: Element, u: Unknowns): Dual => apart(u, e.from, e.centre);
export const unknownsOfRadius = (e: Element): number[] => unknownsOf(e.from, e.centre);
export const signOf = (x: number): 1 | -1 => (x < 0 ? -1 : 1);
