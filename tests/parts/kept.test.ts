import { runs } from "../helpers/thorough";
import { readFileSync } from "node:fs";
import { evaluate } from "@/core/evaluate";
import { unreadByFindings, unreadByLedger } from "@/core/evaluate/kept";
import { jobOf as workOf, readJobText, type Job } from "@/core/job";
import { toNumberText } from "@/core/number";
import { kernel } from "../helpers/card";

const demo = (name: string): Job => {
  const read = readJobText(readFileSync(`demo/${name}.job.json`, "utf8"));
  if (!read.ok) throw new Error(read.problems[0].message);
  return workOf(read.value);
};

/** Another state of each field of a job, so different that whatever reads it must come out otherwise. */
const changes: { [K in keyof Job]?: (job: Job) => Job[K] } = {
  name: () => "another name",
  revision: () => "Z9",
  checks: () => [{ kind: "volume", value: toNumberText("1") }],
  prints: () => [],
  proofs: (job) =>
    job.balloons.map((b) => ({ number: b.number, measured: 1, by: "", basis: "?", on: "", revision: "" })),
  signOff: () => ({ by: "somebody", on: "2026-01-01", revision: "A" }),
  waivers: () => [{ rule: "small-radius", reason: "tried" }],
  crib: () => [{ name: "one", diameter: 3, reach: 4, feed: 100 }],
  cutters: (job) => [{ row: job.rows[1].id, cutter: "one" }],
  hold: () => ({ fixture: "vise", across: "x", grip: toNumberText(".03"), up: "top" }),
  stock: () => null,
  material: () => ({ name: "tool steel" }),
  title: (job) => ({ ...job.title, edgeBreak: toNumberText("3"), general: "v" }),
  balloons: (job) => job.balloons.map((b, i) => (i ? b : { ...b, note: "looked at", kind: "radius" as const })),
};

it.each(runs(["gauge-lid", "chart-drum-hub"], ["gauge-lid"]))(
  "what an edit of %s does not touch is taken over, and only that",
  async (name) => {
    const k = await kernel();
    const job = demo(name);
    const evaluation = await evaluate(job, k);
    const before = { job, evaluation };
    const again = await evaluate(structuredClone(job), k, { before });
    expect([again.findings === evaluation.findings, again.ledger === evaluation.ledger]).toEqual([true, true]);
    for (const field of Object.keys(changes) as (keyof Job)[]) {
      const next: Job = { ...job, [field]: changes[field]!(job) };
      const [kept, fresh] = [await evaluate(next, k, { before }), await evaluate(next, k)];
      expect({ field, findings: kept.findings, ledger: kept.ledger, checks: kept.checks }).toEqual({
        field,
        findings: fresh.findings,
        ledger: fresh.ledger,
        checks: fresh.checks,
      });
      expect([field, kept.findings === evaluation.findings]).toEqual([field, unreadByFindings.includes(field)]);
      expect([field, kept.ledger === evaluation.ledger]).toEqual([field, unreadByLedger.includes(field)]);
    }
  },
);

it("of another solid nothing is taken over", async () => {
  const k = await kernel();
  const job = demo("gauge-lid");
  const evaluation = await evaluate(job, k);
  const less: Job = { ...job, rows: job.rows.slice(0, -1) };
  const kept = await evaluate(less, k, { before: { job, evaluation } });
  const fresh = await evaluate(less, k);
  expect(kept.findings).toEqual(fresh.findings);
  expect(kept.ledger).toEqual(fresh.ledger);
});
