import { INCH } from "../../number";
import { metricDrills } from "../metricDrills";
import { roundTo } from "../rounding";
import { sheet, table } from "../table";

/** A parallel pipe thread of ISO 228-1, and the gauge length of the taper thread of the same size, ISO 7-1. Lengths mm. */
interface PipeSize {
  name: string;
  threads: number;
  major: number;
  pitch: number;
  tapDrill: number;
  /** Tolerances: minor diameter of the inside thread, major of the outside thread, pitch diameter of class A. */
  minorTolerance: number;
  majorTolerance: number;
  pitchTolerance: number;
  /** Gauge length and useful length of the taper outside thread; null where ISO 7-1 has no such size. */
  gauge: number | null;
  useful: number | null;
}

const lines = sheet(
  ["threads", "major", "tapDrill", "minorTolerance", "majorTolerance", "pitchTolerance", "gauge", "useful"],
  1,
  `1/16 28 7.723 6.8 .282 .214 .107 4 6.5
  1/8 28 9.728 8.8 .282 .214 .107 4 6.5
  1/4 19 13.157 11.8 .445 .25 .125 6 9.7
  3/8 19 16.662 15.25 .445 .25 .125 6.4 10.1
  1/2 14 20.955 19 .541 .284 .142 8.2 13.2
  5/8 14 22.911 21 .541 .284 .142 - -
  3/4 14 26.441 24.5 .541 .284 .142 9.5 14.5
  7/8 14 30.201 28.25 .541 .284 .142 - -
  1 11 33.249 30.75 .64 .36 .18 10.4 16.8
  1-1/8 11 37.897 35.5 .64 .36 .18 - -
  1-1/4 11 41.91 39.5 .64 .36 .18 12.7 19.1
  1-1/2 11 47.803 45.25 .64 .36 .18 12.7 19.1
  1-3/4 11 53.746 51.3 .64 .36 .18 - -
  2 11 59.614 57.2 .64 .36 .18 15.9 23.4
  2-1/4 11 65.71 63.3 .64 .434 .217 - -
  2-1/2 11 75.184 72.8 .64 .434 .217 17.5 26.7
  2-3/4 11 81.534 79.1 .64 .434 .217 - -
  3 11 87.884 85.5 .64 .434 .217 20.6 29.8
  3-1/2 11 100.33 97.9 .64 .434 .217 - -
  4 11 113.03 110.6 .64 .434 .217 25.4 35.8
  5 11 138.43 136 .64 .434 .217 28.6 40.1
  6 11 163.83 161.4 .64 .434 .217 28.6 40.1`,
);

export const parallelPipe = table<PipeSize>({
  source: "ISO 228-1 and ISO 7-1 sizes and tolerances; usual tap drills, common practice; from memory",
  checked: "every drill within the minor diameter's limits, in threads.test.ts",
  rows: lines.map((r) => ({
    name: r.name,
    threads: r.threads!,
    major: r.major!,
    pitch: roundTo(INCH / r.threads!, 3),
    tapDrill: r.tapDrill!,
    minorTolerance: r.minorTolerance!,
    majorTolerance: r.majorTolerance!,
    pitchTolerance: r.pitchTolerance!,
    gauge: r.gauge,
    useful: r.useful,
  })),
});

/** Height of the thread, mm: 0.640327 P, to the thousandth. */
const height = (pitch: number): number => roundTo(0.640327 * pitch, 3);

/** Basic pitch and minor diameter of a pipe thread, mm; of a taper one at its gauge plane. */
export const pipeDiameters = (size: { major: number; pitch: number }): { pitch: number; minor: number } => ({
  pitch: roundTo(size.major - height(size.pitch), 3),
  minor: roundTo(size.major - 2 * height(size.pitch), 3),
});

export const pipeDrillName = (diameter: number): string =>
  metricDrills.rows.find((d) => Math.abs(d.diameter - diameter) < 1e-6)?.name ?? `bored to ${diameter} mm`;
