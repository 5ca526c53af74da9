import { boxInFrame, v2, type Box, type Frame, type Vec2 } from "../geometry/vec";
import type { Job } from "../job/schema";
import type { SolvedRow } from "../engine/solve";
import type { BodyStep } from "../engine/kernel";
import { combine, offsetRegion, oriented, type Region } from "../outline/boolean";
import {
  circle,
  insideOffset,
  loopArea,
  loopBox,
  insideRest,
  moveLoop,
  outsideOffset,
  perimeter,
  roundedLoop,
  type Loop,
  type Segment,
} from "../outline";
import { cribFor, inchDrills, metricDrills, drillNamed, type Cutter } from "../tables";
import { pocketShape, type CutPocket } from "../rows/cutPocket";
import type { Feature, Resolved } from "../rows";
import { DRILL_POINT } from "../rows/holeCommon";

/** Share of the cutter's diameter taken sideways, and downwards, by the planned passes; common practice, no source. */
const STEP_OVER = 0.5;
const STEP_DOWN = 0.5;
/** Drilling feed used for the estimate, mm a minute; common practice, no source. */
const DRILL_FEED = 120;
const RAPID = 3000;
/** Height over whatever stands, at which the cutter moves in rapid, mm; common practice, no source. */
export const CLEARANCE = 3;

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
const reaching = (crib: readonly Cutter[], depth: number) =>
  crib.filter((c) => c.reach >= depth - 1e-6).sort((a, b) => b.diameter - a.diameter);

/** Plans of an evaluation are asked for by rules, the page and the files: worked out once. */
const planned = new WeakMap<SolvedRow[], { job: Job; stock: Box | null; plans: PathPlan[] }>();

/**
 * Plans the paths of every facing, pocket, hole and of the outer outline.
 * A cutter chosen by hand is kept; else the largest that makes the corners, and where the corners are sharp the
 * largest that leaves little.
 * @param stock box of the stock; without one nothing stands over the part
 */
export function planPaths(job: Job, rows: SolvedRow[], stock: Box | null = null): PathPlan[] {
  const known = planned.get(rows);
  if (known?.job === job && known.stock === stock) return known.plans;
  const plans = planAll(job, rows, stock);
  planned.set(rows, { job, stock, plans });
  return plans;
}

function planAll(job: Job, rows: SolvedRow[], stock: Box | null): PathPlan[] {
  const crib = job.crib ?? cribFor(job.unit);
  const chosen = new Map((job.cutters ?? []).map((c) => [c.row, crib.find((t) => t.name === c.cutter)]));
  const plans: PathPlan[] = [];
  const outline = rows.find((r) => r.state === "ok" && r.placed?.step?.op === "leave");
  for (const row of rows) {
    if (row.state !== "ok" || !row.placed) continue;
    if (row.recipe?.op === "face") {
      const face = planFace(row, stock, crib, chosen.get(row.row.id));
      if (face) plans.push(face);
      continue;
    }
    const step = row.placed.step;
    if (!step || step.op === "edges" || step.op === "plate") continue;
    if (row === outline && step.op === "leave" && step.body.body === "prism")
      plans.push(planOutline(row, crib, chosen.get(row.row.id)));
    else if (row.feature?.is === "pocket")
      plans.push((row.feature.free ? planFree : planPocket)(row, crib, chosen.get(row.row.id)));
    else if (row.feature?.is === "hole") plans.push(planHoles(job, row, row.feature, crib));
  }
  return plans;
}

/**
 * Facing: to and fro over the whole stock, from where it stands down to the row's floor. Null when there is nothing
 * to take.
 */
function planFace(
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
  if (!across || over + deep < 1e-6) return null;
  const base = blankPlan(row, "face", frame, deep, `face, row ${row.number}`);
  const cutter =
    wanted ?? crib.reduce<Cutter | null>((best, c) => (!best || c.diameter > best.diameter ? c : best), null);
  if (!cutter) return { ...base, problem: "there is no cutter in the crib" };
  const count = Math.max(1, Math.ceil((over + deep) / (cutter.diameter * STEP_DOWN) - 1e-9));
  const levels = Array.from({ length: count }, (_, i) => ((over + deep) * (i + 1)) / count - over);
  const chain = toAndFro(across, cutter.diameter);
  const length = perimeter(chain) * count;
  const cleared: Region = [
    roundedLoop(
      [
        v2(across.min.x, across.min.y),
        v2(across.max.x, across.min.y),
        v2(across.max.x, across.max.y),
        v2(across.min.x, across.max.y),
      ],
      0,
    )!,
  ];
  return {
    ...base,
    cutter,
    chains: [chain],
    levels,
    cleared,
    length,
    minutes: length / cutter.feed + (count * CLEARANCE * 2) / RAPID,
  };
}

