import type { PathPlan } from "../paths/plan";

/** What an operation says of itself: its cutter, its levels, how long it takes, what it leaves standing (mm³). */
export const cutterReport = (p: PathPlan) => ({
  row: p.row,
  kind: p.kind,
  cutter: p.cutter
    ? { number: 0, name: p.cutter.name, kind: "flat", diameter: p.cutter.diameter, cornerRadius: 0 }
    : p.drillRadius > 0
      ? { number: 0, name: p.drill ?? "", kind: "drill", diameter: 2 * p.drillRadius, cornerRadius: 0 }
      : null,
  levels: p.levels.length,
  length: p.length,
  minutes: p.minutes,
  rest: p.rest.area * p.depth,
  ...(p.problem ? { problem: p.problem } : {}),
});
