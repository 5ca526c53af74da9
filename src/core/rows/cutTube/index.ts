import { nameText } from "../../base/name";
import { z } from "zod";
import { ok } from "../../base/result";
import { marked, number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import type { RowKind } from "../kind";
import { standing } from "../leaveCommon";
import { outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";
import { tubeBody } from "../tubeCommon";

const schema = z.strictObject({
  kind: z.literal("cutTube"),
  outline: nameText.min(1),
  diameter: numberText,
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type CutTube = z.infer<typeof schema>;

/** A round bore along a path: `CUT TUBE "elbow" ⌀24`. A straight tool cannot make it where it bends. */
export const cutTube: RowKind<CutTube> = {
  kind: "cutTube",
  verb: "cut",
  label: "bore along a path",
  traits: { bent: true },
  starts: (r) => r.sees("TUBE"),
  schema,
  blank: () => ({}),
  example: { in: 'CUT TUBE "outline" ⌀.75', mm: 'CUT TUBE "outline" ⌀20' },
  callout: {
    head: sequence(word("TUBE"), outlineName, number("diameter", "Diameter", "length", { sign: "⌀" })),
    clauses: [marked("TURN", "turn", "Turn", "angle", { angle: true }), atZ, standingClause],
  },
  feature: () => ({ is: "bend" }),
  recipe(row, raw, outlines) {
    const body = tubeBody(raw.outline, outlines, row.turn ?? 0, { outer: row.diameter / 2, inner: 0 });
    if (!body.ok) return body;
    const { plane, place } = standing(row);
    return ok({ op: "cut", plane, body: body.value, places: [place] });
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Path" },
    { field: "number", path: "diameter", label: "Diameter" },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "standing" },
  ],
};
