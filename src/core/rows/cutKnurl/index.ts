import { problems } from "../problems";
import { z } from "zod";
import { fail, ok } from "../../base/result";
import { flag, marked, required, sequence, word, type Part } from "../../grammar/grammar";
import { v2 } from "../../geometry/vec";
import { numberText } from "../../number";
import type { RowKind } from "../kind";
import { rowRef } from "../planeRef";
import { shaftClause, startOnShaft } from "../shaft";

const schema = z.strictObject({
  kind: z.literal("cutKnurl"),
  form: z.enum(["straight", "diamond"]),
  pitch: numberText,
  length: numberText,
  shaft: rowRef,
  start: numberText.optional(),
  solid: z.literal(true).optional(),
});
export type CutKnurl = z.infer<typeof schema>;

const formPart: Part = {
  expected: "STRAIGHT or DIAMOND",
  starts: (r) => r.sees("STRAIGHT") || r.sees("DIAMOND"),
  read(r, row) {
    const form = r.takeOne(["STRAIGHT", "DIAMOND"] as const);
    if (!form) return r.fail(this.expected);
    row.form = form.toLowerCase();
  },
  write: (row) => row.form.toUpperCase(),
  numbers: () => [],
};

/** A knurl rolled on a shaft: `CUT KNURL DIAMOND PITCH 1 LEN 12 ON SHAFT OF 1`. The solid stays the blank's; `SOLID` cuts straight teeth. */
export const cutKnurl: RowKind<CutKnurl> = {
  kind: "cutKnurl",
  verb: "cut",
  label: "knurl",
  starts: (r) => r.sees("KNURL"),
  schema,
  blank: () => ({}),
  example: {
    in: "CUT KNURL DIAMOND PITCH .04 LEN .5 ON SHAFT OF 1",
    mm: "CUT KNURL DIAMOND PITCH 1 LEN 12 ON SHAFT OF 1",
  },
  callout: {
    head: sequence(word("KNURL"), formPart),
    clauses: [
      required(marked("PITCH", "pitch", "Pitch", "length")),
      required(marked("LEN", "length", "Length", "length")),
      shaftClause,
      startOnShaft,
      flag("SOLID", "solid"),
    ],
  },
  feature: (row) => ({
    is: "knurl",
    form: row.form as "straight" | "diamond",
    pitch: row.pitch,
    length: row.length,
    shaft: row.shaft as string,
  }),
  recipe(row, raw) {
    const start = row.start ?? 0;
    if (raw.solid && raw.form === "diamond") return fail(problems.diamondKnurlAsSolid(), { path: "solid" });
    if (raw.solid)
      return ok({
        op: "cut",
        plane: { on: "top", start: 0 },
        body: { body: "collar", row: raw.shaft, inner: { pitch: row.pitch }, start, width: row.length },
        places: [v2(0, 0)],
      });
    return ok({ op: "said", on: { row: raw.shaft }, from: start, length: row.length });
  },
  closedForm: () => 0,
  fields: [
    {
      field: "choice",
      path: "form",
      label: "Form",
      options: [
        { value: "straight", label: "straight", set: { form: "straight" } },
        { value: "diamond", label: "diamond", set: { form: "diamond" } },
      ],
    },
    { field: "number", path: "pitch", label: "Pitch" },
    { field: "number", path: "length", label: "Length" },
    { field: "row", path: "shaft", label: "Shaft" },
    { field: "number", path: "start", label: "Below the top", optional: true },
  ],
};
