import { INCH } from "../../number";
import { morseTapers } from "../morse";
import {
  BY_FORMULA,
  cleaned,
  FROM_MEMORY,
  plainSize,
  sheetPage,
  sizeBehind,
  type TableEntry,
  type TablePage,
} from "./page";

/** The angle of a cone, whole and half, in degrees. */
const anglesOf = (taper: number) => {
  const half = (Math.atan(taper / 2) * 180) / Math.PI;
  return { included: Number((2 * half).toFixed(6)), half: Number(half.toFixed(6)) };
};

const morse = (): TableEntry[] =>
  morseTapers.rows.map((t) => ({
    what: `Morse taper ${t.number}`,
    standard: "ISO 296",
    source: morseTapers.source,
    values: cleaned({ gauge: t.gauge, depth: t.depth }),
    angles: anglesOf(t.taper),
    words: { ratio: `1 : ${Number((1 / t.taper).toFixed(3))}` },
  }));
const metricTapers = (): TableEntry[] =>
  [4, 6, 80, 100, 120, 160, 200].map((gauge) => ({
    what: `metric taper ${gauge}`,
    standard: "ISO 296",
    source: `${FROM_MEMORY}; angle ${BY_FORMULA}`,
    values: { gauge },
    angles: anglesOf(1 / 20),
    words: { ratio: "1 : 20" },
  }));
export const morsePage: TablePage = {
  id: "morse",
  title: "Morse and metric tapers",
  standard: "ISO 296",
  source: FROM_MEMORY,
  example: "Morse 3",
  names: ["MORSE TAPER", "MORSE"],
  entries: () => [...morse(), ...metricTapers()],
  find(query) {
    const number = sizeBehind(query, ["MORSE TAPER", "MORSE", "ISO 296 MORSE", "MT"]);
    const metric = number === null ? sizeBehind(query, ["METRIC TAPER", "METRIC", "ME"]) : null;
    const size = plainSize(number ?? metric ?? "").replace(/^NO\.?|^#/, "");
    const list = number === null ? (metric === null ? [] : metricTapers()) : morse();
    return list.find((e) => e.what.endsWith(` ${size}`)) ?? null;
  },
};

export const steepTaper = sheetPage({
  id: "steepTaper",
  title: "Tapers 7 : 24 of machine spindles",
  standard: "ISO 297, ISO 7388",
  source: FROM_MEMORY,
  example: "7:24 40",
  names: ["7:24", "7/24", "ISO 7388", "ISO 297", "STEEP TAPER"],
  columns: ["gauge"],
  unit: 1,
  text: `30 31.75
  35 38.1
  40 44.45
  45 57.15
  50 69.85
  55 88.9
  60 107.95`,
  more: () => ({ angles: anglesOf(7 / 24), words: { ratio: "7 : 24" } }),
});

export const jacobs = sheetPage({
  id: "jacobs",
  title: "Jacobs tapers of drill chucks",
  standard: "common practice of drill chucks",
  source: FROM_MEMORY,
  example: "Jacobs 2",
  names: ["JACOBS TAPER", "JACOBS", "JT"],
  columns: ["large", "small", "length"],
  unit: INCH,
  text: `0 .2500 .22844 .43750
  1 .3840 .33341 .65625
  2 .5590 .48764 .87500
  2S .5488 .48764 .75000
  3 .8110 .74610 1.21875
  4 1.1240 1.0372 1.6563
  5 1.4130 1.3161 1.8750
  6 .6760 .62409 1.0000
  33 .6240 .56051 1.0000`,
  more: (r) => ({ angles: anglesOf((r.large! - r.small!) / r.length!) }),
});

export const r8Page: TablePage = {
  id: "r8",
  title: "R8 taper of milling spindles",
  standard: "common practice of milling machines",
  source: FROM_MEMORY,
  example: "R8",
  entries: () => [
    {
      what: "R8",
      standard: "common practice of milling machines",
      source: FROM_MEMORY,
      values: cleaned({ large: 1.25 * INCH, shankMin: 0.949 * INCH, shankMax: 0.9495 * INCH }),
      angles: { included: 16.85, half: 8.425 },
      words: { drawbar: "7/16-20 UNF", angle: "16°51' included" },
    },
  ],
  find: (query) => (/^R ?8$/i.test(query.trim()) ? r8Page.entries()[0] : null),
};

/** Knurls: pitches of DIN 82, and the diametral pitches of ASME B94.6 with their pitch on the circle. */
const metricKnurls = [0.5, 0.6, 0.8, 1, 1.2, 1.6];
const diametral = [64, 96, 128, 160];
export const knurlPage: TablePage = {
  id: "knurl",
  title: "Knurls: pitches",
  standard: "DIN 82, ASME B94.6",
  source: FROM_MEMORY,
  example: "knurl 1",
  names: ["KNURL"],
  entries: () => [
    ...metricKnurls.map((pitch) => ({
      what: `knurl ${pitch}`,
      standard: "DIN 82",
      source: FROM_MEMORY,
      values: { pitch, diameterATooth: Number((pitch / Math.PI).toFixed(6)) },
      angles: { tooth: 90 },
    })),
    ...diametral.map((p) => ({
      what: `knurl ${p} DP`,
      standard: "ASME B94.6",
      source: `${FROM_MEMORY}; pitch ${BY_FORMULA}`,
      values: cleaned({ pitch: (Math.PI / p) * INCH, diameterATooth: INCH / p }),
    })),
  ],
  find(query) {
    const size = sizeBehind(query, ["KNURL", "DIN 82", "ASME B94.6"]);
    const m = size && /^(\d*\.?\d+)(MM|DP)?$/.exec(plainSize(size));
    if (!m) return null;
    const n = Number(m[1]);
    const isDiametral = m[2] === "DP" || n >= 10;
    const at = isDiametral ? diametral.indexOf(n) : metricKnurls.indexOf(n);
    return at < 0 ? null : knurlPage.entries()[at + (isDiametral ? metricKnurls.length : 0)];
  },
};

export const taperPages: readonly TablePage[] = [morsePage, steepTaper, jacobs, r8Page, knurlPage];
