import { afterFix, findingsOf, evaluateCard, inch, mm } from "../../../tests/helpers/card";
import { rules } from ".";

/** A case that trips the rule, one just inside the limit that does not, and whether the fix clears the first. */
interface Case {
  rule: string;
  what: string;
  trips: string;
  severity: "stop" | "caution" | "note";
  row: number | null;
  value: number;
  limit: number;
  holds: string;
  fixed?: false;
}

const plate = ["LEAVE BLOCK 4 X 3 X .75"];
const stocked = (stock: string) => mm(stock, "LEAVE BLOCK 100 X 60 X 20");
const pocket = (line: string) => inch(...plate, line);
const cases: Case[] = [
  {
    rule: "sharp-inside-corner",
    what: "a pocket without a radius",
    trips: pocket("CUT POCKET 2 X 1.25 DEEP .4"),
    severity: "stop",
    row: 2,
    value: 0,
    limit: 0.79375,
    holds: pocket("CUT POCKET 2 X 1.25 R.2 DEEP .4"),
  },
  {
    rule: "corner-too-small",
    what: "R.06 half an inch deep",
    trips: pocket("CUT POCKET 2 X 1.25 R.06 DEEP .5"),
    severity: "stop",
    row: 2,
    value: 1.524,
    limit: 1.5875,
    holds: pocket("CUT POCKET 2 X 1.25 R.0625 DEEP .5"),
  },
  {
    rule: "corner-equals-cutter",
    what: "R.125 with a quarter-inch cutter",
    trips: pocket("CUT POCKET 2 X 1.25 R.125 DEEP .4"),
    severity: "note",
    row: 2,
    value: 1,
    limit: 1.1,
    holds: pocket("CUT POCKET 2 X 1.25 R.1375 DEEP .4"),
  },
  {
    rule: "deep-for-its-cutter",
    what: "over three diameters",
    trips: pocket("CUT POCKET 2 X 1.25 R.07 DEEP .4"),
    severity: "caution",
    row: 2,
    value: 3.2,
    limit: 3,
    holds: pocket("CUT POCKET 2 X 1.25 R.07 DEEP .375"),
  },
  {
    rule: "deep-for-its-cutter",
    what: "over five diameters",
    trips: pocket("CUT POCKET 2 X 1.25 R.07 DEEP .7"),
    severity: "caution",
    row: 2,
    value: 5.6,
    limit: 5,
    holds: pocket("CUT POCKET 2 X 1.25 R.2 DEEP .7"),
  },
  {
    rule: "deep-for-its-cutter",
    what: "over eight diameters",
    trips: pocket("CUT POCKET 2 X 1.25 R.04 DEEP .7"),
    severity: "stop",
    row: 2,
    value: 11.2,
    limit: 8,
    holds: pocket("CUT POCKET 2 X 1.25 R.26 DEEP .7"),
  },
  {
    rule: "drill-depth-ratio",
    what: "a peck",
    trips: inch(...plate, "CUT ⌀.2 DEEP .61"),
    severity: "note",
    row: 2,
    value: 3.05,
    limit: 3,
    holds: inch(...plate, "CUT ⌀.2 DEEP .6"),
  },
  {
    rule: "drill-depth-ratio",
    what: "a long drill through the block",
    trips: inch(...plate, "CUT ⌀.125 THRU"),
    severity: "caution",
    row: 2,
    value: 6,
    limit: 5,
    holds: inch(...plate, "CUT ⌀.25 THRU"),
  },
  {
    rule: "drill-depth-ratio",
    what: "a gun drill",
    trips: inch(...plate, "CUT ⌀.07 THRU"),
    severity: "stop",
    row: 2,
    value: 0.75 / 0.07,
    limit: 10,
    holds: inch(...plate, "CUT ⌀.25 THRU"),
  },
  {
    rule: "tap-depth",
    what: "no lead at all",
    trips: inch(...plate, "CUT 10-32 UNF-2B DEEP .4"),
    severity: "stop",
    row: 2,
    value: 10.16,
    limit: 10.16 + (3 * 25.4) / 32,
    holds: inch(...plate, "CUT 10-32 UNF-2B DEEP .4 DRILL DEEP .494"),
  },
  {
    rule: "tap-depth",
    what: "room for a bottoming tap only",
    trips: inch(...plate, "CUT 10-32 UNF-2B DEEP .4 DRILL DEEP .45"),
    severity: "caution",
    row: 2,
    value: 11.43,
    limit: 10.16 + (3 * 25.4) / 32,
    holds: inch(...plate, "CUT 10-32 UNF-2B THRU"),
  },
  {
    rule: "tap-drill",
    what: "a drill too small",
    trips: mm("LEAVE BLOCK 40 X 40 X 20", "CUT M8 DEEP 10 DRILL ⌀6.5 DEEP 15"),
    severity: "caution",
    row: 2,
    value: (100 * 1.5) / (1.299038 * 1.25),
    limit: 80,
    holds: mm("LEAVE BLOCK 40 X 40 X 20", "CUT M8 DEEP 10 DRILL ⌀6.8 DEEP 15"),
  },
  {
    rule: "tap-drill",
    what: "a drill over the largest minor diameter",
    trips: mm("LEAVE BLOCK 40 X 40 X 20", "CUT M8 DEEP 10 DRILL ⌀7.2 DEEP 15"),
    severity: "caution",
    row: 2,
    value: 7.2,
    // 6.647 + .265, as ISO 965 prints it.
    limit: 6.912,
    holds: mm("LEAVE BLOCK 40 X 40 X 20", "CUT M8 DEEP 10 DRILL DEEP 15"),
  },
  {
    rule: "outside-stock",
    what: "a part longer than its stock",
    trips: stocked("STOCK PLATE 99 X 70 X 25"),
    severity: "stop",
    row: 1,
    value: -0.5,
    limit: 0,
    holds: stocked("STOCK PLATE 101 X 70 X 20"),
  },
  {
    rule: "outside-stock",
    what: "too little on a sawn face",
    trips: stocked("STOCK PLATE 100.9 X 70 X 25"),
    severity: "caution",
    row: null,
    value: 0.45,
    limit: 0.5,
    holds: stocked("STOCK PLATE 101 X 70 X 20"),
  },
  {
    rule: "outside-stock",
    what: "corners out of a round bar",
    trips: stocked("STOCK ROUND 110 X 25"),
    severity: "stop",
    row: 1,
    value: 55 - Math.hypot(50, 30),
    limit: 0,
    holds: stocked("STOCK ROUND 120 X 25"),
  },
  {
    rule: "edge-distance",
    what: "a hole near the edge",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀10 THRU AT 41,0"),
    severity: "caution",
    row: 2,
    value: 4,
    limit: 5,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀10 THRU AT 40,0"),
  },
  {
    rule: "edge-distance",
    what: "a bolt circle near the rim",
    trips: mm("LEAVE ROUND ⌀60 X 10", "CUT 6X ⌀6 THRU ON BC 50"),
    severity: "caution",
    row: 2,
    value: 2,
    limit: 3,
    holds: mm("LEAVE ROUND ⌀60 X 10", "CUT 6X ⌀6 THRU ON BC 48"),
  },
  {
    rule: "edge-distance",
    what: "neighbours of one row",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT 2X ⌀10 THRU AT -7,0 7,0"),
    severity: "caution",
    row: 2,
    value: 4,
    limit: 5,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT 2X ⌀10 THRU AT -7.5,0 7.5,0"),
  },
  {
    rule: "edge-break",
    what: "sharp edges on a print that wants them broken",
    trips: mm("EDGES BREAK 0.3", "LEAVE BLOCK 100 X 60 X 20"),
    severity: "caution",
    row: null,
    value: 12,
    limit: 0,
    holds: mm("EDGES BREAK 0.3", "LEAVE BLOCK 100 X 60 X 20", "CUT BREAK 0.3 ALL SHARP"),
  },
  {
    rule: "edges-left",
    what: "a round of three on the corners of a rib of four",
    trips: mm("LEAVE BLOCK 60 X 40 X 12", "LEAVE BLOCK 10 X 4 X 10 AT 0,10 ON TOP", "CUT ROUND 3 VERTICAL FITTING"),
    severity: "note",
    row: 3,
    value: 4,
    limit: 0,
    holds: mm("LEAVE BLOCK 60 X 40 X 12", "LEAVE BLOCK 10 X 4 X 10 AT 0,10 ON TOP", "CUT ROUND 1.9 VERTICAL FITTING"),
    fixed: false,
  },
  {
    rule: "grip-too-shallow",
    what: "two millimetres of grip",
    trips: mm("LEAVE BLOCK 100 X 60 X 10", "HOLD VISE GRIP 2 ACROSS Y"),
    severity: "stop",
    row: null,
    value: 2,
    limit: 3,
    holds: mm("LEAVE BLOCK 100 X 60 X 10", "HOLD VISE GRIP 3 ACROSS Y"),
  },
  {
    rule: "grip-too-shallow",
    what: "tall over the jaws",
    trips: mm("LEAVE BLOCK 100 X 60 X 40", "HOLD VISE GRIP 7.9 ACROSS Y"),
    severity: "caution",
    row: null,
    value: 7.9,
    limit: 32.1 / 4,
    holds: mm("LEAVE BLOCK 100 X 60 X 40", "HOLD VISE GRIP 8 ACROSS Y"),
  },
  {
    rule: "cut-into-jaw",
    what: "the outer outline to its full depth",
    trips: mm("STOCK PLATE 110 X 60 X 24 AT 0,0,-4", "LEAVE BLOCK 100 X 60 X 20", "HOLD VISE GRIP 6 ACROSS Y"),
    severity: "stop",
    row: 1,
    value: 2,
    limit: 0,
    holds: mm("STOCK PLATE 110 X 60 X 24 AT 0,0,-4", "LEAVE BLOCK 100 X 60 X 20", "HOLD VISE GRIP 4 ACROSS Y"),
  },
  {
    rule: "grip-refused",
    what: "a grip of the whole height",
    trips: mm("LEAVE BLOCK 100 X 60 X 10", "HOLD VISE GRIP 10 ACROSS Y"),
    severity: "stop",
    row: null,
    value: 10,
    limit: 10,
    holds: mm("LEAVE BLOCK 100 X 60 X 10", "HOLD VISE GRIP 9.9 ACROSS Y"),
  },
  {
    rule: "stock-over-cut",
    what: "stock over the part that nothing faces",
    trips: mm("STOCK PLATE 110 X 70 X 21 AT 0,0,0", "LEAVE BLOCK 100 X 60 X 20", "CUT ⌀10 DEEP 5"),
    severity: "stop",
    row: null,
    value: 1,
    limit: 0,
    holds: mm("STOCK PLATE 110 X 70 X 20 AT 0,0,0", "LEAVE BLOCK 100 X 60 X 20", "CUT ⌀10 DEEP 5"),
  },
  {
    rule: "too-big-to-drill",
    what: "a drill point where no drill is",
    trips: inch("LEAVE BLOCK 4 X 3 X .75", "CUT ⌀2.125 DEEP .250"),
    severity: "caution",
    row: 2,
    value: 2.125 * 25.4,
    limit: 1.5 * 25.4,
    holds: inch("LEAVE BLOCK 4 X 3 X .75", "CUT ⌀1.5 DEEP .250"),
  },
  {
    rule: "cuts-nothing",
    what: "a pocket in the air",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 10 X 10 R3 DEEP 5 AT 80,0"),
    severity: "stop",
    row: 2,
    value: 0,
    limit: 0,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 10 X 10 R3 DEEP 5 AT 54.9,0"),
    fixed: false,
  },
  {
    rule: "cuts-nothing",
    what: "one place of four beside the part",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀5 THRU AT -40,0 0,0 40,0 60,0"),
    severity: "stop",
    row: 2,
    value: 1,
    limit: 0,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀5 THRU AT -40,0 0,0 40,0 47,0"),
    fixed: false,
  },
  {
    rule: "adds-nothing",
    what: "a boss inside the block",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "LEAVE ROUND 20 X 10"),
    severity: "caution",
    row: 2,
    value: 0,
    limit: 0,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "LEAVE ROUND 20 X 20.5"),
    fixed: false,
  },
  {
    rule: "in-pieces",
    what: "a block that touches along a line",
    trips: mm("LEAVE BLOCK 10 X 10 X 10", "LEAVE BLOCK 5 X 5 X 5 AT 7.5,7.5"),
    severity: "stop",
    row: 2,
    value: 2,
    limit: 1,
    holds: mm("LEAVE BLOCK 10 X 10 X 10", "LEAVE BLOCK 5 X 5 X 5 AT 7.4,7.4"),
    fixed: false,
  },
  {
    rule: "overlap",
    what: "holes of one row",
    trips: mm("LEAVE ROUND ⌀60 X 10", "CUT 4X ⌀10 THRU ON BC 12"),
    severity: "caution",
    row: 2,
    value: 10 - 6 * Math.SQRT2,
    limit: 0,
    holds: mm("LEAVE ROUND ⌀60 X 10", "CUT 4X ⌀10 THRU ON BC 14.15"),
    fixed: false,
  },
  {
    rule: "overlap",
    what: "a hole into another row's counterbore",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀6 THRU CBORE ⌀11 DEEP 5", "CUT ⌀5 DEEP 5 AT 7.9,0"),
    severity: "caution",
    row: 3,
    value: 0.1,
    limit: 0,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀6 THRU CBORE ⌀11 DEEP 5", "CUT ⌀5 DEEP 5 AT 8.1,0"),
    fixed: false,
  },
  {
    rule: "breaks-out",
    what: "a hole over the edge",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀10 THRU AT 46,0"),
    severity: "caution",
    row: 2,
    value: 1,
    limit: 0,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀10 THRU AT 44,0"),
    fixed: false,
  },
  {
    rule: "mouth-over-edge",
    what: "a countersink over the edge",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀5 THRU CSK ⌀12 X 90 AT 45,0"),
    severity: "caution",
    row: 2,
    value: 12,
    limit: 0,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT ⌀5 THRU CSK ⌀12 X 90 AT 43,0"),
    fixed: false,
  },
  {
    rule: "slanted-or-round-entry",
    what: "a hole into a round",
    trips: mm("LEAVE ROUND ⌀60 X 40", "CUT ⌀10 DEEP 20 ON FRONT AT 0,20"),
    severity: "caution",
    row: 2,
    value: 0,
    limit: 0,
    holds: mm("LEAVE BLOCK 60 X 60 X 40", "CUT ⌀10 DEEP 20 ON FRONT AT 0,20"),
    fixed: false,
  },
  {
    rule: "thin-wall",
    what: "a wall between two pockets",
    trips: inch(
      "LEAVE BLOCK 4 X 3 X .75",
      "CUT POCKET 1 X 1 R.2 DEEP .4 AT -.51375,0",
      "CUT POCKET 1 X 1 R.2 DEEP .4 AT .51375,0",
    ),
    severity: "caution",
    row: 3,
    value: 0.0275 * 25.4,
    limit: 0.8,
    holds: inch(
      "LEAVE BLOCK 4 X 3 X .75",
      "CUT POCKET 1 X 1 R.2 DEEP .4 AT -.516,0",
      "CUT POCKET 1 X 1 R.2 DEEP .4 AT .516,0",
    ),
    fixed: false,
  },
  {
    rule: "thin-wall",
    what: "a ring",
    trips: mm("LEAVE ROUND ⌀60 X 20", "CUT POCKET ⌀58.5 DEEP 15"),
    severity: "caution",
    row: 2,
    value: 0.75,
    limit: 0.8,
    holds: mm("LEAVE ROUND ⌀60 X 20", "CUT POCKET ⌀58.3 DEEP 15"),
    fixed: false,
  },
  {
    rule: "thin-floor",
    what: "a floor under a pocket",
    trips: mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 50 X 30 R5 DEEP 19.1"),
    severity: "caution",
    row: 2,
    value: 0.9,
    limit: 1,
    holds: mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 50 X 30 R5 DEEP 19"),
    fixed: false,
  },
  {
    rule: "plane-inside",
    what: "a side plane within a flange",
    trips: mm("LEAVE ROUND ⌀90 X 12", "LEAVE BLOCK 40 X 40 X 30 ON TOP OF 1", "CUT ⌀4 DEEP 5 ON LEFT AT 0,25"),
    severity: "note",
    row: 3,
    value: 25,
    limit: 0,
    holds: mm("LEAVE BLOCK 40 X 90 X 12", "LEAVE BLOCK 40 X 40 X 30 ON TOP OF 1", "CUT ⌀4 DEEP 5 ON LEFT AT 0,25"),
    fixed: false,
  },
  {
    rule: "screw-clearance",
    what: "a head that does not go into its counterbore",
    trips: mm("LEAVE BLOCK 60 X 40 X 20", "CUT ⌀6.6 THRU CBORE ⌀9.5 DEEP 6.4"),
    severity: "caution",
    row: 2,
    value: 9.5,
    limit: 11,
    holds: mm("LEAVE BLOCK 60 X 40 X 20", "CUT ⌀6.6 THRU CBORE ⌀10.5 DEEP 6"),
  },
  {
    rule: "screw-clearance",
    what: "a head that stands out",
    trips: inch(...plate, "CUT ⌀.281 THRU CBORE ⌀.4375 DEEP .200"),
    severity: "caution",
    row: 2,
    value: 0.2 * 25.4,
    limit: 0.25 * 25.4,
    holds: inch(...plate, "CUT ⌀.281 THRU CBORE ⌀.4375 DEEP .250"),
  },
  {
    rule: "screw-clearance",
    what: "a hole closer than the closest",
    trips: mm("LEAVE BLOCK 60 X 40 X 20", "CUT ⌀8.2 THRU CBORE ⌀15 DEEP 8.6"),
    severity: "caution",
    row: 2,
    value: 8.2,
    limit: 9,
    holds: mm("LEAVE BLOCK 60 X 40 X 20", "CUT ⌀8.4 THRU CBORE ⌀15 DEEP 8.6"),
  },
  {
    rule: "countersink",
    what: "82° for a metric head",
    trips: mm("LEAVE BLOCK 60 X 40 X 20", "CUT ⌀6.6 THRU CSK ⌀13.7 X 82"),
    severity: "caution",
    row: 2,
    value: 82,
    limit: 90,
    holds: mm("LEAVE BLOCK 60 X 40 X 20", "CUT ⌀6.6 THRU CSK ⌀13.7 X 90"),
  },
  {
    rule: "countersink",
    what: "90° for an inch head",
    trips: inch(...plate, "CUT ⌀.300 THRU CSK ⌀.531 X 90"),
    severity: "caution",
    row: 2,
    value: 90,
    limit: 82,
    holds: inch(...plate, "CUT ⌀.300 THRU CSK ⌀.531 X 82"),
  },
  {
    rule: "tap-drill",
    what: "the drill of 2B under a thread of class 3B",
    trips: inch(...plate, "CUT 1/2-13 UNC-3B THRU DRILL ⌀.432"),
    severity: "caution",
    row: 2,
    value: 0.432 * 25.4,
    limit: 0.4284 * 25.4,
    holds: inch(...plate, "CUT 1/2-13 UNC-2B THRU DRILL ⌀.432"),
  },
  {
    rule: "plane-changed",
    what: "a side that was the plane through zero in row 1",
    trips: mm("LEAVE BLOCK 40 X 30 X 20 ON FRONT", "LEAVE ROUND ⌀10 X 8 ON FRONT AT 0,15"),
    severity: "note",
    row: 2,
    value: 20,
    limit: 0,
    holds: mm("LEAVE BLOCK 40 X 30 X 20 ON FRONT", "LEAVE ROUND ⌀10 X 28 ON FRONT AT 0,15,-20"),
    fixed: false,
  },
  {
    rule: "runs-off",
    what: "a line over the edge",
    trips: mm(
      'OUTLINE "line"',
      "START -30,0",
      "LINE TO X 60",
      "END",
      "LEAVE BLOCK 100 X 60 X 20",
      'CUT ENGRAVE "line" V 60 DEEP .3',
    ),
    severity: "caution",
    row: 2,
    value: 1,
    limit: 0,
    holds: mm(
      'OUTLINE "line"',
      "START -30,0",
      "LINE TO X 40",
      "LINE TO X 41",
      "END",
      "LEAVE BLOCK 100 X 60 X 20",
      'CUT ENGRAVE "line" V 60 DEEP .3',
    ),
    fixed: false,
  },
];

