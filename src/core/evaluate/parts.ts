import { jobOf, partName } from "../job/parts";
import type { Job, JobDocument, Part, Placement } from "../job/schema";
import type { SolidKernel } from "../engine/kernel";
import type { Limits } from "../tables";
import { evaluate, type Evaluation } from "./evaluate";

/** A part of a job with everything computed of it. */
export interface EvaluatedPart {
  id: string;
  name: string;
  kind: Part["kind"];
  /** Where other parts lie in it. */
  places: Placement[];
  job: Job;
  evaluation: Evaluation;
}

/**
 * Every part of a job, the workpiece first.
 * @param work what is computed of that already, with the same limits
 */
export async function evaluateParts(
  document: JobDocument,
  work: Evaluation,
  kernel: SolidKernel,
  limits?: Limits,
): Promise<EvaluatedPart[]> {
  const parts: EvaluatedPart[] = [];
  for (const part of document.parts) {
    const job = jobOf(document, part.id);
    // The kernel forgets what it was asked for long ago: what is looked at together stays.
    kernel.pin([work, ...parts.map((p) => p.evaluation)].flatMap(statesOf));
    const evaluation = parts.length ? await evaluate(job, kernel, { limits }) : work;
    parts.push({
      id: part.id,
      name: partName(document, part),
      kind: part.kind,
      places: part.places ?? [],
      job,
      evaluation,
    });
  }
  return parts;
}

const statesOf = ({ solved }: Evaluation): string[] => solved.rows.flatMap((r) => (r.key ? [r.key] : []));
