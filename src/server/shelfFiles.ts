import { existsSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { DataFolderProblem } from "./folderLock";

/**
 * What a data folder says of itself before the database is opened. The database would begin anew in a folder that lost
 * one small file of it, over everything that is there: so it is not asked before this has been looked at.
 */
const SHELF_MARK = "shelf.txt";
const BEGUN_MARK = "begun.txt";
export const databaseFolder = (folder: string): string => path.join(folder, "pg");

/** Files without which the database's folder is none. */
const NEEDED: { file: string; least: number }[] = [
  { file: "PG_VERSION", least: 1 },
  // The control file is always written whole: 8192 bytes (PostgreSQL, pg_control.h).
  { file: path.join("global", "pg_control"), least: 8192 },
];

const restoreHint = (folder: string): string =>
  `Put its files back from your own copy, or bring back a kept copy of the shelf (they lie in ${backupFolder(folder)}) ` +
  "into an empty folder: SGORBIA_DATA=another-folder npm start -- --restore FILE";

/** Where the dated copies of a shelf are kept: beside its data folder, so that they do not go with it. */
export const backupFolder = (folder: string): string => `${folder.replace(/[\\/]+$/, "")}-backups`;

/**
 * Whether the database is to begin in this folder, or is there.
 * @throws DataFolderProblem where a folder that held jobs lacks what they were in: nothing is begun there again
 */
export function shelfState(folder: string): "empty" | "there" {
  const pg = databaseFolder(folder);
  const isShelf = existsSync(path.join(folder, SHELF_MARK));
  const files = existsSync(pg) ? readdirSync(pg) : [];
  // A first start that was cut short: nobody was ever told that something is kept here.
  if (!isShelf && existsSync(path.join(folder, BEGUN_MARK))) {
    rmSync(pg, { recursive: true, force: true });
    return "empty";
  }
  if (!isShelf && files.length === 0) return "empty";
  const wrong = NEEDED.flatMap(({ file, least }) => faultOf(pg, file, least));
  if (wrong.length === 0) return "there";
  throw new DataFolderProblem(
    `the data folder ${folder} holds jobs, but ${wrong.join(" and ")}. Nothing was written. ${restoreHint(folder)}`,
  );
}

function faultOf(pg: string, file: string, least: number): string[] {
  const full = path.join(pg, file);
  if (!existsSync(full)) return [`its file pg/${file} is missing`];
  const { size } = statSync(full);
  return size < least ? [`its file pg/${file} has ${size} of ${least} bytes`] : [];
}

/** Told before the database begins in an empty folder. */
export const beginShelf = (folder: string): void =>
  writeFileSync(path.join(folder, BEGUN_MARK), "Sgorbia is making its database here for the first time.\n");

/** From now on the folder holds jobs, and is never begun again. */
export function markShelf(folder: string): void {
  const mark = path.join(folder, SHELF_MARK);
  if (!existsSync(mark))
    writeFileSync(mark, `This folder holds Sgorbia's jobs since ${new Date().toISOString()}. Leave this file here.\n`, {
      flush: true,
    });
  rmSync(path.join(folder, BEGUN_MARK), { force: true });
}

/** Size and time of every file of the database, to tell whether any was written. */
export function fingerprint(folder: string): Map<string, string> {
  const marks = new Map<string, string>();
  const walk = (at: string) => {
    for (const e of readdirSync(at, { withFileTypes: true })) {
      const full = path.join(at, e.name);
      if (e.isDirectory()) walk(full);
      else {
        const s = statSync(full);
        marks.set(full, `${s.size} ${s.mtimeMs}`);
      }
    }
  };
  walk(databaseFolder(folder));
  return marks;
}

/** The database could not be opened: which folder, whether its own recovery wrote something, and what can be done. */
export function damaged(folder: string, before: Map<string, string>, cause: unknown): DataFolderProblem {
  const after = fingerprint(folder);
  const touched = [...after].filter(([file, mark]) => before.get(file) !== mark && !/postmaster\.pid$/.test(file));
  const written = touched.length
    ? `The database's own recovery wrote to ${touched.length} of its files before it gave up.`
    : "Nothing was written.";
  const words = cause instanceof Error ? cause.message.split("\n")[0] : "";
  const because = /^Aborted|memory access|unreachable/.test(words) || !words ? "" : ` (${words})`;
  return new DataFolderProblem(
    `the jobs in the data folder ${folder} could not be opened: files in it are damaged${because}. ${written} ${restoreHint(folder)}`,
  );
}
