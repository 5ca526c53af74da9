import { evaluateCard, evaluateJob, inch, jobOf, kernel, mm } from "../../../tests/helpers/card";
import type { FaceInfo } from "../engine/kernel";
import { applyEdits, type Job, type JobEdit } from "../job";
import { toNumberText } from "../number";
import { completeness } from "../evaluate/complete";
import { featureOf, measureFeatures } from "./features";
import { numberScope } from "../engine/numbers";
import { balloonLimits } from "../balloons/tolerance";
import { readBalloonLine } from "../callout";

const states = async (text: string) =>
  Object.fromEntries((await evaluateCard(text)).ledger.map((l) => [l.number, l.state]));

describe("the ledger", () => {
  it("knows what drives, what is proved and what nobody uses", async () => {
    const s = await states(
      inch(
        "#1 4.000 ±.005",
        "#2 2.500 ±.005",
        "#3 .750",
        "#4 ⌀.281 ±.003",
        "#5 2X ⌀.281",
        "#6 .375 DEEP",
        "#7 9.99",
        "#8 R.25",
        "#9 2X 3/8-16 UNC-2B",
        "LEAVE BLOCK #1 X #2 X #3 R#8",
        "CUT 2X ⌀#4 THRU AT -1.2,.8 1.2,.8",
        "CUT POCKET 1 X 1 R.2 DEEP #6",
        "CUT 2X 3/8-16 UNC DEEP .4 DRILL DEEP .6 AT -1,-.8 1,-.8",
      ),
    );
    expect(s).toEqual({
      1: "proved",
      2: "proved",
      3: "proved",
      4: "proved",
      5: "unused",
      6: "proved",
      7: "unused",
      8: "proved",
      9: "proved",
    });
  });
  it("measures the solid and not the number: a diameter used as a radius is off", async () => {
    const e = await evaluateCard(mm("#1 ⌀40 ±0.1", "LEAVE ROUND ⌀#1*2 X 10"));
    expect(e.ledger[0]).toMatchObject({ state: "off", nominal: 40, by: expect.stringContaining("row 1") });
    expect(e.ledger[0].measured).toBeCloseTo(80, 9);
    expect((await evaluateCard(mm("#1 ⌀40 ±0.1", "LEAVE ROUND ⌀#1 X 10"))).ledger[0].state).toBe("proved");
  });
  it("holds a value just inside its limits and drops one just outside", async () => {
    const at = async (d: string) => (await states(mm("#1 ⌀40 ±0.1", `LEAVE ROUND ⌀#1${d} X 10`)))[1];
    expect(await at("+0.1")).toBe("proved");
    expect(await at("+0.101")).toBe("off");
    expect(await at("-0.1")).toBe("proved");
  });
  it("counts the copies that are really there", async () => {
    expect(await states(mm("#1 6X ⌀5 ±0.1", "LEAVE ROUND ⌀60 X 10", "CUT 5X ⌀#1 THRU ON BC 40"))).toEqual({ 1: "off" });
    expect(await states(mm("#1 6X ⌀5 ±0.1", "LEAVE ROUND ⌀60 X 10", "CUT 6X ⌀#1 THRU ON BC 40"))).toEqual({
      1: "proved",
    });
    expect(await states(mm("#1 6X M4", "LEAVE ROUND ⌀60 X 20", "CUT 5X M4 DEEP 8 ON BC 40"))).toEqual({ 1: "off" });
    expect(await states(mm("#1 6X", "LEAVE ROUND ⌀60 X 20", "CUT #1X ⌀4 DEEP 8 ON BC 40"))).toEqual({ 1: "proved" });
  });
  it("measures bolt circles, angles, grooves, offsets and depths", async () => {
    expect(
      await states(
        mm(
          "#1 ⌀42 ±0.1",
          "#2 30° ±1",
          "#3 90°",
          "#4 ⌀30",
          "#5 ⌀24",
          "#6 2.5 DEEP",
          "#7 6 ±0.1",
          "#8 15 ±0.05",
          "#9 ⌀8.4",
          "LEAVE ROUND ⌀60 X 20",
          "CUT 5X ⌀4 THRU CSK ⌀#9 X #3 ON BC #1 FROM #2",
          "CUT GROOVE OD #4 ID #5 DEEP #6",
          "CUT POCKET #7 X 4 R1 DEEP 3 AT 0,-#8/3",
        ),
      ),
    ).toEqual({
      1: "proved",
      2: "proved",
      3: "proved",
      4: "proved",
      5: "proved",
      6: "proved",
      7: "proved",
      8: "drives",
      9: "proved",
    });
  });
  it("lets a reference dimension be proved and never drive", async () => {
    // A size that merely agrees proves nothing: it is picked, and then it is measured there.
    expect(await states(mm("#1 20 REF", "#2 33 REF", "LEAVE BLOCK 40 X 30 X 20"))).toEqual({
      1: "unused",
      2: "unused",
    });
    const e = await evaluateCard(mm("#1 20 REF", "LEAVE BLOCK 40 X 30 X #1"));
    expect(e.solved.rows[0].message).toMatch(/never drives/);
  });
  it("follows a balloon through another", async () => {
    expect(await states(mm("#1 40", "#2 #1/2", "LEAVE BLOCK 40 X 30 X #2"))).toMatchObject({ 2: "proved" });
    const e = await evaluateCard(mm("#1 40", "#2 #1/2", "LEAVE BLOCK 40 X 30 X #2"));
    expect(e.ledger[0].rows).toEqual([1]);
  });
  it("proves a depth by a depth alone, and that of a thread that is not cut by its row and the hole it stands in", async () => {
    // Two holes 8 apart and 6 deep: the 8 between their axes is no proof of a depth of 8.
    expect(
      await states(
        mm("#1 8 ±0.5", "#2 8 DEEP ±0.5", "LEAVE BLOCK 60 X 40 X 30", "CUT 2X ⌀5 DEEP #2-2 FLAT AT -4,0 4,0"),
      ),
    ).toMatchObject({ 2: "off" });
    expect(
      await states(mm("#2 8 DEEP ±0.5", "LEAVE BLOCK 60 X 40 X 30", "CUT 2X ⌀5 DEEP #2 FLAT AT -4,0 4,0")),
    ).toEqual({ 2: "proved" });
    expect(await states(mm("#2 8 DEEP", "LEAVE BLOCK 60 X 40 X 30", "CUT M5 DEEP #2 DRILL DEEP 12"))).toEqual({
      2: "proved",
    });
  });
  it("calls a balloon of a failed row driving, not proved", async () => {
    expect(await states(mm("#1 4", "LEAVE BLOCK 40 X 30 X 20", "CUT ⌀#1 THRU ON FLOOR OF 9"))).toEqual({ 1: "drives" });
  });
});

