import { INCH } from "../number";
import { table } from "./table";

/** A thread of a standard series. Lengths in mm. */
interface ThreadSize {
  name: string;
  series: "UNC" | "UNF" | "UNEF" | "UNS" | "M" | "NPT";
  major: number;
  pitch: number;
  tapDrill: number;
  drillName: string;
}

type InchRow = [size: string, major: number, tpi: number, drill: number, drillName: string];
const inch = (series: Exclude<ThreadSize["series"], "M">, rows: InchRow[]): ThreadSize[] =>
  rows.map(([size, major, tpi, drill, drillName]) => ({
    name: `${size}-${tpi}`,
    series,
    major: major * INCH,
    pitch: INCH / tpi,
    tapDrill: drill * INCH,
    drillName,
  }));

export const inchThreads = table<ThreadSize>({
  source: "ASME B1.1 sizes and pitches; tap drills for about 75 % thread; from memory",
  checked: "per cent of thread of every drill between 52 and 87, in tables.test.ts",
  rows: [
    ...inch("UNC", [
      ["1", 0.073, 64, 0.0595, "No. 53"],
      ["2", 0.086, 56, 0.07, "No. 50"],
      ["3", 0.099, 48, 0.0785, "No. 47"],
      ["4", 0.112, 40, 0.089, "No. 43"],
      ["5", 0.125, 40, 0.1015, "No. 38"],
      ["6", 0.138, 32, 0.1065, "No. 36"],
      ["8", 0.164, 32, 0.136, "No. 29"],
      ["10", 0.19, 24, 0.1495, "No. 25"],
      ["12", 0.216, 24, 0.177, "No. 16"],
      ["1/4", 0.25, 20, 0.201, "No. 7"],
      ["5/16", 0.3125, 18, 0.257, "F"],
      ["3/8", 0.375, 16, 0.3125, "5/16"],
      ["7/16", 0.4375, 14, 0.368, "U"],
      ["1/2", 0.5, 13, 27 / 64, "27/64"],
      ["9/16", 0.5625, 12, 31 / 64, "31/64"],
      ["5/8", 0.625, 11, 17 / 32, "17/32"],
      ["3/4", 0.75, 10, 21 / 32, "21/32"],
      ["7/8", 0.875, 9, 49 / 64, "49/64"],
      ["1", 1, 8, 0.875, "7/8"],
      ["1-1/8", 1.125, 7, 63 / 64, "63/64"],
      ["1-1/4", 1.25, 7, 1 + 7 / 64, "1-7/64"],
      ["1-3/8", 1.375, 6, 1 + 7 / 32, "1-7/32"],
      ["1-1/2", 1.5, 6, 1 + 11 / 32, "1-11/32"],
    ]),
    ...inch("UNF", [
      ["0", 0.06, 80, 3 / 64, "3/64"],
      ["1", 0.073, 72, 0.0595, "No. 53"],
      ["2", 0.086, 64, 0.07, "No. 50"],
      ["3", 0.099, 56, 0.082, "No. 45"],
      ["4", 0.112, 48, 0.0935, "No. 42"],
      ["5", 0.125, 44, 0.104, "No. 37"],
      ["6", 0.138, 40, 0.113, "No. 33"],
      ["8", 0.164, 36, 0.136, "No. 29"],
      ["10", 0.19, 32, 0.159, "No. 21"],
      ["12", 0.216, 28, 0.182, "No. 14"],
      ["1/4", 0.25, 28, 0.213, "No. 3"],
      ["5/16", 0.3125, 24, 0.272, "I"],
      ["3/8", 0.375, 24, 0.332, "Q"],
      ["7/16", 0.4375, 20, 25 / 64, "25/64"],
      ["1/2", 0.5, 20, 29 / 64, "29/64"],
      ["9/16", 0.5625, 18, 33 / 64, "33/64"],
      ["5/8", 0.625, 18, 37 / 64, "37/64"],
      ["3/4", 0.75, 16, 11 / 16, "11/16"],
      ["7/8", 0.875, 14, 13 / 16, "13/16"],
      ["1", 1, 12, 59 / 64, "59/64"],
      ["1-1/8", 1.125, 12, 1 + 3 / 64, "1-3/64"],
      ["1-1/4", 1.25, 12, 1 + 11 / 64, "1-11/64"],
      ["1-3/8", 1.375, 12, 1 + 19 / 64, "1-19/64"],
      ["1-1/2", 1.5, 12, 1 + 27 / 64, "1-27/64"],
    ]),
    ...inch("UNEF", [
      ["12", 0.216, 32, 0.185, "No. 13"],
      ["1/4", 0.25, 32, 7 / 32, "7/32"],
      ["5/16", 0.3125, 32, 9 / 32, "9/32"],
      ["3/8", 0.375, 32, 11 / 32, "11/32"],
      ["7/16", 0.4375, 28, 0.404, "Y"],
      ["1/2", 0.5, 28, 15 / 32, "15/32"],
      ["9/16", 0.5625, 24, 33 / 64, "33/64"],
      ["5/8", 0.625, 24, 37 / 64, "37/64"],
      ["3/4", 0.75, 20, 45 / 64, "45/64"],
      ["7/8", 0.875, 20, 53 / 64, "53/64"],
      ["1", 1, 20, 61 / 64, "61/64"],
    ]),
    ...inch("UNS", [["1", 1, 14, 15 / 16, "15/16"]]),
  ],
});

