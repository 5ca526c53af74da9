import { CONTACT } from "../../geometry/tolerance";
/**
 * Unknowns and equations of an outline. Variables are plain numbers (mm); an equation's residual is in mm too,
 * whatever it is about.
 */
export interface Equation {
  /** Variables it looks at, by index. */
  vars: number[];
  /** Residual, zero when it holds; `v` is the whole vector. */
  f(v: Float64Array): number;
  /** The same where turning back counts as going on: for telling that only the way ruled a solution out. */
  eitherWay?(v: Float64Array): number;
  /** The item of the outline it comes from. */
  item: number;
  /** A dimension can be dropped, a relation or the chain's own closing is meant as it stands. */
  kind: "dimension" | "relation" | "shape";
  /**
   * What it says besides: where the walk starts, that an arc is half a circle, or what a step is by itself (it
   * cannot be dropped alone).
   */
  role?: "start" | "halfCircle" | "step";
  /** In words, for messages. */
  words: string;
}

export interface System {
  start: Float64Array;
  equations: Equation[];
  /** Whether a solution is one: an element shrunk to nothing holds every relation and is none. */
  sound?(v: Float64Array): boolean;
}

/**
 * Derivatives of an equation by its own variables: central differences, exact enough for quadratic convergence down
 * to 1e-10 mm.
 */
export function gradient(e: Equation, v: Float64Array, size: number): number[] {
  const h = CONTACT * Math.max(1, size);
  return e.vars.map((i) => {
    const keep = v[i];
    v[i] = keep + h;
    const up = e.f(v);
    v[i] = keep - h;
    const down = e.f(v);
    v[i] = keep;
    return (up - down) / (2 * h);
  });
}

/** Largest extent of the numbers, for tolerances. */
export const sizeOf = (v: Float64Array): number => v.reduce((m, x) => Math.max(m, Math.abs(x)), 1);
