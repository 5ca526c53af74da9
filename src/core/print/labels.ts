import { fromFrame, type Vec3 } from "../geometry/vec";
import type { SolvedRow } from "../engine/solve";
import { writeBalloonText } from "../callout/balloonLine";
import type { Job } from "../job/schema";

/** What a print writes beside a feature: where the feature stands, which way it looks, and its balloons' dimensions. */
export interface FeatureLabel {
  at: Vec3;
  normal: Vec3;
  balloons: { number: number; text: string }[];
}

/** Balloons a row is made from, its outline's too, each once. */
function citedBy(row: SolvedRow): number[] {
  const cited = [...row.numbers, ...row.outlineNumbers, ...row.planeNumbers].flatMap((n) => n.value?.cites ?? []);
  return [...new Set(cited)];
}

/** The dimensions of every row that stands at a place, at its first copy; each balloon is written once, where it is first used. */
export function featureLabels(job: Job, rows: readonly SolvedRow[]): FeatureLabel[] {
  const byNumber = new Map(job.balloons.map((b) => [b.number, b]));
  const written = new Set<number>();
  return rows.flatMap((row): FeatureLabel[] => {
    const step = row.state === "ok" ? row.placed?.step : null;
    if (!step || (step.op !== "cut" && step.op !== "leave")) return [];
    const fresh = citedBy(row).filter((n) => !written.has(n) && byNumber.has(n));
    if (!fresh.length) return [];
    fresh.forEach((n) => written.add(n));
    const balloons = fresh.map((number) => ({ number, text: writeBalloonText(byNumber.get(number)!) }));
    return [{ at: fromFrame(step.frame, step.places[0]), normal: step.frame.normal, balloons }];
  });
}
