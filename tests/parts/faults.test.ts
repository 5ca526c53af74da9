// Small deliberate faults in the core once passed every test: one scalar, one symmetric or one one-sided case hid
// them. Each has its test here.
import fc from "fast-check";
import { changedRow } from "@/core/rows";
import { toNumberText } from "@/core/number";
import { readCard } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import { applyEdits, type Job } from "@/core/job";
import { explain } from "@/core/mismatch";
import { combine, oriented, type Region } from "@/core/outline/boolean";
import { loopArea, perimeter } from "@/core/outline";
import { evaluateOutlines } from "@/core/outline/evaluateOutline";
import { planPaths } from "@/core/paths/plan";
import { piecesPerBar } from "@/core/stock/stock";
import { evaluateCard, evaluateJob, inch, jobOf, kernel, mm } from "../helpers/card";

const outlineOf = (...lines: string[]) => {
  const { job, errors } = readCard(["UNIT mm", 'OUTLINE "o"', ...lines, "END"].join("\n"));
  if (errors.length) throw new Error(errors[0].message);
  return [...evaluateOutlines(job.outlines, numberScope(job)).values()][0];
};
const area = (r: Region) => r.reduce((s, l) => s + loopArea(l), 0);

describe("a proof that was recorded", () => {
  it("rests on the plane: the same depth on another side is another proof", async () => {
    const job = jobOf(mm("#1 8 DEEP", "LEAVE BLOCK 80 X 60 X 30", "CUT POCKET 40 X 20 R5 DEEP #1"));
    const first = (await evaluateJob(job)).ledger[0];
    const signed: Job = {
      ...job,
      proofs: [
        { number: 1, measured: first.measured, by: first.by, basis: first.basis, on: "2026-11-26", revision: "A" },
      ],
    };
    const turned = applyEdits(signed, [
      { edit: "setRow", id: job.rows[1].id, body: changedRow(job.rows[1].body, { plane: { on: "bottom" } })! },
    ]);
    const lowered = applyEdits(signed, [
      { edit: "setNumber", id: job.rows[0].id, path: "at.z", text: toNumberText("3") },
    ]);
    if (!turned.ok) throw new Error();
    expect((await evaluateJob(signed)).ledger[0].state).toBe("proved");
    expect((await evaluateJob(turned.value.job)).ledger[0].state).toBe("stale");
    if (lowered.ok && !("at" in job.rows[0].body))
      expect((await evaluateJob(signed)).ledger[0].basis).toBe(first.basis);
  });
});

describe("a check value with a tolerance of its own", () => {
  const agrees = async (text: string) => (await evaluateCard(text)).checks[0].agrees;
  it.each([
    ["SIZE X 4.02 ±.03", true],
    ["SIZE X 4.02 ±.01", false],
    ["AREA TOP 12.02 ±.03", true],
    ["AREA TOP 12.02 ±.01", false],
    ["VOLUME 9.02 ±.03", true],
    ["VOLUME 9.02 ±.01", false],
  ])("in inches: %s", async (check, right) =>
    expect(await agrees(inch("LEAVE BLOCK 4 X 3 X .75", `CHECK ${check}`))).toBe(right),
  );
  it.each([
    ["SIZE X 40.2 ±.3", true],
    ["SIZE X 40.2 ±.1", false],
    ["AREA TOP 1202 ±3", true],
    ["AREA TOP 1202 ±1", false],
  ])("in millimetres: %s", async (check, right) =>
    expect(await agrees(mm("LEAVE BLOCK 40 X 30 X 20", `CHECK ${check}`))).toBe(right),
  );
});

describe("a bar", () => {
  it("needs no kerf behind its last piece", () => {
    const pieces = (bar: number, remnant = 0) => {
      const r = piecesPerBar(bar, 10, 1, remnant);
      return r.ok ? r.value : -1;
    };
    expect([
      pieces(9.99),
      pieces(10),
      pieces(20.99),
      pieces(21),
      pieces(31.99),
      pieces(32),
      pieces(42, 11),
      pieces(42, 10),
    ]).toEqual([0, 1, 1, 2, 2, 3, 2, 3]);
  });
});

