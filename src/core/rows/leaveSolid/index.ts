import { nameText } from "../../base/name";
import { z } from "zod";
import { sequence, word, type Part } from "../../grammar/grammar";
import { ok } from "../../base/result";
import type { RowKind } from "../kind";
import { standing } from "../leaveCommon";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leaveSolid"),
  /** The name of a STEP file that the job keeps; on a card a path beside the card. */
  file: nameText.min(1),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveSolid = z.infer<typeof schema>;

const fileName: Part = {
  expected: "the name of a STEP file in double quotes",
  starts: (r) => (r.skip(), r.text[r.pos] === '"'),
  read(r, row) {
    row.file = r.quoted().trim();
    if (!row.file) r.fail("the name of a STEP file");
  },
  write: (row) => `"${String(row.file).replace(/"/g, "”")}"`,
  numbers: () => [],
};

/** A solid that came as a STEP file, to be cut further: `LEAVE SOLID "casting.step"`. */
export const leaveSolid: RowKind<LeaveSolid> = {
  kind: "leaveSolid",
  verb: "leave",
  label: "solid from a STEP file",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE SOLID "casting.step"', mm: 'LEAVE SOLID "casting.step"' },
  callout: { head: sequence(word("SOLID"), fileName), clauses: [atZ, standingClause] },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw) {
    const { plane, place } = standing(row);
    return ok({ op: "leave", plane, body: { body: "imported", file: raw.file, content: null }, places: [place] });
  },
  closedForm: () => null,
  fields: [{ field: "place" }, { field: "standing" }],
};
