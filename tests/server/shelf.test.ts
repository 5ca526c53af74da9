import fs, {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import type { Patches } from "mutative";
import { closeDatabase, copiesFolder, database } from "@/server/database";
import { isDataFolderProblem } from "@/server/folderLock";
import { keepAttachment, openAttachment, readAttachment } from "@/server/attachments";
import { createJob, duplicateJob, listJobs, readStored, saveEdits } from "@/server/jobs";
import { copyIsDue, copyShelf, linesOf, listCopies, putBack } from "@/server/shelfCopies";
import { noSettings } from "@/core/tables";
import { openSynced } from "@/server/syncedFiles";
import { shelfFolder } from "../helpers/shelfFolder";
import { keepShopSettings } from "@/server/shop";

let folder: string;
const made: string[] = [];
/** A folder to begin in: empty, or with a database in it that holds nothing yet. */
const use = async (isEmpty = false) => {
  folder = isEmpty ? mkdtempSync(path.join(tmpdir(), "sgorbia-shelf-")) : await shelfFolder("sgorbia-shelf-");
  made.push(folder);
  process.env.SGORBIA_DATA = folder;
  return folder;
};
beforeEach(async () => {
  process.env.SGORBIA_DEMO = "no";
  delete process.env.SGORBIA_RESTORE;
  await use();
});
afterEach(async () => {
  await closeDatabase().catch(() => undefined);
  delete process.env.SGORBIA_RESTORE;
});
afterAll(() => made.forEach((f) => [f, `${f}-backups`].forEach((d) => rmSync(d, { recursive: true, force: true }))));

const renamed = (value: string): Patches => [{ op: "replace", path: ["name"], value }];
const refusal = () =>
  database().then(
    () => null,
    (e: unknown) => (isDataFolderProblem(e) ? e.message : `not a word for a person: ${String(e)}`),
  );
const named = async () => (await listJobs()).map((j) => j.name).sort();
/** All that a shelf holds, in the words of a copy; the first line says when it was made. */
async function all(): Promise<string[]> {
  const lines: string[] = [];
  for await (const chunk of linesOf(await database())) lines.push(...chunk.split("\n").filter(Boolean));
  return lines.slice(1).sort();
}

describe("a folder that held jobs", () => {
  it.each(["PG_VERSION", path.join("global", "pg_control")])("is never begun again without its %s", async (file) => {
    await createJob("Kept", "mm", "");
    await closeDatabase();
    const full = path.join(folder, "pg", file);
    renameSync(full, `${full}-aside`);
    const said = await refusal();
    expect(said).toContain(folder);
    expect(said).toContain(file);
    expect(said).toContain("Nothing was written");
    expect(said).toContain("--restore");
    renameSync(`${full}-aside`, full);
    expect(await named()).toEqual(["Kept"]);
  });

  it("is not begun again when all its database is gone, nor without its own mark", async () => {
    await createJob("Kept", "mm", "");
    await closeDatabase();
    renameSync(path.join(folder, "pg"), path.join(folder, "pg-aside"));
    expect(await refusal()).toContain("holds jobs");
    renameSync(path.join(folder, "pg-aside"), path.join(folder, "pg"));
    // As a folder of an older version: no mark, and still never begun again.
    rmSync(path.join(folder, "shelf.txt"));
    rmSync(path.join(folder, "pg", "PG_VERSION"));
    expect(await refusal()).toContain("PG_VERSION is missing");
    writeFileSync(path.join(folder, "pg", "PG_VERSION"), "18\n");
    expect(await named()).toEqual(["Kept"]);
  });

  it("says so when files of it are damaged, and what to do", async () => {
    await createJob("Kept", "mm", "");
    await closeDatabase();
    const control = path.join(folder, "pg", "global", "pg_control");
    const whole = readFileSync(control);
    truncateSync(control, 0);
    expect(await refusal()).toContain("0 of 8192 bytes");
    // A control file of noise.
    writeFileSync(control, Buffer.alloc(8192, 7));
    const said = await refusal();
    expect(said).toContain("damaged");
    expect(said).not.toContain("Aborted");
    expect(said).toContain("--restore");
    writeFileSync(control, whole);
    expect(await named()).toEqual(["Kept"]);
  }, 60_000);

  it("begins where a first start was cut short, for nothing was kept there", async () => {
    await use(true);
    writeFileSync(path.join(folder, "begun.txt"), "");
    mkdirSync(path.join(folder, "pg", "base"), { recursive: true });
    expect(await named()).toEqual([]);
    expect(existsSync(path.join(folder, "begun.txt"))).toBe(false);
  });
});

describe("copies of the shelf", () => {
  async function aShelf() {
    const lid = await createJob("Lid", "in", "brass");
    await saveEdits(lid.id, 1, renamed("Lid ⌀ 2"), "save-of-the-lid");
    await duplicateJob(lid.id);
    const bytes = new Uint8Array(700_000).map((_, i) => (i * 7919) % 251);
    bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
    const kept = await keepAttachment(bytes);
    if (!kept.ok) throw new Error(kept.problems[0].message);
    await keepShopSettings({ ...noSettings, limits: { thinWall: { text: "1.25", unit: "mm" } } }, "");
    return { lid, bytes, hash: kept.value.hash };
  }

  it("bring everything back into an empty folder: jobs, log, prints and figures", async () => {
    const { lid, bytes, hash } = await aShelf();
    const before = await all();
    const copy = await copyShelf(await database(), copiesFolder(), "asked");
    const file = path.join(copiesFolder(), copy.name);
    await closeDatabase();
    await use(true);
    process.env.SGORBIA_RESTORE = file;
    expect(await all()).toEqual(before);
    expect(await readAttachment(hash)).toEqual({ mediaType: "image/png", bytes });
    expect((await readStored(lid.id))!.saves).toEqual([{ id: "save-of-the-lid", revision: 2 }]);
    // And it goes on: the log counts on from where it was.
    const saved = await saveEdits(lid.id, 2, renamed("On"), "another-save");
    expect(saved).toMatchObject({ ok: true, value: { saved: true, revision: 3 } });
    // A second time there is something in it.
    await closeDatabase();
    expect(await refusal()).toContain("empty folder only");
  }, 60_000);

  it("are put back in place of what is there, whole or not at all", async () => {
    await aShelf();
    const before = await all();
    const db = await database();
    const copy = await copyShelf(db, copiesFolder(), "asked");
    await createJob("Later", "mm", "");
    const later = await all();
    const file = path.join(copiesFolder(), copy.name);
    const whole = readFileSync(file);
    for (const broken of [whole.subarray(0, whole.length - 200), whole.subarray(0, 5), Buffer.from("no copy")]) {
      writeFileSync(file, broken);
      const back = await putBack(db, file);
      expect(back.ok || back.problems[0].message).toMatch(/no whole copy/);
      expect(await all()).toEqual(later);
    }
    writeFileSync(file, whole);
    expect((await putBack(db, file)).ok).toBe(true);
    expect(await all()).toEqual(before);
    expect((await putBack(db, `${file}-nowhere`)).ok).toBe(false);
  }, 60_000);

  it("do not take a job back to a revision that a window may still save from", async () => {
    const job = await createJob("Lid", "mm", "");
    const db = await database();
    const copy = await copyShelf(db, copiesFolder(), "asked");
    await saveEdits(job.id, 1, renamed("In a window"), "save-in-a-window");
    expect((await putBack(db, path.join(copiesFolder(), copy.name))).ok).toBe(true);
    const back = (await readStored(job.id))!;
    expect([back.job.name, back.revision]).toEqual(["Lid", 3]);
    expect(await saveEdits(job.id, 2, renamed("On"), "save-of-the-window")).toMatchObject({ value: { saved: false } });
  });
  it("are kept ten at a time, the newest, and are due once a day", async () => {
    const db = await database();
    const at = copiesFolder();
    expect(await copyIsDue(at)).toBe(true);
    for (let i = 0; i < 12; i++) await copyShelf(db, at, i === 11 ? "last" : "asked");
    const kept = await listCopies(at);
    expect(kept).toHaveLength(10);
    expect(kept[0].why).toBe("last");
    expect(readdirSync(at).every((f) => f.endsWith(".gz"))).toBe(true);
    expect(await copyIsDue(at)).toBe(false);
    expect(await copyIsDue(at, Date.now() + 25 * 3600 * 1000)).toBe(true);
  });

  it("are made before a migration", async () => {
    await createJob("Kept", "mm", "");
    const db = await database();
    await db.query("delete from migration where name = '005_leftovers.sql'");
    await db.script("drop table job_leftover");
    await closeDatabase();
    expect(await named()).toEqual(["Kept"]);
    expect((await listCopies(copiesFolder())).map((c) => c.why)).toEqual(["before 005"]);
  });
});

describe("what was acknowledged", () => {
  it("was synced to the disk first", async () => {
    await createJob("Kept", "mm", "");
    expect(await (await database()).query("show fsync")).toEqual([{ fsync: "on" }]);
    await closeDatabase();
    let syncs = 0;
    const pg = await openSynced(path.join(folder, "pg"), false, (file) => {
      syncs++;
      fs.fsyncSync(file);
    });
    for (let i = 1; i <= 5; i++) {
      const before = syncs;
      await pg.query("update job set revision = revision + 1");
      expect(syncs).toBeGreaterThan(before);
    }
    const before = syncs;
    await pg.query("select * from job");
    expect(syncs).toBe(before);
    await pg.close();
  });
});

describe("a large print", () => {
  it("holds up no save while it is kept and read, and comes back the same", async () => {
    const job = await createJob("Kept", "mm", "");
    const bytes = new Uint8Array(19_000_000).map((_, i) => (i * 7919) % 253);
    bytes.set([0x25, 0x50, 0x44, 0x46, 0x2d]);
    let going = true;
    let longest = 0;
    const saving = (async () => {
      for (let i = 1; going; i++) {
        const began = performance.now();
        await saveEdits(job.id, i, renamed(`n${i}`), `save-number-${i}`);
        longest = Math.max(longest, performance.now() - began);
        await new Promise((next) => setTimeout(next, 5));
      }
    })();
    const began = performance.now();
    const kept = await keepAttachment(bytes);
    const read = await openAttachment(kept.ok ? kept.value.hash : "");
    const parts: Uint8Array[] = [];
    for await (const part of read!.pieces()) parts.push(part);
    const took = performance.now() - began;
    going = false;
    await saving;
    expect(Buffer.compare(Buffer.concat(parts), Buffer.from(bytes))).toBe(0);
    // By the machine's own measure: no save waits for more than a small share of the whole.
    expect(longest).toBeLessThan(Math.max(took / 4, 250));
  }, 60_000);
});