type MetricRow = [major: number, pitch: number, drill: number];
const metric = (rows: MetricRow[], coarse: boolean): ThreadSize[] =>
  rows.map(([major, pitch, tapDrill]) => ({
    name: coarse ? `M${major}` : `M${major}X${pitch}`,
    series: "M",
    major,
    pitch,
    tapDrill,
    drillName: `${tapDrill} mm`,
  }));

/** Taper pipe threads, 1 in 16 on the diameter: the size is the pipe's, `major` the pipe's outside diameter. */
export const pipeThreads = table<ThreadSize>({
  source: "ASME B1.20.1 outside diameters and pitches; drills for a tap without a taper reamer; from memory",
  checked: "drills between outside diameter less two thread heights and less one, in tables.test.ts",
  rows: inch("NPT", [
    ["1/16", 0.3125, 27, 0.242, "C"],
    ["1/8", 0.405, 27, 0.332, "Q"],
    ["1/4", 0.54, 18, 7 / 16, "7/16"],
    ["3/8", 0.675, 18, 9 / 16, "9/16"],
    ["1/2", 0.84, 14, 45 / 64, "45/64"],
    ["3/4", 1.05, 14, 29 / 32, "29/32"],
    ["1", 1.315, 11.5, 1 + 9 / 64, "1-9/64"],
    ["1-1/4", 1.66, 11.5, 1 + 31 / 64, "1-31/64"],
    ["1-1/2", 1.9, 11.5, 1 + 47 / 64, "1-47/64"],
    ["2", 2.375, 11.5, 2 + 13 / 64, "2-13/64"],
  ]),
});

export const metricCoarse = table<ThreadSize>({
  source: "ISO 261, ISO 724; tap drill about major less pitch; from memory",
  checked: "per cent of thread of every drill between 52 and 87, in tables.test.ts",
  rows: metric(
    [
      [1.6, 0.35, 1.25],
      [2, 0.4, 1.6],
      [2.5, 0.45, 2.05],
      [3, 0.5, 2.5],
      [3.5, 0.6, 2.9],
      [4, 0.7, 3.3],
      [5, 0.8, 4.2],
      [6, 1, 5],
      [7, 1, 6],
      [8, 1.25, 6.8],
      [10, 1.5, 8.5],
      [12, 1.75, 10.2],
      [14, 2, 12],
      [16, 2, 14],
      [18, 2.5, 15.5],
      [20, 2.5, 17.5],
      [22, 2.5, 19.5],
      [24, 3, 21],
      [27, 3, 24],
      [30, 3.5, 26.5],
      [33, 3.5, 29.5],
      [36, 4, 32],
    ],
    true,
  ),
});

