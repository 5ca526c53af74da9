import { ok, type Result } from "../base/result";
import { v2, type Vec2 } from "../geometry/vec";
import type { Outline } from "../outline";
import type { PlaneRef } from "./places";
import type { PlanePlace, Recipe, Resolved } from "./kind";
import { planeOf } from "./common";

interface Standing {
  at?: { x: number; y: number; z?: number };
  plane?: Resolved<PlaneRef>;
}

/** A leave row stands on the job's Z0, at its own z, or on a plane of what is there already. */
export function standing(row: Standing): { plane: PlanePlace; place: Vec2 } {
  const place = row.at ? v2(row.at.x, row.at.y) : v2(0, 0);
  if (row.plane) {
    // The third figure of AT is along the plane's outward normal: it lifts the row off its plane.
    const plane = planeOf(row.plane);
    return { plane: plane.on === "origin" ? plane : { ...plane, start: plane.start - (row.at?.z ?? 0) }, place };
  }
  return { plane: { on: "origin", z: row.at?.z ?? 0 }, place };
}

/** An outline carried up by a height. */
export function raised(row: Standing, outline: Outline, height: number): Result<Recipe> {
  const { plane, place } = standing(row);
  return ok({ op: "leave", plane, body: { body: "prism", outline, depth: height }, places: [place] });
}
