import fc from "fast-check";
import { readFileSync, readdirSync } from "node:fs";
import { readBalloonLine, readCard, readRowLine, writeBalloonText, writeCard, writeDocument, writeRow } from ".";
import { rowNames } from "../job";
import { rowKinds } from "../rows";

const names = { idOf: (n: number) => `r${n}`, numberOf: (id: string) => id.slice(1) };
const canonical = (text: string) => {
  const r = readRowLine(text, names, "r9");
  if (!r.ok) throw new Error(`${text}: ${r.error.message} at ${r.error.column}, expected ${r.error.expected}`);
  return writeRow(r.row, names);
};
const errorsOf = (...lines: string[]) => readCard(lines.join("\n")).errors;

describe("rows of the contract", () => {
  it.each([
    "LEAVE BLOCK 4 X 2.5 X .75",
    "LEAVE BLOCK #1 X #2 X #3 R.25 CORNER AT 1,2,3 TURN 30",
    "LEAVE ROUND ⌀2 X .7 AT 0,0,.5",
    "LEAVE POLYGON 6 AF 1 X .5",
    "LEAVE POLYGON 5 AC 30 X 12 R2 TURN 18 AT 1,2",
    "LEAVE RING OD 120 ID 75 X 5.8",
    "LEAVE ROUND ⌀1 X .5 ON TOP OF 1",
    "LEAVE ROUND ⌀1 X .5 ON TOP",
    "CUT FACE DEEP .05",
    "CUT STEP LEFT .75 DEEP .3",
    "CUT STEP BACK .75 DEEP .3 ON BOTTOM",
    "CUT POCKET 2.000 X 1.250 R.125 DEEP #9",
    "CUT POCKET ⌀1.250 DEEP .450",
    "CUT POCKET 2 X 1 THRU CORNER TURN 15 AT 1,1 2,2 ON FLOOR OF 2",
    "CUT POCKET POLYGON 6 AF .5 R.05 DEEP .2",
    "CUT POCKET POLYGON 6 AC .5 DEEP .2 START .1 ON FRONT",
    "CUT SLOT 2 X .375 DEEP .2",
    "CUT 2X SLOT CENTRES 1.5 X .25 THRU TURN 90 AT 1,0 -1,0 ON BOTTOM",
    "CUT CBORE ⌀2.125 DEEP .250 AT 1,1",
    "CUT 4X CSK ⌀.5 X 82 ON BC 3 FROM 45",
    "CUT GROOVE OD 1.500 ID 1.360 DEEP .060",
    "CUT GROOVE OD 1.5 ID 1.3 DEEP .06 AT 1,2 ON BOTTOM",
    "CUT GROOVE BORE ⌀1.3 WIDE .06 START .2",
    "CUT GROOVE BORE ⌀1.3 WIDE .06 START .2 AT 1,2 ON BOTTOM",
    "CUT ⌀.5 THRU",
    "CUT 4X ⌀.281 THRU CBORE ⌀.438 DEEP .280 GRID 2 2 BY 3.75 2.25",
    "CUT 5X ⌀4 DEEP 10 POINT 135 CSK ⌀8 X 90 ON BC 42 FROM 90",
    "CUT ⌀4 DEEP 10 FLAT LINE 3 BY 10 TURN 45 AT 1,2",
    "CUT 2X ⌀4 DEEP 10 AT 1,2 -3,4",
    "CUT 5X M5 DEEP 9 DRILL DEEP 13 CSK ⌀5.6 X 90 ON BC 42 FROM 90",
    "CUT 2X 3/8-16 UNC-2B DEEP .5 DRILL DEEP .562 AT -1.9,-.6 -1.9,.6",
    "CUT M6X1 THRU",
    "CUT 10-32 UNF-2B DEEP .3 DRILL ⌀.1590 DEEP .45",
    "CUT M5 DEEP 9 DRILL THRU",
    "CUT CHAMFER .03 OUTER TOP",
    "CUT CHAMFER .03 X 30 OUTER TOP, OUTER BOTTOM, MOUTH OF 2",
    "CUT ROUND .06 VERTICAL, FLOOR OF 3",
    "CUT BREAK .010 ALL SHARP",
    "OFF CUT CHAMFER .030 OUTER TOP",
    'CUT "seal groove": GROOVE OD 1.500 ID 1.360 DEEP .060',
  ])("%s stays as it is", (text) => expect(canonical(text)).toBe(text));

  it.each([
    ["cut pocket 4X2X.5", null],
    ["cut 4x ⌀2 deep 1", "CUT 4X ⌀2 DEEP 1"],
    ["CUT 4X2 DEEP 1", "CUT 4X ⌀2 DEEP 1"],
    ["leave block 4X2X.5", "LEAVE BLOCK 4 X 2 X .5"],
    ["CUT POCKET DIA 1.25 DP .4", "CUT POCKET ⌀1.25 DEEP .4"],
    ["CUT POCKET 1.25 DEEP .4", "CUT POCKET ⌀1.25 DEEP .4"],
    ["CUT ∅.25 ↧ .5 ⌴ ⌀.4 ↧.1 ⌵ ⌀.5×90°", "CUT ⌀.25 DEEP .5 CBORE ⌀.4 DEEP .1 CSK ⌀.5 X 90"],
    ["CUT ON TOP ⌀1 THRU", "CUT ⌀1 THRU"],
    ["CUT 6X1/4-20 UNC THRU ON BC 100", "CUT 6X 1/4-20 UNC THRU ON BC 100"],
    ["LEAVE RING OD ⌀3 ID ⌀2 X 1", "LEAVE RING OD 3 ID 2 X 1"],
    ["CUT ⌀1 THRU ON TOP", "CUT ⌀1 THRU"],
    ["CUT POCKET (5.8 - 2.3) X 1-1/2 DEEP 375thou", "CUT POCKET (5.8 - 2.3) X 1-1/2 DEEP 375thou"],
    ["CUT ON BOTTOM", null],
    ["CUT STEP left .75 DEEP .3 START .1 ON TOP", "CUT STEP LEFT .75 DEEP .3 START .1"],
    ["CUT ⌀1 START .2 THRU ON FLOOR OF 2", "CUT ⌀1 THRU START .2 ON FLOOR OF 2"],
    ["CUT POCKET 1 X 1 TURN 45 DEG DEEP .1", "CUT POCKET 1 X 1 DEEP .1 TURN 45"],
  ])("%s is written %s", (text, expected) => {
    const r = readRowLine(text, names, "r9");
    if (expected === null) expect(r.ok).toBe(false);
    else expect(canonical(text)).toBe(expected);
  });
  it("keeps numbers as typed, questions and unreadable ones too", () => {
    for (const t of [
      "CUT POCKET ? X #4/2 DEEP .125!",
      "CUT POCKET `4..2` X 1 DEEP sqrt(2)",
      "CUT ⌀(#1 - #2) THRU AT -.5,+.5 max(1,2),0",
    ])
      expect(canonical(t)).toBe(t);
  });
  it("keeps the angle in degrees, minutes and seconds with its quote", () => {
    expect(canonical("CUT POCKET 1 X 1 DEEP .1 TURN 1°26'16\" ; remark")).toBe(
      "CUT POCKET 1 X 1 DEEP .1 TURN 1°26'16\"",
    );
  });
  it("knows an example of every kind, in both units", () => {
    for (const k of rowKinds)
      for (const unit of ["in", "mm"] as const) expect(canonical(k.example[unit])).toBe(k.example[unit]);
  });
  it("reads back exactly what it writes, for rows put together at random", () => {
    const n = fc.constantFrom(
      "1",
      ".25",
      "#4/2",
      "1-1/2",
      "(5.8 - 2.3)",
      "12.5mm",
      "375thou",
      "?",
      ".125!",
      "sqrt(2)",
      "(wall)",
      "(wall*2)!",
      "3.3{tap drill of M4}",
    );
    const place = fc.oneof(
      fc.constant(""),
      fc
        .array(fc.tuple(n, n), { minLength: 1, maxLength: 4 })
        .map((p) => ` AT ${p.map(([x, y]) => `${x},${y}`).join(" ")}`),
      fc.tuple(n, n).map(([a, b]) => ` GRID 2 3 BY ${a} ${b}`),
      n.map((a) => ` LINE 3 BY ${a} TURN 30 AT 1,2`),
    );
    const plane = fc.constantFrom("", " ON BOTTOM", " ON LEFT", " ON FLOOR OF 2", " START .1", " START .1 ON TOP OF 1");
    const deep = fc.oneof(
      fc.constant(" THRU"),
      n.map((a) => ` DEEP ${a}`),
    );
    const row = fc.oneof(
      fc
        .tuple(
          n,
          n,
          fc.oneof(
            fc.constant(""),
            n.map((a) => ` R${/^[a-z]/.test(a) ? " " : ""}${a}`),
          ),
          deep,
          place,
          plane,
        )
        .map(([a, b, r, d, p, o]) => `CUT POCKET ${a} X ${b}${r}${d}${p}${o}`),
      fc
        .tuple(
          n,
          deep,
          fc.constantFrom("", " FLAT", " POINT 135"),
          fc.oneof(
            fc.constant(""),
            n.map((a) => ` CBORE ⌀${a} DEEP 1`),
          ),
          place,
          plane,
        )
        .map(([a, d, e, c, p, o]) => `CUT ⌀${a}${d}${e}${c}${p}${o}`),
      fc
        .tuple(
          fc.constantFrom("M5", "10-32 UNF-2B", "1/4-20 UNC"),
          deep,
          fc.constantFrom("", " DRILL DEEP 2", " DRILL ⌀.2"),
          place,
          plane,
        )
        .map(([t, d, r, p, o]) => `CUT ${t}${d}${r}${p}${o}`),
      fc.tuple(n, n, n).map(([a, b, c]) => `LEAVE BLOCK ${a} X ${b} X ${c}`),
    );
    fc.assert(
      fc.property(row, (text) => {
        const first = readRowLine(text, names, "r9");
        if (!first.ok) throw new Error(`${text}: ${first.error.message} at ${first.error.column}`);
        const written = writeRow(first.row, names);
        const second = readRowLine(written, names, "r9");
        expect(second).toEqual(first);
        expect(writeRow((second as typeof first).row, names)).toBe(written);
      }),
      { numRuns: 300 },
    );
  });
});

