import { problems } from "../problems";
import { z } from "zod";
import { marked, number, optional, required, sequence, word, type Clause } from "../../grammar/grammar";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { edgeList, edgesOf, edgesPart, fitting, fittingClause, fittingField, fittingOf } from "../edges";
import type { RowKind } from "../kind";
import { COINCIDENT } from "../../geometry/tolerance";

const schema = z.strictObject({
  kind: z.literal("cutChamfer"),
  size: numberText,
  angle: numberText.optional(),
  second: numberText.optional(),
  edges: edgeList,
  fitting,
});
export type CutChamfer = z.infer<typeof schema>;

const angle = sequence(word("X"), number("angle", "Angle", "includedAngle", { angle: true }));
const angleClause: Clause = {
  ...angle,
  read(r, row, names) {
    const from = r.pos;
    angle.read(r, row, names);
    const written = r.text.slice(from, r.pos);
    // Two legs are written so on prints: `.125 X .156`. No cutter leans so little.
    if (/^\d*\.\d+$/.test(row.angle) && Number(row.angle) < 1 && !/°|DEG/i.test(written))
      r.fail(
        `BY for a second leg (BY ${row.angle}), or ${row.angle}° for an angle`,
        `${row.angle} after X can be a second leg or an angle`,
        from,
      );
  },
  // A small bare number would be questioned when it is read again: it keeps its sign.
  write: (row, names) =>
    row.angle === undefined
      ? ""
      : `${angle.write(row, names)}${/^\d*\.\d+$/.test(row.angle) && Number(row.angle) < 1 ? "°" : ""}`,
  numbers: (row) => (row.angle === undefined ? [] : angle.numbers(row)),
};
const secondLeg = optional("second", marked("BY", "second", "Second leg", "length", { means: "leg" }));

export const cutChamfer: RowKind<CutChamfer> = {
  kind: "cutChamfer",
  verb: "cut",
  label: "chamfer",
  traits: { edges: true },
  schema,
  blank: () => ({}),
  example: { in: "CUT CHAMFER .03 OUTER TOP", mm: "CUT CHAMFER 1 OUTER TOP" },
  callout: {
    head: sequence(word("CHAMFER"), number("size", "Chamfer", "length", { means: "leg" })),
    clauses: [angleClause, secondLeg, required(edgesPart), fittingClause],
  },
  feature: () => ({ is: "edge", treatment: "chamfer" }),
  recipe: (row) =>
    row.angle !== undefined && row.angle >= Math.PI / 2 - COINCIDENT
      ? fail(problems.chamferTooSteep(), { path: "angle" })
      : row.angle !== undefined && row.second !== undefined
        ? fail(problems.chamferSaidTwice(), { path: "second" })
        : // The first leg runs along the face, or along the flat of a rim; the second is across it.
          ok({
            op: "edges",
            treatment: "chamfer",
            size: row.size,
            angle: row.second === undefined ? (row.angle ?? Math.PI / 4) : Math.atan2(row.second, row.size),
            edges: edgesOf(row),
            ...fittingOf(row),
          }),
  closedForm: () => null,
  fields: [
    { field: "number", path: "size", label: "Chamfer" },
    { field: "number", path: "angle", label: "Angle", optional: true },
    { field: "number", path: "second", label: "Second leg", optional: true },
    { field: "edges" },
    fittingField,
  ],
};
