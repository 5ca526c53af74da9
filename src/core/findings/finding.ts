import type { JobEdit } from "../job/edits";
import type { Vec3 } from "../geometry/vec";

type Severity = "stop" | "caution" | "note";

/** What can be put right with one press, and how the button says it. */
export interface Fix {
  label: string;
  edits: JobEdit[];
}

/** A remark in the margin of a row: what is wrong, the number, the limit, where the limit comes from, and a fix. */
export interface Finding {
  rule: string;
  severity: Severity;
  /** Number of the row it concerns; null for the job as a whole. */
  row: number | null;
  rowId: string | null;
  text: string;
  value: number;
  limit: number;
  source: string;
  /** Where on the part, mm. */
  place: Vec3 | null;
  /** Every place of a remark that is said once and holds at several; `place` is the first of them. */
  places?: Vec3[];
  /** Lines to draw on the part: pairs of points. */
  lines?: [Vec3, Vec3][];
  fix?: Fix;
  /** What to ask the print where the fix would change what it says. */
  question?: string;
  /** What would be changed if the print says so: tried like a fix, and never pressed. */
  asked?: Fix;
  /** Reason it was waived with, if it was. */
  waived?: string;
}
