import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { v2, type Vec2 } from "../geometry/vec";
import type { Outline } from "../outline";
import type { PlanePlace, PrismBody, Recipe } from "./kind";
import { heightOf, planeOf } from "./extent";

interface Standing {
  at?: { x: number; y: number; z?: number };
  plane?: object;
}

/** A leave row stands on the job's Z0, at its own z, or on a plane of what is there already. */
export function standing(row: Standing): { plane: PlanePlace; place: Vec2 } {
  const place = row.at ? v2(row.at.x, row.at.y) : v2(0, 0);
  if (row.plane) {
    // The third figure of AT is along the plane's outward normal: it lifts the row off its plane.
    const plane = planeOf(row.plane);
    return { plane: { ...plane, start: plane.start - (row.at?.z ?? 0) }, place };
  }
  return { plane: { on: "origin", z: row.at?.z ?? 0 }, place };
}

interface Raised extends Standing {
  height?: number;
  to?: object;
  next?: true;
  way?: "both" | "down";
}

/** An outline carried up by a height, to a plane or until it meets material; `more`: loops of the same outline. */
export function raised(
  row: Raised,
  outline: Outline,
  more: Pick<PrismBody, "more" | "draft" | "ends"> = {},
): Result<Recipe> {
  const depth = heightOf(row);
  if (!depth.ok) return depth;
  if (row.way && typeof depth.value !== "number")
    return fail(problems.wayWithoutHeight(row.way.toUpperCase()), { path: "way" });
  const { plane, place } = standing(row);
  const body: PrismBody = { body: "prism", outline, ...more, depth: depth.value, ...(row.way ? { way: row.way } : {}) };
  return ok({ op: "leave", plane, body, places: [place] });
}
