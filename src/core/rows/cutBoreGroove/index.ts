import { problems } from "../problems";
import { z } from "zod";
import { marked, number, required, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail } from "../../base/result";
import { disc, cutAt } from "../common";
import type { RowKind } from "../kind";
import { pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("cutBoreGroove"),
  diameter: numberText,
  width: numberText,
  pattern,
  plane: planeRef,
});
export type CutBoreGroove = z.infer<typeof schema>;

export const cutBoreGroove: RowKind<CutBoreGroove> = {
  kind: "cutBoreGroove",
  verb: "cut",
  label: "bore groove",
  traits: { groove: true, startNeeded: true },
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT GROOVE BORE ⌀1.3 WIDE .06 START .2", mm: "CUT GROOVE BORE ⌀34 WIDE 1.6 START 4" },
  callout: {
    head: {
      ...sequence(word("GROOVE"), word("BORE"), number("diameter", "Groove diameter", "length", { sign: "⌀" })),
      starts: (r) => r.sees("GROOVE", "BORE"),
    },
    clauses: [required(marked("WIDE", "width", "Width", "length")), required(startClause), patternClause, planeClause],
  },
  feature: () => ({ is: "groove" }),
  recipe(row) {
    if (row.plane.start === undefined) return fail(problems.grooveStartMissing(), { path: "plane.start" });
    return cutAt(row, { body: "prism", outline: disc(row.diameter), depth: row.width });
  },
  closedForm: (row) => (Math.PI / 4) * row.diameter ** 2 * row.width,
  fields: [
    { field: "number", path: "diameter", label: "Groove ⌀" },
    { field: "number", path: "width", label: "Width" },
    { field: "pattern" },
    { field: "plane" },
  ],
};
