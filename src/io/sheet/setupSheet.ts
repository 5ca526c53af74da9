import type { SolidKernel } from "@/core/engine/kernel";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { Job } from "@/core/job/schema";
import { planPaths } from "@/core/paths/plan";
import { dimensionedViews, pathsAndRemarks, pictures, routeTable, titleBlock, type SheetJob } from "./pieces";
import { page } from "./page";
import { tablesBelow } from "./tables";

/**
 * The setup sheet: picture, stock, hold, rows with callouts, cutters, findings and cautions, then the holes from
 * the datum, the ledger, and what is not planned.
 * @returns the PDF's bytes
 */
export async function setupSheet(job: Job, evaluation: Evaluation, kernel: SolidKernel): Promise<Uint8Array> {
  const sheet: SheetJob = {
    job,
    evaluation,
    kernel,
    plans: planPaths(job, evaluation.solved.rows, evaluation.stock?.placed.box),
    open: evaluation.findings.filter((f) => !f.waived),
  };
  return page(job, "setup sheet", [
    titleBlock(sheet),
    pictures(sheet),
    routeTable(sheet),
    pathsAndRemarks(sheet),
    ...dimensionedViews(sheet),
    ...tablesBelow(sheet),
  ]);
}
