import { z } from "zod";
import { number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { by, disc } from "../common";
import { raised } from "../leaveCommon";
import type { RowKind } from "../kind";
import { atZ, planeRef, pointZ } from "../places";
import { standingClause } from "../standingClause";

const schema = z.strictObject({
  kind: z.literal("leaveRound"),
  diameter: numberText,
  height: numberText,
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveRound = z.infer<typeof schema>;

export const leaveRound: RowKind<LeaveRound> = {
  kind: "leaveRound",
  verb: "leave",
  label: "round",
  schema,
  blank: () => ({}),
  example: { in: "LEAVE ROUND ⌀2 X .75", mm: "LEAVE ROUND ⌀50 X 20" },
  callout: {
    head: sequence(
      word("ROUND"),
      by(number("diameter", "Diameter", "length", { sign: "⌀" }), number("height", "Height", "length")),
    ),
    clauses: [atZ, standingClause],
  },
  feature: () => ({ is: "body", round: true, free: false }),
  recipe: (row) => raised(row, disc(row.diameter), row.height),
  closedForm: (row) => (Math.PI / 4) * row.diameter ** 2 * row.height,
  fields: [
    { field: "number", path: "diameter", label: "Diameter" },
    { field: "number", path: "height", label: "Height" },
    { field: "place" },
  ],
};
