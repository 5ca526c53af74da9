import { z } from "zod";
import { marked, optional, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { planeOf } from "../extent";
import type { RowKind } from "../kind";
import { planeClause, planeRef, startClause } from "../planeRef";

const schema = z.strictObject({ kind: z.literal("cutFace"), deep: numberText.optional(), plane: planeRef });
export type CutFace = z.infer<typeof schema>;

/** Without a depth it takes what stock stands over the plane, and nothing of the part. */
export const cutFace: RowKind<CutFace> = {
  kind: "cutFace",
  verb: "cut",
  label: "face",
  traits: { floor: true },
  schema,
  blank: () => ({ plane: { on: "top" } }),
  example: { in: "CUT FACE DEEP .05", mm: "CUT FACE DEEP 1" },
  callout: {
    head: word("FACE"),
    clauses: [optional("deep", marked("DEEP", "deep", "Depth", "length")), startClause, planeClause],
  },
  feature: () => ({ is: "face" }),
  recipe: (row) => ok({ op: "face", plane: planeOf(row.plane), depth: row.deep ?? 0 }),
  closedForm: () => null,
  fields: [{ field: "number", path: "deep", label: "Depth", optional: true }, { field: "plane" }],
};
