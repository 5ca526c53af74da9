import { INCH } from "../number";
import { table } from "./table";

/** A drill with a name: number, letter, fraction or metric size. Diameter in mm. */
export interface Drill {
  name: string;
  diameter: number;
}

// Number drills 1 to 60, thousandths and tenths of an inch.
const numbers = [
  2280, 2210, 2130, 2090, 2055, 2040, 2010, 1990, 1960, 1935, 1910, 1890, 1850, 1820, 1800, 1770, 1730, 1695, 1660,
  1610, 1590, 1570, 1540, 1520, 1495, 1470, 1440, 1405, 1360, 1285, 1200, 1160, 1130, 1110, 1100, 1065, 1040, 1015, 995,
  980, 960, 935, 890, 860, 820, 810, 785, 760, 730, 700, 670, 635, 595, 550, 520, 465, 430, 420, 410, 400,
];
const letters = [
  234, 238, 242, 246, 250, 257, 261, 266, 272, 277, 281, 290, 295, 302, 316, 323, 332, 339, 348, 358, 368, 377, 386,
  397, 404, 413,
];

const fraction = (sixtyFourths: number): string => {
  let top = sixtyFourths % 64,
    bottom = 64;
  const whole = Math.floor(sixtyFourths / 64);
  while (top && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  return [whole || "", top ? `${top}/${bottom}` : ""].filter(Boolean).join("-");
};

export const inchDrills = table<Drill>({
  source: "ASME B94.11M number, letter and fractional sizes; from memory",
  checked: "monotonic and against the fractional series in tables.test.ts",
  rows: [
    ...numbers.map((t, i) => ({ name: `No. ${i + 1}`, diameter: (t / 10000) * INCH })),
    ...letters.map((t, i) => ({ name: String.fromCharCode(65 + i), diameter: (t / 1000) * INCH })),
    ...Array.from({ length: 96 }, (_, i) => ({ name: fraction(i + 1), diameter: ((i + 1) / 64) * INCH })),
  ].sort((a, b) => a.diameter - b.diameter),
});

export const metricDrills = table<Drill>({
  source: "usual metric steps: 0.05 to 3 mm, 0.1 to 14 mm, 0.25 to 20 mm, 0.5 to 32 mm; common practice, no source",
  checked: "monotonic in tables.test.ts",
  rows: [
    ...Array.from({ length: 41 }, (_, i) => 1 + i * 0.05),
    ...Array.from({ length: 110 }, (_, i) => 3.1 + i * 0.1),
    ...Array.from({ length: 24 }, (_, i) => 14.25 + i * 0.25),
    ...Array.from({ length: 24 }, (_, i) => 20.5 + i * 0.5),
  ].map((d) => ({ name: `${Number(d.toFixed(2))} mm`, diameter: Number(d.toFixed(2)) })),
});

/** Sizes this near are the same, mm. */
const SAME_DRILL = 0.0006;

/**
 * The drill of a size, or null: the nearest one within what the size leaves open.
 * @param within half of the last decimal a size is given to, mm: `.406` is 13/32, which is .40625
 */
export function drillNamed(diameter: number, drills: readonly Drill[], within = 0): Drill | null {
  const off = (d: Drill) => Math.abs(d.diameter - diameter);
  const nearest = drills.reduce<Drill | null>((best, d) => (!best || off(d) < off(best) - 1e-9 ? d : best), null);
  return nearest && off(nearest) < Math.max(SAME_DRILL, within + 1e-9) ? nearest : null;
}

/** The largest drill not over a size, or null. */
export const drillUnder = (diameter: number, drills: readonly Drill[]): Drill | null =>
  [...drills].reverse().find((d) => d.diameter <= diameter + 1e-9) ?? null;

/** The smallest drill not under a size, or null. */
export const drillOver = (diameter: number, drills: readonly Drill[]): Drill | null =>
  drills.find((d) => d.diameter >= diameter - 1e-9) ?? null;
