// Setups against what is worked out by hand beside each. Lengths mm.
import { readCard, writeDocument } from "@/core/callout";
import { prepare } from "@/core/engine";
import { applyEdits } from "@/core/job";
import { assemblyOf } from "@/core/setups";
import { mm } from "../helpers/card";
import { derivedCard, documentOfCard, remarks, setUp } from "./helpers";

const { PI } = Math;
const CLAMP = [
  "STOCK PLATE 64 X 44 X 24",
  "LEAVE BLOCK 60 X 40 X 20",
  "CUT POCKET 30 X 20 R4 DEEP 8",
  "CUT 4X ⌀6 THRU GRID 2 2 BY 48 28",
  "CUT POCKET 20 X 10 R4 DEEP 5 ON BOTTOM",
];
const card = (...lines: string[]) => mm(...CLAMP, ...lines);

describe("the line of a setup", () => {
  it.each([
    "SETUP 10 MILL UP TOP DATUM CENTRE HOLD VISE GRIP 3 ACROSS Y ROWS 1 3-4",
    "SETUP 20 MILL UP BOTTOM DATUM LEFT FRONT OF STOCK HOLD VISE GRIP 3 ACROSS X ROWS 1",
    "SETUP 30 INDEX UP INDEX 30 ABOUT X DATUM AXIS OF 3 HOLD INDEX GRIP 8 ROWS 2",
    "SETUP 40 LATHE UP TOP DATUM CHUCK HOLD CHUCK GRIP 12 STOP 12",
    "SETUP 50 MILL UP FLOOR OF 2 DATUM JAW",
  ])("comes back as it is written: %s", (line) => {
    const text = writeDocument(documentOfCard(card(line)));
    expect(text).toContain(`${line}\n`);
    expect(writeDocument(documentOfCard(text))).toBe(text);
  });
  it.each([
    ["SETUP 10", "MILL, LATHE or INDEX", 9],
    ["SETUP 10 MILL UP SIDEWAYS", "a side, a plane of a row", 18],
    ["SETUP 10 MILL HOLD VISE GRIP", "a grip depth", 29],
    ["SETUP 10 MILL ROWS", "the numbers of rows", 19],
    ["SETUP 10 MILL DATUM LEFT", "a corner", 25],
    ["SETUP 0 MILL", "from 1", 7],
  ])("says what is wrong with it: %s", (line, expected, column) => {
    const [error] = readCard(card(line)).errors;
    expect(error.expected).toContain(expected);
    expect(error.column).toBe(column);
  });
  it("is there once, and not beside HOLD", () => {
    expect(readCard(card("SETUP 10 MILL", "SETUP 10 MILL")).errors[0].message).toContain("there twice");
    expect(readCard(card("HOLD VISE GRIP 3 ACROSS Y", "SETUP 10 MILL")).errors[0].message).toContain("HOLD");
    expect(readCard(card("SETUP 10 MILL", "HOLD VISE GRIP 3 ACROSS Y")).errors[0].message).toContain(
      "lines of their own",
    );
  });
});

