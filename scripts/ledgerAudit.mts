// How trustworthy the ledger is: npm run ledger-audit [FILE.card ...]
// Every part right: no balloon is off, and the share of driving balloons that are proved. Then each of its numbers
// changed in turn,
// in the model and not on the print: no balloon that the number alone is made from may stay proved.
import { readFileSync, readdirSync } from "node:fs";
import { evaluate, type Evaluation } from "@/core/evaluate";
import { unitOf } from "@/core/number";
import { readCard } from "@/core/callout";
import { getPath, setPath } from "@/core/grammar/grammar";
import type { Job } from "@/core/job";
import { loadKernel } from "@/kernel/node";

const kernel = await loadKernel();
const folder = new URL("../demo/", import.meta.url);
const files =
  process.argv.length > 2
    ? process.argv.slice(2)
    : readdirSync(folder)
        .filter((f) => f.endsWith(".card"))
        .map((f) => new URL(f, folder).pathname);
const changes: [string, (t: string, wide: number) => string][] = [
  ["a multiple", (t) => `((${t})*1.37)`],
  ["a constant added", (t, wide) => `((${t})+${wide})`],
  ["half of it", (t) => `((${t})/2)`],
];

/** More than the whole tolerance of a balloon, as it is typed: a change of this much is outside it. */
function wideOf(job: Job, e: Evaluation, n: number): number {
  const l = e.ledger.find((x) => x.number === n)!;
  const b = job.balloons.find((x) => x.number === n)!;
  const span = (l.high ?? 0) - (l.low ?? 0);
  const typed = b.kind === "angle" ? (span * 180) / Math.PI : span / unitOf[job.unit].mm;
  return Number((1.3 * typed + 0.01).toFixed(4));
}

let driving = 0;
let proved = 0;
let off = 0;
let bad = 0;
let tried = 0;
for (const file of files) {
  const read = readCard(readFileSync(file, "utf8"));
  if (read.errors.length) throw new Error(`${file}: ${read.errors[0].message}`);
  const { job } = read;
  const e = await evaluate(job, kernel);
  const drives = e.ledger.filter(
    (l) => l.state !== "unused" && !job.balloons.find((b) => b.number === l.number)!.reference,
  );
  const right = drives.filter((l) => l.state === "proved");
  driving += drives.length;
  proved += right.length;
  console.log(`${file.split("/").pop()}: ${right.length} of ${drives.length} driving balloons proved`);
  for (const l of e.ledger)
    if (l.state === "off" || (l.state === "drives" && !job.balloons.find((b) => b.number === l.number)!.reference)) {
      if (l.state === "off") off++;
      console.log(`  #${l.number} ${l.state}: ${l.measured ?? "—"} for ${l.nominal}; ${l.by}`);
    }
  if (process.env.SHALLOW) continue;
  for (const row of e.solved.rows)
    for (const n of row.numbers) {
      const cites = n.value?.cites ?? [];
      if (cites.length !== 1 || n.quantity === "count") continue;
      for (const [words, change] of changes) {
        const changed: Job = structuredClone(job);
        const body = changed.rows[row.number - 1].body;
        setPath(body, n.path, change(String(getPath(body, n.path)).replace(/!$/, ""), wideOf(job, e, cites[0])));
        const after = await evaluate(changed, kernel);
        if (after.solved.rows.some((r) => r.state === "failed")) continue;
        const l = after.ledger.find((x) => x.number === cites[0])!;
        tried++;
        if (l.state === "proved") {
          bad++;
          console.log(
            `  STILL PROVED: #${l.number}, row ${row.number} ${n.path}, ${words}: ${l.measured} for ${l.nominal}; ${l.by}`,
          );
        }
      }
    }
}
console.log(
  `${proved} of ${driving} driving balloons proved (${((100 * proved) / driving).toFixed(1)} %); ${tried} numbers changed in turn; ${bad} of them still proved; ${off} balloons off`,
);
process.exit(bad || proved / driving < 0.95 ? 1 : 0);
