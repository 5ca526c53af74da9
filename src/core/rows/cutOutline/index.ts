import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { marked, sequence, word, type Clause } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { placesOf } from "../common";
import { depthClause, depthEditor, depthFields, depthOf, planeOf } from "../extent";
import type { RowKind } from "../kind";
import { openChainFor, outlineName, outlinesFor } from "../outlineSource";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";
import { cutElsewhere, idleRound, roundClause, roundEditor, roundField, wrapped } from "../wrapped";

const schema = z.strictObject({
  kind: z.literal("cutOutline"),
  count: numberText.optional(),
  outline: nameText.min(1),
  ...depthFields,
  side: z.enum(["left", "right"]).optional(),
  turn: numberText.optional(),
  pattern,
  plane: planeRef,
  round: roundField.optional(),
});
export type CutOutline = z.infer<typeof schema>;

/** Which side of an open chain is cut, off the edge of the part. */
const sideClause: Clause = {
  expected: "LEFT or RIGHT",
  starts: (r) => r.sees("LEFT") || r.sees("RIGHT"),
  read(r, row) {
    row.side = r.takeOne(["LEFT", "RIGHT"] as const)!.toLowerCase();
  },
  write: (row) => (row.side ? row.side.toUpperCase() : ""),
  numbers: () => [],
};

/** A pocket or window of any outline, islands and all: `CUT POCKET "cam" DEEP 5`. */
export const cutOutline: RowKind<CutOutline> = {
  kind: "cutOutline",
  verb: "cut",
  label: "outline",
  traits: { counted: true, pocket: true },
  starts: (r) => r.take("POCKET") && (r.skip(), r.text[r.pos] === '"'),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: 'CUT POCKET "outline" DEEP .25', mm: 'CUT POCKET "outline" DEEP 6' },
  callout: {
    head: sequence(countPrefix, word("POCKET"), outlineName),
    clauses: [
      depthClause,
      sideClause,
      marked("TURN", "turn", "Turn", "angle", { angle: true }),
      roundClause,
      patternClause,
      startClause,
      planeClause,
    ],
  },
  feature: (row) => (row.round ? { is: "engraving" } : { is: "pocket", free: true, round: null }),
  recipe(row, raw, outlines) {
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const places = placesOf(row.pattern, row.count, outlines);
    const open = openChainFor(raw.outline, outlines, row.turn ?? 0);
    if (!open.ok) return open;
    if (open.value) {
      if (!raw.side) return fail(problems.outlineNotClosed(raw.outline), { path: "outline" });
      if (typeof depth.value !== "number" && depth.value !== "thru")
        return fail(problems.openChainWithoutDepth(), { path: "depth" });
      return places.ok
        ? ok({
            op: "cut",
            plane: planeOf(row.plane),
            body: { body: "open", chain: open.value, side: raw.side, depth: depth.value },
            places: places.value,
          })
        : places;
    }
    const o = outlinesFor(raw.outline, outlines, row.turn ?? 0);
    if (!o.ok) return o;
    if (row.round) return cutElsewhere(raw) ?? wrapped("cut", row.round, o.value, depth.value);
    const [outline, ...more] = o.value;
    return places.ok
      ? ok({
          op: "cut",
          plane: planeOf(row.plane),
          body: { body: "prism", outline, ...(more.length ? { more } : {}), depth: depth.value },
          places: places.value,
        })
      : places;
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Outline" },
    ...depthEditor,
    {
      field: "choice",
      path: "side",
      label: "Open chain: side",
      options: [
        { value: "", label: "closed outline", set: { side: undefined } },
        { value: "left", label: "left of the walk", set: { side: "left" } },
        { value: "right", label: "right of the walk", set: { side: "right" } },
      ],
    },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "pattern" },
    { field: "plane" },
    ...roundEditor,
  ],
  idle: idleRound,
};
