import { sheet, table } from "./table";

/**
 * Standard tolerances of ASME B4.1, thousandths of an inch, by the upper end of each range of sizes, inches: grade 4 to
 * 13.
 */
const ranges = [0.12, 0.24, 0.4, 0.71, 1.19, 1.97, 3.15, 4.73, 7.09, 9.85];
const grades = table<{ grade: number; thousandths: number[] }>({
  source: "ASME B4.1, table of standard tolerances; from memory",
  checked: "limits of RC 4, LC 5, LN 2 and FN 2 at one inch as handbooks print them, in book.test.ts",
  rows: `4 .12 .15 .15 .2 .25 .3 .3 .4 .5 .6
    5 .15 .2 .25 .3 .4 .4 .5 .6 .7 .8
    6 .25 .3 .4 .4 .5 .6 .7 .9 1 1.2
    7 .4 .5 .6 .7 .8 1 1.2 1.4 1.6 1.8
    8 .6 .7 .9 1 1.2 1.6 1.8 2.2 2.5 2.8
    9 1 1.2 1.4 1.6 2 2.5 3 3.5 4 4.5
    10 1.6 1.8 2.2 2.8 3.5 4 4.5 5 6 7
    11 2.5 3 3.5 4 5 6 7 9 10 12
    12 4 5 6 7 8 10 12 14 16 18
    13 6 7 9 10 12 16 18 22 25 28`
    .split("\n")
    .map((line) => line.trim().split(" ").map(Number))
    .map(([grade, ...thousandths]) => ({ grade, thousandths })),
});

/** Least clearances, thousandths of an inch, by range. */
const clearances: Record<string, readonly number[]> = {
  none: ranges.map(() => 0),
  g: [0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.4, 0.5, 0.6, 0.6],
  f: [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.2, 1.4, 1.6, 2],
  e: [0.6, 0.8, 1, 1.2, 1.6, 2, 2.5, 3, 3.5, 4],
  d: [1, 1.2, 1.6, 2, 2.5, 3, 4, 5, 6, 7],
  c: [2.5, 2.8, 3, 3.5, 4.5, 5, 6, 7, 8, 10],
};

/** A fit with clearance: grades of its hole and shaft, and its least clearance. */
const running: Record<string, [hole: number, shaft: number, clearance: string]> = {
  RC1: [5, 4, "g"],
  RC2: [6, 5, "g"],
  RC3: [7, 6, "f"],
  RC4: [8, 7, "f"],
  RC5: [8, 7, "e"],
  RC6: [9, 8, "e"],
  RC7: [9, 8, "d"],
  RC8: [10, 9, "c"],
  LC1: [6, 5, "none"],
  LC2: [7, 6, "none"],
  LC3: [8, 7, "none"],
  LC4: [10, 9, "none"],
  LC5: [7, 6, "g"],
  LC6: [9, 8, "f"],
  LC7: [10, 9, "e"],
  LC8: [10, 9, "d"],
  LC9: [11, 10, "c"],
};

