import { densityOf, type Evaluation } from "../evaluate/evaluate";
import type { SolidKernel } from "../engine/kernel";
import { prepare, type Prepared } from "../engine/prepare";
import { patient, type Patience } from "../engine/solve";
import type { Job } from "../job/schema";
import type { CheckResult } from "../print/checks";
import { besides, type Beside } from "./besides";
import { likelyPairs, type Effect } from "./pairs";
import { agrees, rank, type Tried } from "./rank";
import { response } from "./response";
import type { Slip } from "./slip";
import { slipOf, targets, type Target } from "./targets";
import { makeTrial, type Trial } from "./trial";
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
  /** What else it may hang on, where no slip explains it. */
  besides: Beside[];
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
 * length itself, which forecasts what each other reading would give, and the readings whose forecast fits are computed
 * exactly. Counts, whole rows, depths and the material are computed outright.
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
  return new Search(job, { ...evaluation, part: evaluation.part }, kernel, off, options).run();
}

interface OffCheck {
  check: CheckResult;
  index: number;
}

/** The search at work: what has been forecast, what has been computed, and what is told of it. */
class Search {
  private readonly prepared: Prepared;
  private readonly trial: Trial;
  private readonly numbers: Target[];
  private readonly whole: Slip[];
  private readonly effects: Effect[] = [];
  private readonly results: Tried[] = [];
  private readonly computed = new Set<string>();
  /** Slips whose forecast comes near a check value that is off. */
  private readonly wanted = new Map<string, { slip: Slip; order: number }>();
  /** Those of them that fit, not looked at yet. */
  private readonly fitting: { slip: Slip; cost: number }[] = [];
  private readonly began = performance.now();
  private done = 0;
  private total: number;
  private pairs = 0;

  constructor(
    private readonly job: Job,
    private readonly evaluation: Evaluation & { part: NonNullable<Evaluation["part"]> },
    kernel: SolidKernel,
    private readonly off: OffCheck[],
    private readonly options: ExplainOptions,
  ) {
    this.prepared = prepare(job);
    this.trial = makeTrial(job, evaluation, kernel, options.patience ?? patient);
    // In the order of the rows: what makes the piece itself explains most.
    this.numbers = targets(job, this.prepared)
      .filter((t) => Number.isFinite(t.value) && t.value !== 0)
      .sort((a, b) => (a.row ?? Infinity) - (b.row ?? Infinity));
    this.whole = [...unusedSlips(job, this.prepared, evaluation.part.box), ...wholeSlips(job, this.prepared)];
    this.total = this.numbers.length + this.whole.length;
  }

  async run(): Promise<Mismatch[]> {
    this.weigh();
    await this.forecastNumbers();
    await this.forecastWhole();
    const chosen = [...this.wanted.values()].sort((a, b) => a.order - b.order).slice(0, TRIALS * this.off.length);
    await this.computeAll(chosen.map((c) => c.slip));
    // Where a slip changes what meets what, no small change forecasts it: the likeliest that go the right way are
    // computed all the same.
    await this.computeAll(this.unexplained().flatMap(({ check, index }) => theRightWay(this.effects, check, index)));
    await this.computePairs();
    return this.sofar();
  }

  private step(): void {
    this.options.progress?.(++this.done, this.total);
  }

  private sofar(): Mismatch[] {
    const tried = {
      numbers: this.numbers.length,
      readings: this.numbers.reduce((n, t) => n + t.readings.length, 0),
      rows: this.whole.length,
      pairs: this.pairs,
    };
    const most = this.options.most ?? SHOWN;
    return this.off.map(({ check, index }) => ({
      check,
      index,
      explanations: rank(check, index, this.evaluation.checks, this.results, most),
      tried,
      besides: besides(check, this.evaluation),
    }));
  }

