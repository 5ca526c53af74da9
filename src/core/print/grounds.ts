import { outlinesNamed } from "../rows/outlineSource";
import type { Vec3 } from "../geometry/vec";
import type { Solved, SolvedRow } from "../engine/solve";
import type { Segment } from "../outline";

/**
 * Figures are compared to this many decimals of a millimetre: finer than any measurement, coarser than arithmetic's
 * noise.
 */
const DECIMALS = 7;
const round = (n: number): number => Number(n.toFixed(DECIMALS)) + 0;
const point = (p: Vec3): number[] => [round(p.x), round(p.y), round(p.z)];
const ends = (s: Segment): number[] =>
  (s.kind === "line" ? [s.from.x, s.from.y, s.to.x, s.to.y] : [s.centre.x, s.centre.y, s.radius, s.start, s.sweep]).map(
    round,
  );

/**
 * What a proof rests on, as plain values: the numbers of its rows and outlines, where the rows stand, and the
 * outlines as they came out,
 * which follow the faces they were taken from. No name of a field is part of it.
 */
export function groundsOf(rows: SolvedRow[], solved: Solved): unknown[] {
  return rows.map((r) => {
    const name = outlinesNamed(r.row.body)[0]?.toLowerCase() ?? null;
    const drawn = name === null ? undefined : solved.outlines.find((o) => o.name.toLowerCase() === name);
    const plane = r.planes?.start;
    return [
      r.row.id,
      r.numbers.map((n) => (n.value ? round(n.value.value) : null)),
      [...r.outlineNumbers, ...r.planeNumbers].map((n) => (n.value ? round(n.value.value) : null)),
      plane ? [point(plane.origin), point(plane.normal)] : null,
      drawn ? [...drawn.region, ...drawn.open].map((l) => l.map(ends)) : null,
    ];
  });
}
