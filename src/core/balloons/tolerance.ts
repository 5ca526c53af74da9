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

/** Up to this a radius is taken for one that breaks an edge, mm: as far as table 2 tells sizes apart. */
const EDGE_RADIUS = 6;

/**
 * Limits by ISO 2768-1, and which of its tables: lengths, diameters and large radii by table 1, chamfers and the radii
 * of edges by table 2, angles by table 3 and their shorter leg.
 */
function general(b: Balloon, nominal: number, cls: GeneralClassName, scope: NumberScope): Result<Limits> {
  if (b.kind === "angle") return generalAngle(b, nominal, cls, scope);
  const isEdge = b.kind === "radius" && nominal <= EDGE_RADIUS;
  const isBroken = b.kind === "chamfer" || isEdge;
  const half = generalTolerance(isBroken ? "broken" : "linear", nominal, cls);
  if (!half.ok) return half;
  const isRadius = b.kind === "radius";
  const why = isRadius
    ? isEdge
      ? ", as that of an edge, up to 6 mm"
      : ", as a dimension: over 6 mm it breaks no edge"
    : "";
  return ok({
    nominal,
    low: nominal - half.value,
    high: nominal + half.value,
    by: `ISO 2768-${cls} table ${isBroken ? 2 : 1}${why}`,
  });
}

/** Whether an angle is held to ISO 2768-1 and does not say how long its shorter leg is, by which that goes. */
export function asksLeg(b: Balloon, title: Job["title"]): boolean {
  if (b.kind !== "angle" || b.leg !== undefined) return false;
  const isDefault = b.tolerance.kind === "default" && title.angleTolerance === undefined && !b.basic && !b.reference;
  return b.tolerance.kind === "general" || (isDefault && title.general !== undefined);
}

function generalAngle(b: Balloon, nominal: number, cls: GeneralClassName, scope: NumberScope): Result<Limits> {
  const leg = b.leg === undefined ? null : valueOf(b.leg, "length", scope);
  const half = generalTolerance("angular", leg?.ok ? leg.value.value : null, cls);
  if (!half.ok) return half;
  const h = (half.value * Math.PI) / 180;
  const unsaid = ": its leg is not said, so the row of the longest ones is taken; say LEG and the shorter leg's length";
  return ok({
    nominal,
    low: nominal - h,
    high: nominal + h,
    by: `ISO 2768-${cls} table 3${leg?.ok ? "" : unsaid}`,
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
