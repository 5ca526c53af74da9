import type { Evaluation } from "../evaluate/evaluate";
import type { SolvedRow } from "../engine/solve";
import type { CheckResult } from "../print/checks";

/** What a check value may hang on that no single number explains. */
export type BesideKind = "undriven" | "tap drilling" | "edge breaks";

/** Something the model has that the print's figure may be without, with its share of what is missing. */
export interface Beside {
  kind: BesideKind;
  /** Number of the row; null where it is all of its kind together. */
  row: number | null;
  /** What it comes to, as a share of the difference: 1 is all of it. */
  share: number;
}

/** Shares below this explain nothing; above its reciprocal, it would be far more than is missing. */
const LEAST_SHARE = 0.02;
const MOST_TOLD = 4;

/**
 * What else a weight or a volume that is off may hang on: rows no balloon drives, tapped holes drawn at their drill
 * where the print's figure has them at their thread, broken edges. Common practice, no source.
 * @returns the nearest to the whole difference first; nothing for other figures
 */
export function besides(check: CheckResult, evaluation: Evaluation): Beside[] {
  const gap = gapOf(check, evaluation.density);
  if (gap === null) return [];
  const rows = evaluation.solved.rows.filter((r) => r.state === "ok");
  const sum = (volumes: number[]) => volumes.reduce((a, b) => a + b, 0);
  const undriven = rows
    .filter((r) => r.feature?.is !== "edge" && r.numbers.length > 0 && r.numbers.every(isFree))
    .map((r): [BesideKind, number | null, number] => ["undriven", r.number, Math.abs(r.removed)]);
  // A print that has its threads at their outside has less material than the model; one without its breaks has more.
  const oneWay: [BesideKind, number | null, number] =
    gap < 0
      ? ["tap drilling", null, sum(rows.map(threadVolume))]
      : ["edge breaks", null, sum(rows.filter((r) => r.feature?.is === "edge").map((r) => Math.abs(r.removed)))];
  return [...undriven, oneWay]
    .map(([kind, row, volume]) => ({ kind, row, share: volume / Math.abs(gap) }))
    .filter((b) => b.share > LEAST_SHARE && b.share < 1 / LEAST_SHARE)
    .sort((a, b) => Math.abs(Math.log(a.share)) - Math.abs(Math.log(b.share)))
    .slice(0, MOST_TOLD);
}

/** How much more the print has than the model, mm³; null where the figure is neither weight nor volume, or there is no difference. */
function gapOf(check: CheckResult, density: number | null): number | null {
  if (check.expected === null || check.actual === null) return null;
  const gap = check.expected - check.actual;
  if (gap === 0) return null;
  if (check.kind === "volume") return gap;
  return check.kind === "mass" && density ? (gap / density) * 1000 : null;
}

const isFree = (n: SolvedRow["numbers"][number]): boolean => n.value === undefined || n.value.cites.length === 0;

/** What lies between the drilled hole and the thread's outside, over its full thread, of all copies of a row. */
function threadVolume(r: SolvedRow): number {
  if (r.feature?.is !== "hole" || !r.feature.thread) return 0;
  const { thread, diameter, depth } = r.feature;
  const drilled = (Math.PI / 4) * diameter ** 2;
  const copies = r.placed?.step && "places" in r.placed.step ? r.placed.step.places.length : 1;
  const full = thread.full === "thru" ? depth : thread.full;
  // Through and through is as deep as what it took says.
  const deep = full === "thru" ? r.removed / drilled / copies : full;
  return Math.max(0, ((Math.PI / 4) * thread.major ** 2 - drilled) * deep * copies);
}

const besideOf: Record<BesideKind, string> = {
  undriven: "no balloon drives it",
  "tap drilling": "threads drawn at their drill",
  "edge breaks": "broken edges",
};
/** What a figure may hang on besides, with its share of the difference. */
export const besideWords = ({ kind, row, share }: Beside): string =>
  `${row === null ? "" : `row ${row}: `}${besideOf[kind]} (${Math.round(share * 100)} % of the difference)`;
