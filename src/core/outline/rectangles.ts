import { CONTACT } from "../geometry/tolerance";
import { v2, type Vec2 } from "../geometry/vec";
import { insideRegion, type Region } from "./boolean";
import { loopBox, type Segment } from "./outline";

/** An upright rectangle by two of its corners. */
export interface Rectangle {
  min: Vec2;
  max: Vec2;
}

/** How a rectangle lies to a region; "across" also where that is not settled by boxes and circles. */
export type RectanglePlace = "in" | "out" | "across";

/** Tells of rectangles whether they lie wholly in a region or wholly out of it. */
export function rectanglesIn(region: Region): (r: Rectangle) => RectanglePlace {
  const border = region.flat().map((segment) => ({ segment, box: loopBox([segment]) }));
  return (r) => {
    if (border.some(({ segment, box }) => boxesMeet(box, r) && !isClear(segment, r))) return "across";
    return insideRegion(region, v2((r.min.x + r.max.x) / 2, (r.min.y + r.max.y) / 2)) ? "in" : "out";
  };
}

const boxesMeet = (a: Rectangle, b: Rectangle): boolean =>
  a.min.x <= b.max.x + CONTACT &&
  a.max.x >= b.min.x - CONTACT &&
  a.min.y <= b.max.y + CONTACT &&
  a.max.y >= b.min.y - CONTACT;

/** Whether a rectangle lies wholly within the circle of an arc, or wholly out of it. */
function isClear(s: Segment, { min, max }: Rectangle): boolean {
  if (s.kind === "line") return false;
  const { x, y } = s.centre;
  const farthest = Math.hypot(Math.max(x - min.x, max.x - x), Math.max(y - min.y, max.y - y));
  const nearest = Math.hypot(Math.max(min.x - x, x - max.x, 0), Math.max(min.y - y, y - max.y, 0));
  return farthest < s.radius - CONTACT || nearest > s.radius + CONTACT;
}
