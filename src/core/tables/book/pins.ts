import { INCH } from "../../number";
import { fitDeviations } from "../fits";
import { cleaned, FROM_MEMORY, sheetPage, type TablePage } from "./page";

/** Limits of a size in a zone, mm. */
function limits(size: number, zone: string): [min: number, max: number] {
  const f = fitDeviations(size, zone);
  return f.ok ? [size + f.value.lower, size + f.value.upper] : [NaN, NaN];
}
const pinInHole = (size: number) => {
  const [pinMin, pinMax] = limits(size, "m6");
  const [holeMin, holeMax] = limits(size, "H7");
  return cleaned({ pinMin, pinMax, holeMin, holeMax });
};

export const parallelPin = sheetPage({
  id: "parallelPin",
  title: "Parallel pins, metric, and their reamed holes",
  standard: "ISO 2338 (m6), hole H7 of ISO 286",
  source: FROM_MEMORY,
  example: "ISO 2338 6",
  names: ["ISO 2338", "DIN 7"],
  columns: ["diameter", "chamfer"],
  unit: 1,
  text: `0.6 0.6 .12
  0.8 0.8 .16
  1 1 .2
  1.2 1.2 .25
  1.5 1.5 .3
  2 2 .35
  2.5 2.5 .4
  3 3 .5
  4 4 .63
  5 5 .8
  6 6 1.2
  8 8 1.6
  10 10 2
  12 12 2.5
  16 16 3
  20 20 3.5
  25 25 4
  30 30 5
  40 40 6.3
  50 50 8`,
  more: (r) => ({ values: pinInHole(r.diameter!) }),
});

export const hardenedPin = sheetPage({
  id: "hardenedPin",
  title: "Hardened dowels, metric, and their reamed holes",
  standard: "ISO 8734 (m6), hole H7 of ISO 286",
  source: FROM_MEMORY,
  example: "ISO 8734 6",
  names: ["ISO 8734", "DIN 6325", "DOWEL"],
  columns: ["diameter"],
  unit: 1,
  text: [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 16, 20].map((d) => `${d} ${d}`).join("\n"),
  calls: (name) => [`M${name}`, `${name}MM`],
  more: (r) => ({ values: pinInHole(r.diameter!) }),
});

/** A standard dowel is two ten thousandths over its size, give or take one; its hole lies under the size by five. */
const OVER = 0.0002;
const GROUND = 0.0001;
const REAMED = 0.0005;
export const inchDowel = sheetPage({
  id: "inchDowel",
  title: "Hardened ground machine dowels, inch, and their reamed holes",
  standard: "ASME B18.8.2, standard series",
  source: FROM_MEMORY,
  example: "dowel 1/4",
  names: ["ASME B18.8.2", "INCH DOWEL", "DOWEL"],
  columns: ["diameter"],
  unit: INCH,
  text: `1/16 .0625
  3/32 .0937
  1/8 .1250
  5/32 .1562
  3/16 .1875
  1/4 .2500
  5/16 .3125
  3/8 .3750
  7/16 .4375
  1/2 .5000
  5/8 .6250
  3/4 .7500
  7/8 .8750
  1 1.0000`,
  unsure: ["3/32", "5/32"],
  more: (r) => ({
    values: cleaned({
      pinMin: r.diameter! + (OVER - GROUND) * INCH,
      pinMax: r.diameter! + (OVER + GROUND) * INCH,
      holeMin: r.diameter! - REAMED * INCH,
      holeMax: r.diameter!,
    }),
  }),
});

export const pinPages: readonly TablePage[] = [parallelPin, hardenedPin, inchDowel];
