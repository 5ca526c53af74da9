import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { marked, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { placesOf } from "../common";
import { planeOf } from "../extent";
import type { RowKind } from "../kind";
import { chainsFor, outlineName } from "../outlineSource";
import { pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";
import { cutElsewhere, idleRound, roundClause, roundEditor, roundField, wrappedVee } from "../wrapped";

const schema = z.strictObject({
  kind: z.literal("cutEngrave"),
  outline: nameText.min(1),
  angle: numberText,
  deep: numberText,
  turn: numberText.optional(),
  pattern,
  plane: planeRef,
  round: roundField.optional(),
});
export type CutEngrave = z.infer<typeof schema>;

/** Pieces of groove the solid library is asked to cut at once; more than this takes too long to be felt as quick. */
const MOST = 1500;

/** Chains followed by a pointed cutter: `CUT ENGRAVE "scale" V 60 DEEP .3`; the depth gives the width, 2 d tan(V/2). */
export const cutEngrave: RowKind<CutEngrave> = {
  kind: "cutEngrave",
  verb: "cut",
  label: "engraving",
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: 'CUT ENGRAVE "outline" V 60 DEEP .01', mm: 'CUT ENGRAVE "outline" V 60 DEEP .3' },
  callout: {
    head: sequence(word("ENGRAVE"), outlineName, marked("V", "angle", "Included angle", "angle", { angle: true })),
    clauses: [
      { ...marked("DEEP", "deep", "Depth", "length"), required: true },
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
    if (!(row.angle > 0) || row.angle >= Math.PI) return fail(problems.cutterAngle(), { path: "angle" });
    const groove = { halfAngle: row.angle / 2, depth: row.deep };
    if (row.round) return cutElsewhere(raw) ?? wrappedVee(row.round, chains.value, groove);
    const places = placesOf(row.pattern, undefined);
    if (!places.ok) return places;
    const pieces = chains.value.reduce((n, c) => n + c.length, 0) * places.value.length;
    if (pieces > MOST) return fail(problems.tooManyPieces(pieces, MOST), { path: "outline" });
    return ok({
      op: "cut",
      plane: planeOf(row.plane),
      body: { body: "vee", chains: chains.value, ...groove },
      places: places.value,
    });
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Outline" },
    { field: "number", path: "angle", label: "Included angle" },
    { field: "number", path: "deep", label: "Depth" },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "pattern" },
    { field: "plane" },
    ...roundEditor,
  ],
  idle: idleRound,
};
