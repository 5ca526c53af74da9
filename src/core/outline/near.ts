import type { Problem } from "../base/result";
import { solveSystem, type Solution } from "./solve/newton";
import type { Equation } from "./solve/system";
import type { Walk } from "./walk";
import { CONTACT } from "../geometry/tolerance";

/** A solution this much nearer than another is the one that is meant. */
const CLEARLY = 0.5;

/** How far a solution is from where the steps say to look, mm. */
const awayFrom = (walk: Walk, v: Float64Array): number => Math.hypot(...walk.near.map((n) => awayOf(n, v)));
const awayOf = (n: Walk["near"][number], v: Float64Array): number =>
  Math.hypot(n.x === null ? 0 : v[2 * n.point] - n.x, n.y === null ? 0 : v[2 * n.point + 1] - n.y);

/**
 * The solution found by going first to where the steps say, everything else as near to holding as it gets there, and
 * from there on.
 */
function solvedFromNear(walk: Walk, equations: Equation[]): Solution {
  const system = { ...walk.system, equations };
  const { start } = system;
  const pins = walk.near.flatMap((n): Equation[] =>
    (["x", "y"] as const).flatMap((axis, k) => {
      const [at, i] = [n[axis], 2 * n.point + k];
      return at === null
        ? []
        : [{ item: n.item, kind: "shape", vars: [i], words: "", residual: (u) => u.at(i).shifted(-at) }];
    }),
  );
  const pinned = solveSystem(system, [...pins, ...equations], start);
  return solveSystem(system, equations, pinned.v);
}

/**
 * Of several solutions the one NEAR names. Where only a step that turns back on itself would end there, and the
 * smooth one ends elsewhere, that is said.
 * @param solution one that holds
 */
export function goNear(
  walk: Walk,
  solution: Solution,
): { solution: Solution; problems: (Problem & { item: number })[] } {
  if (!walk.near.length || awayFrom(walk, solution.v) < CONTACT) return { solution, problems: [] };
  const { equations } = walk.system;
  const other = solvedFromNear(walk, equations);
  const best = other.converged && awayFrom(walk, other.v) < awayFrom(walk, solution.v) - CONTACT ? other : solution;
  if (!equations.some((e) => e.eitherWay)) return { solution: best, problems: [] };
  const loose = equations.map((e) => ({ ...e, residual: e.eitherWay ?? e.residual }));
  const back = solvedFromNear(walk, loose);
  if (!back.converged) return { solution: best, problems: [] };
  const problems = walk.near.flatMap((n) => {
    const [here, there] = [awayOf(n, best.v), awayOf(n, back.v)];
    if (there > CLEARLY * here || here < CONTACT) return [];
    return [
      {
        item: n.item,
        message: "at the place NEAR names the next step would turn back instead of going on smoothly",
        expected: "the other place, or an arc the other way round (CW or CCW)",
      },
    ];
  });
  return { solution: best, problems };
}
