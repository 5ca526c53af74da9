import { INCH } from "../../number";
import { inchDrills, metricDrills } from "../drills";
import {
  acme,
  bestWire,
  findThread,
  formingHole,
  inchThreads,
  metricCoarse,
  metricFine,
  outOfLimits,
  overWires,
  parallelPipe,
  percentThread,
  pipeThreads,
  powerDiameters,
  readThread,
  rootDiameter,
  threadLimits,
  trapezoidal,
  type Thread,
} from "../threads";
import { crestToleranceOf } from "../threads/metricTolerances";
import { unifiedMinor } from "../threads/unifiedTolerances";
import { BY_FORMULA, clean, cleaned, FROM_MEMORY, once, sizeBehind, type TableEntry, type TablePage } from "./page";

const LIMITS = `limits ${BY_FORMULA} and rounding of the standard; tolerances ${FROM_MEMORY}`;

/** Limits on one side, told by their names, and what is measured over three wires. */
function sideValues(t: Thread, side: "inside" | "outside"): Record<string, number> {
  const limits = threadLimits(t, side);
  if (!limits) return {};
  const { majorMin, majorMax, pitchMin, pitchMax, minorMin, minorMax } = limits;
  const wire = side === "outside" ? bestWire(t) : null;
  const over = (d: number) => (wire === null ? null : overWires(t, d, wire));
  return cleaned({
    majorMin,
    majorMax,
    pitchDiameterMin: pitchMin,
    pitchDiameterMax: pitchMax,
    minorMin,
    minorMax,
    ...(side === "outside"
      ? { rootMax: rootDiameter(t), bestWire: wire, overWiresMin: over(pitchMin), overWiresMax: over(pitchMax) }
      : {}),
  });
}

/** All a table says of a thread: its sizes, its limits in its class on the side that has, its tap drills. */
export function threadEntry(t: Thread): TableEntry {
  const sides = t.external === null ? (["inside", "outside"] as const) : ([t.external ? "outside" : "inside"] as const);
  const first = threadLimits(t, sides[0]);
  const values: Record<string, number> = { major: clean(t.major), pitch: clean(t.pitch) };
  for (const side of sides) {
    const own = sideValues(t, side);
    // Of a thread that says no class both sides are told, each by its name.
    for (const [name, v] of Object.entries(own))
      values[sides.length > 1 ? `${side}${name[0].toUpperCase()}${name.slice(1)}` : name] = v;
  }
  if (t.form === "trapezoidal") {
    const row = trapezoidal.rows.find((r) => r.major === t.major && r.pitch === t.pitch);
    if (row) Object.assign(values, cleaned(powerDiameters(row)));
  }
  if (t.external !== true && t.size) values.tapDrill = clean(t.size.tapDrill);
  if (t.external !== true && (t.form === "metric" || t.form === "unified")) values.formingHole = clean(formingHole(t));
  const classes = sides.flatMap((s) => threadLimits(t, s)?.class ?? []).filter(Boolean);
  const isCut = t.external !== true && t.size !== null;
  return {
    what: t.designation,
    standard: first?.standard ?? standards[t.form],
    source: t.size || t.form === "metric" || t.form === "unified" ? LIMITS : FROM_MEMORY,
    values,
    words: {
      ...(classes.length ? { class: classes.join(" inside, ") + (classes.length > 1 ? " outside" : "") } : {}),
      ...(t.size ? { series: t.size.series } : { series: "of no series: a special size" }),
      ...(isCut ? { drill: t.size!.drillName } : {}),
      ...(isCut && (t.form === "metric" || t.form === "unified")
        ? { thread: `${percentThread(t, t.size!.tapDrill).toFixed(0)} % with that drill` }
        : {}),
      hand: t.leftHand ? "left" : "right",
      ...(t.roundedRoot ? { form: "rounded root: the crest inside is cut further back" } : {}),
    },
  };
}
const standards: Record<Thread["form"], string> = {
  metric: "ISO 261, ISO 724",
  unified: "ASME B1.1",
  taperPipe: "ASME B1.20.1, ISO 7-1",
  parallelPipe: "ISO 228-1, ISO 7-1",
  trapezoidal: "ISO 2904",
  acme: "ASME B1.5",
};

/** Every size of the series, as prints call it. */
const allSizes = (): string[] => [
  ...metricCoarse.rows.map((r) => r.name),
  ...metricFine.rows.map((r) => r.name),
  ...inchThreads.rows.map((r) => `${r.name} ${r.series}`),
  ...pipeThreads.rows.map((r) => `NPT ${r.name}`),
  ...parallelPipe.rows.map((r) => `G ${r.name}`),
  ...trapezoidal.rows.map((r) => `TR${r.name}`),
  ...acme.rows.map((r) => `${r.name} ACME`),
];
const taperEntry = (t: Thread): TableEntry => ({ ...threadEntry(t), ...pipeFigures(t) });

