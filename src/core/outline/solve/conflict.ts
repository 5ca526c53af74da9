import { solveSystem, steadily } from "./newton";
import type { Equation, System } from "./system";

/**
 * What cannot hold together: the fewest equations that contradict one another, and what of it can be dropped.
 * `proven` is false where they hold by themselves and no way was found with the rest as it stands.
 */
export interface Conflict {
  equations: Equation[];
  drop: Equation[];
  proven: boolean;
  /** They hold, but only with an element shrunk to nothing. */
  shrunk: boolean;
}

/** Contradictions told at once; whoever has more begins with these. */
const MOST = 4;
/** Solutions tried in all, so that typing never waits for what is nonsense: the sets are then not the smallest. */
const TRIES = 150;

/**
 * Contradictions of a system that has no solution, each by itself and as small as it gets, and the equations that
 * are left when
 * the last said of each is dropped. Smallest sets by divide and conquer (Junker's QuickXplain, 2004).
 */
export function findConflicts(s: System): { conflicts: Conflict[]; held: Equation[]; v: Float64Array } {
  const conflicts: Conflict[] = [];
  let held = s.equations;
  let solution = steadily(s, held);
  const budget = { left: TRIES };
  while (!solution.converged && conflicts.length < MOST) {
    const equations = smallest(s, held, budget);
    const alone = steadily(s, equations, 8);
    if (alone.converged) {
      // By themselves they hold: from there on the whole may hold too.
      const again = solveSystem(s, held, alone.v);
      if (again.converged) return { conflicts, held, v: again.v };
    }
    const said = equations.filter((e) => e.kind !== "shape" && e.role === undefined);
    const drop = said.length ? said : equations.filter((e) => e.role === "start");
    const shrunk = steadily({ ...s, sound: undefined }, equations, 2).converged;
    conflicts.push({ equations, drop, proven: !alone.converged, shrunk });
    if (!drop.length) break;
    const last = drop.reduce((a, b) => (b.item >= a.item ? b : a));
    held = held.filter((e) => e !== last);
    solution = steadily(s, held);
  }
  return { conflicts, held, v: solution.v };
}

/** The fewest of some equations that have no solution: leaving out any one of them, the others have. */
function smallest(s: System, equations: Equation[], budget: { left: number }): Equation[] {
  const shape = equations.filter((e) => e.kind === "shape");
  const rest = equations.filter((e) => e.kind !== "shape");
  const holds = (some: Equation[]) => budget.left-- > 0 && steadily(s, some, 1).converged;
  if (!holds(shape)) return shape;
  /**
   * Which of `some` are needed for `base` and them to contradict; `grown` says that `base` has more than when it was
   * last looked at.
   */
  const needed = (base: Equation[], grown: boolean, some: Equation[]): Equation[] => {
    if (grown && !holds(base)) return [];
    if (some.length === 1) return some;
    const half = some.length >> 1;
    const first = some.slice(0, half);
    const second = some.slice(half);
    const fromSecond = needed([...base, ...first], true, second);
    const fromFirst = needed([...base, ...fromSecond], fromSecond.length > 0, first);
    return [...fromFirst, ...fromSecond];
  };
  const found = needed(shape, false, rest);
  // The chain's own closing belongs to it where it is needed: said so that the set is whole.
  return shape.length && solveSystem(s, found).converged ? [...found, ...shape] : found;
}
