import { INCH } from "../../number";
import { inchDrills } from "../inchDrills";
import { metricDrills, type Drill } from "../metricDrills";
import { figureIn } from "../table";
import { TO_J_MINOR } from "./limits";
import { parallelPipe, pipeDrillName } from "./parallelPipe";
import { inchThreads, metricCoarse, metricFine, numberSize, pipeThreads, type ThreadSize } from "./sizes";
import type { Thread } from "./thread";
import { acme, trapezoidal, powerDiameters } from "./trapezoidal";

/** A designation at the start of a text: as it is written once it is read, and how much of the text it took. */
interface Read {
  designation: string;
  length: number;
}
/** One way threads are called. */
interface Form {
  read(text: string): Read | null;
  /** The thread of a designation of this form; null where there is no such thread. */
  find(designation: string): Thread | null;
}

const left = String.raw`(?:[ \t]*-?[ \t]*(LH|L\.H\.?|LEFT[ -]HAND)(?![A-Z]))?`;
const inchSize = String.raw`(\d+-\d+\/\d+|\d+\/\d+|\d*\.\d+|\d{1,2})`;
const handText = (said: string | undefined): string => (said ? "-LH" : "");

/** Size and threads to the inch, series, class, hand: `1/4-20 UNC-2A-LH`. */
const unifiedForm = new RegExp(
  String.raw`^${inchSize}-(\d{1,3}(?:\.\d+)?)(?![\d/])(?:[ \t]*(UN[RJ]?(?:C|F|EF|S)?)(?![A-Z]))?(?:[ \t]*-?[ \t]*([123])[ \t]?([AB])(?![A-Z\d]))?${left}`,
  "i",
);
const unified: Form = {
  read(text) {
    const m = unifiedForm.exec(text);
    if (!m) return null;
    const size = usualSize(m[1], m[2]) ?? m[1];
    // Without a series only what a series has is a thread: two numbers with a dash may be a difference.
    if (!m[3] && !isBareThread(size, m[2])) return null;
    const series = m[3] ? ` ${m[3].toUpperCase()}` : "";
    const of = m[4] ? `-${m[4]}${m[5].toUpperCase()}` : "";
    return { designation: `${size}-${m[2]}${series}${of}${handText(m[6])}`, length: m[0].length };
  },
  find(designation) {
    const m = unifiedForm.exec(designation);
    if (m?.[0].length !== designation.length) return null;
    const series = m[3]?.toUpperCase().replace(/^UN[RJ]/, "UN");
    const size = inchThreads.rows.find((t) => t.name === `${m[1]}-${m[2]}` && isOfSeries(t, series));
    const isJ = /^UNJ/i.test(m[3] ?? "");
    const major = size?.major ?? majorInches(m[1], Number(m[2])) * INCH;
    const pitch = INCH / Number(m[2]);
    if (!Number.isFinite(pitch) || !(pitch < major)) return null;
    return {
      designation,
      form: "unified",
      major,
      pitch,
      system: "inch",
      size: isJ ? withJDrill(size ?? null, inchDrills.rows) : (size ?? null),
      class: m[4] ? m[4] + m[5].toUpperCase() : null,
      external: m[5] ? m[5].toUpperCase() === "A" : null,
      ...(m[6] ? { leftHand: true } : {}),
      ...(isJ ? { roundedRoot: true } : {}),
    };
  },
};
/** The size of a thread with a rounded root: its crest inside stands further back, and so does its drill's edge. */
function withJDrill(size: ThreadSize | null, drills: readonly Drill[]): ThreadSize | null {
  const drill = size && drills.find((d) => d.diameter > size.major - TO_J_MINOR * size.pitch - 1e-6);
  return size && drill ? { ...size, tapDrill: drill.diameter, drillName: drill.name } : size;
}

/**
 * Whether two numbers with a dash are a thread without its series being said. Whole inches are not: `4-8 HOLES` are four of
 * eight, and `3-4` are rows.
 */
const isBareThread = (size: string, threads: string): boolean =>
  inchThreads.rows.some((t) => t.name === `${size}-${threads}` && !(/^\d+$/.test(size) && t.major > 1.5 * INCH));

/** `UN` alone says no series; UNS is any size that the graded series have not. */
const isOfSeries = (t: ThreadSize, series: string | undefined): boolean =>
  series === undefined || series === "UN" || t.series === series || (series === "UNS" && t.series === "UN");

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

