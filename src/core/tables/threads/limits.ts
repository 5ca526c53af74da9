import { INCH } from "../../number";
import { roundTo } from "../rounding";
import { crestToleranceOf, deviationOf, pitchToleranceOf } from "./metricTolerances";
import { parallelPipe, pipeDiameters } from "./parallelPipe";
import type { Thread } from "./thread";
import { acmeLimits } from "./acmeLimits";
import {
  unifiedAllowance,
  unifiedMajorTolerance,
  unifiedMinor,
  unifiedPitchTolerance,
  type UnifiedGrade,
} from "./unifiedTolerances";

/**
 * Limits of a thread's diameters, mm; null where the standard sets none. An inside thread's major diameter has no
 * largest. An outside thread's `minorMax` is that of its root: what a gauge's ridge has to clear.
 */
export interface ThreadLimits {
  class: string;
  standard: string;
  majorMin: number | null;
  majorMax: number | null;
  pitchMin: number;
  pitchMax: number;
  minorMin: number | null;
  minorMax: number | null;
}

/** H of a triangle of 60°, as shares of the pitch: from the major diameter to the pitch diameter, and to the flat root. */
const TO_PITCH = 0.649519;
const TO_MINOR = 1.082532;
/** To the rounded root of an outside metric thread, and of a Unified one with a rounded root. */
const TO_ROOT = 1.226869;
const TO_UNR_ROOT = 1.19078;
/** To the inside minor diameter of threads with a rounded root of their own: 9/8 H, not 5/4. */
export const TO_J_MINOR = 0.974279;

/** Limits of a thread in its class, or the usual one of its standard; null for what has none here. */
export function threadLimits(t: Thread, side: "inside" | "outside"): ThreadLimits | null {
  switch (t.form) {
    case "metric":
      return side === "inside" ? metricInside(t) : metricOutside(t);
    case "unified":
      return side === "inside" ? unifiedInside(t) : unifiedOutside(t);
    case "parallelPipe":
      return pipeLimits(t, side);
    case "acme":
      return acmeLimits(t, side);
    default:
      return null;
  }
}

/** Class of the pitch diameter and of the crest: `6g`, `5g6g`. A small thread's usual class is 5H or 6h. */
function metricClass(t: Thread, side: "inside" | "outside"): { pitch: Zone; crest: Zone; text: string } {
  const isSides = (side === "outside") === t.external;
  const usual = side === "outside" ? (t.major > SMALL ? "6g" : "6h") : t.major > SMALL ? "6H" : "5H";
  const text = t.class !== null && isSides ? t.class : usual;
  const zones = [...text.matchAll(/(\d)([A-Za-z])/g)].map(([, grade, letter]) => ({ grade: Number(grade), letter }));
  return { pitch: zones[0], crest: zones[1] ?? zones[0], text };
}
interface Zone {
  grade: number;
  letter: string;
}
/** Up to this diameter, mm, ISO 965-1 prefers 5H and 6h. */
const SMALL = 1.4;
const positions: Record<string, "e" | "f" | "g" | null> = { E: "e", F: "f", G: "g", H: null };
const deviation = ({ letter }: Zone, pitch: number): number => {
  const position = positions[letter.toUpperCase()];
  return position ? deviationOf(position, pitch) : 0;
};

const metricBasics = ({ major, pitch }: Thread) => ({
  pitch: roundTo(major - TO_PITCH * pitch, 3),
  minor: roundTo(major - TO_MINOR * pitch, 3),
});
const ISO = "ISO 965-1";

function metricInside(t: Thread): ThreadLimits {
  const { pitch: zone, crest, text } = metricClass(t, "inside");
  const basic = metricBasics(t);
  const minor = t.roundedRoot ? roundTo(t.major - TO_J_MINOR * t.pitch, 3) : basic.minor;
  const [up, upCrest] = [deviation(zone, t.pitch), deviation(crest, t.pitch)];
  return {
    class: text,
    standard: t.roundedRoot ? "ISO 5855" : ISO,
    majorMin: roundTo(t.major + up, 3),
    majorMax: null,
    pitchMin: roundTo(basic.pitch + up, 3),
    pitchMax: roundTo(basic.pitch + up + pitchToleranceOf(t.major, t.pitch, zone.grade, true), 3),
    minorMin: roundTo(minor + upCrest, 3),
    minorMax: roundTo(minor + upCrest + crestToleranceOf("minor6", t.pitch, crest.grade), 3),
  };
}

function metricOutside(t: Thread): ThreadLimits {
  const { pitch: zone, crest, text } = metricClass(t, "outside");
  const basic = metricBasics(t);
  const [down, downCrest] = [deviation(zone, t.pitch), deviation(crest, t.pitch)];
  return {
    class: text,
    standard: t.roundedRoot ? "ISO 5855" : ISO,
    majorMin: roundTo(t.major - downCrest - crestToleranceOf("major6", t.pitch, crest.grade), 3),
    majorMax: roundTo(t.major - downCrest, 3),
    pitchMin: roundTo(basic.pitch - down - pitchToleranceOf(t.major, t.pitch, zone.grade, false), 3),
    pitchMax: roundTo(basic.pitch - down, 3),
    minorMin: null,
    minorMax: t.roundedRoot ? null : roundTo(basic.minor - down, 3),
  };
}

