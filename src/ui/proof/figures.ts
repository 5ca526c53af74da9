import { checkKindOf, type Balloon, type Job } from "@/core/job";
import { checkFigure as figureOf, type CheckResult } from "@/core/print/checks";
import type { LedgerEntry } from "@/core/print/ledger";
import { decimalsForTolerance, decimalText, dmsText, unitOf } from "@/core/number";

export const checkName = (c: Pick<CheckResult, "kind" | "of">): string => checkKindOf(c).name(c.of);

/** A check value as the print has it. */
export const checkFigure = (c: Pick<CheckResult, "kind" | "unit">, value: number | null, job: Job): string =>
  value === null ? "—" : figureOf(c, value, job.unit);

/** Decimals a balloon's figures deserve: by its limits, one more for what was measured. */
const decimals = (l: LedgerEntry, job: Job): number =>
  l.low === null || l.high === null || !Number.isFinite(l.high) || l.high - l.low < 1e-9
    ? unitOf[job.unit].places.exact
    : decimalsForTolerance((l.high - l.low) / 2, job.unit);

export function measuredFigure(b: Balloon, l: LedgerEntry, job: Job): string {
  if (l.measured === null) return l.problem ?? "—";
  if (b.kind === "count" || b.kind === "thread") return `${l.measured}X`;
  if (b.kind === "angle") return dmsText((l.measured * 180) / Math.PI);
  return decimalText(l.measured, {
    unit: job.unit,
    decimals: decimals(l, job) + 1,
    leadingZero: unitOf[job.unit].leadingZero || job.title.leadingZero === true,
  });
}

/** The limits a balloon is held to, in words. */
export function limitsText(b: Balloon, l: LedgerEntry, job: Job): string {
  if (l.low === null || l.high === null || b.kind === "count" || b.kind === "thread") return "";
  const leadingZero = unitOf[job.unit].leadingZero || job.title.leadingZero === true;
  const say = (v: number) =>
    b.kind === "angle"
      ? dmsText((v * 180) / Math.PI)
      : decimalText(v, { unit: job.unit, decimals: unitOf[job.unit].places.fine, leadingZero }).replace(/\.?0+$/, "");
  if (!Number.isFinite(l.high)) return `from ${say(l.low)} (${l.tolerance})`;
  return l.high - l.low < 1e-9
    ? `exactly ${say(l.low)} (${l.tolerance})`
    : `${say(l.low)} to ${say(l.high)} (${l.tolerance})`;
}
