import { problems } from "../problems";
import { z } from "zod";
import { marked, required, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail } from "../../base/result";
import { annulus, cutAt } from "../common";
import type { RowKind } from "../kind";
import { pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("cutRingGroove"),
  outer: numberText,
  inner: numberText,
  deep: numberText,
  pattern,
  plane: planeRef,
});
export type CutRingGroove = z.infer<typeof schema>;

const head = sequence(
  word("GROOVE"),
  marked("OD", "outer", "Outside diameter", "length", { bare: true }),
  marked("ID", "inner", "Inside diameter", "length", { bare: true }),
);

export const cutRingGroove: RowKind<CutRingGroove> = {
  kind: "cutRingGroove",
  verb: "cut",
  label: "ring groove",
  traits: { groove: true, floor: true },
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT GROOVE OD 1.5 ID 1.3 DEEP .06", mm: "CUT GROOVE OD 40 ID 34 DEEP 2" },
  callout: {
    head: { ...head, starts: (r) => r.sees("GROOVE") && !["BORE", "SHAFT", "VEE"].some((w) => r.sees("GROOVE", w)) },
    clauses: [required(marked("DEEP", "deep", "Depth", "length")), patternClause, startClause, planeClause],
  },
  feature: () => ({ is: "groove" }),
  recipe(row) {
    if (row.inner >= row.outer) return fail(problems.insideNotSmaller(), { path: "inner" });
    return cutAt(row, { body: "prism", outline: annulus(row.outer, row.inner), depth: row.deep });
  },
  closedForm: (row) => (Math.PI / 4) * (row.outer ** 2 - row.inner ** 2) * row.deep,
  fields: [
    { field: "number", path: "outer", label: "Outside ⌀" },
    { field: "number", path: "inner", label: "Inside ⌀" },
    { field: "number", path: "deep", label: "Depth" },
    { field: "pattern" },
    { field: "plane" },
  ],
};
