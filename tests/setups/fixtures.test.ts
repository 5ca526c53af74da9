// Jaws, plates and chuck jaws that follow the piece: by hand, and on pieces of many kinds. Lengths mm.
import { runs } from "../helpers/thorough";
import { prepare } from "@/core/engine";
import { sub } from "@/core/geometry/vec";
import { jobOf } from "@/core/job";
import { assemblyOf, besideOf } from "@/core/setups";
import { mm, inch } from "../helpers/card";
import { derivedCard, remarks, setUp } from "./helpers";

const { PI } = Math;
const rules = (found: { rule: string; severity: string }[]) =>
  found.filter((f) => f.severity !== "note").map((f) => f.rule);

describe("a nest by hand", () => {
  const BLOCK = ["LEAVE BLOCK 60 X 40 X 20", "SETUP 10 MILL UP TOP ROWS 1", "SETUP 20 MILL UP BOTTOM ROWS 1"];
  const nestOf = async (text: string) => {
    const { parts } = await setUp(text);
    return parts[1].evaluation.outlines.find((o) => o.name.startsWith("nest"))!;
  };
  it("is the rectangle with its room all round and three quarters of a circle at each corner", async () => {
    const card = await derivedCard(mm(...BLOCK), "jaws", 20, { grip: 5, clearance: 0.1, relief: 8 });
    // Grown by c, sides move out; a corner keeps a quarter less of its relief, which lies in the rectangle.
    const [c, r] = [0.1, 4];
    const relieved = 60 * 40 + 4 * (3 / 4) * PI * r * r;
    // Steiner, inwards corners of the reliefs losing what two offset curves share: compared with the exact offset's area.
    const nest = await nestOf(card);
    const around = 2 * (60 + 40) - 8 * r + 4 * (3 / 4) * 2 * PI * r;
    expect(nest.area).toBeGreaterThan(relieved + around * c - 8 * c * c);
    expect(nest.area).toBeLessThan(relieved + around * c + 8 * c * c);
  });
  it("reaches past the corner by exactly the radius of its relief and the room", async () => {
    const card = await derivedCard(mm(...BLOCK), "jaws", 20, { grip: 5, clearance: 0.1, relief: 8 });
    const nest = await nestOf(card);
    const corner = { x: 30, y: 20 };
    const past =
      Math.max(...nest.region.flat().map((s) => (s.kind === "arc" ? s.centre.x + s.radius : s.from.x))) - corner.x;
    expect(past).toBeCloseTo(4 + 0.1, 9);
  });
  it("has its reliefs where the shop's school puts them", async () => {
    const box = async (placement: "corner" | "wall" | "bisector") => {
      const nest = await nestOf(
        await derivedCard(mm(...BLOCK), "jaws", 20, { grip: 5, clearance: 0.1, relief: 8, placement }),
      );
      return nest.box!;
    };
    const [corner, wall, bisector] = [await box("corner"), await box("wall"), await box("bisector")];
    const high = (b: typeof corner) => Math.max(b.max.x - 30, b.max.y - 20);
    expect(high(corner)).toBeCloseTo(4.1, 9);
    expect(high(wall)).toBeCloseTo(4.1, 9);
    // On the bisector the circle goes through the corner: past the side by r - r / √2.
    expect(high(bisector)).toBeCloseTo(4 - 4 / Math.SQRT2 + 0.1, 9);
  });
  it("in inches too", async () => {
    const lines = ["LEAVE BLOCK 2.5 X 1.5 X .75", "SETUP 10 MILL UP TOP ROWS 1", "SETUP 20 MILL UP BOTTOM ROWS 1"];
    const card = await derivedCard(inch(...lines), "jaws", 20);
    const { setups } = await setUp(card);
    expect(rules(setups[1].findings)).toEqual([]);
    expect(card).toContain('LEAVE "pair": BLOCK 4 X 2.625 X 1.5');
  });
});

