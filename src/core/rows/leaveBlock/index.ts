import { z } from "zod";
import { flag, marked, number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { loopArea } from "../../outline";
import { by, loopOf, rectangleShape } from "../common";
import { raised } from "../leaveCommon";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RowKind } from "../kind";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leaveBlock"),
  length: numberText,
  width: numberText,
  ...heightFields,
  radius: numberText.optional(),
  corner: z.literal(true).optional(),
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveBlock = z.infer<typeof schema>;

export const leaveBlock: RowKind<LeaveBlock> = {
  kind: "leaveBlock",
  verb: "leave",
  label: "block",
  schema,
  blank: () => ({}),
  example: { in: "LEAVE BLOCK 4 X 2.5 X .75", mm: "LEAVE BLOCK 100 X 60 X 20" },
  callout: {
    head: sequence(
      word("BLOCK"),
      by(number("length", "Length", "length"), number("width", "Width", "length")),
      heightPart,
    ),
    clauses: [
      wayClause,
      marked("R", "radius", "Corner radius", "length", { tight: true, means: "radius" }),
      flag("CORNER", "corner"),
      atZ,
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      standingClause,
    ],
  },
  feature: () => ({ is: "body", round: false, free: false }),
  recipe(row) {
    const shape = rectangleShape(row.length, row.width, row.radius ?? 0, Boolean(row.corner));
    return shape.ok ? raised(row, { outer: loopOf(shape.value, row.turn), holes: [] }) : shape;
  },
  closedForm(row) {
    const shape = rectangleShape(row.length, row.width, row.radius ?? 0, false);
    return shape.ok && row.height !== undefined ? loopArea(loopOf(shape.value)) * row.height : null;
  },
  fields: [
    { field: "number", path: "length", label: "Length" },
    { field: "number", path: "width", label: "Width" },
    ...heightEditor,
    { field: "number", path: "radius", label: "Corner radius", optional: true },
    { field: "number", path: "turn", label: "Turn", optional: true },
    {
      field: "choice",
      path: "corner",
      label: "Placed by",
      options: [
        { value: "", label: "its centre", set: { corner: undefined } },
        { value: "true", label: "lower left corner", set: { corner: true } },
      ],
    },
    { field: "place" },
    { field: "standing" },
  ],
};