describe("the piece from setup to setup", () => {
  const TWO = ["SETUP 10 MILL UP TOP ROWS 1-3", "SETUP 20 MILL UP BOTTOM ROWS 1 4"];
  const pocket = (l: number, w: number, r: number, d: number) => (l * w - (4 - PI) * r * r) * d;
  // The plate under the part, with the drills coming a millimetre out below it.
  const after10 = 60 * 40 * 20 + 64 * 44 * 2 - pocket(30, 20, 4, 8) - 4 * PI * 9 * (20 + 1);
  const finished = 60 * 40 * 20 - pocket(30, 20, 4, 8) - pocket(20, 10, 4, 5) - 4 * PI * 9 * 20;

  it("is looked at as it comes and when it is cut", async () => {
    const { setups, kernel, parts } = await setUp(card(...TWO));
    const scope = prepare(parts[0].job).scope;
    const piece = (moment: "start" | "end") =>
      kernel.measure(assemblyOf(setups[0], kernel, scope, "clamp", moment)[0].key).volume;
    expect(piece("start")).toBeCloseTo(64 * 44 * 24, 6);
    expect(piece("end")).toBeCloseTo(after10, 6);
  });

  it("starts as the stock and ends as the part", async () => {
    const { setups } = await setUp(card(...TWO));
    const [a, b] = setups.map((s) => s.standing!);
    expect(a.before).toBeCloseTo(64 * 44 * 24, 6);
    expect(a.after).toBeCloseTo(after10, 4);
    expect(b.before).toBe(a.after);
    expect(b.after / finished).toBeCloseTo(1, 9);
  });
  it("takes off a chamfer by what it takes of the part", async () => {
    const { setups } = await setUp(mm(CLAMP[1], "CUT CHAMFER 1 OUTER TOP", "SETUP 10 MILL UP TOP ROWS 1 2"));
    // Four mitred strips of half a square millimetre.
    expect(setups[0].standing!.after).toBeCloseTo(
      48000 - (60 * 40 - 58 * 38) / 2 + (60 * 40 - 58 * 38) / 2 - (2 * 0.5 * (60 + 40) - 4 / 3),
      6,
    );
  });
  it("has its datum where it says", async () => {
    const datum = async (up: string, d: string) => {
      const { setups } = await setUp(card(`SETUP 10 MILL UP ${up} DATUM ${d} ROWS 1-4`));
      const { x, y, z } = setups[0].standing!.frame.origin;
      return [x, y, z].map((n) => Number(n.toFixed(9)) + 0);
    };
    expect(await datum("TOP", "CENTRE")).toEqual([0, 0, 20]);
    expect(await datum("TOP", "LEFT FRONT OF STOCK")).toEqual([-32, -22, 22]);
    // Turned over about X the front is at the back.
    expect(await datum("BOTTOM", "LEFT FRONT")).toEqual([-30, 20, 0]);
    expect(await datum("FRONT", "RIGHT BACK")).toEqual([30, -20, 20]);
    expect(await datum("TOP", "AXIS OF 3")).toEqual([-24, -14, 20]);
    expect(await datum("TOP", "CHUCK")).toEqual([0, 0, -2]);
  });
  it("refuses a datum that is none, and an up that is none", async () => {
    const [fault] = await remarks(card("SETUP 10 MILL UP FLOOR OF 3 ROWS 1"), "setup-refused");
    expect(fault).toMatchObject({ setup: 10, severity: "stop" });
    expect(fault.text).toContain("has no floor");
  });
});

