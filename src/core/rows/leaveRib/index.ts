import { nameText } from "../../base/name";
import { z } from "zod";
import { ok } from "../../base/result";
import { marked, required, sequence, word, type Clause } from "../../grammar/grammar";
import { inCallout, numberText } from "../../number";
import type { RowKind } from "../kind";
import { standing } from "../leaveCommon";
import { onlyChain, outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leaveRib"),
  outline: nameText.min(1),
  thick: numberText,
  /** How far down from its plane; without it down to the material. */
  down: numberText.optional(),
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef,
});
export type LeaveRib = z.infer<typeof schema>;

/** `DOWN d` or `TO NEXT`, which is what a rib does anyway. */
const downClause: Clause = {
  expected: "DOWN or TO NEXT",
  starts: (r) => r.sees("DOWN") || r.sees("TO", "NEXT"),
  read(r, row) {
    if (r.take("TO", "NEXT")) return;
    r.want("DOWN");
    row.down = r.number("down", "how far down");
  },
  write: (row) => (row.down === undefined ? "TO NEXT" : `DOWN ${inCallout(row.down)}`),
  numbers: (row) =>
    row.down === undefined ? [] : [{ path: "down", label: "Down", quantity: "length", means: "depth", text: row.down }],
};

/** A web along a chain, prolonged to the walls at its ends: `LEAVE RIB "web" THICK 4 TO NEXT ON TOP OF 2`. */
export const leaveRib: RowKind<LeaveRib> = {
  kind: "leaveRib",
  verb: "leave",
  label: "rib",
  schema,
  blank: () => ({ plane: { on: "top" } }),
  example: { in: 'LEAVE RIB "outline" THICK .125 TO NEXT ON TOP', mm: 'LEAVE RIB "outline" THICK 3 TO NEXT ON TOP' },
  callout: {
    head: sequence(word("RIB"), outlineName, marked("THICK", "thick", "Thickness", "length")),
    clauses: [downClause, marked("TURN", "turn", "Turn", "angle", { angle: true }), atZ, required(standingClause)],
  },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw, outlines) {
    const chain = onlyChain(raw.outline, outlines, row.turn ?? 0);
    if (!chain.ok) return chain;
    const { plane, place } = standing(row);
    const body = { body: "rib" as const, chain: chain.value, thick: row.thick, depth: row.down ?? ("next" as const) };
    return ok({ op: "leave", plane, body, places: [place] });
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Open chain" },
    { field: "number", path: "thick", label: "Thickness" },
    { field: "number", path: "down", label: "Down (empty: to the material)", optional: true },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "plane" },
  ],
};