describe("proof that was recorded", () => {
  const lines = mm("#1 40 ±0.2", "#2 20 ±0.2", "LEAVE BLOCK #1 X 30 X #2", "CUT ⌀5 THRU");
  const record = async (text: string): Promise<Job> => {
    const job = jobOf(text),
      e = await evaluateJob(job);
    return {
      ...job,
      proofs: e.ledger.map((l) => ({
        number: l.number,
        measured: l.measured,
        by: l.by,
        basis: l.basis,
        on: "2026-01-01",
        revision: "A",
      })),
    };
  };
  const after = async (job: Job, edits: JobEdit[]) => {
    const r = applyEdits(job, edits);
    if (!r.ok) throw new Error(r.problems[0].message);
    return Object.fromEntries((await evaluateJob(r.value.job)).ledger.map((l) => [l.number, l.state]));
  };
  const number = (path: string, text: string): JobEdit[] => [
    { edit: "setNumber", id: "r1", path, text: toNumberText(text) },
  ];
  it("stays proved when nothing it rests on has changed", async () => {
    expect(await after(await record(lines), [{ edit: "setHead", head: { name: "another name" } }])).toEqual({
      1: "proved",
      2: "proved",
    });
  });
  it("is stale when the row it was measured on has changed, though it still agrees", async () => {
    expect(await after(await record(lines), number("width", "31"))).toEqual({ 1: "stale", 2: "stale" });
    expect(await after(await record(lines), number("length", "#1+0.1"))).toEqual({ 1: "stale", 2: "stale" });
  });
  it("is stale when the print was read anew, and off when it disagrees", async () => {
    const job = await record(lines);
    expect(
      (
        await after(job, [
          {
            edit: "setBalloon",
            number: 1,
            balloon: { ...job.balloons[0], tolerance: { kind: "plusMinus", value: toNumberText("0.1") } },
          },
        ])
      )[1],
    ).toBe("stale");
    expect((await after(job, number("length", "#1+1")))[1]).toBe("off");
  });
  it("does not mind what another row does", async () => {
    expect(
      await after(await record(lines), [{ edit: "setNumber", id: "r2", path: "diameter", text: toNumberText("6") }]),
    ).toEqual({ 1: "proved", 2: "proved" });
  });
});