describe.each(cases)("$rule: $what", (c) => {
  it("is found with value, limit, source and place", async () => {
    const [f, ...more] = await findingsOf(c.trips, c.rule);
    expect(more).toEqual([]);
    expect(f).toMatchObject({ severity: c.severity, row: c.row });
    expect(f.value).toBeCloseTo(c.value, 3);
    expect(f.limit).toBeCloseTo(c.limit, 3);
    expect(f.source.length).toBeGreaterThan(5);
    expect(f.text.length).toBeGreaterThan(10);
  });
  it("is silent just inside the limit", async () => expect(await findingsOf(c.holds, c.rule)).toEqual([]));
  // A fix may leave a note: what was asked is answered.
  const fixable = c.fixed === false ? it.skip : it;
  fixable("is cleared by its own fix", async () =>
    expect((await afterFix(c.trips, c.rule)).filter((f) => f.severity !== "note" || c.severity === "note")).toEqual([]),
  );
});

/** Rules that have their cases in turnRules.test.ts and entryRules.test.ts. */
const turned = [
  "curved-bore",
  "rotary-axis",
  "taper",
  "knurl",
  "thread-blank",
  "thread-run-out",
  "groove",
  "ring-groove",
];
const entered = ["entry-over-step", "closed-void"];

describe("the rules", () => {
  it("never caution the drill of their own table", async () => {
    for (const thread of ["9/16-18 UNF-2B", "5/8-18 UNF", "0-80 UNF", "M6X0.75", "M8X0.75-6H", "11/16-24 UNEF", "M64"])
      expect([thread, await findingsOf(inch("LEAVE BLOCK 6 X 6 X 1", `CUT ${thread} THRU`), "tap-drill")]).toEqual([
        thread,
        [],
      ]);
  });
  it("each have a case here", () =>
    expect(new Set([...cases.map((c) => c.rule), ...turned, ...entered])).toEqual(new Set(rules.map((r) => r.id))));
  it("point at the part", async () => {
    for (const c of cases) {
      const [f] = await findingsOf(c.trips, c.rule);
      if (c.rule !== "corner-too-small") expect([c.rule, f.place !== null]).toEqual([c.rule, true]);
    }
  });
  it("see a sharp corner where one pocket runs into another", async () => {
    // A slot into a round pocket leaves two sharp inside corners only where walls meet inwards: none here, they are
    // outside corners.
    expect(
      await findingsOf(
        mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET ⌀30 DEEP 5", "CUT POCKET 60 X 10 R4.9 DEEP 5"),
        "sharp-inside-corner",
      ),
    ).toEqual([]);
    const cross = await findingsOf(
      mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 30 X 30 R5 DEEP 5", "CUT POCKET 20 X 20 DEEP 8"),
      "sharp-inside-corner",
    );
    expect(cross.map((f) => f.row)).toEqual([3]);
  });
  it("measure the wall through material, not through air", async () => {
    // The hole stands in a pocket's floor two millimetres from the pocket's wall: the wall is above it, not beside it.
    expect(
      await findingsOf(
        mm("LEAVE BLOCK 100 X 60 X 20", "CUT POCKET 50 X 40 R5 DEEP 8", "CUT ⌀10 THRU AT 18,0 ON FLOOR OF 2"),
        "edge-distance",
      ),
    ).toEqual([]);
  });
  it("leave countersinks and chamfers out of the sharp edges", async () => {
    expect(
      await findingsOf(
        mm("EDGES BREAK 0.3", "LEAVE ROUND ⌀40 X 10", "CUT CHAMFER 1 OUTER TOP, OUTER BOTTOM"),
        "edge-break",
      ),
    ).toEqual([]);
  });
  it("are waived with a written reason", async () => {
    const text = cases[2].trips;
    const { jobOf, evaluateJob } = await import("../../../tests/helpers/card");
    const job = {
      ...jobOf(text),
      waivers: [{ rule: "corner-equals-cutter", row: "r2", reason: "the drawing is fixed" }],
    };
    const f = (await evaluateJob(job)).findings.find((x) => x.rule === "corner-equals-cutter");
    expect(f?.waived).toBe("the drawing is fixed");
  });
  it("say where the same word for a plane has become another one", async () => {
    const outline = 'OUTLINE "o"\nSTART -20,0\nLINE TO 20,0\nLINE TO 20,30\nLINE TO -20,30\nCLOSE\nEND';
    const second = (line: string) =>
      findingsOf(mm(outline, 'LEAVE PRISM "o" X 24 BOTH ON FRONT', line), "plane-changed");
    const [f, ...more] = await second('LEAVE PRISM "o" X 30 BOTH ON FRONT');
    expect(more).toEqual([]);
    // Row 1 stands on y 0 and goes 12 to either side: the part's front is at y -12.
    expect(f).toMatchObject({ row: 2, severity: "note", value: 12 });
    expect(f.text).toContain("AT 0,0,-12 ");
    expect(await second('LEAVE PRISM "o" X 30 BOTH ON FRONT AT 0,0,-12')).toEqual([]);
    expect(await second("LEAVE BLOCK 10 X 10 X 40 AT 0,0,-10")).toEqual([]);
    expect(await second("CUT ⌀5 THRU AT 0,15 ON FRONT")).toEqual([]);
  });
  it("are waived for their own row and rule alone", async () => {
    const { jobOf, evaluateJob } = await import("../../../tests/helpers/card");
    const text = mm(
      "LEAVE BLOCK 80 X 60 X 20",
      "CUT POCKET 20 X 14 DEEP 5 AT -20,0",
      "CUT POCKET 20 X 14 DEEP 5 AT 20,0",
    );
    const sharp = async (waivers: { rule: string; row?: string; reason: string }[]) =>
      (await evaluateJob({ ...jobOf(text), waivers })).findings
        .filter((f) => f.rule === "sharp-inside-corner")
        .map((f) => [f.row, f.waived]);
    expect(await sharp([{ rule: "sharp-inside-corner", row: "r2", reason: "filed" }])).toEqual([
      [2, "filed"],
      [3, undefined],
    ]);
    expect(await sharp([{ rule: "sharp-inside-corner", reason: "of the whole job" }])).toEqual([
      [2, undefined],
      [3, undefined],
    ]);
    expect(await sharp([{ rule: "thin-wall", row: "r2", reason: "another" }])).toEqual([
      [2, undefined],
      [3, undefined],
    ]);
  });
  it.each([
    ["0,28.5", "0,28"],
    ["0,-28.5", "0,-28"],
    ["38.5,0", "38,0"],
    ["-38.5,0", "-38,0"],
  ])("move a hole away from the edge it is near, whichever that is: %s", async (at, about) => {
    const text = mm("LEAVE BLOCK 80 X 60 X 10", `CUT ⌀2 THRU AT ${at}`);
    const [found] = await findingsOf(text, "edge-distance");
    const label = found.fix!.label;
    const [x, y] = /move to (.+),(.+)/.exec(label)!.slice(1).map(Number);
    const [wantedX, wantedY] = about.split(",").map(Number);
    expect(Math.abs(x - wantedX) + Math.abs(y - wantedY)).toBeLessThan(1.01);
    expect(Math.abs(x) + Math.abs(y)).toBeLessThan(
      Math.abs(Number(at.split(",")[0])) + Math.abs(Number(at.split(",")[1])),
    );
    expect(await afterFix(text, "edge-distance")).toEqual([]);
  });
  it("never offer to change what the print says: that is asked", async () => {
    const bc = (d: string) =>
      findingsOf(mm("#1 ⌀50", "LEAVE ROUND ⌀60 X 10", `CUT 6X ⌀6 THRU ON BC ${d}`), "edge-distance");
    const [printed] = await bc("#1");
    expect([printed.fix, printed.question]).toEqual([
      undefined,
      expect.stringMatching(/^ask: BC \d+(\.\d+)? instead of balloon #1\?$/),
    ]);
    const [own] = await bc("50");
    expect([own.fix?.label, own.question]).toEqual([expect.stringMatching(/^BC /), undefined]);
    const [pocket] = await findingsOf(
      mm("#1 R1", "LEAVE BLOCK 100 X 60 X 30", "CUT POCKET 50 X 30 R#1 DEEP 18"),
      "corner-too-small",
    );
    expect([pocket.fix, pocket.question]).toEqual([undefined, expect.stringContaining("#1")]);
    const [deep] = await findingsOf(mm("#1 2", "LEAVE BLOCK 100 X 60 X 30", "CUT ⌀#1 DEEP 12!"), "drill-depth-ratio");
    expect(deep.fix?.label).toMatch(/^deep/);
  });
  it("propose sizes that there are", async () => {
    // No drill is ⌀33.124: then there is no such fix.
    expect(
      (await findingsOf(mm("LEAVE BLOCK 100 X 60 X 120", "CUT ⌀30 THRU"), "drill-depth-ratio"))[0].fix,
    ).toBeUndefined();
    expect(
      (
        await findingsOf(
          mm("LEAVE BLOCK 400 X 400 X 20", "CUT POCKET ⌀20 THRU", "CUT ⌀153 THRU AT 120,0"),
          "edge-distance",
        )
      ).map((f) => f.limit),
    ).toEqual([6]);
    const bc = (await findingsOf(mm("LEAVE ROUND ⌀60 X 10", "CUT 6X ⌀6.3 THRU ON BC 50.13"), "edge-distance"))[0].fix!
      .label;
    expect(Number(bc.replace("BC ", "")) * 20).toBeCloseTo(Math.round(Number(bc.replace("BC ", "")) * 20), 9);
  });
  it("see sharp corners and deep pockets of outlines and prisms too", async () => {
    const l = [
      'OUTLINE "l"',
      "START 0,0",
      "LINE TO X 80",
      "LINE TO Y 30",
      "LINE TO X 30",
      "LINE TO Y 80",
      "LINE TO X 0",
      "CLOSE",
      "END",
    ];
    expect(
      (await findingsOf(mm(...l, 'LEAVE PRISM "l" X 10'), "sharp-inside-corner")).map((f) => [f.row, f.severity]),
    ).toEqual([[1, "stop"]]);
    const pocket = (size: string, deep: number) =>
      mm('OUTLINE "p"', `RECTANGLE 60 X 40 ${size}`, "END", "LEAVE BLOCK 100 X 80 X 40", `CUT POCKET "p" DEEP ${deep}`);
    expect((await findingsOf(pocket("", 6), "sharp-inside-corner")).map((f) => [f.row, f.fix])).toEqual([
      [2, undefined],
    ]);
    expect((await findingsOf(pocket("R1", 18), "corner-too-small")).map((f) => f.row)).toEqual([2]);
    expect((await findingsOf(pocket("R3", 20), "deep-for-its-cutter")).map((f) => f.severity)).toEqual(["caution"]);
    expect(await findingsOf(pocket("R7", 18), "corner-too-small")).toEqual([]);
  });
  it("measure the wall from the thread, not from its drill", async () => {
    const [f] = await findingsOf(
      mm("LEAVE BLOCK 100 X 60 X 20", "CUT M10 DEEP 10 DRILL DEEP 16 AT 43,0"),
      "edge-distance",
    );
    expect(f).toMatchObject({ value: expect.closeTo(2, 9), limit: 5 });
  });
  it("come the gravest first", async () => {
    const { findings } = await evaluateCard(
      mm(
        "STOCK PLATE 90 X 70 X 25",
        "EDGES BREAK 0.3",
        "LEAVE BLOCK 100 X 60 X 20",
        "CUT POCKET 40 X 30 DEEP 5",
        "CUT ⌀3 THRU AT 40,20",
      ),
    );
    const rank = { stop: 0, caution: 1, note: 2 };
    expect(findings.map((f) => rank[f.severity])).toEqual([...findings.map((f) => rank[f.severity])].sort());
  });
});
