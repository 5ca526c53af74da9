import { writeBalloonText } from "@/core/callout";
import { cutsNothing } from "@/core/findings/rules/rowRules";
import { madeBy } from "@/core/engine/madeBy";
import type { SolvedRow } from "@/core/engine/solve";
import { fromFrame, toFrame, type Frame, type Vec3 } from "@/core/geometry/vec";
import type { Balloon, Job, Setup } from "@/core/job/schema";
import { angleOnLathe, onLathe } from "@/core/setups/lathe";
import type { LedgerEntry } from "@/core/print/ledger";
import { showLength, type LengthUnit } from "@/core/number";
import type { Feature } from "@/core/rows";
import { threadSaid } from "@/core/tables";
import type { SheetJob } from "./pieces";
import { figures, ink, label, quiet, ruled, runs, type Piece } from "./style";

/** Lines of one table; what does not fit is counted, not dropped without a word. */
const MOST_LINES = 90;

/** What follows the views: where every hole is, what the print says, and what is not planned. */
export function tablesBelow(s: SheetJob): Piece[] {
  const { rows } = s.evaluation.solved;
  const holes = holeLines(rows, rows, s.job.unit);
  const ledger = ledgerLines(s.job, s.job.balloons, s.evaluation.ledger);
  const omitted = omittedLines(s);
  if (!holes.length && !ledger.length && !omitted.length) return [];
  return [
    {
      margin: [0, 10, 0, 0],
      columns: [
        {
          width: "*",
          stack: [label("Holes from the datum: 0,0,0 of the part"), ...table(["*", 46, 46, 46, 84], HOLE_HEAD, holes)],
        },
        { width: 14, text: "" },
        { width: "*", stack: [label("Ledger"), ...table([18, "*", 74, 46], LEDGER_HEAD, ledger)] },
      ],
    },
    ...threadLines(rows),
    label("Not planned", { margin: [0, 8, 0, 2] }),
    ...(omitted.length
      ? omitted.map((t) => ({ text: runs(t), fontSize: 8, color: ink.red }))
      : [quiet("nothing is left out")]),
  ];
}

interface SetupTables {
  setup: Setup;
  rows: SolvedRow[];
  /** All rows of the part: copies say which of them they are of. */
  all: SolvedRow[];
  datum: Frame;
  ledger: LedgerEntry[];
  marked: number[];
}

/**
 * What is measured in one setup: its holes from its own datum, and the dimensions of the print its rows are made from.
 * @param marked balloons that span a turn-over
 */
export function tablesOfSetup(job: Job, { setup, rows, all, datum, ledger, marked }: SetupTables): Piece[] {
  const isTurned = setup.machine === "lathe";
  const holes = holeLines(rows, all, job.unit, (p) => toFrame(datum, p), isTurned ? turnedFigures : placeFigures);
  const cited = new Set(rows.flatMap((r) => r.numbers.flatMap((n) => n.value?.cites ?? [])));
  const balloons = job.balloons.filter((b) => cited.has(b.number));
  const dimensions = ledgerLines(job, balloons, ledger, new Set(marked));
  return [
    {
      margin: [0, 8, 0, 0],
      columns: [
        {
          width: "*",
          stack: [
            label("Holes from this setup's datum"),
            ...table(["*", 46, 46, 46, 84], isTurned ? TURNED_HEAD : HOLE_HEAD, holes),
          ],
        },
        { width: 14, text: "" },
        {
          width: "*",
          stack: [label("Dimensions of these rows"), ...table([18, "*", 74, 82], LEDGER_HEAD, dimensions)],
        },
      ],
    },
    ...threadLines(rows),
  ];
}

/** Each thread once, with its drill and the limits of its class: what a gauge or wires are asked for. */
function threadLines(rows: SolvedRow[]): Piece[] {
  const said = rows.flatMap(({ feature }) => {
    if (feature?.is !== "hole" && feature?.is !== "thread") return [];
    if (!feature.thread) return [];
    const { drill, crest, pitch } = threadSaid(feature.thread, feature.is === "hole" ? "inside" : "outside");
    const told = [drill, crest, pitch].filter(Boolean).join(", ");
    return told ? [`${feature.thread.designation}: ${told}`] : [];
  });
  if (!said.length) return [];
  return [
    label("Threads", { margin: [0, 8, 0, 2] }),
    ...[...new Set(said)].map((text) => ({ text: runs(text), fontSize: 8 })),
  ];
}

const right = { alignment: "right" };
const HOLE_HEAD = [label("Row"), label("X", right), label("Y", right), label("Z", right), label("Hole", right)];
/** On a lathe a place is a diameter, an angle about the axis, and how far along it. */
const TURNED_HEAD = [label("Row"), label("X ⌀", right), label("Angle", right), label("Z", right), label("Hole", right)];
const LEDGER_HEAD = [label("No."), label("Dimension"), label("Limits", right), label("Proof", right)];