describe("round stock", () => {
  it("is asked for what stands off its axis, not only for the largest circle", async () => {
    const out = async (x: number) =>
      (await evaluateCard(mm("STOCK ROUND 60 X 20 AT 0,0,0", "LEAVE ROUND ⌀30 X 20", `LEAVE ROUND ⌀20 X 20 AT ${x},0`)))
        .stock!.radial;
    expect(await out(12)).toBeCloseTo(30 - 22, 6);
    expect(await out(-12)).toBeCloseTo(30 - 22, 6);
    expect(await out(25)).toBeCloseTo(30 - 35, 6);
  });
});

describe("the time of a path", () => {
  it("goes with its length and its cutter's feed, place by place", async () => {
    const plan = async (feed: number, x: number) => {
      const job = {
        ...jobOf(mm("LEAVE BLOCK 100 X 60 X 20", `CUT POCKET ${x} X 30 R5 DEEP 5`)),
        crib: [{ name: "one", diameter: 10, reach: 30, feed }],
      };
      return planPaths(job, (await evaluateJob(job)).solved.rows).find((p) => p.row === 2)!;
    };
    const [slow, fast, long] = [await plan(200, 40), await plan(400, 40), await plan(200, 80)];
    const cutting = slow.length / 200;
    expect(slow.minutes - fast.minutes).toBeCloseTo(cutting / 2, 9);
    expect(long.minutes - slow.minutes).toBeCloseTo((long.length - slow.length) / 200, 9);
    expect(slow.minutes).toBeGreaterThan(cutting);
  });
});

describe("a dimension too many", () => {
  const plate = (value: string) =>
    outlineOf("START 0,0", "LINE TO X 40", "LINE TO Y 30", "LINE TO X 0", "CLOSE", `LENGTH 2 ${value}`);
  it("repeats what is known, or contradicts it: a hundredth is no repetition", () => {
    expect([plate("30").wire!.redundant.length, plate("30").wire!.conflicts.length]).toEqual([1, 0]);
    for (const off of ["30.01", "29.99", "30.0005"])
      expect([off, plate(off).wire!.conflicts.length > 0]).toEqual([off, true]);
    // One that pins what was free is no repetition.
    expect(
      outlineOf("START 0,0", "LINE TO X 40", "LINE TO Y ?", "LINE TO X 0", "CLOSE", "LENGTH 2 30").wire!.redundant,
    ).toEqual([]);
  });
});

describe("a relief", () => {
  const box = (how: string, at: string) => {
    const b = outlineOf(
      "START 0,0",
      "LINE TO X 40",
      "LINE TO Y 30",
      "LINE TO X 0",
      "CLOSE",
      `RELIEF 6 ${how} AT ${at}`,
    ).box!;
    return [b.min.x, b.min.y, b.max.x, b.max.y].map((v) => Number(v.toFixed(6)) + 0);
  };
  it("along one wall goes out of that wall's end and leaves the other wall's side alone", () => {
    expect(["P1", "P2", "P3"].map((p) => box("WALL", p))).toEqual([
      [0, -3, 40, 30],
      [0, 0, 43, 30],
      [0, 0, 40, 33],
    ]);
    expect(["P1", "P2", "P3"].map((p) => box("CORNER", p))).toEqual([
      [0, -3, 43, 30],
      [0, 0, 43, 33],
      [-3, 0, 40, 33],
    ]);
  });
});