describe("a measurement picked by hand", () => {
  const pick = async (text: string, number: number, choose: (faces: FaceInfo[]) => FaceInfo[]) => {
    const job = jobOf(text),
      e = await evaluateJob(job);
    const faces = (await kernel()).faces(e.solved.finalKey!);
    const [a, b] = choose(faces).map((f) => featureOf(f, f.point)!);
    return {
      ...job,
      balloons: job.balloons.map((x) => (x.number === number ? { ...x, measure: { a, ...(b ? { b } : {}) } } : x)),
    };
  };
  const text = mm("#1 25 ±0.1", "#2 ⌀8", "LEAVE BLOCK 80 X 40 X 20", "CUT ⌀8 THRU AT -15,0", "CUT ⌀6 THRU AT 10,0");
  const round = (r: number) => (f: FaceInfo) => f.surface === "cylinder" && Math.abs(f.radius! - r) < 1e-9;
  it("proves a dimension nothing cites, between the two axes that were picked", async () => {
    const job = await pick(text, 1, (f) => [f.find(round(4))!, f.find(round(3))!]);
    expect((await evaluateJob(job)).ledger[0]).toMatchObject({
      state: "proved",
      measured: expect.closeTo(25, 9),
      by: expect.stringContaining("picked axes"),
    });
  });
  it("measures there and nowhere else, and follows the part", async () => {
    const job = await pick(text, 2, (f) => [f.find(round(3))!]);
    expect((await evaluateJob(job)).ledger[1]).toMatchObject({ state: "off", measured: expect.closeTo(6, 9) });
    const r = applyEdits(job, [{ edit: "setNumber", id: "r3", path: "diameter", text: toNumberText("8") }]);
    if (!r.ok) throw new Error();
    expect((await evaluateJob(r.value.job)).ledger[1].state).toBe("proved");
  });
  it("says so when the face is gone", async () => {
    const job = await pick(text, 2, (f) => [f.find(round(4))!]);
    const r = applyEdits(job, [{ edit: "deleteRow", id: "r2" }]);
    if (!r.ok) throw new Error();
    expect((await evaluateJob(r.value.job)).ledger[1]).toMatchObject({
      state: "unused",
      by: expect.stringMatching(/gone/),
    });
  });
  it("knows flats, angles and what has no plain distance", async () => {
    const e = await evaluateJob(
      jobOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT CHAMFER 5 VERTICAL", "CUT ⌀6 THRU", "CUT ⌀6 DEEP 5 FLAT ON FRONT")),
    );
    const faces = (await kernel()).faces(e.solved.finalKey!);
    const flat = (x: number, y: number, z: number) =>
      faces.find(
        (f) =>
          f.surface === "plane" &&
          Math.abs(f.normal.x - x) + Math.abs(f.normal.y - y) + Math.abs(f.normal.z - z) < 1e-9,
      )!;
    const m = (kind: "linear" | "angle" | "diameter", a: FaceInfo, b: FaceInfo | null) => {
      const r = measureFeatures(kind, a, b);
      return r.ok ? r.value[0].value : r.problems[0].message;
    };
    const holes = faces.filter((f) => f.surface === "cylinder");
    expect(m("linear", flat(1, 0, 0), flat(-1, 0, 0))).toBeCloseTo(40, 9);
    expect(
      m(
        "angle",
        flat(1, 0, 0),
        faces.find((f) => f.tag?.role === "chamfer")!,
      ),
    ).toBeCloseTo(Math.PI / 4, 9);
    expect(
      m(
        "linear",
        flat(1, 0, 0),
        holes.find((f) => Math.abs(f.axis!.direction.z) > 0.9)!,
      ),
    ).toBeCloseTo(20, 9);
    expect(m("linear", holes[0], holes[1])).toMatch(/not parallel/);
    expect(
      m(
        "linear",
        flat(0, 0, 1),
        holes.find((f) => Math.abs(f.axis!.direction.z) > 0.9)!,
      ),
    ).toMatch(/does not run along/);
    expect(m("linear", flat(0, 0, 1), null)).toMatch(/no size of its own/);
    expect(m("diameter", holes[0], null)).toBeCloseTo(6, 9);
  });
});