describe("what a nest is held to", () => {
  const jaws = (...lines: string[]) =>
    mm(
      "LEAVE BLOCK 60 X 40 X 20",
      "SETUP 10 MILL UP TOP ROWS 1",
      'SETUP 20 MILL UP BOTTOM HOLD JAWS "jaws" GRIP 5 ACROSS Y ROWS 1',
      'PART "jaws" JAWS',
      ...lines,
    );
  const pair = (nest: string[], h = 40, deep = 5, width = 80) =>
    jaws(
      'OUTLINE "nest"',
      ...nest,
      "END",
      `LEAVE BLOCK 120 X ${width} X ${h}`,
      "CUT POCKET 130 X 4 THRU",
      `CUT POCKET "nest" DEEP ${deep}`,
      `PLACE "test" IN "jaws" AT 0,0,${h - deep} UP BOTTOM MIDDLE AFTER SETUP 10`,
    );
  it.each([
    ["goes-in-from-above", pair(["RECTANGLE 59 X 41"]), pair(["RECTANGLE 60.1 X 40.1"])],
    ["nest-clearance", pair(["RECTANGLE 60 X 40"]), pair(["RECTANGLE 60.1 X 40.1"])],
    ["nest-clearance", pair(["RECTANGLE 61 X 41"]), pair(["RECTANGLE 60.3 X 40.3"])],
    [
      "relief-clears-corner",
      pair(["RECTANGLE 60.1 X 40.1"]),
      pair(["RECTANGLE 60 X 40", "RELIEF 8 CORNER ALL", "OFFSET .05"]),
    ],
    ["nest-depth", pair(["RECTANGLE 60.1 X 40.1"], 40, 6), pair(["RECTANGLE 60.1 X 40.1"], 40, 5)],
    ["nest-floor", pair(["RECTANGLE 60.1 X 40.1"], 10), pair(["RECTANGLE 60.1 X 40.1"], 11)],
    ["nest-wall", pair(["RECTANGLE 60.1 X 40.1"], 40, 5, 50), pair(["RECTANGLE 60.1 X 40.1"], 40, 5, 54)],
  ])("%s trips, and just inside does not", async (rule, trips, inside) => {
    expect((await remarks(trips, rule)).length).toBe(1);
    expect(await remarks(inside, rule)).toEqual([]);
  });
  it("says where it cannot tell whether corners clear: deeper than any cutter of the crib", async () => {
    const deep = pair(["RECTANGLE 60.1 X 40.1"], 140, 100)
      .replace("60 X 40 X 20", "60 X 40 X 120")
      .replace("GRIP 5", "GRIP 100");
    const [found] = await remarks(deep, "relief-clears-corner");
    expect(found).toMatchObject({ severity: "caution", value: 0, limit: 4 });
    expect(found.text).toContain("cannot be told");
  });
  it("tells the fix of a nest that is deeper than the grip, which clears it", async () => {
    const [found] = await remarks(pair(["RECTANGLE 60.1 X 40.1"], 40, 6), "nest-depth");
    expect(found.fix!.label).toBe("grip 6");
    expect(await remarks(pair(["RECTANGLE 60.1 X 40.1"], 40, 6).replace("GRIP 5", "GRIP 6"), "nest-depth")).toEqual([]);
  });
  it("an overhang that only shows half way down", async () => {
    const piece = (flange: string) =>
      mm(
        "LEAVE BLOCK 40 X 30 X 20",
        `LEAVE BLOCK ${flange} X 6 AT 0,0,4`,
        "SETUP 10 MILL UP TOP ROWS 1-2",
        'SETUP 20 MILL UP TOP HOLD JAWS "jaws" GRIP 12 ACROSS Y ROWS 1',
        'PART "jaws" JAWS',
        'OUTLINE "nest"',
        'SECTION Z 1 OF "test" AFTER 2',
        "RELIEF 6 OUTSIDE",
        "OFFSET .05",
        "END",
        "LEAVE BLOCK 120 X 80 X 40",
        'CUT POCKET "nest" DEEP 12',
        'PLACE "test" IN "jaws" AT 0,0,28 MIDDLE AFTER SETUP 10',
      );
    const [found] = await remarks(piece("50 X 30"), "goes-in-from-above");
    // Ten by thirty of it stand over the jaws, less the reliefs' share and the room.
    expect(found.value).toBeGreaterThan(2 * 5 * 30 - 40);
    expect(found.value).toBeLessThan(2 * 5 * 30);
    expect(await remarks(piece("40 X 30"), "goes-in-from-above")).toEqual([]);
  });
  it("a cutter that goes into the jaw, and a hole with nothing under it", async () => {
    const lines = (row: string, more = "") =>
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        row,
        "SETUP 10 MILL UP TOP ROWS 1",
        'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 2',
        'PART "plate" PLATE',
        "LEAVE BLOCK 120 X 80 X 30",
        "CUT POCKET 60.1 X 40.1 R.01 DEEP 5",
        ...(more ? [more] : []),
        'PLACE "test" IN "plate" AT 0,0,25 UP BOTTOM MIDDLE AFTER SETUP 10',
      );
    const through = await remarks(lines("CUT ⌀6 THRU ON BOTTOM"), "drop-hole");
    expect(through[0].row).toBe(2);
    expect(await remarks(lines("CUT ⌀6 THRU ON BOTTOM", "CUT ⌀8 THRU"), "drop-hole")).toEqual([]);
    const step = await remarks(lines("CUT POCKET 20 X 60 DEEP 17 ON BOTTOM AT 30,0"), "cut-into-jaw");
    expect(step[0].value).toBeCloseTo(2, 6);
    expect(await remarks(lines("CUT POCKET 20 X 60 DEEP 14.9 ON BOTTOM AT 30,0"), "cut-into-jaw")).toEqual([]);
  });
  it("a cutter that is wider than the step it cuts beside the jaw", async () => {
    const lines = (deep: number) =>
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        `CUT STEP LEFT 3 DEEP ${deep} ON BOTTOM`,
        "SETUP 10 MILL UP TOP ROWS 1",
        'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 2',
        'PART "plate" PLATE',
        "LEAVE BLOCK 120 X 80 X 30",
        "CUT POCKET 60.1 X 40.1 R.01 DEEP 5",
        'PLACE "test" IN "plate" AT 0,0,25 UP BOTTOM MIDDLE AFTER SETUP 10',
      );
    expect((await remarks(lines(17), "cut-into-jaw"))[0].value).toBeCloseTo(2, 6);
    expect(await remarks(lines(15), "cut-into-jaw")).toEqual([]);
  });
  it("says so where it cannot be told whether a cutter goes in", async () => {
    // A hole aslant cuts every level of the plate in an ellipse, which no section here is made of.
    const [found] = await remarks(
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        "CUT STEP LEFT 3 DEEP 17 ON BOTTOM",
        "SETUP 10 MILL UP TOP ROWS 1",
        'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 2',
        'PART "plate" PLATE',
        'PLANE "aslant" TILT 30 ABOUT X AT 0,0,60',
        "LEAVE BLOCK 160 X 120 X 30",
        "CUT POCKET 60.1 X 40.1 R.01 DEEP 5",
        'CUT ⌀10 THRU ON PLANE "aslant" AT 60,0',
        'PLACE "test" IN "plate" AT 0,0,25 UP BOTTOM MIDDLE AFTER SETUP 10',
      ),
      "cut-into-jaw",
    );
    expect(found.severity).toBe("caution");
    expect(found.text).toMatch(/^whether row 2 goes into "plate" cannot be told/);
  });
  it("a clamp screw where a cutter passes under its head", async () => {
    const lines = (x: number, deep = 10) =>
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        `CUT STEP LEFT 3 DEEP ${deep} ON BOTTOM`,
        "SETUP 10 MILL UP TOP ROWS 1",
        'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 2',
        'PART "plate" PLATE',
        "LEAVE BLOCK 160 X 80 X 30",
        "CUT POCKET 60.1 X 40.1 R.01 DEEP 5",
        `CUT 2X M6 THRU AT ${x},0 ${-x},0`,
        'PLACE "test" IN "plate" AT 0,0,25 UP BOTTOM MIDDLE AFTER SETUP 10',
      );
    // The head is 9 across and 6 high; the step's floor is 5 over the plate, and the smallest cutter is 1 wide.
    const found = await remarks(lines(35), "clamp-screw");
    expect(found.map((f) => [f.severity, f.row, f.value])).toEqual([["stop", 2, 5]]);
    expect(await remarks(lines(45), "clamp-screw")).toEqual([]);
    expect(await remarks(lines(35, 8), "clamp-screw")).toEqual([]);
    const under = await remarks(lines(33, 8), "clamp-screw");
    expect(under.map((f) => f.text)).toEqual(['the piece lies over 2 of the clamp screws of row 3 of "plate"']);
    expect(under[0].places).toHaveLength(2);
  });
  it("stations that lie too near, and over the edge", async () => {
    const plate = (pitch: number) =>
      mm(
        "LEAVE BLOCK 60 X 40 X 20",
        "SETUP 10 MILL UP TOP ROWS 1",
        'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 1',
        'PART "plate" PLATE',
        'OUTLINE "nest"',
        'SHADOW DEEP 5 FROM TOP FILLED OF "test" AFTER SETUP 10',
        "RELIEF 8 CORNER OUTSIDE",
        "OFFSET .05",
        "END",
        "LEAVE BLOCK 200 X 80 X 30",
        'CUT POCKET "nest" DEEP 5',
        `PLACE "test" IN "plate" AT ${-pitch / 2},0,25 UP BOTTOM MIDDLE AFTER SETUP 10`,
        `PLACE "test" IN "plate" AT ${pitch / 2},0,25 UP BOTTOM MIDDLE AFTER SETUP 10`,
      );
    expect((await remarks(plate(58), "stations-apart"))[0].severity).toBe("stop");
    expect(await remarks(plate(100), "stations-apart")).toEqual([]);
    expect((await remarks(plate(160), "nest-wall")).some((f) => f.severity === "stop")).toBe(true);
  });
  it("stations that have the piece another way round", async () => {
    const plate = (turn: string) =>
      mm(
        "LEAVE BLOCK 40 X 40 X 20",
        "SETUP 10 MILL UP TOP ROWS 1",
        'SETUP 20 MILL UP BOTTOM HOLD PLATE "plate" ROWS 1',
        'PART "plate" PLATE',
        "LEAVE BLOCK 200 X 80 X 30",
        "CUT 2X POCKET 40.1 X 40.1 R.01 DEEP 5 LINE 2 BY 100 AT -50,0",
        'PLACE "test" IN "plate" AT -50,0,25 UP BOTTOM MIDDLE AFTER SETUP 10',
        `PLACE "test" IN "plate" AT 50,0,25 UP BOTTOM ${turn} MIDDLE AFTER SETUP 10`,
      );
    expect((await remarks(plate("TURN 90"), "datum-same")).length).toBe(1);
    expect(await remarks(plate(""), "datum-same")).toEqual([]);
  });
  it("a setup held in a part that is not there, or has no place for it", async () => {
    const gone = await remarks(
      mm("LEAVE BLOCK 60 X 40 X 20", 'SETUP 10 MILL UP TOP HOLD JAWS "x" GRIP 5 ACROSS Y ROWS 1'),
      "setup-refused",
    );
    expect(gone[0].text).toContain('there is no part "x"');
    const unplaced = await remarks(jaws("LEAVE BLOCK 100 X 80 X 40"), "setup-refused");
    expect(unplaced[0].text).toContain("has no place for the piece");
    // What can be told without a place is told all the same.
    const { setups } = await setUp(jaws("LEAVE BLOCK 100 X 80 X 40"));
    expect(setups[1].hold).toMatchObject({ grip: 5, above: 15 });
  });
  it("parts that follow each other in a circle are a failed row, and nothing else is lost", async () => {
    const { parts } = await setUp(
      mm(
        'PART "a" WORK',
        "LEAVE BLOCK 60 X 40 X 20",
        'PART "b" PLATE',
        'OUTLINE "o"',
        'SHADOW DEEP 5 FROM TOP OF "a" AFTER SETUP 10',
        "END",
        "LEAVE BLOCK 100 X 80 X 30",
        'CUT POCKET "o" DEEP 5',
        'PLACE "a" IN "b" AT 0,0,0',
      ),
    );
    expect(parts[1].evaluation.solved.rows.map((r) => r.state)).toEqual(["ok", "failed"]);
    expect(parts[1].evaluation.solved.rows[1].message).toContain("has no setup 10");
  });
});

