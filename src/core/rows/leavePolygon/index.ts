import { z } from "zod";
import { marked, number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { loopArea } from "../../outline";
import { loopOf, polygonShape } from "../common";
import { acrossField, acrossParts } from "../across";
import { raised } from "../leaveCommon";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RowKind } from "../kind";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leavePolygon"),
  sides: numberText,
  across: z.enum(["AF", "AC"]),
  size: numberText,
  ...heightFields,
  radius: numberText.optional(),
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeavePolygon = z.infer<typeof schema>;

export const leavePolygon: RowKind<LeavePolygon> = {
  kind: "leavePolygon",
  verb: "leave",
  label: "polygon",
  schema,
  blank: () => ({}),
  example: { in: "LEAVE POLYGON 6 AF 1 X .5", mm: "LEAVE POLYGON 6 AF 30 X 12" },
  callout: {
    head: sequence(
      word("POLYGON"),
      number("sides", "Number of sides", "count", { means: "sides" }),
      acrossParts("across", "size"),
      heightPart,
    ),
    clauses: [
      wayClause,
      marked("R", "radius", "Corner radius", "length", { tight: true, means: "radius" }),
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      atZ,
      standingClause,
    ],
  },
  feature: () => ({ is: "body", round: false, free: false }),
  recipe(row) {
    const shape = polygonShape(row, row.radius ?? 0);
    return shape.ok ? raised(row, { outer: loopOf(shape.value, row.turn), holes: [] }) : shape;
  },
  closedForm(row) {
    const shape = polygonShape(row, row.radius ?? 0);
    return shape.ok && row.height !== undefined ? loopArea(loopOf(shape.value)) * row.height : null;
  },
  fields: [
    { field: "number", path: "sides", label: "Sides" },
    acrossField("across", "size"),
    { field: "number", path: "size", label: "Across" },
    ...heightEditor,
    { field: "number", path: "radius", label: "Corner radius", optional: true },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "standing" },
  ],
};
