import { byFigures, unitOf } from "../number";
import type { BodyStep } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import { CONTACT } from "../geometry/tolerance";
import { distance2, type Vec2 } from "../geometry/vec";
import type { Job } from "../job/schema";
import { circle } from "../outline";
import type { Feature } from "../rows";
import { DRILL_POINT } from "../rows/holeCommon";
import { defaultLimits, drillNamed, drillsUpTo, inchDrills, metricDrills, pathPractice, type Cutter } from "../tables";
import { blankPlan, reaching, type PathPlan } from "./pathPlan";
import { planRound } from "./pocketPaths";

type Hole = Extract<Feature, { is: "hole" }>;
interface Bottom {
  /** Where the tool's full diameter ends on the part's far side, or its bottom, mm below the mouth. */
  exit: number;
  thru: boolean;
  flat: boolean;
}

/**
 * Holes: drilled where a drill of the size is known and a drill makes their bottom, else milled in rings where an
 * end mill goes in and reaches.
 * Through means that the full diameter leaves the part: the drill goes on by the length of its point.
 */
export function planHoles(job: Job, row: SolvedRow, hole: Hole, crib: readonly Cutter[]): PathPlan {
  const bottom = bottomOf(row);
  const drill = drillNamed(hole.diameter, drillsFor(job.unit), leftOpen(job, row));
  const plan =
    drill && !bottom.flat
      ? drilled(row, drill.diameter, drill.name, bottom)
      : milled(row, hole.diameter, bottom, crib, drill !== null);
  // No path is planned for what widens its mouth, nor for the tap, yet.
  return { ...plan, unplanned: [...hole.mouth, ...(hole.thread ? ["tapping"] : [])] };
}

/** What a diameter in thousandths, or in hundredths of a millimetre, leaves open: half of its last decimal, mm. */
function leftOpen(job: Job, row: SolvedRow): number {
  const typed = row.numbers.find((n) => n.path === "diameter" || n.path === "drill.diameter");
  const cited = /^#(\d+)$/.exec(typed?.text ?? "")?.[1];
  // What a balloon prints is as far open as it is printed.
  const text = cited ? job.balloons.find((b) => b.number === Number(cited))?.value : typed?.text;
  const decimals = /^\d*\.(\d+)!?$/.exec(text ?? "")?.[1].length ?? 0;
  const { mm, places } = unitOf[job.unit];
  return decimals >= byFigures(job.unit, { in: places.shown, mm: 2 }) ? (mm * 10 ** -decimals) / 2 : 0;
}

function bottomOf(row: SolvedRow): Bottom {
  const { body } = row.placed!.step as BodyStep;
  const profile = body.body === "revolved" ? body.profile : [];
  const end = profile[profile.length - 1];
  const thru = row.placed!.thru;
  // A through tool solid ends a millimetre beyond the part (`depthThrough`).
  return { exit: thru ? end.z - 1 : end.z, thru, flat: !thru && end.r > CONTACT };
}

function milled(
  row: SolvedRow,
  diameter: number,
  bottom: Bottom,
  crib: readonly Cutter[],
  drillKnown: boolean,
): PathPlan {
  const { frame, places } = row.placed!.step as BodyStep;
  const depth = bottom.thru ? bottom.exit + pathPractice.breakThrough : bottom.exit;
  const base = blankPlan(row, "pocket", frame, depth, `bore ⌀ by milling, row ${row.number}`);
  const cutter = reaching(crib, depth).find((c) => c.diameter <= diameter * pathPractice.boreShare) ?? null;
  const plan = planRound(base, diameter / 2, undefined, cutter, places);
  if (!plan.problem) return plan;
  const why = drillKnown ? "its flat bottom is no drill’s" : "no drill of this size";
  return { ...plan, problem: `${why}, and ${plan.problem} to mill it: bore or ream it` };
}

function drilled(row: SolvedRow, diameter: number, drill: string, bottom: Bottom): PathPlan {
  const { frame, places } = row.placed!.step as BodyStep;
  const point = diameter / 2 / Math.tan(DRILL_POINT / 2);
  const depth = bottom.thru ? bottom.exit + point + pathPractice.breakThrough : bottom.exit;
  const points = nearestOrder(places);
  const travel = points.reduce((sum, p, i) => (i ? sum + distance2(p, points[i - 1]) : 0), 0);
  return {
    ...blankPlan(row, "drill", frame, depth, `drill ${places.length}×, row ${row.number}`),
    drill,
    drillRadius: diameter / 2,
    points,
    levels: [depth],
    length: points.length * depth,
    cleared: places.map((p) => circle(diameter / 2, p)),
    minutes: (points.length * (depth + pathPractice.clearance)) / pathPractice.drillFeed + travel / pathPractice.rapid,
  };
}

const drillsFor = (unit: Job["unit"]) =>
  drillsUpTo(
    byFigures(unit, { in: [...inchDrills.rows, ...metricDrills.rows], mm: [...metricDrills.rows, ...inchDrills.rows] }),
    defaultLimits.largestDrill.value,
  );

/** Points in an order that goes to the nearest next one. */
function nearestOrder(points: Vec2[]): Vec2[] {
  const left = [...points];
  const order: Vec2[] = left.length ? [left.shift()!] : [];
  while (left.length) {
    const here = order[order.length - 1];
    let best = 0;
    for (let i = 1; i < left.length; i++) if (distance2(left[i], here) < distance2(left[best], here)) best = i;
    order.push(left.splice(best, 1)[0]);
  }
  return order;
}