describe("errors point at the character", () => {
  it.each<[string, number, RegExp]>([
    ["LEAVE BLOCK 4 X 2.5", 20, /X/],
    ["LEAVE BLOCK 4 X X 2", 17, /width/],
    ["LEAVE BLOK 4 X 2 X 1", 7, /BLOCK/],
    ["CUT POKET 2 X 1 DEEP 1", 5, /POCKET/],
    ["CUT POCKET 2 X 1", 17, /DEEP or THRU/],
    ["CUT POCKET 2 X 1 DEEP", 22, /depth/],
    ["CUT POCKET 2 X 1 DEEP .5 DEEP .6", 26, /./],
    ["CUT POCKET 2 X 1 DEEP 1//2", 25, /number/],
    ["CUT POCKET 2 X 1 DEEP (1+2", 27, /\)/],
    ["CUT ⌀.25 THRU AT 1", 19, /comma/],
    ["CUT ⌀.25 THRU ON SIDE", 18, /TOP, BOTTOM/],
    ["CUT ⌀.25 THRU CSK ⌀.5", 22, /X/],
    ["CUT STEP UPWARD .5 DEEP .2", 10, /LEFT/],
    ["CUT CHAMFER .03 EDGE", 17, /OUTER TOP/],
    ["CUT CHAMFER .03", 16, /OUTER TOP/],
    ["CUT GROOVE BORE ⌀1 WIDE .1", 27, /START/],
    ['CUT "name GROOVE', 5, /"/],
    ["CUT ⌀.25 THRU FOO", 15, /FLAT/],
    ["DRILL .25", 1, /JOB/],
    ["CUT ⌀.25 THRU GRID 2 2 3 3", 24, /BY/],
    ["CUT ⌀.25 THRU ON FLOOR OF x", 27, /number of a row/],
    ["LEAVE", 6, /BLOCK/],
    ["CUT", 4, /FACE/],
    ["CUT M5", 7, /DEEP/],
    ["LEAVE POLYGON 6 2 X 1", 17, /AF/],
    ["CUT ⌀1.2.3 THRU", 9, /number/],
  ])("%s: column %d", (line, column, expected) => {
    const errors = errorsOf('JOB "x"', "UNIT in", line);
    expect(errors).toHaveLength(1);
    expect(errors[0]).toMatchObject({ line: 3, column, expected: expect.stringMatching(expected) });
  });
  it("reads the other lines all the same", () => {
    const { job, errors } = readCard(
      'JOB "x"\nUNIT mm\nLEAVE BLOCK 10 X 10 X 10\nCUT NONSENSE\nCUT ⌀2 THRU ON FLOOR OF 1\nWHAT\n',
    );
    expect(errors.map((e) => e.line)).toEqual([4, 6]);
    expect(job.rows).toHaveLength(2);
    // The wrong row keeps its number: what refers to row 3 still means the third.
    expect(job.rows[1].id).toBe("r3");
  });
  it("wants the unit before any number, once", () => {
    expect(errorsOf('JOB "x"', "LEAVE BLOCK 1 X 1 X 1", "UNIT in")[0]).toMatchObject({
      line: 2,
      column: 1,
      expected: expect.stringContaining("UNIT"),
    });
    expect(errorsOf("UNIT in", "UNIT mm")[0]).toMatchObject({ line: 2, column: 1 });
    expect(errorsOf("UNIT furlong")[0]).toMatchObject({ line: 1, column: 6 });
    expect(errorsOf("")[0]).toMatchObject({ line: 1, column: 1, message: "the card is empty" });
  });
  it("refuses a balloon twice and a wrong one", () => {
    expect(errorsOf("UNIT in", "#1 2", "#1 3")[0]).toMatchObject({ line: 3, column: 1 });
    expect(errorsOf("UNIT in", "#1 ⌀")[0]).toMatchObject({ line: 2, column: 5 });
    expect(errorsOf("UNIT in", "#x 2")[0]).toMatchObject({ line: 2, column: 2 });
  });
  it("never throws, whatever comes", () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'CUT LEAVEPOCKTBLRDX0123456789.,#()/-+"`;⌀°\n '), maxLength: 120 }),
        (text) => {
          readCard(`UNIT in\n${text}`);
        },
      ),
      { numRuns: 500 },
    );
    expect(errorsOf("UNIT in", `LEAVE BLOCK ${"(".repeat(3000)}`)).toHaveLength(1);
    expect(errorsOf("x".repeat(50_000))[0].message).toMatch(/too long/);
  });
});