describe("what proves what", () => {
  it("takes a number of a row for what it means there: a length is no depth, an x no y", async () => {
    // The pocket comes out 15 long; neither its depth of 12 nor its 12 along y proves the length.
    expect(await states(mm("#1 12", "LEAVE BLOCK 80 X 60 X 40", "CUT POCKET #1+3 X 12 R2 DEEP 12"))).toEqual({
      1: "off",
    });
    expect(await states(mm("#1 12", "LEAVE BLOCK 80 X 60 X 40", "CUT 2X ⌀4 THRU AT #1+1,12 -20,12"))).toEqual({
      1: "off",
    });
    expect(await states(mm("#1 13", "LEAVE BLOCK 80 X 60 X 40", "CUT ⌀4 THRU AT 40-#1,12"))).toEqual({ 1: "proved" });
  });
  it("measures rounds along round edges, walls between pockets, and spacing of a grid", async () => {
    expect(await states(mm("#1 R1.5", "LEAVE ROUND ⌀40 X 20", "CUT ROUND #1 OUTER TOP"))).toEqual({ 1: "proved" });
    expect(
      await states(mm("#1 4 ±0.1", "#2 60", "LEAVE BLOCK #2 X 40 X 20", "CUT POCKET (#2-2*#1) X 30 R3 DEEP 8")),
    ).toEqual({ 1: "proved", 2: "proved" });
    expect(await states(mm("#1 20", "#2 15", "LEAVE BLOCK 80 X 60 X 10", "CUT 4X ⌀5 THRU GRID 2 2 BY #1 #2"))).toEqual({
      1: "proved",
      2: "proved",
    });
    expect(await states(mm("#1 60°", "LEAVE ROUND ⌀60 X 10", "CUT 6X ⌀5 THRU ON BC 40 FROM #1"))).toEqual({
      1: "proved",
    });
  });
  it("holds a basic dimension exactly and a MAX from above alone", async () => {
    expect(await states(mm("#1 40 BASIC", "LEAVE BLOCK #1+0.001 X 30 X 20"))).toEqual({ 1: "off" });
    expect(await states(mm("#1 40 BASIC", "LEAVE BLOCK #1 X 30 X 20"))).toEqual({ 1: "proved" });
    expect(await states(mm("#1 R3 MAX", "LEAVE BLOCK 40 X 30 X 20 R#1-1"))).toEqual({ 1: "proved" });
    expect(await states(mm("#1 R3 MAX", "LEAVE BLOCK 40 X 30 X 20 R#1+0.1"))).toEqual({ 1: "off" });
    expect(await states(mm("#1 8 DEEP MIN", "LEAVE BLOCK 40 X 30 X 20", "CUT POCKET 20 X 10 R3 DEEP #1+4"))).toEqual({
      1: "proved",
    });
  });
  it("models the middle of a fit where that is asked for, and says so where the nominal lies outside", async () => {
    expect((await evaluateCard(mm("#1 ⌀50 f7", "LEAVE ROUND ⌀#1 X 10"))).ledger[0]).toMatchObject({
      state: "off",
      by: expect.stringMatching(/MID/),
    });
    const e = await evaluateCard(mm("#1 ⌀50 f7 MID", "LEAVE ROUND ⌀#1 X 10"));
    expect(e.ledger[0]).toMatchObject({ state: "proved", nominal: 50, measured: expect.closeTo(49.9625, 9) });
    expect((await evaluateCard(mm("#1 ⌀20.1 / 19.9", "LEAVE ROUND ⌀#1 X 10"))).ledger[0]).toMatchObject({
      state: "proved",
      measured: expect.closeTo(20, 9),
    });
  });
  it("takes a count in a row for the print's where its balloon prints the same one", async () => {
    const source = async (n: string) =>
      (
        await evaluateCard(mm("#1 6X ⌀5", "LEAVE ROUND ⌀60 X 10", `CUT ${n}X ⌀#1 THRU ON BC 40`))
      ).solved.rows[1].numbers.find((x) => x.path === "count")!.value!.source;
    expect([await source("6"), await source("5")]).toEqual(["print", "unsourced"]);
  });
  it("says in one line how far the model answers the print", async () => {
    const job = jobOf(mm("#1 40", "#2 99", "#3 ⌀5", "LEAVE BLOCK #1 X 30 X 20", "CUT ⌀#3*2 THRU"));
    expect(completeness(job, await evaluateJob(job)).text).toBe(
      "1 of 3 balloons proved, 1 unused, 1 off; 2 numbers in the model have no source",
    );
  });
});

