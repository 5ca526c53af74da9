import type { Vec2 } from "../geometry/vec";
import { arcPoint, loopArea, startOf } from "../outline";
import { directionAt } from "../outline/meet";
import type { Region } from "../outline/boolean";

/** The sine of the least turn that is called a corner. */
const TURN = 0.2;

/**
 * Corners that stand out of a region: sharp ones, and rounds smaller than a radius, by the middle of their arc.
 * @param least a round of at least this is no corner
 */
export const outCorners = (region: Region, least: number): Vec2[] => [
  ...squareCorners(region),
  ...region.flatMap((loop) =>
    loop.flatMap((s) => (s.kind === "arc" && s.sweep > TURN && s.radius < least ? [arcPoint(s, 0.5)] : [])),
  ),
];

/** Sharp corners that stand out of a region. */
export const squareCorners = (region: Region): Vec2[] =>
  region.flatMap((loop) =>
    loop.flatMap((s, i) => {
      const [u, w] = [directionAt(loop[(i - 1 + loop.length) % loop.length], 1), directionAt(s, 0)];
      return u.x * w.y - u.y * w.x > TURN ? [startOf(s)] : [];
    }),
  );

/** The ways round a region's outside, without what is open in it. */
export const onlyOuter = (region: Region): Region => region.filter((l) => loopArea(l) > 0);
