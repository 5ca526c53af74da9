import type { SolidKernel } from "@/core/engine/kernel";
import { prepare } from "@/core/engine/prepare";
import type { EvaluatedPart } from "@/core/evaluate/parts";
import type { JobDocument } from "@/core/job/schema";
import type { Shop } from "@/core/tables";
import { assemblyOf, evaluateSetups } from "@/core/setups";
import type { SetupFile } from "./exportJob";

/** What a file of one setup is made of; null where there is no such setup, or it does not stand. */
export function setupFile(
  document: JobDocument,
  parts: EvaluatedPart[],
  op: number,
  kernel: SolidKernel,
  shop: Shop,
): SetupFile | null {
  const { setups, routing } = evaluateSetups({ document, parts, kernel, shop });
  const evaluated = setups.find((s) => s.setup.op === op);
  if (!evaluated?.standing) return null;
  const { job, name } = parts[0];
  const marked = (routing?.marked ?? []).map((m) => m.number);
  return { assembly: assemblyOf(evaluated, kernel, prepare(job).scope, name), evaluated, marked };
}