function table(widths: (string | number)[], head: Piece[], lines: Piece[][]): Piece[] {
  if (!lines.length) return [quiet("none")];
  const shown = lines.slice(0, MOST_LINES);
  const more = lines.length - shown.length;
  return [
    { table: { headerRows: 1, widths, body: [head, ...shown] }, layout: ruled },
    ...(more ? [quiet(`${more} more`)] : []),
  ];
}

/** A place in figures, three of them. */
type PlaceFigures = (place: Vec3, unit: LengthUnit) => string[];
const placeFigures: PlaceFigures = (p, unit) => [p.x, p.y, p.z].map((v) => showLength(v, unit));
const turnedFigures: PlaceFigures = (p, unit) => {
  const { x, z } = onLathe(p);
  const angle = angleOnLathe(p);
  return [showLength(x, unit), angle === null ? "" : `${((angle * 180) / Math.PI).toFixed(2)}°`, showLength(z, unit)];
};

/** @param seen where a place of the job lies from the sheet's datum */
function holeLines(
  rows: SolvedRow[],
  all: SolvedRow[],
  unit: LengthUnit,
  seen: (place: Vec3) => Vec3 = (p) => p,
  said: PlaceFigures = placeFigures,
): Piece[][] {
  return rows.flatMap((r) => {
    // Copies are holes like any other, under the number of the row that makes them.
    const holes = madeBy(r).flatMap(({ of, step }) => {
      const hole = holeWords(all.find((o) => o.row.id === of) ?? r, unit);
      return hole === null ? [] : step.places.map((p) => ({ hole, place: seen(fromFrame(step.frame, p)) }));
    });
    return holes.map(({ hole, place }, i) => [
      { text: holes.length > 1 ? `${r.number}.${i + 1}` : String(r.number), font: "Figures", fontSize: 7.5 },
      ...said(place, unit).map((text) => figures(text)),
      { text: runs(hole), fontSize: 8, alignment: "right" },
    ]);
  });
}

/** A hole in the fewest words: its thread or its diameter, and how deep; null for what is none. */
function holeWords({ feature }: SolvedRow, unit: LengthUnit): string | null {
  if (!isHole(feature)) return null;
  const size = feature.thread ? feature.thread.designation : `⌀${showLength(feature.diameter, unit)}`;
  // Of a tapped hole the thread is what is made here: its drilling stands with its path.
  const depth = feature.thread ? feature.thread.full : feature.depth;
  return `${size} ${depth === "thru" ? "THRU" : `↧${showLength(depth, unit)}`}`;
}
const isHole = (f: Feature | null): f is Extract<Feature, { is: "hole" }> => f?.is === "hole";

function ledgerLines(job: Job, balloons: Balloon[], ledger: LedgerEntry[], marked?: Set<number>): Piece[][] {
  return balloons.map((b) => {
    const entry = ledger.find((l) => l.number === b.number);
    const isAngle = b.kind === "angle";
    const limit = (v: number) => (isAngle ? `${((v * 180) / Math.PI).toFixed(2)}°` : showLength(v, job.unit));
    const between = entry?.low == null || entry.high == null ? "" : `${limit(entry.low)} – ${limit(entry.high)}`;
    // A basic dimension has no limits of its own.
    const limits = b.basic ? "basic" : between;
    const state = entry?.state ?? "";
    const turned = marked?.has(b.number) ? ", over a turn" : "";
    return [
      { text: String(b.number), font: "Figures", fontSize: 7.5 },
      { text: runs(writeBalloonText(b)), fontSize: 8 },
      figures(limits),
      { text: state + turned, fontSize: 8, alignment: "right", ...(state === "off" ? { color: ink.red } : {}) },
    ];
  });
}

/** Every operation the sheet has no path for: rows switched off, rows that cannot be made, cuts nobody planned. */
function omittedLines({ evaluation, plans }: SheetJob): string[] {
  const rows = evaluation.solved.rows.flatMap((r) => {
    if (r.state === "off") return [`row ${r.number} is switched off`];
    if (r.state === "failed") return [`row ${r.number} cannot be made: ${r.message}`];
    const isCopies = r.recipe?.op === "repeat" && r.removed > 0;
    const isCut = r.recipe?.op === "cut" || r.recipe?.op === "edges" || isCopies;
    return isCut && !plans.some((p) => p.rowId === r.row.id)
      ? [`row ${r.number}${isCopies ? ", its copies," : ""} has no path`]
      : [];
  });
  const missing = evaluation.findings.filter((f) => f.rule === cutsNothing.id).map((f) => `row ${f.row}: ${f.text}`);
  return [
    ...rows,
    ...missing,
    ...plans.flatMap((p) => (p.problem ? [`row ${p.row}: ${p.problem}`] : [])),
    ...plans.flatMap((p) => p.unplanned.map((u) => `row ${p.row}: ${u}`)),
  ];
}
