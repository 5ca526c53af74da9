import { readFileSync } from "node:fs";
import { apply } from "mutative";
import fc from "fast-check";
import { applyEdits, documentOf, emptyJob, jobOf as workOf, readJob, readJobText, type Job, type JobEdit } from ".";
import { jobOf, mm } from "../../../tests/helpers/card";
import type { NumberText } from "../number";

const n = (t: string) => t as NumberText;
const start = (): Job =>
  jobOf(mm("#1 10", "#2 ⌀4", "LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 20 X 10 R3 DEEP 5", "CUT ⌀4 THRU ON FLOOR OF 2"));

const after = (job: Job, ...edits: JobEdit[]): Job => {
  const r = applyEdits(job, edits);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value.job;
};

describe("edits of a job", () => {
  it("add, set, name, switch, move and delete rows", () => {
    const job = start();
    const row = { id: "new", body: job.rows[2].body };
    expect(after(job, { edit: "addRows", rows: [row], at: 1 }).rows.map((r) => r.id)).toEqual([
      "r1",
      "new",
      "r2",
      "r3",
    ]);
    expect(after(job, { edit: "addRows", rows: [row] }).rows).toHaveLength(4);
    expect(after(job, { edit: "setNumber", id: "r2", path: "deep", text: n("6") }).rows[1].body).toMatchObject({
      deep: "6",
    });
    expect(
      after(job, { edit: "setNumber", id: "r2", path: "radius", text: undefined }).rows[1].body,
    ).not.toHaveProperty("radius");
    expect(after(job, { edit: "nameRow", id: "r2", name: " seat " }).rows[1].name).toBe("seat");
    expect(after(job, { edit: "nameRow", id: "r2", name: " " }).rows[1]).not.toHaveProperty("name");
    expect(after(job, { edit: "switchRow", id: "r2", off: true }).rows[1].off).toBe(true);
    expect(
      after(job, { edit: "switchRow", id: "r2", off: true }, { edit: "switchRow", id: "r2", off: false }).rows[1],
    ).not.toHaveProperty("off");
    expect(after(job, { edit: "moveRow", id: "r1", to: 2 }).rows.map((r) => r.id)).toEqual(["r2", "r3", "r1"]);
    expect(after(job, { edit: "moveRow", id: "r1", to: 99 }).rows.map((r) => r.id)).toEqual(["r2", "r3", "r1"]);
    expect(after(job, { edit: "deleteRow", id: "r2" }).rows.map((r) => r.id)).toEqual(["r1", "r3"]);
  });

  it("change balloons and keep their numbers apart", () => {
    const job = start();
    const [first] = job.balloons;
    expect(after(job, { edit: "moveBalloon", number: 1, to: 1 }).balloons.map((b) => b.number)).toEqual([2, 1]);
    expect(after(job, { edit: "deleteBalloon", number: 1 }).balloons).toHaveLength(1);
    expect(after(job, { edit: "setBalloon", number: 1, balloon: { ...first, number: 7 } }).balloons[0].number).toBe(7);
    expect(applyEdits(job, [{ edit: "setBalloon", number: 1, balloon: { ...first, number: 2 } }])).toMatchObject({
      ok: false,
    });
    expect(applyEdits(job, [{ edit: "addBalloons", balloons: [first] }])).toMatchObject({ ok: false });
  });

  it("do all or nothing, and leave the old job as it was", () => {
    const job = start();
    const before = JSON.stringify(job);
    const r = applyEdits(job, [
      { edit: "deleteRow", id: "r1" },
      { edit: "deleteRow", id: "nobody" },
    ]);
    expect(r).toMatchObject({ ok: false, problems: [{ message: "this row is gone" }] });
    after(job, { edit: "deleteRow", id: "r1" });
    expect(JSON.stringify(job)).toBe(before);
  });

  it("take things away instead of setting them to nothing", () => {
    const signed = after(start(), { edit: "setHead", head: { signOff: { by: "M", on: "2026-11-25", revision: "A" } } });
    expect(after(signed, { edit: "setHead", head: { signOff: undefined } })).not.toHaveProperty("signOff");
  });

  it("waive once for a rule and a row, and take it back", () => {
    const waived = after(
      start(),
      { edit: "waive", rule: "tap-depth", row: "r2", reason: "a" },
      { edit: "waive", rule: "tap-depth", row: "r2", reason: "b" },
    );
    expect(waived.waivers).toEqual([{ rule: "tap-depth", row: "r2", reason: "b" }]);
    expect(after(waived, { edit: "unwaive", rule: "tap-depth", row: "r2" }).waivers).toEqual([]);
  });

  it("are undone by their own patches, two hundred deep", () => {
    const edit = fc.oneof(
      fc
        .integer({ min: 1, max: 99 })
        .map((v): JobEdit => ({ edit: "setNumber", id: "r2", path: "deep", text: n(String(v)) })),
      fc.boolean().map((off): JobEdit => ({ edit: "switchRow", id: "r3", off })),
      fc.integer({ min: 0, max: 2 }).map((to): JobEdit => ({ edit: "moveRow", id: "r1", to })),
      fc.string({ maxLength: 8 }).map((name): JobEdit => ({ edit: "nameRow", id: "r2", name })),
      fc
        .constantFrom("top" as const, "bottom" as const)
        .map((up): JobEdit => ({ edit: "setHold", hold: { fixture: "vise", across: "y", grip: n("4"), up } })),
    );
    fc.assert(
      fc.property(fc.array(edit, { minLength: 200, maxLength: 200 }), (edits) => {
        let job = start();
        const first = JSON.stringify(job);
        const inverses = [];
        for (const e of edits) {
          const r = applyEdits(job, [e]);
          if (!r.ok) throw new Error(r.problems[0].message);
          inverses.push(r.value.inverse);
          job = r.value.job;
        }
        for (const inverse of inverses.reverse()) job = apply(job, inverse);
        expect(JSON.stringify(job)).toBe(first);
      }),
      { numRuns: 15 },
    );
  });
});

