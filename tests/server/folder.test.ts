import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync, renameSync, rmSync, unlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { closeDatabase, database, onFolderLost } from "@/server/database";
import { isDataFolderProblem, lockFolder } from "@/server/folderLock";
import { shelfFolder } from "../helpers/shelfFolder";
import { createJob, listJobs } from "@/server/jobs";

const fresh = () => mkdtempSync(path.join(tmpdir(), "sgorbia-folder-"));
const made: string[] = [];
const folderOf = () => {
  const f = fresh();
  made.push(f);
  return f;
};
const children: ChildProcess[] = [];
afterAll(() => {
  children.forEach((c) => c.kill("SIGKILL"));
  made.forEach((f) => rmSync(f, { recursive: true, force: true }));
});

/** Another process that holds a folder as the server does. */
async function holder(folder: string): Promise<ChildProcess> {
  const script = `import { lockFolder } from './src/server/folderLock.ts'; await lockFolder(${JSON.stringify(folder)}); console.log('held'); setInterval(() => {}, 1000);`;
  const child = spawn(process.execPath, ["--import", "tsx", "--input-type=module", "-e", script], {
    cwd: process.cwd(),
    stdio: ["ignore", "pipe", "inherit"],
  });
  children.push(child);
  await new Promise((resolve) => child.stdout!.once("data", resolve));
  return child;
}

describe("the data folder's lock", () => {
  it("is kept by a process that is only stopped, however long, and names it", async () => {
    const folder = folderOf();
    const child = await holder(folder);
    child.kill("SIGSTOP");
    // No age frees it: the lock file is made a day old.
    const { utimesSync } = await import("node:fs");
    utimesSync(path.join(folder, "lock"), new Date(Date.now() - 86_400_000), new Date(Date.now() - 86_400_000));
    const refused = await lockFolder(folder, 300).then(
      () => null,
      (e: unknown) => e,
    );
    expect(isDataFolderProblem(refused)).toBe(true);
    expect(String(refused)).toContain(`process ${child.pid}`);
    child.kill("SIGCONT");
    child.kill("SIGKILL");
  });

  it("is free at once when its process is killed hard", async () => {
    const folder = folderOf();
    const child = await holder(folder);
    const over = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await over;
    const lock = await lockFolder(folder, 0);
    expect(lock.ours()).toBe(true);
    expect(readFileSync(path.join(folder, "lock"), "utf8")).toMatch(new RegExp(`^${process.pid} `));
    lock.release();
    expect(lock.ours()).toBe(false);
  });

  it("is not mistaken for one whose file was taken away or put there anew", async () => {
    const folder = folderOf();
    const first = await lockFolder(folder, 0);
    unlinkSync(path.join(folder, "lock"));
    expect(first.ours()).toBe(false);
    const second = await lockFolder(folder, 0);
    expect([first.ours(), second.ours()]).toEqual([false, true]);
    first.release();
    expect(second.ours()).toBe(true);
    second.release();
    writeFileSync(path.join(folder, "lock"), "1 since long ago\n");
    // Words in the file hold nothing: only a living process does.
    const third = await lockFolder(folder, 0);
    third.release();
  });
});

describe("a server whose folder is gone", () => {
  it("stops serving before the next statement, and says so", async () => {
    const folder = await shelfFolder("sgorbia-folder-");
    made.push(folder);
    process.env.SGORBIA_DATA = folder;
    process.env.SGORBIA_DEMO = "no";
    const lost: string[] = [];
    onFolderLost((p) => lost.push(p.message));
    await createJob("Kept", "mm", "");
    renameSync(path.join(folder, "lock"), path.join(folder, "lock-aside"));
    const other = await lockFolder(folder, 0);
    const refused = await createJob("Never kept", "mm", "").then(
      () => null,
      (e: unknown) => e,
    );
    expect(isDataFolderProblem(refused)).toBe(true);
    const inside = await (await database().catch(() => null))?.query("select 1").then(
      () => "served",
      () => "refused",
    );
    expect(inside).toBe("refused");
    expect(lost.length).toBeGreaterThan(0);
    await closeDatabase();
    other.release();
    // Opened again by its rightful owner: what was acknowledged is there, and nothing else.
    expect((await listJobs()).map((j) => j.name)).toEqual(["Kept"]);
    await closeDatabase();
  });
});
