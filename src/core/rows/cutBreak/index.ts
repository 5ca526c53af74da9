import { z } from "zod";
import { number, required, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { edgeList, edgesOf, edgesPart, fitting, fittingClause, fittingField, fittingOf } from "../edges";
import type { RowKind } from "../kind";

const schema = z.strictObject({ kind: z.literal("cutBreak"), size: numberText, edges: edgeList, fitting });
export type CutBreak = z.infer<typeof schema>;

export const cutBreak: RowKind<CutBreak> = {
  kind: "cutBreak",
  verb: "cut",
  label: "break edges",
  traits: { edges: true },
  schema,
  blank: () => ({}),
  example: { in: "CUT BREAK .01 ALL SHARP", mm: "CUT BREAK .3 ALL SHARP" },
  callout: {
    head: sequence(word("BREAK"), number("size", "Break", "length", { means: "leg" })),
    clauses: [required(edgesPart), fittingClause],
  },
  feature: () => ({ is: "edge", treatment: "chamfer" }),
  recipe: (row) =>
    ok({
      op: "edges",
      treatment: "chamfer",
      size: row.size,
      angle: Math.PI / 4,
      edges: edgesOf(row),
      ...fittingOf(row),
    }),
  closedForm: () => null,
  fields: [{ field: "number", path: "size", label: "Break" }, { field: "edges" }, fittingField],
};