/** Gauge diameters and lengths of a taper pipe thread. @source ASME B1.20.1 by formula; ISO 7-1 from its table */
function pipeFigures(t: Thread): Partial<TableEntry> {
  const base = { major: clean(t.major), pitch: clean(t.pitch), tapDrill: clean(t.size!.tapDrill) };
  if (t.size!.series === "NPT") {
    const d = t.major / INCH;
    const p = t.pitch / INCH;
    const ends = handTight[t.size!.name];
    const e0 = d - (0.05 * d + 1.1) * p;
    return {
      standard: "ASME B1.20.1",
      source: `${BY_FORMULA}: E0 = D - (.05 D + 1.1) P, L2 = (.8 D + 6.8) P; L1 ${FROM_MEMORY}`,
      values: cleaned({
        ...base,
        pitchDiameterAtEnd: Number(e0.toFixed(5)) * INCH,
        pitchDiameterAtGauge: ends === undefined ? null : Number((e0 + ends / 16).toFixed(5)) * INCH,
        handTight: ends === undefined ? null : ends * INCH,
        effectiveLength: Number(((0.8 * d + 6.8) * p).toFixed(4)) * INCH,
      }),
    };
  }
  const row = parallelPipe.rows.find((r) => r.name === t.size!.name)!;
  return {
    standard: "ISO 7-1",
    source: FROM_MEMORY,
    values: cleaned({
      ...base,
      gaugeLength: row.gauge,
      usefulLength: row.useful,
    }),
  };
}
/** L1 by the size, inches. */
const handTight: Record<string, number> = {
  "1/16-27": 0.16,
  "1/8-27": 0.1615,
  "1/4-18": 0.2278,
  "3/8-18": 0.24,
  "1/2-14": 0.32,
  "3/4-14": 0.339,
  "1-11.5": 0.4,
  "1-1/4-11.5": 0.42,
  "1-1/2-11.5": 0.42,
  "2-11.5": 0.436,
};

function findOf(text: string): TableEntry | null {
  const plain = text
    .trim()
    .replace(/^THREAD\s+/i, "")
    .replace(/^#(?=\d)/, "");
  const read = readThread(plain);
  const isRadius = /^R (\S+)$/i.exec(plain);
  const whole = read?.length === plain.length ? read.designation : isRadius ? `R ${isRadius[1]}` : null;
  const t = whole === null ? null : findThread(whole);
  return t && (t.pipe ? taperEntry(t) : threadEntry(t));
}

export const threadPage: TablePage = {
  id: "thread",
  title: "Threads: sizes, limits, tap drills, wires",
  standard: "ISO 261, 965-1; ASME B1.1, B1.5, B1.20.1; ISO 228-1, 7-1, 2904",
  source: LIMITS,
  example: "M10-6g",
  entries: once(() => allSizes().flatMap((name) => findOf(name) ?? [])),
  second: {
    source: "printed tolerances of ISO 965-1 against its formulas, within a term of R 40",
    figures: ({ standard, values }) =>
      standard === "ISO 965-1" ? Object.keys(values).filter((name) => /(?:Min|Max)$/.test(name)).length : 0,
  },
  find: findOf,
};

/** The hole and the thread for a coiled insert: the thread's triangle moved out by its own wire. */
function insertEntry(t: Thread): TableEntry | null {
  if ((t.form !== "metric" && t.form !== "unified") || !t.size) return null;
  const min = t.major + 0.216506 * t.pitch;
  const width =
    t.form === "metric"
      ? crestToleranceOf("minor6", t.pitch, t.pitch < 0.5 ? 5 : 6)
      : unifiedMinor(t, 2).max - unifiedMinor(t, 2).min;
  const drills = t.system === "metric" ? metricDrills : inchDrills;
  const drill = drills.rows.find((d) => d.diameter >= min - 1e-6);
  const isIn = drill && !outOfLimits(drill.diameter, min, min + width);
  return {
    what: `insert ${t.designation}`,
    standard: t.system === "metric" ? "DIN 8140-2" : "ASME B18.29.1",
    source: `${BY_FORMULA}: minor diameter D + .2165 P, major D + 1.299 P; the insert maker's figures count`,
    values: cleaned({
      insertMajor: t.major + 1.299038 * t.pitch,
      insertPitchDiameter: t.major + 0.649519 * t.pitch,
      insertMinorMin: min,
      insertMinorMax: min + width,
      pitch: t.pitch,
      tapDrill: isIn ? drill.diameter : null,
    }),
    ...(isIn ? { words: { drill: drill.name } } : {}),
  };
}
export const insertPage: TablePage = {
  id: "insert",
  title: "Thread inserts: their holes and taps",
  standard: "DIN 8140-2, ASME B18.29.1",
  source: BY_FORMULA,
  example: "insert M6",
  entries: once(() =>
    [...metricCoarse.rows.map((r) => r.name), ...inchThreads.rows.map((r) => `${r.name} ${r.series}`)].flatMap(
      (name) => {
        const t = findThread(name);
        return (t && insertEntry(t)) ?? [];
      },
    ),
  ),
  find(query) {
    const plain = query.trim();
    const size = sizeBehind(plain, ["INSERT", "STI", "EG"]) ?? /^(.+?)\s+(?:STI|INSERT)$/i.exec(plain)?.[1];
    const read = size ? readThread(size.trim()) : null;
    const t = read && read.length === size!.trim().length ? findThread(read.designation) : null;
    return t && insertEntry(t);
  },
};

export const threadPages: readonly TablePage[] = [insertPage, threadPage];
