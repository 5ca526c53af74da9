import { INCH } from "../../number";
import { metricDrills } from "../metricDrills";
import { figureIn, table } from "../table";
import { inchTapDrill } from "./tapDrills";

/** A thread of a standard series. Lengths in mm. */
export interface ThreadSize {
  name: string;
  series: "UNC" | "UNF" | "UNEF" | "UN" | "UNS" | "M" | "NPT" | "G" | "R" | "Tr" | "Acme";
  major: number;
  pitch: number;
  tapDrill: number;
  drillName: string;
}

/** Major diameter of an inch thread's size, inches: number sizes are .060 + .013 n (ASME B1.1). */
export const numberSize = (n: number): number => (60 + 13 * n) / 1000;

type Series = "UNC" | "UNF" | "UNEF" | "UN" | "UNS";
/** Sizes of a series as the standard lists them: `4-40 No.43` is the size, its threads to the inch, and its usual drill. */
function inch(series: Series, text: string): ThreadSize[] {
  return text
    .trim()
    .split(/\s+/)
    .map((entry) => {
      const [, size, threads, , drill] = /^#?(.+)-([\d.]+)(=(.+))?$/.exec(entry)!;
      const major = (entry.startsWith("#") ? numberSize(Number(size)) : figureIn(size)) * INCH;
      const pitch = INCH / Number(threads);
      const chosen = inchTapDrill(major, pitch, drill?.replace("No.", "No. "));
      return { name: `${size}-${threads}`, series, major, pitch, tapDrill: chosen.diameter, drillName: chosen.name };
    });
}

