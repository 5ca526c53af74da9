import { readdir, readFile } from "node:fs/promises";
import path from "node:path";
import { readJobText } from "@/core/job";
import { keepAttachment } from "./attachments";
import type { Database } from "./database";
import { insert } from "./jobs";

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
    if (job.ok) await insert(job.value, db);
    else console.error(`demo ${name}: ${job.problems.map((p) => `${p.path}: ${p.message}`).join("; ")}`);
  }
}
