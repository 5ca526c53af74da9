import type { LengthUnit } from "../../number";
import { edgeText } from "./edges";
import { faceText } from "./faces";
import { holeText } from "./holes";
import { leaveText } from "./leave";
import { pocketText } from "./pockets";
import { isOutsideThread, shaftText } from "./shafts";
import { nearestWords } from "./spelling";
import { lookUp, nearestSizes } from "../../tables";
import { ringText } from "./rings";
import { isWeighty } from "./screws";
import { hasLimits, isHashedThread, plainSigns, tokensOf } from "./tokens";
import { isTelling, Words } from "./words";

/** What is known where a row is typed. */
export interface PrintedContext {
  /** No row stands before it: what has no verb is the piece itself. */
  isFirst: boolean;
  unit: LengthUnit;
  /** The number of the one row that is round outside, and of the one pocket; null where it has to be said which. */
  shaft: string | null;
  pocket: string | null;
  /** Whether a text is a row of the card's own grammar. */
  reads(text: string): boolean;
}

/** A row as a print words it, in the card's own words; and its numbers that are printed with a tolerance. */
export interface PrintedRow {
  text: string;
  /** Rows that the same line says besides: what is stacked on one axis, or done from both sides. */
  more?: string[];
  toleranced: { text: string; tolerance: string; isDiameter: boolean }[];
}

/** No print has a callout of more signs. */
const LONGEST = 200;
/** Words left out one after the other, at most, in search of a near row. */
const MOST_LEFT_OUT = 16;

/** What stands before a row's own words: OFF, its verb, its name. */
const opening = /^\s*(OFF\s+)?(LEAVE\b|CUT\b|ADD\b|REMOVE\b(?! (?:ALL )?BURRS))?\s*("[^"]*"\s*:)?/i;
const slotFirst = /^\s*(?:\(?\d+\)?\s*X?\s*)?SLOTS?\b/i;
const verbs: Record<string, "LEAVE" | "CUT"> = { LEAVE: "LEAVE", ADD: "LEAVE", CUT: "CUT", REMOVE: "CUT" };
const cutsFor = ({ shaft, pocket }: PrintedContext): Family[] => [
  (w) => edgeText(w, pocket),
  pocketText,
  faceText,
  (w) => ringText(w, shaft),
  (w) => shaftText(w, shaft),
  // `THREAD M12 X 30` beside a round may be on it or in it.
  (w) => (shaft !== null && w.sees("THREAD") ? null : holeText(w)),
];

/**
 * Reads a row as prints and people write it. Null where it is not understood, or where it could mean two things.
 */
export function printedRow(typed: string, context: PrintedContext): PrintedRow | null {
  if (typed.length > LONGEST) return null;
  const head = opening.exec(typed)!;
  const body = typed.slice(head[0].length);
  const verb = head[2] ? verbs[head[2].toUpperCase()] : null;
  const line: Line = { body, off: head[1] ?? "", name: head[3] ?? "", verb };
  // The two sizes of a slot stand in either order on a print: it is heard as a print says it first.
  const ways = slotFirst.test(body) ? [inWords, asItStands] : [asItStands, inWords];
  for (const way of ways) {
    const found = way(line, context);
    if (found.size) return found.size === 1 ? [...found.values()][0] : null;
  }
  return null;
}

interface Line {
  body: string;
  off: string;
  name: string;
  verb: "LEAVE" | "CUT" | null;
}
type Found = Map<string, PrintedRow>;

/** In the card's own words but for the verb. */
function asItStands({ body, off, name, verb }: Line, context: PrintedContext): Found {
  const found: Found = new Map();
  if (isHashedThread(body.replace(/^\s*\d+ ?X */i, "")) || hasLimits(plainSigns(body))) return found;
  if (isOutsideThread(body)) return found;
  for (const v of verb ? [] : ["LEAVE", "CUT"]) {
    const text = named(`${v} ${body.trim()}`, off, name);
    if (context.reads(text)) found.set(text, { text, toleranced: [] });
  }
  return found;
}

/** In a print's words, by every family of rows. */
function inWords({ body, off, name, verb }: Line, context: PrintedContext): Found {
  const found: Found = new Map();
  for (const read of familiesFor(verb, context)) {
    const w = Words.of(body, context.unit);
    const text = w && read(w);
    if (!text) continue;
    const [first, ...more] = text.split("\n");
    const whole = named(first, off, name);
    if (![whole, ...more].every((t) => context.reads(t))) continue;
    found.set([whole, ...more].join("\n"), {
      text: whole,
      toleranced: tolerancedOf(w),
      ...(more.length ? { more } : {}),
    });
  }
  return found;
}