export const metricFine = table<ThreadSize>({
  source: "ISO 261, ISO 724; tap drill about major less pitch; from memory",
  checked: "per cent of thread of every drill between 52 and 87, in tables.test.ts",
  rows: metric(
    [
      [4, 0.5, 3.5],
      [5, 0.5, 4.5],
      [6, 0.75, 5.2],
      [8, 0.75, 7.2],
      [8, 1, 7],
      [10, 0.75, 9.2],
      [10, 1, 9],
      [10, 1.25, 8.8],
      [12, 1, 11],
      [12, 1.25, 10.8],
      [12, 1.5, 10.5],
      [14, 1, 13],
      [14, 1.5, 12.5],
      [16, 1, 15],
      [16, 1.5, 14.5],
      [18, 1.5, 16.5],
      [20, 1, 19],
      [20, 1.5, 18.5],
      [20, 2, 18],
      [22, 1.5, 20.5],
      [24, 1.5, 22.5],
      [24, 2, 22],
      [27, 2, 25],
      [30, 1.5, 28.5],
      [30, 2, 28],
      [36, 3, 33],
    ],
    false,
  ),
});

/** A thread as a print calls it, read into numbers. `size` is the table's row where there is one. */
export interface Thread {
  designation: string;
  major: number;
  pitch: number;
  system: "inch" | "metric";
  size: ThreadSize | null;
  /** A taper pipe thread: sealed on its flanks, and gauged by how far a plug goes in. */
  pipe?: true;
}

const inchForm =
  /^(\d+-\d+\/\d+|\d+\/\d+|\d*\.\d+|\d{1,2})-(\d{1,3}(?:\.\d+)?)(?:[ \t]*(UNC|UNF|UNEF|UNS|UN)\b(?:[ \t]*-?[ \t]*([123])[ \t]*([AB]))?)?/i;
const metricForm = /^M(\d+(?:\.\d+)?)(?:[ \t]*[X×][ \t]*(\d*\.?\d+))?(?:[ \t]*-[ \t]*(\d[EFGH]\b))?/i;

/** `NPT 1/4-18`; prints also write the letters behind, and leave the threads out, for a size has but one count. */
const pipeForm =
  /^(?:NPT[ \t]*(\d+-\d+\/\d+|\d+\/\d+|\d)-(\d+(?:\.5)?)(?![\d./])|(\d+-\d+\/\d+|\d+\/\d+|\d)-(\d+(?:\.5)?)[ \t]*NPT\b)/i;
const bareSize = /^(\d+-\d+\/\d+|\d+\/\d+|\d)[ \t]*-?[ \t]*NPT\b/i;
const pipeAt = (text: string): { name: string; length: number } | null => {
  const found = pipeForm.exec(text);
  if (found) return { name: `${found[1] ?? found[3]}-${found[2] ?? found[4]}`, length: found[0].length };
  const bare = bareSize.exec(text);
  const row = bare && pipeThreads.rows.find((t) => t.name.replace(/-[\d.]+$/, "") === bare[1]);
  return row ? { name: row.name, length: bare[0].length } : null;
};

/**
 * Reads a thread designation at the start of a text: `10-32 UNF-2B`, `1/4-20`, `M5`, `M8X1-6H`.
 * A metric class keeps its letter as typed: a small one is an outside thread's.
 * @returns the canonical designation and how much of the text it took, or null
 */
export function readThread(text: string): { designation: string; length: number } | null {
  const pipe = pipeAt(text);
  if (pipe) return { designation: `NPT ${pipe.name}`, length: pipe.length };
  const m = metricForm.exec(text);
  if (m)
    return {
      designation: `M${m[1]}${m[2] ? `X${m[2]}` : ""}${m[3] ? `-${m[3]}` : ""}`,
      length: m[0].length,
    };
  const i = inchForm.exec(text);
  const size = i && (usualSize(i[1], i[2]) ?? i[1]);
  if (!i || (!i[3] && !inchThreads.rows.some((t) => t.name === `${size}-${i[2]}`))) return null;
  return {
    designation: `${size}-${i[2]}${i[3] ? ` ${i[3].toUpperCase()}` : ""}${i[4] ? `-${i[4]}${i[5].toUpperCase()}` : ""}`,
    length: i[0].length,
  };
}

/**
 * `.375-16`, `.190-32`: the size of a screw in decimals, as newer prints have it (ASME Y14.6, from memory), by its usual
 * name.
 */
function usualSize(typed: string, threads: string): string | null {
  if (!typed.includes(".")) return null;
  const row = inchThreads.rows.find(
    (t) => Math.abs(t.major / INCH - Number(typed)) < 5e-4 && t.name.endsWith(`-${threads}`),
  );
  return row ? row.name.slice(0, -threads.length - 1) : null;
}

