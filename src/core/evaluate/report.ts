import { placesInSpace } from "../engine/places";
import { writeRow, type CardError, type RowPlace } from "../callout";
import { writeBalloonText } from "../callout/balloonLine";
import { completeness } from "./complete";
import { rowNames } from "../job/names";
import { namesOf } from "../job/parts";
import type { RowNames } from "../grammar/grammar";
import type { Job } from "../job/schema";
import type { EvaluatedOutline } from "../outline/evaluateOutline";
import { writeOutlineItem, type OutlineText } from "../outline/items";
import { conflictWords, type WireConflict } from "../outline/wire";
import type { Finding } from "../findings";
import type { Vec3 } from "../geometry/vec";
import type { SolvedRow } from "../engine/solve";
import type { CheckResult } from "../print/checks";
import type { LedgerEntry } from "../print/ledger";
import type { Evaluation } from "./evaluate";
import type { EvaluatedPart } from "./parts";

/** The headless report, as the contract names it. Lengths mm, areas mm², volumes mm³, masses g, angles degrees. */
export function headlessReport(
  job: Job | null,
  evaluation: Evaluation | null,
  errors: CardError[],
  places: Map<string, RowPlace> | null,
  outlineLines: Map<string, number[]> | null = null,
  parts: EvaluatedPart[] = [],
) {
  if (!job || !evaluation)
    return {
      ok: false,
      ...errorReport(errors),
      unit: null,
      rows: [],
      part: null,
      stock: null,
      findings: [],
      ledger: [],
      checks: [],
    };
  const names = namesOf(job);
  const { solved } = evaluation;
  return {
    ok: [solved.rows, ...parts.map((p) => p.evaluation.solved.rows)].every((rows) =>
      rows.every((r) => r.state !== "failed"),
    ),
    ...errorReport([...errors, ...(places ? rowErrors(rowsOfAll(solved.rows, parts), places) : [])]),
    unit: job.unit,
    rows: solved.rows.map((r) => rowReport(r, names)),
    part: partReport(evaluation),
    stock: stockReport(evaluation),
    findings: evaluation.findings.map(findingReport),
    outlines: job.outlines.map((o) =>
      outlineReport(
        o,
        evaluation.outlines.find((e) => e.id === o.id)!,
        outlineLines?.get(o.id) ?? null,
        names,
      ),
    ),
    complete: completeness(job, evaluation),
    ledger: evaluation.ledger.map((l) => ledgerReport(whereUsed(l, parts), job)),
    checks: evaluation.checks.map(checkReport),
    parts: parts.map(({ name, kind, job: own, evaluation: e }) => ({
      name,
      kind,
      part: partReport(e),
      stock: stockReport(e),
      rows: e.solved.rows.map((r) => rowReport(r, rowNames(own.rows))),
      findings: e.findings.map(findingReport),
      ledger: e.ledger.filter((l) => l.elsewhere === undefined).map((l) => ledgerReport(l, own)),
      checks: e.checks.map(checkReport),
    })),
  };
}
const rowsOfAll = (work: SolvedRow[], parts: EvaluatedPart[]): SolvedRow[] => [
  ...work,
  ...parts.slice(1).flatMap((p) => p.evaluation.solved.rows),
];

/** Wrong lines as the contract has them; what could be typed instead stands beside them. */
export function errorReport(errors: CardError[]) {
  const suggestions = errors.flatMap(({ line, instead }) => (instead ? [{ line, instead }] : []));
  return {
    errors: errors.map(({ line, column, message, expected }) => ({ line, column, message, expected })),
    ...(suggestions.length ? { suggestions } : {}),
  };
}

const list = (p: Vec3): [number, number, number] => [p.x, p.y, p.z];

/** A row that failed at a number also says where in the text that number stands. */
function rowErrors(rows: SolvedRow[], places: Map<string, RowPlace>): CardError[] {
  return rows
    .filter((r) => r.state === "failed")
    .map((r) => {
      const p = places.get(r.row.id)!;
      return {
        line: p.line,
        column: r.failure?.path ? columnOf(p, r.failure.path) + (r.failure.at ?? 0) : 1,
        message: r.failure?.message ?? "the row failed",
        expected: r.failure?.expected ?? "",
      };
    });
}

function rowReport(r: SolvedRow, names: RowNames) {
  const places = placesInSpace(r);
  return {
    number: r.number,
    name: r.row.name ?? "",
    callout: writeRow(r.row, names),
    state: r.state,
    message: r.message,
    removed: r.removed,
    ...(places.length ? { places: places.map(list) } : {}),
    volumeAfter: r.volumeAfter,
  };
}

