import { z } from "zod";
import { number, sequence, type Clause } from "../../grammar/grammar";
import { numberText } from "../../number";
import { cutAt } from "../common";
import { depthClause, depthEditor, depthFields, depthOf, plainDepth } from "../extent";
import {
  cboreClause,
  cskClause,
  endClause,
  holeBody,
  holeVolume,
  mouthEditor,
  mouthFields,
  mouthOf,
  spotfaceClause,
} from "../holeCommon";
import type { RowKind } from "../kind";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("cutHoles"),
  count: numberText.optional(),
  diameter: numberText,
  ...depthFields,
  /** Reamed to a fit: `⌀10 H7 REAM`. */
  fit: z
    .string()
    .regex(/^(?:[A-Z]{1,2})(?:1[0-8]|[1-9])$/)
    .optional(),
  ream: z.literal(true).optional(),
  ...mouthFields,
  pattern,
  plane: planeRef,
});
export type CutHoles = z.infer<typeof schema>;

/** `H7 REAM`, or `REAM` alone. */
const reamClause: Clause = {
  expected: "REAM",
  starts: (r) => r.sees("REAM") || /^[A-Z]{1,2}\d{1,2}\s+REAM\b/i.test(r.text.slice((r.skip(), r.pos))),
  read(r, row) {
    const fit = /^([A-Z]{1,2}\d{1,2})\s+(?=REAM)/i.exec(r.text.slice((r.skip(), r.pos)));
    if (fit) {
      if (!/^[A-Z]{1,2}(?:1[0-8]|[1-9])$/i.test(fit[1])) r.fail("a fit such as H7");
      row.fit = fit[1].toUpperCase();
      r.pos += fit[0].length;
    }
    r.want("REAM");
    row.ream = true;
  },
  write: (row) => (row.ream ? `${row.fit ? `${row.fit} ` : ""}REAM` : ""),
  numbers: () => [],
};

export const cutHoles: RowKind<CutHoles> = {
  kind: "cutHoles",
  verb: "cut",
  label: "holes",
  traits: { counted: true, ends: true },
  starts: (r) => r.sees("⌀") || r.seesNumber(),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT 4X ⌀.266 THRU GRID 2 2 BY 3 1.5", mm: "CUT 4X ⌀6.6 THRU GRID 2 2 BY 80 40" },
  callout: {
    head: sequence(countPrefix, number("diameter", "Diameter", "length", { sign: "⌀" })),
    clauses: [
      reamClause,
      depthClause,
      endClause,
      cboreClause,
      cskClause,
      spotfaceClause,
      patternClause,
      startClause,
      planeClause,
    ],
  },
  feature: (row) => ({
    is: "hole",
    diameter: row.diameter,
    depth: plainDepth(row) ?? "thru",
    mouth: mouthOf(row),
    thread: null,
  }),
  recipe(row, _raw, outlines) {
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const body = holeBody(row.diameter, depth.value, row);
    return body.ok ? cutAt(row, body.value, outlines) : body;
  },
  closedForm: (row) => holeVolume(row.diameter, plainDepth(row), row),
  unsaid: (row) => (row.depth === "deep" && row.end === undefined ? "118° point" : null),
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    { field: "number", path: "diameter", label: "Diameter" },
    ...depthEditor,
    ...mouthEditor,
    { field: "pattern" },
    { field: "plane" },
  ],
};
