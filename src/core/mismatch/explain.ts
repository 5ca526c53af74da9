import { densityOf, type Evaluation } from "../evaluate/evaluate";
import type { SolidKernel } from "../engine/kernel";
import { prepare } from "../engine/prepare";
import { patient, type Patience } from "../engine/solve";
import type { Job } from "../job/schema";
import type { CheckResult } from "../print/checks";
import { likelyPairs, type Effect } from "./pairs";
import { agrees, rank, type Tried } from "./rank";
import { response } from "./response";
import type { Slip } from "./slip";
import { slipOf, targets } from "./targets";
import { makeTrial } from "./trial";
import { unusedSlips } from "./unused";
import { massSlips, wholeSlips } from "./wholes";

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
export interface Mismatch {
  check: CheckResult;
  index: number;
  explanations: Explanation[];
  tried: { numbers: number; readings: number; rows: number; pairs: number };
}

interface ExplainOptions {
  patience?: Patience;
  progress?: (done: number, of: number) => void;
  /** Told what is known so far whenever another slip that explains a check value has been computed. */
  found?: (sofar: Mismatch[]) => void;
  most?: number;
}

/** Exact trials at most, for each check value; share of the gap a forecast may be off by. */
const TRIALS = 24,
  FORECAST = 0.2,
  SHOWN = 12;
/** Forecasts that fit are computed at once, so many of them: the first answer does not wait for the last number. */
const AT_ONCE = 10;
/** Share of the gap a forecast that fits may miss by; a likely slip may miss by more. */
const FITS = 0.03;
const LIKELY = 1.2;
/** Likely slips computed though their forecast misses, for each check value that nothing explains. */
const BOLD = 12;
/** Pairs are begun no later than this after the start, ms: nobody waits longer for what is this unlikely. */
const PAIRS_UNTIL = 12_000;

/**
 * Looks for the single slip that explains each check value the model misses.
 * Every number's influence is measured with a small change; areas and volumes go with a diameter's square and with a
 * length itself, which
 * forecasts what each other reading would give, and the readings whose forecast fits are computed exactly. Counts,
 * whole rows, depths and the material are computed outright.
 */
