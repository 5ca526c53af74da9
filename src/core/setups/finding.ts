import type { Finding, Fix } from "../findings";
import { lengthText, showLength, type LengthUnit, type NumberText } from "../number";
import type { JobDocument, Setup } from "../job/schema";
import type { FixturePractice, Limits } from "../tables";

/** A remark on a setup: on the piece in it, or on the part that holds it. */
export interface SetupFinding extends Finding {
  setup: number | null;
  /** The part that holds, where the remark is on that. */
  part?: string;
}
export type Found = Omit<SetupFinding, "rule" | "setup" | "rowId" | "row" | "fix"> &
  Partial<Pick<SetupFinding, "row" | "rowId">> & { fix?: Fix | null };

/** What every check of a setup is given besides. */
export interface CheckContext {
  unit: LengthUnit;
  limits: Limits;
  practice: FixturePractice;
  /** The job and its setups, for fixes that change one. */
  document: JobDocument;
  setups: Setup[];
}

export const say = (c: CheckContext, mm: number): string => showLength(mm, c.unit);
export const typed = (c: CheckContext, mm: number): NumberText => lengthText(mm, c.unit);

/** All setups with one of them changed. */
export const changed = (c: CheckContext, op: number, change: Partial<Setup>) => ({
  edit: "setSetups" as const,
  setups: c.setups.map((s) => (s.op === op ? { ...s, ...change } : s)),
});
