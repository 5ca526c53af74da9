import type { Balloon, Job } from "../job/schema";
import { valueOf, toInside, type NumberScope, type NumberText } from "../number";
import { ok, type Result } from "../base/result";
import { toleranceKindOf, wholeOf, type Limits } from "../job/toleranceKinds";
import { generalTolerance, type GeneralClassName } from "../tables";

/** Number of decimals a number is printed with; null for a fraction or an expression. */
export const decimalsOf = (text: string): number | null => {
  const m = /^-?\d*(?:\.(\d*))?!?$/.exec(text.trim());
  return m ? (m[1]?.length ?? 0) : null;
};

/** The text whose value a balloon stands for, and what it means. */
export const balloonQuantity = (b: Pick<Balloon, "kind">) =>
  (b.kind === "angle" ? "angle" : b.kind === "count" ? "count" : "coordinate") as "angle" | "count" | "coordinate";

/**
 * Nominal and limits of a balloon, mm, radians or plain.
 * A tolerance beside the dimension comes first; without one the title block decides: its general class, or as many
 * decimals;
 * without either, half of the last printed digit.
 */
export function balloonLimits(b: Balloon, job: Pick<Job, "unit" | "title">, scope: NumberScope): Result<Limits> {
  const quantity = balloonQuantity(b);
  if (b.kind === "thread") return ok({ nominal: 0, low: 0, high: 0, by: "a thread" });
  const text = b.kind === "count" ? b.count : b.value;
  const value = (t: NumberText | undefined): Result<number> => {
    const v = valueOf(t, quantity, scope);
    return v.ok ? ok(v.value.value) : v;
  };
  const exactly = (nominal: Result<number>, by: string): Result<Limits> =>
    nominal.ok ? ok({ nominal: nominal.value, low: nominal.value, high: nominal.value, by }) : nominal;
  if (b.kind === "count") return exactly(value(text), "a count");
  if (b.basic && !wholeOf(b.tolerance)) return exactly(value(text), "basic: theoretically exact");
  return toleranceKindOf(b.tolerance).limits(b.tolerance, {
    nominal: () => value(text),
    value,
    general: (nominal, name) => general(b, nominal, name, scope),
    byTitle: (nominal) => byTitle(b, text!, nominal, job, scope),
  });
}

function byTitle(
  b: Balloon,
  text: NumberText,
  nominal: number,
  job: Pick<Job, "unit" | "title">,
  scope: NumberScope,
): Result<Limits> {
  const { title, unit } = job;
  const decimals = decimalsOf(text);
  const quantity = balloonQuantity(b);
  const around = (half: number, by: string): Result<Limits> =>
    ok({ nominal, low: nominal - half, high: nominal + half, by });
  const stated =
    b.kind === "angle"
      ? title.angleTolerance
      : decimals === null
        ? title.fractionTolerance
        : (title.tolerances?.[decimals] ?? undefined);
  if (stated !== undefined) {
    const half = valueOf(stated, quantity, scope);
    if (half.ok)
      return around(
        Math.abs(half.value.value),
        b.kind === "angle"
          ? "title block, angles"
          : decimals === null
            ? "title block, fractions"
            : `title block, ${decimals} decimals`,
      );
  }
  if (title.general) {
    const g = general(b, nominal, title.general, scope);
    if (g.ok) return g;
  }
  return around(
    toInside(0.5 * 10 ** -(decimals ?? 3), quantity, unit),
    "half of the last digit: the print gives no tolerance",
  );
}

function general(b: Balloon, nominal: number, cls: GeneralClassName, scope: NumberScope): Result<Limits> {
  const angular = b.kind === "angle";
  // Without the length of its shorter leg an angle gets the row of the shortest ones.
  const leg = b.leg === undefined ? null : valueOf(b.leg, "length", scope);
  const half = generalTolerance(
    angular ? "angular" : b.kind === "radius" || b.kind === "chamfer" ? "broken" : "linear",
    angular ? (leg?.ok ? leg.value.value : 1) : nominal,
    cls,
  );
  if (!half.ok) return half;
  const h = angular ? (half.value * Math.PI) / 180 : half.value;
  return ok({
    nominal,
    low: nominal - h,
    high: nominal + h,
    by: `ISO 2768-${cls}${angular && !leg?.ok ? ", leg up to 10 mm" : ""}`,
  });
}

/**
 * What a balloon drives with, mm, radians or plain: its nominal, or the middle of its limits where that is asked for
 * (`MID`) or no nominal is printed.
 */
export function drivingValue(b: Balloon, job: Pick<Job, "unit" | "title">, scope: NumberScope): Result<number> {
  const l = balloonLimits(b, job, scope);
  return l.ok ? ok(b.middle && Number.isFinite(l.value.high) ? (l.value.low + l.value.high) / 2 : l.value.nominal) : l;
}
