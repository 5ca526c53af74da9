import { INCH, type LengthUnit, byFigures } from "../number";
import { table } from "./table";

/**
 * An end mill: cutting diameter and how deep it reaches beside a wall (flutes and relieved neck), mm. Feed in mm a
 * minute.
 */
export interface Cutter {
  name: string;
  diameter: number;
  reach: number;
  feed: number;
}

const inch = (name: string, diameter: number, reach: number, feed: number): Cutter => ({
  name,
  diameter: diameter * INCH,
  reach: reach * INCH,
  feed: feed * INCH,
});

export const inchCrib = table<Cutter>({
  source:
    "a small crib of two-flute and four-flute end mills; invented for the demonstration, to be replaced by the shop's own",
  checked: "reach grows with diameter, in tables.test.ts",
  rows: [
    inch("⌀1/16", 1 / 16, 0.1875, 8),
    inch("⌀1/8", 0.125, 0.5, 12),
    inch("⌀3/16", 0.1875, 0.625, 15),
    inch("⌀1/4", 0.25, 0.75, 20),
    inch("⌀3/8", 0.375, 1, 20),
    inch("⌀1/2", 0.5, 1.25, 20),
    inch("⌀3/4", 0.75, 1.75, 18),
  ],
});

export const metricCrib = table<Cutter>({
  source: "a small crib of end mills; invented for the demonstration, to be replaced by the shop's own",
  checked: "reach grows with diameter, in tables.test.ts",
  rows: [
    [1.5, 4.5, 200],
    [2, 6, 250],
    [3, 12, 300],
    [4, 14, 350],
    [5, 16, 400],
    [6, 20, 500],
    [8, 24, 500],
    [10, 30, 500],
    [12, 36, 480],
    [16, 42, 450],
    [20, 50, 400],
  ].map(([diameter, reach, feed]) => ({ name: `⌀${diameter}`, diameter, reach, feed })),
});

/** The cutters of a shop that has said nothing yet: inch sizes for an inch job, metric ones for a metric job. */
export const cribFor = (unit: LengthUnit): readonly Cutter[] => byFigures(unit, { in: inchCrib, mm: metricCrib }).rows;

/** A cutter to start from, for a crib that gets one more. */
export const newCutter = (unit: LengthUnit, number: number): Cutter => {
  const name = `cutter ${number}`;
  return byFigures<Cutter>(unit, { in: inch(name, 0.25, 0.75, 16), mm: { name, diameter: 6, reach: 20, feed: 400 } });
};
