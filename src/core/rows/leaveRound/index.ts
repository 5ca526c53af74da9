import { z } from "zod";
import { number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { disc } from "../common";
import { raised } from "../leaveCommon";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RowKind } from "../kind";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leaveRound"),
  diameter: numberText,
  ...heightFields,
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveRound = z.infer<typeof schema>;

export const leaveRound: RowKind<LeaveRound> = {
  kind: "leaveRound",
  verb: "leave",
  label: "round",
  traits: { shaft: true },
  schema,
  blank: () => ({}),
  example: { in: "LEAVE ROUND ⌀2 X .75", mm: "LEAVE ROUND ⌀50 X 20" },
  callout: {
    head: sequence(word("ROUND"), number("diameter", "Diameter", "length", { sign: "⌀" }), heightPart),
    clauses: [wayClause, atZ, standingClause],
  },
  feature: () => ({ is: "body", round: true, free: false }),
  recipe: (row) => raised(row, disc(row.diameter)),
  closedForm: (row) => (row.height === undefined ? null : (Math.PI / 4) * row.diameter ** 2 * row.height),
  fields: [
    { field: "number", path: "diameter", label: "Diameter" },
    ...heightEditor,
    { field: "place" },
    { field: "standing" },
  ],
};
