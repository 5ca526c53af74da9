import { densityOf, figuresOf, measurePart, type Evaluation } from '../engine/evaluate';
import type { SolidKernel } from '../engine/kernel';
import { prepare } from '../engine/prepare';
import { patient, solve, Superseded, type Patience } from '../engine/solve';
import { applyEdits, type JobEdit } from '../job/edits';
import type { Job } from '../job/schema';
import { compareChecks, type CheckResult } from '../print/checks';
import type { Slip } from './slip';
import { slipOf, targets, type Target } from './targets';
import { likelyPairs, type Effect } from './pairs';
import { unusedSlips } from './unused';
import { massSlips, wholeSlips } from './wholes';

/** One slip that would explain a check value, with what the model would then have. */
export interface Explanation extends Slip {
  rank: number;
  /** The check value under the slip, and how far it is from the printed one. mm, mm², mm³, g. */
  value: number;
  residual: number;
  /** Whether the check value then agrees. */
  agrees: boolean;
  /** How many of the other check values that are off would then agree too. */
  alsoMends: number;
}
/** A check value that is off, and the slips that would explain it, the likeliest first; how much was looked at. */
export interface Mismatch { check: CheckResult; index: number; explanations: Explanation[]; tried: { numbers: number; readings: number; rows: number; pairs: number } }

export interface ExplainOptions { patience?: Patience; progress?: (done: number, of: number) => void; most?: number }

/** Exact trials at most, for each check value; share of the gap a forecast may be off by. */
const TRIALS = 24, FORECAST = 0.2, SHOWN = 12;

/**
 * Looks for the single slip that explains each check value the model misses.
 * Every number's influence is measured with a small change; areas and volumes go with a diameter's square and with a length itself, which
 * forecasts what each other reading would give, and the readings whose forecast fits are computed exactly. Counts, whole rows, depths and the material are computed outright.
 */
export async function explain(job: Job, evaluation: Evaluation, kernel: SolidKernel, options: ExplainOptions = {}): Promise<Mismatch[]> {
  const off = evaluation.checks.map((check, index) => ({ check, index })).filter(({ check: c }) => !c.agrees && c.expected !== null && c.tolerance !== null);
  if (!off.length || !evaluation.part) return [];
  const prepared = prepare(job);
  const trial = makeTrial(job, evaluation, kernel, options.patience ?? patient);
  const numbers = targets(job, prepared).filter((t) => Number.isFinite(t.value) && t.value !== 0);
  const whole = [...unusedSlips(job, prepared, evaluation.part.box), ...wholeSlips(job, prepared)];
  const effects: Effect[] = [];
  let total = numbers.length + whole.length, done = 0;
  const step = () => options.progress?.(++done, total);
  const results: { slip: Slip; checks: CheckResult[] }[] = [];

  const density = densityOf(prepared);
  for (const { density: rho, ...slip } of massSlips(job, density)) {
    const mass = (evaluation.part.volume * rho!) / 1000;
    results.push({ slip, checks: evaluation.checks.map((c) => (c.kind === 'mass' && c.expected !== null ? { ...c, actual: mass, agrees: agrees(c, mass) } : c)) });
  }

  // Forecasts: for each check value that is off, the slips that would come near it.
  const wanted = new Map<string, { slip: Slip; order: number }>();
  const consider = (slip: () => Slip, cost: number, forecast: (check: number) => number) => {
    for (const { check, index } of off) {
      const gap = Math.abs((check.actual ?? 0) - check.expected!);
      const miss = Math.abs(forecast(index) - check.expected!);
      if (!(miss <= Math.max(2 * check.tolerance!, FORECAST * gap))) continue;
      const s = slip(), key = JSON.stringify(s.edits), order = cost + miss / gap, old = wanted.get(key);
      if (!old || order < old.order) wanted.set(key, { slip: s, order });
    }
  };
  for (const slip of whole) {
    const forecast = await trial.forecast(slip.edits);
    if (forecast) {
      consider(() => slip, slip.cost, (i) => forecast[i]);
      effects.push({ slip: () => slip, cost: slip.cost, of: slip, change: (i) => forecast[i] - (evaluation.checks[i].actual ?? 0) });
    }
    step();
  }
  // The whole surface goes neither with the square nor straight: it takes a second look.
  const bent = off.some(({ check }) => check.kind === 'area' && check.of === 'all');
  for (const t of numbers) {
    const curve = await response(bent ? { ...t, form: 'bent' } : t, trial.forecast, evaluation.checks);
    step();
    if (curve) for (const r of t.readings) {
      consider(() => slipOf(t, r), r.cost, (i) => curve(i, r.value));
      effects.push({ slip: () => slipOf(t, r), cost: r.cost, of: t, change: (i) => curve(i, r.value) - (evaluation.checks[i].actual ?? 0) });
    }
  }
  const chosen = [...wanted.values()].sort((a, b) => a.order - b.order).slice(0, TRIALS * off.length);
  total += chosen.length;
  for (const { slip } of chosen) {
    const checks = await trial.exact(slip.edits);
    if (checks) results.push({ slip, checks });
    step();
  }
  // Two at once, only where no single one explains it.
  const alone = off.filter(({ check, index }) => !results.some((r) => r.checks[index].actual !== null && agrees(check, r.checks[index].actual!)));
  const pairs = alone.flatMap(({ check, index }) => likelyPairs(effects, check, index));
  total += pairs.length;
  for (const slip of pairs) {
    const checks = await trial.exact(slip.edits);
    if (checks) results.push({ slip, checks });
    step();
  }
  const tried = { numbers: numbers.length, readings: numbers.reduce((n, t) => n + t.readings.length, 0), rows: whole.length, pairs: pairs.length };
  return off.map(({ check, index }) => ({ check, index, explanations: rank(check, index, evaluation.checks, results, options.most ?? SHOWN), tried }));
}

