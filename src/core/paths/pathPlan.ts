import type { SolvedRow } from "../engine/solve";
import type { Frame, Vec2 } from "../geometry/vec";
import { CONTACT, COINCIDENT } from "../geometry/tolerance";
import type { Region } from "../outline/boolean";
import { moveLoop, perimeter, type Loop } from "../outline";
import { pathPractice, type Cutter } from "../tables";

/** The wireframe of one row: cutter-centre chains and drill points in the coordinates of its plane, depths below it. */
export interface PathPlan {
  row: number;
  rowId: string;
  kind: "pocket" | "outline" | "drill" | "face";
  title: string;
  frame: Frame;
  depth: number;
  cutter: Cutter | null;
  drill: string | null;
  /** Half the drill's diameter, mm; 0 where none is used. */
  drillRadius: number;
  /** Chains of the final pass along the wall first, then clearing chains; all at every level. */
  chains: Loop[];
  clearing: Loop[];
  levels: number[];
  points: Vec2[];
  /** What the cutter leaves standing in the corners: loops in the plane and area in mm² of one slice. */
  rest: { area: number; loops: Loop[] };
  /** Length cut, mm, and time, minutes: an estimate for planning. */
  length: number;
  minutes: number;
  problem: string | null;
  /** What of the row no path is planned for yet: its counterbore, its thread. */
  unplanned: string[];
  /** What it clears, in its plane; an open one may run beyond it. Null where it clears nothing by itself. */
  cleared: Region | null;
}

/** Cutters that reach a depth, the largest first. */
export const reaching = (crib: readonly Cutter[], depth: number) =>
  crib.filter((c) => c.reach >= depth - CONTACT).sort((a, b) => b.diameter - a.diameter);

/** A plan with nothing in it yet. */
export const blankPlan = (
  row: SolvedRow,
  kind: PathPlan["kind"],
  frame: Frame,
  depth: number,
  title: string,
): PathPlan => ({
  row: row.number,
  rowId: row.row.id,
  kind,
  title,
  frame,
  depth,
  cutter: null,
  drill: null,
  drillRadius: 0,
  chains: [],
  clearing: [],
  levels: [],
  points: [],
  rest: { area: 0, loops: [] },
  length: 0,
  minutes: 0,
  problem: null,
  unplanned: [],
  cleared: null,
});

/** What is left standing, at every place of a row. */
export const copies = (rest: PathPlan["rest"], places: Vec2[]): PathPlan["rest"] => ({
  area: rest.area * places.length,
  loops: places.flatMap((p) => rest.loops.map((l) => moveLoop(l, p))),
});

/** A plan with its final and clearing passes at every place and level, their length and time. */
export function finish(plan: PathPlan, wall: Loop[], clearing: Loop[], places: Vec2[]): PathPlan {
  const cutter = plan.cutter!;
  const count = Math.max(1, Math.ceil(plan.depth / (cutter.diameter * pathPractice.stepDown) - COINCIDENT));
  const levels = Array.from({ length: count }, (_, i) => (plan.depth * (i + 1)) / count);
  const chains = places.flatMap((p) => wall.map((l) => moveLoop(l, p)));
  const inner = places.flatMap((p) => clearing.map((l) => moveLoop(l, p)));
  const length = [...chains, ...inner].reduce((sum, l) => sum + perimeter(l), 0) * count;
  return {
    ...plan,
    chains,
    clearing: inner,
    levels,
    length,
    minutes: length / cutter.feed + (places.length * count * pathPractice.clearance * 2) / pathPractice.rapid,
  };
}

/** Says that a cutter is too short for a depth; null when it reaches. */
export const tooShort = (cutter: Cutter, depth: number, what = "the depth"): string | null =>
  cutter.reach < depth - CONTACT ? `${cutter.name} does not reach ${what}` : null;
