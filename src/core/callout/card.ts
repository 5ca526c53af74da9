import { rowNames } from "../job/names";
import { emptyJob, type Job, type Row } from "../job/schema";
import { inCallout, toNumberText } from "../number";
import { readOutlineItem, writeOutlineItem, type OutlineItem } from "../outline/items";
import { readRowBody, writeRowBody } from "../rows/registry";
import { readBalloon, writeBalloonText } from "./balloonLine";
import type { RowNames } from "../grammar/grammar";
import {
  readCheck,
  readLet,
  readStock,
  readTolerances,
  writeCheck,
  writeLet,
  writeStock,
  writeTolerances,
} from "./headLines";
import { CalloutError, Reader } from "../grammar/reader";

/** One wrong line; the others are still read. Line and column count from 1. */
export interface CardError {
  line: number;
  column: number;
  message: string;
  expected: string;
}

/** Where the numbers of a row stand in its text, by path. */
export interface RowPlace {
  line: number;
  columns: Map<string, number>;
}

export interface ReadCard {
  job: Job;
  errors: CardError[];
  places: Map<string, RowPlace>;
  /** Lines of each outline's items, by its id. */
  outlineLines: Map<string, number[]>;
}
interface Open {
  outline: Job["outlines"][number];
  lines: number[];
  at: number;
}

const MAX_LINES = 20_000;
const MAX_LINE = 20_000;

