import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { sequence, word, type Part } from "../grammar/grammar";
import {
  polygonCorners,
  rectangleCorners,
  flatsFromCorners,
  roundedLoop,
  moveLoop,
  circle,
  type Loop,
  type Outline,
  type ConvexShape,
} from "../outline";
import { gridPlaces, linePlaces, roundAngles } from "../geometry/arrays";
import { add2, rotate2, v2, type Vec2 } from "../geometry/vec";
import { planeOf } from "./extent";
import type { Body, Recipe, Resolved, ProfilePoint } from "./kind";
import { spotsOf, type OutlineSource } from "./outlineSource";
import type { Pattern } from "./places";
import { COINCIDENT, ROUNDING } from "../geometry/tolerance";

/**
 * The places of a resolved pattern, in the coordinates of the plane.
 * @param count what `nX` says; it must agree with the places, or gives their number on a bolt circle
 */
export function placesOf(p: Resolved<Pattern>, count: number | undefined, outlines?: OutlineSource): Result<Vec2[]> {
  const at = "at" in p && p.at ? v2(p.at.x, p.at.y) : v2(0, 0);
  const agree = (places: Vec2[]): Result<Vec2[]> => {
    if (places.length > 5000) return fail(problems.tooManyPlaces(places.length), { path: "pattern.nx" });
    return count === undefined || count === places.length
      ? ok(places)
      : fail(problems.countAgainstPlaces(count, places.length), { path: "count" });
  };
  switch (p.kind) {
    case "single":
      return agree([v2(0, 0)]);
    case "points":
      return agree(p.points.map((q) => v2(q.x, q.y)));
    case "grid": {
      const total = p.nx * p.ny;
      if (total > 5000) return fail(problems.tooManyPlacesInAll(total), { path: "pattern.nx" });
      const from = v2(at.x - ((p.nx - 1) / 2) * p.dx, at.y - ((p.ny - 1) / 2) * p.dy);
      return agree(gridPlaces(p.nx, p.ny, p.dx, p.dy).map((q) => add2(from, q)));
    }
    case "line":
      return agree(linePlaces(p.n, p.by, p.turn).map((q) => add2(at, q)));
    case "outline": {
      const found = spotsOf(p.outline as string, p.of, outlines);
      return found.ok ? agree(found.value) : found;
    }
    case "boltCircle": {
      if (count === undefined) return fail(problems.howManyOnCircle(), { path: "pattern.diameter" });
      const radius = p.diameter / 2;
      return ok(roundAngles(count, p.from).map((a) => v2(at.x + radius * Math.cos(a), at.y + radius * Math.sin(a))));
    }
  }
}

/** A body cut at every place of a row's pattern, from its plane. */
export function cutAt(
  row: { plane: object; pattern: Resolved<Pattern>; count?: number },
  body: Body,
  outlines?: OutlineSource,
): Result<Recipe> {
  const places = placesOf(row.pattern, row.count, outlines);
  return places.ok ? ok({ op: "cut", plane: planeOf(row.plane), body, places: places.value }) : places;
}

/** Flat shapes that blocks, pockets and polygons share. */
interface PolygonSize {
  sides: number;
  across: "AF" | "AC";
  size: number;
}

/** Corners of a regular polygon; without a turn a flat faces -y. */
export function polygonShape({ sides, across, size }: PolygonSize, radius: number): Result<ConvexShape> {
  if (sides < 3 || sides > 360) return fail(problems.sidesOfPolygon(), { path: "sides" });
  const flats = across === "AF" ? size : flatsFromCorners(sides, size);
  return checkRounds({ corners: polygonCorners(sides, flats), radius });
}

export const rectangleShape = (l: number, w: number, radius: number, corner: boolean): Result<ConvexShape> =>
  checkRounds({ corners: rectangleCorners(l, w, corner), radius });

function checkRounds(shape: ConvexShape): Result<ConvexShape> {
  if (roundedLoop(shape.corners, shape.radius)) return ok(shape);
  return fail(problems.cornerRadiusTooLarge(), { path: "radius" });
}

/** The loop of a convex shape, turned about the point it is placed by. */
export const loopOf = (shape: ConvexShape, turn = 0): Loop =>
  moveLoop(roundedLoop(shape.corners, shape.radius)!, v2(0, 0), turn);

