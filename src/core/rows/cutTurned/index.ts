import { nameText } from "../../base/name";
import { z } from "zod";
import { sequence, word, type Clause } from "../../grammar/grammar";
import { ok } from "../../base/result";
import { halfProfile } from "../halfProfile";
import { axisClause, axisFields, axisEditor, fromClause, sweepClause, sweepOf, turnedAt } from "../axis";
import type { RowKind } from "../kind";
import { outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";

const schema = z.strictObject({
  kind: z.literal("cutTurned"),
  outline: nameText.min(1),
  bore: z.literal(true).optional(),
  ...axisFields,
  at: pointZ.optional(),
});
export type CutTurned = z.infer<typeof schema>;

const boreClause: Clause = {
  expected: "BORE",
  starts: (r) => r.sees("BORE"),
  read(r, row) {
    r.want("BORE");
    row.bore = true;
  },
  write: (row) => (row.bore ? "BORE" : ""),
  numbers: () => [],
};

/**
 * A profile cut about an upright axis: a closed one as it is, an open one off the outside, or to the axis as a bore.
 * Its y counts from Z0.
 */
export const cutTurned: RowKind<CutTurned> = {
  kind: "cutTurned",
  verb: "cut",
  label: "turned",
  schema,
  blank: () => ({}),
  example: { in: 'CUT TURNED "outline"', mm: 'CUT TURNED "outline"' },
  callout: {
    head: sequence(word("TURNED"), outlineName),
    clauses: [boreClause, axisClause, sweepClause, fromClause, atZ],
  },
  feature: () => ({ is: "turned" }),
  recipe(row, raw, outlines) {
    const body = halfProfile(raw.outline, outlines, raw.bore ? "bore" : "outside");
    if (!body.ok) return body;
    const sweep = sweepOf(row);
    if (!sweep.ok) return sweep;
    return ok({ op: "cut", ...turnedAt(row, raw), body: { ...body.value, sweep: sweep.value } });
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Half profile" },
    {
      field: "choice",
      path: "bore",
      label: "Open profile",
      options: [
        { value: "", label: "off the outside", set: { bore: undefined } },
        { value: "true", label: "to the axis: a bore", set: { bore: true } },
      ],
    },
    ...axisEditor,
    { field: "place" },
  ],
};
