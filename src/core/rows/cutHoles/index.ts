import { z } from "zod";
import { number, sequence } from "../../grammar/grammar";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { depthClause, depthField, depthFields, depthOf, placesOf, planeOf, profileVolume } from "../common";
import { cboreClause, cskClause, endClause, holeProfile, mouthOf, mouthEditor, mouthFields } from "../holeCommon";
import type { RowKind } from "../kind";
import { countPrefix, pattern, patternClause, planeClause, planeRef, startClause } from "../places";

const schema = z.strictObject({
  kind: z.literal("cutHoles"),
  count: numberText.optional(),
  diameter: numberText,
  ...depthFields,
  ...mouthFields,
  pattern,
  plane: planeRef,
});
export type CutHoles = z.infer<typeof schema>;

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
    clauses: [depthClause, endClause, cboreClause, cskClause, patternClause, startClause, planeClause],
  },
  feature: (row) => ({
    is: "hole",
    diameter: row.diameter,
    depth: row.depth === "thru" ? "thru" : row.deep!,
    mouth: mouthOf(row),
    thread: null,
  }),
  recipe(row) {
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const profile = holeProfile(row.diameter, depth.value, row);
    if (!profile.ok) return profile;
    const places = placesOf(row.pattern, row.count);
    return places.ok
      ? ok({
          op: "cut",
          plane: planeOf(row.plane),
          body: { body: "revolved", profile: profile.value },
          places: places.value,
        })
      : places;
  },
  closedForm(row) {
    const profile = row.deep === undefined ? null : holeProfile(row.diameter, row.deep, row);
    return profile?.ok ? profileVolume(profile.value, 0) : null;
  },
  unsaid: (row) => (row.depth === "deep" && row.end === undefined ? "118° point" : null),
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    { field: "number", path: "diameter", label: "Diameter" },
    depthField,
    { field: "number", path: "deep", label: "Depth" },
    ...mouthEditor,
    { field: "pattern" },
    { field: "plane" },
  ],
};