/** Pieces of many kinds: their rows, and which setup they are held in. */
const PIECES: [what: string, rows: string[], up: string, longer: [string, string]][] = [
  ["a block", ["LEAVE BLOCK 60 X 40 X 20"], "BOTTOM", ["60 X 40", "64 X 38"]],
  ["rounded corners", ["LEAVE BLOCK 60 X 40 X 20 R 6"], "BOTTOM", ["60 X 40", "70 X 44"]],
  ["a round", ["LEAVE ROUND ⌀50 X 20"], "BOTTOM", ["⌀50", "⌀54"]],
  ["a hexagon", ["LEAVE POLYGON 6 AF 40 X 20"], "BOTTOM", ["AF 40", "AF 43"]],
  ["an L", ["LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 30 X 20 THRU AT 20,12"], "BOTTOM", ["60 X 40", "62 X 40"]],
  ["a chamfered edge", ["LEAVE BLOCK 60 X 40 X 20", "CUT CHAMFER 2 OUTER TOP"], "BOTTOM", ["60 X 40", "66 X 42"]],
  ["a rounded edge", ["LEAVE BLOCK 60 X 40 X 20", "CUT ROUND 3 OUTER TOP"], "BOTTOM", ["60 X 40", "66 X 42"]],
  ["a flange under a boss", ["LEAVE ROUND ⌀60 X 8", "LEAVE ROUND ⌀30 X 20 ON TOP"], "BOTTOM", ["⌀30", "⌀34"]],
  [
    "pockets and holes from above",
    ["LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 40 X 20 R5 DEEP 12", "CUT 4X ⌀5 THRU GRID 2 2 BY 52 32"],
    "BOTTOM",
    ["60 X 40 X 20", "66 X 40 X 22"],
  ],
  ["standing on its end", ["LEAVE BLOCK 60 X 40 X 20"], "LEFT", ["60 X 40", "60 X 44"]],
  ["off its zero", ["LEAVE BLOCK 60 X 40 X 20 CORNER AT 5,7"], "BOTTOM", ["60 X 40", "66 X 36"]],
  [
    "slanted walls",
    ['OUTLINE "o"', "RECTANGLE 60 X 40", "END", 'LEAVE PRISM "o" X 20 DRAFT 5'],
    "BOTTOM",
    ["60 X 40", "64 X 42"],
  ],
];

