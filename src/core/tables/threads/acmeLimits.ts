import { INCH } from "../../number";
import { roundTo } from "../rounding";
import type { ThreadLimits } from "./limits";
import type { Thread } from "./thread";

/** Allowance and tolerance of the pitch diameter by class, inches: shares of √D and √(1/n). */
const classes: Record<string, { allowance: number; diameter: number; pitch: number }> = {
  "2": { allowance: 0.008, diameter: 0.006, pitch: 0.03 },
  "3": { allowance: 0.006, diameter: 0.0028, pitch: 0.014 },
  "4": { allowance: 0.004, diameter: 0.002, pitch: 0.01 },
};

/**
 * Limits of a general purpose Acme thread, mm.
 * @source ASME B1.5, from memory: allowance .008, .006, .004 √D; tolerance .006 √D + .03 √(1/n) and so on by class; crests
 * .05 P, at least .005; clearance .020 on the diameter up to 10 threads to the inch, .010 for finer ones
 */
export function acmeLimits(t: Thread, side: "inside" | "outside"): ThreadLimits | null {
  const grade = /^[234]/.exec(t.class ?? "2")?.[0] ?? "2";
  const { allowance, diameter, pitch } = classes[grade];
  const d = t.major / INCH;
  const p = t.pitch / INCH;
  const mm = (inches: number): number => roundTo(inches, 4) * INCH;
  const tolerance = pitch * Math.sqrt(p) + diameter * Math.sqrt(d);
  const clearance = p > 0.1 - 1e-9 ? 0.02 : 0.01;
  const crest = Math.max(0.005, 0.05 * p);
  const basic = d - p / 2;
  const shared = { class: `${grade}G`, standard: "ASME B1.5" };
  if (side === "inside")
    return {
      ...shared,
      majorMin: mm(d + clearance),
      majorMax: mm(d + 2 * clearance),
      pitchMin: mm(basic),
      pitchMax: mm(basic + tolerance),
      minorMin: mm(d - p),
      minorMax: mm(d - p + crest),
    };
  const pitchMax = basic - allowance * Math.sqrt(d);
  return {
    ...shared,
    majorMin: mm(d - crest),
    majorMax: mm(d),
    pitchMin: mm(pitchMax - tolerance),
    pitchMax: mm(pitchMax),
    minorMin: null,
    minorMax: mm(d - p - clearance),
  };
}
