import { steps, type Step } from "./benchStore";

/** Where somebody is in a job, as the address says it. */
export interface Place {
  step: Step;
  /** Id of the row that is open. */
  row: string | null;
}

/** Reads a place out of an address; what it does not say, or says wrongly, is the Shape step with no row open. */
export function placeOf(search: string): Place {
  const said = new URLSearchParams(search);
  const step = steps.find((s) => s === said.get("step")) ?? "shape";
  const row = said.get("row");
  return { step, row: row && /^[\w-]{1,40}$/.test(row) ? row : null };
}

/** The address of a place, without the job's own part of it. */
export function searchOf({ step, row }: Place): string {
  const said = new URLSearchParams({ step, ...(row ? { row } : {}) });
  return `?${said}`;
}
