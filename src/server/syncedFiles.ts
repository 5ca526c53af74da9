import { closeSync, fsyncSync, openSync, readdirSync } from "node:fs";
import path from "node:path";
import type { PGlite } from "@electric-sql/pglite";

/**
 * What the embedded database is started with so that what it acknowledges is on the disk. It is built to run without
 * (`-F`), and its files have no way to be synced: both are given back. It then syncs as PostgreSQL does, its log
 * before a commit is acknowledged and its tables before a checkpoint counts, one call a save.
 * @param begins the database is made: its thousand files are synced once, when all of them are there
 * @param sync puts a file's bytes on the disk
 * @source PostgreSQL manual, 28.1 Reliability, and `wal_sync_method` (`fdatasync` has no system call in that build)
 */
export async function openSynced(
  folder: string,
  begins = false,
  sync: (file: number) => void = fsyncSync,
): Promise<PGlite> {
  let isMade = !begins;
  const { PGlite } = await import("@electric-sql/pglite");
  const { NodeFS } = await import("@electric-sql/pglite/nodefs");
  class SyncedFiles extends NodeFS {
    override async init(...args: Parameters<InstanceType<typeof NodeFS>["init"]>) {
      const { emscriptenOpts } = await super.init(...args);
      const give = (module: unknown) => {
        (module as Mounted).NODEFS.stream_ops.fsync = ({ nfd }) => {
          if (nfd !== undefined && isMade) sync(nfd);
          return 0;
        };
      };
      return { emscriptenOpts: { ...emscriptenOpts, preRun: [...(emscriptenOpts.preRun ?? []), give] } };
    }
  }
  const pg = await PGlite.create({
    fs: new SyncedFiles(folder),
    startParams: [...PGlite.defaultStartParams.filter((p) => p !== "-F"), "-c", "wal_sync_method=fsync"],
  });
  if (begins) syncAll(folder, sync);
  isMade = true;
  return pg;
}

function syncAll(folder: string, sync: (file: number) => void): void {
  for (const e of readdirSync(folder, { withFileTypes: true })) {
    const full = path.join(folder, e.name);
    if (e.isDirectory()) {
      syncAll(full, sync);
      continue;
    }
    const file = openSync(full, "r");
    sync(file);
    closeSync(file);
  }
}
interface Mounted {
  NODEFS: { stream_ops: { fsync?(stream: { nfd?: number }): number } };
}
