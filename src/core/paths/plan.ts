import type { BodyStep } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import type { Box } from "../geometry/vec";
import type { Job } from "../job/schema";
import { loopArea } from "../outline";
import { offsetRegion } from "../outline/boolean";
import { cribFor, type Cutter } from "../tables";
import { planFace } from "./facing";
import { planHoles } from "./holePaths";
import { blankPlan, finish, reaching, tooShort, type PathPlan } from "./pathPlan";
import { planPocket } from "./pocketPaths";

export type { PathPlan } from "./pathPlan";

/** Plans of an evaluation are asked for by rules, the page and the files: worked out once. */
const planned = new WeakMap<SolvedRow[], { job: Job; stock: Box | null; plans: PathPlan[] }>();

/**
 * Plans the paths of every facing, pocket, hole and of the outer outline.
 * A cutter chosen by hand is kept; else the largest that makes the corners, and where the corners are sharp the
 * largest that has room.
 * @param stock box of the stock; without one nothing stands over the part
 */
export function planPaths(job: Job, rows: SolvedRow[], stock: Box | null = null): PathPlan[] {
  const known = planned.get(rows);
  if (known?.job === job && known.stock === stock) return known.plans;
  const plans = planAll(job, rows, stock);
  planned.set(rows, { job, stock, plans });
  return plans;
}

function planAll(job: Job, rows: SolvedRow[], stock: Box | null): PathPlan[] {
  const crib = job.crib ?? cribFor(job.unit);
  const chosen = new Map((job.cutters ?? []).map((c) => [c.row, crib.find((t) => t.name === c.cutter)]));
  const outline = rows.find((r) => r.state === "ok" && r.placed?.step?.op === "leave");
  return rows.flatMap((row) => {
    if (row.state !== "ok" || !row.placed) return [];
    const wanted = chosen.get(row.row.id);
    if (row.recipe?.op === "face") return planFace(row, stock, crib, wanted) ?? [];
    const { step } = row.placed;
    if (!step || step.op === "edges" || step.op === "plate" || step.op === "shell") return [];
    if (row === outline && step.body.body === "prism") return [planOutline(row, crib, wanted)];
    if (row.feature?.is === "pocket") return [planPocket(row, crib, wanted)];
    return row.feature?.is === "hole" ? [planHoles(job, row, row.feature, crib)] : [];
  });
}

/** The outline of the piece, cut from the top of the leave row down to its foot; inside corners and all. */
function planOutline(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = step.body as Extract<typeof step.body, { body: "prism" }>;
  const height = body.from - body.to;
  const base = blankPlan(row, "outline", row.planes!.top!, height, `outline, row ${row.number}`);
  const cutter = wanted ?? reaching(crib, height)[0] ?? null;
  if (!cutter) return { ...base, problem: "no cutter reaches the height of the part: cut it from both sides" };
  const around = offsetRegion([body.outline.outer], cutter.diameter / 2).filter((l) => loopArea(l) > 0);
  return {
    ...finish({ ...base, cutter }, around, [], step.places),
    problem: tooShort(cutter, height, "the height of the part"),
  };
}