/** Reads a whole card. Wrong lines are listed; what could be read stands in the job. */
export function readCard(text: string): ReadCard {
  const job = emptyJob("Untitled", "mm", "");
  const errors: CardError[] = [];
  const places = new Map<string, RowPlace>();
  let unitSeen = false,
    unitMissingSaid = false;
  let rows = 0,
    content = 0;
  let open: Open | null = null;
  const outlineLines = new Map<string, number[]>();
  const lines = text.replace(/^\uFEFF/, "").split(/\r\n|\n|\r/);
  if (lines.length > MAX_LINES)
    return {
      job,
      places,
      outlineLines,
      errors: [{ line: MAX_LINES + 1, column: 1, message: `more than ${MAX_LINES} lines`, expected: "a shorter card" }],
    };
  const named = new Set(
    lines.slice(0, MAX_LINES).flatMap((l) => /^\s*LET\s+([A-Za-z_]\w*)/i.exec(l)?.[1].toLowerCase() ?? []),
  );
  for (const l of lines) {
    const b = /^\s*#(\d{1,4})\s+(.+)$/.exec(withoutRemark(l));
    const read = b && readBalloonLine(b[2], Number(b[1]), named);
    if (read?.ok && read.balloon.thread !== undefined) named.add(`#${read.balloon.number}`);
  }
  const names: RowNames = { idOf: (n) => `r${n}`, numberOf: (id) => id.slice(1) };

  lines.forEach((whole, i) => {
    const line = i + 1;
    if (whole.length > MAX_LINE)
      return void errors.push({
        line,
        column: MAX_LINE,
        message: "this line is too long",
        expected: `at most ${MAX_LINE} characters`,
      });
    const body = withoutRemark(whole).trimEnd();
    if (body.trim() === "") return;
    content++;
    const r = new Reader(body, named);
    const isRow = !open && (r.sees("LEAVE") || r.sees("CUT") || r.sees("OFF"));
    if (isRow) rows++;
    try {
      if (open) {
        if (r.take("END")) open = null;
        else {
          const item = readOutlineItem(r, names);
          open.lines.push(line);
          open.outline.items.push(item);
        }
        if (!r.done) r.fail("the end of the line");
        return;
      }
      const head = r.takeOne([
        "JOB",
        "UNIT",
        "MATERIAL",
        "STOCK",
        "CHECK",
        "EDGES",
        "HOLD",
        "LET",
        "TOLERANCES",
        "TOLERANCE",
        "OUTLINE",
      ] as const);
      const needsUnit = head === "MATERIAL" ? /density/i.test(body) : head !== "JOB" && head !== "UNIT";
      if (needsUnit && !unitSeen && (isRow || head !== null || body.trimStart().startsWith("#")) && !unitMissingSaid) {
        unitMissingSaid = true;
        throw new CalloutError(
          body.length - body.trimStart().length,
          "the unit must come before any number",
          "UNIT in or UNIT mm",
        );
      }
      switch (head) {
        case "JOB":
          job.name = r.quoted().trim() || "Untitled";
          if (r.take("REV")) {
            r.skip();
            const rev = /^"([^"]*)"|^[^\s"]+/.exec(r.text.slice(r.pos));
            if (!rev) r.fail("a revision");
            job.revision = (rev![1] ?? rev![0]).slice(0, 20);
            r.pos += rev![0].length;
          }
          break;
        case "UNIT": {
          const unit = r.takeOne(["IN", "MM"] as const);
          if (!unit) r.fail("in or mm");
          if (unitSeen) r.fail("one UNIT line", "the unit is given twice", body.length - body.trimStart().length);
          job.unit = unit === "IN" ? "in" : "mm";
          unitSeen = true;
          break;
        }
        case "MATERIAL":
          job.material = { name: r.quoted().slice(0, 120) };
          if (r.take("DENSITY")) job.material.density = r.number("density", "a density in g/cm³");
          break;
        case "STOCK":
          job.stock = readStock(r);
          break;
        case "CHECK":
          job.checks.push(readCheck(r, names));
          break;
        case "OUTLINE": {
          const at = r.pos;
          const name = r.quoted().trim().slice(0, 120);
          if (!name) r.fail("a name in double quotes", "the outline has no name", at);
          if (job.outlines.some((o) => o.name.toLowerCase() === name.toLowerCase()))
            r.fail("another name", `outline "${name}" is there twice`, at);
          open = { outline: { id: `o${job.outlines.length + 1}`, name, items: [] }, lines: [], at: line };
          job.outlines.push(open.outline);
          outlineLines.set(open.outline.id, open.lines);
          break;
        }
        case "LET": {
          const at = r.pos;
          const n = readLet(r);
          if (job.names.some((o) => o.name.toLowerCase() === n.name.toLowerCase()))
            r.fail("another name", `${n.name} is named twice`, at);
          job.names.push(n);
          break;
        }
        case "TOLERANCES":
        case "TOLERANCE":
          readTolerances(r, job.title);
          break;
        case "EDGES":
          r.want("BREAK");
          job.title.edgeBreak = r.number("edgeBreak", "the size of the break");
          break;
        case "HOLD":
          r.want("VISE");
          job.hold = { fixture: "vise", across: "y", grip: toNumberText("?"), up: "top" };
          while (!r.done) {
            if (r.take("GRIP")) job.hold.grip = r.number("grip", "a grip depth");
            else if (r.take("ACROSS"))
              job.hold.across = (r.takeOne(["X", "Y"] as const) ?? r.fail("X or Y")) === "X" ? "x" : "y";
            else if (r.take("UP"))
              job.hold.up =
                (r.takeOne(["TOP", "BOTTOM"] as const) ?? r.fail("TOP or BOTTOM")) === "TOP" ? "top" : "bottom";
            else r.fail("GRIP, ACROSS or UP");
          }
          break;
        default:
          if (isRow) {
            const { row, columns } = readRow(r, names, `r${rows}`);
            job.rows.push(row);
            places.set(row.id, { line, columns });
          } else if (/^#/.test(body.trimStart())) {
            r.skip();
            const m = /^#(\d{1,4})(?![\d.])/.exec(r.text.slice(r.pos));
            if (!m) return r.fail("a balloon number", undefined, r.pos + 1);
            const numberAt = r.pos;
            r.pos += m[0].length;
            const b = readBalloon(r, Number(m[1]));
            if (b.number < 1) r.fail("a number from 1", "a balloon has a number from 1", numberAt);
            if (job.balloons.some((o) => o.number === b.number))
              r.fail("another number", `balloon #${b.number} is there twice`, numberAt);
            job.balloons.push(b);
          } else
            r.fail(
              "JOB, UNIT, MATERIAL, STOCK, LET, TOLERANCES, #, OUTLINE, LEAVE, CUT or CHECK",
              `${JSON.stringify(r.here)} starts no line of a card`,
            );
      }
      if (!r.done) r.fail("the end of the line");
    } catch (e) {
      if (!(e instanceof CalloutError)) throw e;
      errors.push({ line, column: e.at + 1, message: e.message, expected: e.expected });
    }
  });
  const left = open as Open | null;
  if (left)
    errors.push({ line: left.at, column: 1, message: `outline "${left.outline.name}" has no end`, expected: "END" });
  if (content === 0) errors.push({ line: 1, column: 1, message: "the card is empty", expected: "JOB, UNIT and rows" });
  return { job, errors, places, outlineLines };
}