describe("documents from outside", () => {
  it("come back as they went", () => {
    const job = documentOf(start());
    const read = readJobText(JSON.stringify(job));
    expect(read).toEqual({ ok: true, value: job });
  });

  it("are refused with the place", () => {
    const job = JSON.parse(JSON.stringify(documentOf(start())));
    job.parts[0].rows[1].body.shape.length = 5;
    expect(readJob(job)).toMatchObject({ ok: false, problems: [{ path: expect.stringContaining("rows[1].body") }] });
    expect(readJob({ ...documentOf(start()), surprise: 1 })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("surprise") }],
    });
    expect(readJob(null)).toMatchObject({ ok: false });
    expect(readJob([])).toMatchObject({ ok: false });
    expect(readJobText('{"format":\n  x}')).toMatchObject({ ok: false });
  });

  it("of version 1 are brought up to this one", () => {
    const old = readFileSync(new URL("../../../tests/documents/version-1.job.json", import.meta.url), "utf8");
    const read = readJobText(old);
    if (!read.ok) throw new Error(`${read.problems[0].path}: ${read.problems[0].message}`);
    expect(read.value).toMatchObject({
      version: 3,
      names: [],
      proofs: [],
      prints: [{ regions: [{ view: "top", page: 1, direction: "x" }] }],
    });
    expect(read.value.balloons.some((b) => b.tolerance.kind === "default")).toBe(true);
    expect(read.value.balloons).toHaveLength(JSON.parse(old).balloons.length);
    // Brought up once, it is a document of this version.
    expect(readJob(JSON.parse(JSON.stringify(read.value)))).toEqual(read);
  });

  it("of version 2 get a part and, of what was held, a first setup; nothing else of them changes", () => {
    const text = readFileSync(new URL("../../../tests/documents/version-2.job.json", import.meta.url), "utf8");
    const old = JSON.parse(text);
    const read = readJobText(text);
    if (!read.ok) throw new Error(`${read.problems[0].path}: ${read.problems[0].message}`);
    const { parts, setups } = read.value;
    expect(parts).toEqual([
      { id: "work", name: "", kind: "work", stock: old.stock, outlines: old.outlines, rows: old.rows },
    ]);
    const { up, ...hold } = old.hold;
    expect(setups).toEqual([{ op: 10, machine: "mill", up, hold }]);
    // As its one part is worked on, it is what it was.
    const { setups: own, ...view } = workOf(read.value);
    expect(own).toEqual(setups);
    expect({ ...view, version: 2 }).toEqual(old);
    expect(documentOf(workOf(read.value))).toEqual(read.value);
  });

  it("hold the form of this version", () => {
    expect(readJob(JSON.parse(JSON.stringify(documentOf(emptyJob("x", "in", "brass")))))).toMatchObject({ ok: true });
  });
});
