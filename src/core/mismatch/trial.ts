import { densityOf, figuresOf, measurePart, type Evaluation } from "../evaluate/evaluate";
import type { SolidKernel } from "../engine/kernel";
import { prepare, type Prepared, type PreparedRow } from "../engine/prepare";
import { solve, Superseded, type Patience } from "../engine/solve";
import { applyEdits, type JobEdit } from "../job/edits";
import type { Job } from "../job/schema";
import { checkKindOf } from "../job/checkKinds";
import { compareChecks, type CheckResult } from "../print/checks";
import { ancestorsOf } from "../print/citations";
import { COINCIDENT } from "../geometry/tolerance";

/** Ways to try edits on a job. */
export interface Trial {
  /** Every check value with the edits; null when a row fails that did not, or the edits cannot be done. */
  exact(edits: JobEdit[]): Promise<CheckResult[] | null>;
  /**
   * The same computed only up to the last row the edits touch, what the later rows do taken as unchanged: quick, and
   * near enough to choose by.
   */
  forecast(edits: JobEdit[]): Promise<number[] | null>;
}

/**
 * Engraved lines take seconds to cut and next to nothing of the part: they are left out and what they did is added
 * again,
 * where a slip leaves them as they are or they are too small to explain anything.
 */
const isSlow = (r: PreparedRow): boolean => r.recipe !== null && "body" in r.recipe && r.recipe.body.body === "vee";

/** Rows that did less than this share of a gap do not explain it. */
const NEGLIGIBLE = 0.05;

export const makeTrial = (job: Job, base: Evaluation, kernel: SolidKernel, patience: Patience): Trial =>
  new Trials(job, base, kernel, patience);

class Trials implements Trial {
  private readonly standing: Prepared;
  private readonly failedBefore: Set<string>;
  private readonly slow: Map<string, string>;
  private slowRowsDid: Promise<number[] | null> | null = null;
  /** Check values of the job as it stands, computed up to a row. */
  private readonly known = new Map<number, CheckResult[] | null>();

  constructor(
    private readonly job: Job,
    private readonly base: Evaluation,
    private readonly kernel: SolidKernel,
    private readonly patience: Patience,
  ) {
    this.standing = prepare(job);
    this.failedBefore = new Set(base.solved.rows.filter((r) => r.state === "failed").map((r) => r.row.id));
    this.slow = new Map(this.standing.rows.filter(isSlow).map((r) => [r.row.id, JSON.stringify(r.recipe)]));
  }

  exact(edits: JobEdit[]): Promise<CheckResult[] | null> {
    return this.run(edits, Infinity);
  }

  forecast = async (edits: JobEdit[]): Promise<number[] | null> => {
    const rows = lastTouched(this.job, this.standing, edits);
    const then = await this.run(edits, rows);
    if (!this.known.has(rows)) this.known.set(rows, await this.run([], rows));
    const before = this.known.get(rows);
    return then && before
      ? this.base.checks.map((c, i) => (c.actual ?? NaN) + (then[i].actual ?? NaN) - (before[i].actual ?? NaN))
      : null;
  };

  private async run(edits: JobEdit[], rows: number): Promise<CheckResult[] | null> {
    if (this.patience.cancelled()) throw new Superseded();
    const edited = edits.length ? applyEdits(this.job, edits) : null;
    if (edited && !edited.ok) return null;
    const changed = edited?.ok ? edited.value.job : this.job;
    const all = prepare(changed);
    const upTo = all.rows.slice(0, rows);
    const did = this.slow.size ? await this.whatSlowRowsDid() : null;
    const quick = did ? upTo.filter((r) => this.isComputed(r, did)) : upTo;
    if (!did || quick.length === upTo.length) return this.measure(changed, all, upTo);
    const then = await this.measure(changed, all, quick);
    return then ? then.map((c, i) => shifted(c, did[i])) : this.measure(changed, all, upTo);
  }

