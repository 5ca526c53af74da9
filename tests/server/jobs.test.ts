import { readFileSync, rmSync } from "node:fs";
import type { Patches } from "mutative";
import { toNumberText } from "@/core/number";
import { applyEdits } from "@/core/job";
import { closeDatabase, database } from "@/server/database";
import { keepAttachment, readAttachment } from "@/server/attachments";
import { keepShopMaterials, shopMaterials } from "@/server/shop";
import { materialsToKeep } from "@/core/tables";
import { createJob, duplicateJob, importText, listJobs, readStored, saveEdits, setDeleted } from "@/server/jobs";
import { fileOf, summaryOf } from "@/server/release";
import { shelfFolder } from "../helpers/shelfFolder";

let dir: string;
beforeAll(async () => {
  dir = await shelfFolder("sgorbia-db-");
  process.env.SGORBIA_DATA = dir;
  process.env.SGORBIA_DEMO = "no";
});
afterAll(async () => {
  await closeDatabase();
  rmSync(dir, { recursive: true, force: true });
});

const edit = (job: Parameters<typeof applyEdits>[0], edits: Parameters<typeof applyEdits>[1]) => {
  const r = applyEdits(job, edits);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value;
};

describe("jobs in the database", () => {
  it("are made, saved, listed, copied, deleted and brought back", async () => {
    const made = await createJob("Sensor clamp", "in", "brass");
    const saved = await saveEdits(made.id, 1, edit(made.job, [{ edit: "setHead", head: { revision: "B" } }]).patches);
    expect(saved).toMatchObject({ ok: true, value: { saved: true, revision: 2 } });
    expect((await readStored(made.id))!.job.revision).toBe("B");
    expect((await listJobs("CLAMP")).map((j) => j.id)).toEqual([made.id]);
    expect(await listJobs("brass")).toHaveLength(1);
    expect(await listJobs("100%")).toHaveLength(0);
    const copy = await duplicateJob(made.id);
    expect(copy!.job.name).toBe("Sensor clamp (copy)");
    expect(await setDeleted(made.id, true)).toBe(true);
    expect(await readStored(made.id)).toBeNull();
    expect(await setDeleted(made.id, false)).toBe(true);
    expect(await readStored(made.id)).not.toBeNull();
    expect(await setDeleted("nobody", true)).toBe(false);
  });
  it("do not overwrite one another: the second window is told", async () => {
    const made = await createJob("Two windows", "mm", "");
    const patches = edit(made.job, [{ edit: "setHead", head: { name: "first" } }]).patches;
    expect(await saveEdits(made.id, 1, patches)).toMatchObject({ value: { saved: true } });
    const second = await saveEdits(made.id, 1, edit(made.job, [{ edit: "setHead", head: { name: "second" } }]).patches);
    expect(second).toMatchObject({
      ok: true,
      value: { saved: false, conflict: { revision: 2, job: { name: "first" } } },
    });
    expect((await readStored(made.id))!.job.name).toBe("first");
  });
  it("do a save once, however often it is sent", async () => {
    const made = await createJob("Sent twice", "mm", "");
    const patches = edit(made.job, [{ edit: "setHead", head: { name: "once" } }]).patches;
    expect(await saveEdits(made.id, 1, patches, "save-0001")).toMatchObject({ value: { saved: true, revision: 2 } });
    expect(
      await saveEdits(
        made.id,
        2,
        edit({ ...made.job, name: "once" }, [{ edit: "setHead", head: { revision: "B" } }]).patches,
        "save-0002",
      ),
    ).toMatchObject({ value: { saved: true, revision: 3 } });
    expect(await saveEdits(made.id, 1, patches, "save-0001")).toMatchObject({ value: { saved: true, revision: 2 } });
    const now = (await readStored(made.id))!;
    expect(now).toMatchObject({
      revision: 3,
      job: { name: "once", revision: "B" },
      saves: [
        { id: "save-0002", revision: 3 },
        { id: "save-0001", revision: 2 },
      ],
    });
    expect(await saveEdits(made.id, 1, patches, "save-0003")).toMatchObject({
      value: { saved: false, conflict: { saves: [{ id: "save-0002" }, {}] } },
    });
  });
  it("keep a log of every edit", async () => {
    const made = await createJob("Logged", "mm", "");
    await saveEdits(made.id, 1, edit(made.job, [{ edit: "setHead", head: { revision: "C" } }]).patches);
    const rows = await (
      await database()
    ).query<{ revision: number; patches: unknown }>("select revision, patches from job_edit where job_id = $1", [
      made.id,
    ]);
    expect(rows).toEqual([{ revision: 2, patches: [{ op: "replace", path: ["revision"], value: "C" }] }]);
  });
  it("refuse edits that break the document, and keep what was there", async () => {
    const made = await createJob("Whole", "mm", "");
    const bad = await saveEdits(made.id, 1, [{ op: "replace", path: ["unit"], value: "furlong" }] as Patches);
    expect(bad).toMatchObject({ ok: false, problems: [{ path: "unit" }] });
    expect(await saveEdits(made.id, 1, [{ op: "replace", path: ["a", "b", "c"], value: 1 }] as Patches)).toMatchObject({
      ok: false,
    });
    expect((await readStored(made.id))!.revision).toBe(1);
    expect(await saveEdits("nobody", 1, [])).toMatchObject({ ok: false });
  });
  it("import whole or not at all, and name the place", async () => {
    const before = (await listJobs()).length;
    expect(await importText("UNIT mm\nLEAVE BLOCK 1 X 1\n")).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("line 2, column 18") }],
    });
    expect(await importText('{"format":"sgorbia.job","version":1')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/no JSON/) }],
    });
    expect(await importText('{"format":"other"}')).toMatchObject({ ok: false, problems: [{ path: "format" }] });
    expect(await importText(JSON.stringify({ format: "sgorbia.job", version: 99 }))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/newer/) }],
    });
    const demo = JSON.parse(readFileSync(new URL("../../demo/gauge-lid.job.json", import.meta.url), "utf8"));
    demo.parts[0].rows[2].body.shape.form = "blob";
    expect(await importText(JSON.stringify(demo))).toMatchObject({
      ok: false,
      problems: [{ path: expect.stringContaining("rows[2]") }],
    });
    demo.parts[0].rows[2].body.shape.form = "circle";
    demo.parts[0].rows[2].id = demo.parts[0].rows[1].id;
    expect(await importText(JSON.stringify(demo))).toMatchObject({ ok: false });
    expect(await listJobs()).toHaveLength(before);
    expect(await importText("UNIT mm\nLEAVE BLOCK 1 X 1 X 1\n")).toMatchObject({ ok: true });
    expect(await listJobs()).toHaveLength(before + 1);
  });
  it("go out and come in with the files they name, and no file passes for another", async () => {
    const step = new TextEncoder().encode("ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n");
    const kept = await keepAttachment(step);
    const made = await importText('UNIT mm\nLEAVE BLOCK 40 X 30 X 20\nOFF LEAVE SOLID "casting.step"\n');
    if (!kept.ok || !made.ok) throw new Error();
    const solids = [{ name: "casting.step", attachment: kept.value.hash }];
    const whole = JSON.stringify({ ...made.value.job, solids });
    const told = await importText(whole);
    if (!told.ok) throw new Error();
    const file = (await fileOf(told.value.id, "json"))!.file;
    if (!file.ok) throw new Error();
    const text = new TextDecoder().decode(file.value);
    expect(Object.keys(JSON.parse(text).files)).toEqual([kept.value.hash]);

    await (await database()).query("delete from attachment where hash = $1", [kept.value.hash]);
    const again = await importText(text);
    expect(again).toMatchObject({ ok: true, value: { job: { solids } } });
    expect((await readAttachment(kept.value.hash))!.bytes).toEqual(step);
    if (again.ok) expect(again.value.job).toEqual(told.value.job);

    const before = (await listJobs()).length;
    const other = text.replace(/("files": \{\s*"[0-9a-f]{64}": ")[^"]+/, `$1${btoa("ISO-10303-21; another")}`);
    expect(await importText(other)).toMatchObject({ ok: false, problems: [{ code: "server.fileIsAnother" }] });
    const torn = text.replace(/("files": \{\s*"[0-9a-f]{64}": ")/, "$1***");
    expect(await importText(torn)).toMatchObject({ ok: false, problems: [{ path: "files" }] });
    expect(await listJobs()).toHaveLength(before);
  });
  it("give their files and their summary, made anew after an edit", async () => {
    const made = await importText("UNIT mm\nLEAVE BLOCK 40 X 30 X 20\nCUT POCKET 20 X 10 DEEP 5\n");
    if (!made.ok) throw new Error();
    const first = await summaryOf(made.value.id);
    expect(first).toMatchObject({ stops: 1, failed: 0, picture: expect.stringContaining("<svg") });
    await saveEdits(
      made.value.id,
      1,
      edit(made.value.job, [{ edit: "setNumber", id: "r2", path: "radius", text: toNumberText("4.5") }]).patches,
    );
    expect(await summaryOf(made.value.id)).toMatchObject({ stops: 0 });
    const file = await fileOf(made.value.id, "step");
    expect(file!.file).toMatchObject({ ok: true });
    expect(await fileOf("nobody", "step")).toBeNull();
  });
});

describe("attachments", () => {
  const png = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
  it("are kept by their hash, and told by their first bytes", async () => {
    const kept = await keepAttachment(png);
    if (!kept.ok) throw new Error();
    expect(kept.value.mediaType).toBe("image/png");
    expect(new Uint8Array((await readAttachment(kept.value.hash))!.bytes)).toEqual(png);
    expect(await keepAttachment(png)).toMatchObject({ ok: true, value: { hash: kept.value.hash } });
  });
  it("take PDF and ASCII DXF too", async () => {
    const kinds = await Promise.all(
      ["%PDF-1.7\n", "  0\nSECTION\n  2\nHEADER\n", "999\nmade by hand\n0\nSECTION\n", "0\r\nSECTION\r\n"].map(
        async (t) => {
          const r = await keepAttachment(new TextEncoder().encode(t));
          return r.ok ? r.value.mediaType : r.problems[0].message;
        },
      ),
    );
    expect(kinds).toEqual(["application/pdf", "image/vnd.dxf", "image/vnd.dxf", "image/vnd.dxf"]);
  });
  it("of more dots than can be drawn are refused, whatever they weigh", async () => {
    const picture = (x: number, y: number) => {
      const bytes = new Uint8Array(40);
      bytes.set(png);
      bytes.set(new TextEncoder().encode("IHDR"), 12);
      const view = new DataView(bytes.buffer);
      view.setUint32(16, x);
      view.setUint32(20, y);
      return keepAttachment(bytes);
    };
    expect(await picture(40_000, 40_000)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("40000 x 40000 dots") }],
    });
    expect(await picture(12_000, 12_000)).toMatchObject({ ok: true });
  });
  it("are taken up to their limit, to the byte", async () => {
    const pdf = (size: number) => {
      const bytes = new Uint8Array(size);
      bytes.set(new TextEncoder().encode("%PDF-1.7\n"));
      return bytes;
    };
    expect(await keepAttachment(pdf(20_000_001))).toMatchObject({ ok: false });
    const kept = await keepAttachment(pdf(20_000_000));
    expect(kept).toMatchObject({ ok: true, value: { size: 20_000_000, mediaType: "application/pdf" } });
    expect((await readAttachment(kept.ok ? kept.value.hash : ""))!.bytes).toHaveLength(20_000_000);
  }, 60_000);
  it("are refused when empty, too large or something else", async () => {
    expect(await keepAttachment(new Uint8Array())).toMatchObject({ ok: false });
    expect(await keepAttachment(new TextEncoder().encode('<svg onload="alert(1)">'))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/neither/) }],
    });
    expect(await keepAttachment(new Uint8Array(20_000_001))).toMatchObject({
      ok: false,
      problems: [{ expected: expect.stringMatching(/at most/) }],
    });
    expect(await readAttachment("0".repeat(64))).toBeNull();
  });
});

describe("the shop's own materials", () => {
  it("are kept, every name once and none of the table's", async () => {
    // The table has learned this name since: it stays the shop's own, with the shop's figure.
    const own = [{ name: "bearing bronze", density: 8.7, source: "mill certificate" }];
    await keepShopMaterials(own);
    expect(await shopMaterials()).toEqual(own);
    expect(materialsToKeep(own).safeParse([...own, { name: "red brass", density: 8.75, source: "" }]).success).toBe(
      true,
    );
    const wrong = (list: unknown) => materialsToKeep([]).safeParse(list).success;
    expect([
      wrong([{ name: "brass", density: 8.4, source: "" }]),
      wrong([
        { name: "a", density: 1, source: "" },
        { name: "A", density: 2, source: "" },
      ]),
      wrong([{ name: "a", density: -1, source: "" }]),
      wrong([{ name: "a", density: 1, source: "" }]),
    ]).toEqual([false, false, false, true]);
  });
});
