import { CalloutError, Reader } from "../grammar/reader";
import type { RowNames } from "../grammar/grammar";
import type { Balloon, Job, Row } from "../job/schema";
import { readOutlineItem, type OutlineItem } from "../outline/items";
import { kindOf, verbs, type Traits } from "../rows";
import { readRowBody } from "../rows/registry";
import { readBalloon } from "./balloonLine";
import type { LengthUnit } from "../number";
import { nearestRow, printedRow, type PrintedRow } from "./printed";
import { ledgerTexts } from "./printed/ledger";
import { isPrintsOwn, withoutInchMarks } from "./printed/ledgerForms";
import { printedOutlineLine } from "./printed/outline";

/** One wrong line; the others are still read. Line and column count from 1. */
export interface CardError {
  line: number;
  column: number;
  message: string;
  expected: string;
  /** The nearest line to what was typed that would be understood. */
  instead?: string;
}

/** One row of a card: `[OFF] LEAVE|CUT|REPEAT|MIRROR ["name":] ...`. */
export function readRow(r: Reader, names: RowNames, id: string): { row: Row; columns: Map<string, number> } {
  const off = r.take("OFF");
  const verb = verbs.find((v) => r.take(v.toUpperCase()));
  if (!verb) return r.fail("LEAVE, CUT, REPEAT or MIRROR");
  r.skip();
  let name: string | undefined;
  if (r.text[r.pos] === '"') {
    name = r.quoted(120);
    r.skip();
    if (r.text[r.pos] !== ":") r.fail(": after the name");
    r.pos++;
  }
  const body = readRowBody(r, verb, names);
  const columns = new Map([...r.marks].map(([path, at]) => [path, at + 1]));
  return { row: { id, ...(name ? { name } : {}), ...(off ? { off: true as const } : {}), body }, columns };
}

/** Where a row is typed: what a print leaves unsaid depends on it. */
export interface TypedWhere {
  /** The rows before it; without them it is not the first. */
  earlier?: Row[];
  unit: LengthUnit;
  /** Whether the nearest line is looked for where it is not understood; it takes some milliseconds. */
  suggest?: boolean;
}
export interface TypedRow {
  row: Row;
  /** Rows that the same line says besides; each wants an id of its own. */
  more: Row[];
  /** Where its numbers stand in the text; empty where a print's words were read. */
  columns: Map<string, number>;
  /** Numbers printed with a tolerance: each could be a balloon. */
  toleranced: PrintedRow["toleranced"];
}

/**
 * One row as it is typed: in the card's own words, else as prints and people write it.
 * @throws CalloutError of the card's own grammar, with the nearest line that would be understood
 */
export function readTypedRow(
  text: string,
  names: RowNames,
  id: string,
  named: ReadonlySet<string>,
  { earlier, unit, suggest = true }: TypedWhere,
): TypedRow {
  const strictly = (line: string) => {
    const r = new Reader(line, named);
    const read = readRow(r, names, id);
    if (!r.done) r.fail("the end of the line");
    return read;
  };
  const reads = (line: string) => {
    try {
      strictly(line);
      return true;
    } catch (e) {
      if (e instanceof CalloutError) return false;
      throw e;
    }
  };
  try {
    return { ...strictly(text), more: [], toleranced: [] };
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    const context = {
      isFirst: earlier?.length === 0,
      unit,
      reads,
      shaft: onlyOne(earlier, (traits) => traits.shaft === true),
      pocket: onlyOne(earlier, (traits) => traits.pocket === true),
    };
    const printed = printedRow(text, context);
    if (printed)
      return {
        row: strictly(printed.text).row,
        more: (printed.more ?? []).map((t) => strictly(t).row),
        columns: new Map(),
        toleranced: printed.toleranced,
      };
    throw new CalloutError(e.at, e.message, e.expected, (suggest && nearestRow(text, context)) || undefined);
  }
}

/** The number of the one row of a sort, which a print need not name; null where there is none, or several. */
function onlyOne(rows: Row[] | undefined, is: (traits: Traits) => boolean): string | null {
  const found = (rows ?? []).flatMap((row, i) => (is(kindOf(row.body).traits ?? {}) ? [String(i + 1)] : []));
  return found.length === 1 ? found[0] : null;
}

/** Reads one whole line; what is wrong with it stands at its character. */
function whole<T>(text: string, named: ReadonlySet<string>, read: (r: Reader) => T) {
  return orError(() => {
    const r = new Reader(text, named);
    const value = read(r);
    if (!r.done) r.fail("the end of the line");
    return value;
  });
}

