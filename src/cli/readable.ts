import type { Evaluation } from "@/core/evaluate/evaluate";
import { placesInSpace } from "@/core/engine/places";
import { writeRow } from "@/core/callout";
import { rowNames } from "@/core/job/names";
import type { Job } from "@/core/job/schema";
import { conflictWords } from "@/core/outline/wire";
import { slipWords, type Mismatch, type Slip } from "@/core/mismatch";
import { type LengthUnit, showArea, showLength, showMass, showVolume } from "@/core/number";
import { checkFigure, type CheckResult } from "@/core/print/checks";

/** A short report for people: rows with what they take, the part, the stock, remarks, ledger and check values. */
export function readableReport(job: Job, e: Evaluation): string {
  const volume = (mm3: number) => showVolume(mm3, job.unit);
  const weight = (grams: number) => massText(grams, job.unit);
  const names = rowNames(job.rows);
  const lines = [
    `${job.name}, rev ${job.revision} (${job.unit}${job.material.name ? `, ${job.material.name}` : ""})`,
    "",
  ];
  for (const r of e.solved.rows) {
    lines.push(
      `${String(r.number).padStart(3)}  ${writeRow(r.row, names)}${r.state === "ok" ? `   [${r.removed >= 0 ? "takes" : "adds"} ${volume(Math.abs(r.removed))}]` : r.state === "off" ? "   [off]" : ""}`,
    );
    if (r.state === "failed") lines.push(`     failed: ${r.message}`);
    const places = placesInSpace(r);
    if (places.length)
      lines.push(
        `     at X Y Z ${places
          .slice(0, 6)
          .map((p) => [p.x, p.y, p.z].map((v) => showLength(v, job.unit)).join(" "))
          .join("; ")}${places.length > 6 ? `; ${places.length - 6} more` : ""}`,
      );
    for (const f of e.findings.filter((x) => x.row === r.number))
      lines.push(
        `     ${f.severity}: ${f.text} (${f.source})${f.waived ? ` waived: ${f.waived}` : f.fix ? ` [fix: ${f.fix.label}]` : f.question ? ` [${f.question}]` : ""}`,
      );
  }
  for (const f of e.findings.filter((x) => x.row === null)) lines.push(`     ${f.severity}: ${f.text} (${f.source})`);
  for (const o of e.outlines) {
    lines.push(
      `outline "${o.name}": ${o.region.length ? `area ${showArea(o.area, job.unit)}` : "open"}, ${o.wire?.freedom ?? 0} free${o.wire?.free.length ? `: ${o.wire.free.join("; ")}` : ""}`,
    );
    for (const c of o.wire?.conflicts ?? []) lines.push(`     conflict: ${conflictWords(c)}`);
    for (const p of o.problems) lines.push(`     item ${p.item + 1}: ${p.message}`);
  }
  if (e.part)
    lines.push("", `part   ${volume(e.part.volume)}${e.part.mass === null ? "" : `, ${weight(e.part.mass)}`}`);
  if (e.stock)
    lines.push(
      `stock  ${volume(e.stock.volume)}${e.stock.chipMass === null ? "" : `, chips ${weight(e.stock.chipMass)}`}; to clean up: ${Object.entries(
        e.stock.allowance,
      )
        .map(([s, v]) => `${s} ${showLength(v, job.unit)}`)
        .join(", ")}`,
    );
  const states = new Map<string, number>();
  for (const l of e.ledger) states.set(l.state, (states.get(l.state) ?? 0) + 1);
  if (e.ledger.length) lines.push(`ledger ${[...states].map(([s, n]) => `${n} ${s}`).join(", ")}`);
  for (const c of e.checks)
    lines.push(
      `check  ${c.kind}${c.of ? ` ${c.of}` : ""}: ${c.agrees ? "agrees" : "off"} (${figureText(c, c.expected, job.unit)} printed, ${figureText(c, c.actual, job.unit)} in the model)`,
    );
  return lines.join("\n");
}

/** The mismatch finder for people: each check value that is off, and the slips that would explain it. */
export function readableExplanations(job: Job, e: Evaluation, found: Mismatch[]): string {
  if (!e.checks.length) return "the card has no check values";
  if (!found.length) return e.part ? "every check value agrees" : "there is no part to compare";
  return found
    .map(({ check: c, explanations, tried }) =>
      [
        `${c.kind}${c.of ? ` ${c.of}` : ""}: ${figureText(c, c.expected, job.unit)} printed, ${figureText(c, c.actual, job.unit)} in the model`,
        ...(explanations.length
          ? explanations.map(
              (x) =>
                `  ${x.rank}. ${x.second ? `two slips: ${slipText(x)}, and ${slipText(x.second)}` : slipText(x)} gives ${figureText(c, x.value, job.unit)}${x.agrees ? "" : " (near, not within the tolerance)"}${x.alsoMends ? ", mends others too" : ""}`,
            )
          : [
              `  no slip explains it: ${tried.readings} readings of ${tried.numbers} numbers, ${tried.rows} rows and counts and ${tried.pairs} pairs were tried`,
            ]),
      ].join("\n"),
    )
    .join("\n");
}

const slipText = (x: Slip): string =>
  `${slipWords[x.kind]}: ${x.row === null ? "" : `row ${x.row} `}${x.balloon === undefined ? x.field : `#${x.balloon}`} ${x.from} -> ${x.to}`;

const massText = (grams: number, unit: LengthUnit): string => {
  const { text, name } = showMass(grams, unit);
  return `${text} ${name}`;
};

const figureText = (c: CheckResult, value: number | null, unit: LengthUnit): string =>
  value === null ? "nothing" : checkFigure(c, value, unit);
