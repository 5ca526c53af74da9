import { closeSync, fstatSync, ftruncateSync, openSync, readFileSync, statSync, writeSync } from "node:fs";
import path from "node:path";
import { tryLock } from "fs-native-extensions";

const DATA_FOLDER = "SGORBIA_DATA_FOLDER";

/** What a page is told while the data folder cannot be served. */
export class DataFolderProblem extends Error {
  readonly code = DATA_FOLDER;
}
/** Whether an error is about the data folder. By its code: the server loads this module once a route. */
export const isDataFolderProblem = (e: unknown): e is DataFolderProblem =>
  e instanceof Error && (e as { code?: unknown }).code === DATA_FOLDER;

/** A folder that cannot be written to, in words: full, read-only, or not this user's. */
export function cannotWrite(folder: string, cause: unknown): DataFolderProblem {
  const { code = "", errno, message = "" } = (cause ?? {}) as { code?: string; errno?: number; message?: string };
  const is = (name: string, number: number) => code === name || errno === number || message.includes(name);
  // Numbers of WASI, as the embedded database has them (wasi_snapshot_preview1, errno).
  if (is("ENOSPC", 51) || /no space left/i.test(message) || code === "53100")
    return new DataFolderProblem(`the disk of the data folder ${folder} is full: some 60 MB are needed to begin`);
  // Making a folder on a read-only disk is answered with ENOENT.
  if (is("EROFS", 69) || is("ENOENT", 44) || is("EACCES", 2) || is("EPERM", 63))
    return new DataFolderProblem(
      `the data folder ${folder} cannot be written to (it is read-only, or another user's); name another one with SGORBIA_DATA`,
    );
  return new DataFolderProblem(
    `the data folder ${folder} could not be used${message ? `: ${message.split("\n")[0]}` : ""}`,
  );
}

/** A data folder held by this process for as long as it lives. */
export interface FolderLock {
  /** Whether the folder is still this process's: its lock file is where it was, and the same one. */
  ours(): boolean;
  release(): void;
}

const WAIT_MS = 3000;
const TRY_EVERY_MS = 150;

/**
 * Takes a data folder for this process. The operating system holds the lock: it ends with the process, however that
 * ends, and not before,
 * so that a server that is merely stopped keeps it. Waits a little for one that is just going.
 * @throws DataFolderProblem when another living process has it
 */
export async function lockFolder(folder: string, wait = WAIT_MS): Promise<FolderLock> {
  const file = path.join(folder, "lock");
  const until = Date.now() + wait;
  for (;;) {
    const descriptor = openSync(file, "a+");
    if (tryLock(descriptor) && sameFile(descriptor, file)) return held(descriptor, file);
    closeSync(descriptor);
    if (Date.now() >= until)
      throw new DataFolderProblem(
        `the data folder ${folder} is in use by another Sgorbia${holder(file)}; stop it, or name another folder with SGORBIA_DATA`,
      );
    await new Promise((resolve) => setTimeout(resolve, TRY_EVERY_MS));
  }
}

function held(descriptor: number, file: string): FolderLock {
  ftruncateSync(descriptor, 0);
  writeSync(descriptor, `${process.pid} since ${new Date().toISOString()}\n`);
  let open = true;
  return {
    ours: () => open && sameFile(descriptor, file),
    release: () => {
      if (open) closeSync(descriptor);
      open = false;
    },
  };
}

function sameFile(descriptor: number, file: string): boolean {
  try {
    const mine = fstatSync(descriptor);
    const there = statSync(file);
    return mine.ino === there.ino && mine.dev === there.dev;
  } catch {
    return false;
  }
}

function holder(file: string): string {
  try {
    const pid = /^\d+/.exec(readFileSync(file, "utf8"))?.[0];
    return pid ? ` (process ${pid})` : "";
  } catch {
    return "";
  }
}
