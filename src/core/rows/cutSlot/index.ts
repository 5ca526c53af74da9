import { z } from "zod";
import { marked, number, required, sequence, word, type Part } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail, ok, type Result } from "../../base/result";
import { v2 } from "../../geometry/vec";
import { loopArea, moveLoop, rectangleCorners, roundedLoop, type Loop } from "../../outline";
import { by, depthClause, depthField, depthFields, depthOf, placesOf, planeOf } from "../common";
import type { Resolved, RowKind } from "../kind";
import { countPrefix, pattern, patternClause, planeClause, planeRef, startClause } from "../places";

const schema = z.strictObject({
  kind: z.literal("cutSlot"),
  count: numberText.optional(),
  /** Over all, or from centre to centre of its ends. */
  measured: z.enum(["overall", "centres"]),
  length: numberText,
  width: numberText,
  ...depthFields,
  turn: numberText.optional(),
  pattern,
  plane: planeRef,
});
export type CutSlot = z.infer<typeof schema>;

const sizes = by(number("length", "Length", "length"), number("width", "Width", "length"));
const sizePart: Part = {
  ...sizes,
  starts: (r) => r.sees("CENTRES") || r.seesNumber(),
  read(r, row, names) {
    row.measured = r.take("CENTRES") ? "centres" : "overall";
    sizes.read(r, row, names);
  },
  write: (row, names) => (row.measured === "centres" ? "CENTRES " : "") + sizes.write(row, names),
};

/** The slot's way round: a rectangle with half its width as the radius of its corners. */
function loop(row: Resolved<CutSlot>): Result<Loop> {
  const overall = row.measured === "centres" ? row.length + row.width : row.length;
  if (overall <= row.width)
    return fail("a slot is longer than it is wide", { path: "length", expected: "a length over the width" });
  return ok(roundedLoop(rectangleCorners(overall, row.width), row.width / 2)!);
}

export const cutSlot: RowKind<CutSlot> = {
  kind: "cutSlot",
  verb: "cut",
  label: "slot",
  traits: { counted: true, floor: true },
  starts: (r) => r.sees("SLOT"),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT SLOT 2 X .375 DEEP .2", mm: "CUT SLOT 50 X 10 DEEP 5" },
  callout: {
    head: sequence(countPrefix, word("SLOT"), sizePart),
    clauses: [
      required(depthClause),
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      patternClause,
      startClause,
      planeClause,
    ],
  },
  feature: () => ({ is: "pocket", free: true, round: null }),
  recipe(row) {
    const made = loop(row);
    if (!made.ok) return made;
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const places = placesOf(row.pattern, row.count);
    if (!places.ok) return places;
    const outer = moveLoop(made.value, v2(0, 0), row.turn ?? 0);
    return ok({
      op: "cut",
      plane: planeOf(row.plane),
      body: { body: "prism", outline: { outer, holes: [] }, depth: depth.value },
      places: places.value,
    });
  },
  closedForm(row) {
    const made = loop(row);
    return made.ok && row.deep !== undefined ? loopArea(made.value) * row.deep : null;
  },
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    {
      field: "choice",
      path: "measured",
      label: "Length",
      options: [
        { value: "overall", label: "over all", set: { measured: "overall" } },
        { value: "centres", label: "between the centres of its ends", set: { measured: "centres" } },
      ],
    },
    { field: "number", path: "length", label: "Length" },
    { field: "number", path: "width", label: "Width" },
    depthField,
    { field: "number", path: "deep", label: "Depth" },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "pattern" },
    { field: "plane" },
  ],
};
