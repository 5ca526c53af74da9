import { fsyncSync } from "node:fs";
import type { PGlite } from "@electric-sql/pglite";

/**
 * What the embedded database is started with so that what it acknowledges is on the disk. It is built to run without
 * (`-F`), and its files have no way to be synced: both are given back. It then syncs as PostgreSQL does, its log
 * before a commit is acknowledged and its tables before a checkpoint counts, one call a save.
 * @param sync puts a file's bytes on the disk
 * @source PostgreSQL manual, 28.1 Reliability, and `wal_sync_method` (`fdatasync` has no system call in that build)
 */
export async function openSynced(folder: string, sync: (file: number) => void = fsyncSync): Promise<PGlite> {
  const { PGlite } = await import("@electric-sql/pglite");
  const { NodeFS } = await import("@electric-sql/pglite/nodefs");
  class SyncedFiles extends NodeFS {
    override async init(...args: Parameters<InstanceType<typeof NodeFS>["init"]>) {
      const { emscriptenOpts } = await super.init(...args);
      const give = (module: unknown) => {
        (module as Mounted).NODEFS.stream_ops.fsync = ({ nfd }) => {
          if (nfd !== undefined) sync(nfd);
          return 0;
        };
      };
      return { emscriptenOpts: { ...emscriptenOpts, preRun: [...(emscriptenOpts.preRun ?? []), give] } };
    }
  }
  return PGlite.create({
    fs: new SyncedFiles(folder),
    startParams: [...PGlite.defaultStartParams.filter((p) => p !== "-F"), "-c", "wal_sync_method=fsync"],
  });
}
interface Mounted {
  NODEFS: { stream_ops: { fsync?(stream: { nfd?: number }): number } };
}