/**
 * Ways to try edits. `exact` computes the whole job; null when a row fails that did not, or the edits cannot be done.
 * `forecast` computes the rows up to the last one the edits touch and takes what the later rows do as unchanged: quick, and near enough to choose by.
 */
function makeTrial(job: Job, base: Evaluation, kernel: SolidKernel, patience: Patience) {
  const failedBefore = new Set(base.solved.rows.filter((r) => r.state === 'failed').map((r) => r.row.id));
  const upTo = new Map<number, CheckResult[] | null>();
  const run = async (edits: JobEdit[], rows: number): Promise<CheckResult[] | null> => {
    if (patience.cancelled()) throw new Superseded();
    const edited = edits.length ? applyEdits(job, edits) : null;
    if (edited && !edited.ok) return null;
    const changed = edited?.ok ? edited.value.job : job;
    const all = prepare(changed);
    const prepared = { ...all, rows: all.rows.slice(0, rows) };
    if (prepared.rows.some((r) => !r.row.off && !r.recipe && !failedBefore.has(r.row.id))) return null;
    const solved = await solve(prepared, kernel, patience);
    const key = solved.finalKey;
    if (key === null || solved.rows.some((r) => r.state === 'failed' && !failedBefore.has(r.row.id))) return null;
    const density = densityOf(prepared);
    const part = measurePart(kernel, key, (mm3) => (density === null ? null : (mm3 * density) / 1000));
    const counted = changed.checks.some((c) => c.kind === 'edges' || c.kind === 'holes' || c.kind === 'floorArea');
    return compareChecks(changed, figuresOf(changed, part, counted ? kernel.faces(key) : [], counted ? kernel.edges(key) : []), prepared.scope);
  };
  const exact = (edits: JobEdit[]) => run(edits, Infinity);
  const forecast = async (edits: JobEdit[]): Promise<number[] | null> => {
    const rows = lastTouched(job, edits);
    const then = await run(edits, rows);
    if (!upTo.has(rows)) upTo.set(rows, await run([], rows));
    const before = upTo.get(rows);
    return then && before ? base.checks.map((c, i) => (c.actual ?? NaN) + (then[i].actual ?? NaN) - (before[i].actual ?? NaN)) : null;
  };
  return { exact, forecast };
}

