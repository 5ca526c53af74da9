import { readdir, readFile } from "node:fs/promises";
import path from "node:path";
import type { Database } from "./database";

const folder = (): string => path.join(process.cwd(), "src/server/migrations");

/** Names of all numbered migration files, in order. */
export const migrationNames = async (): Promise<string[]> =>
  (await readdir(folder())).filter((f) => f.endsWith(".sql")).sort();

/** Those that a database has had; none where it is new. */
export async function migrationsDone(db: Database): Promise<string[]> {
  const [there] = await db.query<{ is: boolean }>("select to_regclass('migration') is not null as is");
  if (!there.is) return [];
  return (await db.query<{ name: string }>("select name from migration order by name")).map((r) => r.name);
}

/**
 * Runs numbered migration files that have not run yet, each in one transaction.
 * @param only those of these names; without it all
 */
export async function migrate(db: Database, only?: readonly string[]): Promise<void> {
  await db.script(
    "create table if not exists migration (name text primary key, ran_at timestamptz not null default now())",
  );
  const done = new Set(await migrationsDone(db));
  for (const name of await migrationNames()) {
    if (done.has(name) || (only && !only.includes(name))) continue;
    const sql = await readFile(path.join(folder(), name), "utf8");
    await db.transaction(async (tx) => {
      await tx.script(sql);
      await tx.query("insert into migration (name) values ($1)", [name]);
    });
  }
}
