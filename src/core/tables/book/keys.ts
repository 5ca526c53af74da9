import { INCH } from "../../number";
import { fitDeviations } from "../fits";
import { roundTo } from "../rounding";
import { sheet } from "../table";
import {
  cleaned,
  FROM_MEMORY,
  BY_FORMULA,
  plainSize,
  sheetPage,
  sizeBehind,
  type TableEntry,
  type TablePage,
} from "./page";

/** Parallel keys by the shaft: over, up to and with, width, height, depth in shaft and in hub, mm. */
export const parallelKeys = sheet(
  ["over", "upTo", "width", "height", "shaftDepth", "hubDepth"],
  1,
  `2x2 6 8 2 2 1.2 1
  3x3 8 10 3 3 1.8 1.4
  4x4 10 12 4 4 2.5 1.8
  5x5 12 17 5 5 3 2.3
  6x6 17 22 6 6 3.5 2.8
  8x7 22 30 8 7 4 3.3
  10x8 30 38 10 8 5 3.3
  12x8 38 44 12 8 5 3.3
  14x9 44 50 14 9 5.5 3.8
  16x10 50 58 16 10 6 4.3
  18x11 58 65 18 11 7 4.4
  20x12 65 75 20 12 7.5 4.9
  22x14 75 85 22 14 9 5.4
  25x14 85 95 25 14 9 5.4
  28x16 95 110 28 16 10 6.4
  32x18 110 130 32 18 11 7.4
  36x20 130 150 36 20 12 8.4
  40x22 150 170 40 22 13 9.4
  45x25 170 200 45 25 15 10.4
  50x28 200 230 50 28 17 11.4
  56x32 230 260 56 32 20 12.4
  63x32 260 290 63 32 20 12.4
  70x36 290 330 70 36 22 14.4
  80x40 330 380 80 40 25 15.4
  90x45 380 440 90 45 28 17.4
  100x50 440 500 100 50 31 19.5`,
);
/** How much deeper a keyway may be, mm, by its width. */
const depthTolerance = (width: number): number => (width <= 6 ? 0.1 : width <= 32 ? 0.2 : 0.3);

function metricKeyway(shaft: number): TableEntry | null {
  const row = parallelKeys.find((r) => shaft > r.over! && shaft <= r.upTo!);
  if (!row) return null;
  const of = (zone: string) => {
    const f = fitDeviations(row.width!, zone);
    return f.ok ? { min: row.width! + f.value.lower, max: row.width! + f.value.upper } : { min: NaN, max: NaN };
  };
  const [n9, js9, p9] = [of("N9"), of("JS9"), of("P9")];
  return {
    what: `keyway ${shaft}`,
    standard: "DIN 6885-1, ISO 773",
    source: `${FROM_MEMORY}; widths by ISO 286-1`,
    values: cleaned({
      width: row.width,
      height: row.height,
      shaftDepth: row.shaftDepth,
      hubDepth: row.hubDepth,
      depthTolerance: depthTolerance(row.width!),
      shaftWidthMin: n9.min,
      shaftWidthMax: n9.max,
      hubWidthMin: js9.min,
      hubWidthMax: js9.max,
      tightWidthMin: p9.min,
      tightWidthMax: p9.max,
      acrossShaft: shaft - row.shaftDepth!,
      acrossHub: shaft + row.hubDepth!,
    }),
    words: { key: row.name, widths: "shaft N9, hub JS9; tight P9 in both" },
  };
}

/** Square and flat keys by the shaft, inch: over, up to and with, width, height of a flat key. */
const inchKeys = sheet(
  ["over", "upTo", "width", "flatHeight"],
  INCH,
  `3/32 5/16 7/16 3/32 -
  1/8 7/16 9/16 1/8 3/32
  3/16 9/16 7/8 3/16 1/8
  1/4 7/8 1-1/4 1/4 3/16
  5/16 1-1/4 1-3/8 5/16 1/4
  3/8 1-3/8 1-3/4 3/8 1/4
  1/2 1-3/4 2-1/4 1/2 3/8
  5/8 2-1/4 2-3/4 5/8 7/16
  3/4 2-3/4 3-1/4 3/4 1/2
  7/8 3-1/4 3-3/4 7/8 5/8
  1 3-3/4 4-1/2 1 3/4
  1-1/4 4-1/2 5-1/2 1-1/4 7/8
  1-1/2 5-1/2 6-1/2 1-1/2 1`,
);
/** Room over a key in its hub, inches. */
const HUB_ROOM = 0.005;

function inchKeyway(shaft: number): TableEntry | null {
  const row = inchKeys.find((r) => shaft > r.over! + 1e-6 && shaft <= r.upTo! + 1e-6);
  if (!row) return null;
  const width = row.width!;
  const across = Math.sqrt(shaft * shaft - width * width);
  return {
    what: `keyway ${Number((shaft / INCH).toFixed(4))} in`,
    standard: "ASME B17.1",
    source: `sizes ${FROM_MEMORY}; depths ${BY_FORMULA} of the standard: S = (D - h + √(D² - w²)) / 2, T = (D + h + √(D² - w²)) / 2 + .005 in`,
    values: cleaned({
      width,
      height: width,
      flatHeight: row.flatHeight,
      acrossShaft: (shaft - width + across) / 2,
      acrossHub: (shaft + width + across) / 2 + HUB_ROOM * INCH,
      shaftDepth: shaft - (shaft - width + across) / 2,
    }),
    words: { key: `square, ${row.name} in` },
  };
}

