import { toNumberText, type LengthUnit, byFigures } from "../number";
import type { Balloon } from "./schema";
import { wholeOf, type Tolerance } from "./toleranceKinds";

const open = toNumberText("?");

/** Whether a balloon prints a size with limits; a thread and a count have none. */
export const hasLimits = (b: Pick<Balloon, "kind">): boolean => b.kind !== "thread" && b.kind !== "count";

/** Without the fields that are undefined: a document holds none. */
function whole(b: Balloon): Balloon {
  const next = { ...b };
  for (const k of Object.keys(next) as (keyof Balloon)[]) if (next[k] === undefined) delete next[k];
  return next;
}

/** A balloon with another tolerance: two limits stand instead of its number, and give it back. */
export function withTolerance(b: Balloon, tolerance: Tolerance): Balloon {
  const was = b.tolerance;
  const value = wholeOf(tolerance) ? undefined : (wholeOf(was)?.[0] ?? b.value);
  return whole({ ...b, tolerance, value, basic: tolerance.kind === "default" ? b.basic : undefined });
}

/** A balloon of another kind: what the kind has no place for goes, what it needs is there. */
export function withBalloonKind(b: Balloon, kind: Balloon["kind"], unit: LengthUnit): Balloon {
  const sized = hasLimits({ kind });
  return whole({
    ...b,
    kind,
    tolerance: sized ? b.tolerance : { kind: "default" },
    value: sized && !wholeOf(b.tolerance) ? (b.value ?? open) : undefined,
    thread: kind === "thread" ? (b.thread ?? byFigures(unit, { in: "8-32 UNC-2B", mm: "M5" })) : undefined,
    angle: kind === "chamfer" ? (b.angle ?? toNumberText("45")) : undefined,
    count: kind === "count" ? (b.count ?? toNumberText("1")) : b.count,
  });
}

/** What a basic (boxed) dimension changes: it has no tolerance of its own, and its nominal. */
export const asBasic = (b: Balloon): Partial<Balloon> => ({
  basic: true,
  tolerance: { kind: "default" },
  middle: undefined,
  ...(wholeOf(b.tolerance) ? { value: wholeOf(b.tolerance)![0] } : {}),
});
