import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { numberScope } from "./numbers";
import type { Balloon, Job, Row } from "../job/schema";
import { rowNames } from "../job/names";
import { citedIn, evaluateNumber, toNumberText, unitNames, type NumberText, type Quantity } from "../number";
import { rowNumbers, withNumber, type RowBody } from "../rows";
import { writeBalloonText } from "../callout/balloonLine";
import { writeRow } from "../callout/card";
import { namedIn, readBalloonLine, readRowLine } from "../callout/lines";

/** Quantities that are lengths: another unit changes them. */
const isLength = (q: Quantity): boolean => q === "length" || q === "coordinate" || q === "offset";

/** Rows as text, with what another job has to know of them in remarks: the unit, and the balloons they cite. */
export function copiedText(rows: Row[], job: Job): string {
  const names = rowNames(job.rows);
  const cited = job.balloons.filter((b) => rows.some((r) => rowNumbers(r.body).some((n) => cites(n.text, b.number))));
  return [
    `; UNIT ${job.unit}`,
    ...cited.map((b) => `; #${b.number} ${writeBalloonText(b)}`),
    ...rows.map((r) => writeRow(r, names)),
    "",
  ].join("\n");
}
const cites = (text: string, number: number): boolean => citedIn(text).includes(number);

/** What copied text says of the job it is from. */
interface Origin {
  unit: Job["unit"];
  balloons: Balloon[];
}
function originOf(text: string, job: Job): Origin {
  const said = /^; UNIT (\w+)$/m.exec(text)?.[1];
  const unit = unitNames.find((u) => u === said);
  const balloons = [...text.matchAll(/^; #(\d{1,4}) (.+)$/gm)].flatMap(([, number, line]) => {
    const read = readBalloonLine(line, Number(number));
    return read.ok ? [read.balloon] : [];
  });
  return { unit: unit ?? job.unit, balloons };
}

/**
 * Rows out of copied or typed text, made this job's own: lengths of another unit keep their worth, and a balloon that
 * says something else here gives way to its number, which is asked for its source like any other.
 */
export function pastedRows(text: string, job: Job, freshId: () => string): Result<Row[]> {
  const origin = originOf(text, job);
  const lines = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter((l) => l && !l.startsWith(";"));
  const rows: Row[] = [];
  for (const [i, line] of lines.entries()) {
    const where = { earlier: [...job.rows, ...rows], unit: job.unit };
    const r = readRowLine(line, rowNames(job.rows), freshId(), namedIn(job), where);
    if (!r.ok)
      return fail(problems.copiedLineFault(i + 1, r.error.column, r.error.message), { expected: r.error.expected });
    rows.push({ ...r.row, body: madeOwn(r.row.body, origin, job) });
  }
  return ok(rows);
}

function madeOwn(body: RowBody, origin: Origin, job: Job): RowBody {
  const there = numberScope({ unit: origin.unit, balloons: origin.balloons });
  const foreign = origin.balloons.filter((b) => {
    const own = job.balloons.find((o) => o.number === b.number);
    return !own || writeBalloonText(own) !== writeBalloonText(b);
  });
  return rowNumbers(body).reduce((made, n): RowBody => {
    const strange = foreign.some((b) => cites(n.text, b.number));
    const converts = origin.unit !== job.unit && isLength(n.quantity);
    if (!strange && !converts) return made;
    const value = evaluateNumber(n.text, n.quantity, there);
    if (!value.ok) return made;
    return withNumber(made, n.path, numberIn(value.value.typed, origin.unit, converts));
  }, body);
}

/** A number as typed where it comes from; with its unit where that is another. */
const numberIn = (typed: number, unit: Job["unit"], converts: boolean): NumberText =>
  toNumberText(`${Number(typed.toPrecision(12))}${converts ? unit : ""}`);
