import { table } from "./table";

/** A drill with a name: number, letter, fraction or metric size. Diameter in mm. */
export interface Drill {
  name: string;
  diameter: number;
}

/** From a size to another by a step, all in hundredths of a millimetre. */
const steps = (from: number, upTo: number, by: number): number[] =>
  Array.from({ length: Math.floor((upTo - from) / by) + 1 }, (_, i) => from + i * by);

export const metricDrills = table<Drill>({
  source:
    "ISO 235 and DIN 338 sizes, from memory: 0.3 to 3 mm by 0.05, to 50 mm by 0.1, quarters from 14 to 32 mm; not every size is on every shelf",
  checked: "monotonic in tables.test.ts",
  rows: [...new Set([...steps(30, 300, 5), ...steps(310, 5000, 10), ...steps(1425, 3200, 25)])]
    .sort((a, b) => a - b)
    .map((hundredths) => ({ name: `${hundredths / 100} mm`, diameter: hundredths / 100 })),
});
