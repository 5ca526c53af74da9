// Random edits to the demo jobs and to a part of every kind of row: `npm run torture [-- EDITS [SEED]]`, 10,000 without a number.
import { readdirSync, readFileSync } from "node:fs";
import { jobOf, readJobText } from "@/core/job";
import { loadKernel } from "@/kernel/node";
import { torture } from "../tests/helpers/torture";

const [edits = 10_000, first = 1] = process.argv.slice(2).map(Number);
const jobs = readdirSync("demo").filter((f) => f.endsWith(".job.json"));
let kernel = await loadKernel();
let replaced = 0;
let done = 0;
const start = performance.now();
for (let seed = first; done < edits; seed++) {
  const name = jobs[seed % jobs.length];
  const read = readJobText(readFileSync(`demo/${name}`, "utf8"));
  if (!read.ok) throw new Error(`${name}: ${read.problems[0].message}`);
  try {
    done += await torture(jobOf(read.value), kernel, seed, Math.min(100, edits - done));
  } catch (e) {
    // A library that ran out of its own memory is replaced, as the application does; anything else is a fault.
    if (!kernel.broken) throw e;
    replaced++;
    kernel = await loadKernel();
  }
  console.log(
    `${done} edits, seed ${seed}, ${name}, ${replaced} kernels replaced, ${((performance.now() - start) / 1000).toFixed(0)} s`,
  );
}
