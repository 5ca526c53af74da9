import { evaluateJob, inch, jobOf, mm } from "../../../tests/helpers/card";
import { pathsNc } from "@/io/ncWords";
import { pathFile, type PathFile } from "./file";
import type { LengthUnit } from "../number";
import { planPaths, type PathPlan } from "./plan";

async function fileOf(card: string): Promise<{ file: PathFile; plans: PathPlan[]; unit: LengthUnit }> {
  const job = jobOf(card);
  const e = await evaluateJob(job);
  const plans = planPaths(job, e.solved.rows, e.stock?.placed.box);
  return { file: pathFile(job, e, plans), plans, unit: job.unit };
}
async function wordsOf(card: string): Promise<string> {
  const { file, unit } = await fileOf(card);
  const r = pathsNc(file, unit, "test");
  return r.ok ? r.value : `refused: ${r.problems[0].message}`;
}

/** Plays the words: every rapid with where it goes from and to, in the unit of the file. */
function rapids(
  text: string,
): { from: { x: number; y: number; z: number }; to: { x: number; y: number; z: number } }[] {
  const at = { x: 0, y: 0, z: Infinity };
  const out: ReturnType<typeof rapids> = [];
  let rapid = false;
  for (const line of text.split("\n")) {
    if (line.startsWith("(") || /^[%TM]/.test(line)) continue;
    const g = /^G([0123])\b/.exec(line);
    if (g) rapid = g[1] === "0";
    const from = { ...at };
    for (const axis of ["x", "y", "z"] as const) {
      const m = new RegExp(`${axis.toUpperCase()}(-?[\\d.]+)`).exec(line);
      if (m) at[axis] = Number(m[1]);
    }
    if (rapid && (from.x !== at.x || from.y !== at.y || from.z !== at.z)) out.push({ from, to: { ...at } });
  }
  return out;
}

const block = "LEAVE BLOCK 100 X 60 X 20";
const bore = "CUT ⌀10 THRU AT 20,0";

describe("rapids", () => {
  it("never go into standing stock: .625 of it over the part wants a facing row, and with one the file faces first", async () => {
    const card = (...rows: string[]) =>
      inch(
        "STOCK PLATE 4.5 X 3.5 X 1.375 AT 0,0,0",
        "LEAVE BLOCK 4 X 3 X .75",
        ...rows,
        "CUT POCKET 2 X 1 R.25 DEEP .3",
        "CUT 2X ⌀.25 THRU AT -1.5,1 1.5,1",
      );
    expect(await wordsOf(card())).toMatch(/^refused: .*0?\.625 in of stock stand over what row 1 cuts/);
    const text = await wordsOf(card("CUT FACE"));
    const z0 = 0.625;
    const facing = text.indexOf("FACE, ROW 2");
    expect(facing).toBeGreaterThan(0);
    expect(text.indexOf("T1 M6")).toBeGreaterThan(facing);
    const second = text.indexOf("T2 M6");
    for (const r of rapids(text.slice(0, second))) expect(r.to.z).toBeGreaterThan(z0 + 0.1);
    for (const r of rapids(text.slice(second))) expect(r.to.z).toBeGreaterThan(0.1);
    // The facing goes down to the part's top, level by level, from the stock's.
    const levels = [...new Set([...text.slice(0, second).matchAll(/^G1 Z(\S+)/gm)].map((m) => Number(m[1])))];
    expect(levels[levels.length - 1]).toBe(0);
    expect(levels[0]).toBeLessThan(z0);
    expect(levels).toHaveLength(Math.ceil(0.625 / (0.75 / 2)));
  });

  it("go over jaws that stand higher than the piece is faced", async () => {
    const text = await wordsOf(
      mm("STOCK PLATE 100 X 60 X 40 AT 0,0,-20", block, "CUT POCKET 40 X 20 R5 DEEP 5", "HOLD VISE GRIP 10 ACROSS Y"),
    );
    for (const r of rapids(text)) expect(r.to.z).toBeGreaterThanOrEqual(3);
  });

  it("are not written for a cut at the foot of a boss whose stock nothing clears", async () => {
    const text = await wordsOf(
      mm(
        "STOCK ROUND 92 X 38 AT 0,0,0",
        "LEAVE ROUND 90 X 12",
        "LEAVE ROUND 50 X 26 ON TOP OF 1",
        "CUT 6X ⌀6.6 THRU ON BC 70 ON TOP OF 1",
      ),
    );
    expect(text).toMatch(/^refused: .*26\.00 mm of stock stand over what row 3 cuts/);
  });

  it("are written where an earlier pocket has opened the place, and its own floor too", async () => {
    const nested = mm(
      "STOCK PLATE 104 X 64 X 20 AT 0,0,0",
      block,
      "CUT POCKET 60 X 40 R6 DEEP 5",
      "CUT POCKET 30 X 20 R6 DEEP 4 ON FLOOR OF 2",
      "CUT ⌀6 DEEP 5 ON FLOOR OF 3",
    );
    expect((await fileOf(nested)).file.refused).toEqual([]);
    const beside = mm(
      "STOCK PLATE 104 X 64 X 20 AT 0,0,0",
      block,
      "CUT STEP LEFT 20 DEEP 5",
      "CUT ⌀6 DEEP 5 AT -40,0 ON FLOOR OF 2",
    );
    expect((await fileOf(beside)).file.refused.join()).toMatch(/5\.00 mm of stock stand over what row 3 cuts/);
  });
});

