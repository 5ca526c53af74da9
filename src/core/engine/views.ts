import { cross, dot, scale, sideNormal, unit, v3, type Box, type Side, type Vec3 } from "../geometry/vec";
import { PARALLEL } from "../geometry/tolerance";
import type { View } from "./kernel";
import type { SolvedRow } from "./solve";

/** The views of a drawing sheet. Pictorial looks from the front right, from above, all three axes alike. */
export const viewOf: Record<Side | "pictorial", View> = {
  top: { right: v3(1, 0, 0), up: v3(0, 1, 0), toEye: v3(0, 0, 1) },
  bottom: { right: v3(1, 0, 0), up: v3(0, -1, 0), toEye: v3(0, 0, -1) },
  front: { right: v3(1, 0, 0), up: v3(0, 0, 1), toEye: v3(0, -1, 0) },
  back: { right: v3(-1, 0, 0), up: v3(0, 0, 1), toEye: v3(0, 1, 0) },
  right: { right: v3(0, 1, 0), up: v3(0, 0, 1), toEye: v3(1, 0, 0) },
  left: { right: v3(0, -1, 0), up: v3(0, 0, 1), toEye: v3(-1, 0, 0) },
  pictorial: pictorial(),
};

function pictorial(): View {
  const toEye = unit(v3(1, -1.35, 1.1));
  const right = unit(cross(v3(0, 0, 1), toEye));
  return { right, up: cross(toEye, right), toEye };
}

/** How a section is looked at: a little from the side of the view it is cut along, so that the cut face and what
 * stands behind it are both seen. */
export function sectionView(side: Side): View {
  const n = viewOf[side].toEye;
  const toEye = unit(v3(n.x * 0.8 + 0.45, n.y * 0.8 - 0.55, n.z * 0.8 + 0.5));
  const right = unit(cross(v3(0, 0, 1), toEye));
  return { right, up: cross(toEye, right), toEye };
}

/**
 * A point on the plane that cuts a box across a side's direction.
 * @param share how deep the plane lies, 0 at that side's face to 1 at the opposite one
 */
export function sectionOrigin(box: Box, side: Side, share: number): Vec3 {
  const n = sideNormal(side);
  const [a, b] = [dot(box.min, n), dot(box.max, n)];
  const low = Math.min(a, b);
  return scale(n, low + (Math.max(a, b) - low) * (1 - share));
}

/** Views every sheet has, and those that have one where the part has something there. */
const usual: Side[] = ["front", "top", "right"];
const asNeeded: Side[] = ["bottom", "back", "left"];

/** The views worth a look: the usual three, and every other side that a row is cut from. */
export function viewsFor(rows: readonly Pick<SolvedRow, "placed" | "state">[]): Side[] {
  const starts = rows.flatMap((r) =>
    r.state === "ok" && r.placed?.planes.start ? [r.placed.planes.start.normal] : [],
  );
  return [...usual, ...asNeeded.filter((side) => starts.some((n) => dot(n, sideNormal(side)) > PARALLEL))];
}