/** Strokes along x over a box, half the cutter beyond its ends, stepping over by the usual share. */
function toAndFro(box: { min: Vec2; max: Vec2 }, diameter: number): Segment[] {
  const beyond = diameter / 2 + CLEARANCE;
  const [left, right] = [box.min.x - beyond, box.max.x + beyond];
  const width = box.max.y - box.min.y;
  const strokes = Math.max(1, Math.ceil(width / (diameter * STEP_OVER)));
  const points: Vec2[] = [];
  for (let i = 0; i < strokes; i++) {
    const y = strokes === 1 ? (box.min.y + box.max.y) / 2 : box.min.y + (width * i) / (strokes - 1);
    points.push(...(i % 2 ? [v2(right, y), v2(left, y)] : [v2(left, y), v2(right, y)]));
  }
  return points.slice(1).map((to, i): Segment => ({ kind: "line", from: points[i], to }));
}

function planPocket(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = row.resolved as Resolved<CutPocket>;
  const depth = step.body.body === "prism" ? step.body.to - (row.placed!.thru ? 1 : 0) : 0;
  const base = blankPlan(row, "pocket", step.frame, depth, `pocket, row ${row.number}`);
  const able = reaching(crib, depth);
  const shape = pocketShape(body);
  if (!shape.ok) return { ...base, problem: shape.problems[0].message };
  const centres = step.places;
  if (shape.value === null) {
    const radius = (body.shape.form === "circle" ? body.shape.diameter : 0) / 2;
    return planRound(
      base,
      radius,
      body.corner ? { x: radius, y: radius } : undefined,
      wanted ?? able.find((c) => c.diameter <= radius * 1.5) ?? null,
      centres,
    );
  }
  const { corners, radius } = shape.value;
  const sharp = radius === 0;
  const goesIn = (c: Cutter) => insideOffset(shape.value!, c.diameter / 2) !== null;
  const candidates = able.filter(goesIn);
  const cutter =
    wanted ??
    (sharp
      ? (candidates.find((c) => roundedLoop(corners, c.diameter * 1.5) !== null) ?? candidates[candidates.length - 1])
      : (candidates.find((c) => c.diameter / 2 <= radius + 1e-6) ?? candidates[candidates.length - 1])) ??
    null;
  if (!cutter)
    return { ...base, problem: able.length ? "no cutter that reaches goes in" : `no cutter reaches the depth` };
  const wall = insideOffset(shape.value, cutter.diameter / 2);
  const rest = insideRest(shape.value, cutter.diameter / 2);
  if (!wall) return { ...base, cutter, rest, problem: `${cutter.name} does not go in` };
  const clearing: Loop[] = [];
  for (let d = cutter.diameter / 2 + cutter.diameter * STEP_OVER; ; d += cutter.diameter * STEP_OVER) {
    const loop = insideOffset(shape.value, d);
    if (!loop) break;
    clearing.push(loop);
  }
  const short = cutter.reach < depth - 1e-6 ? `${cutter.name} does not reach the depth` : null;
  const cleared = centres.map((p) => moveLoop(roundedLoop(corners, radius)!, p));
  return {
    ...finish({ ...base, cutter, rest: copies(rest, centres), cleared }, [wall], clearing, centres),
    problem: short,
  };
}

/** A round pocket or a bore: rings from the middle outwards, and the wall. */
function planRound(
  base: PathPlan,
  radius: number,
  centre: Vec2 | undefined,
  cutter: Cutter | null,
  places: Vec2[],
): PathPlan {
  if (!cutter || radius - cutter.diameter / 2 <= 1e-6)
    return { ...base, cutter, problem: cutter ? `${cutter.name} does not go in` : "no cutter goes in and reaches" };
  const rings: Loop[] = [];
  for (let r = radius - cutter.diameter / 2 - cutter.diameter * STEP_OVER; r > 1e-6; r -= cutter.diameter * STEP_OVER)
    rings.push(circle(r, centre));
  const short = cutter.reach < base.depth - 1e-6 ? `${cutter.name} does not reach the depth` : null;
  return {
    ...finish(
      { ...base, cutter, cleared: places.map((p) => moveLoop(circle(radius, centre), p)) },
      [circle(radius - cutter.diameter / 2, centre)],
      rings,
      places,
    ),
    problem: short,
  };
}

