import { INCH } from "../../number";
import { inchDrills, metricDrills, type Drill } from "../drills";
import { gradeWidth } from "../fits";
import { figureIn } from "../table";
import {
  BY_FORMULA,
  clean,
  cleaned,
  FROM_MEMORY,
  once,
  plainSize,
  PRACTICE,
  sheetPage,
  sizeBehind,
  type TableEntry,
  type TablePage,
} from "./page";

const drillEntry = (d: Drill, of: { source: string }, standard: string): TableEntry => ({
  what: `drill ${d.name}`,
  standard,
  source: of.source,
  values: { diameter: clean(d.diameter), point118: clean(d.diameter / 2 / Math.tan((59 * Math.PI) / 180)) },
  angles: { point: 118 },
});
const inches = once(() => inchDrills.rows.map((d) => drillEntry(d, inchDrills, "ASME B94.11M")));
const millimetres = once(() => metricDrills.rows.map((d) => drillEntry(d, metricDrills, "metric drills")));

export const drillPage: TablePage = {
  id: "drill",
  title: "Drills: numbers, letters, fractions, millimetres",
  standard: "ASME B94.11M, metric sizes",
  source: FROM_MEMORY,
  example: "DRILL #7",
  names: ["DRILL"],
  entries: once(() => [...inches(), ...millimetres()]),
  second: {
    source: "Debian's units 2.22 (GPL-3), numbers and letters",
    figures: ({ what }) => (/^drill (?:No\. \d+|[A-Z])$/.test(what) ? 1 : 0),
  },
  find(query) {
    const before = sizeBehind(query, ["DRILL", "LETTER", "NUMBER DRILL"]);
    const said = (before ?? /^(.+?)\s+DRILL$/i.exec(query.trim())?.[1])?.replace(/\s+DRILL$/i, "");
    if (!said) return null;
    const text = said
      .trim()
      .toUpperCase()
      .replace(/^#|^NO\.? ?/, "No. ")
      .replace(/^LETTER |^⌀|^Ø/, "")
      .replace(/\s?(?:IN|")$/, "");
    const metric = /^(\d*\.?\d+)(?: ?MM)?$/.exec(text);
    const named = inches().find(
      (e) => e.what === `drill ${text}` || e.what === `drill ${text.replace("NO. ", "No. ")}`,
    );
    return (
      named ?? (metric && millimetres().find((e) => Math.abs(e.values.diameter - Number(metric[1])) < 1e-6)) ?? null
    );
  },
};

/** How much a drill leaves for a reamer, mm on the diameter; common practice, no source. */
const reamingRoom = (d: number): number => (d <= 5 ? 0.1 : d <= 20 ? 0.2 : 0.3);
/** A reamer for a hole of grade 7, DIN 1420: at most 85 % of the tolerance, and 35 % of it wide, in whole micrometres. */
function reamer(d: number): TableEntry | null {
  const width = gradeWidth(d, "7");
  if (width === null) return null;
  const um = Math.round(width * 1000);
  const upper = Math.floor(0.85 * um + 1e-9);
  const lower = upper - Math.ceil(0.35 * um - 1e-9);
  return {
    what: `reamer ${d} H7`,
    standard: "DIN 1420",
    source: `${BY_FORMULA} of the standard, from memory; drilled before: ${PRACTICE}`,
    values: cleaned({
      reamerMin: d + lower / 1000,
      reamerMax: d + upper / 1000,
      holeMin: d,
      holeMax: d + width,
      drilledBefore: d - reamingRoom(d),
    }),
  };
}
export const reamerPage: TablePage = {
  id: "reamer",
  title: "Reamers for H7, and what is drilled before",
  standard: "DIN 1420",
  source: BY_FORMULA,
  example: "reamer 10",
  names: ["REAMER"],
  entries: () => [2, 3, 4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 30, 32, 40, 50].flatMap((d) => reamer(d) ?? []),
  find(query) {
    const size = sizeBehind(query, ["REAMER", "REAM", "DIN 1420"]);
    const m = size && /^(\d*\.?\d+|\d+\/\d+)(MM)?(?:H7)?$/.exec(plainSize(size));
    if (!m) return null;
    const d = figureIn(m[1]) * (m[1].includes("/") ? INCH : 1);
    return reamer(clean(d));
  },
};

export const centreDrill = sheetPage({
  id: "centre",
  title: "Centre holes, forms A, B and R",
  standard: "ISO 6411",
  source: FROM_MEMORY,
  example: "ISO 6411 A2.5",
  names: ["ISO 6411", "CENTRE HOLE", "CENTRE", "CENTER", "DIN 332"],
  columns: ["pilot", "mouth", "protectedMouth", "depthA"],
  unit: 1,
  text: `0.5 .5 1.06 - .5
  0.63 .63 1.32 - .6
  0.8 .8 1.7 - .7
  1 1 2.12 3.15 .9
  1.25 1.25 2.65 4 1.1
  1.6 1.6 3.35 5 1.4
  2 2 4.25 6.3 1.8
  2.5 2.5 5.3 8 2.2
  3.15 3.15 6.7 10 2.8
  4 4 8.5 12.5 3.5
  5 5 10.6 16 4.4
  6.3 6.3 13.2 18 5.5
  8 8 17 22.4 7
  10 10 21.2 28 8.7`,
  calls: (name) => ["A", "B", "R"].flatMap((form) => [`${form}${name}`, `${form}${name}/`]),
  more: () => ({ angles: { mouth: 60, protectedMouth: 120 } }),
});
export const inchCentre = sheetPage({
  id: "inchCentre",
  title: "Combined drills and countersinks, plain, inch",
  standard: "ASME B94.11M",
  source: FROM_MEMORY,
  example: "centre drill 3",
  names: ["CENTRE DRILL", "CENTER DRILL", "ASME CENTRE"],
  columns: ["pilot", "body"],
  unit: INCH,
  text: `00 .025 5/64
  0 1/32 1/8
  1 3/64 1/8
  2 5/64 3/16
  3 7/64 1/4
  4 1/8 5/16
  5 3/16 7/16
  6 7/32 1/2
  7 1/4 5/8
  8 5/16 3/4`,
  calls: (name) => [`#${name}`, `NO.${name}`],
  more: () => ({ angles: { mouth: 60 } }),
});

/** How deep a spot of an angle is for a mouth: geometry. */
const spotAngles = [60, 82, 90, 100, 118, 120, 140, 142];
export const spotPage: TablePage = {
  id: "spot",
  title: "Spot drills: depth for a mouth of 10 mm by angle",
  standard: "geometry",
  source: BY_FORMULA,
  example: "spot 90",
  entries: () =>
    spotAngles.map((a) => ({
      what: `spot ${a}`,
      standard: "geometry",
      source: BY_FORMULA,
      values: { mouth: 10, depth: clean(5 / Math.tan((a * Math.PI) / 360)) },
      angles: { included: a },
    })),
  find(query) {
    const size = sizeBehind(query, ["SPOT DRILL", "SPOT"]);
    const a = size && Number(plainSize(size).replace(/°|DEG/, ""));
    return (a && spotPage.entries().find((e) => e.angles?.included === a)) || null;
  },
};

export const drillPages: readonly TablePage[] = [drillPage, reamerPage, inchCentre, centreDrill, spotPage];
