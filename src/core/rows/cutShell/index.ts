import { z } from "zod";
import { ok } from "../../base/result";
import { number, sequence, word, type Clause } from "../../grammar/grammar";
import { numberText } from "../../number";
import { planeOf } from "../extent";
import type { RowKind } from "../kind";
import { planeRef, readPlane, writePlane, type PlaneRef } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("cutShell"),
  thick: numberText,
  /** Faces that are taken away altogether. */
  open: z.array(planeRef).min(1).max(12).optional(),
});
export type CutShell = z.infer<typeof schema>;

/** `OPEN TOP`, `OPEN TOP, FRONT`. */
const openClause: Clause = {
  expected: "OPEN and a plane",
  starts: (r) => r.sees("OPEN"),
  read(r, row, names) {
    r.want("OPEN");
    row.open = [];
    do {
      row.open.push(readPlane(r, names));
      r.skip();
    } while (r.text[r.pos] === "," && ++r.pos);
  },
  write: (row, names) =>
    row.open === undefined ? "" : `OPEN ${row.open.map((p: PlaneRef) => writePlane(p, names)).join(", ")}`,
  numbers: () => [],
};

/** The part hollowed to an even wall: `CUT SHELL 3 OPEN TOP`. */
export const cutShell: RowKind<CutShell> = {
  kind: "cutShell",
  verb: "cut",
  label: "shell",
  starts: (r) => r.sees("SHELL"),
  schema,
  blank: () => ({}),
  example: { in: "CUT SHELL .125 OPEN TOP", mm: "CUT SHELL 3 OPEN TOP" },
  callout: { head: sequence(word("SHELL"), number("thick", "Wall", "length")), clauses: [openClause] },
  feature: () => ({ is: "shell" }),
  recipe: (row, raw) => {
    const open = (row.open ?? raw.open ?? []) as { start?: number }[];
    return ok({ op: "shell", thick: row.thick, open: open.map((p) => planeOf(p)) });
  },
  closedForm: () => null,
  fields: [{ field: "number", path: "thick", label: "Wall" }],
};
