import { preferredNumber } from "../rounding";
import { table } from "../table";

/** What ISO 965-1 prints by the pitch alone, micrometres; null where it prints none. */
interface ByPitch {
  pitch: number;
  /** Deviations of the positions e, f and g (G above, the same below); h and H have none. */
  e: number | null;
  f: number | null;
  g: number;
  /** Grade 6 of the outside thread's major diameter and of the inside thread's minor diameter. */
  major6: number;
  minor6: number;
}
const pitches: [number, number | null, number | null, number, number, number][] = [
  [0.2, null, null, 17, 56, 60],
  [0.25, null, null, 18, 67, 71],
  [0.3, null, null, 18, 75, 85],
  [0.35, null, 34, 19, 85, 100],
  [0.4, null, 34, 19, 95, 112],
  [0.45, null, 35, 20, 100, 125],
  [0.5, 50, 36, 20, 106, 140],
  [0.6, 53, 36, 21, 125, 160],
  [0.7, 56, 38, 22, 140, 180],
  [0.75, 56, 38, 22, 140, 190],
  [0.8, 60, 38, 24, 150, 200],
  [1, 60, 40, 26, 180, 236],
  [1.25, 63, 42, 28, 212, 265],
  [1.5, 67, 45, 32, 236, 300],
  [1.75, 71, 48, 34, 265, 335],
  [2, 71, 52, 38, 280, 375],
  [2.5, 80, 58, 42, 335, 450],
  [3, 85, 63, 48, 375, 500],
  [3.5, 90, 70, 53, 425, 560],
  [4, 95, 75, 60, 475, 600],
  [4.5, 100, 80, 63, 500, 670],
  [5, 106, 85, 71, 530, 710],
  [5.5, 112, 90, 75, 560, 750],
  [6, 118, 95, 80, 600, 800],
  [8, 140, 118, 100, 710, 1000],
];
export const byPitch = table<ByPitch>({
  source: "ISO 965-1:2013, tables 1 to 3; from memory",
  checked: "each against the standard's formula, at most one step of R 40 away, in threadLimits.test.ts",
  rows: pitches.map(([pitch, e, f, g, major6, minor6]) => ({ pitch, e, f, g, major6, minor6 })),
});

/** Grade 6 of the pitch diameter by range of nominal diameter and pitch, micrometres: outside, inside. */
interface PitchTolerances {
  over: number;
  upTo: number;
  grade6: readonly [pitch: number, outside: number, inside: number][];
}
export const pitchTolerances = table<PitchTolerances>({
  source: "ISO 965-1:2013, tables 4 and 5; from memory",
  checked: "each against 90 P^0.4 d^0.1 and 1.32 of it, at most one step of R 40 away, in threadLimits.test.ts",
  rows: [
    {
      over: 0.99,
      upTo: 1.4,
      grade6: [
        [0.2, 48, 63],
        [0.25, 53, 71],
        [0.3, 56, 75],
      ],
    },
    {
      over: 1.4,
      upTo: 2.8,
      grade6: [
        [0.2, 50, 67],
        [0.25, 56, 75],
        [0.35, 63, 85],
        [0.4, 67, 90],
        [0.45, 71, 95],
      ],
    },
    {
      over: 2.8,
      upTo: 5.6,
      grade6: [
        [0.35, 67, 90],
        [0.5, 75, 100],
        [0.6, 85, 112],
        [0.7, 90, 118],
        [0.75, 90, 118],
        [0.8, 95, 125],
      ],
    },
    {
      over: 5.6,
      upTo: 11.2,
      grade6: [
        [0.75, 100, 132],
        [1, 112, 150],
        [1.25, 118, 160],
        [1.5, 132, 180],
      ],
    },
    {
      over: 11.2,
      upTo: 22.4,
      grade6: [
        [1, 118, 160],
        [1.25, 132, 180],
        [1.5, 140, 190],
        [1.75, 150, 200],
        [2, 160, 212],
        [2.5, 170, 224],
      ],
    },
    {
      over: 22.4,
      upTo: 45,
      grade6: [
        [1, 125, 170],
        [1.5, 150, 200],
        [2, 170, 224],
        [3, 200, 265],
        [3.5, 212, 280],
        [4, 224, 300],
        [4.5, 236, 315],
      ],
    },
    {
      over: 45,
      upTo: 90,
      grade6: [
        [1.5, 160, 212],
        [2, 180, 236],
        [3, 212, 280],
        [4, 236, 315],
        [5, 250, 335],
        [5.5, 265, 355],
        [6, 280, 375],
      ],
    },
    {
      over: 90,
      upTo: 180,
      grade6: [
        [2, 190, 250],
        [3, 224, 300],
        [4, 250, 335],
        [6, 300, 400],
        [8, 335, 450],
      ],
    },
    {
      over: 180,
      upTo: 355,
      grade6: [
        [3, 250, 335],
        [4, 280, 375],
        [6, 315, 425],
        [8, 355, 475],
      ],
    },
  ],
});

/** Grades are four steps of R 40 apart: ISO 965-1 gives them as .5, .63, .8, 1, 1.25, 1.6 and 2 of grade 6. */
const STEPS_A_GRADE = 4;
/** What a range of diameters leaves out: pitches that nobody makes there go by the formula. */
const formulas = {
  e: (p: number) => 50 + 11 * p,
  f: (p: number) => 30 + 11 * p,
  g: (p: number) => 15 + 11 * p,
  major6: (p: number) => 180 * p ** (2 / 3) - 3.15 / Math.sqrt(p),
  minor6: (p: number) => (p <= 0.8 ? 433 * p - 190 * p ** 1.22 : 230 * p ** 0.7),
};

/** What ISO 965-1 computes where it prints nothing, and what its printed figures are checked by, micrometres. */
export const byFormula = (what: keyof typeof formulas, pitch: number): number => formulas[what](pitch);
/** Grade 6 of an outside thread's pitch diameter by the formula, micrometres. @param diameter the range's mean, mm */
export const pitchByFormula = (pitch: number, diameter: number): number => 90 * pitch ** 0.4 * diameter ** 0.1;

const stepsFrom6 = (grade: number): number => STEPS_A_GRADE * (grade - 6);

/** Deviation of the position e, f or g of a pitch, mm, without its sign. */
export const deviationOf = (position: "e" | "f" | "g", pitch: number): number =>
  preferredNumber(rowOf(pitch)?.[position] ?? formulas[position](pitch)) / 1000;
/** Tolerance of a crest's diameter, mm: an outside thread's major, an inside thread's minor diameter. */
export const crestToleranceOf = (what: "major6" | "minor6", pitch: number, grade: number): number =>
  preferredNumber(rowOf(pitch)?.[what] ?? formulas[what](pitch), stepsFrom6(grade)) / 1000;
const rowOf = (pitch: number): ByPitch | undefined => byPitch.rows.find((r) => r.pitch === pitch);

/** Tolerance of the pitch diameter, mm. @param inside an inside thread's */
export function pitchToleranceOf(diameter: number, pitch: number, grade: number, inside: boolean): number {
  const range = pitchTolerances.rows.find((r) => diameter > r.over - 1e-9 && diameter <= r.upTo + 1e-9);
  const row = range?.grade6.find(([p]) => p === pitch);
  const mean = range ? Math.sqrt(range.over * range.upTo) : diameter;
  const um = row ? row[inside ? 2 : 1] : pitchByFormula(pitch, mean) * (inside ? 1.32 : 1);
  return preferredNumber(um, stepsFrom6(grade)) / 1000;
}
