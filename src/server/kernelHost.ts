import { Worker } from "node:worker_threads";
import { problems } from "./problems";
import { evaluate } from "@/core/evaluate/evaluate";
import { jobOf } from "@/core/job";
import { fail, type Result } from "@/core/base/result";
import type { SolidKernel } from "@/core/engine/kernel";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { giveSolids } from "@/core/engine/solidFiles";
import { evaluateParts } from "@/core/evaluate/parts";
import { shopOf, type Shop } from "@/core/tables";
import { exportJob } from "@/io/exportJob";
import { setupFile } from "@/io/setupFile";
import { shelfLines, summarise } from "@/io/summary";
import { loadKernel } from "@/kernel/node";
import type { Answered, Asked, KernelWish } from "./kernelDesk";

// The process that has the solid kernel on the server's side. It ends with the server that started it.
process.on("disconnect", () => process.exit(0));
// While a row is computed nothing of this thread is heard: another one looks whether the server still lives.
new Worker(
  `const { ppid } = process; setInterval(() => { if (process.ppid !== ppid) process.kill(process.pid, "SIGKILL"); }, 500);`,
  { eval: true },
).unref();

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
  await giveSolids(wish.job.solids, kernel, async (hash) => wish.files[hash] ?? null);
  const shop = shopOf(wish.shop);
  const evaluation = await evaluate(jobOf(wish.job), kernel, { limits: shop.limits });
  if (wish.want === "file") return fileOf(wish, evaluation, kernel, shop);
  const key = evaluation.solved.finalKey;
  return summarise(evaluation, key === null ? null : shelfLines(kernel, key));
}

/** A file of the workpiece, of another part, or of one setup. */
async function fileOf(
  { job, kind, of }: Extract<KernelWish, { want: "file" }>,
  work: Evaluation,
  kernel: SolidKernel,
  shop: Shop,
): Promise<Result<Uint8Array>> {
  if (of.setup === undefined && of.part === undefined) return exportJob(kind, job, work, kernel);
  const parts = await evaluateParts(job, work, kernel, shop.limits);
  if (of.part !== undefined) {
    const part = parts.find((p) => p.name === of.part);
    return part ? exportJob(kind, job, part.evaluation, kernel, { part: part.id }) : fail(problems.noPart(of.part));
  }
  const setup = setupFile(job, parts, of.setup!, kernel, shop);
  return setup ? exportJob(kind, job, work, kernel, { setup }) : fail(problems.noSetup(of.setup!));
}
