import { INCH } from "../../number";
import { cleaned, PRACTICE, plainSize, sizeBehind, UNSURE, type TableEntry, type TablePage } from "./page";

/** A series of AS568: its section, and its inside diameters from a first dash number on, inches. */
interface Series {
  section: number;
  /** Section's tolerance, inches. */
  tolerance: number;
  first: number;
  inside: readonly number[];
}
/** Inside diameters: some as they are printed, then runs of `from upTo by`. */
function insides(printed: string, ...runs: [from: number, upTo: number, by: number][]): number[] {
  const list = printed.trim().split(/\s+/).map(Number);
  for (const [from, upTo, by] of runs)
    for (let k = 0; from + k * by <= upTo + 1e-9; k++) list.push(Number((from + k * by).toFixed(3)));
  return list;
}
const series: readonly Series[] = [
  {
    section: 0.07,
    tolerance: 0.003,
    first: 6,
    inside: insides(
      ".114 .145 .176 .208 .239 .301 .364 .426 .489 .551 .614 .676 .739 .801 .864 .926 .989 1.051 1.114 1.176 1.239 1.301 1.364",
      [1.489, 2.989, 0.125],
      [3.239, 5.239, 0.25],
    ),
  },
  {
    section: 0.103,
    tolerance: 0.003,
    first: 102,
    inside: insides(
      `.049 .081 .112 .143 .174 .206 .237 .299 .362 .424 .487 .549 .612 .674 .737 .799 .862 .924 .987 1.049 1.112 1.174 1.237
      1.299 1.362 1.424 1.487 1.549 1.612 1.674 1.737 1.799 1.862 1.925 1.987 2.050 2.112 2.175 2.237 2.300 2.362 2.425 2.487
      2.550 2.612 2.675 2.737 2.800 2.862`,
      [2.987, 9.737, 0.25],
    ),
  },
  {
    section: 0.139,
    tolerance: 0.004,
    first: 201,
    inside: insides(
      `.171 .234 .296 .359 .421 .484 .546 .609 .671 .734 .796 .859 .921 .984 1.046 1.109 1.171 1.234 1.296 1.359 1.421 1.484`,
      [1.609, 5.984, 0.125],
      [6.234, 9.984, 0.25],
    ),
  },
  {
    section: 0.21,
    tolerance: 0.005,
    first: 309,
    inside: insides(
      ".412 .475 .537 .600 .662 .725 .787 .850 .912 .975 1.037 1.100 1.162 1.225 1.287 1.350",
      [1.475, 4.475, 0.125],
      [4.6, 5.975, 0.125],
      [6.225, 6.975, 0.25],
    ),
  },
  { section: 0.275, tolerance: 0.006, first: 425, inside: insides("4.475", [4.6, 5.975, 0.125], [6.225, 7.975, 0.25]) },
];

/** How deep and wide a groove is by the section, inches: static in a round, moving, and static on a face. */
const glands: Record<string, Record<"static" | "moving" | "face", [number, number]>> = {
  "0.07": { static: [0.05, 0.052], moving: [0.055, 0.057], face: [0.05, 0.054] },
  "0.103": { static: [0.081, 0.083], moving: [0.088, 0.09], face: [0.074, 0.08] },
  "0.139": { static: [0.111, 0.113], moving: [0.121, 0.123], face: [0.101, 0.107] },
  "0.21": { static: [0.17, 0.173], moving: [0.185, 0.188], face: [0.152, 0.162] },
  "0.275": { static: [0.226, 0.229], moving: [0.237, 0.24], face: [0.201, 0.211] },
};
const widths: Record<string, [number, number]> = {
  "0.07": [0.093, 0.098],
  "0.103": [0.14, 0.145],
  "0.139": [0.187, 0.192],
  "0.21": [0.281, 0.286],
  "0.275": [0.375, 0.38],
};

/** How far a ring is pressed together, and how much of its groove it fills, in per cent. */
export function pressed(section: number, depth: number, width: number): { squeeze: number; fill: number } {
  return {
    squeeze: (100 * (section - depth)) / section,
    fill: (100 * (Math.PI / 4) * section * section) / (depth * width),
  };
}

function entry(s: Series, at: number): TableEntry {
  const dash = String(s.first + at).padStart(3, "0");
  const key = String(s.section);
  const [widthMin, widthMax] = widths[key];
  const gland = glands[key];
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const { squeeze, fill } = pressed(s.section, middle(gland.static), middle([widthMin, widthMax]));
  const mm = Object.fromEntries(
    Object.entries({
      insideDiameter: s.inside[at],
      section: s.section,
      sectionTolerance: s.tolerance,
      grooveWidthMin: widthMin,
      grooveWidthMax: widthMax,
      staticDepthMin: gland.static[0],
      staticDepthMax: gland.static[1],
      movingDepthMin: gland.moving[0],
      movingDepthMax: gland.moving[1],
      faceDepthMin: gland.face[0],
      faceDepthMax: gland.face[1],
    }).map(([name, inches]) => [name, inches * INCH]),
  );
  return {
    what: `AS568-${dash}`,
    standard: "AS568, ISO 3601-1 sizes",
    source: `sizes from memory; grooves ${PRACTICE}, from memory: the seal maker's figures count`,
    values: cleaned(mm),
    words: { squeeze: `${squeeze.toFixed(0)} % in a static groove`, fill: `${fill.toFixed(0)} % of it filled` },
  };
}

export const sealPage: TablePage = {
  id: "seal",
  title: "Seal rings and their grooves",
  standard: "AS568, ISO 3601",
  source: UNSURE,
  example: "AS568-214",
  names: ["AS568"],
  entries: () => series.flatMap((s) => s.inside.map((_, i) => entry(s, i))),
  find(query) {
    const size = sizeBehind(query, ["AS568-", "AS568", "ISO 3601", "O-RING", "ORING", "SEAL", "SEAL RING"]);
    const dash = size && /^-?(\d{1,3})$/.exec(plainSize(size))?.[1];
    if (!dash) return null;
    const n = Number(dash);
    const found = series.find((s) => n >= s.first && n < s.first + s.inside.length);
    return found ? entry(found, n - found.first) : null;
  },
};
