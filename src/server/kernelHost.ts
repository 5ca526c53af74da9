import { evaluate } from "@/core/evaluate/evaluate";
import { jobOf } from "@/core/job";
import { exportJob } from "@/io/exportJob";
import { summarise } from "@/io/summary";
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
  const evaluation = await evaluate(jobOf(wish.job), kernel);
  return wish.want === "file" ? exportJob(wish.kind, wish.job, evaluation, kernel) : summarise(evaluation, kernel);
}