describe("jaws", () => {
  it("are in the way of an outline at the full depth: no file, and why", async () => {
    const card = (grip: string) =>
      inch("STOCK PLATE 4.5 X 3 X .875 AT 0,0,-.125", "LEAVE BLOCK 4 X 3 X .75", `HOLD VISE GRIP ${grip} ACROSS Y`);
    expect(await wordsOf(card(".25"))).toMatch(/^refused: .*row 1 would cut 0?\.125 in below the top of the jaws/);
    expect(await wordsOf(card(".125"))).toMatch(/M30/);
    expect(await wordsOf(card(".875"))).toMatch(/refused: .*the piece cannot be held so/);
  });
  it("that hold the piece bottom up get no file of paths from its top", async () => {
    const job = jobOf(mm(block, "CUT POCKET 40 X 20 R5 DEEP 5", "HOLD VISE GRIP 5 ACROSS Y"));
    const up = { ...job, hold: { ...job.hold!, up: "bottom" as const } };
    const e = await evaluateJob(up);
    expect(pathFile(up, e, planPaths(up, e.solved.rows)).refused.join()).toMatch(/bottom up/);
  });
});

describe("holes", () => {
  const point = (d: number) => d / 2 / Math.tan((59 * Math.PI) / 180);
  it("through: the full diameter leaves the part, the point beyond it", async () => {
    const { plans } = await fileOf(mm(block, bore));
    const p = plans.find((q) => q.kind === "drill")!;
    expect(p.depth).toBeCloseTo(20 + point(10) + 1, 9);
    const inches = await fileOf(inch("LEAVE BLOCK 4 X 3 X .75", "CUT ⌀.5 THRU"));
    expect(inches.plans.find((q) => q.kind === "drill")!.depth).toBeCloseTo(0.75 * 25.4 + point(12.7) + 1, 9);
  });
  it("blind: down to the point the callout draws", async () => {
    expect((await fileOf(mm(block, "CUT ⌀10 DEEP 8"))).plans.find((q) => q.kind === "drill")!.depth).toBeCloseTo(
      8 + point(10),
      9,
    );
  });
  it("beyond the drills, or with a flat bottom, are milled, never plunged by a tool without a name", async () => {
    const { plans } = await fileOf(
      inch("LEAVE BLOCK 4 X 3 X .75", "CUT ⌀2.125 DEEP .250", "CUT ⌀.5 DEEP .25 FLAT AT 1.5,1"),
    );
    expect(plans.filter((p) => p.row > 1).map((p) => [p.kind, p.cutter !== null, p.drill, p.problem])).toEqual([
      ["pocket", true, null, null],
      ["pocket", true, null, null],
    ]);
    // The wall of the large one: a circle half the cutter inside ⌀2.125.
    const [wall] = plans[1].chains;
    expect(wall[0]).toMatchObject({ kind: "arc", radius: (2.125 * 25.4 - plans[1].cutter!.diameter) / 2 });
  });
  it("of an odd size that no end mill goes into are left out and said", async () => {
    const { file } = await fileOf(mm(block, "CUT ⌀1.234 THRU"));
    expect(file.plans.map((p) => p.row)).toEqual([1]);
    expect(file.leftOut).toEqual([{ row: 2, what: "", why: expect.stringMatching(/no drill of this size/) }]);
  });
});