describe("from where rows are reached", () => {
  it("proposes the fewest setups, a row where it is reached whole", async () => {
    const { routing } = await setUp(card());
    expect(routing!.proposed.map((p) => [p.op, p.direction.name, p.rows])).toEqual([
      [10, "top", [1, 2, 3]],
      [20, "bottom", [1, 4]],
    ]);
    const through = routing!.access.find((a) => a.row === 3)!;
    expect(through.whole.map((d) => d.name)).toEqual(["top", "bottom"]);
    const pocket = routing!.access.find((a) => a.row === 2)!;
    expect(pocket.whole.map((d) => d.name)).toEqual(["top"]);
    expect(pocket.why.find((w) => w.direction.name === "bottom")!.hindrance).toBe("looks away");
  });
  it("takes a tilted plane where a hole needs one", async () => {
    const { routing } = await setUp(
      mm("LEAVE BLOCK 60 X 40 X 20", 'PLANE "a" TILT 30 ABOUT Y AT 0,0,40', 'CUT ⌀6 DEEP 20 FLAT ON PLANE "a"'),
    );
    expect(routing!.proposed.some((p) => p.direction.name === 'plane "a"' && p.rows.includes(2))).toBe(true);
  });
  it.each(["", " FLAT", " POINT 90", " CSK ⌀9 X 90", " CBORE ⌀9 DEEP 4"])(
    "sees a blind hole whole from its mouth, to the tip of the drill%s",
    async (end) => {
      const { routing } = await setUp(mm("LEAVE BLOCK 60 X 40 X 20", `CUT ⌀6 DEEP 12${end} AT 7,3`));
      const hole = routing!.access.find((a) => a.row === 2)!;
      expect(hole.whole.map((d) => d.name)).toEqual(["top"]);
      expect(routing!.proposed[0].why[1]).toBe("row 2: all of it is reached from top");
    },
  );
  it("a hole both setups reach goes where its drill is used anyway", async () => {
    const { routing } = await setUp(
      mm(
        "STOCK PLATE 84 X 64 X 24",
        "LEAVE BLOCK 80 X 60 X 20",
        "CUT POCKET 30 X 20 R 4 DEEP 8",
        "CUT ⌀5 THRU AT 30,20",
        "CUT ⌀5 DEEP 6 AT -30,20 ON BOTTOM",
      ),
    );
    const [top, bottom] = routing!.proposed;
    expect([top.direction.name, bottom.direction.name]).toEqual(["top", "bottom"]);
    expect(top.rows).not.toContain(3);
    expect(bottom.rows).toEqual(expect.arrayContaining([3, 4]));
    expect(bottom.why).toContain(
      "row 3: all of it is reached from bottom, as from an earlier setup, but its cutter is used here",
    );
  });
  it.each([0.5, 2, 6, 25, 100])("reaches a window with rounds of %d whole from above", async (radius) => {
    const { routing } = await setUp(
      mm("LEAVE BLOCK 300 X 300 X 20", `CUT POCKET 240 X 220 R ${radius} THRU`, "SETUP 10 MILL UP TOP ROWS 1-2"),
    );
    expect(routing!.access[1].whole.map((d) => d.name)).toEqual(["top", "bottom"]);
    expect(routing!.unassigned).not.toContain(2);
  });
  it("says what stands in the way: a pocket under a bridge", async () => {
    const { routing } = await setUp(
      mm("LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 40 X 10 THRU ON FRONT AT 0,10", "CUT ⌀4 DEEP 3 FLAT ON FLOOR OF 3"),
    );
    const window = routing!.access.find((a) => a.row === 2)!;
    expect(window.whole.map((d) => d.name)).toEqual(["front", "back"]);
    expect(window.why.find((w) => w.direction.name === "top")!.hindrance).toBe("looks away");
  });
  it("remarks a row in no setup, and one that its setup does not see", async () => {
    const missing = await remarks(card("SETUP 10 MILL UP TOP ROWS 1-3"), "row-in-no-setup");
    expect(missing.map((f) => f.row)).toEqual([4]);
    const wrong = await remarks(card("SETUP 10 MILL UP TOP ROWS 1-4"), "row-unreachable");
    expect(wrong.map((f) => [f.row, f.setup])).toContainEqual([4, 10]);
    const right = await setUp(card("SETUP 10 MILL UP TOP ROWS 1-3", "SETUP 20 MILL UP BOTTOM ROWS 1 4"));
    expect(right.findings).toEqual([]);
  });
  it("marks a balloon between two setups with what a turn-over costs, unless its tolerance is wide", async () => {
    const held = (tolerance: string) => [
      `#1 12 ${tolerance}`,
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT POCKET 30 X 20 R4 DEEP (20 - #1)",
      "CUT POCKET 20 X 10 R4 DEEP 5 ON BOTTOM AT #1,0",
    ];
    const routing = ["SETUP 10 MILL UP TOP ROWS 1-2", "SETUP 20 MILL UP BOTTOM ROWS 1 3"];
    const tight = await remarks(mm(...held("±.02"), ...routing), "turn-over");
    expect(tight[0]).toMatchObject({ severity: "caution", limit: 0.16 });
    expect(tight[0].value).toBeCloseTo(0.04, 9);
    const wide = await remarks(mm(...held("±.5"), ...routing), "turn-over");
    expect(wide[0].severity).toBe("note");
    const one = await remarks(mm(...held("±.02"), "SETUP 10 MILL UP TOP ROWS 1-3"), "turn-over");
    expect(one).toEqual([]);
  });
});

describe("grip", () => {
  const hold = async (...lines: string[]) => (await setUp(mm(...lines))).setups[0].hold!;
  it("of a vise: both jaws together, on what truly stands opposite", async () => {
    const block = await hold("LEAVE BLOCK 60 X 40 X 20", "SETUP 10 MILL UP TOP HOLD VISE GRIP 3 ACROSS Y ROWS 1");
    expect(block).toMatchObject({ kind: "vise", grip: 3, above: 17 });
    expect(block.gripArea).toBeCloseTo(2 * 60 * 3, 9);
    // A step on one side: only the length that both sides have.
    const stepped = await hold(
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT POCKET 20 X 10 DEEP 20 AT 20,-20",
      "SETUP 10 MILL UP TOP HOLD VISE GRIP 3 ACROSS Y ROWS 1",
      "SETUP 20 MILL UP TOP HOLD VISE GRIP 3 ACROSS Y ROWS 2",
    );
    expect(stepped.gripArea).toBeCloseTo(2 * 60 * 3, 9);
  });
  it("of a piece another setup has cut into", async () => {
    const { setups } = await setUp(
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        "CUT POCKET 20 X 10 THRU AT 20,-20",
        "SETUP 10 MILL UP TOP ROWS 1-2",
        "SETUP 20 MILL UP BOTTOM HOLD VISE GRIP 3 ACROSS Y ROWS 1",
      ),
    );
    expect(setups[1].hold!.gripArea).toBeCloseTo(2 * 40 * 3, 9);
  });
  it("on a round lies on two lines, which is nothing", async () => {
    const found = await remarks(
      mm("LEAVE ROUND ⌀40 X 20", "SETUP 10 MILL UP TOP HOLD VISE GRIP 6 ACROSS Y ROWS 1"),
      "grip-area",
    );
    expect(found[0]).toMatchObject({ severity: "stop", value: 0 });
  });
  it("is refused where it is as deep as the piece, its fix clears it", async () => {
    const lines = (grip: string) =>
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        "SETUP 10 MILL UP TOP ROWS 1",
        `SETUP 20 MILL UP TOP HOLD VISE GRIP ${grip} ACROSS Y ROWS 1`,
      );
    const [deep] = await remarks(lines("20"), "grip-refused");
    expect(deep.fix!.label).toBe("grip 4");
    expect(await remarks(lines("4"), "grip-refused")).toEqual([]);
    const [shallow] = await remarks(lines("2"), "grip-too-shallow");
    expect(shallow.severity).toBe("stop");
    expect(await remarks(lines(shallow.fix!.label.replace("grip ", "")), "grip-too-shallow")).toEqual([]);
  });
  it("of nothing is said, and nothing else is lost", async () => {
    const { setups } = await setUp(
      card("SETUP 10 MILL UP TOP HOLD VISE GRIP 0 ACROSS Y ROWS 1-3", "SETUP 20 MILL UP BOTTOM ROWS 1 4"),
    );
    expect(setups[0].findings[0]).toMatchObject({ rule: "setup-refused" });
    expect(setups[1].standing!.after).toBeGreaterThan(0);
  });
  it("of a chuck: the round it lies on", async () => {
    const chuck = await hold("LEAVE ROUND ⌀30 X 20", "SETUP 10 LATHE UP TOP HOLD CHUCK GRIP 8 ROWS 1");
    expect(chuck.diameter).toBeCloseTo(30, 9);
    expect(chuck.gripArea).toBeCloseTo(PI * 30 * 8, 6);
    expect(chuck.above).toBeCloseTo(12, 9);
  });
  it.each([
    ["overhang", "LEAVE ROUND ⌀10 X 60", "LEAVE ROUND ⌀10 X 38"],
    ["thin-ring", "LEAVE RING OD 60 ID 54 X 20", "LEAVE RING OD 60 ID 48 X 20"],
    ["grip-area", "LEAVE BLOCK 30 X 30 X 20", "LEAVE ROUND ⌀30 X 20"],
    ["grip-refused", "LEAVE ROUND ⌀30 X 8", "LEAVE ROUND ⌀30 X 9"],
  ])("%s trips, and just inside does not", async (rule, trips, inside) => {
    const setup = "SETUP 10 LATHE UP TOP HOLD CHUCK GRIP 8 ROWS 1";
    expect((await remarks(mm(trips, setup), rule)).length).toBe(1);
    expect(await remarks(mm(inside, setup), rule)).toEqual([]);
  });
});

