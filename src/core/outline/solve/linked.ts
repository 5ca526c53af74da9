import type { Equation } from "./system";

/** Unknowns that move as one with their `root`, and the equations that say more than a distance. */
interface Linked {
  root: Int32Array;
  rest: Equation[];
}

/**
 * Unknowns that keep their distances gathered: each moves with its `root`. Those of a gathering that holds a set one
 * are set too; the others start at their mean.
 * What the gathering cannot take in (a second way round, two set ends) stays an equation.
 */
export function linked(equations: Equation[], v: Float64Array, fixed: Set<number>): Linked {
  const root = Int32Array.from(v, (_, i) => i),
    off = new Float64Array(v.length),
    rest: Equation[] = [];
  const groups = new Map<number, number[]>();
  const of = (r: number) => groups.get(r) ?? [r];
  for (const e of equations) {
    const [a, b] = e.vars;
    if (e.keeps === undefined || root[a] === root[b] || (fixed.has(root[a]) && fixed.has(root[b]))) {
      rest.push(e);
      continue;
    }
    // The set one, if there is one, is the root.
    const [into, from, shift] = fixed.has(root[b])
      ? [root[b], root[a], off[b] - e.keeps - off[a]]
      : [root[a], root[b], off[a] + e.keeps - off[b]];
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
