import { randomBytes } from "node:crypto";
import { fail, ok, type Result } from "@/core/base/result";
import { readJob, type KeptLeftover } from "@/core/job";
import { database } from "./database";
import { problems } from "./problems";

/** How many states of one job wait to be decided about; the oldest go first. */
const MOST_LEFT = 20;

/** States of a job that were replaced and not decided about yet, the newest first. */
export async function leftoversOf(jobId: string): Promise<KeptLeftover[]> {
  const db = await database();
  const rows = await db.query<{ id: string; document: unknown; base: number; made_at: Date | string }>(
    "select id, document, base, made_at from job_leftover where job_id = $1 order by made_at desc",
    [jobId],
  );
  return rows.flatMap((r) => {
    const read = readJob(r.document);
    return read.ok ? [{ id: r.id, job: read.value, base: r.base, at: new Date(r.made_at).toISOString() }] : [];
  });
}

/** Keeps a state of a job that is being replaced. */
export async function keepLeftover(jobId: string, document: unknown, base: number): Promise<Result<{ id: string }>> {
  const read = readJob(document);
  if (!read.ok) return read;
  const db = await database();
  const id = randomBytes(9).toString("base64url");
  return db.transaction(async (tx) => {
    const [job] = await tx.query("select 1 from job where id = $1 and deleted_at is null", [jobId]);
    if (!job) return fail(problems.jobGone());
    await tx.query("insert into job_leftover (id, job_id, document, base) values ($1, $2, $3, $4)", [
      id,
      jobId,
      JSON.stringify(read.value),
      base,
    ]);
    await tx.query(
      `delete from job_leftover where id in
         (select id from job_leftover where job_id = $1 order by made_at desc offset ${MOST_LEFT})`,
      [jobId],
    );
    return ok({ id });
  });
}

/** It was decided about. @returns whether it was there */
export async function dropLeftover(jobId: string, id: string): Promise<boolean> {
  const db = await database();
  const rows = await db.query("delete from job_leftover where job_id = $1 and id = $2 returning id", [jobId, id]);
  return rows.length > 0;
}
