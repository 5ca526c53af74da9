import type { SolidKernel } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { JobSummary } from "@/core/job";
import { drawingSvg } from "./svg";

/** What the shelf shows of a job: its picture and the state of its checks. */
export function summarise(e: Evaluation, kernel: SolidKernel): JobSummary {
  const key = e.solved.finalKey;
  const open = e.findings.filter((f) => !f.waived);
  const count = (s: string) => open.filter((f) => f.severity === s).length;
  return {
    picture:
      key === null
        ? null
        : drawingSvg(kernel.drawing(key, viewOf.pictorial, false), { stroke: "currentColor", pixels: 260 }),
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