describe("jaws on faces from the saw", () => {
  const TWO = [
    "SETUP 10 MILL UP TOP HOLD VISE GRIP 4 ACROSS Y ROWS 1",
    "SETUP 20 MILL UP BOTTOM HOLD VISE GRIP 4 ACROSS Y ROWS 1",
  ];
  it("are noted where they are gripped, and not once they are milled", async () => {
    const found = await remarks(mm("STOCK PLATE 64 X 44 X 28", "LEAVE BLOCK 60 X 40 X 20", ...TWO), "sawn-grip");
    expect(found.map((f) => f.setup)).toEqual([10]);
    expect(await remarks(mm("LEAVE BLOCK 60 X 40 X 20", ...TWO), "sawn-grip")).toEqual([]);
  });
});

describe("a setup that would spare the turn-over", () => {
  it("is offered where it sees both rows, and pressing it clears the mark", async () => {
    const rows = ["#1 20 ±.02", "LEAVE BLOCK 60 X 40 X 20", "CUT ⌀5 THRU AT -10,0", "CUT ⌀6 THRU AT (#1 - 10),0"];
    const card = (at: string) => mm(...rows, "SETUP 10 MILL UP TOP ROWS 1 2", `SETUP 20 MILL UP BOTTOM ROWS ${at}`);
    const [mark] = await remarks(
      mm(...rows, "SETUP 10 MILL UP TOP ROWS 1 2", "SETUP 20 MILL UP BOTTOM ROWS 1 3"),
      "turn-over",
    );
    expect(mark?.fix?.label).toMatch(/in setup 10$/);
    const { document } = await setUp(card("1 3"));
    const edited = applyEdits(document, mark.fix!.edits);
    if (!edited.ok) throw new Error(edited.problems[0].message);
    expect(await remarks(writeDocument(edited.value.job), "turn-over")).toEqual([]);
  });
});

describe("what is refused by the assistants", () => {
  it.each([
    ["jaws", 20, { grip: 30 }, "as deep as the piece is high"],
    ["jaws", 20, { grip: -1 }, "the grip is nothing"],
    ["jaws", 20, { spacer: 60 }, "spacer"],
    ["jaws", 20, { clearance: -1 }, "less than nothing"],
    ["jaws", 20, { clearance: 50 }, "no jaw blank of the shop takes a nest of"],
    ["jaws", 20, { relief: 500 }, "no jaw blank of the shop takes a nest of"],
    ["jaws", 40, {}, "there is no setup 40"],
    ["plate", 20, { stations: { x: 2, y: 1 }, pitch: { x: 30, y: 0 } }, "smaller than the nest"],
    ["chuck", 20, {}, "nothing round"],
  ] as const)("%s for setup %d with %j", async (kind, op, wishes, why) => {
    expect(await derivedCard(card(), kind, op, wishes)).toContain(why);
  });
});