  /** Quick rows are; a slow one where the slip changes it and it could explain something. */
  private isComputed(r: PreparedRow, did: number[]): boolean {
    if (!this.slow.has(r.row.id)) return true;
    const tooSmall = this.base.checks.every(
      (c, i) =>
        c.agrees || c.expected === null || Math.abs(did[i]) < NEGLIGIBLE * Math.abs((c.actual ?? 0) - c.expected),
    );
    return !tooSmall && this.slow.get(r.row.id) !== JSON.stringify(r.recipe);
  }

  private async measure(changed: Job, all: Prepared, rows: PreparedRow[]): Promise<CheckResult[] | null> {
    const isUnharmed = (r: PreparedRow) => this.failedBefore.has(r.row.id);
    const prepared = { ...all, rows };
    if (rows.some((r) => !r.row.off && !r.recipe && !isUnharmed(r))) return null;
    const solved = await solve(prepared, this.kernel, this.patience);
    const key = solved.finalKey;
    if (key === null || solved.rows.some((r) => r.state === "failed" && !isUnharmed(r))) return null;
    const density = densityOf(prepared);
    const part = measurePart(this.kernel, key, (mm3) => (density === null ? null : (mm3 * density) / 1000));
    const counted = changed.checks.some((c) => checkKindOf(c).ofFaces);
    const faces = counted ? this.kernel.faces(key) : [];
    const edges = counted ? this.kernel.edges(key) : [];
    return compareChecks(changed, figuresOf(changed, part, faces, edges), prepared.scope);
  }

  /** What the slow rows add to every check value, as the job stands. */
  private whatSlowRowsDid(): Promise<number[] | null> {
    const quick = this.standing.rows.filter((r) => !this.slow.has(r.row.id));
    return (this.slowRowsDid ??= this.measure(this.job, this.standing, quick).then(
      (without) => without && this.base.checks.map((c, i) => (c.actual ?? NaN) - (without[i].actual ?? NaN)),
    ));
  }
}

/** A check value moved by what was left out of it. */
function shifted(c: CheckResult, by: number): CheckResult {
  if (c.actual === null || !Number.isFinite(by)) return c;
  const actual = c.actual + by;
  const agrees =
    c.expected === null || c.tolerance === null
      ? c.agrees
      : Math.abs(actual - c.expected) <= c.tolerance + COINCIDENT * Math.abs(c.expected);
  return { ...c, actual, agrees };
}

/**
 * How many rows have to be computed to see what edits do: up to the last cut they touch; all of them where the piece
 * itself changes.
 */
function lastTouched(job: Job, standing: Prepared, edits: JobEdit[]): number {
  const adds = (row: number) => standing.rows[row]?.recipe?.op === "leave";
  const touched = edits.map((e) => {
    if (e.edit === "addRows") return e.at ?? job.rows.length;
    if ("id" in e) return job.rows.findIndex((r) => r.id === e.id);
    return e.edit === "setBalloon" ? lastMadeFrom(job, standing, e.number, adds) : -1;
  });
  if (!touched.length || touched.some((t) => t < 0 || !Number.isFinite(t) || adds(t))) return Infinity;
  return Math.max(...touched) + 1;
}

/**
 * The last row made from a balloon, directly or through others; -1 for none, infinite where it makes the piece
 * itself.
 */
function lastMadeFrom(job: Job, standing: Prepared, balloon: number, adds: (row: number) => boolean): number {
  const through = ancestorsOf(job, standing.scope);
  const from = (cited: number) => cited === balloon || through.get(cited)?.has(balloon);
  return standing.rows.reduce((last, r, i) => {
    const cites = [...r.numbers, ...r.outlineNumbers, ...r.planeNumbers].flatMap((n) => n.value?.cites ?? []);
    return !cites.some(from) ? last : adds(i) ? Infinity : Math.max(last, i);
  }, -1);
}
