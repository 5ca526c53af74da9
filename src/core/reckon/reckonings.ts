import {
  dmsText,
  evaluateNumber,
  fractionText,
  INCH,
  type NumberScope,
  type NumberText,
  type Quantity,
  type ByFigures,
  unitOf,
} from "../number";
import { ok, type Result } from "../base/result";
import { drillByThread, fitLimits, wiresByThread } from "./lookups";

/** A figure a reckoning asks for. */
export interface Asked {
  key: string;
  label: string;
  quantity: Quantity;
  start: ByFigures<string>;
}
/** A figure it gives: an expression made of what was typed, so that the sources of its parts stay its sources. */
export interface Given {
  label: string;
  text: string;
  quantity: Quantity;
  shown?: string;
  note?: string;
}
export interface Reckoning {
  id: string;
  title: string;
  /** The formula in words, with where it comes from. */
  source: string;
  asks: Asked[];
  /** Choices such as the thread or the tolerance zone, typed as words. */
  words?: { key: string; label: string; start: ByFigures<string> };
  gives(t: Record<string, string>, scope: NumberScope): Result<Given[]>;
}

const length = (key: string, label: string, inches: string, millimetres: string): Asked => ({
  key,
  label,
  quantity: "length",
  start: { in: inches, mm: millimetres },
});
const angle = (key: string, label: string, start: string): Asked => ({
  key,
  label,
  quantity: "includedAngle",
  start: { in: start, mm: start },
});
const count = (key: string, label: string, start: string): Asked => ({
  key,
  label,
  quantity: "count",
  start: { in: start, mm: start },
});
const L = (label: string, text: string, note?: string): Given => ({
  label,
  text,
  quantity: "coordinate",
  ...(note ? { note } : {}),
});
const A = (label: string, text: string): Given => ({ label, text, quantity: "angle" });
const plain = (r: Result<{ typed: number }>): number => (r.ok ? r.value.typed : NaN);
const geometry = "elementary geometry";

/** More holes than a list can be read of are counted, and said to be left out. */
const MOST_TOLD = 180;

