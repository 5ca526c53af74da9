import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { fail } from "../../base/result";
import { marked, number, required, sequence, word, type Part } from "../../grammar/grammar";
import { numberText } from "../../number";
import { cutAt } from "../common";
import type { RowKind } from "../kind";
import { chainsFor, outlineName } from "../outlineSource";
import { pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";
import { cutElsewhere, idleRound, roundClause, roundEditor, roundField, wrappedVee } from "../wrapped";

const schema = z.strictObject({
  kind: z.literal("cutVeeGroove"),
  angle: numberText,
  deep: numberText,
  outline: nameText.min(1),
  turn: numberText.optional(),
  pattern,
  plane: planeRef,
  round: roundField.optional(),
});
export type CutVeeGroove = z.infer<typeof schema>;

const head: Part = sequence(
  word("GROOVE"),
  word("VEE"),
  number("angle", "Included angle", "angle", { angle: true }),
  required(marked("DEEP", "deep", "Depth", "length", { means: "depth" })),
  outlineName,
);

/** A groove of a pointed cutter along a chain: `CUT GROOVE VEE 90 DEEP 2 "mark"`. */
export const cutVeeGroove: RowKind<CutVeeGroove> = {
  kind: "cutVeeGroove",
  verb: "cut",
  label: "vee groove",
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: 'CUT GROOVE VEE 90 DEEP .06 "outline"', mm: 'CUT GROOVE VEE 90 DEEP 1.5 "outline"' },
  callout: {
    head: { ...head, starts: (r) => r.sees("GROOVE", "VEE") },
    clauses: [
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      roundClause,
      patternClause,
      startClause,
      planeClause,
    ],
  },
  feature: () => ({ is: "engraving" }),
  recipe(row, raw, outlines) {
    const chains = chainsFor(raw.outline, outlines, row.turn ?? 0);
    if (!chains.ok) return chains;
    if (!(row.angle > 0) || row.angle >= Math.PI) return fail(problems.grooveAngle(), { path: "angle" });
    const groove = { halfAngle: row.angle / 2, depth: row.deep };
    if (row.round) return cutElsewhere(raw) ?? wrappedVee(row.round, chains.value, groove);
    return cutAt(row, { body: "vee", chains: chains.value, ...groove });
  },
  closedForm: () => null,
  fields: [
    { field: "number", path: "angle", label: "Included angle" },
    { field: "number", path: "deep", label: "Depth" },
    { field: "outline", path: "outline", label: "Outline" },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "pattern" },
    { field: "plane" },
    ...roundEditor,
  ],
  idle: idleRound,
};