describe("whole cards", () => {
  const example =
    'JOB "Gauge lid" REV A\nUNIT in\nMATERIAL "aluminium 6061"\nSTOCK ROUND 2.25 X .875\n#1 ⌀2.000 ±.005\n#2 .700 ±.005\nLEAVE ROUND ⌀#1 X #2\nCUT POCKET ⌀1.250 DEEP .450\nCUT "seal groove": GROOVE OD 1.500 ID 1.360 DEEP .060\nCUT 4X 8-32 UNC-2B DEEP .300 DRILL DEEP .420 CSK ⌀.180 X 90 ON BC 1.720 FROM 45\nCUT BREAK .010 OUTER TOP, OUTER BOTTOM, MOUTH OF 2\nCHECK SIZE Z .7\n';
  it("come back to the letter", () => {
    const read = readCard(example);
    expect(read.errors).toEqual([]);
    expect(writeCard(read.job)).toBe(example);
    expect(read.job.rows[1].body).toMatchObject({
      kind: "cutPocket",
      shape: { form: "circle", diameter: "1.250" },
      depth: "deep",
      deep: ".450",
    });
  });
  it("come back for every demo card", () => {
    const folder = new URL("../../../demo/", import.meta.url);
    const cards = readdirSync(folder).filter((f) => f.endsWith(".card"));
    expect(cards.length).toBeGreaterThanOrEqual(3);
    for (const f of cards) {
      const read = readCard(readFileSync(new URL(f, folder), "utf8"));
      expect(read.errors).toEqual([]);
      const text = writeDocument(read.document);
      expect(readCard(text).document).toEqual(read.document);
      expect(writeDocument(readCard(text).document)).toBe(text);
    }
  });
  it("keep references when rows move", () => {
    const { job } = readCard("UNIT mm\nLEAVE BLOCK 9 X 9 X 9\nCUT POCKET 4 X 4 DEEP 2\nCUT ⌀1 THRU ON FLOOR OF 2\n");
    const moved = [job.rows[1], job.rows[0], job.rows[2]];
    expect(writeRow(moved[2], rowNames(moved))).toBe("CUT ⌀1 THRU ON FLOOR OF 1");
  });
  it("read named values, title tolerances, counts and areas", () => {
    const text =
      'JOB "x" REV A\nUNIT mm\nTOLERANCES ISO 2768-m X ±1 .X ±0.3 .XX ±0.1 ANGLE ±0.5\nLET wall = 3\nLET gap = (wall*2) "between jaws"\n#1 40\nLEAVE BLOCK #1 X (wall*10) X 20\nCUT POCKET (#1 - 2*wall) X (gap) R(wall) DEEP 5\nCUT ⌀3.3{tap drill of M4} THRU\nCHECK AREA ALL 5200\nCHECK AREA FLOOR OF 2 196.6\nCHECK EDGES 24\nCHECK HOLES 1\n';
    const read = readCard(text);
    expect(read.errors).toEqual([]);
    expect(writeCard(read.job)).toBe(text);
    expect(read.job.names).toEqual([
      { name: "wall", value: "3" },
      { name: "gap", value: "wall*2", note: "between jaws" },
    ]);
    expect(read.job.rows[1].body).toMatchObject({ radius: "wall", shape: { length: "#1 - 2*wall", width: "gap" } });
    // A bare name may stand where a number may, once it is known.
    expect(readCard("UNIT mm\nLET wall = 3\nLEAVE BLOCK wall X 20 X wall*2 R wall").job.rows[0].body).toMatchObject({
      length: "wall",
      height: "wall*2",
      radius: "wall",
    });
  });
  it("refuse wrong named values and title tolerances with their place", () => {
    expect(errorsOf("UNIT mm", "LET deep = 3")[0]).toMatchObject({
      line: 2,
      column: 5,
      message: expect.stringMatching(/word of the card/),
    });
    expect(errorsOf("UNIT mm", "LET wall 3")[0]).toMatchObject({
      line: 2,
      column: 10,
      expected: expect.stringMatching(/=/),
    });
    expect(errorsOf("UNIT mm", "LET a = 1", "LET A = 2")[0]).toMatchObject({
      line: 3,
      message: expect.stringMatching(/twice/),
    });
    expect(errorsOf("UNIT mm", "TOLERANCES ISO 2768-x")[0]).toMatchObject({ line: 2, column: 12 });
    expect(errorsOf("UNIT mm", "TOLERANCES")[0]).toMatchObject({ line: 2 });
    expect(errorsOf("UNIT mm", "CHECK HOLES")[0]).toMatchObject({ line: 2 });
    expect(errorsOf("LET a = 1")[0].expected).toMatch(/UNIT/);
    expect(errorsOf("UNIT mm", "LEAVE BLOCK wal X 2 X 3")[0]).toMatchObject({ line: 2, column: 13 });
  });
  it("read stock, checks, hold and edges", () => {
    const text =
      'JOB "x" REV "2 b"\nUNIT mm\nMATERIAL "odd stuff" DENSITY 1.25\nSTOCK PLATE 10 X 20 X 30 AT 1,2,3\nEDGES BREAK 0.3\nLEAVE BLOCK 1 X 1 X 1\nHOLD VISE GRIP 6 ACROSS X UP BOTTOM\nCHECK MASS 259.58 g ±0.1\nCHECK VOLUME 3.21\nCHECK AREA TOP 122\n';
    const read = readCard(text);
    expect(read.errors).toEqual([]);
    expect(writeCard(read.job)).toBe(text);
    expect(read.job.checks).toHaveLength(3);
  });
});

