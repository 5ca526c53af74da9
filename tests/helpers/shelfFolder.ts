import { cpSync, existsSync, mkdtempSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { openSynced } from "@/server/syncedFiles";
import { databaseTemplate as template } from "./databaseTemplate";

async function ready(): Promise<void> {
  if (existsSync(template)) return;
  const own = mkdtempSync(path.join(tmpdir(), "sgorbia-database-"));
  const pg = await openSynced(path.join(own, "pg"), true, () => undefined);
  await pg.close();
  try {
    renameSync(own, template);
  } catch {
    // Another test was quicker.
    rmSync(own, { recursive: true, force: true });
  }
}

/** A new data folder whose database is there, and nothing in it yet. The caller takes it away. */
export async function shelfFolder(prefix: string): Promise<string> {
  await ready();
  const folder = mkdtempSync(path.join(tmpdir(), prefix));
  cpSync(path.join(template, "pg"), path.join(folder, "pg"), { recursive: true });
  return folder;
}