/** One row of a card: `[OFF] LEAVE|CUT ["name":] ...`. */
function readRow(r: Reader, names: RowNames, id: string): { row: Row; columns: Map<string, number> } {
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

/** Reads one row of text, as typed in the callout line or pasted. */
export function readRowLine(
  text: string,
  names: RowNames,
  id: string,
  named: ReadonlySet<string> = new Set(),
): { ok: true; row: Row } | { ok: false; error: CardError } {
  try {
    const r = new Reader(withoutRemark(text).trimEnd(), named);
    const { row } = readRow(r, names, id);
    if (!r.done) r.fail("the end of the line");
    return { ok: true, row };
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    return { ok: false, error: { line: 1, column: e.at + 1, message: e.message, expected: e.expected } };
  }
}

/** Reads one balloon as typed in the ledger: `⌀2.185 ±.005`. */
export function readBalloonLine(text: string, number: number, named: ReadonlySet<string> = new Set()) {
  try {
    const r = new Reader(text.trim(), named);
    const balloon = readBalloon(r, number);
    if (!r.done) r.fail("the end of the line");
    return { ok: true as const, balloon };
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    return { ok: false as const, error: { line: 1, column: e.at + 1, message: e.message, expected: e.expected } };
  }
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

/** Reads one line of an outline's block, as typed in its editor. */
export function readOutlineLine(
  text: string,
  names: RowNames,
  named: ReadonlySet<string> = new Set(),
): { ok: true; item: OutlineItem } | { ok: false; error: CardError } {
  try {
    const r = new Reader(text.trimEnd(), named);
    const item = readOutlineItem(r, names);
    if (!r.done) r.fail("the end of the line");
    return { ok: true, item };
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    return { ok: false, error: { line: 1, column: e.at + 1, message: e.message, expected: e.expected } };
  }
}

export function writeRow(row: Row, names: RowNames): string {
  const text = writeRowBody(row.body, names);
  const [verb, rest] = [text.slice(0, text.indexOf(" ")), text.slice(text.indexOf(" ") + 1)];
  return `${row.off ? "OFF " : ""}${verb} ${row.name ? `"${row.name.replace(/"/g, "”")}": ` : ""}${rest}`;
}

/** The whole job as canonical card text. What a card has no line for (prints, waivers, crib) stays in the document. */
export function writeCard(job: Job): string {
  const names = rowNames(job.rows);
  const lines = [
    `JOB "${job.name.replace(/"/g, "”")}"${job.revision ? ` REV ${/^[^\s"]+$/.test(job.revision) ? job.revision : `"${job.revision}"`}` : ""}`,
    `UNIT ${job.unit}`,
  ];
  if (job.material.name || job.material.density)
    lines.push(
      `MATERIAL "${job.material.name.replace(/"/g, "”")}"${job.material.density === undefined ? "" : ` DENSITY ${inCallout(job.material.density)}`}`,
    );
  if (job.stock) lines.push(writeStock(job.stock));
  if (job.title.edgeBreak !== undefined) lines.push(`EDGES BREAK ${inCallout(job.title.edgeBreak)}`);
  const tolerances = writeTolerances(job.title);
  if (tolerances) lines.push(tolerances);
  for (const n of job.names) lines.push(writeLet(n));
  for (const b of job.balloons) lines.push(`#${b.number} ${writeBalloonText(b)}`);
  for (const o of job.outlines)
    lines.push(`OUTLINE "${o.name.replace(/"/g, "”")}"`, ...o.items.map((i) => writeOutlineItem(i, names)), "END");
  for (const r of job.rows) lines.push(writeRow(r, names));
  if (job.hold)
    lines.push(
      `HOLD VISE GRIP ${inCallout(job.hold.grip)} ACROSS ${job.hold.across.toUpperCase()}${job.hold.up === "top" ? "" : " UP BOTTOM"}`,
    );
  for (const c of job.checks) lines.push(writeCheck(c, names));
  return lines.join("\n") + "\n";
}

/** The line without its remark: `;` outside quotes starts one. */
function withoutRemark(line: string): string {
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
