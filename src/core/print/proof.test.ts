import { evaluateCard, evaluateJob, inch, jobOf, mm } from "../../../tests/helpers/card";
import { changedRow } from "../rows";
import { applyEdits, type Job, type JobEdit } from "../job";
import { toNumberText } from "../number";

const states = async (text: string) =>
  Object.fromEntries((await evaluateCard(text)).ledger.map((l) => [l.number, l.state]));
const said = async (text: string, n = 1) => (await evaluateCard(text)).ledger.find((l) => l.number === n)!;

describe("a balloon is proved by its own dimension or not at all", () => {
  it("not by a middle, a half or a neighbour that happens to be as large", async () => {
    expect(await states(mm("#1 40", "#2 80", "LEAVE BLOCK #2 X 44 X 20"))).toEqual({ 1: "unused", 2: "proved" });
    expect(await states(mm("#1 40", "#2 80", "LEAVE BLOCK #2 X (#1+4) X 20"))).toEqual({ 1: "off", 2: "proved" });
    expect(await states(mm("#1 40", "#2 80", "LEAVE BLOCK #2 X #1 X 20"))).toEqual({ 1: "proved", 2: "proved" });
  });

  it("not by what is only near it, and with a general class the right part stays right", async () => {
    const part = (...more: string[]) =>
      mm(
        ...more,
        "#1 38",
        "#2 3 DEEP",
        "#3 85",
        "LEAVE BLOCK #3 X 60 X 38.5",
        "CUT POCKET #1 X 20 R4 DEEP #2",
        "CUT ⌀3.4999 DEEP 3.4999 FLAT AT 30,20",
      );
    expect(await states(part())).toEqual({ 1: "proved", 2: "proved", 3: "proved" });
    expect(await states(part("TOLERANCES ISO 2768-m"))).toEqual({ 1: "proved", 2: "proved", 3: "proved" });
    expect(await said(part("TOLERANCES ISO 2768-m"))).toMatchObject({
      measured: expect.closeTo(38, 9),
      by: expect.stringContaining("row 2"),
    });
  });

  it("an angle counted from another axis, with and without a countersink beside it", async () => {
    for (const csk of ["", "CSK ⌀9 X 90"])
      for (const from of ["(90+#1)", "(90-#1)", "#1", "(180+#1)", "(270-#1)"])
        expect([
          csk,
          from,
          await states(mm("#1 36°", "LEAVE ROUND ⌀60 X 10", `CUT 5X ⌀4 THRU ${csk} ON BC 40 FROM ${from}`)),
        ]).toEqual([csk, from, { 1: "proved" }]);
    expect(await states(mm("#1 36°", "LEAVE ROUND ⌀60 X 10", "CUT 5X ⌀4 THRU ON BC 40 FROM (91+#1)"))).toEqual({
      1: "off",
    });
  });

  it.each([".5 X 45°", ".5"])("a chamfer %s of an outline, by its legs", async (dimension) => {
    const card = (size: string) =>
      mm(
        `#9 ${dimension}`,
        'OUTLINE "plate"',
        "RECTANGLE 40 X 30",
        `CHAMFER ${size} ALL`,
        "END",
        'LEAVE PRISM "plate" X 10',
      );
    expect(await states(card("#9"))).toEqual({ 9: "proved" });
    expect(await said(card("#9"), 9)).toMatchObject({ measured: expect.closeTo(0.5, 9) });
    expect(await states(card("(#9*2)"))).not.toEqual({ 9: "proved" });
  });

  it("legs and slopes of chamfers, radii of rounds, on straight and round edges", async () => {
    expect(await states(mm("#1 1 X 45°", "LEAVE BLOCK 40 X 30 X 10", "CUT CHAMFER #1 OUTER TOP"))).toEqual({
      1: "proved",
    });
    expect(await states(mm("#1 1", "#2 30°", "LEAVE ROUND ⌀40 X 10", "CUT CHAMFER #1 X #2 OUTER TOP"))).toEqual({
      1: "proved",
      2: "proved",
    });
    expect(await states(mm("#1 R2", "LEAVE ROUND ⌀40 X 10", "CUT ROUND #1 OUTER TOP"))).toEqual({ 1: "proved" });
    expect(await states(mm("#1 R2", "LEAVE BLOCK 40 X 30 X 10", "CUT ROUND (#1+1) VERTICAL"))).toEqual({ 1: "off" });
  });

  it("a printed chamfer is not taken smaller by breaking what is sharp", async () => {
    const card = inch("#1 .06 X 45°", "LEAVE BLOCK 3 X 2 X 1", "CUT CHAMFER #1 OUTER TOP", "CUT BREAK .010 ALL SHARP");
    expect(await states(card)).toEqual({ 1: "proved" });
    expect((await evaluateCard(card)).solved.rows[2].removed).toBeGreaterThan(0);
  });

  it("arcs of turned profiles and of prisms, tapers by their half angle", async () => {
    const turned = mm(
      "#1 R8",
      "#2 ⌀54",
      "#3 44",
      "#4 15°",
      'OUTLINE "half"',
      "START 0,0",
      "LINE TO X ⌀#2",
      "LINE TO Y (#3-#1)",
      "ARC TO ⌀(#2-2*#1),#3 R #1",
      "LINE TO 0,#3",
      "CLOSE",
      "END",
      'LEAVE TURNED "half"',
      'OUTLINE "cone"',
      "START 0,0",
      "LINE TO X ⌀20",
      "LINE A (90+#4) L 20",
      "LINE TO X 0",
      "CLOSE",
      "END",
    );
    expect(await states(turned)).toMatchObject({ 1: "proved", 2: "proved", 3: "proved", 4: "unused" });
    expect(await states(mm("#1 R12", 'OUTLINE "o"', "SLOT 60 X (2*#1)", "END", 'LEAVE PRISM "o" X 10'))).toEqual({
      1: "proved",
    });
  });

  it("a difference of two: each is the dimension it stands for, and not the whole", async () => {
    const card = (depth: string) =>
      mm("#5 70", "#6 30", "LEAVE BLOCK 100 X 60 X #5", `CUT POCKET 50 X 30 R5 DEEP ${depth}`);
    expect(await states(card("(#5-#6)"))).toEqual({ 5: "proved", 6: "proved" });
    expect(await said(card("(#5-#6)"), 6)).toMatchObject({ measured: expect.closeTo(30, 9) });
    expect(await states(card("(#5-#6-2)"))).toEqual({ 5: "proved", 6: "off" });
    expect(
      await states(mm("#5 70", "#6 30", "LEAVE BLOCK 100 X 60 X 70", "CUT POCKET 50 X 30 R5 DEEP (#5-#6)")),
    ).toMatchObject({ 6: "drives" });
  });

  it("a place counted from the middle of another row", async () => {
    const card = (x: string) =>
      mm(
        "#1 20",
        "#2 2X ⌀24",
        "LEAVE BLOCK 200 X 100 X 20",
        "CUT ⌀10 THRU AT 35,0",
        `CUT 2X ⌀24 THRU AT ${x},-15 ${x},15`,
      );
    expect(await states(card("(35-#1)"))).toMatchObject({ 1: "proved" });
    expect(await states(card("(35-#1-3)"))).toMatchObject({ 1: "off" });
  });

  it("a pitch whose hole is gone by nothing else that answers to it, and by nothing that happens to agree", async () => {
    const card = (pocket: string) =>
      mm(
        "#1 25",
        "LEAVE BLOCK 60 X 40 X 20",
        "CUT ⌀6 THRU LINE 2 BY #1 AT -12.5,0",
        `CUT POCKET 20 X 20 R2 THRU AT ${pocket},0`,
      );
    // The pocket's middle lies 25.02 from the hole that is left: a figure inside the tolerance, and not the pitch.
    for (const x of ["-15", "-12.52"]) expect([x, (await states(card(x)))[1]]).toEqual([x, "drives"]);
    expect(await states(mm("#1 25", "LEAVE BLOCK 60 X 40 X 20", "CUT ⌀6 THRU LINE 2 BY #1 AT -12.5,0"))).toMatchObject({
      1: "proved",
    });
  });

  it("the middle of a size that is there, and no half of anything else", async () => {
    expect(await states(mm("#1 80", "#2 60", "LEAVE BLOCK #1 X #2 X 20 CORNER", "CUT ⌀10 THRU AT #1/2,#2/2"))).toEqual({
      1: "proved",
      2: "proved",
    });
    expect(await states(mm("#1 30", "LEAVE BLOCK 80 X 60 X 20", "CUT 2X ⌀10 THRU AT -#1/2,5 #1,-5"))).toEqual({
      1: "drives",
    });
    expect(await states(mm("#1 30", "LEAVE BLOCK 80 X 60 X 20", "CUT 2X ⌀10 THRU AT -#1/2,5 #1/2,5"))).toEqual({
      1: "proved",
    });
  });

  it("not a reference dimension by something as large; it is picked", async () => {
    expect(
      await said(inch('#1 .5 REF "border"', "LEAVE BLOCK 4 X 3 X .5", "CUT POCKET 2.5 X 1.5 R.25 DEEP .2")),
    ).toMatchObject({ state: "unused", by: expect.stringMatching(/pick/) });
  });

  it("holes that run into one another are not the holes the print counts", async () => {
    expect(await states(mm("#1 4X ⌀10", "#2 ⌀12", "LEAVE ROUND ⌀60 X 10", "CUT 4X ⌀#1 THRU ON BC #2"))).toMatchObject({
      1: "off",
    });
    expect(await states(mm("#1 4X ⌀10", "#2 ⌀32", "LEAVE ROUND ⌀60 X 10", "CUT 4X ⌀#1 THRU ON BC #2"))).toEqual({
      1: "proved",
      2: "proved",
    });
  });

  it("neither more nor fewer than the print counts", async () => {
    const holes = (n: number) =>
      mm(
        "#1 4X ⌀5",
        "#2 4X",
        "#3 4X M4",
        "LEAVE ROUND ⌀80 X 20",
        `CUT ${n}X ⌀#1 THRU ON BC 60`,
        `CUT ${n}X M4 DEEP 8 DRILL DEEP 12 ON BC 30`,
      );
    for (const [n, state] of [
      [3, "off"],
      [4, "proved"],
      [5, "off"],
    ] as const)
      expect([n, await states(holes(n))]).toEqual([n, { 1: state, 2: "unused", 3: state }]);
    expect(
      await states(
        mm("#1 4X ⌀5", "LEAVE BLOCK 100 X 60 X 20", "CUT 2X ⌀#1 THRU AT -20,0 20,0", "CUT 2X ⌀#1 THRU AT 0,-15 0,15"),
      ),
    ).toEqual({ 1: "proved" });
    expect(await states(mm("#1 40X ⌀2", "LEAVE BLOCK 100 X 60 X 20", "CUT 40X ⌀#1 THRU GRID 8 5 BY 10 10"))).toEqual({
      1: "proved",
    });
  });

  it("degrees, minutes and seconds drive an angle", async () => {
    const l = await said(mm("#1 1°26'16\"", "LEAVE BLOCK 80 X 60 X 10", "CUT POCKET 40 X 20 R5 DEEP 4 TURN #1"));
    expect(l).toMatchObject({
      state: "proved",
      measured: expect.closeTo(((1 + 26 / 60 + 16 / 3600) * Math.PI) / 180, 9),
    });
  });
});

