import { z } from "zod";
import { marked, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { halfProfile } from "../halfProfile";
import { standing } from "../leaveCommon";
import type { RowKind } from "../kind";
import { outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { COINCIDENT } from "../../geometry/tolerance";

const schema = z.strictObject({
  kind: z.literal("leaveTurned"),
  outline: z.string().min(1).max(120),
  sweep: numberText.optional(),
  at: pointZ.optional(),
});
export type LeaveTurned = z.infer<typeof schema>;

/**
 * A half profile turned about an upright axis: `LEAVE TURNED "pulley"`; x of the outline is the radius, y the height
 * over Z0.
 */
export const leaveTurned: RowKind<LeaveTurned> = {
  kind: "leaveTurned",
  verb: "leave",
  label: "turned",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE TURNED "outline"', mm: 'LEAVE TURNED "outline"' },
  callout: {
    head: sequence(word("TURNED"), outlineName),
    clauses: [marked("SWEEP", "sweep", "Sweep", "angle", { angle: true }), atZ],
  },
  feature: () => ({ is: "turned" }),
  recipe(row, raw, outlines) {
    const body = halfProfile(raw.outline, outlines, "bore");
    if (!body.ok) return body;
    const sweep = row.sweep ?? 2 * Math.PI;
    if (!(sweep > 0) || sweep > 2 * Math.PI + COINCIDENT)
      return fail("a part is turned through more than 0 and at most 360 degrees", {
        path: "sweep",
        expected: "an angle up to 360",
      });
    const { plane, place } = standing(row);
    return ok({ op: "leave", plane, body: { ...body.value, sweep }, places: [place] });
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Half profile" },
    { field: "number", path: "sweep", label: "Sweep", optional: true },
    { field: "place" },
  ],
};
