import type { SolidKernel } from "../engine/kernel";
import { Superseded, type Patience } from "../engine/solve";
import type { Finding, Fix } from "../findings";
import { applyEdits } from "../job/edits";
import type { Job } from "../job/schema";
import type { Limits } from "../tables";
import { evaluate, type Evaluation } from "./evaluate";

/** How a fix came out when it was tried on the solid: it clears its remark and brings no worse one, or why not. */
export type Trial = { clears: true } | { clears: false; why: string };

/** What tells a remark from the others of its job. */
export const remarkKey = ({ rule, rowId }: Pick<Finding, "rule" | "rowId">): string => `${rule}|${rowId ?? ""}`;

/** What a remark would change: by a press, or by asking the print. */
export const remedyOf = (f: Finding): Fix | undefined => f.fix ?? f.asked;

interface Ground {
  job: Job;
  evaluation: Evaluation;
  kernel: SolidKernel;
  limits: Limits;
  patience?: Patience;
}

/** Tries what a remark proposes, on the job as it is, without changing it. */
export async function tryFix(f: Finding, { job, evaluation, kernel, limits, patience }: Ground): Promise<Trial> {
  const remedy = remedyOf(f);
  if (!remedy) return { clears: false, why: "nothing is proposed" };
  const edited = applyEdits(job, remedy.edits);
  if (!edited.ok) return { clears: false, why: edited.problems[0].message };
  const after = await evaluate(edited.value.job, kernel, { limits, patience, before: { job, evaluation } });
  const failed = (e: Evaluation) => e.solved.rows.filter((r) => r.state === "failed").map((r) => r.row.id);
  const fresh = failed(after).filter((id) => !failed(evaluation).includes(id));
  if (fresh.length) return { clears: false, why: "a row could not be made then" };
  const open = (e: Evaluation) => e.findings.filter((x) => !x.waived);
  const left = open(after).find((x) => remarkKey(x) === remarkKey(f) && weight(x) >= weight(f));
  if (left) return { clears: false, why: `the remark stays: ${left.text}` };
  const before = new Map(open(evaluation).map((x) => [remarkKey(x), weight(x)]));
  // One as grave in its place is no gain where both are about rows. What is put right of the whole job has its next
  // thing to do: a larger stock wants facing, a deeper grip another setup for what it covers.
  const isOfJob = (x: Finding) => f.rowId === null || x.rowId === null;
  const isWorse = (x: Finding) => (isOfJob(x) ? weight(x) > weight(f) : weight(x) >= weight(f));
  const worse = open(after).find((x) => isWorse(x) && weight(x) > (before.get(remarkKey(x)) ?? -1));
  return worse ? { clears: false, why: `then ${worse.text}` } : { clears: true };
}
const weight = ({ severity }: Pick<Finding, "severity">): number => ["note", "caution", "stop"].indexOf(severity);

/** The most fixes that are tried of one job: each computes it once more, from the row it changes on. */
const MOST_TRIED = 24;

/**
 * Tries every fix and every question of an evaluation.
 * @param told is called with each as it is known
 * @returns by remark (`remarkKey`); what is not in it was not tried
 */
export async function triedFixes(ground: Ground, told: (key: string, t: Trial) => void = () => {}) {
  const trials = new Map<string, Trial>();
  const asked = ground.evaluation.findings.filter((f) => !f.waived && remedyOf(f)).slice(0, MOST_TRIED);
  for (const f of asked) {
    const trial = await tryFix(f, ground).catch((e: unknown): Trial => {
      if (e instanceof Superseded) throw e;
      return { clears: false, why: "it could not be worked out" };
    });
    trials.set(remarkKey(f), trial);
    told(remarkKey(f), trial);
  }
  return trials;
}

/** A remark with only what was tried and clears it: another fix is not offered, another question not asked. */
export function withTrial(f: Finding, trial: Trial | undefined): Finding {
  if (!remedyOf(f) || trial?.clears) return f;
  const { fix: _fix, question: _question, asked: _asked, ...rest } = f;
  return rest;
}

/** The remarks of an evaluation with only those fixes and questions that clear them, each tried; without `tried`, none. */
export async function offered(ground: Ground, tried: boolean): Promise<Finding[]> {
  const trials = tried ? await triedFixes(ground) : new Map<string, Trial>();
  return ground.evaluation.findings.map((f) => withTrial(f, trials.get(remarkKey(f))));
}