/** Whether a thread is of the class its standard takes where none is said: 6H and 6g, 2A and 2B. */
export function isUsualClass(t: Thread): boolean {
  if (t.class === null) return true;
  const side = t.external ? "outside" : "inside";
  return threadLimits({ ...t, class: null }, side)?.class === t.class;
}

/** Diameter of the rounded root of an outside thread at most, mm: ISO 68-1's d3, UNR's of ASME B1.1; null for others. */
export function rootDiameter(t: Thread): number | null {
  const limits = threadLimits(t, "outside");
  if (!limits || limits.majorMax === null || t.roundedRoot) return null;
  if (t.form === "metric") return roundTo(limits.pitchMax - (TO_ROOT - TO_PITCH) * t.pitch, 3);
  return t.form === "unified" ? roundTo((limits.majorMax - TO_UNR_ROOT * t.pitch) / INCH, 4) * INCH : null;
}

/** The length of engagement tolerances are made for: the diameter in graded series and coarse pitches, else nine pitches. */
function engagement(t: Thread): number {
  const threads = Math.round(INCH / t.pitch);
  const series = t.size?.series ?? "UNS";
  const isByDiameter = series === "UNC" || series === "UNF" || (series === "UN" && threads <= 8);
  return isByDiameter || publishedByDiameter.includes(t.size?.name ?? "") ? t.major : 9 * t.pitch;
}
/** 1-14, which was a size of the fine series once: published with the fine series' tolerance. */
const publishedByDiameter = ["1-14"];

function unifiedClass(t: Thread, side: "inside" | "outside"): { grade: UnifiedGrade; text: string } {
  const isSides = t.class !== null && (side === "outside") === t.external;
  const usual = t.roundedRoot ? 3 : 2;
  const grade = (isSides ? Number(t.class![0]) : usual) as UnifiedGrade;
  return { grade, text: `${grade}${side === "outside" ? "A" : "B"}` };
}
const ASME = "ASME B1.1";
const inchRound = (mm: number): number => roundTo(mm / INCH, 4) * INCH;

function unifiedInside(t: Thread): ThreadLimits {
  const { grade, text } = unifiedClass(t, "inside");
  const basic = inchRound(t.major - 0.64951905 * t.pitch);
  const minor = unifiedMinor(t, grade);
  return {
    class: text,
    standard: t.roundedRoot ? "SAE AS8879" : ASME,
    majorMin: inchRound(t.major),
    majorMax: null,
    pitchMin: basic,
    pitchMax: inchRound(basic + unifiedPitchTolerance(t, engagement(t), grade, true)),
    minorMin: t.roundedRoot ? inchRound(t.major - 0.97427858 * t.pitch) : minor.min,
    // How far a rounded root's minor diameter may go is nowhere in our memory.
    minorMax: t.roundedRoot ? null : minor.max,
  };
}

function unifiedOutside(t: Thread): ThreadLimits {
  const { grade, text } = unifiedClass(t, "outside");
  const allowance = unifiedAllowance(t, engagement(t), grade);
  const majorMax = inchRound(t.major) - allowance;
  const pitchMax = inchRound(t.major - 0.64951905 * t.pitch) - allowance;
  return {
    class: text,
    standard: t.roundedRoot ? "SAE AS8879" : ASME,
    majorMax: inchRound(majorMax),
    majorMin: inchRound(majorMax - unifiedMajorTolerance(t, grade)),
    pitchMax: inchRound(pitchMax),
    pitchMin: inchRound(pitchMax - unifiedPitchTolerance(t, engagement(t), grade, false)),
    minorMin: null,
    minorMax: t.roundedRoot ? null : inchRound(inchRound(majorMax) - TO_UNR_ROOT * t.pitch),
  };
}

/** ISO 228-1: an outside thread's class is A or B, with twice the tolerance on the pitch diameter; inside there is one. */
function pipeLimits(t: Thread, side: "inside" | "outside"): ThreadLimits | null {
  const row = parallelPipe.rows.find((r) => Math.abs(r.major - t.major) < 1e-6);
  if (!row || t.size?.series !== "G") return null;
  const basic = pipeDiameters(row);
  if (side === "inside")
    return {
      class: "",
      standard: "ISO 228-1",
      majorMin: row.major,
      majorMax: null,
      pitchMin: basic.pitch,
      pitchMax: roundTo(basic.pitch + row.pitchTolerance, 3),
      minorMin: basic.minor,
      minorMax: roundTo(basic.minor + row.minorTolerance, 3),
    };
  const isB = t.class === "B";
  return {
    class: isB ? "B" : "A",
    standard: "ISO 228-1",
    majorMin: roundTo(row.major - row.majorTolerance, 3),
    majorMax: row.major,
    pitchMin: roundTo(basic.pitch - row.pitchTolerance * (isB ? 2 : 1), 3),
    pitchMax: basic.pitch,
    minorMin: null,
    minorMax: basic.minor,
  };
}

/** Limits are compared as they are printed, mm: half of the last digit of a thousandth. */
const HALF_PRINTED = 0.0005;
/** On which side of its limits a size lies, as they are printed; null between them, and where there are none. */
export function outOfLimits(size: number, min: number | null, max: number | null): "under" | "over" | null {
  if (max !== null && size > max + HALF_PRINTED) return "over";
  return min !== null && size < min - HALF_PRINTED ? "under" : null;
}
