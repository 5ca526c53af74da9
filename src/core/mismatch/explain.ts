import { densityOf, type Evaluation } from "../evaluate/evaluate";
import type { SolidKernel } from "../engine/kernel";
import { prepare, type Prepared } from "../engine/prepare";
import { valueOf } from "../engine/numbers";
import { edgeBreak } from "../findings/rules/jobRules";
import { length, sub } from "../geometry/vec";
import { patient, Superseded, type Patience } from "../engine/solve";
import type { Job } from "../job/schema";
import { lastDigitOf, type CheckResult } from "../print/checks";
import { besides, type Beside, type FigureGrounds } from "./besides";
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
  /** Trials that were not made: the search ends in time, whatever the part. */
  left: number;
  /** What else it may hang on, where no slip explains it. */
  besides: Beside[];
}

interface ExplainOptions {
  patience?: Patience;
  progress?: (done: number, of: number) => void;
  /** Told what is known so far whenever another slip that explains a check value has been computed. */
  found?: (sofar: Mismatch[]) => void;
  most?: number;
  /** After so long the search ends with what it has, ms. */
  until?: number;
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
/** The whole search takes no longer, ms; the shares of it after which nothing more is forecast, and no pair begun. */
const UNTIL = 15_000;
const FORECAST_UNTIL = 0.55,
  PAIRS_UNTIL = 0.8;
/** What is likeliest before anything is forecast is computed first, so much of it. */
const SUSPECTS = 8;
const SUSPECT = 1;

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
  private readonly until: number;
  private readonly toBreak: FigureGrounds["toBreak"];
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
    this.until = options.until ?? UNTIL;
    this.trial = makeTrial(
      job,
      evaluation,
      kernel,
      inTime(options.patience ?? patient, () => this.isLate(1)),
    );
    this.toBreak = edgesToBreak(job, evaluation, this.prepared);
    const proved = new Set(evaluation.ledger.filter((l) => l.state === "proved").map((l) => l.number));
    // In the order of the rows: what makes the piece itself explains most. What is proved is doubted last.
    this.numbers = targets(job, this.prepared, proved)
      .filter((t) => Number.isFinite(t.value) && t.value !== 0)
      .sort(
        (a, b) => Number(a.proved ?? false) - Number(b.proved ?? false) || (a.row ?? Infinity) - (b.row ?? Infinity),
      );
    this.whole = [...unusedSlips(job, this.prepared, evaluation.part.box), ...wholeSlips(job, this.prepared)];
    this.total = this.numbers.length + this.whole.length;
  }

  private isLate = (share: number): boolean => performance.now() - this.began > share * this.until;

  async run(): Promise<Mismatch[]> {
    try {
      await this.search();
    } catch (e) {
      // The search's own end is no withdrawal: what it has is told.
      if (!(e instanceof Superseded) || this.options.patience?.cancelled()) throw e;
    }
    return this.sofar();
  }

  private async search(): Promise<void> {
    this.weigh();
    await this.computeAll(this.suspects());
    await this.forecastNumbers();
    await this.forecastWhole();
    const chosen = [...this.wanted.values()].sort((a, b) => a.order - b.order).slice(0, TRIALS * this.off.length);
    await this.computeAll(chosen.map((c) => c.slip));
    // Where a slip changes what meets what, no small change forecasts it: the likeliest that go the right way are
    // computed all the same.
    await this.computeAll(this.unexplained().flatMap(({ check, index }) => theRightWay(this.effects, check, index)));
    await this.computePairs();
  }

  /** What is likely whatever it would do: a balloon nothing uses, and a number that is a misread one of those. */
  private suspects(): Slip[] {
    const misread = this.numbers.flatMap((t) => t.readings.filter((r) => r.cost < SUSPECT).map((r) => slipOf(t, r)));
    const forgotten = this.whole.filter((s) => s.cost < SUSPECT);
    return [...misread, ...forgotten].sort((a, b) => a.cost - b.cost).slice(0, SUSPECTS);
  }

  private step(): void {
    this.done++;
    this.options.progress?.(this.done, this.total);
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
      left: this.total - this.done,
      besides: besides(check, this.evaluation, {
        toBreak: this.toBreak,
        lastDigit: lastDigitOf(this.job.checks[index], this.job.unit),
      }),
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
      if (this.isLate(PAIRS_UNTIL)) break;
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
      if (this.isLate(FORECAST_UNTIL)) return;
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
      if (this.isLate(FORECAST_UNTIL)) return;
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

/** The same patience, at its end when time is out. */
const inTime = (own: Patience, isOut: () => boolean): Patience => ({
  ...own,
  cancelled: () => own.cancelled() || isOut(),
});

/** The edges that the print's note asks to be broken and that the model has sharp, as the part's own remark has them. */
function edgesToBreak(job: Job, evaluation: Evaluation, prepared: Prepared): FigureGrounds["toBreak"] {
  const asked = job.title.edgeBreak;
  const size = asked === undefined ? null : valueOf(asked, "length", prepared.scope);
  const remark = evaluation.findings.find((f) => f.rule === edgeBreak.id);
  if (!size?.ok || !remark?.lines) return null;
  return { size: size.value.value, length: remark.lines.reduce((sum, [a, b]) => sum + length(sub(b, a)), 0) };
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
