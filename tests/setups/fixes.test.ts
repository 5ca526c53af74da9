import { pressed, remarks } from "./helpers";
import { mm } from "../helpers/card";

/** A block of 60 x 40 x 20 in a part that holds it, turned over. */
const held = (kind: "JAWS" | "PLATE", hold: string, piece: string[], lines: string[], place = "AT 0,0,25") =>
  mm(
    "LEAVE BLOCK 60 X 40 X 20",
    ...piece,
    "SETUP 10 MILL UP TOP ROWS 1",
    `SETUP 20 MILL UP BOTTOM HOLD ${hold} ROWS ${piece.length ? "2" : "1"}`,
    `PART "holder" ${kind}`,
    ...lines,
    `PLACE "test" IN "holder" ${place} UP BOTTOM MIDDLE AFTER SETUP 10`,
  );
const inJaws = (nest: string[], deep = 5, [wide, high] = [80, 30], more: string[] = []) =>
  held(
    "JAWS",
    'JAWS "holder" GRIP 5 ACROSS Y',
    [],
    [
      'OUTLINE "nest"',
      ...nest,
      "END",
      `LEAVE BLOCK 140 X ${wide} X ${high}`,
      `CUT POCKET "nest" DEEP ${deep}`,
      "CUT 2X ⌀9 DEEP 20 FLAT LINE 2 BY 60 AT -30,10 ON FRONT",
      ...more,
    ],
    `AT 0,0,${high - deep}`,
  );
const follows = (...more: string[]) => ['SHADOW DEEP 5 FROM TOP FILLED OF "test" AFTER SETUP 10', ...more];
const relieved = follows("RELIEF 8 CORNER OUTSIDE", "OFFSET .05");
const nested = ["LEAVE BLOCK 140 X 90 X 30", "CUT POCKET 60.1 X 40.1 R.01 DEEP 5"];
const onPlate = (piece: string[], lines = nested) => held("PLATE", 'PLATE "holder"', piece, lines);

const stations = (second: string, y = 0) =>
  mm(
    "LEAVE BLOCK 40 X 40 X 20",
    "SETUP 10 MILL UP TOP ROWS 1",
    'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 1',
    'PART "plate" PLATE',
    'OUTLINE "nest"',
    'SHADOW DEEP 5 FROM TOP FILLED OF "test" AFTER SETUP 10',
    "RELIEF 8 CORNER OUTSIDE",
    "OFFSET .05",
    "END",
    "LEAVE BLOCK 240 X 120 X 30",
    'CUT POCKET "nest" DEEP 5',
    'PLACE "test" IN "plate" AT -50,0,25 UP BOTTOM MIDDLE AFTER SETUP 10',
    `PLACE "test" IN "plate" AT ${second},${y},25 UP BOTTOM MIDDLE AFTER SETUP 10`,
  );
const inChuck = (piece: string, hold: string, ...more: string[]) =>
  mm(piece, `SETUP 10 LATHE UP TOP HOLD CHUCK ${hold} ROWS 1`, ...more);
const bored = (bore: string) =>
  inChuck(
    "LEAVE ROUND ⌀40 X 60",
    'GRIP 20 BORED "jaws"',
    'PART "jaws" CHUCKJAWS',
    "LEAVE ROUND ⌀100 X 40",
    `CUT POCKET ⌀${bore} DEEP 20`,
    'PLACE "test" IN "jaws" AT 0,0,20 MIDDLE AFTER SETUP 0',
  );

/** In a vise the second time: of the first the workpiece's own remarks tell how deep it grips. */
const inVise = (piece: string, grip: number, across: string) =>
  mm(piece, "SETUP 10 MILL UP TOP ROWS 1", `SETUP 20 MILL UP BOTTOM HOLD VISE GRIP ${grip} ACROSS ${across} ROWS 1`);
const routed = (row: string, rows: string) =>
  mm("LEAVE BLOCK 60 X 40 X 20", row, `SETUP 10 MILL UP TOP HOLD VISE GRIP 5 ACROSS Y ROWS ${rows}`);
/** So small that jaws 2 deep hold too little of it. */
const slim = mm(
  "LEAVE BLOCK 20 X 10 X 20",
  'SETUP 10 MILL UP TOP HOLD JAWS "jaws" GRIP 2 ACROSS Y ROWS 1',
  'PART "jaws" JAWS',
  'OUTLINE "nest"',
  'SHADOW DEEP 2 FROM BOTTOM FILLED OF "test" AFTER SETUP 0',
  "RELIEF 4 CORNER OUTSIDE",
  "OFFSET .05",
  "END",
  "LEAVE BLOCK 60 X 60 X 30",
  'CUT POCKET "nest" DEEP 2',
  'PLACE "test" IN "jaws" AT 0,0,28 MIDDLE AFTER SETUP 0',
);

