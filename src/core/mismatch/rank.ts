import type { CheckResult } from "../print/checks";
import type { Explanation } from "./explain";
import type { Slip } from "./slip";
import { COINCIDENT } from "../geometry/tolerance";

/** A slip that was computed whole, with the check values it gives. */
export interface Tried {
  slip: Slip;
  checks: CheckResult[];
}

export const agrees = (c: CheckResult, actual: number): boolean =>
  Math.abs(actual - c.expected!) <= c.tolerance! + COINCIDENT * Math.abs(c.expected!);

/** Orders what was tried: likely slips first, those that mend other check values too before those that break one. */
export function rank(
  check: CheckResult,
  index: number,
  now: CheckResult[],
  results: Tried[],
  most: number,
): Explanation[] {
  const gap = Math.abs((check.actual ?? 0) - check.expected!) || Infinity;
  const scored = results.flatMap(({ slip, checks }) => {
    const value = checks[index].actual;
    if (value === null || checks[index].expected !== check.expected) return [];
    const residual = value - check.expected!;
    const good = agrees(check, value);
    if (!good && Math.abs(residual) > 0.2 * gap) return [];
    const mends = checks.filter((c, i) => i !== index && !now[i].agrees && c.agrees).length;
    const breaks = checks.filter((c, i) => now[i].agrees && !c.agrees).length;
    const left = now.filter((c, i) => i !== index && !c.agrees).length - mends;
    const score =
      slip.cost +
      0.4 * Math.min(1, Math.abs(residual) / Math.max(check.tolerance!, COINCIDENT)) +
      (good ? 0 : 3 + Math.abs(residual) / gap) +
      2 * breaks +
      0.5 * left -
      mends;
    return [{ e: { ...slip, rank: 0, value, residual, agrees: good, alsoMends: mends } satisfies Explanation, score }];
  });
  scored.sort((a, b) => a.score - b.score);
  const seen = new Set<string>();
  const out: Explanation[] = [];
  for (const { e } of scored) {
    // A pair that does not agree explains nothing.
    if (e.second && !e.agrees) continue;
    // The same change said twice (a balloon and the row it drives) is said once.
    const key = `${e.row}|${e.field}|${e.to}|${e.second ? `${e.second.row}|${e.second.field}|${e.second.to}` : ""}`;
    if (seen.has(key)) continue;
    seen.add(key);
    if (out.length && !e.agrees && out.some((o) => o.agrees) && out.length >= 5) break;
    out.push({ ...e, rank: out.length + 1 });
    if (out.length >= most) break;
  }
  return out;
}