/**
 * Major diameter and pitch of a designation, with its table row where a table knows it. Null when it cannot be read.
 */
export function findThread(designation: string): Thread | null {
  const pipe = pipeAt(designation);
  if (pipe?.length === designation.length) {
    const size = pipeThreads.rows.find((t) => t.name === pipe.name);
    return size ? { designation, major: size.major, pitch: size.pitch, system: "inch", size, pipe: true } : null;
  }
  const m = metricForm.exec(designation);
  if (m && m[0].length === designation.length) {
    const major = Number(m[1]);
    const coarse = metricCoarse.rows.find((t) => t.major === major);
    const pitch = m[2] ? Number(m[2]) : coarse?.pitch;
    if (!pitch || !(pitch < major)) return null;
    const size = coarse?.pitch === pitch ? coarse : metricFine.rows.find((t) => t.major === major && t.pitch === pitch);
    return { designation, major, pitch, system: "metric", size: size ?? null };
  }
  const i = inchForm.exec(designation);
  if (!i || i[0].length !== designation.length) return null;
  const size = inchThreads.rows.find(
    (t) => t.name === `${i[1]}-${i[2]}` && (!i[3] || i[3].toUpperCase() === "UN" || t.series === i[3].toUpperCase()),
  );
  const major = size?.major ?? majorInches(i[1]) * INCH;
  const pitch = INCH / Number(i[2]);
  return Number.isFinite(pitch) && pitch < major
    ? { designation, major, pitch, system: "inch", size: size ?? null }
    : null;
}

/** Number sizes are .060 + .013 n inches (ASME B1.1); others are their own size. */
function majorInches(size: string): number {
  const mixed = /^(?:(\d+)-)?(\d+)\/(\d+)$/.exec(size);
  if (mixed) return Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3]);
  if (/^\d+$/.test(size) && Number(size) <= 12 && Number(size) !== 1) return 0.06 + 0.013 * Number(size);
  return Number(size);
}

/**
 * The class of a designation as it is written, and whether it is one of outside threads: metric by its letter's case
 * (ISO 965-1), inch by A and B (ASME B1.1). Null where it says none.
 */
export function threadClass(designation: string): { class: string | null; external: boolean | null } {
  const m = /-\s*(\d[EFGHefgh]|[123][AB])\s*(?:LH)?$/.exec(designation);
  if (!m) return { class: null, external: null };
  return { class: m[1], external: /[efghA]$/.test(m[1]) };
}

/**
 * Per cent of full thread a drilled hole leaves: 100 (major - drill) / (1.299038 pitch).
 * @source thread height of the basic profile, 2 x 5/8 H with H = 0.866025 P and 3/4 H counted as full: ASME B1.1
 * practice, from memory
 */
export const percentThread = (t: Pick<Thread, "major" | "pitch">, drill: number): number =>
  (100 * (t.major - drill)) / (1.299038 * t.pitch);

/**
 * Limits of the minor diameter of an internal thread, mm.
 * Basic D1 = D - 1.0825318 P. Tolerance: ISO 965-1 class 6H (433 P - 190 P^1.22 up to 0.8 mm pitch, 230 P^0.7 over
 * it, micrometres);
 * inch by ASME B1.1 class 2B (0.25 P - 0.4 P² from 1/4 inch and 4 threads per inch; 0.05 P^2/3 + 0.03 P/D - 0.002
 * below). From memory.
 */
export function minorLimits(t: Thread): { min: number; max: number } {
  const min = t.major - 1.0825318 * t.pitch;
  if (t.system === "metric") {
    const p = t.pitch;
    return { min, max: min + (p <= 0.8 ? 433 * p - 190 * p ** 1.22 : 230 * p ** 0.7) / 1000 };
  }
  const d = t.major / INCH,
    p = t.pitch / INCH;
  const tolerance =
    d < 0.25 - 1e-9
      ? Math.min(0.394 * p, Math.max(0.25 * p - 0.4 * p * p, 0.05 * p ** (2 / 3) + (0.03 * p) / d - 0.002))
      : 0.25 * p - 0.4 * p * p;
  return { min, max: min + tolerance * INCH };
}
