import type { Frame, Vec2 } from '../geometry/vec';
import type { Job } from '../job/schema';
import type { SolvedRow } from '../engine/solve';
import type { BodyStep } from '../engine/kernel';
import { combine, offsetRegion, oriented, type Region } from '../outline/boolean';
import { circle, insideOffset, loopArea, insideRest, moveLoop, outsideOffset, perimeter, roundedLoop, type Loop } from '../outline';
import { cribFor, inchDrills, metricDrills, drillNamed, type Cutter } from '../tables';
import { pocketShape, type CutPocket } from '../rows/cutPocket';
import { drilledHole, type CutTapped } from '../rows/cutTapped';
import type { CutHoles } from '../rows/cutHoles';
import type { Resolved } from '../rows';

/** Share of the cutter's diameter taken sideways, and downwards, by the planned passes; common practice, no source. */
const STEP_OVER = 0.5;
const STEP_DOWN = 0.5;
/** Drilling feed used for the estimate, mm a minute; common practice, no source. */
const DRILL_FEED = 120;
const RAPID = 3000;
const CLEARANCE = 3;

/** The wireframe of one row: cutter-centre chains and drill points in the coordinates of its plane, depths below it. */
export interface PathPlan {
  row: number;
  rowId: string;
  kind: 'pocket' | 'outline' | 'drill';
  title: string;
  frame: Frame;
  depth: number;
  cutter: Cutter | null;
  drill: string | null;
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
}

/** Cutters that reach a depth, the largest first. */
const reaching = (crib: readonly Cutter[], depth: number) => crib.filter((c) => c.reach >= depth - 1e-6).sort((a, b) => b.diameter - a.diameter);

/**
 * Plans the paths of every pocket, hole and of the outer outline.
 * A cutter chosen by hand is kept; else the largest that makes the corners, and where the corners are sharp the largest that leaves little.
 */
export function planPaths(job: Job, rows: SolvedRow[]): PathPlan[] {
  const crib = job.crib ?? cribFor(job.unit);
  const chosen = new Map((job.cutters ?? []).map((c) => [c.row, crib.find((t) => t.name === c.cutter)]));
  const plans: PathPlan[] = [];
  const outline = rows.find((r) => r.state === 'ok' && r.placed?.step.op === 'leave');
  for (const row of rows) {
    const step = row.placed?.step;
    if (row.state !== 'ok' || !step || step.op === 'edges' || step.op === 'plate') continue;
    const kind = row.row.body.kind;
    if (row === outline && step.op === 'leave' && step.body.body === 'prism') plans.push(planOutline(row, crib, chosen.get(row.row.id)));
    else if (kind === 'cutOutline') plans.push(planFree(row, crib, chosen.get(row.row.id)));
    else if (kind === 'cutPocket') plans.push(planPocket(row, crib, chosen.get(row.row.id)));
    else if (kind === 'cutHoles' || kind === 'cutTapped') plans.push(planHoles(job, row));
  }
  return plans;
}

function planPocket(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = row.resolved as Resolved<CutPocket>;
  const depth = step.body.body === 'prism' ? step.body.to - (row.placed!.thru ? 1 : 0) : 0;
  const base = blankPlan(row, 'pocket', step.frame, depth, `pocket, row ${row.number}`);
  const able = reaching(crib, depth);
  const shape = pocketShape(body);
  if (!shape.ok) return { ...base, problem: shape.problems[0].message };
  const centres = step.places;
  if (shape.value === null) {
    const radius = (body.shape.form === 'circle' ? body.shape.diameter : 0) / 2;
    const loops = (c: Cutter) => (radius - c.diameter / 2 > 1e-6 ? [circle(radius - c.diameter / 2, body.corner ? { x: radius, y: radius } : undefined)] : []);
    const cutter = wanted ?? able.find((c) => c.diameter <= radius * 1.5) ?? null;
    if (!cutter || !loops(cutter).length) return { ...base, cutter, problem: cutter ? `${cutter.name} does not go in` : `no cutter goes in and reaches` };
    const rings: Loop[] = [];
    for (let r = radius - cutter.diameter / 2 - cutter.diameter * STEP_OVER; r > 1e-6; r -= cutter.diameter * STEP_OVER) rings.push(circle(r, body.corner ? { x: radius, y: radius } : undefined));
    return finish({ ...base, cutter }, loops(cutter), rings, centres);
  }
  const { corners, radius } = shape.value;
  const sharp = radius === 0;
  const goesIn = (c: Cutter) => insideOffset(shape.value!, c.diameter / 2) !== null;
  const candidates = able.filter(goesIn);
  const cutter = wanted ?? (sharp ? candidates.find((c) => roundedLoop(corners, c.diameter * 1.5) !== null) ?? candidates[candidates.length - 1] : candidates.find((c) => c.diameter / 2 <= radius + 1e-6) ?? candidates[candidates.length - 1]) ?? null;
  if (!cutter) return { ...base, problem: able.length ? 'no cutter that reaches goes in' : `no cutter reaches the depth` };
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
  return { ...finish({ ...base, cutter, rest: copies(rest, centres) }, [wall], clearing, centres), problem: short };
}

