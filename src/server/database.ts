import { mkdir, readdir, readFile } from "node:fs/promises";
import path from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { DataFolderProblem, lockFolder, type FolderLock } from "./folderLock";

/** Plain SQL in, rows out. The only thing services know of the database. */
export interface Database {
  query<T>(sql: string, parameters?: unknown[]): Promise<T[]>;
  transaction<T>(work: (db: Database) => Promise<T>): Promise<T>;
}

interface Opened {
  db: Database;
  lock: FolderLock;
  close(): Promise<void>;
}
const home = globalThis as {
  sgorbiaDatabase?: Promise<Opened>;
  sgorbiaFolderLost?: (problem: Error) => void;
};

/** The data folder: SGORBIA_DATA, or ./data. */
const dataFolder = (): string => path.resolve(/*turbopackIgnore: true*/ process.env.SGORBIA_DATA ?? "data");

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

/** What is done when the data folder is no longer this process's; the server ends itself. */
export const onFolderLost = (act: (problem: Error) => void): void => {
  home.sgorbiaFolderLost = act;
};

async function open(): Promise<Opened> {
  const folder = dataFolder();
  await mkdir(folder, { recursive: true });
  const lock = await lockFolder(folder);
  const { PGlite } = await import("@electric-sql/pglite");
  const pg = await PGlite.create(path.join(folder, "pg"));
  const guard = () => {
    if (lock.ours()) return;
    const problem = new DataFolderProblem(
      `the data folder ${folder} was taken from this Sgorbia: it stopped serving, so that nothing is written over; start it again`,
    );
    home.sgorbiaFolderLost?.(problem);
    throw problem;
  };
  const db = guarded(pg, guard);
  await migrate(db, (sql) => pg.exec(sql));
  const { seedDemo } = await import("./demo");
  await seedDemo(db);
  const watch = setInterval(() => {
    if (!lock.ours())
      home.sgorbiaFolderLost?.(new DataFolderProblem(`the data folder ${folder} was taken from this Sgorbia`));
  }, WATCH_EVERY_MS);
  watch.unref();
  return {
    db,
    lock,
    close: async () => {
      clearInterval(watch);
      // A folder that is somebody else's by now is not written to any more, not even to close it.
      if (lock.ours()) await pg.close();
      lock.release();
    },
  };
}
const WATCH_EVERY_MS = 1000;

type Runner = { query<T>(sql: string, p?: unknown[]): Promise<{ rows: T[] }> };

/** The database through a guard that is asked before every statement. */
function guarded(pg: PGlite, guard: () => void): Database {
  const wrap = (runner: Runner, transaction: Database["transaction"] | null): Database => {
    const db: Database = {
      query: async <T>(sql: string, p?: unknown[]) => {
        guard();
        return (await runner.query<T>(sql, p)).rows;
      },
      // Inside a transaction another one is the same one.
      transaction: (work) => (transaction ?? ((w) => w(db)))(work),
    };
    return db;
  };
  const inTransaction: Database["transaction"] = async (work) => {
    guard();
    return (await pg.transaction(async (tx) => {
      const result = await work(wrap(tx as Runner, null));
      // Once more before it is committed.
      guard();
      return result;
    })) as Awaited<ReturnType<typeof work>>;
  };
  return wrap(pg as Runner, inTransaction);
}

/** Runs the numbered migration files that have not run yet, each in one transaction. */
async function migrate(db: Database, exec: (sql: string) => Promise<unknown>): Promise<void> {
  await exec("create table if not exists migration (name text primary key, ran_at timestamptz not null default now())");
  const folder = path.join(process.cwd(), "src/server/migrations");
  const done = new Set((await db.query<{ name: string }>("select name from migration")).map((r) => r.name));
  for (const name of (await readdir(folder)).filter((f) => f.endsWith(".sql")).sort()) {
    if (done.has(name)) continue;
    await exec(
      `begin; ${await readFile(path.join(folder, name), "utf8")}; insert into migration (name) values ('${name}'); commit;`,
    );
  }
}