/**
 * A pocket of any outline, islands and all: the wall's offset, the clearing inside it, and what the cutter leaves,
 * all with exact arcs.
 */
function planFree(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = step.body as Extract<typeof step.body, { body: "prism" }>;
  const depth = body.to - (row.placed!.thru ? 1 : 0);
  const base = blankPlan(row, "pocket", step.frame, depth, `pocket, row ${row.number}`);
  const whole: Region = oriented([body.outline, ...(body.more ?? [])].flatMap((o) => [o.outer, ...o.holes]));
  const able = reaching(crib, depth);
  // Where the outline runs off the part, the cutter goes its own width beyond the edge and no further.
  const within = (r: Region, by: number): Region =>
    body.edge ? combine(r, rectangleAbout(body.edge, by), "overlap") : r;
  const looked = (wanted ? [wanted] : able)
    .map((c) => {
      const region = within(whole, c.diameter);
      const wall = offsetRegion(region, -c.diameter / 2);
      const left = wall.length ? combine(region, offsetRegion(wall, c.diameter / 2), "cutout") : region,
        seen = within(left, 0).filter((l) => Math.abs(loopArea(l)) > 1e-4);
      return { c, wall, rest: { area: seen.reduce((s, l) => s + loopArea(l), 0), loops: seen } };
    })
    .filter((q) => q.wall.length);
  if (!looked.length)
    return {
      ...base,
      cutter: wanted ?? null,
      problem: wanted
        ? `${wanted.name} does not go in`
        : able.length
          ? "no cutter that reaches goes in"
          : "no cutter reaches the depth",
    };
  // The largest that makes every corner; else the one that leaves least.
  const best =
    looked.find((q) => q.rest.area < 1e-3) ?? looked.reduce((a, b) => (b.rest.area < a.rest.area - 1e-6 ? b : a));
  const clearing: Loop[] = [];
  for (let d = best.c.diameter * STEP_OVER, k = 0; k < 400; d += best.c.diameter * STEP_OVER, k++) {
    const ring = offsetRegion(best.wall, -d);
    if (!ring.length) break;
    clearing.push(...ring);
  }
  const short = best.c.reach < depth - 1e-6 ? `${best.c.name} does not reach the depth` : null;
  const cleared = step.places.flatMap((p) => whole.map((l) => moveLoop(l, p)));
  return {
    ...finish(
      { ...base, cutter: best.c, rest: copies(best.rest, step.places), cleared },
      best.wall,
      clearing,
      step.places,
    ),
    problem: short,
  };
}

/** A box as a region, larger by a margin. */
const rectangleAbout = (b: { min: Vec2; max: Vec2 }, by: number): Region => [
  roundedLoop(
    [
      { x: b.min.x - by, y: b.min.y - by },
      { x: b.max.x + by, y: b.min.y - by },
      { x: b.max.x + by, y: b.max.y + by },
      { x: b.min.x - by, y: b.max.y + by },
    ],
    0,
  )!,
];

/** The cutter's way round a piece; an outline of any shape is offset exactly, inside corners and all. */
const aroundOutline = (row: SolvedRow, outer: Loop, radius: number): Loop[] =>
  row.feature?.is === "body" && row.feature.free
    ? offsetRegion([outer], radius).filter((l) => loopArea(l) > 0)
    : [outsideOffset(outer, radius)];

function planOutline(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = step.body as Extract<typeof step.body, { body: "prism" }>;
  const height = body.from - body.to;
  // The outline is cut from the top of the leave row down to its foot.
  const frame = row.planes!.top!;
  const base = blankPlan(row, "outline", frame, height, `outline, row ${row.number}`);
  const cutter = wanted ?? reaching(crib, height)[0] ?? null;
  if (!cutter) return { ...base, problem: "no cutter reaches the height of the part: cut it from both sides" };
  const short = cutter.reach < height - 1e-6 ? `${cutter.name} does not reach the height of the part` : null;
  return {
    ...finish({ ...base, cutter }, aroundOutline(row, body.outline.outer, cutter.diameter / 2), [], step.places),
    problem: short,
  };
}

