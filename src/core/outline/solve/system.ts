import { Unknowns } from "./dual";
import type { Residual } from "./terms";

/**
 * Unknowns and equations of an outline. Variables are plain numbers (mm); an equation's residual is in mm too,
 * whatever it is about.
 */
export interface Equation {
  /** Variables it looks at, by index. */
  vars: number[];
  /** Zero when it holds. */
  residual: Residual;
  /** The same where turning back counts as going on: for telling that only the way ruled a solution out. */
  eitherWay?: Residual;
  /** The distance v[b] − v[a] that its two unknowns keep, where that is all it says. */
  keeps?: number;
  /** The item of the outline it comes from. */
  item: number;
  /** A dimension can be dropped, a relation or the chain's own closing is meant as it stands. */
  kind: "dimension" | "relation" | "shape";
  /**
   * What it says besides: where the walk starts, an arc's radius, that an arc is half a circle, or what a step is by
   * itself (it cannot be dropped alone).
   */
  role?: "start" | "radius" | "halfCircle" | "step";
  /** In words, for messages. */
  words: string;
}

export interface System {
  start: Float64Array;
  equations: Equation[];
  /** Whether a solution is one: an element shrunk to nothing holds every relation and is none. */
  sound?(v: Float64Array): boolean;
}

/** How far an equation is from holding, mm. */
export const residualOf = (e: Equation, v: Float64Array): number => e.residual(new Unknowns(v)).value;

/** Residual of an equation and its derivatives by its own variables, exact. */
export function linearised(e: Equation, v: Float64Array): { value: number; by: readonly number[] } {
  const { value, by } = e.residual(new Unknowns(v, e.vars));
  return { value, by: by.length === e.vars.length ? by : e.vars.map((_, k) => by[k] ?? 0) };
}

/** Largest extent of the numbers, for tolerances. */
export const sizeOf = (v: Float64Array): number => v.reduce((m, x) => Math.max(m, Math.abs(x)), 1);