const partReport = ({ part }: Evaluation) =>
  part && {
    volume: part.volume,
    mass: part.mass,
    surfaceArea: part.surfaceArea,
    boundingBox: { min: list(part.box.min), max: list(part.box.max) },
    faceArea: part.faceArea,
  };

const stockReport = ({ stock }: Evaluation) =>
  stock && { volume: stock.volume, mass: stock.mass, chipMass: stock.chipMass, allowance: stock.allowance };

const findingReport = (f: Finding) => ({
  rule: f.rule,
  severity: f.severity,
  row: f.row,
  value: f.value,
  limit: f.limit,
  text: f.text,
  source: f.source,
  ...(f.waived ? { waived: f.waived } : {}),
  ...(f.place ? { place: list(f.place) } : {}),
  ...(f.places && f.places.length > 1 ? { places: f.places.map(list) } : {}),
  ...(f.fix ? { fix: f.fix.label } : {}),
});

/** A balloon as the part has it that is made from it. */
const whereUsed = (l: LedgerEntry, parts: EvaluatedPart[]): LedgerEntry => {
  const its = parts.find((p) => p.name === l.elsewhere)?.evaluation.ledger.find((x) => x.number === l.number);
  return its ? { ...its, elsewhere: l.elsewhere } : l;
};

function ledgerReport(l: LedgerEntry, job: Job) {
  const b = job.balloons.find((o) => o.number === l.number)!;
  const isAngle = b.kind === "angle";
  const out = (n: number | null) => (n === null || !isAngle ? n : (n * 180) / Math.PI);
  return {
    number: l.number,
    text: writeBalloonText(b),
    kind: b.kind,
    state: l.state,
    nominal: out(l.nominal),
    low: out(l.low),
    high: out(l.high),
    tolerance: l.tolerance,
    measured: out(l.measured),
    by: l.by,
    rows: l.rows,
    claims: l.claims.map(({ of, says, state, by }) => ({ of, says, state, by })),
    ...(l.elsewhere === undefined ? {} : { part: l.elsewhere }),
    ...(l.problem ? { problem: l.problem } : {}),
  };
}

const checkReport = (c: CheckResult) => ({
  kind: c.kind,
  ...(c.of ? { of: c.of } : {}),
  expected: c.expected,
  actual: c.actual,
  tolerance: c.tolerance,
  agrees: c.agrees,
  ...(c.problem ? { problem: c.problem } : {}),
});

/**
 * An outline as the headless command tells it: mm, mm². Lines are those of the card; without a card, items counted
 * from 1.
 */
function outlineReport(o: OutlineText, e: EvaluatedOutline, lines: number[] | null, names: RowNames) {
  const line = (item: number) => lines?.[item] ?? item + 1;
  const said = (item: number) => ({ line: line(item), text: writeOutlineItem(o.items[item], names) });
  const conflict = (c: WireConflict) => {
    const drop = c.drop.map((i) => `line ${line(i)} (${writeOutlineItem(o.items[i], names)})`).join(" or ");
    return {
      lines: c.items.map(line),
      of: c.items.map(said),
      drop: c.drop.map(said),
      text: `${conflictWords(c)}${drop && `; drop ${drop}`}`,
    };
  };
  return {
    name: o.name,
    closed: e.open.length === 0 && e.region.length > 0,
    loops: e.region.length,
    area: e.area,
    perimeter: e.perimeter,
    centroid: e.centroid && [e.centroid.x, e.centroid.y],
    boundingBox: e.box && { min: [e.box.min.x, e.box.min.y], max: [e.box.max.x, e.box.max.y] },
    degreesOfFreedom: e.wire?.freedom ?? 0,
    free: e.wire?.free ?? [],
    solved: (e.wire?.solved ?? true) && e.problems.length === 0,
    conflicts: (e.wire?.conflicts ?? []).map(conflict),
    redundant: (e.wire?.redundant ?? []).map(said),
    problems: e.problems.map((p) => ({ line: line(p.item), message: p.message, expected: p.expected ?? "" })),
    defects: e.defects.map((d) => ({ kind: d.kind, at: [d.at.x, d.at.y], text: d.words })),
    points: (e.wire?.points ?? []).map((p) => ({ name: p.name, at: [p.at.x, p.at.y] })),
  };
}

/** Column of a number by its path, or of the nearest number over it. */
function columnOf(p: RowPlace, path: string): number {
  for (let k = path; k; k = k.includes(".") ? k.slice(0, k.lastIndexOf(".")) : "") {
    const c = p.columns.get(k) ?? [...p.columns].find(([q]) => q.startsWith(`${k}.`))?.[1];
    if (c !== undefined) return c;
  }
  return 1;
}