/** The arithmetic a shop does by hand. Every result is text that a number field takes, balloons and all. */
export const reckonings: readonly Reckoning[] = [
  {
    id: "boltCircle",
    title: "Bolt circle",
    source: `x = D/2 cos a, y = D/2 sin a; ${geometry}`,
    asks: [
      length("d", "Circle ⌀", "2.500", "60"),
      count("n", "Holes", "6"),
      { key: "from", label: "First hole at", quantity: "angle", start: { in: "0", mm: "0" } },
    ],
    gives({ d, n, from }, scope) {
      const many = plain(evaluateNumber(n, "count", scope));
      const a = (k: number) => (k === 0 ? from : `${from}+${k}*360/${n}`);
      return ok([
        L("chord between neighbours", `${d}*sin(180/${n})`),
        ...Array.from({ length: Math.min(many, MOST_TOLD) || 0 }, (_, k) => [
          L(`hole ${k + 1} x`, `${d}/2*cos(${a(k)})`),
          L(`hole ${k + 1} y`, `${d}/2*sin(${a(k)})`),
        ]).flat(),
        ...(many > MOST_TOLD
          ? [
              {
                label: `holes not told, over the first ${MOST_TOLD}`,
                text: `${n}-${MOST_TOLD}`,
                quantity: "plain" as const,
              },
            ]
          : []),
      ]);
    },
  },
  {
    id: "chord",
    title: "Chord",
    source: `c = D sin(a/2); ${geometry}`,
    asks: [length("d", "Circle ⌀", "2.500", "60"), { ...angle("a", "Angle", "60"), quantity: "angle" }],
    gives: ({ d, a }) =>
      ok([
        L("chord", `${d}*sin(${a}/2)`),
        L("arc length", `${d}*3.14159265358979*${a}/360`),
        L("sagitta", `${d}/2*(1-cos(${a}/2))`),
      ]),
  },
  {
    id: "sagitta",
    title: "Sagitta",
    source: `s = r − √(r² − c²/4); ${geometry}`,
    asks: [length("r", "Radius", "4.000", "100"), length("c", "Chord", "2.000", "50")],
    gives: ({ r, c }) =>
      ok([L("sagitta", `${r}-sqrt(${r}*${r}-${c}*${c}/4)`), A("angle of the arc", `2*asin(${c}/2/${r})`)]),
  },
  {
    id: "radiusFromSagitta",
    title: "Radius from chord and sagitta",
    source: `r = s/2 + c²/8s; ${geometry}`,
    asks: [length("c", "Chord", "2.000", "50"), length("s", "Sagitta", ".125", "3")],
    gives: ({ c, s }) => ok([L("radius", `${s}/2+${c}*${c}/(8*${s})`)]),
  },
  {
    id: "tangents",
    title: "Tangent points of two circles",
    source: `cos φ = (r₁ ∓ r₂)/d, first centre at 0,0, second at d,0; ${geometry}`,
    asks: [
      length("r", "First radius", "1.000", "25"),
      length("q", "Second radius", ".500", "12"),
      length("d", "Centres apart", "3.000", "75"),
    ],
    gives({ r, q, d }) {
      const o = `acos((${r}-${q})/${d})`,
        i = `acos((${r}+${q})/${d})`;
      return ok([
        L("outer: on the first, x", `${r}*cos(${o})`),
        L("outer: on the first, y", `${r}*sin(${o})`),
        L("outer: on the second, x", `${d}+${q}*cos(${o})`),
        L("outer: on the second, y", `${q}*sin(${o})`),
        L("outer tangent length", `sqrt(${d}*${d}-(${r}-${q})*(${r}-${q}))`),
        L("inner: on the first, x", `${r}*cos(${i})`),
        L("inner: on the first, y", `${r}*sin(${i})`),
        L("inner: on the second, x", `${d}-${q}*cos(${i})`),
        L("inner: on the second, y", `-${q}*sin(${i})`),
        L("inner tangent length", `sqrt(${d}*${d}-(${r}+${q})*(${r}+${q}))`),
      ]);
    },
  },
  {
    id: "polygonFlats",
    title: "Polygon from across flats",
    source: `corners = flats / cos(180/n); ${geometry}`,
    asks: [count("n", "Sides", "6"), length("f", "Across flats", "1.000", "24")],
    gives: ({ n, f }) => ok([L("circle through the corners ⌀", `${f}/cos(180/${n})`), L("side", `${f}*tan(180/${n})`)]),
  },
  {
    id: "polygonCorners",
    title: "Polygon from across corners",
    source: `flats = corners cos(180/n); ${geometry}`,
    asks: [count("n", "Sides", "6"), length("c", "Circle through the corners ⌀", "1.000", "24")],
    gives: ({ n, c }) => ok([L("circle on the flats ⌀", `${c}*cos(180/${n})`), L("side", `${c}*sin(180/${n})`)]),
  },
  {
    id: "taperRatio",
    title: "Taper by ratio",
    source: `half angle = atan(1/2k) for 1 : k on the diameter; ${geometry}`,
    asks: [
      { key: "k", label: "1 :", quantity: "plain", start: { in: "20", mm: "20" } },
      length("d", "Large ⌀", "1.000", "25"),
      length("l", "Length", "2.000", "50"),
    ],
    gives: ({ k, d, l }) =>
      ok([
        A("half angle", `atan(1/(2*${k}))`),
        A("included angle", `2*atan(1/(2*${k}))`),
        L("small ⌀", `${d} - ${l}/${k}`),
      ]),
  },
  {
    id: "taperDiameters",
    title: "Taper by two diameters",
    source: `tan(half angle) = (D − d)/2L; ${geometry}`,
    asks: [
      length("d", "Large ⌀", "1.000", "25"),
      length("s", "Small ⌀", ".900", "22.5"),
      length("l", "Length", "2.000", "50"),
    ],
    gives: ({ d, s, l }) =>
      ok([
        A("half angle", `atan((${d}-${s})/2/${l})`),
        A("included angle", `2*atan((${d}-${s})/2/${l})`),
        { label: "ratio 1 :", text: `${l}/(${d}-${s})`, quantity: "plain" },
      ]),
  },
  {
    id: "taperAngle",
    title: "Taper by angle",
    source: `d = D − 2L tan(half angle); ${geometry}`,
    asks: [
      angle("a", "Included angle", "10"),
      length("d", "Large ⌀", "1.000", "25"),
      length("l", "Length", "2.000", "50"),
    ],
    gives: ({ a, d, l }) =>
      ok([
        L("small ⌀", `${d}-2*${l}*tan(${a}/2)`),
        { label: "ratio 1 :", text: `1/(2*tan(${a}/2))`, quantity: "plain" },
      ]),
  },
  {
    id: "veeWidth",
    title: "V cutter",
    source: `w = 2 d tan(a/2); ${geometry}`,
    asks: [
      angle("a", "Included angle", "60"),
      length("d", "Depth", ".010", "0.3"),
      length("w", "or line width", ".012", "0.35"),
    ],
    gives: ({ a, d, w }) =>
      ok([L("line width at that depth", `2*${d}*tan(${a}/2)`), L("depth for that width", `${w}/(2*tan(${a}/2))`)]),
  },
  {
    id: "countersink",
    title: "Countersink depth",
    source: `(D − d)/2 / tan(a/2); ${geometry}`,
    asks: [
      length("m", "Mouth ⌀", ".385", "10.4"),
      length("d", "Hole ⌀", ".201", "5.5"),
      angle("a", "Included angle", "82"),
    ],
    gives: ({ m, d, a }) =>
      ok([
        L("depth from the face to the hole", `(${m}-${d})/2/tan(${a}/2)`),
        L("depth to the sharp point", `${m}/2/tan(${a}/2)`),
      ]),
  },
  {
    id: "drillPoint",
    title: "Drill point",
    source: `d/2 / tan(a/2); ${geometry}`,
    asks: [length("d", "Drill ⌀", ".250", "8"), angle("a", "Point angle", "118")],
    gives: ({ d, a }) => ok([L("point length", `${d}/2/tan(${a}/2)`)]),
  },
  {
    id: "equivalents",
    title: "Decimal and fraction",
    source: "1 in = 25.4 mm exactly",
    asks: [
      { key: "v", label: "Length", quantity: "coordinate", start: { in: ".4375", mm: "11" } },
      { key: "a", label: "Angle", quantity: "angle", start: { in: "7.125", mm: "7.125" } },
    ],
    gives({ v, a }, scope) {
      const length = evaluateNumber(v, "coordinate", scope),
        degrees = plain(evaluateNumber(a, "angle", scope));
      if (!length.ok) return length;
      const inches = length.value.value / INCH,
        f = fractionText(inches);
      return ok([
        {
          label: "inch, decimal",
          text: `${Number(inches.toFixed(6))}in`,
          quantity: "coordinate",
          shown: inches.toFixed(5).replace(/^(-?)0\./, "$1."),
        },
        {
          label: "inch, nearest 1/64",
          text: f.text.startsWith("-") ? `-(${f.text.slice(1)})*1in` : `(${f.text})in`,
          quantity: "coordinate",
          shown: `${f.text}"${Math.abs(f.off) > 5e-7 ? ` (${f.off > 0 ? "+" : "−"}${Math.abs(f.off).toFixed(4).replace(/^0/, "")})` : ""}`,
        },
        {
          label: "millimetres",
          text: `${Number(length.value.value.toFixed(6))}mm`,
          quantity: "coordinate",
          shown: length.value.value.toFixed(4),
        },
        {
          label: "thousandths",
          text: `${Number((inches * 1000).toFixed(3))} thou`,
          quantity: "coordinate",
          shown: (inches * 1000).toFixed(1),
        },
        { label: "angle in d m s", text: a, quantity: "angle", shown: dmsText(degrees, 1) },
        { label: "angle in degrees", text: a, quantity: "angle", shown: degrees.toFixed(5) },
      ]);
    },
  },
  {
    id: "weight",
    title: "Weight of a blank",
    source: "volume times density; density in g/cm³, result in grams",
    asks: [
      length("l", "Length", "4.000", "100"),
      length("w", "Width", "2.000", "50"),
      length("h", "Height", "1.000", "25"),
      length("d", "or round ⌀", "2.000", "50"),
      { key: "rho", label: "Density", quantity: "plain", start: { in: "2.70", mm: "2.70" } },
    ],
    gives({ l, w, h, d, rho }, scope) {
      const k = String(Number((unitOf[scope.unit].mm ** 3 / 1000).toPrecision(12)));
      return ok([
        { label: "plate l × w × h, g", text: `${l}*${w}*${h}*${k}*${rho}`, quantity: "plain" },
        { label: "round ⌀ × length, g", text: `3.14159265358979/4*${d}*${d}*${l}*${k}*${rho}`, quantity: "plain" },
      ]);
    },
  },
  {
    id: "tapDrill",
    title: "Tap drill",
    source: "thread tables: ASME B1.1, ISO 261; from memory",
    asks: [],
    words: { key: "thread", label: "Thread", start: { in: "1/4-20 UNC", mm: "M6" } },
    gives: ({ thread }, scope) => drillByThread(thread, scope.unit),
  },
  {
    id: "wires",
    title: "Thread over three wires",
    source:
      "M = d₂ + w (1 + 1/sin α) − P/2 cot α, the lead left out; limits of ISO 965-1, ASME B1.1 and B1.5, from memory",
    asks: [length("w", "Wire ⌀", ".029", "0.9")],
    words: { key: "thread", label: "Thread", start: { in: "1/4-20 UNC-2A", mm: "M10-6g" } },
    gives({ w, thread }, scope) {
      const wire = evaluateNumber(w, "length", scope);
      return wire.ok ? wiresByThread(thread, wire.value.value, scope.unit) : wire;
    },
  },
  {
    id: "sealGroove",
    title: "Seal groove: squeeze and fill",
    source: `squeeze (w − t)/w, fill π/4 w² / (t b); ${geometry}`,
    asks: [
      length("s", "Section ⌀", ".103", "2.62"),
      length("t", "Groove depth", ".082", "2.08"),
      length("b", "Groove width", ".142", "3.6"),
    ],
    gives: ({ s, t, b }) =>
      ok([
        { label: "squeeze, %", text: `100*(${s}-${t})/${s}`, quantity: "plain" },
        { label: "fill, %", text: `100*3.14159265358979/4*${s}*${s}/(${t}*${b})`, quantity: "plain" },
      ]),
  },
  {
    id: "fit",
    title: "Fit",
    source: "ISO 286-1; from memory",
    asks: [length("d", "Nominal size", ".7500", "20")],
    words: { key: "zone", label: "Zone", start: { in: "H7", mm: "H7" } },
    gives({ d, zone }, scope) {
      const size = evaluateNumber(d, "length", scope);
      return size.ok ? fitLimits(size.value.value, zone.trim(), scope.unit) : size;
    },
  },
];

/** Brackets round a typed number where it would fall apart inside an expression. */
export const operand = (text: NumberText | string): string => {
  const t = text
    .trim()
    .replace(/!$|\{[^{}]*\}$/, "")
    .trim();
  return /^(#\d+|[\d.]+|[A-Za-z_]\w*)$/.test(t) ? t : `(${t})`;
};
