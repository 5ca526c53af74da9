import type { Evaluation } from "@/core/evaluate/evaluate";
import type { SolvedRow } from "@/core/engine/solve";
import { placesInSpace } from "@/core/engine/places";
import type { Finding } from "@/core/findings";
import { writeRow } from "@/core/callout";
import { rowNames } from "@/core/job/names";
import type { Job } from "@/core/job/schema";
import { conflictWords } from "@/core/outline/wire";
import {
  besideWords,
  isNoSlip,
  slipWords,
  type Beside,
  type Explanation,
  type Mismatch,
  type Slip,
} from "@/core/mismatch";
import { type LengthUnit, showArea, showLength, showMass, showVolume } from "@/core/number";
import { checkFigure, type CheckResult } from "@/core/print/checks";

/** Places of a row that are named one by one. */
const MOST_PLACES = 6;

/** A short report for people: rows with what they take, the part, the stock, remarks, ledger and check values. */
export function readableReport(job: Job, e: Evaluation): string {
  const whole = e.findings.filter((f) => f.row === null);
  return [
    `${job.name}, rev ${job.revision} (${[job.unit, job.material.name].filter(Boolean).join(", ")})`,
    "",
    ...e.solved.rows.flatMap((r) => rowLines(r, job, e)),
    ...whole.map((f) => `     ${f.severity}: ${f.text} (${f.source})`),
    ...e.outlines.flatMap((o) => outlineLines(o, job.unit)),
    ...partLines(e, job.unit),
    ...ledgerLines(e),
    ...e.checks.map((c) => `check  ${checkText(c, c.agrees ? "agrees" : "off", job.unit)}`),
  ].join("\n");
}

function rowLines(r: SolvedRow, job: Job, e: Evaluation): string[] {
  const remarks = e.findings.filter((f) => f.row === r.number);
  const where = placesText(r, job.unit);
  return [
    `${String(r.number).padStart(3)}  ${writeRow(r.row, rowNames(job.rows))}${takenText(r, job.unit)}`,
    ...(r.state === "failed" ? [`     failed: ${r.message}`] : []),
    ...(where ? [`     at X Y Z ${where}`] : []),
    ...remarks.map((f) => `     ${f.severity}: ${f.text} (${f.source})${remedyText(f)}`),
  ];
}

function takenText(r: SolvedRow, unit: LengthUnit): string {
  if (r.state === "off") return "   [off]";
  if (r.state === "failed") return "";
  return `   [${r.removed >= 0 ? "takes" : "adds"} ${showVolume(Math.abs(r.removed), unit)}]`;
}

function placesText(r: SolvedRow, unit: LengthUnit): string {
  const places = placesInSpace(r);
  const shown = places.slice(0, MOST_PLACES).map((p) => [p.x, p.y, p.z].map((v) => showLength(v, unit)).join(" "));
  const more = places.length - shown.length;
  return [...shown, ...(more > 0 ? [`${more} more`] : [])].join("; ");
}

/** What can be done about a remark, or why it was let pass. */
function remedyText(f: Finding): string {
  if (f.waived) return ` waived: ${f.waived}`;
  if (f.fix) return ` [fix: ${f.fix.label}]`;
  return f.question ? ` [${f.question}]` : "";
}

function outlineLines(o: Evaluation["outlines"][number], unit: LengthUnit): string[] {
  const size = o.region.length ? `area ${showArea(o.area, unit)}` : "open";
  const free = o.wire?.free.length ? `: ${o.wire.free.join("; ")}` : "";
  return [
    `outline "${o.name}": ${size}, ${o.wire?.freedom ?? 0} free${free}`,
    ...(o.wire?.conflicts ?? []).map((c) => `     conflict: ${conflictWords(c)}`),
    ...o.problems.map((p) => `     item ${p.item + 1}: ${p.message}`),
  ];
}

