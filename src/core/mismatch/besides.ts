import type { Evaluation } from "../evaluate/evaluate";
import type { SolvedRow } from "../engine/solve";
import type { CheckResult } from "../print/checks";

/** What a check value may hang on that no single number explains. */
export type BesideKind = "undriven" | "tap drilling" | "edge breaks" | "edges to break" | "rounding";

/** Something the model has that the print's figure may be without, with its share of what is missing. */
export interface Beside {
  kind: BesideKind;
  /** Number of the row; null where it is all of its kind together. */
  row: number | null;
  /** What it comes to, as a share of the difference: 1 is all of it. */
  share: number;
}

/** What is known besides the evaluation of the figure that is off. */
export interface FigureGrounds {
  /** Edges that the print asks to be broken and the model has sharp: how long together and by how much, mm. */
  toBreak: { length: number; size: number } | null;
  /** One in the last digit that is printed, in the figure's own measure. */
  lastDigit: number;
}

/** Shares below this explain nothing; above its reciprocal, it would be far more than is missing. */
const LEAST_SHARE = 0.02;
const MOST_TOLD = 4;
/** Shares of the difference within which it is all of it. */
const ALL = { least: 0.8, most: 1.25 };

/**
 * What else a weight or a volume that is off may hang on: rows no balloon drives, tapped holes drawn at their drill
 * where the print's figure has them at their thread, broken edges. Common practice, no source.
 * @returns the nearest to the whole difference first; nothing for other figures
 */
export function besides(check: CheckResult, evaluation: Evaluation, grounds: FigureGrounds): Beside[] {
  const rounded = roundingOf(check, grounds.lastDigit);
  const gap = gapOf(check, evaluation.density);
  if (gap === null) return rounded;
  const rows = evaluation.solved.rows.filter((r) => r.state === "ok");
  const sum = (volumes: number[]) => volumes.reduce((a, b) => a + b, 0);
  const undriven = rows
    .filter((r) => r.feature?.is !== "edge" && r.numbers.length > 0 && r.numbers.every(isFree))
    .map((r): [BesideKind, number | null, number] => ["undriven", r.number, Math.abs(r.removed)]);
  // A print that has its threads at their outside, or its edges broken, has less material than the model; one without
  // its breaks has more.
  const oneWay: [BesideKind, number | null, number][] =
    gap < 0
      ? [
          ["tap drilling", null, sum(rows.map(threadVolume))],
          ["edges to break", null, breakVolume(grounds)],
        ]
      : [["edge breaks", null, sum(rows.filter((r) => r.feature?.is === "edge").map((r) => Math.abs(r.removed)))]];
  const shares = [...undriven, ...oneWay]
    .map(([kind, row, volume]) => ({ kind, row, share: volume / Math.abs(gap) }))
    .filter((b) => b.share > LEAST_SHARE && b.share < 1 / LEAST_SHARE)
    .sort((a, b) => Math.abs(Math.log(a.share)) - Math.abs(Math.log(b.share)));
  return [...rounded, ...shares].slice(0, MOST_TOLD);
}

/** Whether it is no slip at all, and is said before any: the print's rounding, or edges that are all of the difference. */
export const isNoSlip = ({ kind, share }: Beside): boolean =>
  kind === "rounding" || (aboutEdges.includes(kind) && share > ALL.least && share < ALL.most);
const aboutEdges: readonly BesideKind[] = ["edge breaks", "edges to break"];

/** A difference of one in the last printed digit is what rounding makes. */
function roundingOf({ expected, actual }: CheckResult, lastDigit: number): Beside[] {
  if (expected === null || actual === null || expected === actual) return [];
  const gap = Math.abs(expected - actual);
  return gap <= lastDigit ? [{ kind: "rounding", row: null, share: lastDigit / gap }] : [];
}

/** What breaks take along square edges, c²/2 of each. */
const breakVolume = ({ toBreak }: FigureGrounds): number => (toBreak ? (toBreak.length * toBreak.size ** 2) / 2 : 0);

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
  "edges to break": "edges the print breaks and the model has sharp",
  rounding: "the print's rounding",
};
/** What a figure may hang on besides, with its share of the difference. */
export function besideWords({ kind, row, share }: Beside): string {
  if (kind === "rounding") return `${besideOf[kind]}: it is off by no more than one in its last digit`;
  return `${row === null ? "" : `row ${row}: `}${besideOf[kind]} (${Math.round(share * 100)} % of the difference)`;
}
