import { INCH } from "../number";
import { figureIn, sheet, table, type SheetRow } from "./table";
import { findThread, numberSize } from "./threads";

/** How much room a screw has in its hole. */
export type ClearanceClass = "fine" | "medium" | "coarse" | "close" | "normal" | "loose";

const metric = sheet(
  ["fine", "medium", "coarse"],
  1,
  `M1 1.1 1.2 1.3
  M1.2 1.3 1.4 1.5
  M1.4 1.5 1.6 1.8
  M1.6 1.7 1.8 2
  M1.8 2 2.1 2.2
  M2 2.2 2.4 2.6
  M2.5 2.7 2.9 3.1
  M3 3.2 3.4 3.6
  M3.5 3.7 3.9 4.2
  M4 4.3 4.5 4.8
  M4.5 4.8 5 5.3
  M5 5.3 5.5 5.8
  M6 6.4 6.6 7
  M7 7.4 7.6 8
  M8 8.4 9 10
  M10 10.5 11 12
  M12 13 13.5 14.5
  M14 15 15.5 16.5
  M16 17 17.5 18.5
  M18 19 20 21
  M20 21 22 24
  M22 23 24 26
  M24 25 26 28
  M27 28 30 32
  M30 31 33 35
  M33 34 36 38
  M36 37 39 42
  M39 40 42 45
  M42 43 45 48
  M45 46 48 52
  M48 50 52 56
  M52 54 56 62
  M56 58 62 66
  M60 62 66 70
  M64 66 70 74`,
);
const inch = sheet(
  ["close", "normal", "loose"],
  INCH,
  `#0 .067 .076 .094
  #1 .081 .089 .104
  #2 .094 .102 .116
  #3 .106 .116 .128
  #4 .120 .128 .144
  #5 .141 .156 .172
  #6 .154 .170 .185
  #8 .180 .196 .213
  #10 .206 .221 .238
  1/4 .266 .281 .297
  5/16 .328 .344 .359
  3/8 .391 .406 .422
  7/16 .453 .469 .484
  1/2 .531 .562 .609
  5/8 .656 .688 .734
  3/4 .781 .812 .906
  7/8 .906 .938 1.031
  1 1.031 1.094 1.156
  1-1/8 1.156 1.219 1.312
  1-1/4 1.281 1.344 1.438
  1-3/8 1.438 1.500 1.609
  1-1/2 1.562 1.625 1.734`,
);

export const metricClearance = table<SheetRow<"fine" | "medium" | "coarse">>({
  source: "ISO 273:1979; from memory",
  checked: "rising, and each over its screw, in book.test.ts",
  rows: metric,
});
export const inchClearance = table<SheetRow<"close" | "normal" | "loose">>({
  source: "ASME B18.2.8; from memory",
  checked: "each a drill's size to the thousandth, in book.test.ts",
  rows: inch,
});

/** Classes by their words: `CLOSE` is the fine one of a metric screw, `FREE` the widest. */
const classes: Record<string, { metric: "fine" | "medium" | "coarse"; inch: "close" | "normal" | "loose" }> = {
  CLOSE: { metric: "fine", inch: "close" },
  FINE: { metric: "fine", inch: "close" },
  H12: { metric: "fine", inch: "close" },
  "": { metric: "medium", inch: "normal" },
  MEDIUM: { metric: "medium", inch: "normal" },
  NORMAL: { metric: "medium", inch: "normal" },
  STANDARD: { metric: "medium", inch: "normal" },
  H13: { metric: "medium", inch: "normal" },
  COARSE: { metric: "coarse", inch: "loose" },
  LOOSE: { metric: "coarse", inch: "loose" },
  FREE: { metric: "coarse", inch: "loose" },
  H14: { metric: "coarse", inch: "loose" },
};
export const clearanceWords: readonly string[] = Object.keys(classes).filter(Boolean);

/** A hole a screw goes through: its diameter, mm, and its class by the table. */
export interface ClearanceHole {
  screw: string;
  diameter: number;
  class: ClearanceClass;
  standard: string;
  /** The other classes of the same screw, mm. */
  all: Record<string, number>;
}

/**
 * The hole a screw goes through.
 * @param screw `M6`, `1/4-20`, `#10`, `1/4`   @param word the class as it is said: `CLOSE`, `MEDIUM`, none
 */
export function clearanceHole(screw: string, word = ""): ClearanceHole | null {
  const size = screwSize(screw);
  const kind = classes[word.toUpperCase()];
  if (size === null || !kind) return null;
  const isMetric = size.startsWith("M");
  const row = (isMetric ? metric : inch).find((r) => r.name === size);
  if (!row) return null;
  const { name, ...all } = row;
  const of = isMetric ? kind.metric : kind.inch;
  return {
    screw: name,
    diameter: (all as Record<string, number>)[of],
    class: of,
    standard: isMetric ? "ISO 273" : "ASME B18.2.8",
    all: all as Record<string, number>,
  };
}

/** The name a screw's size has in tables of screws: `1/4-20 UNC-2A` is 1/4, `10-32` is #10; null for no screw. */
export function screwSize(screw: string): string | null {
  const text = screw.trim().replace(/^NO\.? ?(?=\d)/i, "#");
  if (/^#\d{1,2}$/.test(text)) return text;
  const t = findThread(text);
  if (t?.form === "metric") return `M${t.major}`;
  if (t?.form === "unified") return inch.find((r) => Math.abs(majorOf(r.name) - t.major) < 1e-6)?.name ?? null;
  // `1/4`, `10`, `M4.5`: by its size alone.
  return [...metric, ...inch].find((r) => r.name === text.toUpperCase() || r.name === `#${text}`)?.name ?? null;
}
/** Nominal diameter of a size of inch screws, mm. */
export const majorOf = (name: string): number =>
  (name.startsWith("#") ? numberSize(Number(name.slice(1))) : figureIn(name)) * INCH;
