import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { gradient, sizeOf, type Equation, type System } from './system';

export interface Solution { v: Float64Array; residual: number; converged: boolean }

const ITERATIONS = 60, GOOD = 1e-10;

/**
 * Solves a system from where it stands, moving as little as it must: Levenberg-Marquardt with a damping that vanishes as it converges.
 * Unknowns no equation holds stay where they are; of several solutions it goes to the near one.
 */
export function solveSystem(s: System, active: Equation[] = s.equations, from: Float64Array = s.start): Solution {
  let v = Float64Array.from(from);
  const size = sizeOf(v);
  // Variables that one equation alone sets (x = 40) are set first, and stay out of the matrix.
  const fixed = new Set<number>();
  const rest: Equation[] = [];
  for (const e of active) {
    if (e.vars.length === 1 && !fixed.has(e.vars[0])) {
      const i = e.vars[0], [g] = gradient(e, v, size);
      if (Math.abs(g) > 1e-9) {
        v[i] -= e.f(v) / g;
        fixed.add(i);
        continue;
      }
    }
    rest.push(e);
  }
  const used = [...new Set(rest.flatMap((e) => e.vars))].filter((i) => !fixed.has(i)).sort((a, b) => a - b);
  const column = new Map(used.map((i, k) => [i, k]));
  const n = used.length;
  const norm = (w: Float64Array) => rest.reduce((t, e) => t + e.f(w) ** 2, 0);
  let cost = norm(v), lambda = 1e-3;
  for (let k = 0; k < ITERATIONS && n > 0 && cost > (GOOD * GOOD) / 4; k++) {
    const a = new Matrix(n, n), b = new Float64Array(n);
    for (const e of rest) {
      const r = e.f(v), g = gradient(e, v, size);
      e.vars.forEach((i, p) => {
        const ci = column.get(i);
        if (ci === undefined) return;
        b[ci] -= g[p] * r;
        e.vars.forEach((j, q) => {
          const cj = column.get(j);
          if (cj !== undefined) a.set(ci, cj, a.get(ci, cj) + g[p] * g[q]);
        });
      });
    }
    let moved = false;
    for (let t = 0; t < 12 && !moved; t++) {
      const damped = a.clone();
      for (let i = 0; i < n; i++) damped.set(i, i, damped.get(i, i) + lambda * (1e-6 + a.get(i, i)) + 1e-13);
      const step = new CholeskyDecomposition(damped);
      if (step.isPositiveDefinite()) {
        const d = step.solve(Matrix.columnVector(b)).getColumn(0);
        const w = Float64Array.from(v);
        // No unknown runs further than the whole outline in one step: it stays on its side of a mirror solution.
        const far = Math.max(...d.map(Math.abs)), share = far > 0.6 * size ? (0.6 * size) / far : 1;
        used.forEach((i, c) => { w[i] += share * d[c]; });
        const next = norm(w);
        if (next < cost) {
          moved = true;
          const gain = next / cost;
          v = w;
          cost = next;
          lambda = Math.max(1e-12, lambda * (gain < 0.25 ? 0.05 : 0.3));
          continue;
        }
      }
      lambda = Math.min(1e8, lambda * 8);
    }
    if (!moved) break;
  }
  const residual = active.reduce((m, e) => Math.max(m, Math.abs(e.f(v))), 0);
  return { v, residual, converged: residual <= 1e-7 * Math.max(1, size * 1e-3) };
}
