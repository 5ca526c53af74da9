import { linearised, type Equation, type System } from "./system";

interface Diagnosis {
  freedom: number;
  /** Directions everything can still move in, one vector of all variables each. */
  motions: Float64Array[];
  /** Equations that only repeat what those before them say. */
  redundant: Equation[];
}

/**
 * Rank and null space of the equations at a solution: Gauss-Jordan, row after row, largest entry as pivot.
 * Rows are kept sparse: an equation of an outline looks at a handful of unknowns.
 */
export function freedomOf(s: System, v: Float64Array, equations: Equation[] = s.equations): Diagnosis {
  const n = v.length;
  // Every row is free of the pivots of all others; `by` finds the row of a pivot.
  const by = new Map<number, Map<number, number>>();
  const redundant: Equation[] = [];
  for (const e of equations) {
    const r = new Map<number, number>(),
      g = linearised(e, v).by;
    const scale = Math.max(...g.map(Math.abs));
    if (scale > 0)
      e.vars.forEach((i, k) => {
        if (g[k] !== 0) r.set(i, g[k] / scale);
      });
    for (const [i, k] of [...r]) {
      const p = by.get(i);
      if (p) subtract(r, p, k);
    }
    let pivot = -1,
      most = 1e-6;
    for (const [i, x] of r)
      if (Math.abs(x) > most || (Math.abs(x) === most && i < pivot)) [pivot, most] = [i, Math.abs(x)];
    if (pivot < 0) {
      redundant.push(e);
      continue;
    }
    const k = r.get(pivot)!;
    for (const [i, x] of r) r.set(i, x / k);
    for (const o of by.values()) {
      const c = o.get(pivot);
      if (c !== undefined) subtract(o, r, c);
    }
    by.set(pivot, r);
  }
  const motions: Float64Array[] = [];
  for (let f = 0; f < n; f++) {
    if (by.has(f)) continue;
    const m = new Float64Array(n);
    m[f] = 1;
    for (const [pivot, r] of by) m[pivot] = -(r.get(f) ?? 0);
    motions.push(m);
  }
  return { freedom: motions.length, motions, redundant };
}

/** r − k p, with what vanishes taken out. */
function subtract(r: Map<number, number>, p: Map<number, number>, k: number): void {
  for (const [i, x] of p) {
    const y = (r.get(i) ?? 0) - k * x;
    if (Math.abs(y) < 1e-14) r.delete(i);
    else r.set(i, y);
  }
}