const tolerancedOf = (w: Words): PrintedRow["toleranced"] =>
  w.toleranced.map((s) => ({ text: s.text, tolerance: s.tolerance!, isDiameter: s.tag === "⌀" }));

type Family = (w: Words) => string | null;
/** Without a verb the first row is the piece itself; of the others only what names its form is left. */
function familiesFor(verb: "LEAVE" | "CUT" | null, context: PrintedContext): Family[] {
  const { isFirst } = context;
  const cuts = cutsFor(context);
  const leave: Family = (w) => leaveText(w, verb !== null || isFirst);
  const leaveByName: Family = (w) => leaveText(w, false);
  if (verb === "LEAVE") return [leave];
  if (verb === "CUT") return cuts;
  return isFirst ? [leave, ...cuts] : [...cuts, leaveByName];
}

/** Puts OFF and a name back where the card has them. */
function named(text: string, off: string, name: string): string {
  if (!off && !name) return text;
  const verb = text.slice(0, text.indexOf(" "));
  return `${off ? "OFF " : ""}${verb} ${name ? `${name.trim()} ` : ""}${text.slice(verb.length + 1)}`;
}

/** What is tried at the end of a line that stops too early. */
const endings = ["", " DEEP ?", " OUTER TOP", " X ?", " START ?"];

/**
 * What a line of a screw may mean where it is not understood: its head's seat, `M6 SHCS THRU`, or the sizes nearest to one
 * that there is none of, `M7.5 CLEARANCE THRU`.
 */
function forScrews(line: string): string[] {
  const headed = /^(.*?)((?:M[\d.]+|#?\d[\d/-]*) ?(SHCS|FHCS|FHSCS|FHMS)\b)(.*)$/i.exec(line);
  if (headed && !/\bFOR\b/i.test(line)) {
    const mouth = /^S/i.test(headed[3]) ? "CBORE" : "CSK";
    return [`${headed[1]}${mouth} FOR ${headed[2]}${headed[4]}`];
  }
  // `GROOVE FOR DIN 471 19 ...`: the ring that there is.
  const ring = /\bDIN[ -]?47[12][ -][\d.]+/i.exec(line);
  if (ring && !lookUp(ring[0]))
    return nearestSizes(ring[0]).map(
      (e) => line.slice(0, ring.index) + e.what + line.slice(ring.index + ring[0].length),
    );
  const size = /(?<![\w.])(?:M\d+(?:\.\d+)?|\d+\/\d+|#\d{1,2})(?= (?:\w+ )?(?:CLEARANCE|CLR|FIT)\b)/i.exec(line);
  if (!size) return [];
  return nearestSizes(`${size[0]} clearance`).flatMap((e) => {
    const name = / clearance /.test(e.what) ? e.what.split(" ")[0] : null;
    return name ? [line.slice(0, size.index) + name + line.slice(size.index + size[0].length)] : [];
  });
}

/**
 * The nearest row to what was typed and is not understood: words spelt as they are meant, what is none of a callout's
 * left out, what is missing asked for. Null where nothing is near.
 */
export function nearestRow(typed: string, context: PrintedContext): string | null {
  if (typed.length > LONGEST) return null;
  // A drill's `#7` would be balloon 7.
  const numbered = plainSigns(typed)
    .replace(/\bDRILL *#(?=\d)/i, "DRILL NO. ")
    .replace(/#(\d{1,2}) *DRILL\b/i, "NO. $1 DRILL");
  const spelt = nearestWords(numbered);
  const tokens = tokensOf(spelt, context.unit) ?? [];
  const without = tokens
    // A letter at its number, `G1/4`, is a part of its name.
    .filter((t) => t.is === "tolerance" || ((t.is === "sign" || t.is === "word") && !isTelling(t.text)))
    .filter((t) => t.is !== "word" || (!isWeighty(t.text) && !/^[\d.]/.test(spelt.slice(t.end))))
    .slice(0, MOST_LEFT_OUT)
    .map((t) => `${spelt.slice(0, t.at)} ${spelt.slice(t.end)}`);
  const screws = forScrews(spelt);
  for (const text of [...screws, spelt, ...without])
    for (const end of endings) {
      const row = context.reads(text + end) ? { text: text + end } : printedRow(text + end, context);
      if (row && !("more" in row && row.more)) return row.text.replace(/\s+/g, " ").trim();
    }
  return null;
}
