import { documentOf, jobOf as viewed } from "./parts";
import { toNumberText } from "../number";
import { applyEdits, contentOf, emptyJob, nextRevision, readJob, releaseState, type Job, type JobEdit } from ".";
import { jobOf, mm } from "../../../tests/helpers/card";

const job = jobOf(mm("#1 20", "LEAVE BLOCK 40 X 30 X #1"));
const after = (j: Job, ...edits: JobEdit[]): Job => {
  const r = applyEdits(j, edits);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value.job;
};
const signed = after(job, {
  edit: "setHead",
  head: { signOff: { by: "Orla", on: "2026-11-26", revision: job.revision, content: contentOf(job) } },
});

describe("a signature", () => {
  it("holds as long as nothing has changed, also after the document went away and came back", () => {
    expect(releaseState(job)).toEqual({ state: "draft" });
    expect(releaseState(signed)).toEqual({ state: "released", by: "Orla" });
    const back = readJob(JSON.parse(JSON.stringify(Object.fromEntries(Object.entries(documentOf(signed)).reverse()))));
    expect(back.ok && releaseState(viewed(back.value))).toEqual({ state: "released", by: "Orla" });
  });

  it.each<[string, JobEdit]>([
    ["a row more", { edit: "addRows", rows: jobOf(mm("LEAVE BLOCK 1 X 1 X 1", "CUT ⌀5 THRU")).rows.slice(1) }],
    ["a number", { edit: "setNumber", id: job.rows[0].id, path: "length", text: toNumberText("41") }],
    ["a balloon", { edit: "deleteBalloon", number: 1 }],
    ["the material", { edit: "setHead", head: { material: { name: "brass" } } }],
    ["the holding", { edit: "setHold", hold: { fixture: "vise", across: "y", grip: toNumberText("5"), up: "top" } }],
    ["a waiver", { edit: "waive", rule: "edge-break", reason: "asked for" }],
  ])("says changed since release after %s, and asks for a revision", (_, edit) => {
    const changed = after(signed, edit);
    expect(releaseState(changed)).toEqual({ state: "changed", by: "Orla" });
    const next = after(changed, { edit: "setHead", head: { revision: nextRevision(changed.revision) } });
    expect(releaseState(next)).toEqual({ state: "earlier", by: "Orla", revision: "A" });
    // Put back, it is what was signed.
    expect(releaseState(after(changed, { edit: "replace", job: signed }))).toEqual({ state: "released", by: "Orla" });
  });

  it("of an older document, which kept no content, is not taken for one of this", () => {
    expect(releaseState({ ...job, signOff: { by: "Orla", on: "2026-01-01", revision: "A" } }).state).toBe("changed");
  });

  it("is not carried along when another job takes the place of this one", () => {
    expect(after(signed, { edit: "replace", job: emptyJob("Other", "mm", "brass") })).not.toHaveProperty("signOff");
  });
});

it("the next revision is the next letter or number", () => {
  expect(["A", "Z", "AZ", "ZZ", "3", "09", "", "B.1"].map(nextRevision)).toEqual([
    "B",
    "AA",
    "BA",
    "AAA",
    "4",
    "10",
    "A",
    "B.1-1",
  ]);
});