describe("what is not in the file", () => {
  it("is every row that has no path, every part of a row that has none, and every row that is off", async () => {
    const { file } = await fileOf(
      mm(
        block,
        "CUT 2X ⌀6.6 THRU CBORE ⌀11 DEEP 6 AT -20,0 20,0",
        "CUT M6 DEEP 8 DRILL DEEP 14",
        "CUT GROOVE OD 30 ID 26 DEEP 2",
        "CUT ⌀5 DEEP 5 ON FRONT AT 0,10",
        "OFF CUT FACE DEEP 1",
        "CUT BREAK .3 OUTER TOP",
      ),
    );
    expect(file.leftOut.map((l) => [l.row, l.what])).toEqual([
      [2, "counterbore"],
      [3, "tapping"],
      [4, ""],
      [5, ""],
      [6, ""],
      [7, ""],
    ]);
    expect(file.leftOut[3].why).toMatch(/another side/);
    const words = await wordsOf(mm(block, "CUT M6 DEEP 8 DRILL DEEP 14"));
    expect(words.split("\n").slice(0, 6).join()).toMatch(/ROW 2, ITS TAPPING/);
  });
  it("is the whole file when nothing is cut from above", async () => {
    expect(await wordsOf(mm("LEAVE BLOCK 100 X 60 X 80", "CUT ⌀5 DEEP 5 ON FRONT AT 0,10"))).toMatch(
      /refused: .*nothing is cut from above/,
    );
  });
});

describe("a facing row", () => {
  it("without a depth takes the stock and nothing of the part; with one it takes both", async () => {
    const stock = "STOCK PLATE 104 X 64 X 24 AT 0,0,0";
    const bare = await fileOf(mm(stock, block, "CUT FACE"));
    const face = bare.plans.find((p) => p.kind === "face")!;
    expect([face.depth, face.levels[face.levels.length - 1], bare.file.standing]).toEqual([
      0,
      0,
      { before: 24, faced: 20 },
    ]);
    const deep = await fileOf(mm(stock, block, "CUT FACE DEEP 2"));
    expect(deep.file.standing).toEqual({ before: 24, faced: 18 });
    const e = await evaluateJob(jobOf(mm(stock, block, "CUT FACE", "CUT ⌀10 DEEP 5")));
    expect(e.solved.rows.map((r) => [r.state, Math.round(r.removed)])).toEqual([
      ["ok", -120000],
      ["ok", 0],
      ["ok", Math.round(Math.PI * 25 * 5 + (Math.PI * 25 * (5 / Math.tan((59 * Math.PI) / 180))) / 3)],
    ]);
  });
  it("covers the whole stock with its cutter", async () => {
    const { plans } = await fileOf(mm("STOCK PLATE 104 X 64 X 24 AT 0,0,0", block, "CUT FACE"));
    const face = plans.find((p) => p.kind === "face")!;
    const points = face.chains[0].map((s) => (s.kind === "line" ? s.from : s.centre));
    const ys = [...new Set(points.map((p) => p.y))].sort((a, b) => a - b);
    const r = face.cutter!.diameter / 2;
    expect(ys[0] - r).toBeLessThanOrEqual(-32);
    expect(ys[ys.length - 1] + r).toBeGreaterThanOrEqual(32);
    ys.forEach((y, i) => {
      if (i) expect(y - ys[i - 1]).toBeLessThanOrEqual(2 * r);
    });
  });
});
