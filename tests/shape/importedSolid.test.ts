import { createHash } from "node:crypto";
import { evaluate, type Evaluation } from "@/core/evaluate";
import { giveSolids } from "@/core/engine/solidFiles";
import { exportJob } from "@/io/exportJob";
import { withSolidFiles } from "@/cli/solidFiles";
import { documentOf, enclosedText, jobOf as jobIn, readEnclosed } from "@/core/job";
import { evaluateJob, jobOf, kernel, mm } from "../helpers/card";

const blank = mm(
  "LEAVE BLOCK 60 X 40 X 20",
  "CUT ROUND 4 VERTICAL",
  "CUT POCKET 30 X 20 R5 DEEP 8 AT 5,0",
  "CUT 4X ⌀5 THRU GRID 2 2 BY 48 28",
);
/** Its volume: the block less what four rounds, a pocket with round corners and four holes take. */
const blankVolume =
  60 * 40 * 20 - (4 - Math.PI) * 16 * 20 - (30 * 20 - (4 - Math.PI) * 25) * 8 - 4 * Math.PI * 2.5 ** 2 * 20;

async function stepOf(card: string): Promise<Uint8Array> {
  const job = jobOf(card);
  const file = await exportJob("step", job, await evaluateJob(job), await kernel());
  if (!file.ok) throw new Error(file.problems[0].message);
  return file.value;
}

/** A card with the files it names, as they are given by name. */
async function withFiles(card: string, files: Record<string, Uint8Array>): Promise<Evaluation> {
  const k = await kernel();
  const kept = Object.entries(files).map(([name, bytes]) => {
    const attachment = createHash("sha256").update(bytes).digest("hex");
    return { name, attachment, bytes };
  });
  const solids = kept.map(({ name, attachment }) => ({ name, attachment }));
  await giveSolids(solids, k, async (hash) => kept.find((f) => f.attachment === hash)?.bytes ?? null);
  return evaluate({ ...jobOf(card), solids }, k);
}
const text = (words: string) => new TextEncoder().encode(words);

describe("a solid from a STEP file", () => {
  it("stands as it is, on its own zero or where it is put", async () => {
    const files = { "blank.step": await stepOf(blank) };
    const e = await withFiles(mm('LEAVE SOLID "blank.step"'), files);
    expect(e.part!.volume / blankVolume).toBeCloseTo(1, 9);
    expect(e.part!.box.max).toEqual({ x: expect.closeTo(30, 5), y: expect.closeTo(20, 5), z: expect.closeTo(20, 5) });
    const lifted = await withFiles(mm("LEAVE BLOCK 70 X 50 X 5", 'LEAVE SOLID "blank.step" AT 1,2 ON TOP'), files);
    expect(lifted.part!.volume).toBeCloseTo(70 * 50 * 5 + blankVolume, 3);
    expect(lifted.part!.box.max.z).toBeCloseTo(25, 6);
  });

  it("is cut further like any other, its edges found by meaning, its name read without regard to capitals", async () => {
    const e = await withFiles(
      mm('LEAVE SOLID "Blank.STEP"', "CUT ⌀6 THRU AT -20,0", "CUT 2X M4 DEEP 8 LINE 2 BY 10 ON RIGHT AT -5,6"),
      { "blank.step": await stepOf(blank) },
    );
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "ok"]);
    expect(e.solved.rows[1].removed).toBeCloseTo(Math.PI * 9 * 20, 5);
  });

  it("is mirrored and repeated", async () => {
    const bracket = mm("LEAVE BLOCK 20 X 10 X 10 CORNER", "LEAVE BLOCK 5 X 5 X 5 CORNER AT 0,0 ON TOP");
    const files = { "b.step": await stepOf(bracket) };
    const mirrored = await withFiles(mm('LEAVE SOLID "b.step" AT 5,0', "MIRROR 1 ABOUT X"), files);
    expect(mirrored.part!.volume).toBeCloseTo(2 * (2000 + 125), 4);
    expect([mirrored.part!.box.min.x, mirrored.part!.box.max.x]).toEqual([
      expect.closeTo(-25, 6),
      expect.closeTo(25, 6),
    ]);
    const four = await withFiles(mm('LEAVE SOLID "b.step" AT 10,0', "REPEAT 1 4X AROUND Z"), files);
    expect(four.solved.rows[1].state).toBe("ok");
    expect(four.part!.box.min.x).toBeCloseTo(-30, 6);
  });

  it("is the file of its very name, where two differ in capitals alone", async () => {
    const [small, large] = [await stepOf(mm("LEAVE BLOCK 5 X 5 X 5")), await stepOf(mm("LEAVE BLOCK 9 X 9 X 9"))];
    const e = await withFiles(mm('LEAVE SOLID "a.step"', 'LEAVE SOLID "A.step" AT 30,0'), {
      "a.step": small,
      "A.step": large,
    });
    expect(e.solved.rows.map((r) => Math.round(-r.removed))).toEqual([125, 729]);
  });

  it("stays with the kernel while it is among the newest, and is forgotten then", async () => {
    const k = await kernel();
    const step = await stepOf(mm("LEAVE BLOCK 7 X 7 X 7"));
    k.giveFile("first", step);
    expect(k.fileBox("first", "first").ok).toBe(true);
    for (let i = 0; i < 60; i++) k.giveFile(`later ${i}`, text("ISO-10303-21;"));
    expect([k.hasFile("first"), k.hasFile("later 0"), k.hasFile("later 59")]).toEqual([false, true, true]);
  });

  it("that is not there, is none, or holds nothing fails its row alone, with a reason", async () => {
    const e = await withFiles(
      mm("LEAVE BLOCK 10 X 10 X 10", 'LEAVE SOLID "gone.step"', 'LEAVE SOLID "words.step"', 'LEAVE SOLID "empty.step"'),
      { "words.step": text("not a solid at all"), "empty.step": text("ISO-10303-21;\nEND-ISO-10303-21;\n") },
    );
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "failed", "failed", "failed"]);
    expect(e.solved.rows[1].message).toMatch(/there is no file "gone\.step"/);
    expect(e.solved.rows[2].message).toMatch(/"words\.step" has no solid/);
    expect(e.part!.volume).toBeCloseTo(1000, 6);
  });
});

describe("a job's text with its solid enclosed", () => {
  it("computes wherever it is opened; without the file its row says what is missing", async () => {
    const k = await kernel();
    const bytes = await stepOf(blank);
    const attachment = createHash("sha256").update(bytes).digest("hex");
    const document = {
      ...documentOf(jobOf(mm('LEAVE SOLID "part.step"'))),
      solids: [{ name: "part.step", attachment }],
    };
    const text = enclosedText(document, new Map([[attachment, bytes]]));
    const read = readEnclosed(text);
    if (!read.ok) throw new Error(read.problems[0].message);
    expect(read.value.job).toEqual(document);
    const whole = await withSolidFiles(read.value.job, "/nowhere/x.job.json", k, read.value.files);
    const { part, solved } = await evaluate(jobIn(whole), k);
    expect(solved.rows[0].state).toBe("ok");
    expect(part!.volume / blankVolume).toBeCloseTo(1, 8);
    const bare = await withSolidFiles(read.value.job, "/nowhere/x.job.json", k);
    expect(bare.solids).toEqual([]);
  });
});
