import { problems } from "../problems";
import { z } from "zod";
import { marked, number, required, sequence, word, type Part } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail, ok, type Result } from "../../base/result";
import { v2 } from "../../geometry/vec";
import { loopArea, moveLoop, rectangleCorners, roundedLoop, type Loop, type Segment } from "../../outline";
import { COINCIDENT } from "../../geometry/tolerance";
import { by, cutAt } from "../common";
import { depthClause, depthEditor, depthFields, depthOf } from "../extent";
import type { Resolved, RowKind } from "../kind";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("cutSlot"),
  count: numberText.optional(),
  /** Over all, from centre to centre of its ends, or along an arc about 0,0. */
  measured: z.enum(["overall", "centres", "arc"]),
  length: numberText.optional(),
  arc: z.strictObject({ diameter: numberText, from: numberText, to: numberText }).optional(),
  width: numberText,
  ...depthFields,
  turn: numberText.optional(),
  pattern,
  plane: planeRef,
});
export type CutSlot = z.infer<typeof schema>;

const sizes = by(number("length", "Length", "length"), number("width", "Width", "length"));
const arcSizes = sequence(
  word("ARC"),
  by(number("arc.diameter", "Arc ⌀", "length", { sign: "⌀" }), number("width", "Width", "length")),
  marked("FROM", "arc.from", "From", "angle", { angle: true }),
  marked("TO", "arc.to", "To", "angle", { angle: true }),
);
const sizePart: Part = {
  ...sizes,
  starts: (r) => r.sees("CENTRES") || r.sees("ARC") || r.seesNumber(),
  read(r, row, names) {
    row.measured = r.sees("ARC") ? "arc" : r.take("CENTRES") ? "centres" : "overall";
    (row.measured === "arc" ? arcSizes : sizes).read(r, row, names);
  },
  write: (row, names) =>
    row.measured === "arc"
      ? arcSizes.write(row, names)
      : (row.measured === "centres" ? "CENTRES " : "") + sizes.write(row, names),
  numbers: (row) => (row.measured === "arc" ? arcSizes : sizes).numbers(row),
};

/** The slot's way round: a rectangle with half its width as the radius of its corners, or the band round an arc. */
function loop(row: Resolved<CutSlot>): Result<Loop> {
  if (row.arc) return arcLoop(row.arc, row.width);
  if (row.length === undefined) return fail(problems.lengthMissing(), { path: "length" });
  const overall = row.measured === "centres" ? row.length + row.width : row.length;
  if (overall <= row.width) return fail(problems.slotShorterThanWide(), { path: "length" });
  return ok(roundedLoop(rectangleCorners(overall, row.width), row.width / 2)!);
}

/** The band of a width round an arc, from one angle counter-clockwise to the other, with round ends. */
function arcLoop(arc: { diameter: number; from: number; to: number }, width: number): Result<Loop> {
  const [radius, half] = [arc.diameter / 2, width / 2];
  if (radius <= half) return fail(problems.slotWiderThanItsArc(), { path: "width" });
  let sweep = arc.to - arc.from;
  while (sweep <= COINCIDENT) sweep += 2 * Math.PI;
  if (sweep * radius + width >= 2 * Math.PI * radius) return fail(problems.slotEndsMeet(), { path: "arc.to" });
  const centre = v2(0, 0);
  const end = (angle: number, start: number): Segment => ({
    kind: "arc",
    centre: v2(radius * Math.cos(angle), radius * Math.sin(angle)),
    radius: half,
    start,
    sweep: Math.PI,
  });
  return ok([
    { kind: "arc", centre, radius: radius + half, start: arc.from, sweep },
    end(arc.from + sweep, arc.from + sweep),
    { kind: "arc", centre, radius: radius - half, start: arc.from + sweep, sweep: -sweep },
    end(arc.from, arc.from + Math.PI),
  ]);
}

export const cutSlot: RowKind<CutSlot> = {
  kind: "cutSlot",
  verb: "cut",
  label: "slot",
  traits: { counted: true, floor: true, pocket: true },
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
  recipe(row, _raw, outlines) {
    const made = loop(row);
    if (!made.ok) return made;
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const outer = moveLoop(made.value, v2(0, 0), row.turn ?? 0);
    return cutAt(row, { body: "prism", outline: { outer, holes: [] }, depth: depth.value }, outlines);
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
        { value: "overall", label: "over all", set: { measured: "overall", arc: undefined, length: "?" } },
        {
          value: "centres",
          label: "between the centres of its ends",
          set: { measured: "centres", arc: undefined, length: "?" },
        },
        {
          value: "arc",
          label: "along an arc",
          set: { measured: "arc", length: undefined, arc: { diameter: "?", from: "?", to: "?" } },
        },
      ],
    },
    { field: "number", path: "length", label: "Length" },
    { field: "number", path: "arc.diameter", label: "Arc ⌀" },
    { field: "number", path: "arc.from", label: "From" },
    { field: "number", path: "arc.to", label: "To" },
    { field: "number", path: "width", label: "Width" },
    ...depthEditor,
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "pattern" },
    { field: "plane" },
  ],
};
