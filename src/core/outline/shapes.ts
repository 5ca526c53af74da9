import { problems } from "./problems";
import { saidLength, saidMost } from "../number";
import { fail, ok, type Result } from "../base/result";
import { rotate2, v2, type Vec2 } from "../geometry/vec";
import { oriented, type Region } from "./boolean";
import {
  circle,
  flatsFromCorners,
  moveLoop,
  polygonCorners,
  rectangleCorners,
  roundedLoop,
  type Loop,
} from "./outline";
import { COINCIDENT } from "../geometry/tolerance";

const straight = (p: Vec2[]): Loop => p.map((from, i) => ({ kind: "line", from, to: p[(i + 1) % p.length] }));

export function rectangle(l: number, w: number, radius: number, corner: boolean): Result<Region> {
  const loop = roundedLoop(rectangleCorners(l, w, corner), radius);
  return loop ? ok([loop]) : fail(problems.roundsDoNotFit(saidMost(Math.min(l, w) / 2)), { path: "radius" });
}

/** A slot along x about its middle. @param length over all, or between the centres of its rounds */
export function slot(length: number, width: number, centres: boolean): Result<Region> {
  const a = (centres ? length : length - width) / 2,
    r = width / 2;
  if (a < 0) return fail(problems.slotShorterThanWide(saidLength(width)), { path: "length" });
  if (a < COINCIDENT) return ok([circle(r)]);
  return ok([
    [
      { kind: "line", from: v2(-a, -r), to: v2(a, -r) },
      { kind: "arc", centre: v2(a, 0), radius: r, start: -Math.PI / 2, sweep: Math.PI },
      { kind: "line", from: v2(a, r), to: v2(-a, r) },
      { kind: "arc", centre: v2(-a, 0), radius: r, start: Math.PI / 2, sweep: Math.PI },
    ],
  ]);
}

export function polygon(sides: number, across: "AF" | "AC", size: number, radius: number): Result<Region> {
  if (sides < 3 || sides > 360) return fail(problems.sidesOfPolygon(), { path: "sides" });
  const flats = across === "AF" ? size : flatsFromCorners(sides, size);
  const loop = roundedLoop(polygonCorners(sides, flats), radius);
  return loop ? ok([loop]) : fail(problems.roundsDoNotFit(saidMost(flats / 2)), { path: "radius" });
}

/**
 * n points on a circle joined by way of an inner one; the first point looks to +y. Area n/2 · R · r · sin(π/n) · 2 /
 * 2 = n R r sin(π/n) with R, r the radii.
 */
export function star(points: number, outer: number, inner: number): Result<Region> {
  if (points < 2 || points > 720) return fail(problems.pointsOfStar(), { path: "points" });
  if (inner >= outer) return fail(problems.starInnerNotSmaller(), { path: "inner" });
  return ok([
    straight(
      Array.from({ length: 2 * points }, (_, i) => {
        const r = (i % 2 ? inner : outer) / 2,
          a = Math.PI / 2 + (Math.PI * i) / points;
        return v2(r * Math.cos(a), r * Math.sin(a));
      }),
    ),
  ]);
}

export function ring(outer: number, inner: number): Result<Region> {
  return inner >= outer
    ? fail(problems.insideNotSmaller(), { path: "inner" })
    : ok(oriented([circle(outer / 2), circle(inner / 2)]));
}

/**
 * Two circles and their outer tangents: a teardrop, a connecting web. Tangent points lie at acos((r₁ − r₂)/d) from
 * the line of centres.
 */
export function link(d1: number, c1: Vec2, d2: number, c2: Vec2): Result<Region> {
  const r1 = d1 / 2,
    r2 = d2 / 2,
    d = Math.hypot(c2.x - c1.x, c2.y - c1.y);
  if (d <= Math.abs(r1 - r2) + COINCIDENT) return fail(problems.circleInsideOther(saidLength(Math.abs(r1 - r2))));
  const along = Math.atan2(c2.y - c1.y, c2.x - c1.x),
    phi = Math.acos((r1 - r2) / d);
  const on = (c: Vec2, r: number, a: number) => v2(c.x + r * Math.cos(along + a), c.y + r * Math.sin(along + a));
  return ok([
    [
      { kind: "line", from: on(c1, r1, -phi), to: on(c2, r2, -phi) },
      { kind: "arc", centre: c2, radius: r2, start: along - phi, sweep: 2 * phi },
      { kind: "line", from: on(c2, r2, phi), to: on(c1, r1, phi) },
      { kind: "arc", centre: c1, radius: r1, start: along + phi, sweep: 2 * Math.PI - 2 * phi },
    ],
  ]);
}

/**
 * A circular segment, its chord level and its circle's centre at 0,0. Half angle from height h: cos α = 1 − h/r;
 * from the chord: sin α = c/2r (the smaller segment).
 */
export function segment(diameter: number, by: { height?: number; chord?: number }): Result<Region> {
  const r = diameter / 2;
  if (by.height !== undefined && by.height >= diameter)
    return fail(problems.segmentAsHighAsCircle(saidLength(diameter)), { path: "height" });
  if (by.chord !== undefined && by.chord > diameter)
    return fail(problems.chordTooLong(saidMost(diameter)), { path: "chord" });
  const half = by.height !== undefined ? Math.acos(1 - by.height / r) : Math.asin((by.chord ?? 0) / diameter);
  const y = r * Math.cos(half),
    x = r * Math.sin(half);
  return ok([
    [
      { kind: "line", from: v2(-x, y), to: v2(x, y) },
      { kind: "arc", centre: v2(0, 0), radius: r, start: Math.PI / 2 - half, sweep: 2 * half },
    ],
  ]);
}

export const moved = (r: Region, at: Vec2, turn: number): Region => r.map((l) => moveLoop(l, at, turn));

/** A region turned over about a line through `from` with direction `angle`; loops keep their sense. */
export function mirrored(r: Region, from: Vec2, angle: number): Region {
  const flip = (p: Vec2): Vec2 => {
    const q = rotate2(v2(p.x - from.x, p.y - from.y), -angle),
      s = rotate2(v2(q.x, -q.y), angle);
    return v2(s.x + from.x, s.y + from.y);
  };
  return r.map((loop) =>
    [...loop].reverse().map((s) => {
      if (s.kind === "line") return { kind: "line" as const, from: flip(s.to), to: flip(s.from) };
      return { ...s, centre: flip(s.centre), start: 2 * angle - (s.start + s.sweep), sweep: s.sweep };
    }),
  );
}