/** Number sizes are .060 + .013 n inches (ASME B1.1); others are their own size. Few threads are those of inches. */
function majorInches(size: string, threads: number): number {
  const n = Number(size);
  const isNumber = /^\d+$/.test(size) && n <= 12 && n !== 1 && threads >= FEWEST_OF_NUMBERS;
  return isNumber ? numberSize(n) : figureIn(size);
}
/** No number size has fewer threads to the inch. */
const FEWEST_OF_NUMBERS = 24;

/** Size, pitch, class and hand; a small letter is an outside thread's: `M8X1-6g`, `MJ6X1-4H5H`. */
const metricForm = new RegExp(
  String.raw`^M(J?)(\d+(?:\.\d+)?)(?:[ \t]*[X×][ \t]*(\d*\.?\d+))?(?:[ \t]*-[ \t]*(\d[EFGH](?:\d[EFGH])?)(?![A-Z\d]))?${left}`,
  "i",
);
const metric: Form = {
  read(text) {
    const m = metricForm.exec(text);
    if (!m) return null;
    const pitch = m[3] ? `X${m[3]}` : "";
    const of = m[4] ? `-${m[4]}` : "";
    return { designation: `M${m[1].toUpperCase()}${m[2]}${pitch}${of}${handText(m[5])}`, length: m[0].length };
  },
  find(designation) {
    const m = metricForm.exec(designation);
    if (m?.[0].length !== designation.length) return null;
    const major = Number(m[2]);
    const coarse = metricCoarse.rows.find((t) => t.major === major);
    const pitch = m[3] ? Number(m[3]) : coarse?.pitch;
    if (!pitch || !(pitch < major)) return null;
    const size = coarse?.pitch === pitch ? coarse : metricFine.rows.find((t) => t.major === major && t.pitch === pitch);
    return {
      designation,
      form: "metric",
      major,
      pitch,
      system: "metric",
      size: m[1] ? withJDrill(size ?? null, metricDrills.rows) : (size ?? null),
      class: m[4] ?? null,
      external: m[4] ? /[efgh]/.test(m[4]) : null,
      ...(m[5] ? { leftHand: true } : {}),
      ...(m[1] ? { roundedRoot: true } : {}),
    };
  },
};

/** `NPT 1/4-18`; prints also write the letters behind, and leave the threads out, for a size has but one count. */
const taperForm =
  /^(?:NPTF?[ \t]*(\d+-\d+\/\d+|\d+\/\d+|\d)-(\d+(?:\.5)?)(?![\d./])|(\d+-\d+\/\d+|\d+\/\d+|\d)-(\d+(?:\.5)?)[ \t]*NPTF?\b)/i;
const bareTaper =
  /^(?:(\d+-\d+\/\d+|\d+\/\d+|\d)[ \t]*-?[ \t]*NPTF?\b|NPTF?[ \t]*(\d+-\d+\/\d+|\d+\/\d+|\d)(?![\d./-]))/i;
const taperPipe: Form = {
  read(text) {
    const m = taperForm.exec(text);
    const kind = (all: string): string => (/NPTF/i.test(all) ? "NPTF" : "NPT");
    if (m) return { designation: `${kind(m[0])} ${m[1] ?? m[3]}-${m[2] ?? m[4]}`, length: m[0].length };
    const bare = bareTaper.exec(text);
    const row = bare && pipeThreads.rows.find((t) => t.name.replace(/-[\d.]+$/, "") === (bare[1] ?? bare[2]));
    return row ? { designation: `${kind(bare[0])} ${row.name}`, length: bare[0].length } : null;
  },
  find(designation) {
    const name = /^NPTF? (.+)$/.exec(designation)?.[1];
    const size = pipeThreads.rows.find((t) => t.name === name);
    return size ? { ...plainThread(designation, "inch", size), form: "taperPipe", pipe: true } : null;
  },
};
const plainThread = (designation: string, system: Thread["system"], size: ThreadSize): Omit<Thread, "form"> => ({
  designation,
  major: size.major,
  pitch: size.pitch,
  system,
  size,
  class: null,
  external: null,
});

