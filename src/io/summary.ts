import { z } from "zod";
import type { DrawnLine, SolidKernel } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { JobSummary } from "@/core/job";
import { drawingSvg, isDrawingSvg } from "./svg";

/** The lines of the shelf's picture of a state. */
export const shelfLines = (kernel: SolidKernel, key: string): DrawnLine[] =>
  kernel.drawing(key, viewOf.pictorial, false);

const count = z.number().int().nonnegative();
/** A summary as it comes from a page that has worked it out. */
export const summarySchema: z.ZodType<JobSummary> = z.strictObject({
  picture: z.string().max(4_000_000).refine(isDrawingSvg, "this is no drawing").nullable(),
  stops: count,
  cautions: count,
  notes: count,
  failed: count,
  proved: count,
  balloons: count,
  off: count,
  checksOff: count,
  checks: count,
});

/** What the shelf shows of a job: its picture, of these lines, and the state of its checks. */
export function summarise(e: Evaluation, lines: DrawnLine[] | null): JobSummary {
  const open = e.findings.filter((f) => !f.waived);
  const count = (s: string) => open.filter((f) => f.severity === s).length;
  return {
    picture: lines && drawingSvg(lines, { stroke: "currentColor", pixels: 260 }),
    stops: count("stop"),
    cautions: count("caution"),
    notes: count("note"),
    failed: e.solved.rows.filter((r) => r.state === "failed").length,
    proved: e.ledger.filter((l) => l.state === "proved").length,
    off: e.ledger.filter((l) => l.state === "off").length,
    balloons: e.ledger.length,
    checksOff: e.checks.filter((c) => !c.agrees).length,
    checks: e.checks.length,
  };
}