export async function explain(
  job: Job,
  evaluation: Evaluation,
  kernel: SolidKernel,
  options: ExplainOptions = {},
): Promise<Mismatch[]> {
  const off = evaluation.checks
    .map((check, index) => ({ check, index }))
    .filter(({ check: c }) => !c.agrees && c.expected !== null && c.tolerance !== null);
  if (!off.length || !evaluation.part) return [];
  const prepared = prepare(job);
  const trial = makeTrial(job, evaluation, kernel, options.patience ?? patient);
  // In the order of the rows: what makes the piece itself explains most.
  const numbers = targets(job, prepared)
    .filter((t) => Number.isFinite(t.value) && t.value !== 0)
    .sort((a, b) => (a.row ?? Infinity) - (b.row ?? Infinity));
  const whole = [...unusedSlips(job, prepared, evaluation.part.box), ...wholeSlips(job, prepared)];
  const effects: Effect[] = [];
  let total = numbers.length + whole.length,
    done = 0;
  const step = () => options.progress?.(++done, total);
  const results: Tried[] = [];
  const computed = new Set<string>();
  const began = performance.now();
  let pairs = 0;
  const sofar = () => {
    const tried = {
      numbers: numbers.length,
      readings: numbers.reduce((n, t) => n + t.readings.length, 0),
      rows: whole.length,
      pairs,
    };
    return off.map(({ check, index }) => ({
      check,
      index,
      explanations: rank(check, index, evaluation.checks, results, options.most ?? SHOWN),
      tried,
    }));
  };
  const compute = async (slip: Slip) => {
    const key = JSON.stringify(slip.edits);
    if (computed.has(key)) return;
    computed.add(key);
    const checks = await trial.exact(slip.edits);
    if (!checks) return;
    results.push({ slip, checks });
    if (off.some(({ check, index }) => checks[index].actual !== null && agrees(check, checks[index].actual!)))
      options.found?.(sofar());
  };

  const density = densityOf(prepared);
  for (const { density: rho, ...slip } of massSlips(job, density)) {
    const mass = (evaluation.part.volume * rho!) / 1000;
    results.push({
      slip,
      checks: evaluation.checks.map((c) =>
        c.kind === "mass" && c.expected !== null ? { ...c, actual: mass, agrees: agrees(c, mass) } : c,
      ),
    });
  }

  // Forecasts: for each check value that is off, the slips that would come near it.
  const wanted = new Map<string, { slip: Slip; order: number }>();
  const fitting: { slip: Slip; cost: number }[] = [];
  const consider = (slip: () => Slip, cost: number, forecast: (check: number) => number) => {
    for (const { check, index } of off) {
      const gap = Math.abs((check.actual ?? 0) - check.expected!);
      const miss = Math.abs(forecast(index) - check.expected!);
      if (!(miss <= Math.max(2 * check.tolerance!, FORECAST * gap))) continue;
      const s = slip(),
        key = JSON.stringify(s.edits),
        order = cost + miss / gap,
        old = wanted.get(key);
      if (!old || order < old.order) wanted.set(key, { slip: s, order });
      if (miss <= Math.max(check.tolerance!, (cost <= LIKELY ? FORECAST : FITS) * gap)) fitting.push({ slip: s, cost });
    }
  };
  /** Computes the likeliest of those whose forecast fits, as long as there are few. */
  const atOnce = async () => {
    const [likeliest] = fitting.splice(0).sort((a, b) => a.cost - b.cost);
    if (likeliest && computed.size < AT_ONCE) await compute(likeliest.slip);
  };
  // The whole surface goes neither with the square nor straight: it takes a second look.
  const bent = off.some(({ check }) => check.kind === "area" && check.of === "all");
  for (const t of numbers) {
    const curve = await response(bent ? { ...t, form: "bent" } : t, trial.forecast, evaluation.checks);
    step();
    if (curve)
      for (const r of t.readings) {
        consider(
          () => slipOf(t, r),
          r.cost,
          (i) => curve(i, r.value),
        );
        effects.push({
          slip: () => slipOf(t, r),
          cost: r.cost,
          of: t,
          change: (i) => curve(i, r.value) - (evaluation.checks[i].actual ?? 0),
        });
      }
    await atOnce();
  }
  for (const slip of whole) {
    const forecast = await trial.forecast(slip.edits);
    if (forecast) {
      consider(
        () => slip,
        slip.cost,
        (i) => forecast[i],
      );
      effects.push({
        slip: () => slip,
        cost: slip.cost,
        of: slip,
        change: (i) => forecast[i] - (evaluation.checks[i].actual ?? 0),
      });
    }
    await atOnce();
    step();
  }
  const chosen = [...wanted.values()].sort((a, b) => a.order - b.order).slice(0, TRIALS * off.length);
  total += chosen.length;
  for (const { slip } of chosen) {
    await compute(slip);
    step();
  }
  const unexplained = () =>
    off.filter(
      ({ check, index }) =>
        !results.some((r) => r.checks[index].actual !== null && agrees(check, r.checks[index].actual!)),
    );
  // Where a slip changes what meets what, no small change forecasts it: the likeliest that go the right way are
  // computed all the same.
  const bold = unexplained().flatMap(({ check, index }) => theRightWay(effects, check, index));
  total += bold.length;
  for (const slip of bold) {
    await compute(slip);
    step();
  }
  // Two at once, only where no single one explains it.
  const together = unexplained().flatMap(({ check, index }) => likelyPairs(effects, check, index));
  total += together.length;
  for (const slip of together) {
    if (performance.now() - began > PAIRS_UNTIL) break;
    await compute(slip);
    pairs++;
    step();
  }
  return sofar();
}

/** Likely slips that move a check value towards what is printed, by a fair share of the gap at least. */
function theRightWay(effects: Effect[], check: CheckResult, index: number): Slip[] {
  const gap = check.expected! - (check.actual ?? 0);
  const share = (e: Effect) => e.change(index) / gap;
  return effects
    .filter((e) => e.cost <= LIKELY && share(e) > 0.25 && share(e) < 4)
    .sort((a, b) => a.cost + Math.abs(1 - share(a)) - b.cost - Math.abs(1 - share(b)))
    .slice(0, BOLD)
    .map((e) => e.slip());
}
