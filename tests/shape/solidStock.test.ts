import { createHash } from "node:crypto";
import { evaluate, type Evaluation } from "@/core/evaluate";
import { numberScope } from "@/core/engine/numbers";
import { fail } from "@/core/base/result";
import { giveSolids } from "@/core/engine/solidFiles";
import { pieceStates } from "@/core/engine/piece";
import { rowNames } from "@/core/job";
import { readCard, writeCard } from "@/core/callout";
import { exportJob } from "@/io/exportJob";
import { evaluateJob, jobOf, kernel, mm } from "../helpers/card";

/** A casting: a block with a boss, its zero in the middle of its foot. */
const casting = mm("LEAVE BLOCK 60 X 40 X 12", "LEAVE ROUND ⌀30 X 20 ON TOP");
const castingVolume = 60 * 40 * 12 + Math.PI * 15 ** 2 * 20;

async function castingFile(): Promise<Uint8Array> {
  const job = jobOf(casting);
  const file = await exportJob("step", job, await evaluateJob(job), await kernel());
  if (!file.ok) throw new Error(file.problems[0].message);
  return file.value;
}

async function inCasting(...lines: string[]): Promise<{ e: Evaluation; job: ReturnType<typeof jobOf> }> {
  const bytes = await castingFile();
  const attachment = createHash("sha256").update(bytes).digest("hex");
  const solids = [{ name: "casting.step", attachment }];
  const k = await kernel();
  await giveSolids(solids, k, async () => bytes);
  const job = { ...jobOf(mm(...lines)), solids };
  return { e: await evaluate(job, k), job };
}

describe("a stock that is a solid of its own", () => {
  it("is read and written as a card has it", () => {
    const card = mm('STOCK SOLID "casting.step" AT 0,0,-2', "LEAVE BLOCK 10 X 10 X 10");
    expect(writeCard(readCard(card).job)).toContain('STOCK SOLID "casting.step" AT 0,0,-2');
    expect(readCard(mm("STOCK SOLID casting")).errors[0]).toMatchObject({ line: 4 });
  });

  it("holds what its file holds, and gives as chips what is not the part", async () => {
    const { e } = await inCasting(
      'STOCK SOLID "casting.step"',
      "LEAVE BLOCK 58 X 38 X 10",
      "LEAVE ROUND ⌀28 X 18 ON TOP",
    );
    expect(e.stockProblem).toBeNull();
    expect(e.stock!.volume / castingVolume).toBeCloseTo(1, 9);
    expect(e.stock!.volume - e.part!.volume).toBeCloseTo(castingVolume - 58 * 38 * 10 - Math.PI * 14 ** 2 * 18, 3);
    expect(e.stock!.allowance).toMatchObject({ top: expect.closeTo(4, 5), left: expect.closeTo(1, 5) });
    expect(e.findings.filter((f) => f.rule === "outside-stock")).toEqual([]);
  });

  it("is left where the part stands out of it, though its box holds the part", async () => {
    // A post of 40 round through a boss of 30: the ring between them, over the foot, is not there.
    const { e } = await inCasting('STOCK SOLID "casting.step"', "LEAVE ROUND ⌀40 X 20");
    const [stop] = e.findings.filter((f) => f.rule === "outside-stock");
    expect(stop).toMatchObject({ severity: "stop", row: 1 });
    expect(stop.value).toBeCloseTo(Math.PI * (20 ** 2 - 15 ** 2) * 8, 3);
    const lowered = await inCasting('STOCK SOLID "casting.step" AT 0,0,8', "LEAVE ROUND ⌀40 X 20");
    expect(lowered.e.findings.find((f) => f.rule === "outside-stock")!.value).toBeCloseTo(Math.PI * 20 ** 2 * 8, 3);
  });

  it("is not taken to hold a part where that could not be worked out", async () => {
    const { job } = await inCasting('STOCK SOLID "casting.step"', "LEAVE BLOCK 10 X 10 X 5");
    const without = () => fail({ message: "the solids could not be cut" });
    const e = await evaluate(job, Object.create(await kernel(), { without: { value: without } }));
    expect(e.findings.filter((f) => f.rule === "outside-stock")).toEqual([
      expect.objectContaining({ severity: "caution", text: expect.stringContaining("could not be worked out") }),
    ]);
  });

  it("is the piece that the first setup gets", async () => {
    const { e, job } = await inCasting(
      'STOCK SOLID "casting.step"',
      "LEAVE BLOCK 60 X 40 X 12",
      "LEAVE ROUND ⌀30 X 20 ON TOP",
      "CUT ⌀10 THRU",
      "SETUP 10 MILL UP TOP HOLD VISE GRIP 4 ACROSS Y ROWS 3",
    );
    const states = pieceStates({
      kernel: await kernel(),
      job,
      scope: numberScope(job),
      rows: e.solved.rows,
      finalKey: e.solved.finalKey!,
      nameOf: (id) => String(rowNames(job.rows).numberOf(id)),
    });
    expect(states.ok && (await kernel()).measure(states.value[0].before).volume).toBeCloseTo(castingVolume, 3);
  });

  it("says which file is not there, and nothing else is lost", async () => {
    const { e } = await inCasting('STOCK SOLID "forging.step"', "LEAVE BLOCK 10 X 10 X 10");
    expect(e.stock).toBeNull();
    expect(e.stockProblem!.message).toBe('there is no file "forging.step"');
    expect(e.part!.volume).toBeCloseTo(1000, 6);
  });
});
