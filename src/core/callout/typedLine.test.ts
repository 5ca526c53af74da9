import { emptyJob, type Job } from "../job";
import { readCard, readCallout, readOutlineLine, withBalloons, writeCard, writeOutlineItem } from ".";

const job = (...lines: string[]): Job => readCard(['JOB "lid"', "UNIT in", ...lines].join("\n")).job;
const block = job("LEAVE BLOCK 4 X 3 X .75");

describe("the callout line", () => {
  it("says the card's words where a print's were typed, and nothing where they are the same", () => {
    const printed = readCallout("8X ⌀.281 THRU ⌴ ⌀.438 ↧ .28 EQ SP ON ⌀3.500 B.C.", block, "g");
    expect(printed.ok && printed.as).toBe("CUT 8X ⌀.281 THRU CBORE ⌀.438 DEEP .28 ON BC 3.500");
    const own = readCallout("4X ⌀.25 THRU GRID 2 2 BY 2 1", block, "g");
    expect(own.ok && own.as).toBeNull();
  });
  it("takes sizes alone for the piece in an empty job, and for nothing later", () => {
    expect(readCallout("⌀4.250 X .750 THK", emptyJob("x", "in", ""), "g")).toMatchObject({
      ok: true,
      as: "LEAVE ROUND ⌀4.250 X .750",
    });
    expect(readCallout("⌀4.250 X .750 THK", block, "g").ok).toBe(false);
  });
  it.each([
    ["4X ⌀.25 TRHU GRID 2 2 BY 2 1", "CUT 4X ⌀.25 THRU GRID 2 2 BY 2 1"],
    ["CHAMFR .03 OUTER TOP", "CUT CHAMFER .03 OUTER TOP"],
    ["CHAMFER .03", "CUT CHAMFER .03 OUTER TOP"],
    ["⌀.25 THRU WITH LOVE", "CUT ⌀.25 THRU"],
    ["⌀.5", "CUT ⌀.5 DEEP ?"],
  ])("%s: type %s instead", (typed, instead) => {
    const read = readCallout(typed, block, "g");
    expect(!read.ok && read.error.instead).toBe(instead);
    expect(readCallout(instead, block, "g").ok).toBe(true);
  });
  it("points at the character of what was typed, also without a verb", () => {
    const read = readCallout("POCKET 2 X 1 DEEP .5 SIDEWAYS", block, "g");
    expect(!read.ok && read.at).toBe(21);
  });
  it("takes neither long nonsense nor many lines of it for ever", () => {
    const began = performance.now();
    readCard(
      ['JOB "x"', "UNIT in", ...Array.from({ length: 300 }, (_, i) => `nonsense ${i} X of ⌀ any kind`)].join("\n"),
    );
    readCallout("A ".repeat(900), block, "g");
    expect(performance.now() - began).toBeLessThan(5000);
  });
});

describe("numbers printed with a tolerance", () => {
  it("become balloons, and the row is made of them", () => {
    const read = readCallout("⌀.2500 +.0005/-.0000 ↧ .5 ±.01", block, "g");
    if (!read.ok) throw new Error(read.error.message);
    const { rows, balloons } = withBalloons([read.row], read.toleranced, block);
    const [row] = rows;
    expect(balloons).toMatchObject([
      { number: 1, kind: "diameter", value: ".2500", tolerance: { kind: "sided" } },
      { number: 2, value: ".5", tolerance: { kind: "plusMinus", value: ".01" } },
    ]);
    expect(row.body).toMatchObject({ diameter: "#1", deep: "#2" });
  });
  it("as limits stand in the middle, and keep both ends", () => {
    const read = readCallout("⌀.505/.500 THRU", block, "g");
    if (!read.ok) throw new Error(read.error.message);
    expect(read.row.body).toMatchObject({ diameter: ".5025" });
    expect(withBalloons([read.row], read.toleranced, block).balloons).toMatchObject([
      { tolerance: { kind: "limits", high: ".505", low: ".500" } },
    ]);
  });
});

describe("a card as a print words it", () => {
  it("is read line by line, and written in the card's words", () => {
    const card = readCard(
      [
        'JOB "flange"',
        "UNIT in",
        "#1 8X ⌀.281 THRU ⌴ ⌀.438 ↧ .28 ON ⌀3.500 B.C.",
        "#6 .750 THK",
        "⌀4.250 X #6",
        "8X #1 THRU CBORE #2 DEEP #3 ON BC #4",
        'OUTLINE "tab"',
        "0,0",
        "RIGHT 1",
        "UP .5",
        "LEFT 1",
        "CLOSE",
        "END",
        "BREAK ALL EDGES .010",
      ].join("\n"),
    );
    expect(card.errors).toEqual([]);
    expect(card.job.balloons.map((b) => b.number)).toEqual([1, 2, 3, 4, 6]);
    expect(writeCard(card.job).split("\n").slice(-5)).toEqual([
      "END",
      "LEAVE ROUND ⌀4.250 X #6",
      "CUT 8X ⌀#1 THRU CBORE ⌀#2 DEEP #3 ON BC #4",
      "CUT BREAK .010 ALL SHARP",
      "",
    ]);
  });
  it("says what to type instead of a line that is none", () => {
    const { errors } = readCard(
      ['JOB "x"', "UNIT in", "LEAVE BLOCK 4 X 3 X .75", "4X ⌀.25 TRHU GRID 2 2 BY 2 1"].join("\n"),
    );
    expect(errors).toMatchObject([{ line: 4, instead: "CUT 4X ⌀.25 THRU GRID 2 2 BY 2 1" }]);
  });
});

it.each([
  ["LINE RIGHT 1", "LINE BY X 1"],
  ["UP .5", "LINE BY Y .5"],
  ["LEFT #4", "LINE BY X -#4"],
  ["RIGHT 1 DOWN .5", "LINE BY 1,-.5"],
  ["3,4", "LINE TO 3,4"],
])("in an outline %s is %s", (typed, becomes) => {
  const r = readOutlineLine(typed, { idOf: (n) => `r${n}`, numberOf: (id) => id.slice(1) });
  expect(r.ok && writeOutlineItem(r.item, { idOf: String, numberOf: (id) => id })).toBe(becomes);
});

it("keeps tolerances of all the rows a line says: what is done from both sides is one dimension", () => {
  const kept = (typed: string) => {
    const read = readCallout(typed, block, "g");
    if (!read.ok) throw new Error(read.error.message);
    const made = withBalloons([read.row, ...read.more], read.toleranced, block);
    return [made.balloons.length, ...made.rows.map((r) => JSON.stringify(r.body).includes('"#1"'))];
  };
  expect(kept("⌀.25 THRU ⌴ ⌀.50 ±.01 ↧ .125 BOTH SIDES")).toEqual([1, true, true]);
  expect(kept("⌀.25 THRU ⌀.5 ±.01 ↧ .25")).toEqual([1, false, true]);
});