/** `KEYWAY 28`, `keyway 1 in`, `KEYWAY 1-1/8"`: by the diameter of the shaft. */
const keywayNames = ["KEYWAY", "KEYSEAT", "KEY", "DIN 6885-1", "DIN 6885", "ISO 773", "ASME B17.1"];
function findKeyway(query: string): TableEntry | null {
  const size = sizeBehind(query, keywayNames);
  const m = size && /^(?:FOR )?[⌀Ø]?\s*(\d+-\d+\/\d+|\d+\/\d+|\d*\.?\d+)\s*(MM|IN|")?$/i.exec(size);
  if (!m) return null;
  const figure = sheet(["d"], 1, `d ${m[1]}`)[0].d!;
  const isInch = m[2] ? !/^mm$/i.test(m[2]) : /\//.test(m[1]) || /B17|KEYSEAT/i.test(query);
  return isInch ? inchKeyway(figure * INCH) : metricKeyway(figure);
}

export const keywayPage: TablePage = {
  id: "keyway",
  title: "Keys and keyways by the shaft",
  standard: "DIN 6885-1, ISO 773; ASME B17.1",
  source: FROM_MEMORY,
  example: "keyway 28",
  names: keywayNames,
  entries: () => [
    ...parallelKeys.flatMap((r) => metricKeyway(r.upTo!) ?? []),
    ...inchKeys.flatMap((r) => inchKeyway(r.upTo!) ?? []),
  ],
  find: findKeyway,
};

export const woodruffMetric = sheetPage({
  id: "woodruff",
  title: "Woodruff keys, metric",
  standard: "ISO 3912, DIN 6888",
  source: FROM_MEMORY,
  example: "ISO 3912 5x6.5",
  names: ["ISO 3912", "DIN 6888", "WOODRUFF"],
  columns: ["width", "height", "keyDiameter", "shaftDepth", "hubDepth"],
  unit: 1,
  text: `1x1.4 1 1.4 4 1 .6
  1.5x2.6 1.5 2.6 7 2 .8
  2x2.6 2 2.6 7 1.8 1
  2x3.7 2 3.7 10 2.9 1
  2.5x3.7 2.5 3.7 10 2.7 1.2
  3x5 3 5 13 3.8 1.4
  3x6.5 3 6.5 16 5.3 1.4
  4x6.5 4 6.5 16 5 1.8
  4x7.5 4 7.5 19 6 1.8
  5x6.5 5 6.5 16 4.5 2.3
  5x7.5 5 7.5 19 5.5 2.3
  5x9 5 9 22 7 2.3
  6x9 6 9 22 6.5 2.8
  6x10 6 10 25 7.5 2.8
  8x11 8 11 28 8 3.3
  10x13 10 13 32 10 3.3`,
});

/** Height of an inch Woodruff key by its diameter's eighths, largest and smallest, inches. */
const heights: Record<number, number> = { 4: 0.203, 5: 0.25, 6: 0.313, 7: 0.375, 8: 0.438, 9: 0.484, 10: 0.547 };
const UNDER_LARGEST = 0.005;
/** Room over it in its hub, inches. */
const WOODRUFF_ROOM = 0.006;
const woodruffNumbers =
  "204 304 404 305 405 505 406 506 606 507 607 707 807 608 708 808 1008 609 709 809 1009 610 710 810 1010";

/** A number's last two figures are its diameter in eighths, what stands before them its width in thirty seconds. */
function woodruff(number: string): TableEntry {
  const width = Number(number.slice(0, -2)) / 32;
  const eighths = Number(number.slice(-2));
  const height = heights[eighths];
  return {
    what: `Woodruff ${number}`,
    standard: "ASME B17.2",
    source: `${FROM_MEMORY}; depths ${BY_FORMULA}: the key's least height less half its width, half the width and .006 in`,
    values: cleaned({
      width: width * INCH,
      keyDiameter: (eighths / 8) * INCH,
      height: height * INCH,
      // A half goes to the shaft: what one is printed larger the other is smaller.
      shaftDepth: roundTo(height - UNDER_LARGEST - width / 2, 4) * INCH,
      hubDepth: roundTo(width / 2 + WOODRUFF_ROOM - 1e-6, 4) * INCH,
    }),
  };
}
export const woodruffInch: TablePage = {
  id: "inchWoodruff",
  title: "Woodruff keys, inch",
  standard: "ASME B17.2",
  source: FROM_MEMORY,
  example: "Woodruff 606",
  names: ["WOODRUFF"],
  entries: () => woodruffNumbers.split(" ").map(woodruff),
  find(query) {
    const size = sizeBehind(query, ["WOODRUFF KEY", "WOODRUFF", "ASME B17.2"]);
    const number = size && plainSize(size).replace(/^NO\.?|^#/, "");
    return number && woodruffNumbers.split(" ").includes(number) ? woodruff(number) : null;
  },
};

export const keyPages: readonly TablePage[] = [keywayPage, woodruffMetric, woodruffInch];
