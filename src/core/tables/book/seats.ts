import { clearanceHole, inchClearance, majorOf, metricClearance } from "../clearance";
import { inchScrewPages } from "./inchScrews";
import { metricScrewPages } from "./metricScrews";
import type { TableEntry } from "./page";

/** A screw as its hole shows it: its head, and the room the standard gives it. Lengths mm. */
export interface ScrewSeat {
  screw: string;
  major: number;
  /** Least and widest hole of the clearance table. */
  close: number;
  loose: number;
  usual: number;
  headDiameter: number;
  headHeight: number;
  counterbore: number;
  counterboreDepth: number;
  standard: string;
}

const seat = (screw: string, major: number, head: TableEntry | null): ScrewSeat[] => {
  const hole = clearanceHole(screw);
  const { headDiameter, headHeight, counterbore, counterboreDepth } = head?.values ?? {};
  if (!hole || !head || counterbore === undefined) return [];
  const rooms = Object.values(hole.all);
  return [
    {
      screw,
      major,
      close: Math.min(...rooms),
      loose: Math.max(...rooms),
      usual: hole.diameter,
      headDiameter,
      headHeight,
      counterbore,
      counterboreDepth,
      standard: head.standard,
    },
  ];
};

/** Socket head screws of both systems with the seats their standards give them. */
const seats = {
  mm: metricClearance.rows.flatMap((r) =>
    seat(r.name, Number(r.name.slice(1)), metricScrewPages[0].find(`SHCS ${r.name}`)),
  ),
  in: inchClearance.rows.flatMap((r) => seat(r.name, majorOf(r.name), inchScrewPages[0].find(`SHCS ${r.name}`))),
};

/**
 * The socket head screws a hole may be for: their thread goes in, and it is no wider than the standard's widest. Those
 * whose usual hole is nearest come first.
 */
export function screwsThrough(diameter: number, figures: "in" | "mm"): ScrewSeat[] {
  return seats[figures]
    .filter((s) => diameter > s.major && diameter <= s.loose + 1e-6)
    .sort((a, b) => Math.abs(a.usual - diameter) - Math.abs(b.usual - diameter));
}
