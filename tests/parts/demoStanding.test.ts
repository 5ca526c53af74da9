import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { unpackStanding } from "@/core/evaluate/standing";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { jobOf, readJobText } from "@/core/job";
import { shelfLines, summarise } from "@/io/summary";
import { isDrawingSvg } from "@/io/svg";
import { evaluateJob, kernel } from "../helpers/card";

const folder = path.resolve("demo");
const jobs = readdirSync(folder).filter((f) => f.endsWith(".job.json"));

/** Everything the interface reads of an evaluation, with lengths to a millionth: the last digits are the machine's. */
const told = (e: Evaluation) =>
  JSON.parse(
    JSON.stringify(
      {
        part: e.part,
        stock: e.stock,
        findings: e.findings,
        ledger: e.ledger.map((l) => ({ ...l, basis: "" })),
        checks: e.checks,
        rows: e.solved.rows.map((r) => ({ state: r.state, removed: r.removed, planes: r.planes, numbers: r.numbers })),
      },
      (_, v) => (typeof v === "number" ? Number(v.toPrecision(7)) + 0 : v),
    ),
  );

test.each(jobs)(
  "what is shipped with %s is what the engine computes (else: npm run demo)",
  async (name) => {
    const read = readJobText(readFileSync(path.join(folder, name), "utf8"));
    if (!read.ok) throw new Error(read.problems[0].message);
    const shipped = await unpackStanding<{ evaluated: { evaluation: Evaluation } }, never>(
      new Uint8Array(readFileSync(path.join(folder, name.replace(".job.json", ".standing.gz")))),
    );
    const evaluation = await evaluateJob(jobOf(read.value));
    expect(told(shipped.evaluated.evaluation)).toEqual(told(evaluation));
    const summary = JSON.parse(readFileSync(path.join(folder, name.replace(".job.json", ".summary.json")), "utf8"));
    const { picture, ...counts } = summarise(evaluation, shelfLines(await kernel(), evaluation.solved.finalKey!));
    expect(summary).toMatchObject(counts);
    expect(isDrawingSvg(summary.picture)).toBe(true);
    expect(isDrawingSvg(picture!)).toBe(true);
  },
  60_000,
);
