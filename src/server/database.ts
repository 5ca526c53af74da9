import { mkdir, readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import lockfile from 'proper-lockfile';

/** Plain SQL in, rows out. The only thing services know of the database. */
export interface Database {
  query<T>(sql: string, parameters?: unknown[]): Promise<T[]>;
  transaction<T>(work: (db: Database) => Promise<T>): Promise<T>;
}

interface Opened { db: Database; close(): Promise<void> }
const home = globalThis as unknown as { sgorbiaDatabase?: Promise<Opened> };

/** The data folder: SGORBIA_DATA, or ./data. */
export const dataFolder = (): string => path.resolve(/*turbopackIgnore: true*/ process.env.SGORBIA_DATA ?? 'data');

/** The one database of this process. Two processes on one folder would destroy it, so the folder is locked. */
export async function database(): Promise<Database> {
  home.sgorbiaDatabase ??= open().catch((e) => {
    home.sgorbiaDatabase = undefined;
    throw e;
  });
  return (await home.sgorbiaDatabase).db;
}

export async function closeDatabase(): Promise<void> {
  const opened = home.sgorbiaDatabase;
  home.sgorbiaDatabase = undefined;
  await (await opened)?.close();
}

async function open(): Promise<Opened> {
  const folder = dataFolder();
  await mkdir(folder, { recursive: true });
  // A lock left by a killed process goes stale after five seconds; the tries wait longer than that.
  const release = await lockfile.lock(folder, { stale: 5000, update: 1500, retries: { retries: 14, minTimeout: 500, maxTimeout: 700 } }).catch(() => {
    throw new Error(`the data folder ${folder} is in use by another Sgorbia; stop it, or name another folder with SGORBIA_DATA`);
  });
  const { PGlite } = await import('@electric-sql/pglite');
  const pg = await PGlite.create(path.join(folder, 'pg'));
  type Runner = { query<T>(sql: string, p?: unknown[]): Promise<{ rows: T[] }> };
  const wrap = (r: Runner): Database => ({
    query: async <T>(sql: string, p?: unknown[]) => (await r.query<T>(sql, p)).rows,
    transaction: (work) => (r === pg ? (pg.transaction((tx) => work(wrap(tx as unknown as Runner))) as ReturnType<typeof work>) : work(wrap(r))),
  });
  const db = wrap(pg as unknown as Runner);
  await migrate(db, (sql) => pg.exec(sql));
  const { seedDemo } = await import('./demo');
  await seedDemo(db);
  return { db, close: async () => { await pg.close(); await release(); } };
}

/** Runs the numbered migration files that have not run yet, each in one transaction. */
async function migrate(db: Database, exec: (sql: string) => Promise<unknown>): Promise<void> {
  await exec('create table if not exists migration (name text primary key, ran_at timestamptz not null default now())');
  const folder = path.join(process.cwd(), 'src/server/migrations');
  const done = new Set((await db.query<{ name: string }>('select name from migration')).map((r) => r.name));
  for (const name of (await readdir(folder)).filter((f) => f.endsWith('.sql')).sort()) {
    if (done.has(name)) continue;
    await exec(`begin; ${await readFile(path.join(folder, name), 'utf8')}; insert into migration (name) values ('${name}'); commit;`);
  }
}
