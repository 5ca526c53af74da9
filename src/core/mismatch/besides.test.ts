import { evaluateCard, evaluateJob, jobOf, kernel, mm } from "../../../tests/helpers/card";
import { explain } from ".";
import { besides, besideWords, isNoSlip, type FigureGrounds } from "./besides";

/** No edge note, and a figure printed whole. */
const GROUNDS: FigureGrounds = { toBreak: null, lastDigit: 0 };
const rows = [
  "#1 60",
  "#2 40",
  "#3 10",
  "LEAVE BLOCK #1 X #2 X #3",
  "CUT 4X M6 DEEP 8 DRILL ⌀5 DEEP 9 FLAT GRID 2 2 BY 40 20",
  "CUT POCKET 10 X 10 DEEP 2",
  "CUT CHAMFER 1 OUTER TOP",
];
const off = async (kind: "volume" | "mass", by: number) => {
  const e = await evaluateCard(mm(...rows));
  const actual = kind === "volume" ? e.part!.volume : e.part!.mass!;
  return besides({ kind, expected: actual + by, actual, agrees: false, tolerance: 0.1 }, e, GROUNDS);
};

test("a pocket no balloon drives is told with its share of the difference", async () => {
  const [first, ...rest] = await off("volume", -200);
  expect(first).toMatchObject({ kind: "undriven", row: 3 });
  expect(first.share).toBeCloseTo(1, 6);
  // The tapped holes are the print's by their count and thread alone: no number of theirs is a balloon's either.
  expect(rest.map((b) => b.kind)).toContain("tap drilling");
});

test("threads at their outside instead of at their drill: four rings of 6 and 5 over 8", async () => {
  const rings = 4 * (Math.PI / 4) * (36 - 25) * 8;
  const told = await off("mass", (-rings * 7.87) / 1000);
  const threads = told.find((b) => b.kind === "tap drilling")!;
  expect(threads.share).toBeCloseTo(1, 4);
  expect(told[0]).toBe(threads);
});

test("neither is told of a print that differs the other way; a thread through and through is as long as its hole", async () => {
  expect((await off("volume", 300)).map((b) => b.kind)).not.toContain("tap drilling");
  expect((await off("volume", -300)).map((b) => b.kind)).not.toContain("edge breaks");
  const through = [...rows.slice(0, 4), "CUT 4X M6 THRU DRILL ⌀5 GRID 2 2 BY 40 20"];
  const e = await evaluateCard(mm(...through));
  const actual = e.part!.volume;
  const expected = actual - 4 * (Math.PI / 4) * (36 - 25) * 10;
  const [told] = besides({ kind: "volume", expected, actual, agrees: false, tolerance: 0.1 }, e, GROUNDS);
  expect(told).toMatchObject({ kind: "tap drilling", share: expect.closeTo(1, 4) });
});

test("broken edges by their volume; a figure that is neither weight nor volume tells nothing", async () => {
  // A chamfer of 1 round the top of 60 by 40: c²/2 along 200 less 4/3 c³ at the corners, divided out by hand.
  const rim = 100 - 4 / 6;
  const told = await off("volume", rim);
  expect(told.find((b) => b.kind === "edge breaks")!.share).toBeCloseTo(1, 1);
  const e = await evaluateCard(mm(...rows));
  expect(besides({ kind: "holes", expected: 5, actual: 4, agrees: false, tolerance: 0 }, e, GROUNDS)).toEqual([]);
  expect(besides({ kind: "volume", expected: 5, actual: 5, agrees: true, tolerance: 0 }, e, GROUNDS)).toEqual([]);
});

test("it is no slip where one in the last digit is all of it, or the break the print asks for on every sharp edge", async () => {
  const e = await evaluateCard(mm("#1 40", "LEAVE BLOCK 60 X #1 X 20"));
  const actual = e.part!.volume;
  const told = (expected: number, grounds: FigureGrounds) =>
    besides({ kind: "volume", expected, actual, agrees: false, tolerance: 0.01 }, e, grounds);
  expect(told(actual - 0.9, { toBreak: null, lastDigit: 1 })[0]).toMatchObject({ kind: "rounding" });
  expect(told(actual - 1.1, { toBreak: null, lastDigit: 1 })).toEqual([]);
  // Twelve edges of 60, 40 and 20, four of each: 480 mm, and .3 off each takes .3²/2 along them.
  const noted = { toBreak: { length: 480, size: 0.3 }, lastDigit: 0 };
  const broken = (480 * 0.3 ** 2) / 2;
  const [first] = told(actual - broken, noted);
  expect(first).toMatchObject({ kind: "edges to break", share: expect.closeTo(1, 9) });
  expect(isNoSlip(first)).toBe(true);
  expect(besideWords(first)).toContain("(100 % of the difference)");
  // Half of the difference is something else; a print that has more broke nothing; without a note nothing is said.
  expect(told(actual - 2 * broken, noted).map(isNoSlip)).toEqual([false]);
  expect(told(actual + broken, noted)).toEqual([]);
  expect(told(actual - broken, { toBreak: null, lastDigit: 0 })).toEqual([]);
});

test("the finder takes the break from the title block and the edges from the part's own remark", async () => {
  const broken = (480 * 0.3 ** 2) / 2;
  const card = mm("EDGES BREAK .3", "LEAVE BLOCK 60 X 40 X 20", `CHECK VOLUME ${48000 - broken} ±1`);
  const job = jobOf(card);
  const [found] = await explain(job, await evaluateJob(job), await kernel());
  expect(found.besides[0]).toMatchObject({ kind: "edges to break", share: expect.closeTo(1, 6) });
});
