import { z } from "zod";
import { flag, marked, number, sequence, word, type Part } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok, type Result } from "../../base/result";
import { loopArea, circle, type ConvexShape, type Outline } from "../../outline";
import { by, disc, loopOf, cutAt, polygonShape, rectangleShape, turned } from "../common";
import { depthClause, depthEditor, depthFields, depthOf } from "../extent";
import { acrossParts } from "../across";
import type { Resolved, RowKind } from "../kind";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const shape = z.discriminatedUnion("form", [
  z.strictObject({ form: z.literal("rectangle"), length: numberText, width: numberText }),
  z.strictObject({ form: z.literal("circle"), diameter: numberText }),
  z.strictObject({ form: z.literal("polygon"), sides: numberText, across: z.enum(["AF", "AC"]), size: numberText }),
]);
const schema = z.strictObject({
  kind: z.literal("cutPocket"),
  count: numberText.optional(),
  shape,
  radius: numberText.optional(),
  ...depthFields,
  corner: z.literal(true).optional(),
  turn: numberText.optional(),
  pattern,
  plane: planeRef,
});
export type CutPocket = z.infer<typeof schema>;

const rectangle = by(number("shape.length", "Length", "length"), number("shape.width", "Width", "length"));
const round = number("shape.diameter", "Diameter", "length", { sign: "⌀" });
const polygon = sequence(
  word("POLYGON"),
  number("shape.sides", "Number of sides", "count", { means: "sides" }),
  acrossParts("shape.across", "shape.size"),
);
const forms: Record<string, Part> = { rectangle, circle: round, polygon };

const shapePart: Part = {
  expected: "a length, ⌀ or POLYGON",
  starts: (r) => r.seesNumber() || r.sees("⌀") || r.sees("POLYGON"),
  read(r, row, names) {
    if (r.sees("POLYGON")) {
      row.shape = { form: "polygon" };
      return polygon.read(r, row, names);
    }
    if (r.sees("⌀")) {
      row.shape = { form: "circle" };
      return round.read(r, row, names);
    }
    const first = r.number("shape.length", "a length, ⌀ or POLYGON");
    if (r.take("X")) row.shape = { form: "rectangle", length: first, width: r.number("shape.width", "a width") };
    else {
      row.shape = { form: "circle", diameter: first };
      r.marks.set("shape.diameter", r.marks.get("shape.length")!);
    }
  },
  write: (row, names) => forms[row.shape.form].write(row, names),
  numbers: (row) => forms[row.shape.form].numbers(row),
};

/** The outline of a pocket as straight walls and rounds, turned; null for a round pocket. */
export function pocketShape(row: Resolved<CutPocket>): Result<ConvexShape | null> {
  const s = row.shape;
  if (s.form === "circle") return ok(null);
  const made =
    s.form === "rectangle"
      ? rectangleShape(s.length, s.width, row.radius ?? 0, Boolean(row.corner))
      : polygonShape(s, row.radius ?? 0);
  return made.ok ? ok(turned(made.value, row.turn ?? 0)) : made;
}

function pocketOutline(row: Resolved<CutPocket>): Result<Outline> {
  if (row.shape.form === "circle") {
    // Placed by its corner, a round pocket stands in the corner of its square.
    const r = row.shape.diameter / 2;
    return ok(row.corner ? { outer: circle(r, { x: r, y: r }), holes: [] } : disc(row.shape.diameter));
  }
  const s = pocketShape(row);
  return s.ok ? ok({ outer: loopOf(s.value!), holes: [] }) : s;
}

export const cutPocket: RowKind<CutPocket> = {
  kind: "cutPocket",
  verb: "cut",
  label: "pocket",
  traits: { counted: true, floor: true, pocket: true },
  starts: (r) => r.sees("POCKET"),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT POCKET 2 X 1 R.188 DEEP .4", mm: "CUT POCKET 50 X 30 R5 DEEP 8" },
  callout: {
    head: sequence(countPrefix, word("POCKET"), shapePart),
    clauses: [
      marked("R", "radius", "Corner radius", "length", { tight: true, means: "radius" }),
      depthClause,
      flag("CORNER", "corner"),
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      patternClause,
      startClause,
      planeClause,
    ],
  },
  feature: (row) => ({
    is: "pocket",
    free: false,
    round: row.shape.form === "circle" ? row.shape.diameter / 2 : null,
  }),
  recipe(row, _raw, outlines) {
    const outline = pocketOutline(row);
    if (!outline.ok) return outline;
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    return cutAt(row, { body: "prism", outline: outline.value, depth: depth.value }, outlines);
  },
  closedForm(row) {
    const outline = pocketOutline(row);
    return outline.ok && row.deep !== undefined ? loopArea(outline.value.outer) * row.deep : null;
  },
  fields: [
    {
      field: "choice",
      path: "shape.form",
      label: "Form",
      options: [
        { value: "rectangle", label: "rectangle", set: { shape: { form: "rectangle", length: "?", width: "?" } } },
        { value: "circle", label: "round", set: { shape: { form: "circle", diameter: "?" }, radius: undefined } },
        {
          value: "polygon",
          label: "polygon",
          set: { shape: { form: "polygon", sides: "6", across: "AF", size: "?" } },
        },
      ],
    },
    { field: "number", path: "shape.length", label: "Length" },
    { field: "number", path: "shape.width", label: "Width" },
    { field: "number", path: "shape.diameter", label: "Diameter" },
    { field: "number", path: "shape.sides", label: "Sides" },
    { field: "number", path: "shape.size", label: "Across" },
    { field: "number", path: "radius", label: "Corner radius", optional: true },
    ...depthEditor,
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "pattern" },
    { field: "plane" },
  ],
};
