import { nameText } from "../../base/name";
import { z } from "zod";
import { sequence, word } from "../../grammar/grammar";
import { ok } from "../../base/result";
import { halfProfile } from "../halfProfile";
import { axisClause, axisFields, axisEditor, fromClause, sweepClause, sweepOf, turnedAt } from "../axis";
import type { RowKind } from "../kind";
import { outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";

const schema = z.strictObject({
  kind: z.literal("leaveTurned"),
  outline: nameText.min(1),
  ...axisFields,
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
  traits: { shaft: true },
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE TURNED "outline"', mm: 'LEAVE TURNED "outline"' },
  callout: {
    head: sequence(word("TURNED"), outlineName),
    clauses: [axisClause, sweepClause, fromClause, atZ],
  },
  feature: () => ({ is: "turned" }),
  recipe(row, raw, outlines) {
    const body = halfProfile(raw.outline, outlines, "bore");
    if (!body.ok) return body;
    const sweep = sweepOf(row);
    if (!sweep.ok) return sweep;
    return ok({ op: "leave", ...turnedAt(row, raw), body: { ...body.value, sweep: sweep.value } });
  },
  closedForm: () => null,
  fields: [{ field: "outline", path: "outline", label: "Half profile" }, ...axisEditor, { field: "place" }],
};