describe("counts and areas", () => {
  const figures = async (...lines: string[]) => {
    const e = await evaluateCard(mm(...lines, "CHECK EDGES 1", "CHECK HOLES 1", "CHECK AREA ALL 1"));
    return e.checks.map((c) => Number(c.actual!.toFixed(6)));
  };
  it("counts edges and holes as a person does", async () => {
    expect((await figures("LEAVE BLOCK 40 X 30 X 20")).slice(0, 2)).toEqual([12, 0]);
    expect((await figures("LEAVE ROUND ⌀40 X 20")).slice(0, 2)).toEqual([2, 0]);
    expect((await figures("LEAVE BLOCK 40 X 30 X 20", "CUT ⌀8 THRU CBORE ⌀14 DEEP 5")).slice(0, 2)).toEqual([16, 1]);
    expect(
      (
        await figures(
          "LEAVE ROUND ⌀60 X 20",
          "CUT POCKET ⌀20 THRU",
          "CUT GROOVE BORE ⌀24 WIDE 2 START 8",
          "CUT GROOVE OD 50 ID 40 DEEP 3",
          "CUT 6X ⌀5 THRU ON BC 32",
        )
      )[1],
    ).toBe(7);
    expect((await figures("LEAVE BLOCK 40 X 30 X 20", "CUT ⌀8 DEEP 6 FLAT", "CUT ⌀8 DEEP 6 FLAT ON BOTTOM"))[1]).toBe(
      2,
    );
  });
  it("knows the whole surface and a row's floor", async () => {
    expect((await figures("LEAVE BLOCK 40 X 30 X 20"))[2]).toBe(2 * (40 * 30 + 40 * 20 + 30 * 20));
    const e = await evaluateCard(
      mm("LEAVE BLOCK 40 X 30 X 20", "CUT POCKET 20 X 10 R2 DEEP 5", "CHECK AREA FLOOR OF 2 196.57"),
    );
    expect(e.checks[0]).toMatchObject({ agrees: true, of: "floor of 2" });
    expect(e.checks[0].actual).toBeCloseTo(200 - (4 - Math.PI) * 4, 6);
    expect(
      (await evaluateCard(mm("LEAVE BLOCK 40 X 30 X 20", "CUT ⌀5 THRU", "CHECK AREA FLOOR OF 2 5"))).checks[0],
    ).toMatchObject({ agrees: false, problem: expect.stringMatching(/no floor/) });
  });
});

