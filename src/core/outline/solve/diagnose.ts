import { solveSystem, type Solution } from './newton';
import { gradient, sizeOf, type Equation, type System } from './system';

export interface Diagnosis {
  freedom: number;
  /** Directions everything can still move in, one vector of all variables each. */
  motions: Float64Array[];
  /** Equations that only repeat what those before them say. */
  redundant: Equation[];
}

/** Rank and null space of the equations at a solution: rows one after the other, each cleared by those before it, largest entry as pivot. */
export function freedomOf(s: System, v: Float64Array, equations: Equation[] = s.equations): Diagnosis {
  const n = v.length, size = sizeOf(v);
  const rows: { r: Float64Array; pivot: number }[] = [];
  const redundant: Equation[] = [];
  for (const e of equations) {
    const r = new Float64Array(n);
    gradient(e, v, size).forEach((g, k) => { r[e.vars[k]] = g; });
    const scale = Math.max(...r.map(Math.abs));
    if (scale > 0) for (let i = 0; i < n; i++) r[i] /= scale;
    for (const { r: p, pivot } of rows) {
      const k = r[pivot];
      if (k !== 0) for (let i = 0; i < n; i++) r[i] -= k * p[i];
    }
    let pivot = -1, most = 1e-6;
    for (let i = 0; i < n; i++) if (Math.abs(r[i]) > most) [pivot, most] = [i, Math.abs(r[i])];
    if (pivot < 0) {
      redundant.push(e);
      continue;
    }
    const k = r[pivot];
    for (let i = 0; i < n; i++) r[i] /= k;
    for (const o of rows) {
      const c = o.r[pivot];
      if (c !== 0) for (let i = 0; i < n; i++) o.r[i] -= c * r[i];
    }
    rows.push({ r, pivot });
  }
  const pivots = new Set(rows.map((r) => r.pivot));
  const motions: Float64Array[] = [];
  for (let f = 0; f < n; f++) {
    if (pivots.has(f)) continue;
    const m = new Float64Array(n);
    m[f] = 1;
    for (const { r, pivot } of rows) m[pivot] = -r[f];
    motions.push(m);
  }
  return { freedom: motions.length, motions, redundant };
}

export interface Conflict { equations: Equation[]; drop: Equation[] }

/**
 * What contradicts what, when a system has no solution: the smallest set of equations that still has none, and which dimension of it can be dropped so that the rest holds.
 * @param start where the attempt began: dropping is tried from there
 */
export function findConflict(s: System, failed: Solution): Conflict {
  const stuck = s.equations.filter((e) => Math.abs(e.f(failed.v)) > 1e-6);
  // Which single dimension, left out, lets all the others hold?
  const near = [...new Set([...stuck, ...s.equations.filter((e) => e.vars.some((i) => stuck.some((q) => q.vars.includes(i)))), ...s.equations])];
  const drop: Equation[] = [];
  // The start is where the outline stands: it is offered only when nothing else mends.
  const order = [...near.filter((x) => !x.words.endsWith('of the start')), ...near.filter((x) => x.words.endsWith('of the start'))];
  for (const e of order.filter((x) => x.kind === 'dimension').slice(0, 80)) {
    if (drop.length && e.words.endsWith('of the start')) break;
    if (solveSystem(s, s.equations.filter((x) => x !== e)).converged) drop.push(e);
    if (drop.length >= 8) break;
  }
  if (!drop.length) return { equations: stuck, drop };
  // The conflict is among those whose dropping mends it, and the relations they meet in.
  return { equations: drop.length > 1 ? drop : [...new Set([...drop, ...stuck])], drop };
}
