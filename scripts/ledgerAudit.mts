// How trustworthy the ledger is: npm run ledger-audit [FILE.card ...]
// Every part right: no balloon is off, and the share of driving balloons that are proved. Then every slip that can be
// made of it, on the print and in the model: no balloon that is untrue by one may stay proved. Without files: the demo,
// and small parts made by chance, each written in two ways.
import { readFileSync, readdirSync } from "node:fs";
import { evaluate } from "@/core/evaluate";
import { readCard } from "@/core/callout";
import type { Job } from "@/core/job";
import { loadKernel } from "@/kernel/node";
import { smallPart } from "../tests/claims/smallParts";
import { slipsOf } from "../tests/claims/slips";

const SMALL_PARTS = 12;
/** Slips of one part that are tried: evenly among all that can be made; of a part with many rows each takes a second. */
const MOST_SLIPS = 90;
const kernel = await loadKernel();
const folder = new URL("../demo/", import.meta.url);
const named = process.argv.slice(2);

function jobOf(name: string, text: string): [string, Job] {
  const { job, errors } = readCard(text);
  if (errors.length) throw new Error(`${name}: ${errors[0].message}`);
  return [name, job];
}
const files = named.length
  ? named
  : readdirSync(folder)
      .filter((f) => f.endsWith(".card"))
      .map((f) => new URL(f, folder).pathname);
const small = Array.from({ length: named.length ? 0 : SMALL_PARTS }, (_, i) => i + 1).flatMap((seed) => {
  const { balloons, lines, twin } = smallPart(seed);
  const card = (rows: string[]) => ['JOB "small part"', "UNIT mm", ...balloons, ...rows].join("\n");
  return [jobOf(`small part ${seed}`, card(lines)), jobOf(`small part ${seed}, written otherwise`, card(twin))];
});
const parts = [...files.map((f) => jobOf(f.split("/").pop()!, readFileSync(f, "utf8"))), ...small];

const total = { driving: 0, proved: 0, off: 0 };
const byKind = new Map<string, { tried: number; proved: number }>();
for (const [name, job] of parts) {
  const e = await evaluate(job, kernel);
  const isReference = (n: number) => job.balloons.find((b) => b.number === n)!.reference;
  const drives = e.ledger.filter((l) => l.state !== "unused" && !isReference(l.number));
  const right = drives.filter((l) => l.state === "proved");
  total.driving += drives.length;
  total.proved += right.length;
  console.log(`${name}: ${right.length} of ${drives.length} driving balloons proved`);
  for (const l of drives.filter((x) => x.state !== "proved")) {
    if (l.state === "off") total.off++;
    console.log(`  #${l.number} ${l.state}: ${l.measured ?? "—"} for ${l.nominal}; ${l.by}`);
  }
  const proved = new Set(right.map((l) => l.number));
  const slips = process.env.SHALLOW ? [] : slipsOf(job, e).filter((slip) => proved.has(slip.of));
  const step = Math.max(1, slips.length / MOST_SLIPS);
  for (const slip of slips.filter((_, i) => Math.floor(i / step) !== Math.floor((i - 1) / step))) {
    const after = await evaluate(slip.job, kernel);
    if (after.solved.rows.some((r) => r.state === "failed")) continue;
    const l = after.ledger.find((x) => x.number === slip.of)!;
    const kind = byKind.get(slip.kind) ?? { tried: 0, proved: 0 };
    kind.tried++;
    if (l.state === "proved") {
      kind.proved++;
      console.log(`  STILL PROVED: #${l.number}, ${slip.kind}: ${l.measured} for ${l.nominal}; ${l.by}`);
    }
    byKind.set(slip.kind, kind);
  }
}
const share = total.proved / total.driving;
console.log(
  `${total.proved} of ${total.driving} driving balloons proved (${(100 * share).toFixed(1)} %), ${total.off} off`,
);
for (const [kind, { tried, proved }] of byKind) console.log(`${kind}: ${tried} tried, ${proved} still proved`);
const bad = [...byKind.values()].reduce((n, k) => n + k.proved, 0);
process.exit(bad || share < 0.95 ? 1 : 0);
