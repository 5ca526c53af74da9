import { INCH } from "../../number";
import { figureIn, table } from "../table";

/** A thread that moves things: its size, and how much room it has at its crests. Lengths mm. */
interface PowerThread {
  name: string;
  form: "Tr" | "Acme";
  major: number;
  pitch: number;
  clearance: number;
}

/** Clearance at the crests of a metric trapezoidal thread, ISO 2904, mm. */
const crestClearance = (pitch: number): number => (pitch < 2 ? 0.15 : pitch <= 5 ? 0.25 : pitch <= 12 ? 0.5 : 1);

export const trapezoidal = table<PowerThread>({
  source: "ISO 2904 preferred sizes and pitches, ISO 2901 profile; from memory",
  checked: "diameters of Tr 40 x 7 and Tr 20 x 4 as handbooks print them, in threads.test.ts",
  rows: `8x1.5 9x2 10x2 11x2 12x3 14x3 16x4 18x4 20x4 22x5 24x5 26x5 28x5 30x6 32x6 34x6 36x6 38x7 40x7 42x7 44x7 46x8
    48x8 50x8 52x8 55x9 60x9 65x10 70x10 75x10 80x10 85x12 90x12 95x12 100x12`
    .split(/\s+/)
    .map((size) => {
      const [major, pitch] = size.split("x").map(Number);
      return { name: `${major}X${pitch}`, form: "Tr", major, pitch, clearance: crestClearance(pitch) };
    }),
});

export const acme = table<PowerThread>({
  source: "ASME B1.5 sizes, general purpose; from memory",
  checked: "diameters of 1-5 as handbooks print them, in threads.test.ts",
  rows: `1/4-16 5/16-14 3/8-12 7/16-12 1/2-10 5/8-8 3/4-6 7/8-6 1-5 1-1/8-5 1-1/4-5 1-3/8-4 1-1/2-4 1-3/4-4 2-4 2-1/4-3
    2-1/2-3 2-3/4-3 3-2 3-1/2-2 4-2 4-1/2-2 5-2`
    .split(/\s+/)
    .map((size) => {
      const [, major, threads] = /^(.+)-(\d+)$/.exec(size)!;
      const n = Number(threads);
      const clearance = (n <= 10 ? 0.01 : 0.005) * INCH;
      return { name: size, form: "Acme", major: figureIn(major) * INCH, pitch: INCH / n, clearance };
    }),
});

/** Basic diameters, mm: inside thread's major (d + 2a), pitch (d - P/2), inside minor (d - P), outside root (d - P - 2a). */
export const powerDiameters = ({ major, pitch, clearance }: PowerThread) => ({
  insideMajor: major + 2 * clearance,
  pitchDiameter: major - pitch / 2,
  insideMinor: major - pitch,
  outsideRoot: major - pitch - 2 * clearance,
});
