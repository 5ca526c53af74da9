import type { BodyStep } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import { CONTACT, DISPLAY } from "../geometry/tolerance";
import { v2, type Vec2 } from "../geometry/vec";
import { combine, offsetRegion, oriented, type Region } from "../outline/boolean";
import { circle, loopArea, moveLoop, rectangleBetween, type Loop } from "../outline";
import { pathPractice, type Cutter } from "../tables";
import { blankPlan, copies, finish, reaching, tooShort, type PathPlan } from "./pathPlan";

type Prism = Extract<BodyStep["body"], { body: "prism" }>;

/** What the cutter leaves below this area, mm², is nothing: the corners are made. */
const NOTHING_LEFT = 1e-3;
/** Clearing passes of one pocket at most. */
const MOST_RINGS = 400;

/**
 * A pocket of any outline, islands and all: the wall's offset, the clearing inside it, and what the cutter leaves,
 * all with exact arcs. A round one is cut in rings.
 */
export function planPocket(row: SolvedRow, crib: readonly Cutter[], wanted: Cutter | undefined): PathPlan {
  const step = row.placed!.step as BodyStep;
  const body = step.body as Prism;
  const depth = body.to - (row.placed!.thru ? 1 : 0);
  const base = blankPlan(row, "pocket", step.frame, depth, `pocket, row ${row.number}`);
  const able = reaching(crib, depth);
  const only = body.outline.outer[0];
  if (row.feature?.is === "pocket" && row.feature.round !== null && only.kind === "arc" && !body.edge) {
    const cutter = wanted ?? able.find((c) => c.diameter <= only.radius * 2 * pathPractice.boreShare) ?? null;
    return planRound(base, only.radius, only.centre, cutter, step.places);
  }
  const whole: Region = oriented([body.outline, ...(body.more ?? [])].flatMap((o) => [o.outer, ...o.holes]));
  const best = chooseCutter(whole, body.edge, wanted ? [wanted] : able);
  if (!best) return { ...base, cutter: wanted ?? null, problem: whyNone(wanted, able.length > 0) };
  const cleared = step.places.flatMap((p) => whole.map((l) => moveLoop(l, p)));
  const plan = { ...base, cutter: best.cutter, rest: copies(best.rest, step.places), cleared };
  const clearing = ringsInside(best.wall, best.cutter.diameter * pathPractice.stepOver);
  return { ...finish(plan, best.wall, clearing, step.places), problem: tooShort(best.cutter, depth) };
}

const whyNone = (wanted: Cutter | undefined, someReach: boolean): string => {
  if (wanted) return `${wanted.name} does not go in`;
  return someReach ? "no cutter that reaches goes in" : "no cutter reaches the depth";
};

interface Tried {
  cutter: Cutter;
  wall: Region;
  rest: PathPlan["rest"];
}

/**
 * The largest cutter that makes every corner. Where no cutter does, for a corner is sharp: the largest that makes the
 * rounds there are and has room; failing that, the one that leaves least.
 */
function chooseCutter(whole: Region, edge: Prism["edge"], candidates: readonly Cutter[]): Tried | null {
  const tried: Tried[] = [];
  for (const cutter of candidates) {
    const one = tryCutter(whole, edge, cutter);
    if (!one) continue;
    if (one.rest.area < NOTHING_LEFT) return one;
    tried.push(one);
  }
  const round = smallestInsideRound(whole);
  const roomy = tried.find(
    (t) =>
      t.cutter.diameter / 2 <= round + CONTACT &&
      offsetRegion(withinEdge(whole, edge, t.cutter.diameter), -(t.cutter.diameter * pathPractice.roomForCutter) / 2)
        .length > 0,
  );
  const least = (a: Tried, b: Tried) => (b.rest.area < a.rest.area - CONTACT ? b : a);
  return roomy ?? (tried.length ? tried.reduce(least) : null);
}

/** The smallest round an inside corner has; infinite where all are sharp. */
const smallestInsideRound = (region: Region): number =>
  Math.min(Infinity, ...region.flatMap((l) => l.flatMap((s) => (s.kind === "arc" && s.sweep > 0 ? [s.radius] : []))));

function tryCutter(whole: Region, edge: Prism["edge"], cutter: Cutter): Tried | null {
  const region = withinEdge(whole, edge, cutter.diameter);
  const wall = offsetRegion(region, -cutter.diameter / 2);
  if (!wall.length) return null;
  const left = withinEdge(combine(region, offsetRegion(wall, cutter.diameter / 2), "cutout"), edge, 0);
  const loops = left.filter((l) => Math.abs(loopArea(l)) > DISPLAY);
  return { cutter, wall, rest: { area: loops.reduce((sum, l) => sum + loopArea(l), 0), loops } };
}

/** Where the outline runs off the part, the cutter goes its own width beyond the edge and no further. */
const withinEdge = (region: Region, edge: Prism["edge"], by: number): Region =>
  edge
    ? combine(
        region,
        [rectangleBetween(v2(edge.min.x - by, edge.min.y - by), v2(edge.max.x + by, edge.max.y + by))],
        "overlap",
      )
    : region;

/** Clearing passes from the wall inwards, each one step inside the one before. */
function ringsInside(wall: Region, step: number): Loop[] {
  const rings: Loop[] = [];
  for (let k = 1; k <= MOST_RINGS; k++) {
    const ring = offsetRegion(wall, -k * step);
    if (!ring.length) break;
    rings.push(...ring);
  }
  return rings;
}

/** A round pocket or a bore: rings from the middle outwards, and the wall. */
export function planRound(
  base: PathPlan,
  radius: number,
  centre: Vec2 | undefined,
  cutter: Cutter | null,
  places: Vec2[],
): PathPlan {
  if (!cutter || radius - cutter.diameter / 2 <= CONTACT)
    return { ...base, cutter, problem: cutter ? `${cutter.name} does not go in` : "no cutter goes in and reaches" };
  const step = cutter.diameter * pathPractice.stepOver;
  const rings: Loop[] = [];
  for (let r = radius - cutter.diameter / 2 - step; r > CONTACT; r -= step) rings.push(circle(r, centre));
  const cleared = places.map((p) => moveLoop(circle(radius, centre), p));
  const wall = [circle(radius - cutter.diameter / 2, centre)];
  return { ...finish({ ...base, cutter, cleared }, wall, rings, places), problem: tooShort(cutter, base.depth) };
}
