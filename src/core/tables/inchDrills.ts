import { INCH } from "../number";
import type { Drill } from "./metricDrills";
import { table } from "./table";

// Number drills 1 to 80, in hundred thousandths of an inch.
const numbers = `22800 22100 21300 20900 20550 20400 20100 19900 19600 19350 19100 18900 18500 18200 18000 17700 17300
  16950 16600 16100 15900 15700 15400 15200 14950 14700 14400 14050 13600 12850 12000 11600 11300 11100 11000 10650 10400
  10150 9950 9800 9600 9350 8900 8600 8200 8100 7850 7600 7300 7000 6700 6350 5950 5500 5200 4650 4300 4200 4100 4000
  3900 3800 3700 3600 3500 3300 3200 3100 2920 2800 2600 2500 2400 2250 2100 2000 1800 1600 1450 1350`
  .split(/\s+/)
  .map(Number);
const letters = [
  234, 238, 242, 246, 250, 257, 261, 266, 272, 277, 281, 290, 295, 302, 316, 323, 332, 339, 348, 358, 368, 377, 386,
  397, 404, 413,
];
/** Fractions go up to so many inches. */
const LARGEST = 3;

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
  source: "ASME B94.11M number and letter sizes, fractions by 64ths to 3 inch; from memory",
  checked: "monotonic, and the numbers and letters against Debian's units 2.22 (GPL-3), in tables.test.ts",
  rows: [
    ...numbers.map((t, i) => ({ name: `No. ${i + 1}`, diameter: (t / 100_000) * INCH })),
    ...letters.map((t, i) => ({ name: String.fromCharCode(65 + i), diameter: (t / 1000) * INCH })),
    ...Array.from({ length: LARGEST * 64 }, (_, i) => ({ name: fraction(i + 1), diameter: ((i + 1) / 64) * INCH })),
  ].sort((a, b) => a.diameter - b.diameter),
});
