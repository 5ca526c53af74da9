import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { boxInFrame, v2, type Frame } from "../geometry/vec";
import { rectangleBetween } from "../outline";
import type { SeatedRecipe } from "../rows";
import { placeCut } from "./placeCut";
import { placeLeave } from "./placeLeave";
import { cutStep, type Of, type OnPart, type PlacedRow } from "./placedRow";
import { lowered, outlineBox, sideInPlane, type Seat } from "./planes";

/** Puts a recipe on a plane that is known. */
export function placeSeated(recipe: SeatedRecipe, row: string, frame: Frame, seat: Seat): Result<PlacedRow> {
  if (recipe.op === "leave") return placeLeave(recipe, row, frame, seat);
  const { key } = seat;
  if (key === null) return fail(problems.nothingToCut());
  const on: OnPart = { ...seat, key };
  switch (recipe.op) {
    case "face":
      return ok(placeFace(recipe, row, frame, on));
    case "step":
      return ok(placeStep(recipe, row, frame, on));
    case "cut":
      return placeCut(recipe, row, frame, on);
  }
}

/** A facing takes all that stands over its floor. */
function placeFace(recipe: Of<"face">, row: string, frame: Frame, { kernel, key }: OnPart): PlacedRow {
  const part = boxInFrame(frame, kernel.measure(key).box);
  const outer = rectangleBetween(v2(part.min.x - 1, part.min.y - 1), v2(part.max.x + 1, part.max.y + 1));
  const above = -Math.max(0, part.max.z) - 1;
  return {
    step: cutStep(row, frame, { body: "prism", outline: { outer, holes: [] }, from: above, to: recipe.depth }),
    planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
    thru: false,
  };
}

function placeStep(recipe: Of<"step">, row: string, frame: Frame, { kernel, key }: OnPart): PlacedRow {
  const b = outlineBox(kernel, key, frame);
  const { axis, sign } = sideInPlane(frame, recipe.side);
  const edge = sign > 0 ? b.max[axis] : b.min[axis];
  const other = edge - sign * recipe.width;
  const [lo, hi] = [Math.min(edge, other), Math.max(edge, other)];
  const outer =
    axis === "x"
      ? rectangleBetween(v2(lo, b.min.y), v2(hi, b.max.y))
      : rectangleBetween(v2(b.min.x, lo), v2(b.max.x, hi));
  return {
    step: cutStep(row, frame, { body: "prism", outline: { outer, holes: [] }, from: 0, to: recipe.depth }),
    planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
    thru: false,
  };
}
