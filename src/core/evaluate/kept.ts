import { delta } from "../job/delta";
import type { Job } from "../job/schema";

type Field = keyof Job;

/** What of a job the remarks never read: nothing of it makes one come or go. */
export const unreadByFindings: readonly Field[] = ["name", "revision", "checks", "prints", "proofs", "signOff"];
/** What of a job the ledger never reads. */
export const unreadByLedger: readonly Field[] = [
  "name",
  "revision",
  "checks",
  "prints",
  "signOff",
  "waivers",
  "crib",
  "cutters",
  "hold",
  "setups",
  "stock",
  "material",
];

/**
 * Whether two states of a job say the same, but for some fields. What an edit left alone is the same object in both:
 * only what it changed is looked into.
 */
export function isSameBut(before: Job, after: Job, unread: readonly Field[]): boolean {
  const fields = new Set([...Object.keys(before), ...Object.keys(after)] as Field[]);
  for (const f of unread) fields.delete(f);
  return [...fields].every((f) => delta([before[f]], [after[f]]).length === 0);
}
