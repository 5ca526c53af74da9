import { fromFrame, type Vec3 } from "../geometry/vec";
import type { SolvedRow } from "./solve";

/**
 * Where the copies of a cut landed, in the job's own coordinates: what was typed in a plane's coordinates, echoed in
 * space.
 */
export function placesInSpace(row: SolvedRow): Vec3[] {
  const step = row.state === "ok" && row.recipe?.op === "cut" ? row.placed?.step : null;
  return step && step.op === "cut" ? step.places.map((p) => fromFrame(step.frame, p)) : [];
}
