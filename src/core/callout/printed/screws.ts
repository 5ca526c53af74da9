import type { LengthUnit } from "../../number";
import { clearanceHole, clearanceWords, lookUp, screwSize } from "../../tables";
import { screws } from "./holeTerms";
import { cited } from "./cited";
import type { Words } from "./words";

/** A screw that a hole is for: its size as tables call it, and the word for its kind where one is said. */
export interface Screw {
  size: string;
  kind: string | null;
}
const holeWords = ["HOLE", "HOLES"] as const;
export const clearanceSaid = ["CLEARANCE", "CLR", "CLEAR", "CLRNC"] as const;

/** Words that say what screw or insert something is for: left out, the line would be of something else. */
const weighty = new Set<string>([
  ...screws,
  ...clearanceSaid,
  ...clearanceWords,
  ...["BSW", "BSF", "BSP", "BSPT", "BA", "STI", "INSERT", "EG", "LH", "RH", "LEFT", "FIT", "NPT", "NPTF"],
  ...["NO", "NUMBER", "LETTER", "LTR", "TAPER", "ACME", "SELF", "TAPPING", "WOOD"],
]);
/** Coiled inserts go by many names that end alike. */
export const isWeighty = (word: string): boolean => weighty.has(word) || word.endsWith("COIL");
const pins: readonly string[] = ["DOWEL", "DOWELS", "PIN", "PINS"];

/** A screw at the reading point: `M6`, `1/4-20`, `#10`, `1/4 SHCS`; null where none stands there. */
export function screwAt(w: Words): Screw | null {
  const said = w.thread() ?? w.number();
  const size = said === null ? null : screwSize(said);
  if (size === null) return null;
  let kind: string | null = null;
  for (let word = w.takeOne(screws); word !== null; word = w.takeOne(screws)) kind = kind ?? word;
  // A pin is no screw: what it wants is a fit.
  return kind !== null && pins.includes(kind) ? null : { size, kind };
}

/**
 * A hole that a screw goes through, `M6 CLEARANCE`, `M6 CLOSE FIT`, `CLEARANCE HOLE FOR 1/4-20`: its diameter by the
 * table, with where it is from; null where no such phrase stands.
 */
export function clearanceAt(w: Words, unit: LengthUnit): string | null {
  const from = w.mark();
  const isFirst = w.takeOne(clearanceSaid) !== null;
  let word = isFirst ? w.takeOne(clearanceWords) : null;
  if (isFirst) w.takeOne(holeWords);
  w.take("FOR");
  const screw = screwAt(w);
  word ??= screw && w.takeOne(clearanceWords);
  const isSaid = screw !== null && (isFirst || w.takeOne(clearanceSaid) !== null || (word !== null && w.take("FIT")));
  if (!isSaid) {
    w.back(from);
    return null;
  }
  w.take("FIT");
  w.takeOne(holeWords);
  word ??= w.takeOne(clearanceWords);
  w.take("FIT");
  const hole = throughHole(screw, unit, word ?? "");
  if (hole === null) w.back(from);
  return hole;
}

/** `CLEARANCE`, `CLOSE FIT` after the screw and what else is said of it; null where neither stands. */
export function lateClearanceAt(w: Words, thread: string): string | null {
  const from = w.mark();
  const word = w.takeOne(clearanceWords);
  const isSaid = w.takeOne(clearanceSaid) !== null || (word !== null && w.take("FIT"));
  const size = isSaid ? screwSize(thread) : null;
  const hole = size === null ? null : throughHole({ size, kind: null }, w.unit, word ?? "");
  if (hole === null) w.back(from);
  else w.takeOne(holeWords);
  return hole;
}

/** The hole a screw goes through, as a card writes it. */
export function throughHole({ size }: Screw, unit: LengthUnit, word = ""): string | null {
  const hole = clearanceHole(size, word);
  const of = hole && `${hole.screw} clearance ${hole.class}, ${hole.standard}`;
  return hole && of && cited(hole.diameter, unit, size.startsWith("M"), of);
}

/** What a screw's head wants, as a card writes it: its counterbore or countersink, and the hole under it. */
export interface Seat {
  hole: string;
  cbore?: { diameter: string; depth: string };
  csk?: { diameter: string; angle: string };
}

/**
 * The seat of a screw's head by the tables of screws.
 * @param mouth what is cut; a countersink is that of a flat head, a counterbore that of a socket head
 */
export function seatOf({ size, kind }: Screw, mouth: "cbore" | "csk", unit: LengthUnit): Seat | null {
  const head = mouth === "cbore" ? "SHCS" : kind === "FHMS" || kind === "MACHINE" ? "FHMS" : "FHCS";
  const entry = lookUp(`${head} ${size}`) ?? (mouth === "csk" ? lookUp(`FHCS ${size}`) : null);
  const through = throughHole({ size, kind }, unit);
  if (!entry || through === null) return null;
  const isMetric = size.startsWith("M");
  const of = (mm: number, what: string) => cited(mm, unit, isMetric, `${what} of ${entry.what}`);
  const { counterbore, counterboreDepth, countersink, headTheoretical } = entry.values;
  if (mouth === "cbore")
    return counterbore === undefined
      ? null
      : {
          hole: through,
          cbore: { diameter: of(counterbore, "counterbore"), depth: of(counterboreDepth, "counterbore") },
        };
  const wide = countersink ?? headTheoretical;
  const angle = entry.angles?.countersinkAngle;
  return wide === undefined || angle === undefined
    ? null
    : { hole: through, csk: { diameter: of(wide, "countersink"), angle: String(angle) } };
}
