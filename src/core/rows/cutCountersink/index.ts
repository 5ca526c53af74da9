import { z } from "zod";
import { number, sequence, word } from "../../grammar/grammar";
import { numberText } from "../../number";
import { cutAt } from "../common";
import type { RowKind } from "../kind";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("cutCountersink"),
  count: numberText.optional(),
  diameter: numberText,
  angle: numberText,
  pattern,
  plane: planeRef,
});
export type CutCountersink = z.infer<typeof schema>;

/** How deep a countersink's point lies below its mouth: (d/2) / tan(a/2). */
const depthOfPoint = ({ diameter, angle }: { diameter: number; angle: number }): number =>
  diameter / 2 / Math.tan(angle / 2);

/** A countersink by itself, over a hole that is there already: mouth diameter and included angle. */
export const cutCountersink: RowKind<CutCountersink> = {
  kind: "cutCountersink",
  verb: "cut",
  label: "countersink",
  traits: { counted: true },
  starts: (r) => r.sees("CSK"),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT CSK ⌀.5 X 82", mm: "CUT CSK ⌀12 X 90" },
  callout: {
    head: sequence(
      countPrefix,
      word("CSK"),
      number("diameter", "Countersink ⌀", "length", { sign: "⌀", means: "countersink" }),
      word("X"),
      number("angle", "Countersink angle", "includedAngle", { angle: true }),
    ),
    clauses: [patternClause, startClause, planeClause],
  },
  feature: () => ({ is: "turned" }),
  recipe(row, _raw, outlines) {
    return cutAt(
      row,
      {
        body: "revolved",
        profile: [
          { r: row.diameter / 2, z: 0 },
          { r: 0, z: depthOfPoint(row) },
        ],
      },
      outlines,
    );
  },
  closedForm: (row) => (Math.PI / 12) * row.diameter ** 2 * depthOfPoint(row),
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    { field: "number", path: "diameter", label: "Mouth ⌀" },
    { field: "number", path: "angle", label: "Angle" },
    { field: "pattern" },
    { field: "plane" },
  ],
};
