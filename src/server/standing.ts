import { problems } from "./problems";
import { fail, ok, type Result } from "@/core/base/result";
import { bytesIn, bytesOut, carried, taken } from "./bytes";
import { database, type Database } from "./database";

/** Largest picture of one job, and of all together: the oldest go first. */
export const MOST_STANDING = 8_000_000;
const MOST_OF_ALL = 200_000_000;

/** The engine this program computes with, as it was built (next.config.ts). */
export const engineAtHand = (): string => process.env.ENGINE_VERSION ?? "unbuilt";

/** What is kept of a job at its present revision by the present engine; null where there is none. */
export async function readStanding(id: string, engine: string): Promise<Uint8Array | null> {
  const db = await database();
  const [r] = await db.query<{ bytes: string }>(
    `select ${bytesOut("s.bytes")} from job_standing s join job j on j.id = s.job_id
      where s.job_id = $1 and s.revision = j.revision and s.engine = $2 and j.deleted_at is null`,
    [id, engine],
  );
  return r ? taken(r.bytes) : null;
}

/** Keeps what was computed of a job at a revision; of a revision that is no longer the job's, nothing is kept. */
export async function keepStanding(
  id: string,
  revision: number,
  engine: string,
  bytes: Uint8Array,
  into?: Database,
): Promise<Result<true>> {
  if (bytes.length > MOST_STANDING) return fail(problems.pictureTooLarge(MOST_STANDING / 1e6));
  const db = into ?? (await database());
  const rows = await db.query(
    `insert into job_standing (job_id, revision, engine, bytes, size)
      select id, revision, $3, ${bytesIn("$4")}, $5 from job where id = $1 and revision = $2 and deleted_at is null
      on conflict (job_id) do update
        set revision = excluded.revision, engine = excluded.engine, bytes = excluded.bytes, size = excluded.size, kept_at = now()
      returning job_id`,
    [id, revision, engine, carried(bytes), bytes.length],
  );
  if (!rows.length) return fail(problems.jobMovedOn());
  await db.query(
    `delete from job_standing where job_id in (
       select job_id from (select job_id, sum(size) over (order by kept_at desc, job_id) as total from job_standing) t
        where total > $1)`,
    [MOST_OF_ALL],
  );
  return ok(true);
}
