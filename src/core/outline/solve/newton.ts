import { CholeskyDecomposition, Matrix } from "ml-matrix";
import { gradient, sizeOf, type Equation, type System } from "./system";
import { COINCIDENT, CONTACT, ROUNDING } from "../../geometry/tolerance";

export interface Solution {
  v: Float64Array;
  residual: number;
  converged: boolean;
}

const ITERATIONS = 60,
  GOOD = 1e-10;
/** An iteration that leaves more than this share of what is wrong got nowhere. */
const STALLS = 1 - 1e-3;

/**
 * Solves a system from where it stands, moving as little as it must: Levenberg-Marquardt with a damping that
 * vanishes as it converges.
 * Unknowns no equation holds stay where they are; of several solutions it goes to the near one.
 */
export function solveSystem(s: System, active: Equation[] = s.equations, from: Float64Array = s.start): Solution {
  let v = Float64Array.from(from);
  const size = sizeOf(v);
  // Variables that one equation alone sets (x = 40) are set first, and stay out of the matrix.
  const fixed = new Set<number>();
  let rest: Equation[] = [];
  for (const e of active) {
    if (e.vars.length === 1 && !fixed.has(e.vars[0])) {
      const i = e.vars[0],
        [g] = gradient(e, v, size);
      if (Math.abs(g) > COINCIDENT) {
        v[i] -= e.f(v) / g;
        fixed.add(i);
        continue;
      }
    }
    rest.push(e);
  }
  // Unknowns that only keep a distance (x of one point = x of another + 5) move as one.
  const { root, rest: left } = linked(rest, v, size, fixed);
  rest = left;
  const used = [...new Set(rest.flatMap((e) => e.vars).map((i) => root[i]))]
    .filter((i) => !fixed.has(i))
    .sort((a, b) => a - b);
  const column = new Map(used.map((i, k) => [i, k]));
  const members = used.map((r) => Array.from(root, (x, i) => (x === r ? i : -1)).filter((i) => i >= 0));
  const n = used.length;
  const norm = (w: Float64Array) => rest.reduce((t, e) => t + e.f(w) ** 2, 0);
  let cost = norm(v),
    lambda = 1e-3,
    stalled = 0;
  // Where a residual is no number (two points in one, an arc without a radius) there is nothing to follow.
  for (let k = 0; k < ITERATIONS && n > 0 && Number.isFinite(cost) && cost > (GOOD * GOOD) / 4; k++) {
    const a = new Matrix(n, n),
      b = new Float64Array(n);
    for (const e of rest) {
      const r = e.f(v),
        g = gradient(e, v, size);
      e.vars.forEach((i, p) => {
        const ci = column.get(root[i]);
        if (ci === undefined) return;
        b[ci] -= g[p] * r;
        e.vars.forEach((j, q) => {
          const cj = column.get(root[j]);
          if (cj !== undefined) a.set(ci, cj, a.get(ci, cj) + g[p] * g[q]);
        });
      });
    }
    // Sums taken in another order differ in their last digit; the matrix is symmetric all the same.
    for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) a.set(i, j, a.get(j, i));
    if (![...b].every(Number.isFinite) || !a.to1DArray().every(Number.isFinite)) break;
    let moved = false;
    for (let t = 0; t < 12 && !moved; t++) {
      const damped = a.clone();
      for (let i = 0; i < n; i++) damped.set(i, i, damped.get(i, i) + lambda * (CONTACT + a.get(i, i)) + 1e-13);
      const step = new CholeskyDecomposition(damped);
      if (step.isPositiveDefinite()) {
        const d = step.solve(Matrix.columnVector(b)).getColumn(0);
        const w = Float64Array.from(v);
        // No unknown runs further than the whole outline in one step: it stays on its side of a mirror solution.
        const far = Math.max(...d.map(Math.abs)),
          share = far > 0.6 * size ? (0.6 * size) / far : 1;
        members.forEach((all, c) => {
          for (const i of all) w[i] += share * d[c];
        });
        const next = norm(w);
        if (next < cost) {
          moved = true;
          const gain = next / cost;
          stalled = gain > STALLS ? stalled + 1 : 0;
          v = w;
          cost = next;
          lambda = Math.max(ROUNDING, lambda * (gain < 0.25 ? 0.05 : 0.3));
          continue;
        }
      }
      lambda = Math.min(1e8, lambda * 8);
    }
    // What comes no nearer has no solution here.
    if (!moved || stalled >= 4) break;
  }
  const residual = active.reduce((m, e) => {
    const r = Math.abs(e.f(v));
    return Number.isFinite(r) ? Math.max(m, r) : Infinity;
  }, 0);
  const converged = residual <= 1e-7 * Math.max(1, size * 1e-3) && (s.sound?.(v) ?? true);
  return { v, residual, converged };
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

/**
 * The distance two unknowns keep, v[b] − v[a]; null where the equation says anything else. Told by moving both
 * about.
 */
function keptDistance(e: Equation, v: Float64Array, size: number): number | null {
  if (e.vars.length !== 2) return null;
  const [a, b] = e.vars,
    x = v[a],
    y = v[b],
    at = (p: number, q: number) => {
      v[a] = p;
      v[b] = q;
      return e.f(v);
    };
  const f0 = at(0, 0),
    straight = [
      [0.7, -0.3],
      [-1.9, 1.3],
      [0.2, 2.6],
    ].every(([p, q]) => Math.abs(at(p * size, q * size) - f0 - (q - p) * size) < COINCIDENT * size);
  v[a] = x;
  v[b] = y;
  return straight ? -f0 : null;
}

/**
 * Unknowns that keep their distances gathered: each moves with its `root`. Those of a gathering that holds a set one
 * are set too; the others start at their mean.
 * What the gathering cannot take in (a second way round, two set ends) stays an equation.
 */
function linked(
  equations: Equation[],
  v: Float64Array,
  size: number,
  fixed: Set<number>,
): { root: Int32Array; rest: Equation[] } {
  const root = Int32Array.from(v, (_, i) => i),
    off = new Float64Array(v.length),
    rest: Equation[] = [];
  const groups = new Map<number, number[]>();
  const of = (r: number) => groups.get(r) ?? [r];
  for (const e of equations) {
    const d = keptDistance(e, v, size);
    const [a, b] = e.vars;
    if (d === null || root[a] === root[b] || (fixed.has(root[a]) && fixed.has(root[b]))) {
      rest.push(e);
      continue;
    }
    // The set one, if there is one, is the root.
    const [into, from, shift] = fixed.has(root[b])
      ? [root[b], root[a], off[b] - d - off[a]]
      : [root[a], root[b], off[a] + d - off[b]];
    for (const i of of(from)) {
      root[i] = into;
      off[i] += shift;
    }
    groups.set(into, [...of(into), ...of(from)]);
    groups.delete(from);
  }
  for (const [r, all] of groups) {
    if (fixed.has(r)) for (const i of all) fixed.add(i);
    const base = fixed.has(r) ? v[r] : all.reduce((t, i) => t + v[i] - off[i], 0) / all.length;
    for (const i of all) v[i] = base + off[i];
  }
  return { root, rest };
}
