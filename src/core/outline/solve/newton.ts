import { CholeskyDecomposition, Matrix } from "ml-matrix";
import { COINCIDENT, CONTACT, ROUNDING } from "../../geometry/tolerance";
import { linked } from "./linked";
import { linearised, residualOf, sizeOf, type Equation, type System } from "./system";

export interface Solution {
  v: Float64Array;
  residual: number;
  converged: boolean;
}

const ITERATIONS = 60,
  GOOD = 1e-10;
/** Dampings tried before a step is given up, and the strongest. */
const DAMPINGS = 12,
  MOST_DAMPED = 1e8;
/** An iteration that leaves more than this share of what is wrong got nowhere. */
const STALLS = 1 - 1e-3;
/** No unknown runs further than this share of the outline in one step: it stays on its side of a mirror solution. */
const FARTHEST = 0.6;

/**
 * Solves a system from where it stands, moving as little as it must: Levenberg-Marquardt with a damping that
 * vanishes as it converges.
 * Unknowns no equation holds stay where they are; of several solutions it goes to the near one.
 */
export function solveSystem(s: System, active: Equation[] = s.equations, from: Float64Array = s.start): Solution {
  const start = Float64Array.from(from);
  const size = sizeOf(start);
  // Variables that one equation alone sets (x = 40) are set first, and stay out of the matrix.
  const { fixed, rest } = setSingles(active, start);
  // Unknowns that only keep a distance (x of one point = x of another + 5) move as one.
  const links = linked(rest, start, fixed);
  const v = new Descent(links.rest, links.root, fixed, size).from(start);
  const residual = active.reduce((m, e) => {
    const r = Math.abs(residualOf(e, v));
    return Number.isFinite(r) ? Math.max(m, r) : Infinity;
  }, 0);
  const converged = residual <= 1e-7 * Math.max(1, size * 1e-3) && (s.sound?.(v) ?? true);
  return { v, residual, converged };
}

/** Sets in `v` what one equation alone sets. */
function setSingles(active: Equation[], v: Float64Array): { fixed: Set<number>; rest: Equation[] } {
  const fixed = new Set<number>();
  const rest = active.filter((e) => {
    if (e.vars.length !== 1 || fixed.has(e.vars[0])) return true;
    const { value, by } = linearised(e, v);
    if (Math.abs(by[0]) <= COINCIDENT) return true;
    v[e.vars[0]] -= value / by[0];
    fixed.add(e.vars[0]);
    return false;
  });
  return { fixed, rest };
}

/** The way down to where some equations hold. */
class Descent {
  /** Unknowns that move, and for each of them all that move with it. */
  private readonly column: Map<number, number>;
  private readonly members: number[][];
  private lambda = 1e-3;
  private cost = Infinity;
  private stalled = 0;
  constructor(
    private readonly equations: Equation[],
    private readonly root: Int32Array,
    fixed: Set<number>,
    private readonly size: number,
  ) {
    const used = [...new Set(equations.flatMap((e) => e.vars).map((i) => root[i]))]
      .filter((i) => !fixed.has(i))
      .sort((a, b) => a - b);
    this.column = new Map(used.map((i, k) => [i, k]));
    this.members = used.map((r) => Array.from(root, (x, i) => (x === r ? i : -1)).filter((i) => i >= 0));
  }

  from(start: Float64Array): Float64Array {
    let v = start;
    this.cost = this.norm(v);
    // Where a residual is no number (two points in one, an arc without a radius) there is nothing to follow.
    for (let k = 0; k < ITERATIONS && this.members.length > 0 && this.isWrong(); k++) {
      const next = this.step(v);
      // What comes no nearer has no solution here.
      if (!next) break;
      v = next;
      if (this.stalled >= 4) break;
    }
    return v;
  }

  private isWrong = (): boolean => Number.isFinite(this.cost) && this.cost > (GOOD * GOOD) / 4;
  private norm = (v: Float64Array): number => this.equations.reduce((t, e) => t + residualOf(e, v) ** 2, 0);

  /** One step that comes nearer; null where none does, however much it is damped. */
  private step(v: Float64Array): Float64Array | null {
    const normal = this.normalEquations(v);
    if (!normal) return null;
    for (let t = 0; t < DAMPINGS; t++) {
      const d = this.damped(normal);
      const next = d && this.moved(v, d);
      const cost = next ? this.norm(next) : Infinity;
      if (next && cost < this.cost) {
        const gain = cost / this.cost;
        this.stalled = gain > STALLS ? this.stalled + 1 : 0;
        this.cost = cost;
        this.lambda = Math.max(ROUNDING, this.lambda * (gain < 0.25 ? 0.05 : 0.3));
        return next;
      }
      this.lambda = Math.min(MOST_DAMPED, this.lambda * 8);
    }
    return null;
  }

  /** JᵀJ and −Jᵀr at a place; null where they are no numbers. */
  private normalEquations(v: Float64Array): { a: Matrix; b: Float64Array } | null {
    const n = this.members.length;
    const a = new Matrix(n, n),
      b = new Float64Array(n);
    for (const e of this.equations) {
      const { value, by } = linearised(e, v);
      if (!Number.isFinite(value) || !by.every(Number.isFinite)) return null;
      const columns = e.vars.map((i) => this.column.get(this.root[i]));
      columns.forEach((ci, p) => {
        if (ci === undefined) return;
        b[ci] -= by[p] * value;
        columns.forEach((cj, q) => {
          if (cj !== undefined) a.set(ci, cj, a.get(ci, cj) + by[p] * by[q]);
        });
      });
    }
    // Sums taken in another order differ in their last digit; the matrix is symmetric all the same.
    for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) a.set(i, j, a.get(j, i));
    return { a, b };
  }

  private damped({ a, b }: { a: Matrix; b: Float64Array }): number[] | null {
    const damped = a.clone();
    for (let i = 0; i < b.length; i++)
      damped.set(i, i, damped.get(i, i) + this.lambda * (CONTACT + a.get(i, i)) + 1e-13);
    const step = new CholeskyDecomposition(damped);
    return step.isPositiveDefinite() ? step.solve(Matrix.columnVector(b)).getColumn(0) : null;
  }

  private moved(v: Float64Array, d: number[]): Float64Array {
    const w = Float64Array.from(v);
    const far = Math.max(...d.map(Math.abs)),
      share = far > FARTHEST * this.size ? (FARTHEST * this.size) / far : 1;
    this.members.forEach((all, c) => {
      for (const i of all) w[i] += share * d[c];
    });
    return w;
  }
}

/**
 * Solves a system as `solveSystem` does; a walk that runs into a corner of its own first guess is tried again from
 * guesses beside it, the nearest first.
 * @param tries how many other guesses
 */
export function steadily(s: System, active: Equation[] = s.equations, tries = 8): Solution {
  let solution = solveSystem(s, active);
  const size = sizeOf(s.start);
  for (let k = 0; k < tries && !solution.converged; k++) {
    const from = Float64Array.from(
      solution.v,
      (x, i) => x + Math.sin((i + 1) * 12.9898 * (k + 1)) * size * 0.05 * (k + 1),
    );
    const again = solveSystem(s, active, from);
    if (again.converged) solution = again;
  }
  return solution;
}