/** A pocket of any outline, islands and all: the wall's offset, the clearing inside it, and what the cutter leaves, all with exact arcs. */
function planFree(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = step.body as Extract<typeof step.body, { body: 'prism' }>;
  const depth = body.to - (row.placed!.thru ? 1 : 0);
  const base = blankPlan(row, 'pocket', step.frame, depth, `pocket, row ${row.number}`);
  const whole: Region = oriented([body.outline, ...(body.more ?? [])].flatMap((o) => [o.outer, ...o.holes]));
  const able = reaching(crib, depth);
  // Where the outline runs off the part, the cutter goes its own width beyond the edge and no further.
  const within = (r: Region, by: number): Region => (body.edge ? combine(r, rectangleAbout(body.edge, by), 'overlap') : r);
  const looked = (wanted ? [wanted] : able).map((c) => {
    const region = within(whole, c.diameter);
    const wall = offsetRegion(region, -c.diameter / 2);
    const left = wall.length ? combine(region, offsetRegion(wall, c.diameter / 2), 'cutout') : region, seen = within(left, 0).filter((l) => Math.abs(loopArea(l)) > 1e-4);
    return { c, wall, rest: { area: seen.reduce((s, l) => s + loopArea(l), 0), loops: seen } };
  }).filter((q) => q.wall.length);
  if (!looked.length) return { ...base, cutter: wanted ?? null, problem: wanted ? `${wanted.name} does not go in` : able.length ? 'no cutter that reaches goes in' : 'no cutter reaches the depth' };
  // The largest that makes every corner; else the one that leaves least.
  const best = looked.find((q) => q.rest.area < 1e-3) ?? looked.reduce((a, b) => (b.rest.area < a.rest.area - 1e-6 ? b : a));
  const clearing: Loop[] = [];
  for (let d = best.c.diameter * STEP_OVER, k = 0; k < 400; d += best.c.diameter * STEP_OVER, k++) {
    const ring = offsetRegion(best.wall, -d);
    if (!ring.length) break;
    clearing.push(...ring);
  }
  const short = best.c.reach < depth - 1e-6 ? `${best.c.name} does not reach the depth` : null;
  return { ...finish({ ...base, cutter: best.c, rest: copies(best.rest, step.places) }, best.wall, clearing, step.places), problem: short };
}

/** A box as a region, larger by a margin. */
const rectangleAbout = (b: { min: Vec2; max: Vec2 }, by: number): Region => [roundedLoop([{ x: b.min.x - by, y: b.min.y - by }, { x: b.max.x + by, y: b.min.y - by }, { x: b.max.x + by, y: b.max.y + by }, { x: b.min.x - by, y: b.max.y + by }], 0)!];

/** The cutter's way round a piece; an outline of any shape is offset exactly, inside corners and all. */
const aroundOutline = (row: SolvedRow, outer: Loop, radius: number): Loop[] => (row.row.body.kind === 'leavePrism' ? offsetRegion([outer], radius).filter((l) => loopArea(l) > 0) : [outsideOffset(outer, radius)]);