  private mends = ({ check, index }: OffCheck, checks: CheckResult[]): boolean =>
    checks[index].actual !== null && agrees(check, checks[index].actual);
  private unexplained = (): OffCheck[] => this.off.filter((o) => !this.results.some((r) => this.mends(o, r.checks)));

  private async compute(slip: Slip): Promise<void> {
    const key = JSON.stringify(slip.edits);
    if (this.computed.has(key)) return;
    this.computed.add(key);
    const checks = await this.trial.exact(slip.edits);
    if (!checks) return;
    this.results.push({ slip, checks });
    if (this.off.some((o) => this.mends(o, checks))) this.options.found?.(this.sofar());
  }
  private async computeAll(slips: Slip[]): Promise<void> {
    this.total += slips.length;
    for (const slip of slips) {
      await this.compute(slip);
      this.step();
    }
  }
  /** Two at once, only where no single one explains it. */
  private async computePairs(): Promise<void> {
    const together = this.unexplained().flatMap(({ check, index }) => likelyPairs(this.effects, check, index));
    this.total += together.length;
    for (const slip of together) {
      if (performance.now() - this.began > PAIRS_UNTIL) break;
      await this.compute(slip);
      this.pairs++;
      this.step();
    }
  }

  /** Another material changes the mass alone: nothing has to be computed for it. */
  private weigh(): void {
    for (const { density, ...slip } of massSlips(this.job, densityOf(this.prepared))) {
      const mass = (this.evaluation.part.volume * density!) / 1000;
      const checks = this.evaluation.checks.map((c) =>
        c.kind === "mass" && c.expected !== null ? { ...c, actual: mass, agrees: agrees(c, mass) } : c,
      );
      this.results.push({ slip, checks });
    }
  }

  private async forecastNumbers(): Promise<void> {
    const { checks } = this.evaluation;
    // The whole surface goes neither with the square nor straight: it takes a second look.
    const bent = this.off.some(({ check }) => check.kind === "area" && check.of === "all");
    for (const t of this.numbers) {
      const curve = await response(bent ? { ...t, form: "bent" } : t, this.trial.forecast, checks);
      this.step();
      for (const r of curve ? t.readings : [])
        this.consider(
          () => slipOf(t, r),
          r.cost,
          t,
          (i) => curve!(i, r.value),
        );
      await this.computeBest();
    }
  }

  private async forecastWhole(): Promise<void> {
    for (const slip of this.whole) {
      const forecast = await this.trial.forecast(slip.edits);
      if (forecast)
        this.consider(
          () => slip,
          slip.cost,
          slip,
          (i) => forecast[i],
        );
      await this.computeBest();
      this.step();
    }
  }

  /** Takes down what a slip would change, and wants it computed where that comes near a check value that is off. */
  private consider(slip: () => Slip, cost: number, of: Effect["of"], forecast: (check: number) => number): void {
    const change = (i: number) => forecast(i) - (this.evaluation.checks[i].actual ?? 0);
    this.effects.push({ slip, cost, of, change });
    for (const { check, index } of this.off) {
      const gap = Math.abs((check.actual ?? 0) - check.expected!);
      const miss = Math.abs(forecast(index) - check.expected!);
      if (!(miss <= Math.max(2 * check.tolerance!, FORECAST * gap))) continue;
      const s = slip(),
        key = JSON.stringify(s.edits),
        order = cost + miss / gap,
        old = this.wanted.get(key);
      if (!old || order < old.order) this.wanted.set(key, { slip: s, order });
      const share = cost <= LIKELY ? FORECAST : FITS;
      if (miss <= Math.max(check.tolerance!, share * gap)) this.fitting.push({ slip: s, cost });
    }
  }
  /** Computes the likeliest of those whose forecast fits, as long as there are few. */
  private async computeBest(): Promise<void> {
    const [likeliest] = this.fitting.splice(0).sort((a, b) => a.cost - b.cost);
    if (likeliest && this.computed.size < AT_ONCE) await this.compute(likeliest.slip);
  }
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