/** Interference fits: the hole's upper limit, the shaft's upper and lower, thousandths, by the upper end of the range. */
const interference = table<{ fit: string; rows: ReturnType<typeof pressedRows> }>({
  source: "ASME B4.1, tables of locational interference and force fits; from memory",
  checked: "limits of LN 2 and FN 2 at one inch as handbooks print them, in book.test.ts",
  rows: [
    {
      fit: "LN2",
      rows: pressedRows(
        ".12 .4 .65 .4;.24 .5 .8 .5;.4 .6 1 .6;.71 .7 1.1 .7;1.19 .8 1.3 .8;1.97 1 1.6 1;3.15 1.2 2.1 1.4",
      ),
    },
    {
      fit: "LN3",
      rows: pressedRows(
        ".12 .4 .75 .5;.24 .5 .9 .6;.4 .6 1.2 .8;.71 .7 1.4 1;1.19 .8 1.7 1.2;1.97 1 2 1.4;3.15 1.2 2.3 1.6",
      ),
    },
    {
      fit: "FN1",
      rows: pressedRows(
        ".12 .25 .5 .3;.24 .3 .6 .4;.4 .4 .75 .5;.56 .4 .8 .5;.71 .4 .9 .6;.95 .5 1.1 .7;1.19 .5 1.2 .8;1.58 .6 1.3 .9;1.97 .6 1.4 1;2.56 .7 1.8 1.3;3.15 .7 1.9 1.4",
      ),
    },
    {
      fit: "FN2",
      rows: pressedRows(
        ".12 .4 .85 .6;.24 .5 1 .7;.4 .6 1.4 1;.56 .7 1.6 1.2;.71 .7 1.6 1.2;.95 .8 1.9 1.4;1.19 .8 1.9 1.4;1.58 1 2.4 1.8;1.97 1 2.4 1.8;2.56 1.2 2.7 2;3.15 1.2 2.9 2.2",
      ),
    },
    {
      fit: "FN3",
      rows: pressedRows("1.19 .8 2.1 1.6;1.58 1 2.6 2;1.97 1 2.8 2.2;2.56 1.2 3.2 2.5;3.15 1.2 3.7 3", 0.95),
    },
    {
      fit: "FN4",
      rows: pressedRows(
        ".12 .4 .95 .7;.24 .5 1.2 .9;.4 .6 1.6 1.2;.56 .7 1.8 1.4;.71 .7 1.8 1.4;.95 .8 2.1 1.6;1.19 .8 2.3 1.8;1.58 1 3.1 2.5;1.97 1 3.4 2.8;2.56 1.2 4.2 3.5;3.15 1.2 4.7 4",
      ),
    },
    {
      fit: "FN5",
      rows: pressedRows(
        ".12 .6 1.3 .9;.24 .7 1.7 1.2;.4 .9 2 1.4;.56 1 2.3 1.6;.71 1 2.5 1.8;.95 1.2 3 2.2;1.19 1.2 3.3 2.5;1.58 1.6 4 3;1.97 1.6 5 4;2.56 1.8 6.2 5;3.15 1.8 7.2 6",
      ),
    },
  ],
});
/** @param from sizes up to and with this have no such fit, inches */
function pressedRows(list: string, from = 0) {
  const rows = sheet(["hole", "high", "low"], 1, list.replaceAll(";", "\n"));
  return rows.map((r, i) => ({
    over: i ? Number(rows[i - 1].name) : from,
    upTo: Number(r.name),
    hole: r.hole!,
    high: r.high!,
    low: r.low!,
  }));
}

/** Limits of hole and shaft of an inch fit, inches from the nominal size. */
export interface InchFit {
  holeMin: number;
  holeMax: number;
  shaftMin: number;
  shaftMax: number;
}
export const inchFitNames: readonly string[] = [...Object.keys(running), ...interference.rows.map((r) => r.fit)];

/**
 * A fit of ASME B4.1: running and sliding RC 1 to 8, locational clearance LC 1 to 9, locational interference LN 2 and 3,
 * force FN 1 to 5. Transition fits LT are not here.
 * @param size nominal, inches   @returns deviations, inches; null where there is no such fit at that size
 */
export function inchFit(size: number, name: string): InchFit | null {
  const fit = name.toUpperCase().replace(/\s/g, "");
  const at = ranges.findIndex((upTo) => size <= upTo + 1e-9);
  if (!(size > 0) || at < 0) return null;
  const width = (grade: number) => grades.rows.find((g) => g.grade === grade)!.thousandths[at];
  if (running[fit]) {
    const [hole, shaft, clearance] = running[fit];
    const high = 0 - clearances[clearance][at];
    return inThousandths({ holeMin: 0, holeMax: width(hole), shaftMax: high, shaftMin: high - width(shaft) });
  }
  const row = interference.rows
    .find((r) => r.fit === fit)
    ?.rows.find((r) => size > r.over - 1e-9 && size <= r.upTo + 1e-9);
  return row ? inThousandths({ holeMin: 0, holeMax: row.hole, shaftMax: row.high, shaftMin: row.low }) : null;
}
const inThousandths = (f: InchFit): InchFit => ({
  holeMin: f.holeMin / 1000,
  holeMax: Number((f.holeMax / 1000).toFixed(6)),
  shaftMin: Number((f.shaftMin / 1000).toFixed(6)),
  shaftMax: Number((f.shaftMax / 1000).toFixed(6)),
});