/** `G 1/4`, outside with its class `G 1/4 A`; `RP` parallel inside, `RC` taper inside. `R` alone would be a radius. */
const whitworthForm = /^(G|RP|RC)[ \t]?(\d+-\d+\/\d+|\d+\/\d+|\d)(?![\d./])(?:[ \t]*-?[ \t]*([AB])(?![A-Z]))?/i;
const whitworth: Form = {
  read(text) {
    const m = whitworthForm.exec(text);
    if (!m || !parallelPipe.rows.some((r) => r.name === m[2])) return null;
    return { designation: `${m[1].toUpperCase()} ${m[2]}${m[3] ? ` ${m[3].toUpperCase()}` : ""}`, length: m[0].length };
  },
  find(designation) {
    const m = /^(G|RP|RC|R) (\S+)(?: ([AB]))?$/.exec(designation);
    const row = m && parallelPipe.rows.find((r) => r.name === m[2]);
    if (!m || !row || (m[1] !== "G" && row.gauge === null)) return null;
    const { major, pitch, tapDrill } = row;
    const series = m[1] === "G" ? "G" : "R";
    const size: ThreadSize = { name: row.name, series, major, pitch, tapDrill, drillName: pipeDrillName(tapDrill) };
    const isTaper = m[1] === "R" || m[1] === "RC";
    return {
      ...plainThread(designation, "metric", size),
      form: isTaper ? "taperPipe" : "parallelPipe",
      class: m[3] ?? null,
      external: m[3] ? true : null,
      ...(isTaper ? { pipe: true as const } : {}),
    };
  },
};

/** `Tr40x7-7H`, `1-5 ACME-2G`. */
const trForm = new RegExp(
  String.raw`^TR[ \t]?(\d+)[ \t]?[X×][ \t]?(\d+(?:\.\d+)?)(?:[ \t]*-[ \t]*(\d[ceh])(?![A-Z\d]))?${left}`,
  "i",
);
const acmeForm = new RegExp(
  String.raw`^${inchSize}-(\d{1,2})[ \t]*ACME(?![A-Z])(?:[ \t]*-?[ \t]*([2345])[ \t]?([GC])(?![A-Z]))?${left}`,
  "i",
);
const power: Form = {
  read(text) {
    const tr = trForm.exec(text);
    if (tr)
      return {
        designation: `TR${tr[1]}X${tr[2]}${tr[3] ? `-${tr[3]}` : ""}${handText(tr[4])}`,
        length: tr[0].length,
      };
    const m = acmeForm.exec(text);
    const of = m?.[3] ? `-${m[3]}${m[4].toUpperCase()}` : "";
    return m && { designation: `${m[1]}-${m[2]} ACME${of}${handText(m[5])}`, length: m[0].length };
  },
  find(designation) {
    const tr = trForm.exec(designation);
    const m = tr ?? acmeForm.exec(designation);
    if (m?.[0].length !== designation.length) return null;
    const name = tr ? `${tr[1]}X${Number(tr[2])}` : `${m[1]}-${m[2]}`;
    const row = (tr ? trapezoidal : acme).rows.find((r) => r.name === name);
    if (!row) return null;
    const { form, major, pitch } = row;
    const tapDrill = powerDiameters(row).insideMinor;
    const size: ThreadSize = { name, series: form, major, pitch, tapDrill, drillName: `bored to the minor diameter` };
    const of = tr ? tr[3] : m[3] && m[3] + m[4].toUpperCase();
    return {
      ...plainThread(designation, tr ? "metric" : "inch", size),
      form: tr ? "trapezoidal" : "acme",
      class: of ?? null,
      external: tr?.[3] ? /[ceh]/.test(tr[3]) : null,
      ...((tr ? tr[4] : m[5]) ? { leftHand: true as const } : {}),
    };
  },
};

/** In the order they are tried: a form before those that would read only its beginning. */
const forms: readonly Form[] = [taperPipe, power, metric, whitworth, unified];

/**
 * Reads a thread designation at the start of a text: `10-32 UNF-2B`, `1/4-20`, `M5`, `M8X1-6H`, `G 1/4`, `1-5 ACME`.
 * A metric class keeps its letter as typed: a small one is an outside thread's.
 * @returns the canonical designation and how much of the text it took, or null
 */
export function readThread(text: string): Read | null {
  for (const form of forms) {
    const read = form.read(text);
    if (read) return read;
  }
  return null;
}

/**
 * Major diameter, pitch, class and hand of a designation, with its table row where a table knows it. Null when it
 * cannot be read.
 */
export function findThread(designation: string): Thread | null {
  for (const form of forms) {
    const thread = form.find(designation);
    if (thread) return thread;
  }
  return null;
}
