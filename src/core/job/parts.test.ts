import { apply } from "mutative";
import { toNumberText } from "../number";
import { readCard } from "../callout";
import { applyEdits, type JobEdit } from "./edits";
import { documentOf, jobOf } from "./parts";
import { readJob } from "./read";
import type { JobDocument } from "./schema";

const work = readCard(
  'UNIT mm\nSTOCK PLATE 70 X 50 X 25\nOUTLINE "o"\nRECT 4 X 4\nEND\nLEAVE BLOCK 60 X 40 X 20\nCUT ⌀8 THRU',
).job;
const plain = documentOf(work);
/** A job with jaws of its own besides the workpiece. */
const document: JobDocument = {
  ...plain,
  parts: [
    ...plain.parts,
    { id: "jaws", name: "soft jaws", kind: "jaws", stock: null, outlines: [], rows: [{ ...work.rows[0], id: "j1" }] },
  ],
};
const edited = (edits: JobEdit[], part?: string) => {
  const r = applyEdits(document, edits, part);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value;
};

describe("parts of a job", () => {
  it("are looked at one at a time, always as the same object", () => {
    expect(jobOf(document)).toBe(jobOf(document));
    expect(jobOf(document).rows).toBe(document.parts[0].rows);
    expect(jobOf(document, "jaws").rows.map((r) => r.id)).toEqual(["j1"]);
    expect(jobOf(document, "jaws").balloons).toBe(document.balloons);
  });
  it("are edited by themselves; the others stay the same objects", () => {
    const { job } = edited(
      [
        { edit: "deleteRow", id: "j1" },
        { edit: "setStock", stock: work.stock },
      ],
      "jaws",
    );
    expect(job.parts[1]).toMatchObject({ rows: [], stock: work.stock });
    expect(job.parts[0]).toBe(document.parts[0]);
    expect(applyEdits(document, [{ edit: "deleteRow", id: "j1" }]).ok).toBe(false);
  });
  it("have every edit undone by its own inverse", () => {
    const hold = { fixture: "vise", across: "y", grip: toNumberText("5"), up: "top" } as const;
    const e = edited([
      { edit: "setHold", hold },
      { edit: "setNumber", id: "r2", path: "diameter", text: toNumberText("9") },
      { edit: "addOutlines", outlines: [{ ...work.outlines[0], id: "p", name: "p" }] },
      { edit: "setHead", head: { name: "other" } },
    ]);
    expect(jobOf(e.job).hold).toEqual(hold);
    expect(e.job.setups).toEqual([
      { op: 10, machine: "mill", up: "top", hold: { fixture: "vise", across: "y", grip: "5" } },
    ]);
    expect(apply(e.job as object, e.inverse)).toEqual(document);
    expect(apply(document as object, e.patches)).toEqual(e.job);
    // Held another way in the same setup; let go of, the setup goes.
    const again = applyEdits(e.job, [{ edit: "setHold", hold: { ...hold, up: "bottom" } }]);
    expect(again.ok && again.value.job.setups[0].up).toBe("bottom");
    const none = applyEdits(e.job, [{ edit: "setHold", hold: null }]);
    expect(none.ok && none.value.job.setups).toEqual([]);
  });
  it("may not share an id, nor their rows", () => {
    const twice = { ...document, parts: [document.parts[0], { ...document.parts[1], id: "work" }] };
    expect(readJob(twice)).toMatchObject({ ok: false, problems: [{ path: "parts[1].id" }] });
    const rows = { ...document, parts: [document.parts[0], { ...document.parts[1], rows: work.rows }] };
    expect(readJob(rows)).toMatchObject({ ok: false, problems: [{ path: "parts[1].rows[0].id" }, {}] });
    expect(readJob({ ...document, parts: [] })).toMatchObject({ ok: false });
    const setup = { op: 10, machine: "mill" as const, up: "top" as const, hold: null };
    expect(readJob({ ...document, setups: [setup, setup] })).toMatchObject({
      ok: false,
      problems: [{ path: "setups[1].op" }],
    });
  });
});
