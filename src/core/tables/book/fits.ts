import { INCH } from "../../number";
import { fitDeviations } from "../fits";
import { generalClasses, generalTolerance, type GeneralClassName } from "../generalTolerances";
import { inchFit, inchFitNames } from "../inchFits";
import { figureIn } from "../table";
import { cleaned, FROM_MEMORY, type TableEntry, type TablePage } from "./page";

const size = String.raw`[⌀Ø]?\s*(\d+-\d+\/\d+|\d+\/\d+|\d*\.?\d+)\s*(MM|IN|")?`;
const zoneForm = new RegExp(`^${size}\\s+([A-Za-z]{1,2}\\d{1,2})(?:\\s*/\\s*([A-Za-z]{1,2}\\d{1,2}))?$`, "i");

/** A size with a zone, or a hole with its shaft: `25 H7`, `25 H7/g6`. */
function zoned(millimetres: number, zone: string, other?: string): TableEntry | null {
  const first = fitDeviations(millimetres, zone);
  const second = other === undefined ? null : fitDeviations(millimetres, other);
  if (!first.ok || (second && !second.ok)) return null;
  const of = (f: { upper: number; lower: number }) => ({ min: millimetres + f.lower, max: millimetres + f.upper });
  const [a, b] = [of(first.value), second?.ok ? of(second.value) : null];
  const text = Number(millimetres.toFixed(4));
  const base = {
    what: `${text} ${zone}${other ? `/${other}` : ""}`,
    standard: "ISO 286-1",
    source: FROM_MEMORY,
  };
  if (!b) return { ...base, values: cleaned({ ...a, upper: first.value.upper, lower: first.value.lower }) };
  const isHoleFirst = /^[A-Z]/.test(zone);
  const [hole, shaft] = isHoleFirst ? [a, b] : [b, a];
  return {
    ...base,
    values: cleaned({
      holeMin: hole.min,
      holeMax: hole.max,
      shaftMin: shaft.min,
      shaftMax: shaft.max,
      leastClearance: hole.min - shaft.max,
      mostClearance: hole.max - shaft.min,
    }),
  };
}
const usualZones = [
  "H6",
  "H7",
  "H8",
  "H9",
  "H11",
  "G7",
  "F8",
  "JS7",
  "K7",
  "N7",
  "P7",
  "g6",
  "h6",
  "h7",
  "f7",
  "k6",
  "m6",
  "n6",
  "p6",
  "s6",
];
const usualSizes = [3, 6, 10, 18, 25, 50, 80, 120, 180, 250];

export const isoFitPage: TablePage = {
  id: "isoFit",
  title: "Fits: zones of tolerance",
  standard: "ISO 286-1",
  source: FROM_MEMORY,
  example: "25 H7",
  second: {
    source: "the standard's formulas of its grades, within its rounding",
    figures: ({ values }) => Object.keys(values).length,
  },
  entries: () => usualSizes.flatMap((d) => usualZones.flatMap((z) => zoned(d, z) ?? [])),
  find(query) {
    const m = zoneForm.exec(query.trim().replace(/^(?:ISO 286(?:-1)?|FIT)\s+/i, ""));
    if (!m) return null;
    const isInch = m[2] ? !/^mm$/i.test(m[2]) : /\//.test(m[1]);
    return zoned(figureIn(m[1]) * (isInch ? INCH : 1), m[3], m[4]);
  },
};

function inchEntry(inches: number, name: string): TableEntry | null {
  const fit = inchFit(inches, name);
  if (!fit) return null;
  const at = (off: number) => (inches + off) * INCH;
  return {
    what: `${Number(inches.toFixed(4))} in ${name.toUpperCase()}`,
    standard: "ASME B4.1",
    source: FROM_MEMORY,
    values: cleaned({
      holeMin: at(fit.holeMin),
      holeMax: at(fit.holeMax),
      shaftMin: at(fit.shaftMin),
      shaftMax: at(fit.shaftMax),
      leastClearance: (fit.holeMin - fit.shaftMax) * INCH,
      mostClearance: (fit.holeMax - fit.shaftMin) * INCH,
    }),
  };
}
const inchForm = new RegExp(`^${size}\\s+((?:RC|LC|LN|FN)\\s?\\d)$`, "i");
export const inchFitPage: TablePage = {
  id: "inchFit",
  title: "Fits, inch: running, locational, force",
  standard: "ASME B4.1",
  source: FROM_MEMORY,
  example: "1 RC4",
  entries: () => [0.25, 0.5, 1, 2].flatMap((d) => inchFitNames.flatMap((f) => inchEntry(d, f) ?? [])),
  find(query) {
    const m = inchForm.exec(query.trim());
    if (!m) return null;
    const isMetric = m[2] && /^mm$/i.test(m[2]);
    return inchEntry(figureIn(m[1]) / (isMetric ? INCH : 1), m[3].replace(/\s/g, ""));
  },
};

function general(d: number, of: GeneralClassName): TableEntry | null {
  const half = generalTolerance("linear", d, of);
  if (!half.ok) return null;
  return {
    what: `${d} ISO 2768-${of}`,
    standard: "ISO 2768-1, table 1",
    source: FROM_MEMORY,
    values: cleaned({ tolerance: half.value, min: d - half.value, max: d + half.value }),
  };
}
export const generalPage: TablePage = {
  id: "general",
  title: "General tolerances of lengths",
  standard: "ISO 2768-1",
  source: FROM_MEMORY,
  example: "25 ISO 2768-m",
  entries: () => [3, 6, 30, 120, 400, 1000, 2000].flatMap((d) => generalClasses.flatMap((c) => general(d, c) ?? [])),
  find(query) {
    const m = /^(?:(\d*\.?\d+)\s+)?ISO ?2768(?:-1)?[- ]([fmcv])(?:[hklHKL])?(?:\s+(\d*\.?\d+))?$/i.exec(query.trim());
    const d = m && Number(m[1] ?? m[3]);
    return m && d ? general(d, m[2].toLowerCase() as GeneralClassName) : null;
  },
};
export const fitPages: readonly TablePage[] = [isoFitPage, inchFitPage, generalPage];
