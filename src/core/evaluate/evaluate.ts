import type { Job } from "../job/schema";
import { dot, sideNormal, sides, type Box, type Side } from "../geometry/vec";
import { findAll } from "../findings/registry";
import type { Finding } from "../findings/finding";
import type { RuleContext } from "../findings/rule";
import type { PartFigures } from "../job/checkKinds";
import { compareChecks, type CheckResult } from "../print/checks";
import { countEdges, countHoles, floorAreaOf } from "../print/counts";
import { ledger, type LedgerEntry } from "../print/ledger";
import { keyOf } from "../base/key";
import { placeStock, type PlacedStock } from "../engine/placedStock";
import { allowanceOf, radialAllowance, type Allowance } from "../stock/stock";
import { cribFor, defaultLimits, findMaterial, type Limits } from "../tables";
import type { EvaluatedOutline } from "../outline/evaluateOutline";
import { isSameBut, unreadByFindings, unreadByLedger } from "./kept";
import type { Problem } from "../base/result";
import { valueOf } from "../engine/numbers";
import type { EdgeInfo, FaceInfo, SolidKernel } from "../engine/kernel";
import { prepare, type Prepared } from "../engine/prepare";
import { solve, type Patience, type Solved } from "../engine/solve";
import { CONTACT, PARALLEL } from "../geometry/tolerance";

interface PartReport {
  volume: number;
  mass: number | null;
  surfaceArea: number;
  box: Box;
  faceArea: Record<Side, number>;
  solids: number;
}
interface StockReport {
  volume: number;
  mass: number | null;
  chipMass: number | null;
  allowance: Allowance;
  radial: number | null;
  /** How much of the part stands out of it, mm³, where it is a solid of its own: its box does not tell. */
  outside: number | null;
  placed: PlacedStock;
}

/** Everything computed from a job, in mm, mm², mm³, g and radians. */
export interface Evaluation {
  solved: Solved;
  part: PartReport | null;
  stock: StockReport | null;
  stockProblem: Problem | null;
  density: number | null;
  findings: Finding[];
  ledger: LedgerEntry[];
  checks: CheckResult[];
  outlines: EvaluatedOutline[];
}

/** g/cm³ of a job's material: typed, or from the table that knows the name; null when neither does. */
export function densityOf(prepared: Prepared): number | null {
  const { material } = prepared.job;
  if (material.density !== undefined) {
    const r = valueOf(material.density, "plain", prepared.scope);
    return r.ok && r.value.typed > 0 ? r.value.typed : null;
  }
  return findMaterial(material.name)?.density ?? null;
}

interface Options {
  limits?: Limits;
  patience?: Patience;
  /** Told as soon as the solid stands, before anything is measured on it. */
  solved?: (finalKey: string | null) => Promise<void>;
  /** The evaluation before this one, with the same limits: what rests on nothing that changed since is taken over. */
  before?: { job: Job; evaluation: Evaluation } | null;
}

/** Remarks with what is said of a stock that cannot be made; the very same list where there is nothing to say. */
function withStock(findings: Finding[], problem: Problem | null): Finding[] {
  const isSaid = findings.some((f) => f.rule === NO_STOCK);
  if (!isSaid && !problem) return findings;
  return [...(problem ? [noStock(problem)] : []), ...findings.filter((f) => f.rule !== NO_STOCK)];
}
const NO_STOCK = "no-stock";
/** A stock that cannot be made holds nothing and stands round nothing: nobody can cut the part from it. */
const noStock = (problem: Problem): Finding => ({
  rule: NO_STOCK,
  row: null,
  rowId: null,
  severity: "stop",
  value: 0,
  limit: 0,
  place: null,
  text: `the stock cannot be made: ${problem.message}`,
  source: problem.expected ? `expected: ${problem.expected}` : "the stock as it is said",
});

/**
 * Evaluates a job through all stages. Each stage depends only on those before it; solids are kept by the kernel
 * under the key of their prefix.
 */
