import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { fail, ok } from "../../base/result";
import { marked, optional, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import type { RowKind } from "../kind";
import { standing } from "../leaveCommon";
import { outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";
import { tubeBody } from "../tubeCommon";

const schema = z.strictObject({
  kind: z.literal("leaveTube"),
  outline: nameText.min(1),
  outer: numberText,
  inner: numberText.optional(),
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveTube = z.infer<typeof schema>;

/** A round or ring section along lines and tangent arcs: `LEAVE TUBE "elbow" OD 30 ID 24`. */
export const leaveTube: RowKind<LeaveTube> = {
  kind: "leaveTube",
  verb: "leave",
  label: "tube",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE TUBE "outline" OD 1 ID .75', mm: 'LEAVE TUBE "outline" OD 25 ID 20' },
  callout: {
    head: sequence(word("TUBE"), outlineName, marked("OD", "outer", "Outside diameter", "length", { bare: true })),
    clauses: [
      optional("inner", marked("ID", "inner", "Inside diameter", "length", { bare: true })),
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      atZ,
      standingClause,
    ],
  },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw, outlines) {
    if (row.inner !== undefined && row.inner >= row.outer) return fail(problems.insideNotSmaller(), { path: "inner" });
    const body = tubeBody(raw.outline, outlines, row.turn ?? 0, { outer: row.outer / 2, inner: (row.inner ?? 0) / 2 });
    if (!body.ok) return body;
    const { plane, place } = standing(row);
    return ok({ op: "leave", plane, body: body.value, places: [place] });
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Path" },
    { field: "number", path: "outer", label: "Outside ⌀" },
    { field: "number", path: "inner", label: "Inside ⌀", optional: true },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "standing" },
  ],
};
