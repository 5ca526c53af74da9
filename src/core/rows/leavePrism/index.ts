import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { marked, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail } from "../../base/result";
import { offsetRegion } from "../../outline/boolean";
import { raised } from "../leaveCommon";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RowKind } from "../kind";
import { outlineName, outlinesFor } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leavePrism"),
  outline: nameText.min(1),
  ...heightFields,
  draft: numberText.optional(),
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeavePrism = z.infer<typeof schema>;

/** Walls that lean more are no draft. */
const MOST_DRAFT = Math.PI / 3;

/** An outline carried up: `LEAVE PRISM "plate" X 12`. */
export const leavePrism: RowKind<LeavePrism> = {
  kind: "leavePrism",
  verb: "leave",
  label: "prism",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE PRISM "outline" X .5', mm: 'LEAVE PRISM "outline" X 12' },
  callout: {
    head: sequence(word("PRISM"), outlineName, heightPart),
    clauses: [
      wayClause,
      marked("DRAFT", "draft", "Draft", "angle", { angle: true }),
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      atZ,
      standingClause,
    ],
  },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw, outlines) {
    const o = outlinesFor(raw.outline, outlines, row.turn ?? 0);
    if (!o.ok) return o;
    if (o.value.length > 1) return fail(problems.separateLoops(raw.outline, o.value.length), { path: "outline" });
    if (row.draft !== undefined && Math.abs(row.draft) >= MOST_DRAFT)
      return fail(problems.draftTooSteep(), { path: "draft" });
    if (row.draft && (row.way === "both" || row.height === undefined))
      return fail(problems.draftBothWays(), { path: "draft" });
    const inset = (row.height ?? 0) * Math.tan(row.draft ?? 0);
    if (inset > 0 && !offsetRegion([o.value[0].outer], -inset).length)
      return fail(problems.wallsMeet(), { path: "draft" });
    return raised(row, o.value[0], row.draft ? { draft: row.draft } : {});
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Outline" },
    ...heightEditor,
    { field: "number", path: "draft", label: "Draft", optional: true },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "standing" },
  ],
};
