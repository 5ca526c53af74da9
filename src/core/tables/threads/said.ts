import { showLength, type LengthUnit } from "../../number";
import { threadLimits } from "./limits";
import type { Thread } from "./thread";

/** What is looked up of a thread while it is made, in words: its drill, and the limits of its class. */
export interface ThreadSaid {
  /** `drill No. 7 ⌀.2010`; null for an outside thread, and where no table has one. */
  drill: string | null;
  /** `minor ⌀.1960 to .2070 (2B)`, outside `major ⌀.2408 to .2489 (2A)`; null where no standard sets any. */
  crest: string | null;
  /** `pitch ⌀.2175 to .2224`. */
  pitch: string | null;
}

/** @param side the side it is made on, whatever its class says */
export function threadSaid(t: Thread, side: "inside" | "outside" = t.external ? "outside" : "inside"): ThreadSaid {
  const unit: LengthUnit = t.system === "metric" ? "mm" : "in";
  const places = t.system === "metric" ? 3 : 4;
  const show = (mm: number) => showLength(mm, unit, places);
  const limits = t.pipe ? null : threadLimits(t, side);
  const [name, min, max] =
    side === "inside"
      ? (["minor", limits?.minorMin ?? null, limits?.minorMax ?? null] as const)
      : (["major", limits?.majorMin ?? null, limits?.majorMax ?? null] as const);
  const of = limits?.class ? ` (${limits.class})` : "";
  return {
    drill: side === "inside" && t.size ? `drill ${t.size.drillName} ⌀${show(t.size.tapDrill)}` : null,
    crest: min === null || max === null ? null : `${name} ⌀${show(min)} to ${show(max)}${of}`,
    pitch: limits ? `pitch ⌀${show(limits.pitchMin)} to ${show(limits.pitchMax)}${of}` : null,
  };
}
