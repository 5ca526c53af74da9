import { z } from "zod";
import { number, required, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { depthClause, depthField, depthFields, depthOf, disc, placesOf, planeOf } from "../common";
import type { RowKind } from "../kind";
import { countPrefix, pattern, patternClause, planeClause, planeRef, startClause } from "../places";

const schema = z.strictObject({
  kind: z.literal("cutCounterbore"),
  count: numberText.optional(),
  diameter: numberText,
  ...depthFields,
  pattern,
  plane: planeRef,
});
export type CutCounterbore = z.infer<typeof schema>;

/** A counterbore or spotface by itself: round, with a flat floor. */
export const cutCounterbore: RowKind<CutCounterbore> = {
  kind: "cutCounterbore",
  verb: "cut",
  label: "counterbore",
  traits: { counted: true, floor: true },
  starts: (r) => r.sees("CBORE"),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT CBORE ⌀2.125 DEEP .25", mm: "CUT CBORE ⌀54 DEEP 6" },
  callout: {
    head: sequence(countPrefix, word("CBORE"), number("diameter", "Diameter", "length", { sign: "⌀" })),
    clauses: [required(depthClause), patternClause, startClause, planeClause],
  },
  feature: (row) => ({ is: "pocket", free: true, round: row.diameter / 2 }),
  recipe(row) {
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const places = placesOf(row.pattern, row.count);
    return places.ok
      ? ok({
          op: "cut",
          plane: planeOf(row.plane),
          body: { body: "prism", outline: disc(row.diameter), depth: depth.value },
          places: places.value,
        })
      : places;
  },
  closedForm: (row) => (row.deep === undefined ? null : (Math.PI / 4) * row.diameter ** 2 * row.deep),
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    { field: "number", path: "diameter", label: "Diameter" },
    depthField,
    { field: "number", path: "deep", label: "Depth" },
    { field: "pattern" },
    { field: "plane" },
  ],
};
