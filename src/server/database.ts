import { mkdir } from "node:fs/promises";
import path from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { cannotWrite, DataFolderProblem, isDataFolderProblem, lockFolder, type FolderLock } from "./folderLock";
import { migrate, migrationNames, migrationsDone } from "./migrations";
import { copyIsDue, copyShelf, putBack } from "./shelfCopies";
import { backupFolder, beginShelf, damaged, databaseFolder, fingerprint, markShelf, shelfState } from "./shelfFiles";
import { openSynced } from "./syncedFiles";

/** Plain SQL in, rows out. The only thing services know of the database. */
export interface Database {
  query<T>(sql: string, parameters?: unknown[]): Promise<T[]>;
  transaction<T>(work: (db: Database) => Promise<T>): Promise<T>;
  /** Several statements without parameters, such as a migration. */
  script(sql: string): Promise<void>;
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
  const lock = await ownFolder(folder);
  try {
    return await openIn(folder, lock);
  } catch (e) {
    lock.release();
    throw e;
  }
}

/** The folder made, and held by this process. */
async function ownFolder(folder: string): Promise<FolderLock> {
  try {
    await mkdir(folder, { recursive: true });
    return await lockFolder(folder);
  } catch (e) {
    throw isDataFolderProblem(e) ? e : cannotWrite(folder, e);
  }
}

async function openIn(folder: string, lock: FolderLock): Promise<Opened> {
  const restored = process.env.SGORBIA_RESTORE;
  const state = shelfState(folder);
  if (restored && state !== "empty")
    throw new DataFolderProblem(
      `${folder} holds jobs already: a kept copy is brought back into an empty folder only. ` +
        "Name one with SGORBIA_DATA, or put the copy back from the shelf itself",
    );
  const pg = await openDatabase(folder, state);
  const guard = () => {
    if (lock.ours()) return;
    const problem = new DataFolderProblem(
      `the data folder ${folder} was taken from this Sgorbia: it stopped serving, so that nothing is written over; start it again`,
    );
    home.sgorbiaFolderLost?.(problem);
    throw problem;
  };
  const db = guarded(pg, guard);
  try {
    await fill(db, folder, restored);
  } catch (e) {
    await pg.close().catch(() => undefined);
    throw e;
  }
  markShelf(folder);
  const watch = setInterval(() => {
    if (!lock.ours())
      home.sgorbiaFolderLost?.(new DataFolderProblem(`the data folder ${folder} was taken from this Sgorbia`));
  }, WATCH_EVERY_MS);
  watch.unref();
  const copying = copyDaily(db, folder);
  return {
    db,
    lock,
    close: async () => {
      clearInterval(watch);
      await copying.stop();
      // A folder that is somebody else's by now is not written to any more, not even to close it.
      if (lock.ours()) await pg.close();
      lock.release();
    },
  };
}

/** The database's own files opened; where that cannot be, the folder is named and what can be done. */
async function openDatabase(folder: string, state: "empty" | "there"): Promise<PGlite> {
  if (state === "empty") beginShelf(folder);
  const before = state === "there" ? fingerprint(folder) : null;
  const failed = (e: unknown) => (before ? damaged(folder, before, e) : cannotWrite(folder, e));
  try {
    const pg = await quietly(() => openSynced(databaseFolder(folder), state === "empty"));
    // The tables of all tables: a damaged page of theirs shows here, and not with the first job.
    await pg.query("select count(*) from pg_class c join pg_attribute a on a.attrelid = c.oid");
    return pg;
  } catch (e) {
    throw failed(e);
  }
}

/** What the library prints when it gives up is said in our own words. */
async function quietly<T>(work: () => Promise<T>): Promise<T> {
  const { error } = console;
  console.error = () => undefined;
  try {
    return await work();
  } finally {
    console.error = error;
  }
}

/** A kept copy, or what this version's tables need and the demo. */
async function fill(db: Database, folder: string, restored: string | undefined): Promise<void> {
  if (restored) {
    const back = await putBack(db, path.resolve(restored));
    if (!back.ok) throw new DataFolderProblem(back.problems[0].message);
    return;
  }
  const done = await migrationsDone(db);
  const due = (await migrationNames()).filter((m) => !done.includes(m));
  if (done.length && due.length) await copyShelf(db, backupFolder(folder), `before-${due[0].slice(0, 3)}`);
  await migrate(db);
  const { seedDemo } = await import("./demo");
  await seedDemo(db);
}

/** A copy of the shelf once a day for as long as it is open: looked at now and every hour. */
function copyDaily(db: Database, folder: string): { stop(): Promise<void> } {
  let going: Promise<unknown> = Promise.resolve();
  const look = () => {
    going = going
      .then(async () => {
        if (await copyIsDue(backupFolder(folder))) await copyShelf(db, backupFolder(folder), "daily");
      })
      .catch((e: unknown) => console.error("no copy of the shelf was made:", e));
  };
  const soon = setTimeout(look, FIRST_COPY_MS);
  const hourly = setInterval(look, COPY_EVERY_MS);
  soon.unref();
  hourly.unref();
  return {
    stop: () => {
      clearTimeout(soon);
      clearInterval(hourly);
      return going.then(() => undefined);
    },
  };
}
/** Not while the first page is opening. */
const FIRST_COPY_MS = 60_000;
const COPY_EVERY_MS = 3600 * 1000;

/** Where the copies of the open shelf are kept. */
export const copiesFolder = (): string => backupFolder(dataFolder());
const WATCH_EVERY_MS = 1000;

type Runner = {
  query<T>(sql: string, p?: unknown[]): Promise<{ rows: T[] }>;
  exec(sql: string): Promise<unknown>;
};

/** The database through a guard that is asked before every statement. */
function guarded(pg: PGlite, guard: () => void): Database {
  const wrap = (runner: Runner, transaction: Database["transaction"] | null): Database => {
    const db: Database = {
      query: async <T>(sql: string, p?: unknown[]) => {
        guard();
        return (await runner.query<T>(sql, p)).rows;
      },
      script: async (sql) => {
        guard();
        await runner.exec(sql);
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
