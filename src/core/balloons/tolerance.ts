import type { Balloon, Job } from "../job/schema";
import { valueOf, toInside, type NumberScope, type NumberText } from "../number";
import { fail, ok, type Result } from "../base/result";
import { fitDeviations, generalTolerance, type GeneralClassName } from "../tables";

/** Nominal and limits of a dimension; `by` says in words where the limits come from. */
export interface Limits {
  nominal: number;
  low: number;
  high: number;
  by: string;
}

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
  const t = b.tolerance;
  if (b.kind === "thread") return ok({ nominal: 0, low: 0, high: 0, by: "a thread" });
  if (t.kind === "limits") {
    const high = valueOf(t.high, quantity, scope),
      low = valueOf(t.low, quantity, scope);
    if (!high.ok) return high;
    if (!low.ok) return low;
    if (low.value.value > high.value.value)
      return fail("the lower limit is larger than the upper one", { expected: "the larger limit first" });
    return ok({
      nominal: (low.value.value + high.value.value) / 2,
      low: low.value.value,
      high: high.value.value,
      by: "limits",
    });
  }
  const text = b.kind === "count" ? b.count : b.value;
  const v = valueOf(text, quantity, scope);
  if (!v.ok) return v;
  const nominal = v.value.value;
  const around = (half: number, by: string): Result<Limits> =>
    ok({ nominal, low: nominal - half, high: nominal + half, by });
  if (b.kind === "count") return around(0, "a count");
  if (b.basic) return around(0, "basic: theoretically exact");
  switch (t.kind) {
    case "max":
      return ok({ nominal, low: Math.min(0, nominal), high: nominal, by: "a largest size" });
    case "min":
      return ok({ nominal, low: nominal, high: Infinity, by: "a smallest size" });
    case "plusMinus": {
      const half = valueOf(t.value, quantity, scope);
      return half.ok ? around(Math.abs(half.value.value), "±") : half;
    }
    case "sided": {
      const plus = valueOf(t.plus, quantity, scope),
        minus = valueOf(t.minus, quantity, scope);
      if (!plus.ok) return plus;
      if (!minus.ok) return minus;
      const [high, low] = [nominal + plus.value.value, nominal - minus.value.value];
      return low > high
        ? fail("the lower limit is larger than the upper one", { expected: "such as +.003 -.001" })
        : ok({ nominal, low, high, by: "its own" });
    }
    case "fit": {
      const f = fitDeviations(nominal, t.fit);
      return f.ok
        ? ok({ nominal, low: nominal + f.value.lower, high: nominal + f.value.upper, by: `${t.fit}, ISO 286-1` })
        : f;
    }
    case "general":
      return general(b, nominal, t.class, scope);
    case "default":
      return byTitle(b, text!, nominal, job, scope);
  }
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