describe("tolerances", () => {
  const limits = (text: string, title = {}) => {
    const r = readBalloonLine(text, 1);
    if (!r.ok) throw new Error(r.error.message);
    const l = balloonLimits(r.balloon, { unit: "mm", title }, numberScope({ unit: "mm", balloons: [] }));
    return l.ok && [l.value.nominal, l.value.low, l.value.high].map((n) => Number(n.toFixed(6)));
  };
  it("reads ± and one-sided ones", () => {
    expect(limits("10 ±0.1")).toEqual([10, 9.9, 10.1]);
    expect(limits("20 +0.021 -0")).toEqual([20, 20, 20.021]);
  });
  it("reads limits either way round, fits, general classes, MAX and MIN", () => {
    expect(limits("⌀20.021 / 20.000")).toEqual([20.0105, 20, 20.021]);
    expect(limits("1.245 TO 1.255")).toEqual([1.25, 1.245, 1.255]);
    expect(limits("1.255/1.245")).toEqual([1.25, 1.245, 1.255]);
    expect(limits("⌀20 H7")).toEqual([20, 20, 20.021]);
    expect(limits("⌀20g6")).toEqual([20, 19.98, 19.993]);
    expect(limits("25 js9")).toEqual([25, 24.974, 25.026]);
    expect(limits("100 ISO 2768-m")).toEqual([100, 99.7, 100.3]);
    expect(limits("R5 ISO 2768-c")).toEqual([5, 4, 6]);
    // Over 6 mm a radius is a dimension: table 1.
    expect(limits("R25 ISO 2768-m")).toEqual([25, 24.8, 25.2]);
    expect(limits("R.5 MAX")).toEqual([0.5, 0, 0.5]);
    expect(limits("20 +0.05 +0.02")).toEqual([20, 20.02, 20.05]);
    expect(limits("20 -0.02 -0.05")).toEqual([20, 19.95, 19.98]);
    expect(limits("20 -0.05 -0.02")).toEqual([20, 19.95, 19.98]);
    expect(limits("20 +0.05")).toEqual([20, 20, 20.05]);
    expect(limits("20 -0.05 +0")).toEqual([20, 19.95, 20]);
    expect(limits("40 BASIC")).toEqual([40, 40, 40]);
  });
  it("takes the general class and the angle of the title block", () => {
    expect(limits("10.0", { general: "m" })).toEqual([10, 9.8, 10.2]);
    expect(limits("R5", { general: "f" })).toEqual([5, 4.5, 5.5]);
    const angle = (t: string, title: object) =>
      limits(t, title) && (limits(t, title) as number[]).map((v) => Number(((v * 180) / Math.PI).toFixed(3)));
    expect(angle("45°", { general: "m" })).toEqual([45, 44.917, 45.083]);
    expect(angle("45° LEG 60", { general: "m" })).toEqual([45, 44.667, 45.333]);
    expect(angle("45°", { angleTolerance: "0.5" })).toEqual([45, 44.5, 45.5]);
    expect(limits("3/8", { fractionTolerance: "1/64" })).toEqual([0.375, 0.359375, 0.390625]);
    // Decimals stated in the block come before its class.
    expect(limits("10.00", { general: "m", tolerances: [null, null, "0.05", null, null] })).toEqual([10, 9.95, 10.05]);
  });
  it.each([
    ["20 H7 ±0.1", /two tolerances/],
    ["20 BASIC ±0.1", /basic/i],
    ["20 / 20", /the same/],
    ["45 ISO 9", /2768/],
    ["20 ZONE", /zone/],
  ])("%s is refused", (text, why) => {
    const r = readBalloonLine(text, 1);
    expect(r.ok ? "" : `${r.error.message} ${r.error.expected}`).toMatch(why);
  });
  it("goes by the number of decimals, as the title block says", () => {
    expect(limits("10.0", { tolerances: [null, "0.3", "0.1", null, null] })).toEqual([10, 9.7, 10.3]);
    expect(limits("10.00", { tolerances: [null, "0.3", "0.1", null, null] })).toEqual([10, 9.9, 10.1]);
    expect(limits("10.0")).toEqual([10, 9.95, 10.05]);
  });
});

