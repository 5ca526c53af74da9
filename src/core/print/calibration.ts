import { problems } from "./problems";
import { ok, fail, type Result } from "../base/result";
import type { Vec2 } from "../geometry/vec";

/** Two picks nearer than this, in widths of the page, are one place. */
const SAME_PLACE = 2e-3;
/** A line this far off level or upright is said: the sheet lies askew, or the two picks are not on one line of the part. */
const MOST_TILT = (0.5 * Math.PI) / 180;

/** Along which axis of the page, as it is read, two picks lie, and how far off it, radians. */
export interface Picked {
  direction: "x" | "y";
  tilt: number;
  /** Whether the tilt is more than picking by hand makes. */
  askew: boolean;
}

/**
 * Judges the two picks a page is calibrated by.
 * @param a first pick, in widths of the page as it is stored, y down
 * @param b second pick
 * @param turn quarter turns the page is read with
 * @returns fails where both are one place
 */
export function judgePicks(a: Vec2, b: Vec2, turn: number): Result<Picked> {
  const across = Math.abs(b.x - a.x);
  const down = Math.abs(b.y - a.y);
  if (Math.hypot(across, down) < SAME_PLACE) return fail(problems.samePlace());
  const tilt = Math.atan2(Math.min(across, down), Math.max(across, down));
  const direction = down > across !== (turn % 2 === 1) ? "y" : "x";
  return ok({ direction, tilt, askew: tilt > MOST_TILT });
}
