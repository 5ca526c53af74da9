import { applyEdits } from "../job";
import { usualShop } from "../tables";
import { evaluateJob, inch, jobOf, kernel, mm } from "../../../tests/helpers/card";
import { remarkKey, remedyOf, triedFixes, withTrial } from "./triedFixes";

const { limits } = usualShop;
async function offered(text: string, rule: string) {
  const job = jobOf(text);
  const evaluation = await evaluateJob(job);
  const trials = await triedFixes({ job, evaluation, kernel: await kernel(), limits });
  const f = evaluation.findings.find((x) => x.rule === rule)!;
  const shown = withTrial(f, trials.get(remarkKey(f)));
  return { f, trial: trials.get(remarkKey(f)), fix: shown.fix?.label, question: shown.question };
}

describe("a fix is tried on the solid before it is offered", () => {
  it("one that clears its remark is", async () => {
    // ⌀3 on BC 96 in a ring of 100 by 80: half a millimetre outside, room inside.
    const card = mm("LEAVE RING OD 100 ID 80 X 10", "CUT 6X ⌀3 THRU ON BC 96");
    expect(await offered(card, "edge-distance")).toMatchObject({
      trial: { clears: true },
      fix: expect.stringMatching(/^BC 9/),
    });
  });
  it("one that only moves the thin wall to the other side is not", async () => {
    // 4.5 of ring round a hole of 3: no circle leaves 1.5 on both sides.
    const card = mm("LEAVE RING OD 100 ID 91 X 10", "CUT 6X ⌀3 THRU ON BC 96");
    const { f, trial, fix } = await offered(card, "edge-distance");
    expect(f.fix).toBeDefined();
    expect(trial).toMatchObject({ clears: false });
    expect(fix).toBeUndefined();
  });
  it("nor one with which a row cuts nothing or cannot be made", async () => {
    // A pocket under a step: as deep as a cutter reaches, it would end above its material.
    const card = mm("LEAVE BLOCK 80 X 60 X 90", "CUT POCKET 40 X 30 R5 DEEP 60", "CUT POCKET 20 X 14 R2 DEEP 85");
    const job = jobOf(card);
    const evaluation = await evaluateJob(job);
    const trials = await triedFixes({ job, evaluation, kernel: await kernel(), limits });
    for (const f of evaluation.findings.filter((x) => remedyOf(x))) {
      const trial = trials.get(remarkKey(f))!;
      const edited = applyEdits(job, remedyOf(f)!.edits);
      const after = edited.ok ? (await evaluateJob(edited.value.job)).findings : [];
      const bad = after.some((x) => x.rule === "cuts-nothing") || after.some((x) => remarkKey(x) === remarkKey(f));
      expect(trial.clears && bad).toBe(false);
    }
    expect(trials.size).toBeGreaterThan(0);
  });
  it("and a question to the print is asked only where its answer would help", async () => {
    const helps = await offered(
      mm("#1 ⌀96", "LEAVE RING OD 100 ID 80 X 10", "CUT 6X ⌀3 THRU ON BC #1"),
      "edge-distance",
    );
    expect(helps.question).toMatch(/^ask: BC/);
    const not = await offered(mm("#1 ⌀96", "LEAVE RING OD 100 ID 91 X 10", "CUT 6X ⌀3 THRU ON BC #1"), "edge-distance");
    expect([not.f.question !== undefined, not.question]).toEqual([true, undefined]);
  });
  it("a larger stock is offered though it wants facing then", async () => {
    const card = mm("STOCK PLATE 64 X 44 X 18", "LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 20 X 14 R3 DEEP 5");
    expect(await offered(card, "outside-stock")).toMatchObject({ trial: { clears: true }, fix: "next size" });
  });
  it("a deeper grip is offered though a cut goes into the jaws then", async () => {
    const card = mm(
      "STOCK PLATE 64 X 44 X 24",
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT POCKET 20 X 14 R3 DEEP 5",
      "HOLD VISE GRIP 1 ACROSS Y",
    );
    expect(await offered(card, "grip-too-shallow")).toMatchObject({ trial: { clears: true } });
  });
  it("leaves the job as it was", async () => {
    const job = jobOf(inch("LEAVE RING OD 4 ID 3.5 X .5", "CUT 6X ⌀.125 THRU ON BC 3.9"));
    const before = JSON.stringify(job);
    await triedFixes({ job, evaluation: await evaluateJob(job), kernel: await kernel(), limits });
    expect(JSON.stringify(job)).toBe(before);
  });
});
