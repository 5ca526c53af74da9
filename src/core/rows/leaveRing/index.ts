import { problems } from "../problems";
import { z } from "zod";
import { marked, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail } from "../../base/result";
import { annulus } from "../common";
import { raised } from "../leaveCommon";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RowKind } from "../kind";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leaveRing"),
  outer: numberText,
  inner: numberText,
  ...heightFields,
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveRing = z.infer<typeof schema>;

export const leaveRing: RowKind<LeaveRing> = {
  kind: "leaveRing",
  verb: "leave",
  label: "ring",
  traits: { shaft: true },
  schema,
  blank: () => ({}),
  example: { in: "LEAVE RING OD 3 ID 2 X .5", mm: "LEAVE RING OD 80 ID 50 X 12" },
  callout: {
    head: sequence(
      word("RING"),
      marked("OD", "outer", "Outside diameter", "length", { bare: true }),
      marked("ID", "inner", "Inside diameter", "length", { bare: true }),
      heightPart,
    ),
    clauses: [wayClause, atZ, standingClause],
  },
  feature: () => ({ is: "body", round: true, free: false }),
  recipe: (row) =>
    row.inner < row.outer
      ? raised(row, annulus(row.outer, row.inner))
      : fail(problems.insideNotSmaller(), { path: "inner" }),
  closedForm: (row) =>
    row.height === undefined ? null : (Math.PI / 4) * (row.outer ** 2 - row.inner ** 2) * row.height,
  fields: [
    { field: "number", path: "outer", label: "Outside ⌀" },
    { field: "number", path: "inner", label: "Inside ⌀" },
    ...heightEditor,
    { field: "place" },
    { field: "standing" },
  ],
};
