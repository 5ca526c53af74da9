import type { Job } from "@/core/job";
import { evaluateCard, evaluateJob, jobOf, mm } from "../helpers/card";
import { runs } from "../helpers/thorough";
import { right, untrue, type Model } from "./models";
import { rightMore, untrueMore } from "./more";
import { smallPart } from "./smallParts";
import { slipsOf } from "./slips";
import { rightThird, untrueThird } from "./third";

const judged = async ({ of, lines }: Model) => {
  const e = await evaluateCard(mm(...lines));
  expect(e.solved.rows.filter((r) => r.state === "failed").map((r) => r.message)).toEqual([]);
  return e.ledger.find((l) => l.number === of)!;
};
const named = (list: Model[]): [string, Model][] => list.map((m) => [m.name, m]);

describe("a balloon that is untrue is never proved", () => {
  it.each(named([...untrue, ...untrueMore, ...untrueThird]))("%s", async (_, m) => {
    const { state, claims } = await judged(m);
    expect([state, claims]).not.toEqual(["proved", claims]);
    // It says why: something claimed is false, or was not examined.
    if (state !== "unused") expect(claims.some((c) => c.state !== "true")).toBe(true);
  });
});

describe("one that is true and stands on the solid is proved", () => {
  it.each(named([...right, ...rightMore, ...rightThird]))("%s", async (_, m) => {
    const l = await judged(m);
    expect([l.state, l.by]).toEqual(["proved", l.by]);
    expect(l.claims.length).toBeGreaterThan(0);
    expect(l.claims.filter((c) => c.state !== "true")).toEqual([]);
  });
});

const seeds = Array.from({ length: runs(40, 3) }, (_, i) => i + 1);
const states = (job: Job) =>
  evaluateJob(job).then((e) => e.ledger.filter((l) => l.state !== "proved").map((l) => [l.number, l.state, l.by]));

describe("small parts made by chance", () => {
  it.each(seeds)("part %d: all is proved, and so it is of the same part written otherwise", async (seed) => {
    const { balloons, lines, twin } = smallPart(seed);
    const [own, other] = [lines, twin].map((rows) => jobOf(mm(...balloons, ...rows)));
    expect(await states(own)).toEqual([]);
    expect(await states(other)).toEqual([]);
    const [a, b] = [await evaluateJob(own), await evaluateJob(other)];
    expect(b.part!.volume / a.part!.volume).toBeCloseTo(1, 9);
  });
  it.each(seeds.slice(0, runs(40, 1)))("part %d: no slip leaves its balloon proved", async (seed) => {
    const { balloons, lines } = smallPart(seed);
    const job = jobOf(mm(...balloons, ...lines));
    const still: string[] = [];
    const kinds = new Set<string>();
    for (const slip of slipsOf(job, await evaluateJob(job))) {
      const e = await evaluateJob(slip.job);
      if (e.solved.rows.some((r) => r.state === "failed")) continue;
      kinds.add(slip.kind);
      if (e.ledger.find((l) => l.number === slip.of)!.state === "proved") still.push(`${slip.kind} #${slip.of}`);
    }
    expect(still).toEqual([]);
    expect(kinds.size).toBeGreaterThan(8);
  });
});
