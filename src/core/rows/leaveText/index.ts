import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { marked, sequence, word } from "../../grammar/grammar";
import { fail } from "../../base/result";
import { numberText } from "../../number";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RowKind } from "../kind";
import { raised } from "../leaveCommon";
import { outlineName, outlinesFor } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";
import { idleRound, roundClause, roundEditor, roundField, wrapped } from "../wrapped";

const schema = z.strictObject({
  kind: z.literal("leaveText"),
  outline: nameText.min(1),
  ...heightFields,
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
  round: roundField.optional(),
});
export type LeaveText = z.infer<typeof schema>;

/** A row that is wrapped round another says nowhere else where it stands. */
const standsElsewhere = ({ at, plane, way }: LeaveText) =>
  at || plane || way ? fail(problems.wrappedLeaveElsewhere(), { path: "round" }) : null;

/** Raised letters, or any outline of several loops: `LEAVE TEXT "scale" X .5 ON TOP`. */
export const leaveText: RowKind<LeaveText> = {
  kind: "leaveText",
  verb: "leave",
  label: "raised text",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE TEXT "outline" X .02 ON TOP', mm: 'LEAVE TEXT "outline" X .5 ON TOP' },
  callout: {
    head: sequence(word("TEXT"), outlineName, heightPart),
    clauses: [wayClause, marked("TURN", "turn", "Turn", "angle", { angle: true }), atZ, roundClause, standingClause],
  },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw, outlines) {
    const o = outlinesFor(raw.outline, outlines, row.turn ?? 0);
    if (!o.ok) return o;
    if (row.round) return standsElsewhere(raw) ?? wrapped("leave", row.round, o.value, row.height);
    const [outline, ...more] = o.value;
    return raised(row, outline, more.length ? { more } : {});
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Outline" },
    ...heightEditor,
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "standing" },
    ...roundEditor,
  ],
  idle: idleRound,
};
