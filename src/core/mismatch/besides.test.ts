import { evaluateCard, mm } from "../../../tests/helpers/card";
import { besides, besideWords, isNoSlip } from "./besides";

/** Nothing sharp, and a figure printed whole. */
const GROUNDS = { sharp: 0, lastDigit: 0 };
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

test("it is no slip where one in the last digit is all of it, or a usual break on every sharp edge", async () => {
  const e = await evaluateCard(mm("#1 40", "LEAVE BLOCK 60 X #1 X 20"));
  const actual = e.part!.volume;
  const told = (expected: number, grounds: typeof GROUNDS) =>
    besides({ kind: "volume", expected, actual, agrees: false, tolerance: 0.01 }, e, grounds);
  expect(told(actual - 0.9, { sharp: 0, lastDigit: 1 })[0]).toMatchObject({ kind: "rounding" });
  expect(told(actual - 1.1, { sharp: 0, lastDigit: 1 })).toEqual([]);
  // Twelve edges of 60, 40 and 20, four of each: 480 mm, and .3 off each takes .3²/2 along them.
  const broken = (480 * 0.3 ** 2) / 2;
  const [first] = told(actual - broken, { sharp: 480, lastDigit: 0 });
  expect(first).toMatchObject({ kind: "edges to break", size: expect.closeTo(0.3, 9) });
  expect(isNoSlip(first)).toBe(true);
  expect(besideWords(first, "mm")).toContain("0.30 off each");
  // The print has more than the model: nothing was broken. Nor is an edge broken by 2 mm without its own dimension.
  expect(told(actual + broken, { sharp: 480, lastDigit: 0 })).toEqual([]);
  expect(told(actual - (480 * 4) / 2, { sharp: 480, lastDigit: 0 })).toEqual([]);
});
