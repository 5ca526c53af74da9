import { z } from "zod";
import { ok } from "../../base/result";
import { v2 } from "../../geometry/vec";
import { marked, number, required, sequence, word, type Clause } from "../../grammar/grammar";
import { numberText } from "../../number";
import type { RowKind } from "../kind";
import { rowRef } from "../planeRef";
import { startOnShaft } from "../shaft";

const schema = z.strictObject({
  kind: z.literal("cutShaftGroove"),
  diameter: numberText,
  width: numberText,
  start: numberText,
  /** The round it is cut into; without it the first round that is left. */
  shaft: rowRef.optional(),
});
export type CutShaftGroove = z.infer<typeof schema>;

const ofClause: Clause = {
  expected: "OF and a row",
  starts: (r) => r.sees("OF"),
  read(r, row, names) {
    r.want("OF");
    row.shaft = names.idOf(r.whole("the number of a row"));
  },
  write: (row, names) => (row.shaft === undefined ? "" : `OF ${names.numberOf(row.shaft)}`),
  numbers: () => [],
};

/** A groove round a shaft, down to a diameter: `CUT GROOVE SHAFT ⌀18 WIDE 1.3 START 4 OF 1`. */
export const cutShaftGroove: RowKind<CutShaftGroove> = {
  kind: "cutShaftGroove",
  verb: "cut",
  label: "shaft groove",
  traits: { groove: true },
  schema,
  blank: () => ({}),
  example: { in: "CUT GROOVE SHAFT ⌀.7 WIDE .05 START .2", mm: "CUT GROOVE SHAFT ⌀18 WIDE 1.3 START 4" },
  callout: {
    head: {
      ...sequence(word("GROOVE"), word("SHAFT"), number("diameter", "Groove diameter", "length", { sign: "⌀" })),
      starts: (r) => r.sees("GROOVE", "SHAFT"),
    },
    clauses: [required(marked("WIDE", "width", "Width", "length")), required(startOnShaft), ofClause],
  },
  feature: () => ({ is: "groove" }),
  recipe: (row, raw) =>
    ok({
      op: "cut",
      plane: { on: "top", start: 0 },
      body: { body: "collar", row: raw.shaft ?? null, inner: row.diameter / 2, start: row.start, width: row.width },
      places: [v2(0, 0)],
    }),
  closedForm: () => null,
  fields: [
    { field: "number", path: "diameter", label: "Groove ⌀" },
    { field: "number", path: "width", label: "Width" },
    { field: "number", path: "start", label: "Below the top" },
    { field: "row", path: "shaft", label: "Round", optional: true },
  ],
};
