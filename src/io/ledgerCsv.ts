import Papa from "papaparse";
import { namedIn, readLedgerLine, writeBalloonText } from "@/core/callout";
import { MOST_BALLOONS, type Balloon, type Job } from "@/core/job";
import type { LedgerEntry } from "@/core/print/ledger";
import { unitOf } from "@/core/number";

/**
 * What a ledger is written with: the balloon as printed, then what the model says of it. Lengths in the job's unit,
 * angles in degrees.
 */
const columns = [
  "number",
  "dimension",
  "zone",
  "note",
  "nominal",
  "low",
  "high",
  "measured",
  "state",
  "measured on",
] as const;

/** A text no table program takes for a formula. */
const harmless = (text: string): string =>
  /^[=+\-@\t\r]/.test(text) && !/^[+-]?[\d.]+$/.test(text) ? `'${text}` : text;

export function ledgerCsv(job: Job, ledger: LedgerEntry[]): string {
  const rows = job.balloons.map((b) => {
    const l = ledger.find((e) => e.number === b.number);
    const out = (v: number | null | undefined) =>
      v === null || v === undefined || !Number.isFinite(v)
        ? ""
        : String(
            Number(
              (b.kind === "angle"
                ? (v * 180) / Math.PI
                : b.kind === "count" || b.kind === "thread"
                  ? v
                  : v / unitOf[job.unit].mm
              ).toFixed(6),
            ),
          );
    return [
      String(b.number),
      writeBalloonText({ ...b, note: undefined, zone: undefined }),
      b.zone ?? "",
      b.note ?? "",
      out(l?.nominal),
      out(l?.low),
      out(l?.high),
      out(l?.measured),
      l?.state ?? "",
      l?.by ?? "",
    ].map(harmless);
  });
  return Papa.unparse({ fields: [...columns], data: rows }, { newline: "\r\n" }) + "\r\n";
}

export interface CsvProblem {
  line: number;
  message: string;
  expected: string;
}

const tooMany = (lines: number, room: number): CsvProblem => ({
  line: room + 2,
  message: `the file has ${lines} lines, and a job holds ${MOST_BALLOONS} balloons at most: none was read`,
  expected: `at most ${room} more lines of dimensions`,
});

/**
 * Reads balloons from CSV: a heading with `dimension` (and `number`, `zone`, `note` where they are), or one column
 * of dimensions, or number and dimension.
 * Lines that cannot be read are listed; the others are read. Numbers that are missing are given from `next` on.
 */
export function readLedgerCsv(
  text: string,
  job: Pick<Job, "names" | "balloons" | "unit">,
): { balloons: Balloon[]; problems: CsvProblem[] } {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: "greedy" });
  const balloons: Balloon[] = [],
    problems: CsvProblem[] = [];
  const room = MOST_BALLOONS - job.balloons.length;
  if (parsed.data.length > room + 1) return { balloons, problems: [tooMany(parsed.data.length, room)] };
  const head = (parsed.data[0] ?? []).map((c) => c.trim().toLowerCase());
  const titled = head.includes("dimension") || head.includes("text");
  const column = (name: string) => head.indexOf(name);
  const dimension = titled ? Math.max(column("dimension"), column("text")) : (parsed.data[0]?.length ?? 0) > 1 ? 1 : 0;
  const taken = new Set(job.balloons.map((b) => b.number));
  let next = Math.max(0, ...taken) + 1;
  parsed.data.slice(titled ? 1 : 0).forEach((cells, i) => {
    const line = i + (titled ? 2 : 1);
    const cell = (at: number) => (at < 0 ? "" : (cells[at] ?? "").trim().replace(/^'/, ""));
    const typed = cell(titled ? column("number") : dimension === 1 ? 0 : -1).replace(/^#/, "");
    const words = cell(dimension);
    if (words === "")
      return void problems.push({
        line,
        message: "the dimension is missing",
        expected: "a dimension such as ⌀2.185 ±.005",
      });
    if (typed !== "" && !/^\d{1,4}$/.test(typed))
      return void problems.push({ line, message: `${typed} is no balloon number`, expected: "a whole number" });
    const number = typed === "" ? next : Number(typed);
    if (number < 1 || taken.has(number))
      return void problems.push({ line, message: `balloon #${number} is there already`, expected: "another number" });
    const read = readLedgerLine(words, number, taken, namedIn(job), job.unit);
    if (!read.ok)
      return void problems.push({
        line,
        message: `${words}: ${read.error.message} at character ${read.error.column}`,
        expected: read.error.expected,
      });
    const zone = titled ? cell(column("zone")) : "",
      note = titled ? cell(column("note")) : "";
    for (const b of read.balloons) {
      taken.add(b.number);
      next = Math.max(next, b.number + 1);
      balloons.push({
        ...b,
        ...(/^[A-Za-z0-9-]{1,10}$/.test(zone) ? { zone: zone.toUpperCase() } : {}),
        ...(note ? { note: note.slice(0, 500) } : {}),
      });
    }
  });
  if (!parsed.data.length) problems.push({ line: 1, message: "the file is empty", expected: "one dimension a line" });
  return { balloons, problems };
}
