import { writeCard } from "@/core/callout";
import { applyEdits, ownCopy, type Job } from "@/core/job";
import { evaluateJob, jobOf } from "../helpers/card";

/** Six pads round a hub, each with a blind hole on its top, its mouth broken, and a hole from outside. */
const pads = [
  'JOB "Pads"',
  "UNIT mm",
  "LEAVE ROUND ⌀60 X 20",
  "LEAVE BLOCK 20 X 12 X 20 AT 36,0",
  "CUT ⌀6 DEEP 8 FLAT AT 38,0",
  "CUT CHAMFER 0.5 MOUTH OF 3",
  "CUT ⌀4 DEEP 5 FLAT AT 0,10 ON RIGHT",
  "REPEAT 2-5 6X AROUND Z",
].join("\n");
const volume = async (job: Job) => {
  const evaluation = await evaluateJob(job);
  const { solved, part } = evaluation;
  // It goes from the engine to the page as plain data.
  expect(() => structuredClone(evaluation)).not.toThrow();
  expect(solved.rows.filter((r) => r.state === "failed").map((r) => r.message)).toEqual([]);
  return part!.volume;
};
let made = 0;
const fresh = () => `own${made++}`;
const last = (job: Job) => job.rows[job.rows.length - 1].id;
const given = (job: Job, copy: number, id = last(job)): Job => {
  const edits = ownCopy(job, id, copy, fresh);
  if (!edits.ok) throw new Error(edits.problems[0].message);
  const done = applyEdits(job, edits.value);
  if (!done.ok) throw new Error(done.problems[0].message);
  return done.value.job;
};

describe("one copy of a repeat with figures of its own", () => {
  it("leaves the shape as it was, and the card says it all", async () => {
    const job = jobOf(pads);
    const own = given(job, 4);
    const card = writeCard(own);
    expect(card).toContain('PLANE "copy 4" COPY 4 OF 6\n');
    expect(card).toContain('PLANE "copy 4 (2)" COPY 4 OF 6 FROM TOP\n');
    expect(card).toContain(
      [
        "REPEAT 2-5 6X AROUND Z SKIP 4",
        'LEAVE BLOCK 20 X 12 X 20 AT 36,0 ON PLANE "copy 4"',
        'CUT ⌀6 DEEP 8 FLAT AT 38,0 ON PLANE "copy 4 (2)"',
        "CUT CHAMFER 0.5 MOUTH OF 8",
        'CUT ⌀4 DEEP 5 FLAT AT 0,10 ON PLANE "copy 4 (3)"',
      ].join("\n"),
    );
    const before = await volume(job);
    expect(await volume(own)).toBeCloseTo(before, 6);
    expect(await volume(jobOf(card))).toBeCloseTo(before, 6);
  });
  it("is then changed by itself: one hole of six deeper", async () => {
    const job = given(jobOf(pads), 4);
    const deeper = jobOf(writeCard(job).replace("DEEP 8 FLAT AT 38,0 ON PLANE", "DEEP 11 FLAT AT 38,0 ON PLANE"));
    // A cylinder of 6 and 3 mm more.
    expect((await volume(job)) - (await volume(deeper))).toBeCloseTo(Math.PI * 9 * 3, 6);
  });
  it.each(["LINE 4X BY 20 ALONG X", "GRID 2 2 BY 20 18", "4X AROUND AXIS OF 1 STEP 30"])(
    "goes with %s",
    async (way) => {
      const job = jobOf(`UNIT mm\nLEAVE BLOCK 200 X 120 X 10\nCUT ⌀6 DEEP 4 FLAT AT 20,8\nREPEAT 2 ${way}`);
      expect(await volume(given(job, 3))).toBeCloseTo(await volume(job), 6);
    },
  );
  it("is refused where there is no such copy, or nothing to stand on", () => {
    const job = jobOf(pads);
    expect(ownCopy(job, job.rows[0].id, 2, fresh).ok).toBe(false);
    expect(ownCopy(job, last(job), 1, fresh).ok).toBe(false);
    expect(ownCopy(job, last(job), 9999, fresh).ok).toBe(false);
    expect(ownCopy(given(job, 4), job.rows[5].id, 4, fresh).ok).toBe(false);
    const turned = jobOf(
      'UNIT mm\nOUTLINE "lug"\nCIRCLE ⌀2 AT 20,4\nEND\nLEAVE ROUND ⌀60 X 20\nCUT TURNED "lug"\nREPEAT 2 LINE 2X BY 8 ALONG Z',
    );
    expect(ownCopy(turned, last(turned), 2, fresh)).toMatchObject({
      ok: false,
      problems: [{ message: "row 2 stands on no plane of its own" }],
    });
  });
  it("says what is missing when the repeat becomes shorter", async () => {
    const shorter = jobOf(writeCard(given(jobOf(pads), 6)).replace("6X AROUND", "5X AROUND"));
    const { solved } = await evaluateJob(shorter);
    expect(solved.rows.map((r) => r.state)).toEqual([
      "ok",
      "ok",
      "ok",
      "ok",
      "ok",
      "ok",
      "failed",
      "failed",
      "failed",
      "failed",
    ]);
    expect(solved.rows[6].message).toMatch(/row 6 has no copy 6/);
  });
});
