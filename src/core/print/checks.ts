import { showArea, showVolume, unitOf, type LengthUnit, type NumberScope } from "../number";
import { checkKindOf, type CheckValue, type PartFigures } from "../job/checkKinds";
import type { Job } from "../job/schema";
import { valueOf } from "../engine/numbers";
import { decimalsOf } from "../balloons/tolerance";
import { fail } from "../base/result";
import { problems } from "./problems";
import { COINCIDENT } from "../geometry/tolerance";

/** A check value of the print against the model: g, mm³, mm², mm or a plain count. */
export interface CheckResult {
  kind: CheckValue["kind"];
  of?: string;
  /** The unit a mass is printed in. */
  unit?: MassUnit;
  /** In mm, mm², mm³, grams or a count. */
  expected: number | null;
  actual: number | null;
  agrees: boolean;
  tolerance: number | null;
  problem?: string;
}

const grams = { g: 1, kg: 1000, lb: 453.59237, oz: 28.349523125 };
type MassUnit = keyof typeof grams;
/** Decimals a mass is shown with. */
const massPlaces: Record<MassUnit, number> = { g: 2, kg: 4, lb: 4, oz: 3 };

/** A printed figure agrees when the model's rounds to it, and never when they are more than this share apart. */
const MOST = 0.005;

/** From a check value as printed to mm, mm², mm³, g. */
function factorOf(c: CheckValue, unit: number): number {
  const powers = { length: 1, area: 2, volume: 3, count: 0 };
  const { measure } = checkKindOf(c);
  return measure === "mass" ? grams["unit" in c ? c.unit : "g"] : unit ** powers[measure];
}

/** One in the last digit a check value is printed with, in mm, mm², mm³ or g. */
export const lastDigitOf = (c: CheckValue, unit: LengthUnit): number =>
  checkKindOf(c).measure === "count" ? 0 : 10 ** -(decimalsOf(c.value) ?? 6) * factorOf(c, unitOf[unit].mm);

/**
 * Compares every check value with the model.
 * Without a tolerance of its own a figure agrees within half of its last printed digit, within half a per cent, and
 * a size within 0.05 mm; a count exactly.
 */
export function compareChecks(job: Job, part: PartFigures | null, scope: NumberScope): CheckResult[] {
  const unit = unitOf[job.unit].mm;
  return job.checks.map((c): CheckResult => {
    const factor = factorOf(c, unit);
    const kind = checkKindOf(c);
    const which = kind.of?.(c, (row) => job.rows.findIndex((r) => r.id === row) + 1 || "?");
    const of = {
      ...(which === undefined ? {} : { of: which }),
      ...("unit" in c ? { unit: c.unit } : {}),
    };
    const isCount = kind.measure === "count";
    const v = counted(valueOf(c.value, "plain", scope), isCount);
    const actual = part && kind.figure(c, part);
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
    const near = Math.min(rounding, MOST * Math.abs(expected), kind.most ?? Infinity);
    const tolerance = isCount ? 0 : own?.ok ? Math.abs(own.value.typed * factor) : near;
    const problem = actual === null && part ? { problem: kind.missing } : {};
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

/** A count is a whole number; that there is none may be expected too. */
function counted(v: ReturnType<typeof valueOf>, isCount: boolean): ReturnType<typeof valueOf> {
  if (!isCount || !v.ok || (Number.isInteger(v.value.typed) && v.value.typed >= 0)) return v;
  return fail(problems.noWholeCount());
}

/** A check value as the print has it: in the job's unit, a mass in the one it is printed in. */
export function checkFigure(c: Pick<CheckResult, "kind" | "unit">, value: number, unit: LengthUnit): string {
  switch (checkKindOf(c).measure) {
    case "mass": {
      const name = c.unit ?? "g";
      return `${(value / grams[name]).toFixed(massPlaces[name])} ${name}`;
    }
    case "volume":
      return showVolume(value, unit);
    case "area":
      return showArea(value, unit);
    case "length":
      return `${(value / unitOf[unit].mm).toFixed(unitOf[unit].places.exact)} ${unit}`;
    case "count":
      return String(value);
  }
}
