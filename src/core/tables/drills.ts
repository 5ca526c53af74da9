import type { Drill } from "./metricDrills";

export { inchDrills } from "./inchDrills";
export { metricDrills, type Drill } from "./metricDrills";

/** The drills that are no larger than the largest on the shelf. */
export const drillsUpTo = (drills: readonly Drill[], largest: number): readonly Drill[] =>
  drills.filter((d) => d.diameter <= largest + 1e-6);

/** Sizes this near are the same, mm. */
const SAME_DRILL = 0.0006;

/**
 * The drill of a size, or null: the nearest one within what the size leaves open.
 * @param within half of the last decimal a size is given to, mm: `.406` is 13/32, which is .40625
 */
export function drillNamed(diameter: number, drills: readonly Drill[], within = 0): Drill | null {
  const off = (d: Drill) => Math.abs(d.diameter - diameter);
  const nearest = drills.reduce<Drill | null>((best, d) => (!best || off(d) < off(best) - 1e-9 ? d : best), null);
  return nearest && off(nearest) < Math.max(SAME_DRILL, within + 1e-9) ? nearest : null;
}

/** The largest drill not over a size, or null. */
export const drillUnder = (diameter: number, drills: readonly Drill[]): Drill | null =>
  [...drills].reverse().find((d) => d.diameter <= diameter + 1e-9) ?? null;

/** The smallest drill not under a size, or null. */
export const drillOver = (diameter: number, drills: readonly Drill[]): Drill | null =>
  drills.find((d) => d.diameter >= diameter - 1e-9) ?? null;
