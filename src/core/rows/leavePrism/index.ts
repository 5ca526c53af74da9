import { z } from "zod";
import { marked, number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail } from "../../base/result";
import { raised } from "../leaveCommon";
import type { RowKind } from "../kind";
import { outlineName, outlinesFor } from "../outlineSource";
import { atZ, planeRef, pointZ } from "../places";
import { standingClause } from "../standingClause";

const schema = z.strictObject({
  kind: z.literal("leavePrism"),
  outline: z.string().min(1).max(120),
  height: numberText,
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeavePrism = z.infer<typeof schema>;

/** An outline carried up: `LEAVE PRISM "plate" X 12`. */
export const leavePrism: RowKind<LeavePrism> = {
  kind: "leavePrism",
  verb: "leave",
  label: "prism",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE PRISM "outline" X .5', mm: 'LEAVE PRISM "outline" X 12' },
  callout: {
    head: sequence(word("PRISM"), outlineName, word("X"), number("height", "Height", "length")),
    clauses: [marked("TURN", "turn", "Turn", "angle", { angle: true }), atZ, standingClause],
  },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw, outlines) {
    const o = outlinesFor(raw.outline, outlines, row.turn ?? 0);
    if (!o.ok) return o;
    if (o.value.length > 1)
      return fail(`outline "${raw.outline}" has ${o.value.length} separate loops`, {
        path: "outline",
        expected: "one closed loop with its holes; JOIN them, or leave them one by one",
      });
    return raised(row, o.value[0], row.height);
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Outline" },
    { field: "number", path: "height", label: "Height" },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
  ],
};
