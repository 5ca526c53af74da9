// Random edits to the demo jobs and to a part of every kind of row: `npm run torture [-- EDITS [SEED]]`, 10,000 without a number.
// SGORBIA_TORTURE_CARD names a file that holds the card of the edit being computed, to look at where one takes long.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { writeCard } from "@/core/callout/card";
import { jobOf, readJobText, type Job } from "@/core/job";
import { loadKernel } from "@/kernel/node";
import { torture } from "../tests/helpers/torture";

const [edits = 10_000, first = 1] = process.argv.slice(2).map(Number);
const jobs = readdirSync("demo").filter((f) => f.endsWith(".job.json"));

/** An edit that takes longer than this is told, with the card it led to, s. */
const SLOW = 15;
let began = 0;
function sayIfSlow(edit: string | null, job: Job): void {
  const took = (performance.now() - began) / 1000;
  if (edit !== null) {
    began = performance.now();
    if (process.env.SGORBIA_TORTURE_CARD) writeFileSync(process.env.SGORBIA_TORTURE_CARD, writeCard(job));
  } else if (took > SLOW) console.log(`${took.toFixed(0)} s for the last edit`);
}

let kernel = await loadKernel();
let replaced = 0;
let done = 0;
const start = performance.now();
for (let seed = first; done < edits; seed++) {
  const name = jobs[seed % jobs.length];
  const read = readJobText(readFileSync(`demo/${name}`, "utf8"));
  if (!read.ok) throw new Error(`${name}: ${read.problems[0].message}`);
  try {
    done += await torture(jobOf(read.value), kernel, seed, Math.min(100, edits - done), sayIfSlow);
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
