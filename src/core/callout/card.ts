import type { RowNames } from "../grammar/grammar";
import { rowNames } from "../job/names";
import type { Job, Row } from "../job/schema";
import { inCallout } from "../number";
import { writeOutlineItem } from "../outline/items";
import { writeNamedPlane } from "../rows";
import { writeRowBody } from "../rows/registry";
import { writeBalloonText } from "./balloonLine";
import { writeCheck, writeLet, writeStock, writeTolerances } from "./headLines";

/** Text between double quotes: a quote inside is set as type. */
const quoted = (text: string): string => `"${text.replace(/"/g, "”")}"`;

/** One row as card text. */
export function writeRow(row: Row, names: RowNames): string {
  const text = writeRowBody(row.body, names);
  const [verb, rest] = [text.slice(0, text.indexOf(" ")), text.slice(text.indexOf(" ") + 1)];
  return `${row.off ? "OFF " : ""}${verb} ${row.name ? `${quoted(row.name)}: ` : ""}${rest}`;
}

/** The whole job as canonical card text. What a card has no line for (prints, waivers, crib) stays in the document. */
export function writeCard(job: Job): string {
  const names = rowNames(job.rows);
  const lines = [
    `JOB ${quoted(job.name)}${job.revision ? ` REV ${/^[^\s"]+$/.test(job.revision) ? job.revision : `"${job.revision}"`}` : ""}`,
    `UNIT ${job.unit}`,
  ];
  if (job.material.name || job.material.density)
    lines.push(
      `MATERIAL ${quoted(job.material.name)}${job.material.density === undefined ? "" : ` DENSITY ${inCallout(job.material.density)}`}`,
    );
  if (job.stock) lines.push(writeStock(job.stock));
  if (job.title.edgeBreak !== undefined) lines.push(`EDGES BREAK ${inCallout(job.title.edgeBreak)}`);
  const tolerances = writeTolerances(job.title);
  if (tolerances) lines.push(tolerances);
  for (const n of job.names) lines.push(writeLet(n));
  for (const b of job.balloons) lines.push(`#${b.number} ${writeBalloonText(b)}`);
  for (const o of job.outlines)
    lines.push(`OUTLINE ${quoted(o.name)}`, ...o.items.map((i) => writeOutlineItem(i, names)), "END");
  for (const p of job.planes ?? []) lines.push(writeNamedPlane(p, names));
  for (const r of job.rows) lines.push(writeRow(r, names));
  if (job.hold)
    lines.push(
      `HOLD VISE GRIP ${inCallout(job.hold.grip)} ACROSS ${job.hold.across.toUpperCase()}${job.hold.up === "top" ? "" : " UP BOTTOM"}`,
    );
  for (const c of job.checks) lines.push(writeCheck(c, names));
  return lines.join("\n") + "\n";
}