/** What is wrong with a line, at its line of the card. */
export const cardError = (e: CalloutError, line: number): CardError => ({
  line,
  column: e.at + 1,
  message: e.message,
  expected: e.expected,
  ...(e.instead ? { instead: e.instead } : {}),
});

function orError<T>(read: () => T): { ok: true; value: T } | { ok: false; error: CardError } {
  try {
    return { ok: true, value: read() };
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    return { ok: false, error: cardError(e, 1) };
  }
}

/** Reads one row of text, as typed in the callout line or pasted. */
export function readRowLine(
  text: string,
  names: RowNames,
  id: string,
  named: ReadonlySet<string> = new Set(),
  where: TypedWhere = { unit: "mm" },
): ({ ok: true } & TypedRow) | { ok: false; error: CardError } {
  const read = orError(() => readTypedRow(withoutRemark(text).trimEnd(), names, id, named, where));
  return read.ok ? { ok: true, ...read.value } : read;
}

/** Reads one balloon as typed in the ledger: `⌀2.185 ±.005`. */
export function readBalloonLine(
  text: string,
  number: number,
  named: ReadonlySet<string> = new Set(),
): { ok: true; balloon: Balloon } | { ok: false; error: CardError } {
  const read = whole(text.trim(), named, (r) => readBalloon(r, number));
  return read.ok ? { ok: true, balloon: read.value } : read;
}

/**
 * Reads a line of the ledger as a print words it: one dimension, or several in one line
 * (`8X ⌀.281 THRU ⌴ ⌀.438 ↧ .28 ON ⌀3.500 B.C.`), numbered from `number` on past those that are taken.
 */
export function readLedgerLine(
  text: string,
  number: number,
  taken: ReadonlySet<number>,
  named: ReadonlySet<string> = new Set(),
  unit: LengthUnit = "mm",
): { ok: true; balloons: Balloon[] } | { ok: false; error: CardError } {
  const plain = withoutInchMarks(text, unit);
  const one = readBalloonLine(plain, number, named);
  if (one.ok && !isPrintsOwn(plain)) return { ok: true, balloons: [one.balloon] };
  const read = readPrintedLedger(plain, number, taken, named, unit);
  if (read) return { ok: true, balloons: read };
  return one.ok ? { ok: true, balloons: [one.balloon] } : one;
}

function readPrintedLedger(
  text: string,
  number: number,
  taken: ReadonlySet<number>,
  named: ReadonlySet<string>,
  unit: LengthUnit,
): Balloon[] | null {
  const balloons: Balloon[] = [];
  let next = number;
  for (const line of ledgerTexts(text, unit) ?? []) {
    while (next !== number && taken.has(next)) next++;
    const read = readBalloonLine(line, next++, named);
    if (!read.ok) return null;
    balloons.push(read.balloon);
  }
  return balloons.length ? balloons : null;
}

/** Reads one line of an outline's block, as typed in its editor: in the card's words, else as it is said aloud. */
export function readOutlineLine(
  text: string,
  names: RowNames,
  named: ReadonlySet<string> = new Set(),
  isFirst = false,
): { ok: true; item: OutlineItem } | { ok: false; error: CardError } {
  const strictly = (line: string) => whole(line.trimEnd(), named, (r) => readOutlineItem(r, names));
  const read = strictly(text);
  if (read.ok) return { ok: true, item: read.value };
  const said = printedOutlineLine(text, isFirst);
  const again = said === null ? read : strictly(said);
  return again.ok ? { ok: true, item: again.value } : read;
}

/**
 * Names a job's text may use: named values where a number stands, balloons that print a thread (`#9`) where a thread
 * does.
 */
export const namedIn = (job: Pick<Job, "names" | "balloons">): ReadonlySet<string> =>
  new Set([
    ...job.names.map((n) => n.name.toLowerCase()),
    ...job.balloons.flatMap((b) => (b.thread === undefined ? [] : `#${b.number}`)),
  ]);

/** The line without its remark: `;` outside quotes, of either sort, starts one. */
export function withoutRemark(line: string): string {
  let quoted = false;
  let backQuoted = false;
  for (let i = 0; i < line.length; i++) {
    if (line[i] === "`" && !quoted && (backQuoted || line.includes("`", i + 1))) backQuoted = !backQuoted;
    if (backQuoted) continue;
    if (line[i] === '"') {
      // A second sign inside an angle (1°26'16") is not a quote.
      if (!quoted && /\d['′]\d+(\.\d+)?$/.test(line.slice(Math.max(0, i - 12), i))) continue;
      quoted = !quoted;
    } else if (line[i] === ";" && !quoted) return line.slice(0, i);
  }
  return line;
}
