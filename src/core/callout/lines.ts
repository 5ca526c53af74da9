import { CalloutError, Reader } from "../grammar/reader";
import type { RowNames } from "../grammar/grammar";
import type { Balloon, Job, Row } from "../job/schema";
import { readOutlineItem, type OutlineItem } from "../outline/items";
import { readRowBody } from "../rows/registry";
import { readBalloon } from "./balloonLine";

/** One wrong line; the others are still read. Line and column count from 1. */
export interface CardError {
  line: number;
  column: number;
  message: string;
  expected: string;
}

/** One row of a card: `[OFF] LEAVE|CUT ["name":] ...`. */
export function readRow(r: Reader, names: RowNames, id: string): { row: Row; columns: Map<string, number> } {
  const off = r.take("OFF");
  const verb = r.takeOne(["LEAVE", "CUT"] as const);
  if (!verb) r.fail("LEAVE or CUT");
  r.skip();
  let name: string | undefined;
  if (r.text[r.pos] === '"') {
    name = r.quoted().slice(0, 120);
    r.skip();
    if (r.text[r.pos] !== ":") r.fail(": after the name");
    r.pos++;
  }
  const body = readRowBody(r, verb === "LEAVE" ? "leave" : "cut", names);
  const columns = new Map([...r.marks].map(([path, at]) => [path, at + 1]));
  return { row: { id, ...(name ? { name } : {}), ...(off ? { off: true as const } : {}), body }, columns };
}

/** Reads one whole line; what is wrong with it stands at its character. */
function whole<T>(text: string, named: ReadonlySet<string>, read: (r: Reader) => T) {
  try {
    const r = new Reader(text, named);
    const value = read(r);
    if (!r.done) r.fail("the end of the line");
    return { ok: true as const, value };
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    const error: CardError = { line: 1, column: e.at + 1, message: e.message, expected: e.expected };
    return { ok: false as const, error };
  }
}

/** Reads one row of text, as typed in the callout line or pasted. */
export function readRowLine(
  text: string,
  names: RowNames,
  id: string,
  named: ReadonlySet<string> = new Set(),
): { ok: true; row: Row } | { ok: false; error: CardError } {
  const read = whole(withoutRemark(text).trimEnd(), named, (r) => readRow(r, names, id).row);
  return read.ok ? { ok: true, row: read.value } : read;
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

/** Reads one line of an outline's block, as typed in its editor. */
export function readOutlineLine(
  text: string,
  names: RowNames,
  named: ReadonlySet<string> = new Set(),
): { ok: true; item: OutlineItem } | { ok: false; error: CardError } {
  const read = whole(text.trimEnd(), named, (r) => readOutlineItem(r, names));
  return read.ok ? { ok: true, item: read.value } : read;
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

/** The line without its remark: `;` outside quotes starts one. */
export function withoutRemark(line: string): string {
  let quoted = false;
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '"') {
      // A second sign inside an angle (1°26'16") is not a quote.
      if (!quoted && /\d['′]\d+(\.\d+)?$/.test(line.slice(Math.max(0, i - 12), i))) continue;
      quoted = !quoted;
    } else if (line[i] === ";" && !quoted) return line.slice(0, i);
  }
  return line;
}