describe("check values", () => {
  const agrees = async (check: string, ...lines: string[]) =>
    (await evaluateCard(mm(...(lines.length ? lines : ["LEAVE BLOCK 40 X 30 X 20"]), check))).checks[0].agrees;
  it("agree when the model rounds to what is printed", async () => {
    expect(await agrees("CHECK VOLUME 24000")).toBe(true);
    expect(await agrees("CHECK VOLUME 24100")).toBe(false);
    expect(await agrees("CHECK MASS 188.9 g")).toBe(true);
    expect(await agrees("CHECK MASS 188.7 g")).toBe(false);
    expect(await agrees("CHECK MASS .189 kg")).toBe(true);
    expect(await agrees("CHECK MASS .4164 lb")).toBe(true);
    expect(await agrees("CHECK AREA TOP 1200")).toBe(true);
    expect(await agrees("CHECK AREA LEFT 600")).toBe(true);
    expect(await agrees("CHECK AREA LEFT 601")).toBe(false);
    expect(await agrees("CHECK SIZE X 40")).toBe(true);
    expect(await agrees("CHECK SIZE X 40.2")).toBe(false);
    expect(await agrees("CHECK SIZE X 40.2 ±0.3")).toBe(true);
  });
  it("stand in the unit of the job", async () => {
    const e = await evaluateCard(
      inch("LEAVE BLOCK 2 X 1 X .5", "CHECK VOLUME 1", "CHECK AREA FRONT 1", "CHECK SIZE Z .5"),
    );
    expect(e.checks.map((c) => c.agrees)).toEqual([true, true, true]);
    expect(e.checks[0].expected).toBeCloseTo(16387.064, 6);
  });
  it("are off where there is no part", async () => {
    const e = await evaluateJob(jobOf("UNIT mm\nCHECK SIZE X 4"));
    expect(e.checks[0]).toMatchObject({ agrees: false, actual: null });
  });
});

describe("outlines in the ledger", () => {
  const keyed = (w: string, over: string) =>
    mm(
      "#1 ⌀20 H7",
      "#2 6 ±0.05",
      "#3 22.8 +0.1 -0",
      "#4 60",
      "#5 4X R3",
      'OUTLINE "bore"',
      "CIRCLE ⌀#1",
      'JOIN "key"',
      "END",
      'OUTLINE "key"',
      `RECTANGLE ${w} X (${over} - #1/2) AT 0,((${over} - #1/2)/2)`,
      "END",
      'OUTLINE "plate"',
      "RECTANGLE #4 X #4",
      "ROUND #5 ALL",
      'CUTOUT "bore"',
      "END",
      'LEAVE PRISM "plate" X 10',
    );
  it("proves what an outline is made of on the walls it left, and never a width by a diameter", async () => {
    expect(await states(keyed("#2", "#3"))).toEqual({
      1: "proved",
      2: "proved",
      3: "proved",
      4: "proved",
      5: "proved",
    });
    expect(await states(keyed("#2+1", "#3"))).toMatchObject({ 2: "off", 3: "proved" });
    expect(await states(keyed("#2", "#3+1"))).toMatchObject({ 2: "proved", 3: "off" });
  });
  it("counts its rounds, and its teeth by their equal walls", async () => {
    expect(await states(keyed("#2", "#3").replace("#5 4X", "#5 8X"))).toMatchObject({ 4: "proved", 5: "off" });
    const wheel = (n: string) =>
      mm(
        "#1 10X",
        "#2 10X R2",
        'OUTLINE "tooth"',
        "RECTANGLE 8 X 20 AT 0,30",
        "ROUND #2 OUTSIDE",
        "REPEAT #1",
        'JOIN "disc"',
        "END",
        'OUTLINE "disc"',
        "CIRCLE ⌀56",
        "END",
        'LEAVE PRISM "tooth" X 6',
      ).replace("REPEAT #1", `REPEAT ${n}X`);
    expect(await states(wheel("#1"))).toMatchObject({ 1: "proved" });
    expect(await states(wheel("(#1+1)"))).toMatchObject({ 1: "off" });
  });
});
