import { type NumberScope, unitOf } from "../number";
import type { CheckValue, Job } from "../job/schema";
import { valueOf } from "../engine/numbers";
import { decimalsOf } from "../balloons/tolerance";
import { COINCIDENT } from "../geometry/tolerance";

/** A check value of the print against the model: g, mm³, mm², mm or a plain count. */
export interface CheckResult {
  kind: CheckValue["kind"];
  of?: string;
  expected: number | null;
  actual: number | null;
  agrees: boolean;
  tolerance: number | null;
  problem?: string;
}

/** What the finished part weighs, holds and measures; the figures check values are compared with. */
export interface PartFigures {
  volume: number;
  mass: number | null;
  surfaceArea: number;
  size: { x: number; y: number; z: number };
  faceArea: Record<string, number>;
  edges: number;
  holes: number;
  floorArea(row: string): number;
}

const grams = { g: 1, kg: 1000, lb: 453.59237, oz: 28.349523125 };

/** A printed figure agrees when the model's rounds to it, and never when they are more than this share apart. */
const MOST = 0.005;

/** What the model has for a check value; null where it cannot be known. */
function actualOf(c: CheckValue, part: PartFigures): number | null {
  switch (c.kind) {
    case "mass":
      return part.mass;
    case "volume":
      return part.volume;
    case "area":
      return c.of === "all" ? part.surfaceArea : part.faceArea[c.of];
    case "floorArea":
      return part.floorArea(c.row) || null;
    case "size":
      return part.size[c.of];
    case "edges":
      return part.edges;
    case "holes":
      return part.holes;
  }
}

/** From a check value as printed to mm, mm², mm³, g. */
function factorOf(c: CheckValue, unit: number): number {
  switch (c.kind) {
    case "mass":
      return grams[c.unit];
    case "volume":
      return unit ** 3;
    case "area":
    case "floorArea":
      return unit ** 2;
    case "size":
      return unit;
    case "edges":
    case "holes":
      return 1;
  }
}

/**
 * Compares every check value with the model.
 * Without a tolerance of its own a figure agrees within half of its last printed digit, within half a per cent, and
 * a size within 0.05 mm; a count exactly.
 */
export function compareChecks(job: Job, part: PartFigures | null, scope: NumberScope): CheckResult[] {
  const unit = unitOf[job.unit].mm;
  return job.checks.map((c): CheckResult => {
    const factor = factorOf(c, unit);
    const of =
      "of" in c
        ? { of: c.of }
        : c.kind === "floorArea"
          ? { of: `floor of ${job.rows.findIndex((r) => r.id === c.row) + 1 || "?"}` }
          : {};
    const v = valueOf(c.value, c.kind === "edges" || c.kind === "holes" ? "count" : "plain", scope);
    const actual = part && actualOf(c, part);
    if (!v.ok)
      return {
        kind: c.kind,
        ...of,
        expected: null,
        actual,
        agrees: false,
        tolerance: null,
        problem: v.problems[0].message,
      };
    const expected = v.value.typed * factor;
    const own = "tolerance" in c && c.tolerance !== undefined ? valueOf(c.tolerance, "plain", scope) : null;
    const digits = decimalsOf(c.value);
    const rounding = digits === null ? Infinity : 0.5 * 10 ** -digits * factor;
    const tolerance =
      c.kind === "edges" || c.kind === "holes"
        ? 0
        : own?.ok
          ? Math.abs(own.value.typed * factor)
          : Math.min(rounding, MOST * Math.abs(expected), c.kind === "size" ? 0.05 : Infinity);
    const problem =
      actual === null && part
        ? { problem: c.kind === "mass" ? "the density of the material is not known" : "that row leaves no floor" }
        : {};
    return {
      kind: c.kind,
      ...of,
      expected,
      actual,
      tolerance,
      agrees: actual !== null && Math.abs(actual - expected) <= tolerance + COINCIDENT * Math.abs(expected),
      ...problem,
    };
  });
}