describe("on pieces of many kinds", () => {
  const setupsFor = (up: string, rows: string[]) => {
    const n = rows.filter((r) => /^(LEAVE|CUT)/.test(r)).length;
    return [`SETUP 10 MILL UP TOP ROWS 1-${n}`, `SETUP 20 MILL UP ${up} ROWS 1`];
  };
  const troubles = async (text: string) => {
    const { setups, parts, kernel } = await setUp(text);
    const failed = parts.flatMap((p) =>
      p.evaluation.solved.rows.filter((r) => r.state === "failed").map((r) => r.message),
    );
    // Slanted walls are held by nothing that stands opposite: that is said, and is no fault of the nest.
    const wrong = setups[1].findings.filter((f) => f.severity === "stop" && f.rule !== "grip-area").map((f) => f.text);
    const holder = parts[parts.length - 1].evaluation.solved.finalKey!;
    return [...failed, ...wrong, ...(kernel.measure(holder).volume > 0 ? [] : ["no solid"])];
  };
  const every = (n: number, from: number) => PIECES.filter((_, i) => i % n === from);
  it.each(runs(PIECES, every(3, 1)))("soft jaws for %s go in, clear, and follow", async (_, rows, up, [was, is]) => {
    const card = await derivedCard(mm(...rows, ...setupsFor(up, rows)), "jaws", 20);
    expect(card).toContain("JAWS");
    expect(await troubles(card)).toEqual([]);
    const changed = card.replace(was, is);
    expect(changed).not.toBe(card);
    expect(await troubles(changed)).toEqual([]);
  });
  it.each(runs(every(2, 0), every(6, 2)))(
    "a plate of two stations for %s goes in, clears, and follows",
    async (_, rows, up, [was, is]) => {
      const card = await derivedCard(mm(...rows, ...setupsFor(up, rows)), "plate", 20, { stations: { x: 2, y: 1 } });
      expect(await troubles(card)).toEqual([]);
      expect(await troubles(card.replace(was, is))).toEqual([]);
    },
  );
  it("the pieces at the other stations are shown where they lie, and are in no file of the setup", async () => {
    const card = mm(
      "LEAVE BLOCK 60 X 40 X 20",
      'SETUP 10 MILL UP TOP DATUM CENTRE HOLD PLATE "plate" ROWS 1',
      'PART "plate" PLATE',
      "STOCK PLATE 220 X 80 X 30",
      "LEAVE BLOCK 220 X 80 X 30",
      "CUT POCKET 60.2 X 40.2 DEEP 5 AT -50,0 50,0",
      'PLACE "test" IN "plate" AT -50,0,25 UP TOP AFTER SETUP 0',
      'PLACE "test" IN "plate" AT 50,0,25 UP TOP AFTER SETUP 0',
    );
    const { setups, kernel, document } = await setUp(card);
    const scope = prepare(jobOf(document)).scope;
    const { name } = document.parts[0];
    expect(assemblyOf(setups[0], kernel, scope, name).map((s) => s.is)).toEqual(["piece", "holder"]);
    const [other, ...more] = besideOf(setups[0], name, "end");
    expect(more).toEqual([]);
    const [here] = assemblyOf(setups[0], kernel, scope, name, "end");
    expect(other.key).toBe(here.key);
    const way = sub(other.place.origin, here.place.origin);
    expect([way.x, way.y, way.z].map((n) => Math.round(n * 1e6) / 1e6)).toEqual([100, 0, 0]);
    expect(other.place.normal.z).toBeCloseTo(1, 12);
  });
  it.each([
    ["a plain round", ["LEAVE ROUND ⌀50 X 30"], "⌀50"],
    ["a stepped one", ["LEAVE ROUND ⌀60 X 10", "LEAVE ROUND ⌀30 X 25 ON TOP", "CUT ⌀12 THRU"], "⌀30"],
  ] as const)("bored jaws for %s hold and follow", async (_, rows, diameter) => {
    const card = await derivedCard(mm(...rows, ...setupsFor("BOTTOM", [...rows])), "chuck", 20, { grip: 8 });
    const { setups } = await setUp(card);
    expect(rules(setups[1].findings)).toEqual([]);
    const d = Number(diameter.slice(1));
    expect(setups[1].hold!.diameter).toBeCloseTo(d, 9);
    expect(setups[1].hold!.gripArea).toBeCloseTo(PI * d * 8, 6);
    expect(await troubles(card.replace(diameter, `⌀${d + 2}`))).toEqual([]);
  });
  it.each([
    ["a hexagon on every other flat", "LEAVE POLYGON 6 AF 30 X 60", 30, 3 * (30 / Math.sqrt(3)) * 20],
    [
      "a hexagon with its upper end turned",
      "LEAVE POLYGON 6 AF 30 X 30\nLEAVE ROUND ⌀20 X 30 ON TOP",
      30,
      3 * (30 / Math.sqrt(3)) * 20,
    ],
  ])("a chuck holds %s", async (_, row, diameter, area) => {
    const { setups } = await setUp(mm(row, "SETUP 10 LATHE UP TOP HOLD CHUCK GRIP 20 ROWS 1"));
    expect(setups[0].hold!.diameter).toBeCloseTo(diameter, 9);
    expect(setups[0].hold!.gripArea).toBeCloseTo(area, 6);
    expect(rules(setups[0].findings)).not.toContain("grip-area");
  });
  it.each([
    ["a square bar", "LEAVE BLOCK 30 X 30 X 60"],
    ["five flats", "LEAVE POLYGON 5 AF 30 X 60"],
    ["a round over a square foot", "LEAVE BLOCK 50 X 50 X 8\nLEAVE ROUND ⌀30 X 52 ON TOP"],
    ["a hexagon over a square foot", "LEAVE BLOCK 50 X 50 X 8\nLEAVE POLYGON 6 AF 30 X 52 ON TOP"],
    ["a hexagon whose corners stand out of a round", "LEAVE POLYGON 6 AF 30 X 10\nLEAVE ROUND ⌀32 X 50 ON TOP"],
  ])("and not %s", async (_, row) => {
    const found = await remarks(mm(row, "SETUP 10 LATHE UP TOP HOLD CHUCK GRIP 20 ROWS 1"), "grip-area");
    expect(found[0]).toMatchObject({ severity: "stop", value: 0 });
  });
  it("jaws cut to a hexagon hold it and follow", async () => {
    const rows = ["LEAVE POLYGON 6 AF 30 X 40", "CUT ⌀8 THRU"];
    const card = await derivedCard(mm(...rows, ...setupsFor("BOTTOM", rows)), "chuck", 20, { grip: 12 });
    expect(await troubles(card)).toEqual([]);
    expect(await troubles(card.replace("AF 30", "AF 34"))).toEqual([]);
  });
  const stepped = (deep: number) =>
    mm(
      "STOCK PLATE 60 X 40 X 20",
      "LEAVE BLOCK 60 X 40 X 20",
      `CUT STEP LEFT 5 DEEP ${deep}`,
      "SETUP 10 MILL UP TOP ROWS 2",
    );
  it("a plate gives a cutter room beside the sides that are machined, as wide as the largest, and it follows", async () => {
    const card = await derivedCard(stepped(16), "plate", 10, { grip: 6, stations: { x: 2, y: 1 } });
    // The step ends 4 over the nest's floor of 6: the plate goes down 2, and 1 more.
    expect(card).toMatch(/CUT "room 10": POCKET "room 10" DEEP 3/);
    const stops = async (text: string) =>
      (await setUp(text)).setups[0].findings.filter((f) => f.severity === "stop").map((f) => f.rule);
    expect(await stops(card)).toEqual([]);
    const without = card
      .split("\n")
      .filter((l) => !l.startsWith('CUT "room'))
      .join("\n");
    expect(await stops(without)).toContain("cut-into-jaw");
    // Longer, the room grows with what the piece covers.
    const longer = card.replaceAll("60 X 40 X 20", "68 X 40 X 20");
    const plate = (text: string) =>
      setUp(text).then((s) => s.kernel.measure(s.parts[1].evaluation.solved.finalKey!).volume);
    expect(await stops(longer)).toEqual([]);
    expect(await plate(longer)).toBeLessThan(await plate(card));
    // Over the plate nothing is taken away.
    expect(await derivedCard(stepped(12), "plate", 10, { grip: 6 })).not.toMatch(/room/);
    // As deep as the nest there would be no nest left: the row is stopped instead.
    const deep = await derivedCard(stepped(19.5), "plate", 10, { grip: 6 });
    expect(deep).not.toMatch(/room/);
    expect(await stops(deep)).toContain("cut-into-jaw");
  });
  it("soft jaws stay below what is cut beside the piece, and let drilled holes drop out", async () => {
    const card = await derivedCard(
      stepped(16).replace("ROWS 2", "ROWS 2-3").replace("SETUP", "CUT 2X ⌀6 THRU LINE 2 BY 30 AT -15,8\nSETUP"),
      "jaws",
      10,
    );
    // A fifth of the height would be 4.5; the step ends at 4.
    expect(card).toMatch(/GRIP 3 /);
    expect(card).toMatch(/CUT "drop holes 3": ⌀8 DEEP 8 PLACES "under 3" CIRCLES/);
    const { setups, parts } = await setUp(card);
    expect(parts[1].evaluation.solved.rows.every((r) => r.state === "ok")).toBe(true);
    expect(setups[0].findings.filter((f) => f.severity === "stop").map((f) => f.text)).toEqual([]);
  });
  it("no boss is proposed into a pocket whose mouth holes run into", async () => {
    const piece = (apart: number) =>
      mm(
        "LEAVE BLOCK 60 X 50 X 20",
        `CUT 2X ⌀6 THRU LINE 2 BY ${apart} AT ${-apart / 2},0`,
        "CUT POCKET 20.2 X 25.5 R3 DEEP 10",
        "SETUP 10 MILL UP TOP ROWS 2-3",
        "SETUP 20 MILL UP BOTTOM ROWS 1",
      );
    expect(await derivedCard(piece(40), "plate", 20)).toMatch(/boss 20-3/);
    const met = await derivedCard(piece(15), "plate", 20);
    expect(met).not.toMatch(/boss/);
    expect((await setUp(met)).parts[1].evaluation.solved.rows.every((r) => r.state === "ok")).toBe(true);
  });
  it("clamp screws stand at both ends of every station, clear of its cutter", async () => {
    const card = await derivedCard(stepped(16), "plate", 10, { grip: 6, clamps: "m6", stations: { x: 2, y: 2 } });
    expect(card).toContain('CUT "clamps 10": M6 THRU PLACES "clamps 10" MIDDLES X');
    const clamped = async (text: string) => {
      const { setups, parts } = await setUp(text);
      expect(setups[0].findings.filter((f) => ["clamp-screw", "screw-met"].includes(f.rule))).toEqual([]);
      expect(parts[1].evaluation.solved.rows.every((r) => r.state === "ok")).toBe(true);
      const step = parts[1].evaluation.solved.rows.find((r) => r.row.name === "clamps 10")!.placed!.step;
      const places = step?.op === "cut" ? step.places : [];
      return { count: places.length, reach: Math.max(...places.map((p) => p.x)) };
    };
    const before = await clamped(card as string);
    expect(before.count).toBe(8);
    // A piece that becomes longer pushes them outwards, by half of what it grows.
    const after = await clamped((card as string).replaceAll("60 X 40 X 20", "66 X 40 X 20"));
    expect(after.count).toBe(8);
    expect(after.reach - before.reach).toBeCloseTo(3, 6);
    expect(await derivedCard(stepped(16), "plate", 10, { clamps: "M6.5" })).toBe('"M6.5" is no thread of the table');
  });
  it("windows and slots that go through drop out like holes", async () => {
    const piece = (long: number) => [
      `LEAVE BLOCK ${long} X 70 X 20`,
      "CUT POCKET 70 X 40 R 6 THRU",
      "CUT SLOT 20 X 6 THRU AT 0,28",
      "SETUP 10 MILL UP TOP ROWS 1-3",
    ];
    const card = (await derivedCard(mm(...piece(100)), "plate", 10)) as string;
    const { setups, parts } = await setUp(card);
    expect(setups[0].findings.filter((f) => f.severity === "stop")).toEqual([]);
    const drop = parts[1].evaluation.solved.rows.find((r) => r.row.name === "drop 2")!;
    const thick = parts[1].evaluation.part!.box.max.z - setups[0].lying[0].holderBox.min.z;
    const nest = setups[0].lying[0].holderBox.max.z - setups[0].lying[0].box.min.z;
    // A window of 70 x 40 with rounds of 6, a millimetre larger all round, through what is left under the nest.
    expect(drop.removed).toBeCloseTo((72 * 42 - (4 - PI) * 49) * (thick - nest), 3);
  });
  it("a plate of one station after the other takes the piece as each setup finds it", async () => {
    const rows = [
      "STOCK PLATE 64 X 44 X 28",
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT POCKET 40 X 20 R5 DEEP 8",
      "CUT 2X ⌀6 THRU LINE 2 BY 50 AT -25,0",
    ];
    const card = await derivedCard(
      mm(...rows, "SETUP 10 MILL UP TOP ROWS 1-3", "SETUP 20 MILL UP BOTTOM ROWS 1"),
      "plate",
      10,
      { serves: [10, 20] },
    );
    const { setups } = await setUp(card);
    expect(setups.map((s) => s.lying.length)).toEqual([1, 1]);
    const [a, b] = setups.map((s) => s.lying[0].box);
    // The stock in the first, the part without its foot in the second.
    expect(a.max.x - a.min.x).toBeCloseTo(64, 6);
    expect(b.max.x - b.min.x).toBeCloseTo(64, 6);
    expect(setups.flatMap((s) => s.findings.filter((f) => f.severity === "stop")).map((f) => f.text)).toEqual([]);
  });
});