function planOutline(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = step.body as Extract<typeof step.body, { body: 'prism' }>;
  const height = body.from - body.to;
  // The outline is cut from the top of the leave row down to its foot.
  const frame = row.planes!.top!;
  const base = blankPlan(row, 'outline', frame, height, `outline, row ${row.number}`);
  const cutter = wanted ?? reaching(crib, height)[0] ?? null;
  if (!cutter) return { ...base, problem: 'no cutter reaches the height of the part: cut it from both sides' };
  const short = cutter.reach < height - 1e-6 ? `${cutter.name} does not reach the height of the part` : null;
  return { ...finish({ ...base, cutter }, aroundOutline(row, body.outline.outer, cutter.diameter / 2), [], step.places), problem: short };
}

function planHoles(job: Job, row: SolvedRow): PathPlan {
  const step = row.placed!.step as BodyStep;
  const hole = row.row.body.kind === 'cutTapped' ? drilledHole(row.resolved as Resolved<CutTapped>) : null;
  const diameter = hole?.ok ? hole.value.diameter : (row.resolved as Resolved<CutHoles>).diameter;
  const profile = step.body.body === 'revolved' ? step.body.profile : [];
  const depth = profile.length ? profile[profile.length - 1].z : 0;
  const drills = [...(job.unit === 'in' ? inchDrills.rows : metricDrills.rows), ...(job.unit === 'in' ? metricDrills.rows : inchDrills.rows)];
  const drill = drillNamed(diameter, drills);
  const base = blankPlan(row, 'drill', step.frame, depth, `drill ${step.places.length}×, row ${row.number}`);
  const points = nearestOrder(step.places);
  const travel = points.reduce((sum, p, i) => (i ? sum + Math.hypot(p.x - points[i - 1].x, p.y - points[i - 1].y) : 0), 0);
  return {
    ...base, drill: drill ? drill.name : null, points, levels: [depth], length: points.length * depth,
    minutes: (points.length * (depth + CLEARANCE)) / DRILL_FEED + travel / RAPID, problem: drill ? null : 'no drill of this size: bore, ream or mill it',
  };
}

const blankPlan = (row: SolvedRow, kind: PathPlan['kind'], frame: Frame, depth: number, title: string): PathPlan => ({
  row: row.number, rowId: row.row.id, kind, title, frame, depth, cutter: null, drill: null, chains: [], clearing: [], levels: [], points: [], rest: { area: 0, loops: [] }, length: 0, minutes: 0, problem: null,
});

const copies = (rest: PathPlan['rest'], places: Vec2[]): PathPlan['rest'] => ({ area: rest.area * places.length, loops: places.flatMap((p) => rest.loops.map((l) => moveLoop(l, p))) });

function finish(plan: PathPlan, wall: Loop[], clearing: Loop[], places: Vec2[]): PathPlan {
  const cutter = plan.cutter!;
  const count = Math.max(1, Math.ceil(plan.depth / (cutter.diameter * STEP_DOWN) - 1e-9));
  const levels = Array.from({ length: count }, (_, i) => (plan.depth * (i + 1)) / count);
  const chains = places.flatMap((p) => wall.map((l) => moveLoop(l, p)));
  const inner = places.flatMap((p) => clearing.map((l) => moveLoop(l, p)));
  const length = [...chains, ...inner].reduce((sum, l) => sum + perimeter(l), 0) * count;
  return { ...plan, chains, clearing: inner, levels, length, minutes: length / cutter.feed + (places.length * count * CLEARANCE * 2) / RAPID };
}

/** Points in an order that goes to the nearest next one. */
function nearestOrder(points: Vec2[]): Vec2[] {
  const left = [...points];
  const order: Vec2[] = left.length ? [left.shift()!] : [];
  while (left.length) {
    const here = order[order.length - 1];
    let best = 0;
    for (let i = 1; i < left.length; i++) if (Math.hypot(left[i].x - here.x, left[i].y - here.y) < Math.hypot(left[best].x - here.x, left[best].y - here.y)) best = i;
    order.push(left.splice(best, 1)[0]);
  }
  return order;
}
