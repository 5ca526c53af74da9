import { evaluate, type Evaluation } from "@/core/evaluate/evaluate";
import { viewOf } from "@/core/engine/views";
import type { JobSummary } from "@/core/job";
import { exportJob } from "@/io/exportJob";
import { drawingSvg } from "@/io/svg";
import { loadKernel } from "@/kernel/node";
import type { Answered, Asked, KernelWish } from "./kernelDesk";

// The process that has the solid kernel on the server's side. It ends with the server that started it.
process.on("disconnect", () => process.exit(0));

// One evaluation at a time: the kernel is one, and a second would only wait for it.
let queue: Promise<unknown> = Promise.resolve();
process.on("message", (m) => {
  const { id, wish } = m as Asked;
  const answer = (a: Answered) => {
    process.send?.(a);
  };
  queue = queue
    .then(() => make(wish))
    .then(
      (value) => answer({ id, value }),
      (e: unknown) => answer({ id, error: e instanceof Error ? e.message : String(e) }),
    );
});

async function make(wish: KernelWish): Promise<unknown> {
  const kernel = await loadKernel();
  const evaluation = await evaluate(wish.job, kernel);
  return wish.want === "file" ? exportJob(wish.kind, wish.job, evaluation, kernel) : summarise(evaluation, kernel);
}

function summarise(e: Evaluation, kernel: Awaited<ReturnType<typeof loadKernel>>): JobSummary {
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