describe("where rows combine", () => {
  it("a depth is gone when a later row faces the part down", async () => {
    const card = (...rows: string[]) =>
      mm("#1 8 DEEP", "LEAVE BLOCK 80 X 60 X 30", "CUT POCKET 40 X 20 R5 DEEP #1", ...rows);
    expect(await states(card())).toEqual({ 1: "proved" });
    expect(await said(card("CUT FACE DEEP 2"))).toMatchObject({ state: "off", measured: expect.closeTo(6, 9) });
    expect(await states(card("CUT CHAMFER 1 MOUTH OF 2"))).toEqual({ 1: "proved" });
    // A boss beside it keeps the old level: that is not the pocket's mouth.
    expect(
      await states(mm("#1 8", "LEAVE BLOCK 80 X 60 X 30", "CUT POCKET 30 X 20 R5 DEEP #1", "CUT STEP LEFT 60 DEEP 2")),
    ).toEqual({ 1: "off" });
  });

  it("a depth is no web that is left, a length no flats apart the other way", async () => {
    expect(await states(mm("#1 12 DEEP", "LEAVE BLOCK 80 X 60 X 24", "CUT POCKET 40 X 20 R5 DEEP (#1-1)"))).toEqual({
      1: "off",
    });
    expect(await states(mm("#1 12 DEEP", "LEAVE BLOCK 80 X 60 X 25", "CUT POCKET 40 X 20 R5 DEEP (#1+1)"))).toEqual({
      1: "off",
    });
    expect(await states(mm("#1 50", "LEAVE BLOCK (#1+10) X 50 X 20"))).toEqual({ 1: "off" });
  });

  it("a pitch is no distance to another row's holes", async () => {
    const card = (by: string) =>
      mm("#1 30", "LEAVE BLOCK 200 X 60 X 10", `CUT 3X ⌀5 THRU LINE 3 BY ${by} AT -60,0`, "CUT ⌀5 THRU AT -30,0.0001");
    expect(await states(card("(#1+2)"))).toEqual({ 1: "off" });
    expect(await states(card("#1"))).toEqual({ 1: "proved" });
  });

  it("a diameter is no seam between two floors", async () => {
    expect(
      await states(mm("#1 ⌀40", "LEAVE ROUND ⌀80 X 20", "CUT POCKET ⌀60 DEEP 5", "CUT GROOVE OD 50 ID #1 DEEP 5")),
    ).not.toEqual({ 1: "proved" });
  });

  it("an element of an outline is no other element of the same size", async () => {
    const plate = (r: string, w: string) =>
      mm(
        "#1 R6",
        "#2 24",
        'OUTLINE "plate"',
        "START 0,0",
        "LINE TO X 60",
        "LINE TO Y 24",
        `LINE TO X ${w}`,
        "LINE TO Y 40",
        "LINE TO X 0",
        "CLOSE",
        `ROUND ${r} AT P1`,
        "ROUND 6 AT P4",
        "END",
        'LEAVE PRISM "plate" X 10',
      );
    expect(await states(plate("#1", "#2"))).toEqual({ 1: "proved", 2: "proved" });
    expect(await states(plate("(#1-1)", "#2"))).toMatchObject({ 1: "off", 2: "proved" });
    expect(await states(plate("#1", "(#2+3)"))).toMatchObject({ 1: "proved", 2: "off" });
  });
});

