import type { Job } from "../job/schema";

/** An id no row of the job has yet. */
export function freshRowId(job: Pick<Job, "rows">): string {
  for (let i = job.rows.length + 1; ; i++) if (!job.rows.some((r) => r.id === `try${i}`)) return `try${i}`;
}
