import { INCH } from "../../number";
import { roundTo } from "../rounding";

/** A Unified thread as its tolerances go by it. Lengths in mm. */
interface Unified {
  major: number;
  pitch: number;
}
export type UnifiedGrade = 1 | 2 | 3;

/** Tolerances are printed to the tenth of a thousandth of an inch. */
const PRINTED = 4;
/** Minor diameters of classes 1B and 2B from No. 6 up are printed to the thousandth. */
const SHORTER = { from: 0.138, decimals: 3 };
const inches = (t: Unified) => ({ d: t.major / INCH, p: t.pitch / INCH });

/**
 * Tolerance of the pitch diameter of class 2A, inches: 0.0015 D^1/3 + 0.0015 LE^1/2 + 0.015 P^2/3, to six decimals.
 * @param engagement length of engagement, inches
 * @source ASME B1.1, from memory
 */
const pitchTolerance2A = (d: number, p: number, engagement: number): number =>
  roundTo(0.0015 * Math.cbrt(d) + 0.0015 * Math.sqrt(engagement) + 0.015 * p ** (2 / 3), 6);

/** Tolerance of the pitch diameter, mm: 1.5, 1 and .75 of 2A outside, 1.95, 1.3 and .975 inside. */
export function unifiedPitchTolerance(t: Unified, engagement: number, grade: UnifiedGrade, inside: boolean): number {
  const { d, p } = inches(t);
  const share = [1.5, 1, 0.75][grade - 1] * (inside ? 1.3 : 1);
  return roundTo(share * pitchTolerance2A(d, p, engagement / INCH), PRINTED) * INCH;
}
/** How far an outside thread of classes 1A and 2A stays under its basic size, mm: 0.3 of 2A's tolerance; none for 3A. */
export function unifiedAllowance(t: Unified, engagement: number, grade: UnifiedGrade): number {
  const { d, p } = inches(t);
  return grade === 3 ? 0 : roundTo(0.3 * pitchTolerance2A(d, p, engagement / INCH), PRINTED) * INCH;
}
/** Tolerance of an outside thread's major diameter, mm: 0.06 P^2/3, half as much again for class 1A. */
export const unifiedMajorTolerance = (t: Unified, grade: UnifiedGrade): number =>
  roundTo((grade === 1 ? 0.09 : 0.06) * inches(t).p ** (2 / 3), PRINTED) * INCH;

/**
 * Tolerance of an inside thread's minor diameter, inches.
 * @source ASME B1.1, from memory: 1B and 2B from 1/4 inch up 0.25 P - 0.4 P² (0.15 P below 4 threads to the inch); under
 * it, and 3B in every size, 0.05 P^2/3 + 0.03 P/D - 0.002, at most 0.394 P and at least 0.25 P - 0.4 P² (3B: 0.23 P -
 * 1.5 P² for 13 threads and more, 0.12 P for fewer)
 */
function minorTolerance(d: number, p: number, grade: UnifiedGrade): number {
  if (grade !== 3 && d > 0.25 - 1e-9) return p > 0.25 + 1e-9 ? 0.15 * p : 0.25 * p - 0.4 * p * p;
  const least = grade !== 3 ? 0.25 * p - 0.4 * p * p : 1 / p > 12.5 ? 0.23 * p - 1.5 * p * p : 0.12 * p;
  return Math.min(0.394 * p, Math.max(least, 0.05 * p ** (2 / 3) + (0.03 * p) / d - 0.002));
}

/**
 * Limits of an inside thread's minor diameter as they are printed, mm. Basic D - 1.08253175 P.
 * From No. 6 up the smallest is printed to the thousandth in every class, the largest in classes 1B and 2B.
 */
export function unifiedMinor(t: Unified, grade: UnifiedGrade): { min: number; max: number } {
  const { d, p } = inches(t);
  const basic = d - 1.08253175 * p;
  const isShort = d > SHORTER.from - 1e-9;
  const max = roundTo(basic + minorTolerance(d, p, grade), PRINTED);
  return {
    min: roundTo(basic, isShort ? SHORTER.decimals : PRINTED) * INCH,
    max: (isShort && grade !== 3 ? roundTo(max, SHORTER.decimals) : max) * INCH,
  };
}
