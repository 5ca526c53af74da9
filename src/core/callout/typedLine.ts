import type { RowNames } from "../grammar/grammar";
import { rowNames } from "../job/names";
import type { Balloon, Job, Row } from "../job/schema";
import { toNumberText } from "../number";
import { rowNumbers, withNumber } from "../rows";
import { writeRow } from "./card";
import { namedIn, readBalloonLine, readRowLine, type CardError, type TypedRow } from "./lines";

/** What is typed in the callout line, as far as it is understood. */
export type ReadCallout =
  | ({ ok: true; as: string | null } & Omit<TypedRow, "columns">)
  /** `at`: offset of what is wrong in the text as typed. */
  | { ok: false; error: CardError; at: number };

const verb = /^\s*(leave|cut|off)\b/i;

/**
 * Reads what is typed for a job's next row. `as` is the row in the card's words, where something else was typed.
 * Without a verb the first row is left and any other cut; then what is wrong is told as of that.
 */
export function readCallout(
  text: string,
  job: Pick<Job, "rows" | "unit" | "names" | "balloons">,
  id: string,
): ReadCallout {
  const names = rowNames(job.rows);
  const named = namedIn(job);
  const where = { earlier: job.rows, unit: job.unit };
  const read = readRowLine(text, names, id, named, where);
  if (read.ok) {
    const as = written(read, names);
    return { ...said(read), as: isSame(text, as) ? null : as };
  }
  if (verb.test(text)) return { ok: false, error: read.error, at: read.error.column - 1 };
  const prefix = job.rows.length === 0 ? "LEAVE " : "CUT ";
  const told = readRowLine(prefix + text, names, id, named, { ...where, suggest: false });
  if (told.ok) return { ...said(told), as: written(told, names) };
  const { instead } = read.error;
  const error = { ...told.error, ...(instead ? { instead } : {}) };
  return { ok: false, error, at: Math.max(0, told.error.column - 1 - prefix.length) };
}

const said = ({ row, more, toleranced }: TypedRow) => ({ ok: true as const, row, more, toleranced });
/** Rows of one line as the card writes them. */
const written = ({ row, more }: TypedRow, names: RowNames): string =>
  [row, ...more].map((r) => writeRow(r, names)).join("; ");

/** Whether a text is the card's own, but for its verb and blanks. */
const isSame = (typed: string, as: string): boolean => {
  const bare = (t: string) => t.replace(verb, "").replace(/\s+/g, "").toUpperCase();
  return bare(typed) === bare(as);
};

/**
 * Rows of one line whose numbers printed with a tolerance are balloons of their own, and those balloons; they are numbered on
 * from the last.
 */
export function withBalloons(
  rows: Row[],
  toleranced: TypedRow["toleranced"],
  job: Pick<Job, "balloons" | "unit">,
): { rows: Row[]; balloons: Balloon[] } {
  let next = Math.max(0, ...job.balloons.map((b) => b.number)) + 1;
  let made = rows;
  const balloons: Balloon[] = [];
  for (const t of toleranced) {
    const printedAt = (row: Row) => rowNumbers(row.body).find((n) => n.text === toNumberText(t.text));
    const isLimits = /^[\d.]+\s*\/\s*[\d.]+$/.test(t.tolerance);
    const printed = `${t.isDiameter ? "⌀" : ""}${isLimits ? t.tolerance.replace("/", " / ") : `${t.text} ${t.tolerance}`}`;
    const read = readBalloonLine(printed, next);
    if (!made.some(printedAt) || !read.ok) continue;
    const cited = toNumberText(`#${next++}`);
    // What is done from both sides stands in both rows, and is one dimension.
    made = made.map((row) => {
      const number = printedAt(row);
      return number ? { ...row, body: withNumber(row.body, number.path, cited) } : row;
    });
    balloons.push(read.balloon);
  }
  return { rows: made, balloons };
}