const cases: [rule: string, label: string, card: string][] = [
  ["goes-in-from-above", "cut the nest free", inJaws(["RECTANGLE 59 X 41"])],
  ["nest-clearance", "cut the nest free", inJaws(["RECTANGLE 60 X 40", "RELIEF 8 CORNER ALL"])],
  ["nest-clearance", "room 0.05 a side", inJaws(follows("RELIEF 8 CORNER OUTSIDE", "OFFSET .5"))],
  ["nest-clearance", "room 0.05 a side", inJaws(follows("RELIEF 8 CORNER OUTSIDE", "OFFSET 6"))],
  ["relief-clears-corner", "cut the nest free", inJaws(["RECTANGLE 60.1 X 40.1"])],
  ["nest-depth", "grip 6", inJaws(relieved, 6)],
  ["nest-wall", "6.00 longer", inJaws(relieved, 5, [46, 30])],
  ["nest-floor", "4.00 thicker", inJaws(relieved, 5, [80, 7])],
  ["screw-met", "put them lower", inJaws(relieved, 5, [80, 19])],
  ["drop-hole", "drop holes under it", onPlate(["CUT ⌀6 THRU ON BOTTOM"])],
  // Dimensioned from the top, drilled from the bottom all the same.
  ["drop-hole", "drop holes under it", onPlate(["CUT ⌀6 THRU"])],
  ["chip-room", "make the hole deeper", onPlate(["CUT ⌀6 THRU ON BOTTOM"], [...nested, "CUT ⌀8 DEEP 8 FLAT"])],
  ["cut-into-jaw", "room for the cutter, 3.00 deep", onPlate(["CUT STEP LEFT 3 DEEP 17 ON BOTTOM"])],
  [
    "clamp-screw",
    "switch the screws of its row 3 off",
    onPlate(["CUT STEP LEFT 3 DEEP 10 ON BOTTOM"], [...nested, "CUT 2X M6 THRU AT 35,0 -35,0"]),
  ],
  [
    "screw-met",
    "switch row 3 off",
    onPlate(["CUT FACE DEEP 1 ON BOTTOM"], [...nested, "CUT 2X ⌀9 THRU AT 33,0 -60,0"]),
  ],
  ["stations-apart", "move the station", stations("-20")],
  ["stations-apart", "move the station", stations("-50", 30)],
  ["datum-same", "turn them alike", stations("50").replace(/(AT 50,0,25 UP BOTTOM)/, "$1 TURN 90")],
  ["overhang", "grip 40", inChuck("LEAVE ROUND ⌀20 X 100", "GRIP 20")],
  ["chuck-stop", "grip 8", inChuck("LEAVE ROUND ⌀40 X 60", "GRIP 20 STOP 8")],
  ["jaw-stroke", "bore 9.96 smaller", bored("50")],
  ["grip-area", "close along Y", inVise("LEAVE POLYGON 6 AF 40 X 20", 5, "X")],
  ["grip-area", "grip 4", inVise("LEAVE BLOCK 20 X 10 X 20", 1, "Y")],
  ["grip-area", "grip 4.00", slim],
  ["grip-refused", "grip 4", inVise("LEAVE BLOCK 60 X 40 X 20", 20, "Y")],
  ["grip-too-shallow", "grip 7.55", inVise("LEAVE BLOCK 60 X 40 X 37.5", 4, "Y")],
  // A square bar lying: its ends are from the saw, its sides are not.
  [
    "sawn-grip",
    "close along X",
    mm("STOCK SQUARE 40 X 60", "LEAVE BLOCK 40 X 40 X 60", "SETUP 10 MILL UP FRONT HOLD VISE GRIP 8 ACROSS Y ROWS 1"),
  ],
  ["row-in-no-setup", "row 2 in setup 10", routed("CUT ⌀5 THRU", "1")],
  ["row-in-no-setup", "row 2 in a setup 20, front up", routed("CUT ⌀5 DEEP 5 AT 0,10 ON FRONT", "1")],
  ["row-unreachable", "row 2 in a setup 20, front up", routed("CUT ⌀5 DEEP 5 AT 0,10 ON FRONT", "1 2")],
];

describe("a remark on how a piece is held", () => {
  it.each(cases)("%s tells value, limit, source, place and a fix (%s) that clears it", async (rule, label, card) => {
    const { found, after } = await pressed(card, rule);
    expect(found.fix!.label).toBe(label);
    expect([Number.isFinite(found.value), Number.isFinite(found.limit), found.source !== ""]).toEqual([
      true,
      true,
      true,
    ]);
    expect(found.place).not.toBeNull();
    expect(after.findings.filter((f) => f.rule === rule && f.text === found.text)).toEqual([]);
    expect(after.parts.flatMap((p) => p.evaluation.solved.rows.filter((r) => r.state === "failed"))).toEqual([]);
  });
});

describe("just inside the limit", () => {
  it.each([
    ["screw-met", inJaws(relieved, 5, [80, 21])],
    ["screw-met", onPlate(["CUT FACE DEEP 1 ON BOTTOM"], [...nested, "CUT 2X ⌀9 THRU AT 35.1,0 -60,0"])],
    ["chip-room", onPlate(["CUT ⌀6 THRU ON BOTTOM"], [...nested, "CUT ⌀8 DEEP 9.1 FLAT"])],
    ["overhang", inChuck("LEAVE ROUND ⌀20 X 100", "GRIP 40")],
    ["jaw-stroke", bored("46")],
  ])("%s is not said", async (rule, card) => {
    expect(await remarks(card, rule)).toEqual([]);
  });
});
