import type { Frame } from "../geometry/vec";
import type { SeatedRecipe } from "../rows";
import type { BodyStep, PlacedBody } from "./kernel";
import type { RowPlanes, Seat } from "./planes";

/** A row put on its plane: one step, and more where its places do not all go equally deep. */
export interface PlacedRow {
  step: BodyStep;
  more?: BodyStep[];
  planes: RowPlanes;
  thru: boolean;
  depth?: number;
}
export type Of<Op extends SeatedRecipe["op"]> = Extract<SeatedRecipe, { op: Op }>;
/** A seat with a part on it. */
export type OnPart = Seat & { key: string };

/** One cut at its own place. */
export const cutStep = (row: string, frame: Frame, body: PlacedBody): BodyStep => ({
  op: "cut",
  row,
  frame,
  body,
  places: [{ x: 0, y: 0 }],
});
