import type { CheckResult } from "../print/checks";
import type { Slip } from "./slip";
import { COINCIDENT } from "../geometry/tolerance";

/** A slip with what it is forecast to do to every check value. */
export interface Effect {
  slip: () => Slip;
  cost: number;
  of: object;
  change: (check: number) => number;
}

/** The likeliest slips that are put together two by two, and the pairs computed exactly. */
const LIKELIEST = 60;
const EXACT = 12;
/** A pair takes this much more than its two slips. */
const PAIR_COST = 1.5;
/** Share of the gap a forecast pair may miss by. */
const NEAR = 0.03;

/** Two slips that together come near a check value no single one explains, the likeliest first. */
export function likelyPairs(effects: Effect[], check: CheckResult, index: number): Slip[] {
  const gap = check.expected! - (check.actual ?? 0);
  const moving = effects
    .filter((e) => Math.abs(e.change(index)) > COINCIDENT)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, LIKELIEST);
  const found: { a: Effect; b: Effect; order: number }[] = [];
  moving.forEach((a, i) => {
    for (const b of moving.slice(i + 1)) {
      if (a.of === b.of) continue;
      const miss = Math.abs(a.change(index) + b.change(index) - gap);
      if (miss <= Math.max(2 * check.tolerance!, NEAR * Math.abs(gap)))
        found.push({ a, b, order: a.cost + b.cost + miss / Math.max(Math.abs(gap), COINCIDENT) });
    }
  });
  return found
    .sort((x, y) => x.order - y.order)
    .slice(0, EXACT)
    .map(({ a, b }) => {
      const [first, second] = [a.slip(), b.slip()];
      return { ...first, edits: [...first.edits, ...second.edits], cost: first.cost + second.cost + PAIR_COST, second };
    });
}
