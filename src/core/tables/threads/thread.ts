import type { ThreadSize } from "./sizes";

/** How a thread's flanks stand and what its limits come from. */
export type ThreadForm = "metric" | "unified" | "taperPipe" | "parallelPipe" | "trapezoidal" | "acme";

/** A thread as a print calls it, read into numbers. `size` is the table's row where there is one. Lengths mm. */
export interface Thread {
  designation: string;
  form: ThreadForm;
  major: number;
  pitch: number;
  system: "inch" | "metric";
  size: ThreadSize | null;
  /** Its class as it is written, and whether that is one of outside threads; null where it says none. */
  class: string | null;
  external: boolean | null;
  /** A taper pipe thread: sealed on its flanks, and gauged by how far a plug goes in. */
  pipe?: true;
  leftHand?: true;
  /** With a rounded root of its own, and a flat crest inside to make room for it: UNJ, MJ. */
  roundedRoot?: true;
}