/** Sizes of a series of one pitch: by sixteenths of an inch up to 2, by eighths over it. */
function constantPitch(threads: number, from: number, upTo: number): string {
  const names: string[] = [];
  for (let k = Math.round(from * 16); k <= upTo * 16; k += k < 32 ? 1 : 2) names.push(`${sixteenths(k)}-${threads}`);
  return names.join(" ");
}
function sixteenths(k: number): string {
  let [top, bottom] = [k % 16, 16];
  while (top && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  return [Math.floor(k / 16) || "", top ? `${top}/${bottom}` : ""].filter(Boolean).join("-");
}

const graded = [
  ...inch(
    "UNC",
    `#1-64=No.53 #2-56=No.50 #3-48=No.47 #4-40=No.43 #5-40=No.38 #6-32=No.36 #8-32=No.29 #10-24=No.25 #12-24=No.16
    1/4-20=No.7 5/16-18=F 3/8-16=5/16 7/16-14=U 1/2-13=27/64 9/16-12=31/64 5/8-11=17/32 3/4-10=21/32 7/8-9=49/64
    1-8=7/8 1-1/8-7=63/64 1-1/4-7=1-7/64 1-3/8-6=1-7/32 1-1/2-6=1-11/32 1-3/4-5 2-4.5 2-1/4-4.5 2-1/2-4 2-3/4-4 3-4
    3-1/4-4 3-1/2-4 3-3/4-4 4-4`,
  ),
  ...inch(
    "UNF",
    `#0-80=3/64 #1-72=No.53 #2-64=No.50 #3-56=No.45 #4-48=No.42 #5-44=No.37 #6-40=No.33 #8-36=No.29 #10-32=No.21
    #12-28=No.14 1/4-28=No.3 5/16-24=I 3/8-24=Q 7/16-20=25/64 1/2-20=29/64 9/16-18=33/64 5/8-18=37/64 3/4-16=11/16
    7/8-14=13/16 1-12=59/64 1-1/8-12=1-3/64 1-1/4-12=1-11/64 1-3/8-12=1-19/64 1-1/2-12=1-27/64`,
  ),
  ...inch(
    "UNEF",
    `#12-32=No.13 1/4-32=7/32 5/16-32=9/32 3/8-32=11/32 7/16-28=Y 1/2-28=15/32 9/16-24 5/8-24 11/16-24
    3/4-20=45/64 13/16-20 7/8-20=53/64 15/16-20 1-20=61/64 1-1/16-18 1-1/8-18 1-3/16-18 1-1/4-18 1-5/16-18 1-3/8-18
    1-7/16-18 1-1/2-18 1-9/16-18 1-5/8-18 1-11/16-18`,
  ),
  ...inch("UNS", "1-14=15/16"),
];
/** One pitch for all sizes: 4, 6, 8, 12, 16, 20, 28 and 32 threads to the inch. */
const constant = inch(
  "UN",
  [
    constantPitch(4, 2.5, 4),
    constantPitch(6, 1.375, 4),
    constantPitch(8, 1, 4),
    constantPitch(12, 0.5625, 4),
    constantPitch(16, 0.375, 4),
    constantPitch(20, 0.25, 3),
    constantPitch(28, 0.25, 1.5),
    "#6-32 #8-32 #10-32 #12-32",
    constantPitch(32, 0.25, 1),
  ].join(" "),
);

export const inchThreads = table<ThreadSize>({
  source:
    "ASME B1.1 sizes and pitches, from memory; usual tap drills from memory, those of sizes that charts leave out by formula: about 75 % of thread within the limits of class 2B",
  checked: "per cent of thread of every drill, and that it is a drill, in threads.test.ts",
  // A size that a graded series has is that one.
  rows: [...graded, ...constant.filter((t) => !graded.some((g) => g.name === t.name))],
});

/** Taper pipe threads, 1 in 16 on the diameter: the size is the pipe's, `major` the pipe's outside diameter. */
export const pipeThreads = table<ThreadSize>({
  source: "ASME B1.20.1 outside diameters and pitches; drills for a tap without a taper reamer; from memory",
  checked: "drills between outside diameter less two thread heights and less one, in threads.test.ts",
  rows: (
    [
      ["1/16", 0.3125, 27, 0.242, "C"],
      ["1/8", 0.405, 27, 0.332, "Q"],
      ["1/4", 0.54, 18, 7 / 16, "7/16"],
      ["3/8", 0.675, 18, 9 / 16, "9/16"],
      ["1/2", 0.84, 14, 45 / 64, "45/64"],
      ["3/4", 1.05, 14, 29 / 32, "29/32"],
      ["1", 1.315, 11.5, 1 + 9 / 64, "1-9/64"],
      ["1-1/4", 1.66, 11.5, 1 + 31 / 64, "1-31/64"],
      ["1-1/2", 1.9, 11.5, 1 + 47 / 64, "1-47/64"],
      ["2", 2.375, 11.5, 2 + 13 / 64, "2-13/64"],
    ] as const
  ).map(([size, major, threads, drill, drillName]) => ({
    name: `${size}-${threads}`,
    series: "NPT",
    major: major * INCH,
    pitch: INCH / threads,
    tapDrill: drill * INCH,
    drillName,
  })),
});

/** The drill for a metric thread: major less pitch, to the tenth the drill is sold in (ISO 2306). */
const metricDrill = (major: number, pitch: number): number => {
  const usual = unusualDrills[`${major}x${pitch}`];
  const exact = major - pitch + (pitch === 0.75 ? -0.05 : pitch === 1.25 || pitch === 1.75 ? 0.05 : 0);
  return usual ?? Number(exact.toFixed(2));
};
/** Where ISO 2306 prints another drill than major less pitch. */
const unusualDrills: Record<string, number> = {
  "1.8x0.35": 1.45,
  "2.5x0.45": 2.05,
  "2.2x0.45": 1.75,
  "4.5x0.75": 3.7,
  "12x1.75": 10.2,
};
const metric = (major: number, pitch: number, name: string): ThreadSize => {
  const tapDrill = metricDrill(major, pitch);
  const sold = metricDrills.rows.find((d) => Math.abs(d.diameter - tapDrill) < 1e-6);
  return { name, series: "M", major, pitch, tapDrill, drillName: sold?.name ?? `${tapDrill} mm` };
};
const metricSource = "ISO 261 and ISO 724 sizes and pitches; tap drills of ISO 2306: major less pitch; from memory";

const coarse = `1 .25 1.1 .25 1.2 .25 1.4 .3 1.6 .35 1.8 .35 2 .4 2.2 .45 2.5 .45 3 .5 3.5 .6 4 .7 4.5 .75 5 .8 6 1 7 1
  8 1.25 9 1.25 10 1.5 11 1.5 12 1.75 14 2 16 2 18 2.5 20 2.5 22 2.5 24 3 27 3 30 3.5 33 3.5 36 4 39 4 42 4.5 45 4.5
  48 5 52 5 56 5.5 60 5.5 64 6`
  .split(/\s+/)
  .map(Number);
export const metricCoarse = table<ThreadSize>({
  source: metricSource,
  checked: "every drill within the limits of class 6H or 5H, in threads.test.ts",
  rows: coarse.flatMap((major, i) => (i % 2 ? [] : [metric(major, coarse[i + 1], `M${major}`)])),
});

const fine = `1:.2 1.1:.2 1.2:.2 1.4:.2 1.6:.2 1.8:.2 2:.25 2.2:.25 2.5:.35 3:.35 3.5:.35 4:.5 4.5:.5 5:.5 5.5:.5 6:.75
  7:.75 8:.75,1 9:.75,1 10:.75,1,1.25 11:.75,1 12:1,1.25,1.5 14:1,1.25,1.5 15:1,1.5 16:1,1.5 17:1,1.5 18:1,1.5,2
  20:1,1.5,2 22:1,1.5,2 24:1,1.5,2 25:1,1.5,2 26:1.5 27:1,1.5,2 28:1,1.5,2 30:1,1.5,2,3 32:1.5,2 33:1.5,2,3 35:1.5
  36:1.5,2,3 38:1.5 39:1.5,2,3 40:1.5,2,3 42:1.5,2,3,4 45:1.5,2,3,4 48:1.5,2,3,4 50:1.5,2,3 52:1.5,2,3,4 55:1.5,2,3,4
  56:1.5,2,3,4 58:1.5,2,3,4 60:1.5,2,3,4 62:1.5,2,3,4 64:1.5,2,3,4`;
export const metricFine = table<ThreadSize>({
  source: metricSource,
  checked: "every drill within the limits of class 6H or 5H, in threads.test.ts",
  rows: fine.split(/\s+/).flatMap((entry) => {
    const [major, pitches] = entry.split(":");
    return pitches.split(",").map((p) => metric(Number(major), Number(p), `M${major}X${Number(p)}`));
  }),
});
