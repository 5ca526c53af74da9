import { readdir, readFile } from "node:fs/promises";
import path from "node:path";
import { readJobText, type StoredJob } from "@/core/job";
import { keepAttachment } from "./attachments";
import type { Database } from "./database";
import { insert } from "./jobs";
import { engineAtHand, keepStanding } from "./standing";

/**
 * Puts the demo workshop's jobs on an empty shelf, once in the life of a data folder. SGORBIA_DEMO=no leaves it
 * empty.
 */
export async function seedDemo(db: Database): Promise<void> {
  if (process.env.SGORBIA_DEMO === "no") return;
  const [seeded] = await db.query("select 1 from shop_setting where name = 'demo'");
  const [any] = await db.query("select 1 from job limit 1");
  if (seeded || any) return;
  await db.query("insert into shop_setting (name, value) values ('demo', 'true') on conflict (name) do nothing");
  const folder = path.join(process.cwd(), "demo");
  for (const name of (await readdir(folder)).sort()) {
    if (name.endsWith(".png")) await keepAttachment(await readFile(path.join(folder, name)), db);
    if (!name.endsWith(".job.json")) continue;
    const job = readJobText(await readFile(path.join(folder, name), "utf8"));
    if (job.ok) await withPicture(await insert(job.value, db), path.join(folder, name), db);
    else console.error(`demo ${name}: ${job.problems.map((p) => `${p.path}: ${p.message}`).join("; ")}`);
  }
}

/** The picture and figures that are shipped beside a demo job: nothing of it is computed before it is first looked at. */
async function withPicture(stored: StoredJob, file: string, db: Database): Promise<void> {
  const shipped = await readFile(file.replace(/\.job\.json$/, ".standing.gz")).catch(() => null);
  const summary = await readFile(file.replace(/\.job\.json$/, ".summary.json"), "utf8").catch(() => null);
  if (shipped) await keepStanding(stored.id, stored.revision, engineAtHand(), shipped, db);
  if (summary)
    await db.query("insert into job_summary (job_id, revision, summary) values ($1, $2, $3)", [
      stored.id,
      stored.revision,
      summary,
    ]);
}
