import type { Thread } from "../tables";

/**
 * What a row is to those who judge, plan, prove or draw it: one of these few, with what they need of it, as plain
 * data. Nobody asks a row for the name of its kind. Lengths mm.
 */
export type Feature =
  /** Material left: whether it is round about its own axis, and whether an outline of any shape made it. */
  | { is: "body"; round: boolean; free: boolean }
  /** Turned about an axis, left or cut. */
  | { is: "turned" }
  /** A round hole as it is drilled, what widens its mouth, and its thread where it is tapped. */
  | {
      is: "hole";
      diameter: number;
      depth: number | "thru";
      mouth: ("counterbore" | "countersink")[];
      thread: (Thread & { full: number | "thru" }) | null;
    }
  /** A pocket: typed by its shape, its diameter where that is round, or of an outline (`free`). */
  | { is: "pocket"; free: boolean; round: number | null }
  | { is: "face" }
  | { is: "step" }
  | { is: "groove" }
  | { is: "edge"; treatment: "chamfer" | "round" }
  | { is: "engraving" }
  /** A conical socket: its diameters and its depth. */
  | { is: "taper"; large: number; small: number; deep: number }
  /** A bore along a path, which a straight tool cannot follow where it bends. */
  | { is: "bend" }
  /** The whole part hollowed. */
  | { is: "shell" }
  /** Said of a shaft, whose solid stays as the blank: an outside thread, a knurl. */
  | { is: "thread"; thread: Thread; length: number; shaft: string }
  | { is: "knurl"; form: "straight" | "diamond"; pitch: number; length: number; shaft: string }
  /** Other rows once more. */
  | { is: "copies" };

export type FeatureIs = Feature["is"];

/** What is known of a kind of row before any of its numbers is. */
export interface Traits {
  /** Its outside is round about an axis: threads and knurls can stand on it. */
  shaft?: true;
  /** A pocket or slot, whatever its outline: what a print calls the pocket. */
  pocket?: true;
  /** Its thread is an outside one, whatever that says of itself. */
  outsideThread?: true;
  /** Its copies may be counted (`4X`). */
  counted?: true;
  /** It leaves a flat floor whose area a print may give. */
  floor?: true;
  /** A ring cut into what is there: it joins what it parts. */
  groove?: true;
  /** A bore along a path: one hole, however many straight stretches it has. */
  bent?: true;
  /** A conical socket: one hole. */
  conical?: true;
  /** It begins below its plane, always. */
  startNeeded?: true;
  /** Its bottom may be left to the drill's point or be flat. */
  ends?: true;
  /** It rounds, chamfers or breaks edges. */
  edges?: true;
  /** It stands on one side of the part and may have a twin on the other. */
  sided?: true;
}
