import { z } from "zod";
import { number, required, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { disc, cutAt } from "../common";
import { depthClause, depthEditor, depthFields, depthOf } from "../extent";
import type { RowKind } from "../kind";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

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
  recipe(row, _raw, outlines) {
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    return cutAt(row, { body: "prism", outline: disc(row.diameter), depth: depth.value }, outlines);
  },
  closedForm: (row) => (row.deep === undefined ? null : (Math.PI / 4) * row.diameter ** 2 * row.deep),
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    { field: "number", path: "diameter", label: "Diameter" },
    ...depthEditor,
    { field: "pattern" },
    { field: "plane" },
  ],
};