describe("a proof that was recorded", () => {
  const lines = mm(
    "#1 40",
    "#2 R5",
    "#3 8 DEEP",
    'OUTLINE "plate"',
    "RECTANGLE #1 X 30 R#2",
    "END",
    'OUTLINE "well"',
    "FACE TOP AFTER 1",
    "OFFSET -6",
    "END",
    'LEAVE PRISM "plate" X 20',
    'CUT POCKET "well" DEEP #3',
  );
  const recorded = async (): Promise<Job> => {
    const job = jobOf(lines);
    const e = await evaluateJob(job);
    return {
      ...job,
      proofs: e.ledger.map((l) => ({
        number: l.number,
        measured: l.measured,
        by: l.by,
        basis: l.basis,
        on: "2026-11-26",
        revision: "A",
      })),
    };
  };
  const after = async (edits: JobEdit[]) => {
    const r = applyEdits(await recorded(), edits);
    if (!r.ok) throw new Error(r.problems[0].message);
    return Object.fromEntries((await evaluateJob(r.value.job)).ledger.map((l) => [l.number, l.state]));
  };
  const width = async (text: string): Promise<JobEdit[]> => {
    const job = jobOf(lines);
    const o = structuredClone(job.outlines[0]);
    if (o.items[0].item === "rectangle") o.items[0].width = toNumberText(text);
    return [{ edit: "setOutline", id: o.id, outline: o }];
  };

  it("stays while nothing it rests on has changed", async () => {
    expect(await after([{ edit: "setHead", head: { name: "another" } }])).toEqual({
      1: "proved",
      2: "proved",
      3: "proved",
    });
    expect(await after(await width("30.0"))).toEqual({ 1: "proved", 2: "proved", 3: "proved" });
  });
  it("goes stale when only an outline's number has, and with it the face another outline was taken from", async () => {
    expect(await after(await width("31"))).toEqual({ 1: "stale", 2: "stale", 3: "stale" });
  });
  it("goes stale when only the plane has", async () => {
    const job = jobOf(lines);
    const row = job.rows[1];
    expect(
      (await after([{ edit: "setRow", id: row.id, body: changedRow(row.body, { plane: { on: "bottom" } })! }]))[3],
    ).not.toBe("proved");
  });
});

