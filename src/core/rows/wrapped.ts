import { problems } from "./problems";
import { z } from "zod";
import { fail, ok, type Result } from "../base/result";
import { optional, type Clause } from "../grammar/grammar";
import { inCallout, numberText } from "../number";
import type { Outline, Segment } from "../outline";
import type { Field, Recipe } from "./kind";
import type { Pattern } from "./places";
import { rowRef, type PlaneRef } from "./planeRef";

/** Where an outline is laid round the round of a row: the angle of its origin about the axis, and how far along it. */
export const roundField = z.strictObject({ row: rowRef, angle: numberText, along: numberText });

/** `ON ROUND OF n AT angle,z`: the outline is wrapped, its x along the girth, its y along the axis. */
export const roundClause: Clause = optional("round", {
  expected: "ON ROUND OF and a row",
  starts: (r) => r.sees("ON", "ROUND"),
  read(r, row, names) {
    r.take("ON", "ROUND");
    r.want("OF");
    const on = names.idOf(r.whole("the number of a row"));
    r.want("AT");
    const angle = r.angle("round.angle");
    r.skip();
    if (r.text[r.pos] !== ",") r.fail("a comma between the angle and the place along the axis");
    r.pos++;
    row.round = { row: on, angle, along: r.number("round.along", "a place along the axis") };
  },
  write: ({ round }, names) =>
    `ON ROUND OF ${names.numberOf(round.row)} AT ${inCallout(round.angle)},${inCallout(round.along)}`,
  numbers: ({ round }) => [
    { path: "round.angle", label: "Angle about the axis", quantity: "angle", means: "angle", text: round.angle },
    {
      path: "round.along",
      label: "Along the axis",
      quantity: "coordinate",
      means: "coordinate",
      text: round.along,
    },
  ],
});

/** An outline wrapped round a row: so high over its round, or so deep into it. */
export function wrapped(
  op: "leave" | "cut",
  { row, angle, along }: { row: string; angle: number; along: number },
  outlines: Outline[],
  extent: unknown,
): Result<Recipe> {
  if (typeof extent !== "number")
    return fail(problems.wrappedWithoutFigure(), {
      path: op === "cut" ? "depth" : "height",
      expected: op === "cut" ? "DEEP and a depth" : "X and a height",
    });
  return ok({
    op,
    plane: { on: "roundOf", row, angle, along, start: 0 },
    body: { body: "wrapped", row, outlines, height: extent },
    places: [{ x: 0, y: 0 }],
  });
}

/** Chains of a pointed cutter laid round a row. */
export const wrappedVee = (
  { row, angle, along }: { row: string; angle: number; along: number },
  chains: Segment[][],
  { halfAngle, depth }: { halfAngle: number; depth: number },
): Result<Recipe> =>
  ok({
    op: "cut",
    plane: { on: "roundOf", row, angle, along, start: 0 },
    body: { body: "wrappedVee", row, chains, halfAngle, depth },
    places: [{ x: 0, y: 0 }],
  });

/** A row that is wrapped round another says nowhere else where it stands; null where it does not. */
export const cutElsewhere = ({ pattern, plane }: { pattern: Pattern; plane: PlaneRef }): Result<never> | null =>
  pattern.kind !== "single" || plane.on !== "top" || plane.start !== undefined
    ? fail(problems.wrappedCutElsewhere(), { path: "round" })
    : null;

/** What a row laid round another leaves unsaid: it stands on that round alone. */
export const idleRound = ({ round }: { round?: object }): Field["field"][] =>
  round ? ["place", "pattern", "plane", "standing"] : [];

export const roundEditor: Field[] = [
  { field: "number", path: "round.angle", label: "Angle about the axis" },
  { field: "number", path: "round.along", label: "Along the axis" },
];