export async function evaluate(job: Job, kernel: SolidKernel, options: Options = {}): Promise<Evaluation> {
  const prepared = prepare(job);
  const solved = await solve(prepared, kernel, options.patience);
  const key = solved.finalKey;
  await options.solved?.(key);
  const density = densityOf(prepared);
  const mass = (mm3: number) => (density === null ? null : (mm3 * density) / 1000);
  const part = key === null ? null : measurePart(kernel, key, mass);
  const from = { kernel, solids: job.solids };
  const placed = job.stock ? placeStock(job.stock, prepared.scope, part?.box ?? null, from) : null;
  const stock = placed?.ok && part ? stockReport(placed.value, { key: key!, part, kernel, mass }) : null;
  const faces = key === null ? [] : kernel.faces(key),
    edges = key === null ? [] : kernel.edges(key);
  const before = options.before?.evaluation.solved.finalKey === key ? options.before : null;
  const still = (unread: readonly (keyof Job)[]) =>
    before && isSameBut(before.job, job, unread) ? before.evaluation : null;
  const context = key !== null && part ? contextOf({ prepared, solved, key, part, stock, kernel, options }) : null;
  return {
    outlines: solved.outlines,
    solved,
    part,
    stock,
    stockProblem: placed && !placed.ok ? placed.problems[0] : null,
    density,
    findings: withStock(
      still(unreadByFindings)?.findings ?? (context ? findAll(context) : []),
      placed && !placed.ok ? placed.problems[0] : null,
    ),
    ledger:
      still(unreadByLedger)?.ledger ??
      ledgerOf(job, ledger(job, { solved, faces, edges, part: part?.box ?? null }, prepared.scope)),
    checks: compareChecks(job, part && figuresOf(job, part, faces, edges), prepared.scope),
  };
}

interface InStock {
  key: string;
  part: PartReport;
  kernel: SolidKernel;
  mass: (mm3: number) => number | null;
}
function stockReport(placed: PlacedStock, { key, part, kernel, mass }: InStock): StockReport {
  return {
    volume: placed.volume,
    mass: mass(placed.volume),
    chipMass: mass(placed.volume - part.volume),
    allowance: allowanceOf(placed, part.box),
    radial: radialAllowance(placed, kernel.edges(key)),
    outside: placed.solid ? outsideOf(key, placed.solid.key, kernel) : null,
    placed,
  };
}

/** How much of the part stands out of a stock that is a solid of its own, mm³; null where that cannot be told. */
function outsideOf(part: string, stock: string, kernel: SolidKernel): number | null {
  const made = kernel.without(keyOf(part, { less: stock }), part, stock);
  return made.ok ? made.value.volume : null;
}

interface Measured {
  prepared: Prepared;
  solved: Solved;
  key: string;
  part: PartReport;
  stock: StockReport | null;
  kernel: SolidKernel;
  options: Options;
}
/** What the rules look at. */
function contextOf({ prepared, solved, key, part, stock, kernel, options }: Measured): RuleContext {
  const { job, scope } = prepared;
  return {
    job,
    scope,
    rows: solved.rows,
    kernel,
    key,
    faces: kernel.faces(key),
    edges: kernel.edges(key),
    partBox: part.box,
    stock: stock?.placed ?? null,
    allowance: stock?.allowance ?? null,
    radialAllowance: stock?.radial ?? null,
    outsideStock: stock?.outside ?? null,
    crib: job.crib ?? cribFor(job.unit),
    limits: options.limits ?? defaultLimits,
  };
}

/** The print is the workpiece's: of another part only the balloons it is made from are told. */
const ledgerOf = (job: Job, all: LedgerEntry[]): LedgerEntry[] =>
  job.part ? all.filter((l) => l.state !== "unused") : all;

/** The figures of a part that check values are compared with. */
export function figuresOf(job: Job, part: PartReport, faces: FaceInfo[], edges: EdgeInfo[]): PartFigures {
  const { min, max } = part.box;
  return {
    volume: part.volume,
    mass: part.mass,
    surfaceArea: part.surfaceArea,
    faceArea: part.faceArea,
    size: { x: max.x - min.x, y: max.y - min.y, z: max.z - min.z },
    edges: countEdges(edges),
    holes: countHoles(job, faces),
    floorArea: (row) => floorAreaOf(row, faces),
  };
}

export function measurePart(kernel: SolidKernel, key: string, mass: (mm3: number) => number | null): PartReport {
  const { volume, box, solids } = kernel.measure(key);
  const faces = kernel.faces(key);
  const faceArea = Object.fromEntries(
    sides.map((side) => {
      const n = sideNormal(side);
      const looking = faces.filter((f) => f.surface === "plane" && dot(f.normal, n) > PARALLEL);
      const plane = Math.max(...looking.map((f) => dot(f.point, n)));
      return [side, looking.filter((f) => dot(f.point, n) > plane - CONTACT).reduce((sum, f) => sum + f.area, 0)];
    }),
  ) as Record<Side, number>;
  return { volume, mass: mass(volume), surfaceArea: kernel.surfaceArea(key), box, faceArea, solids };
}