describe("balloons as printed", () => {
  it.each([
    "⌀2.185 ±.005",
    "6X 8-32 UNC-2B",
    "R.19",
    ".375 DEEP",
    "45°",
    ".03 X 45°",
    "6X",
    "6X ⌀.201 +.003 -.000",
    "1.25 REF",
    '4X R.25 "all corners"',
    "1-1/2",
    "2X .5 ±.01",
    "⌀20 H7",
    "⌀50 f7 MID",
    "25 js6",
    "1.255 / 1.245",
    "⌀20.021 / 20",
    "R.25 MAX",
    "8 DEEP MIN",
    "2.500 BASIC",
    "30° BASIC",
    "45° LEG 30",
    "100 ISO 2768-m",
    "20 +0.05 +0.02",
    "20 -0.02 -0.05",
    '4X ⌀.25 +.003 -0 ZONE B3 "left"',
    "45° ±.5",
    "4X ⌀.531 THRU +.01 -0",
  ])("%s comes back", (text) => {
    const r = readBalloonLine(text, 7);
    if (!r.ok) throw new Error(r.error.message);
    expect(writeBalloonText(r.balloon)).toBe(text);
  });
  it("tell the kind from the writing", () => {
    const kind = (t: string) => {
      const r = readBalloonLine(t, 1);
      return r.ok ? r.balloon.kind : r.error.message;
    };
    expect([
      kind("DIA 2.185 +-.005"),
      kind("R.25"),
      kind("45 DEG"),
      kind(".5"),
      kind("6X"),
      kind("M5"),
      kind("↧ .3"),
      kind(".03 X 45 DEG"),
    ]).toEqual(["diameter", "radius", "angle", "linear", "count", "thread", "depth", "chamfer"]);
  });
});
