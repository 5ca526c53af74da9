import { apply, type Patches } from "mutative";
import { jobSchema, readJob, type JobDocument, type StoredJob } from "@/core/job";
import type { Batch, Unsent } from "./unsent";

/** How unsent edits stand to the job as the server has it. */
type Reconciled =
  /** The server has all of them. */
  | { kind: "none" }
  /** They were made from what the server has: the job with them, and what is still to be sent. */
  | { kind: "fits"; job: JobDocument; batch: Batch | null; rest: Patches; restId: string }
  /** The job has moved on: the job as it was here, where it is known. */
  | { kind: "apart"; job: JobDocument | null; count: number };

/**
 * Settles what became of unsent edits. A save whose answer was lost is found among the server's own record of saves.
 */
export function reconcile(stored: StoredJob, unsent: Unsent): Reconciled {
  const doneOf = (id: string | undefined) => stored.saves.find((s) => s.id === id);
  const restDone = doneOf(unsent.restId);
  const batchDone = restDone ?? doneOf(unsent.batch?.id);
  const batch = batchDone ? null : unsent.batch;
  const rest = restDone ? ([] as Patches) : unsent.rest;
  const base = batchDone?.revision ?? unsent.base;
  const pending = [...(batch?.patches ?? []), ...rest] as Patches;
  if (!pending.length) return { kind: "none" };
  const job = base === stored.revision ? patched(stored.job, pending) : null;
  return job
    ? { kind: "fits", job, batch, rest, restId: unsent.restId }
    : { kind: "apart", job: asKept(unsent.job), count: pending.length };
}

/** What another version of this page kept, in today's form; null where it cannot be read. */
function asKept(job: unknown): JobDocument | null {
  const read = readJob(job);
  return read.ok ? read.value : null;
}

/** The job with patches on it, or null when they do not fit or would break it. */
function patched(job: JobDocument, patches: Patches): JobDocument | null {
  try {
    const next = apply(job, patches);
    return jobSchema.safeParse(next).success ? next : null;
  } catch {
    return null;
  }
}
