import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { table } from "./table";

/** Fine, medium, coarse, very coarse. */
export const generalClasses = ["f", "m", "c", "v"] as const;
export type GeneralClassName = (typeof generalClasses)[number];

/**
 * Permissible deviations of ISO 2768-1, by the upper end of each range; null where the standard gives none. Lengths
 * mm, angles degrees.
 */
interface GeneralRow {
  upTo: number;
  f: number | null;
  m: number | null;
  c: number | null;
  v: number | null;
}

const generalLinear = table<GeneralRow>({
  source: "ISO 2768-1:1989, table 1; from memory",
  checked: "figures of the standard in fits.test.ts",
  rows: [
    { upTo: 3, f: 0.05, m: 0.1, c: 0.2, v: null },
    { upTo: 6, f: 0.05, m: 0.1, c: 0.3, v: 0.5 },
    { upTo: 30, f: 0.1, m: 0.2, c: 0.5, v: 1 },
    { upTo: 120, f: 0.15, m: 0.3, c: 0.8, v: 1.5 },
    { upTo: 400, f: 0.2, m: 0.5, c: 1.2, v: 2.5 },
    { upTo: 1000, f: 0.3, m: 0.8, c: 2, v: 4 },
    { upTo: 2000, f: 0.5, m: 1.2, c: 3, v: 6 },
    { upTo: 4000, f: null, m: 2, c: 4, v: 8 },
  ],
});

const generalBroken = table<GeneralRow>({
  source: "ISO 2768-1:1989, table 2 (external radii and chamfer heights); from memory",
  checked: "figures of the standard in fits.test.ts",
  rows: [
    { upTo: 3, f: 0.2, m: 0.2, c: 0.4, v: 0.4 },
    { upTo: 6, f: 0.5, m: 0.5, c: 1, v: 1 },
    { upTo: Infinity, f: 1, m: 1, c: 2, v: 2 },
  ],
});

const generalAngular = table<GeneralRow>({
  source: "ISO 2768-1:1989, table 3, by the shorter leg of the angle; from memory",
  checked: "figures of the standard in fits.test.ts",
  rows: [
    { upTo: 10, f: 1, m: 1, c: 1.5, v: 3 },
    { upTo: 50, f: 0.5, m: 0.5, c: 1, v: 2 },
    { upTo: 120, f: 20 / 60, m: 20 / 60, c: 0.5, v: 1 },
    { upTo: 400, f: 10 / 60, m: 10 / 60, c: 0.25, v: 0.5 },
    { upTo: Infinity, f: 5 / 60, m: 5 / 60, c: 10 / 60, v: 20 / 60 },
  ],
});

/**
 * General tolerance of ISO 2768-1.
 * @param kind what the dimension is   @param size mm; for an angle its shorter leg, mm, or null where it is not said
 * @returns half width, mm, or degrees for an angle
 */
export function generalTolerance(
  kind: "linear" | "broken" | "angular",
  size: number | null,
  cls: GeneralClassName,
): Result<number> {
  const rows = (kind === "linear" ? generalLinear : kind === "broken" ? generalBroken : generalAngular).rows;
  // An angle whose leg nobody has said is held to the longest legs' row: nothing passes that should not.
  const s = size === null ? Infinity : Math.abs(size);
  if (kind !== "angular" && s < 0.5) return fail(problems.belowGeneralTolerances());
  const value = rows.find((r) => s <= r.upTo)?.[cls];
  return value === undefined || value === null ? fail(problems.noGeneralTolerance(cls, s)) : ok(value);
}
