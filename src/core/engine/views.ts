import { cross, unit, v3, type Side } from "../geometry/vec";
import type { View } from "./kernel";

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