/** How many rows have to be computed to see what edits do: up to the last cut they touch; all of them where the piece itself changes. */
function lastTouched(job: Job, edits: JobEdit[]): number {
  const touched = edits.map((e) => {
    if (e.edit === 'addRows') return e.at ?? job.rows.length;
    if ('id' in e) return job.rows.findIndex((r) => r.id === e.id);
    if (e.edit === 'setBalloon') {
      // Rows that cite it; one that drives others through it is computed whole.
      const cites = new RegExp(`#${e.number}(?!\\d)`);
      return job.balloons.some((b) => b.number !== e.number && cites.test(b.value ?? '')) || job.names.some((n) => cites.test(n.value)) ? -1 : job.rows.reduce((last, r, i) => (cites.test(JSON.stringify(r.body)) ? (first(job, i) ? Infinity : Math.max(last, i)) : last), -1);
    }
    return -1;
  });
  if (!touched.length || touched.some((t) => t < 0 || !Number.isFinite(t) || first(job, t))) return Infinity;
  return Math.max(...touched) + 1;
}
const first = (job: Job, row: number): boolean => row < job.rows.length && job.rows[row].body.kind.startsWith('leave');

/** How every check value answers to one number, from one look close by (two for an angle). Null where nothing can be computed or nothing changes. */
async function response(t: Target, trial: (e: JobEdit[]) => Promise<number[] | null>, now: CheckResult[]): Promise<((check: number, value: number) => number) | null> {
  const h = Math.abs(t.value) * 0.004;
  const at = async (v: number) => trial(t.set(v.toFixed(9)));
  const [more, by] = await (async () => {
    const up = await at(t.value + h);
    return up ? [up, h] as const : [await at(t.value - h), -h] as const;
  })();
  if (!more) return null;
  // A number no check value depends on needs no second look.
  if (more.every((c, i) => Math.abs(c - (now[i].actual ?? 0)) < 1e-9 * Math.abs(now[i].actual ?? 1))) return null;
  const form = t.form === 'square' ? (v: number) => v * v : (v: number) => v;
  const less = t.form === 'bent' ? await at(t.value - by) : null;
  return (check, value) => {
    const f0 = now[check].actual ?? NaN, f1 = more[check];
    if (!less) return f0 + ((f1 - f0) * (form(value) - form(t.value))) / (form(t.value + by) - form(t.value));
    const f2 = less[check], d = value - t.value;
    return f0 + ((f1 - f2) / (2 * by)) * d + (((f1 - 2 * f0 + f2) / (by * by)) * d * d) / 2;
  };
}

const agrees = (c: CheckResult, actual: number): boolean => Math.abs(actual - c.expected!) <= c.tolerance! + 1e-9 * Math.abs(c.expected!);

/** Orders what was tried: likely slips first, those that mend other check values too before those that break one. */
function rank(check: CheckResult, index: number, now: CheckResult[], results: { slip: Slip; checks: CheckResult[] }[], most: number): Explanation[] {
  const gap = Math.abs((check.actual ?? 0) - check.expected!) || Infinity;
  const scored = results.flatMap(({ slip, checks }) => {
    const value = checks[index].actual;
    if (value === null || checks[index].expected !== check.expected) return [];
    const residual = value - check.expected!;
    const good = agrees(check, value);
    if (!good && Math.abs(residual) > 0.2 * gap) return [];
    const mends = checks.filter((c, i) => i !== index && !now[i].agrees && c.agrees).length;
    const breaks = checks.filter((c, i) => now[i].agrees && !c.agrees).length;
    const left = now.filter((c, i) => i !== index && !c.agrees).length - mends;
    const score = slip.cost + 0.4 * Math.min(1, Math.abs(residual) / Math.max(check.tolerance!, 1e-9)) + (good ? 0 : 3 + Math.abs(residual) / gap) + 2 * breaks + 0.5 * left - mends;
    return [{ e: { ...slip, rank: 0, value, residual, agrees: good, alsoMends: mends } satisfies Explanation, score }];
  });
  scored.sort((a, b) => a.score - b.score);
  const seen = new Set<string>();
  const out: Explanation[] = [];
  for (const { e } of scored) {
    // A pair that does not agree explains nothing.
    if (e.second && !e.agrees) continue;
    // The same change said twice (a balloon and the row it drives) is said once.
    const key = `${e.row}|${e.field}|${e.to}|${e.second ? `${e.second.row}|${e.second.field}|${e.second.to}` : ''}`;
    if (seen.has(key)) continue;
    seen.add(key);
    if (out.length && !e.agrees && out.some((o) => o.agrees) && out.length >= 5) break;
    out.push({ ...e, rank: out.length + 1 });
    if (out.length >= most) break;
  }
  return out;
}