export const turned = (shape: ConvexShape, turn: number): ConvexShape => ({
  ...shape,
  corners: shape.corners.map((c) => rotate2(c, turn)),
});

export const disc = (diameter: number): Outline => ({ outer: circle(diameter / 2), holes: [] });
export const annulus = (outer: number, inner: number): Outline => ({
  outer: circle(outer / 2),
  holes: [circle(inner / 2)],
});

/** `l X w` with the numbers kept at two paths. */
export const by = (first: Part, ...rest: Part[]): Part => sequence(first, ...rest.flatMap((p) => [word("X"), p]));

/** A straight-sided piece of a hole: radius r0 at depth z0 to r1 at z1. */
export interface Piece {
  r0: number;
  z0: number;
  r1: number;
  z1: number;
}

/**
 * The hole that several coaxial cuts make together: at every depth the widest of them.
 * @param thruRadius radius that goes on to the far side, or null for a blind hole
 */
export function envelope(pieces: Piece[], thruRadius: number | null): ProfilePoint[] {
  const far = Math.max(...pieces.map((p) => p.z1)) + 1;
  const all = thruRadius === null ? pieces : [...pieces, { r0: thruRadius, z0: 0, r1: thruRadius, z1: far }];
  const at = (p: Piece, z: number): number =>
    z < p.z0 || z > p.z1 ? -1 : p.r0 + ((p.r1 - p.r0) * (z - p.z0)) / (p.z1 - p.z0);
  const stops = new Set<number>();
  for (const p of all) stops.add(p.z0).add(p.z1);
  for (let i = 0; i < all.length; i++)
    for (let j = i + 1; j < all.length; j++) {
      const a = all[i],
        b = all[j];
      const sa = (a.r1 - a.r0) / (a.z1 - a.z0),
        sb = (b.r1 - b.r0) / (b.z1 - b.z0);
      if (Math.abs(sa - sb) < ROUNDING) continue;
      const z = (b.r0 - sb * b.z0 - a.r0 + sa * a.z0) / (sa - sb);
      if (z > Math.max(a.z0, b.z0) && z < Math.min(a.z1, b.z1)) stops.add(z);
    }
  const levels = [...stops].sort((x, y) => x - y).filter((z, i, l) => i === 0 || z - l[i - 1] > COINCIDENT);
  const profile: ProfilePoint[] = [];
  const push = (r: number, z: number | "thru") => {
    const last = profile[profile.length - 1],
      before = profile[profile.length - 2];
    if (
      last &&
      last.z !== "thru" &&
      z !== "thru" &&
      Math.abs(last.r - r) < COINCIDENT &&
      Math.abs(last.z - z) < COINCIDENT
    )
      return;
    // Keep a straight wall in one piece: a seam in it would be an edge nobody drew.
    if (before && last && z !== "thru" && before.z !== "thru" && last.z !== "thru") {
      const turn = (last.r - before.r) * (z - last.z) - (last.z - before.z) * (r - last.r);
      if (Math.abs(turn) < ROUNDING && (last.z - before.z) * (z - last.z) + (last.r - before.r) * (r - last.r) > 0)
        profile.pop();
    }
    profile.push({ r, z });
  };
  for (let i = 0; i + 1 < levels.length; i++) {
    const [a, b] = [levels[i], levels[i + 1]],
      middle = (a + b) / 2;
    const top = all.reduce((best, p) => (at(p, middle) > at(best, middle) ? p : best));
    push(Math.max(0, at(top, a)), a);
    push(Math.max(0, at(top, b)), b);
  }
  if (thruRadius !== null) profile[profile.length - 1].z = "thru";
  return profile;
}

/** Volume of a revolved profile down to `thruDepth`: frustums π h (r0² + r0 r1 + r1²) / 3. */
export function profileVolume(profile: ProfilePoint[], thruDepth: number): number {
  let v = 0;
  for (let i = 0; i + 1 < profile.length; i++) {
    const a = profile[i],
      b = profile[i + 1];
    const h = (b.z === "thru" ? thruDepth : b.z) - (a.z === "thru" ? thruDepth : a.z);
    v += (Math.PI * h * (a.r * a.r + a.r * b.r + b.r * b.r)) / 3;
  }
  return v;
}
