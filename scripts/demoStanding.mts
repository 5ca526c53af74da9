// `npm run demo`: what is shipped beside the demo's jobs, computed anew: their picture on the stage and on the shelf.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { evaluate } from "../src/core/evaluate/evaluate";
import { packStanding } from "../src/core/evaluate/standing";
import { jobOf, readJobText } from "../src/core/job";
import { pathFile } from "../src/core/paths/file";
import { planPaths } from "../src/core/paths/plan";
import { shelfLines, summarise } from "../src/io/summary";
import { loadKernel } from "../src/kernel/node";

const folder = path.resolve(import.meta.dirname, "..", "demo");
const kernel = await loadKernel();
for (const name of readdirSync(folder).filter((f) => f.endsWith(".job.json"))) {
  const read = readJobText(readFileSync(path.join(folder, name), "utf8"));
  if (!read.ok) throw new Error(`${name}: ${read.problems[0].message}`);
  const job = jobOf(read.value);
  const evaluation = await evaluate(job, kernel);
  const key = evaluation.solved.finalKey;
  if (key === null) throw new Error(`${name} has no part`);
  const plans = planPaths(job, evaluation.solved.rows, evaluation.stock?.placed.box);
  const picture = { key, mesh: kernel.mesh(key), faces: kernel.faces(key), measure: kernel.measure(key) };
  const rest = { evaluated: { evaluation }, planned: { plans, file: pathFile(job, evaluation, plans) } };
  const bytes = await packStanding(rest, picture);
  const base = path.join(folder, name.replace(/\.job\.json$/, ""));
  writeFileSync(`${base}.standing.gz`, bytes);
  writeFileSync(`${base}.summary.json`, `${JSON.stringify(summarise(evaluation, shelfLines(kernel, key)))}\n`);
  console.log(`${name}: ${(bytes.length / 1000).toFixed(0)} kB`);
}
process.exit(0);
