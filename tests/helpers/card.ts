import { readCard } from "@/core/callout";
import { evaluate, type Evaluation } from "@/core/evaluate";
import { applyEdits, type Job } from "@/core/job";
import type { Finding } from "@/core/findings";
import { loadKernel } from "@/kernel/node";

/** Reads a card that must be right. */
export function jobOf(text: string): Job {
  const { job, errors } = readCard(text);
  if (errors.length) throw new Error(errors.map((e) => `${e.line}:${e.column} ${e.message}`).join("; "));
  return job;
}

/** Rows in a unit, without the lines every card has. */
export const mm = (...lines: string[]): string =>
  ['JOB "test"', "UNIT mm", 'MATERIAL "steel 1018"', ...lines].join("\n");
export const inch = (...lines: string[]): string =>
  ['JOB "test"', "UNIT in", 'MATERIAL "aluminium 6061"', ...lines].join("\n");

export const kernel = loadKernel;
export const evaluateJob = async (job: Job): Promise<Evaluation> => evaluate(job, await loadKernel());
export const evaluateCard = async (text: string): Promise<Evaluation> => evaluateJob(jobOf(text));

/** Volume of the finished part, mm³. */
export const volumeOf = async (text: string): Promise<number> => {
  const e = await evaluateCard(text);
  const failed = e.solved.rows.find((r) => r.state === "failed");
  if (failed) throw new Error(`row ${failed.number}: ${failed.message}`);
  return e.part!.volume;
};

export const findingsOf = async (text: string, rule: string): Promise<Finding[]> =>
  (await evaluateCard(text)).findings.filter((f) => f.rule === rule);

/** The remarks of a rule that are left after its own fix was pressed. */
export async function afterFix(text: string, rule: string): Promise<Finding[]> {
  const job = jobOf(text);
  const [found] = (await evaluateJob(job)).findings.filter((f) => f.rule === rule);
  if (!found?.fix) throw new Error(`${rule} offers no fix`);
  const edited = applyEdits(job, found.fix.edits);
  if (!edited.ok) throw new Error(edited.problems[0].message);
  return (await evaluateJob(edited.value.job)).findings.filter((f) => f.rule === rule);
}
