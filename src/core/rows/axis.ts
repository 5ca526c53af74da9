import { problems } from "./problems";
import { z } from "zod";
import { fail, ok, type Result } from "../base/result";
import { COINCIDENT } from "../geometry/tolerance";
import { v2, v3, type Vec2 } from "../geometry/vec";
import { marked, type Clause } from "../grammar/grammar";
import { numberText } from "../number";
import type { Along, Field, PlanePlace } from "./kind";
import { rowRef } from "./planeRef";

/** What a turned row goes round, how far and from where. Without an axis it is upright. */
export const axisFields = {
  axis: z
    .discriminatedUnion("by", [
      z.strictObject({ by: z.literal("along"), along: z.enum(["x", "y", "z"]) }),
      z.strictObject({ by: z.literal("row"), row: rowRef }),
    ])
    .optional(),
  sweep: numberText.optional(),
  from: numberText.optional(),
};

/** `AXIS X`, `AXIS OF 2`. */
export const axisClause: Clause = {
  expected: "AXIS",
  starts: (r) => r.sees("AXIS"),
  read(r, row, names) {
    r.want("AXIS");
    if (r.take("OF")) row.axis = { by: "row", row: names.idOf(r.whole("the number of a row")) };
    else {
      const along = r.takeOne(["X", "Y", "Z"] as const);
      if (!along) return r.fail("X, Y, Z or OF and a row");
      row.axis = { by: "along", along: along.toLowerCase() };
    }
  },
  write(row, names) {
    if (row.axis === undefined) return "";
    return row.axis.by === "row" ? `AXIS OF ${names.numberOf(row.axis.row)}` : `AXIS ${row.axis.along.toUpperCase()}`;
  },
  numbers: () => [],
};
export const sweepClause = marked("SWEEP", "sweep", "Sweep", "angle", { angle: true });
export const fromClause = marked("FROM", "from", "From", "angle", { angle: true });

export function sweepOf(row: { sweep?: number }): Result<number> {
  const sweep = row.sweep ?? 2 * Math.PI;
  return sweep > 0 && sweep <= 2 * Math.PI + COINCIDENT ? ok(sweep) : fail(problems.turnedTooFar(), { path: "sweep" });
}

/** Where a turned row stands: its axis as a plane across it, through the place of AT. */
export function turnedAt(
  row: { at?: { x: number; y: number; z?: number }; from?: number },
  raw: { axis?: { by: "along"; along: Along } | { by: "row"; row: string } },
): { plane: PlanePlace; places: Vec2[] } {
  const at = row.at ? v3(row.at.x, row.at.y, row.at.z ?? 0) : v3(0, 0, 0);
  if (!raw.axis && row.from === undefined) return { plane: { on: "origin", z: at.z }, places: [v2(at.x, at.y)] };
  const axis = raw.axis?.by === "row" ? { row: raw.axis.row } : { along: raw.axis?.along ?? ("z" as const), at };
  return { plane: { on: "axis", axis, from: row.from ?? 0, start: 0 }, places: [v2(0, 0)] };
}

export const axisEditor: Field[] = [
  {
    field: "choice",
    path: "axis",
    label: "Axis",
    chosen: (body) => {
      const axis = (body as { axis?: { by: string; along?: string } }).axis;
      return axis ? (axis.along ?? "row") : "";
    },
    options: [
      { value: "", label: "upright", set: { axis: undefined } },
      { value: "x", label: "along X", set: { axis: { by: "along", along: "x" } } },
      { value: "y", label: "along Y", set: { axis: { by: "along", along: "y" } } },
    ],
  },
  { field: "number", path: "sweep", label: "Sweep", optional: true },
  { field: "number", path: "from", label: "From", optional: true },
];
