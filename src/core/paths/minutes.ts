import type { PathPlan } from "./plan";

/** Minutes of planned paths by what cuts them, the longest first. */
export function minutesByCutter(plans: readonly PathPlan[]): { name: string; minutes: number }[] {
  const by = new Map<string, number>();
  for (const p of plans) {
    const name = p.cutter?.name ?? (p.drill === null ? "no cutter yet" : `drill ${p.drill}`);
    by.set(name, (by.get(name) ?? 0) + p.minutes);
  }
  return [...by].map(([name, minutes]) => ({ name, minutes })).sort((a, b) => b.minutes - a.minutes);
}