/** The part and the stock it is cut from. */
function partLines({ part, stock, stockProblem }: Evaluation, unit: LengthUnit): string[] {
  const weighed = (mm3: number, grams: number | null, what = "") =>
    [showVolume(mm3, unit), ...(grams === null ? [] : [`${what}${massText(grams, unit)}`])].join(", ");
  const lines = part ? ["", `part   ${weighed(part.volume, part.mass)}`] : [];
  if (stockProblem) lines.push(`stock  ${stockProblem.message}`);
  if (!stock) return lines;
  const allowance = Object.entries(stock.allowance).map(([side, v]) => `${side} ${showLength(v, unit)}`);
  lines.push(`stock  ${weighed(stock.volume, stock.chipMass, "chips ")}; to clean up: ${allowance.join(", ")}`);
  return lines;
}

function ledgerLines(e: Evaluation): string[] {
  const states = new Map<string, number>();
  for (const l of e.ledger) states.set(l.state, (states.get(l.state) ?? 0) + 1);
  return e.ledger.length ? [`ledger ${[...states].map(([state, n]) => `${n} ${state}`).join(", ")}`] : [];
}

const nameOf = (c: CheckResult): string => [c.kind, c.of].filter(Boolean).join(" ");
const printedAndModel = (c: CheckResult, unit: LengthUnit): string =>
  `${figureText(c, c.expected, unit)} printed, ${figureText(c, c.actual, unit)} in the model`;
const checkText = (c: CheckResult, how: string, unit: LengthUnit): string =>
  `${nameOf(c)}: ${how} (${printedAndModel(c, unit)})`;

/** The mismatch finder for people: each check value that is off, and the slips that would explain it. */
export function readableExplanations(job: Job, e: Evaluation, found: Mismatch[]): string {
  if (!e.checks.length) return "the card has no check values";
  if (!found.length) return e.part ? "every check value agrees" : "there is no part to compare";
  return found.flatMap((m) => mismatchLines(m, job.unit)).join("\n");
}

function mismatchLines({ check, explanations, tried, besides, left }: Mismatch, unit: LengthUnit): string[] {
  const wordsOf = (list: Beside[]): string => list.map(besideWords).join("; ");
  const noSlip = besides.filter(isNoSlip);
  const others = besides.filter((b) => !isNoSlip(b));
  const numbers = `${tried.readings} readings of ${tried.numbers} numbers`;
  const none = `  no slip explains it: ${numbers}, ${tried.rows} rows and counts and ${tried.pairs} pairs were tried`;
  const isExplained = explanations.some((x) => x.agrees);
  return [
    `${nameOf(check)}: ${printedAndModel(check, unit)}`,
    ...(noSlip.length ? [`  it may be no slip: ${wordsOf(noSlip)}`] : []),
    ...(isExplained ? [] : [none]),
    ...(!isExplained && others.length ? [`  what else it may hang on: ${wordsOf(others)}`] : []),
    ...explanations.map((x) => explanationText(x, check, unit)),
    ...(left ? [`  the time for one search was out: ${left} of its trials not made`] : []),
  ];
}

function explanationText(x: Explanation, check: CheckResult, unit: LengthUnit): string {
  const slips = x.second ? `two slips: ${slipText(x)}, and ${slipText(x.second)}` : slipText(x);
  const near = x.agrees ? "" : " (near, not within the tolerance)";
  const others = x.alsoMends ? ", mends others too" : "";
  return `  ${x.rank}. ${slips} gives ${figureText(check, x.value, unit)}${near}${others}`;
}

function slipText(x: Slip): string {
  const row = x.row === null ? "" : `row ${x.row} `;
  const what = x.balloon === undefined ? x.field : `#${x.balloon}`;
  return `${slipWords[x.kind]}: ${row}${what} ${x.from} -> ${x.to}`;
}

const massText = (grams: number, unit: LengthUnit): string => {
  const { text, name } = showMass(grams, unit);
  return `${text} ${name}`;
};

const figureText = (c: CheckResult, value: number | null, unit: LengthUnit): string =>
  value === null ? "nothing" : checkFigure(c, value, unit);
