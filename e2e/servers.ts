import { cpSync, existsSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { databaseTemplate } from "../tests/helpers/databaseTemplate";

/** Two browsers at once, for two cores: each with a server and a data folder of its own, so that none sees the other's. */
export const WORKERS = 2;

// The config is read again in every worker: all of them are told the folder of the first.
const folder = (process.env.SGORBIA_E2E_DATA ??= freshFolder());
const firstPort = Number(process.env.SGORBIA_E2E_PORT ?? 4371);

/** The server of a worker: where it is, and where its jobs are kept. */
export const serverOf = (worker: number) => ({
  port: firstPort + worker,
  url: `http://127.0.0.1:${firstPort + worker}`,
  data: path.join(folder, String(worker)),
});

/** A data folder whose database is there already, where the server's own tests have made one before. */
export function begunFolder(data: string): string {
  if (existsSync(databaseTemplate))
    cpSync(path.join(databaseTemplate, "pg"), path.join(data, "pg"), { recursive: true });
  return data;
}

function freshFolder(): string {
  const made = mkdtempSync(path.join(tmpdir(), "sgorbia-e2e-"));
  for (let i = 0; i < WORKERS; i++) begunFolder(path.join(made, String(i)));
  return made;
}
