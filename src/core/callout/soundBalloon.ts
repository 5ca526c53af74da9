import { problems } from "./problems";
import { fail } from "../base/result";
import type { Balloon } from "../job/schema";
import { evaluateNumber, type NumberScope, type NumberText } from "../number";
import { findThread, inchThreads } from "../tables";
import { numbersOfTolerance, wholeOf } from "../job/toleranceKinds";

/** What is wrong with a dimension as printed, and what was expected. */
interface Unsound {
  message: string;
  expected: string;
}

/** No print has a dimension of this size, in whatever unit: it is a slip of the pen. */
const LARGEST = 100_000;
const FULL_TURN = 360;

/** Numbers alone, no balloons and no names: what can be judged without the rest of the job. */
const alone = /^[\d.\s/()+*e°'"-]*(?:mm|in|thou)?$/i;
const noScope: NumberScope = { unit: "mm", balloon: (n) => fail(problems.balloonNotLookedUp(n)) };

function valueOf(text: NumberText): number | null {
  if (!alone.test(text)) return null;
  const r = evaluateNumber(text, "plain", noScope);
  return r.ok ? r.value.typed : null;
}

/**
 * Whether a balloon can be a dimension of a print at all: more than nothing, of a size that parts have, a thread
 * that there is. Null when it can.
 */
export function unsound(b: Balloon): Unsound | null {
  return badValue(b) ?? badCount(b) ?? badTolerance(b) ?? badThread(b);
}

function badValue(b: Balloon): Unsound | null {
  const angle = b.kind === "angle";
  const what = angle
    ? "an angle"
    : b.kind === "radius"
      ? "a radius"
      : b.kind === "diameter"
        ? "a diameter"
        : b.kind === "depth"
          ? "a depth"
          : "a dimension";
  const t = b.tolerance;
  for (const text of [b.value, ...(wholeOf(t) ?? [])]) {
    const v = text === undefined ? null : valueOf(text);
    if (v === null) continue;
    if (v < 0)
      return {
        message: `${what} of ${text} is less than nothing`,
        expected: "a number without a minus: directions are no part of a dimension",
      };
    // A limit may be zero; a dimension is not.
    if (v === 0 && text === b.value) return { message: `${what} of 0 is nothing`, expected: `${what} over 0` };
    if (v > (angle ? FULL_TURN : LARGEST))
      return {
        message: `${what} of ${text} is larger than any part`,
        expected: angle ? "at most 360°" : `at most ${LARGEST}`,
      };
  }
  const second = b.angle === undefined ? null : valueOf(b.angle);
  return second !== null && !(second > 0 && second < 180)
    ? { message: `an angle of ${b.angle}° makes no chamfer`, expected: "an angle between 0 and 180°" }
    : null;
}

function badCount(b: Balloon): Unsound | null {
  const n = b.count === undefined ? null : valueOf(b.count);
  return n !== null && !(n >= 1 && n <= 5000 && Number.isInteger(n))
    ? { message: `${b.count}X is no count`, expected: "a whole number of 1 or more" }
    : null;
}

function badTolerance(b: Balloon): Unsound | null {
  const t = b.tolerance;
  if (t.kind === "plusMinus") {
    const v = valueOf(t.value);
    if (v !== null && v < 0)
      return { message: `a tolerance of ±${t.value} is less than nothing`, expected: "a tolerance without a minus" };
  }
  const value = b.value === undefined ? null : valueOf(b.value);
  const deviations = wholeOf(t) ? [] : numbersOfTolerance(t);
  const wide = deviations.length ? Math.max(...deviations.map((d) => Math.abs(valueOf(d) ?? 0))) : null;
  if (value !== null && wide !== null && wide > value && b.kind !== "angle")
    return {
      message: `the tolerance of ${wide} is larger than the dimension, ${b.value}`,
      expected: "a tolerance smaller than the dimension",
    };
  return null;
}

/** A series of threads has its pitches: another one under its name is a slip. */
function badThread(b: Balloon): Unsound | null {
  if (b.thread === undefined) return null;
  const t = findThread(b.thread);
  if (!t)
    return {
      message: `${b.thread} is no thread: its pitch does not fit its diameter`,
      expected: "a thread such as 8-32 UNC or M5",
    };
  const series = /\b(UNC|UNF|UNEF)\b/i.exec(b.thread)?.[1].toUpperCase();
  if (!series || t.size) return null;
  const usual = inchThreads.rows.find((r) => r.series === series && Math.abs(r.major - t.major) < 1e-6);
  return {
    message: `there is no ${b.thread}`,
    expected: usual
      ? `${usual.name} ${series}, or UNS for a special pitch`
      : `a size of the ${series} series, or UNS for a special one`,
  };
}