describe("the finder", () => {
  it("says how many other check values a slip mends, and ranks it before one that mends none", async () => {
    const right = mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 40 X 30 R6 DEEP 8");
    const e = await evaluateCard(right);
    const wrong = jobOf(
      [
        mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 40 X 30 R6 DEEP 3"),
        `CHECK VOLUME ${e.part!.volume.toFixed(2)}`,
        `CHECK AREA ALL ${e.part!.surfaceArea.toFixed(2)}`,
      ].join("\n"),
    );
    const found = await explain(wrong, await evaluateJob(wrong), await kernel(), { until: Infinity });
    expect(found).toHaveLength(2);
    for (const m of found)
      expect(m.explanations[0]).toMatchObject({ row: 2, field: "deep", to: "8", agrees: true, alsoMends: 1 });
    expect(found.flatMap((m) => m.explanations).some((x) => x.alsoMends === 0)).toBe(true);
  });

  it("names an unused balloon first where only its row is missing, and two slips where no single one will do", async () => {
    const card = (...rows: string[]) => inch("#1 10X 2", "#2 7X ⌀1.5", "LEAVE ROUND 12 X 1", ...rows);
    const volume = ((await evaluateCard(card("CUT 7X ⌀#2 THRU ON BC 8"))).part!.volume / 25.4 ** 3).toFixed(4);
    const missing = jobOf(`${card()}\nCHECK VOLUME ${volume} ±.001`);
    const [m] = await explain(missing, await evaluateJob(missing), await kernel(), { until: Infinity });
    expect(m.explanations[0]).toMatchObject({ kind: "missing-row", balloon: 2, agrees: true });
    const part = (l: string, d: string) =>
      mm("LEAVE BLOCK 120 X 80 X 20", `CUT POCKET ${l} X 30 R6 DEEP 8`, `CUT ⌀${d} THRU AT 45,25`);
    const goal = (await evaluateCard(part("52", "10"))).part!.volume.toFixed(3);
    const two = jobOf(`${part("25", "20")}\nCHECK VOLUME ${goal} ±.01`);
    const [pair] = await explain(two, await evaluateJob(two), await kernel(), { until: Infinity });
    expect(pair.explanations.find((x) => x.agrees)).toMatchObject({ second: expect.anything(), agrees: true });
    expect(pair.tried.pairs).toBeGreaterThan(0);
  });

  it("ranks a misread radius of an outline first, with the face area given", async () => {
    const plate = (r: string) =>
      inch(
        `#8 R${r}`,
        'OUTLINE "plate"',
        "RECTANGLE 4 X 3",
        "ROUND #8 ALL",
        "END",
        'LEAVE PRISM "plate" X .5',
        "CUT 2X ⌀.25 THRU AT -1,0 1,0",
      );
    const top = ((await evaluateCard(plate(".50"))).part!.faceArea.top / 25.4 ** 2).toFixed(4);
    const wrong = jobOf(`${plate(".25")}\nCHECK AREA TOP ${top}`);
    const [m] = await explain(wrong, await evaluateJob(wrong), await kernel(), { until: Infinity });
    expect(m.explanations[0]).toMatchObject({ balloon: 8, from: ".25", to: ".50", agrees: true });
  });
});

describe("booleans and offsets of outlines", () => {
  const shapes = fc.record({
    l: fc.integer({ min: 20, max: 60 }),
    w: fc.integer({ min: 12, max: 40 }),
    x: fc.integer({ min: -25, max: 25 }),
    y: fc.integer({ min: -18, max: 18 }),
    d: fc.integer({ min: 8, max: 50 }),
    turn: fc.integer({ min: 1, max: 88 }),
  });
  it("obey inclusion and exclusion wherever they lie", () => {
    fc.assert(
      fc.property(shapes, ({ l, w, x, y, d, turn }) => {
        const a = outlineOf(`RECTANGLE ${l} X ${w} R3 TURN ${turn}`).region;
        const b = outlineOf(`CIRCLE ⌀${d} AT ${x}.3,${y}.7`).region;
        const [join, cut, overlap] = (["join", "cutout", "overlap"] as const).map((how) =>
          area(oriented(combine(a, b, how))),
        );
        expect(join).toBeCloseTo(area(a) + area(b) - overlap, 6);
        expect(cut).toBeCloseTo(area(a) - overlap, 6);
      }),
      { numRuns: 60 },
    );
  });
  it("grow by Steiner: area A + p d + π d², length p + 2 π d, inch twin too", () => {
    for (const d of [1, 2.5, 7]) {
      const a = outlineOf("RECTANGLE 40 X 30");
      const g = outlineOf("RECTANGLE 40 X 30", `OFFSET ${d}`);
      expect(g.area).toBeCloseTo(a.area + a.perimeter * d + Math.PI * d * d, 6);
      expect(g.region.reduce((s, r) => s + perimeter(r), 0)).toBeCloseTo(a.perimeter + 2 * Math.PI * d, 6);
    }
  });
});
