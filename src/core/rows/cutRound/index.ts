import { z } from "zod";
import { number, required, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { edgeList, edgesOf, edgesPart, fitting, fittingClause, fittingField, fittingOf } from "../edges";
import type { RowKind } from "../kind";

const schema = z.strictObject({ kind: z.literal("cutRound"), size: numberText, edges: edgeList, fitting });
export type CutRound = z.infer<typeof schema>;

export const cutRound: RowKind<CutRound> = {
  kind: "cutRound",
  verb: "cut",
  label: "round",
  traits: { edges: true },
  schema,
  blank: () => ({}),
  example: { in: "CUT ROUND .06 VERTICAL", mm: "CUT ROUND 2 VERTICAL" },
  callout: {
    head: sequence(word("ROUND"), number("size", "Radius", "length", { means: "radius" })),
    clauses: [required(edgesPart), fittingClause],
  },
  feature: () => ({ is: "edge", treatment: "round" }),
  recipe: (row) =>
    ok({ op: "edges", treatment: "round", size: row.size, angle: 0, edges: edgesOf(row), ...fittingOf(row) }),
  closedForm: () => null,
  fields: [{ field: "number", path: "size", label: "Radius" }, { field: "edges" }, fittingField],
};