describe("a job of many rows beside a part of many rows", () => {
  it("has its setups told: what is looked at together is not forgotten", async () => {
    const holes = (n: number, wide: number) =>
      Array.from(
        { length: n },
        (_, i) => `CUT ⌀3 DEEP 5 FLAT AT ${(i % 20) * 9 - 86},${Math.floor(i / 20) * 9 - wide}`,
      );
    const { setups } = await setUp(
      mm(
        "LEAVE BLOCK 200 X 100 X 20",
        ...holes(200, 45),
        'SETUP 10 MILL UP TOP HOLD PLATE "plate" ROWS 1-100',
        'PART "plate" PLATE',
        "LEAVE BLOCK 300 X 200 X 30",
        ...holes(140, 60),
        'PLACE "test" IN "plate" AT 0,0,30',
      ),
    );
    expect(setups[0].lying).toHaveLength(1);
    expect(setups[0].standing!.after).toBeCloseTo(400_000 - 99 * PI * 2.25 * 5, 3);
  });
});

describe("the ends of soft jaws", () => {
  const LONG = (long: number) => [
    `LEAVE BLOCK ${long} X 40 X 20`,
    "SETUP 10 MILL UP TOP ROWS 1",
    "SETUP 20 MILL UP BOTTOM ROWS 1",
  ];
  it.each([
    ["both", 0],
    ["left", 1],
    ["right", 1],
    ["none", 2],
  ] as const)("with shoulders %s: %d of them milled down to the floor of the nest", async (shoulders, open) => {
    const card = (await derivedCard(mm(...LONG(60)), "jaws", 20, { shoulders })) as string;
    const { parts, setups } = await setUp(card);
    const steps = parts[1].evaluation.solved.rows.filter((r) => r.row.name?.startsWith("open"));
    expect(steps.map((r) => r.state)).toEqual(Array(open).fill("ok"));
    // Blanks of 100 x 84 wide leave 20 beside a piece of 60; the nest's end walls go with a millimetre over the piece.
    for (const r of steps) expect(r.removed).toBeGreaterThan(0);
    expect(setups[1].hold!.gripArea).toBeCloseTo(2 * 60 * setups[1].hold!.grip!, 6);
    expect(rules(setups[1].findings)).toEqual([]);
    if (shoulders === "left") expect(steps[0].row.name).toBe("open right");
  });
  it("a piece longer than any blank stands out of them at both, and is gripped on their length", async () => {
    expect(await derivedCard(mm(...LONG(260)), "jaws", 20)).toContain("no jaw blank of the shop takes");
    const card = (await derivedCard(mm(...LONG(260)), "jaws", 20, { shoulders: "none" })) as string;
    const { setups, parts } = await setUp(card);
    const { min, max } = parts[1].evaluation.part!.box;
    expect(max.x - min.x).toBeLessThan(260);
    expect(setups[1].hold!.gripArea).toBeCloseTo(2 * (max.x - min.x) * setups[1].hold!.grip!, 6);
    expect(rules(setups[1].findings)).toEqual([]);
  });
});
