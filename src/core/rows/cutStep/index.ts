import { z } from "zod";
import { marked, number, required, sequence, word, type Part } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { planeOf } from "../extent";
import type { RowKind } from "../kind";
import { planeClause, planeRef, startClause } from "../planeRef";
import { sides } from "../../geometry/vec";

const schema = z.strictObject({
  kind: z.literal("cutStep"),
  side: z.enum(["top", "bottom", "front", "back", "left", "right"]),
  width: numberText,
  deep: numberText,
  plane: planeRef,
});
export type CutStep = z.infer<typeof schema>;

const sidePart: Part = {
  expected: "LEFT, RIGHT, FRONT or BACK",
  starts: (r) => sides.some((s) => r.sees(s.toUpperCase())),
  read(r, row) {
    const side = sides.find((s) => r.take(s.toUpperCase()));
    if (!side) r.fail(this.expected);
    row.side = side;
  },
  write: (row) => row.side.toUpperCase(),
  numbers: () => [],
};

export const cutStep: RowKind<CutStep> = {
  kind: "cutStep",
  verb: "cut",
  label: "step",
  traits: { floor: true, sided: true },
  schema,
  blank: () => ({ plane: { on: "top" } }),
  example: { in: "CUT STEP LEFT .5 DEEP .25", mm: "CUT STEP LEFT 12 DEEP 6" },
  callout: {
    head: sequence(word("STEP"), sidePart, number("width", "Width", "length")),
    clauses: [required(marked("DEEP", "deep", "Depth", "length")), startClause, planeClause],
  },
  feature: () => ({ is: "step" }),
  recipe: (row) => ok({ op: "step", plane: planeOf(row.plane), side: row.side, width: row.width, depth: row.deep }),
  closedForm: () => null,
  fields: [
    {
      field: "choice",
      path: "side",
      label: "Side",
      options: sides
        .filter((s) => s !== "top" && s !== "bottom")
        .map((s) => ({ value: s, label: s, set: { side: s } })),
    },
    { field: "number", path: "width", label: "Width" },
    { field: "number", path: "deep", label: "Depth" },
    { field: "plane" },
  ],
};