/** How far the full diameter of a drill goes beyond the far side of a through hole, mm; common practice, no source. */
const BREAK_THROUGH = 1;

/**
 * Holes: drilled where a drill of the size is known and a drill makes their bottom, else milled in rings where an
 * end mill goes in and reaches.
 * Through means that the full diameter leaves the part: the drill goes on by the length of its point.
 */
type Hole = Extract<Feature, { is: "hole" }>;

function planHoles(job: Job, row: SolvedRow, hole: Hole, crib: readonly Cutter[]): PathPlan {
  const step = row.placed!.step as BodyStep;
  const { diameter } = hole;
  const mouth = row.resolved as { cbore?: object; csk?: object };
  const profile = step.body.body === "revolved" ? step.body.profile : [];
  const end = profile[profile.length - 1];
  const thru = row.placed!.thru;
  // A through tool solid ends a millimetre beyond the part (`depthThrough`).
  const exit = thru ? end.z - 1 : end.z;
  const unplanned = [
    ...(mouth.cbore ? ["counterbore"] : []),
    ...(mouth.csk ? ["countersink"] : []),
    ...(hole.thread ? ["tapping"] : []),
  ];
  const drill = drillNamed(diameter, drillsFor(job.unit));
  const flat = !thru && end.r > 1e-6;
  if (!drill || flat) {
    const depth = thru ? exit + BREAK_THROUGH : exit;
    const base = { ...blankPlan(row, "pocket", step.frame, depth, `bore ⌀ by milling, row ${row.number}`), unplanned };
    const milled = planRound(
      base,
      diameter / 2,
      undefined,
      reaching(crib, depth).find((c) => c.diameter <= diameter * 0.75) ?? null,
      step.places,
    );
    return milled.problem
      ? {
          ...milled,
          problem: `${flat && drill ? "its flat bottom is no drill’s" : "no drill of this size"}, and ${milled.problem} to mill it: bore or ream it`,
        }
      : milled;
  }
  const depth = thru ? exit + diameter / 2 / Math.tan(DRILL_POINT / 2) + BREAK_THROUGH : exit;
  const base = {
    ...blankPlan(row, "drill", step.frame, depth, `drill ${step.places.length}×, row ${row.number}`),
    unplanned,
  };
  const points = nearestOrder(step.places);
  const travel = points.reduce(
    (sum, p, i) => (i ? sum + Math.hypot(p.x - points[i - 1].x, p.y - points[i - 1].y) : 0),
    0,
  );
  return {
    ...base,
    drill: drill.name,
    drillRadius: diameter / 2,
    points,
    levels: [depth],
    length: points.length * depth,
    cleared: step.places.map((p) => circle(diameter / 2, p)),
    minutes: (points.length * (depth + CLEARANCE)) / DRILL_FEED + travel / RAPID,
  };
}

const drillsFor = (unit: Job["unit"]) =>
  ({ in: [...inchDrills.rows, ...metricDrills.rows], mm: [...metricDrills.rows, ...inchDrills.rows] })[unit];

const blankPlan = (row: SolvedRow, kind: PathPlan["kind"], frame: Frame, depth: number, title: string): PathPlan => ({
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

const copies = (rest: PathPlan["rest"], places: Vec2[]): PathPlan["rest"] => ({
  area: rest.area * places.length,
  loops: places.flatMap((p) => rest.loops.map((l) => moveLoop(l, p))),
});

function finish(plan: PathPlan, wall: Loop[], clearing: Loop[], places: Vec2[]): PathPlan {
  const cutter = plan.cutter!;
  const count = Math.max(1, Math.ceil(plan.depth / (cutter.diameter * STEP_DOWN) - 1e-9));
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
    minutes: length / cutter.feed + (places.length * count * CLEARANCE * 2) / RAPID,
  };
}

/** Points in an order that goes to the nearest next one. */
function nearestOrder(points: Vec2[]): Vec2[] {
  const left = [...points];
  const order: Vec2[] = left.length ? [left.shift()!] : [];
  while (left.length) {
    const here = order[order.length - 1];
    let best = 0;
    for (let i = 1; i < left.length; i++)
      if (Math.hypot(left[i].x - here.x, left[i].y - here.y) < Math.hypot(left[best].x - here.x, left[best].y - here.y))
        best = i;
    order.push(left.splice(best, 1)[0]);
  }
  return order;
}