describe("every number of a part changed in turn, in the model and not on the print", () => {
  const parts: [string, string][] = [
    [
      "plate with everything",
      mm(
        "#1 80",
        "#2 60",
        "#3 20",
        "#4 R6",
        "#5 40",
        "#6 24",
        "#7 7 DEEP",
        "#8 4X ⌀6",
        "#9 60",
        "#10 36",
        "#11 ⌀11",
        "#12 5 DEEP",
        "#13 30",
        "LEAVE BLOCK #1 X #2 X #3 R#4",
        "CUT POCKET #5 X #6 R4 DEEP #7",
        "CUT 4X ⌀#8 THRU CBORE ⌀#11 DEEP #12 GRID 2 2 BY #9 #10",
        "CUT ⌀4 DEEP 6 FLAT ON FRONT AT #13,8",
      ),
    ],
    [
      "round part, inch",
      inch(
        "#1 ⌀3.250 ±.005",
        "#2 .600 ±.005",
        "#3 ⌀1.750 ±.003",
        "#4 .350 ±.003 DEEP",
        "#5 ⌀2.300 ±.002",
        "#6 ⌀2.064 ±.002",
        "#7 .077 ±.002 DEEP",
        "#8 ⌀2.750 ±.005",
        "#9 6X ⌀.201 ±.003",
        "#10 15° ±.5",
        "LEAVE ROUND ⌀#1 X #2",
        "CUT POCKET ⌀#3 DEEP #4 ON BOTTOM",
        "CUT GROOVE OD #5 ID #6 DEEP #7 ON BOTTOM",
        "CUT 6X ⌀#9 THRU ON BC #8 FROM #10",
      ),
    ],
    [
      "stepped part",
      mm(
        "#1 ⌀90",
        "#2 12",
        "#3 ⌀50",
        "#4 38",
        "#5 44",
        "#6 8 DEEP",
        "#7 22",
        "#8 1.5 X 45°",
        "LEAVE ROUND ⌀#1 X #2",
        "LEAVE ROUND ⌀#3 X (#4 - #2) ON TOP OF 1",
        "CUT STEP LEFT (#3 - #5)/2 DEEP #6",
        "CUT STEP RIGHT (#3 - #5)/2 DEEP #6",
        "CUT ⌀4 DEEP 38 FLAT AT 0,#7 ON FRONT",
        "CUT CHAMFER #8 OUTER BOTTOM",
      ),
    ],
  ];
  it.each(parts)("%s: right, all is proved; each change, its balloon is not", async (_, text) => {
    const job = jobOf(text);
    const right = await evaluateJob(job);
    expect(right.ledger.filter((l) => l.state !== "proved").map((l) => [l.number, l.state, l.by])).toEqual([]);
    const still: string[] = [];
    for (const row of right.solved.rows)
      for (const n of row.numbers) {
        const cites = n.value?.cites ?? [];
        if (cites.length !== 1 || n.quantity === "count") continue;
        const l = right.ledger.find((x) => x.number === cites[0])!;
        const wide =
          Math.max(0.01, 1.3 * ((l.high ?? 0) - (l.low ?? 0))) /
          (n.quantity === "angle" ? Math.PI / 180 : job.unit === "in" ? 25.4 : 1);
        for (const change of [`((${n.text})+${wide.toFixed(4)})`, `((${n.text})*1.31)`, `((${n.text})/2)`]) {
          const r = applyEdits(job, [{ edit: "setNumber", id: row.row.id, path: n.path, text: toNumberText(change) }]);
          if (!r.ok) throw new Error(r.problems[0].message);
          const e = await evaluateJob(r.value.job);
          if (e.ledger.find((x) => x.number === cites[0])!.state === "proved")
            still.push(`#${cites[0]} row ${row.number} ${n.path} ${change}`);
        }
      }
    expect(still).toEqual([]);
  });
  it("names an upright edge as an edge and no axis", async () => {
    const job = jobOf('JOB "edge"\nUNIT mm\n#1 80\nLEAVE BLOCK #1 X 44 X 20\nCUT POCKET 20 X 10 R3 DEEP 12');
    const [l] = (await evaluateJob(job)).ledger;
    expect([l.state, l.measured]).toEqual(["proved", 80]);
    expect(l.by).not.toContain("axis");
  });
});
