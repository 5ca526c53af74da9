import type { BodyStep } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import { COINCIDENT, CONTACT } from "../geometry/tolerance";
import { boxInFrame, v2, type Box, type Vec2 } from "../geometry/vec";
import { loopBox, perimeter, rectangleBetween, type Segment } from "../outline";
import { pathPractice, type Cutter } from "../tables";
import { blankPlan, type PathPlan } from "./pathPlan";

/**
 * Facing: to and fro over the whole stock, from where it stands down to the row's floor. Null when there is nothing
 * to take.
 */
export function planFace(
  row: SolvedRow,
  stock: Box | null,
  crib: readonly Cutter[],
  wanted: Cutter | undefined,
): PathPlan | null {
  const step = row.placed!.step as BodyStep | null;
  const frame = row.planes!.start!;
  const deep = step?.body.body === "prism" ? step.body.to : 0;
  const piece = stock ? boxInFrame(frame, stock) : null;
  const over = piece ? Math.max(0, piece.max.z) : 0;
  const across = piece ?? (step?.body.body === "prism" ? loopBox(step.body.outline.outer) : null);
  if (!across || over + deep < CONTACT) return null;
  const base = blankPlan(row, "face", frame, deep, `face, row ${row.number}`);
  const cutter = wanted ?? largestOf(crib);
  if (!cutter) return { ...base, problem: "there is no cutter in the crib" };
  const count = Math.max(1, Math.ceil((over + deep) / (cutter.diameter * pathPractice.stepDown) - COINCIDENT));
  const levels = Array.from({ length: count }, (_, i) => ((over + deep) * (i + 1)) / count - over);
  const chain = toAndFro(across, cutter.diameter);
  const length = perimeter(chain) * count;
  return {
    ...base,
    cutter,
    chains: [chain],
    levels,
    cleared: [rectangleBetween(across.min, across.max)],
    length,
    minutes: length / cutter.feed + (count * pathPractice.clearance * 2) / pathPractice.rapid,
  };
}

const largestOf = (crib: readonly Cutter[]): Cutter | null =>
  crib.reduce<Cutter | null>((best, c) => (!best || c.diameter > best.diameter ? c : best), null);

/** Strokes along x over a box, half the cutter beyond its ends, stepping over by the usual share. */
function toAndFro(box: { min: Vec2; max: Vec2 }, diameter: number): Segment[] {
  const beyond = diameter / 2 + pathPractice.clearance;
  const [left, right] = [box.min.x - beyond, box.max.x + beyond];
  const width = box.max.y - box.min.y;
  const strokes = Math.max(1, Math.ceil(width / (diameter * pathPractice.stepOver)));
  const points: Vec2[] = [];
  for (let i = 0; i < strokes; i++) {
    const y = strokes === 1 ? (box.min.y + box.max.y) / 2 : box.min.y + (width * i) / (strokes - 1);
    points.push(...(i % 2 ? [v2(right, y), v2(left, y)] : [v2(left, y), v2(right, y)]));
  }
  return points.slice(1).map((to, i): Segment => ({ kind: "line", from: points[i], to }));
}
