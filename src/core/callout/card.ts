import type { RowNames } from "../grammar/grammar";
import { jobOf, namesOf, partName } from "../job/parts";
import { partKinds } from "../job/partKinds";
import type { Job, JobDocument, Placement, Row } from "../job/schema";
import { writePoint } from "../rows/places";
import { inCallout } from "../number";
import { writeOutlineItem } from "../outline/items";
import { writeNamedPlane } from "../rows";
import { writeRowBody } from "../rows/registry";
import { isPlainHold, writeSetup } from "./setupLine";
import { writeBalloonText } from "./balloonLine";
import { writeCheck } from "../job/checkKinds";
import { writeLet, writeStock, writeTolerances } from "./headLines";

/** Text between double quotes: a quote inside is set as type. */
const quoted = (text: string): string => `"${text.replace(/"/g, "”")}"`;

/** One row as card text. */
export function writeRow(row: Row, names: RowNames): string {
  const text = writeRowBody(row.body, names);
  const [verb, rest] = [text.slice(0, text.indexOf(" ")), text.slice(text.indexOf(" ") + 1)];
  return `${row.off ? "OFF " : ""}${verb} ${row.name ? `${quoted(row.name)}: ` : ""}${rest}`;
}

/** The whole job with all its parts as canonical card text. What a card has no line for stays in the document. */
export function writeDocument(document: JobDocument): string {
  const [work, ...others] = document.parts;
  const lines = [writeCard(jobOf(document), work.name)];
  for (const part of others) {
    const job = jobOf(document, part.id);
    const material = part.material ? [writeMaterial(part.material)] : [];
    lines.push(
      [
        `PART ${quoted(partName(document, part))} ${partKinds[part.kind].word}`,
        ...material,
        ...partLines(job),
        "",
      ].join("\n"),
    );
  }
  for (const part of document.parts)
    for (const p of part.places ?? []) lines.push(`${writePlace(p, partName(document, part))}\n`);
  return lines.join("");
}

const writePlace = (p: Placement, host: string): string =>
  `PLACE ${quoted(p.part)} IN ${quoted(host)} AT ${writePoint(p.at)}${p.up ? ` UP ${p.up.toUpperCase()}` : ""}${
    p.turn === undefined ? "" : ` TURN ${inCallout(p.turn)}`
  }${p.middle ? " MIDDLE" : ""}${p.setup === undefined ? "" : ` AFTER SETUP ${p.setup}`}`;
const writeMaterial = ({ name, density }: Job["material"]): string =>
  `MATERIAL ${quoted(name)}${density === undefined ? "" : ` DENSITY ${inCallout(density)}`}`;

/** What belongs to one part: stock, outlines, planes, rows, check values. */
function partLines(job: Job, between: string[] = []): string[] {
  const names = namesOf(job);
  return [
    ...(job.stock ? [writeStock(job.stock)] : []),
    ...between,
    ...job.outlines.flatMap((o) => [
      `OUTLINE ${quoted(o.name)}`,
      ...o.items.map((i) => writeOutlineItem(i, names)),
      "END",
    ]),
    ...(job.planes ?? []).map((p) => writeNamedPlane(p, names)),
    ...job.rows.map((r) => writeRow(r, names)),
    ...(job.setups && !job.setups.every(isPlainHold) ? job.setups.map((s) => writeSetup(s, names)) : []),
    ...(job.hold && (job.setups ?? []).every(isPlainHold)
      ? [
          `HOLD VISE GRIP ${inCallout(job.hold.grip)} ACROSS ${job.hold.across.toUpperCase()}${job.hold.up === "top" ? "" : " UP BOTTOM"}`,
        ]
      : []),
    ...job.checks.map((c) => writeCheck(c, names)),
  ];
}

/** One part of a job as canonical card text. What a card has no line for (prints, waivers, crib) stays in the document. */
export function writeCard(job: Job, workName = ""): string {
  const lines = [
    `JOB ${quoted(job.name)} REV ${/^[^\s";]+$/.test(job.revision) ? job.revision : quoted(job.revision)}`,
    `UNIT ${job.unit}`,
  ];
  if (job.material.name || job.material.density) lines.push(writeMaterial(job.material));
  if (workName) lines.push(`PART ${quoted(workName)} WORK`);
  const between: string[] = [];
  if (job.title.edgeBreak !== undefined) between.push(`EDGES BREAK ${inCallout(job.title.edgeBreak)}`);
  const tolerances = writeTolerances(job.title);
  if (tolerances) between.push(tolerances);
  for (const n of job.names) between.push(writeLet(n));
  for (const b of job.balloons) between.push(`#${b.number} ${writeBalloonText(b)}`);
  lines.push(...partLines(job, between));
  return lines.join("\n") + "\n";
}
