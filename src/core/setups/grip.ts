import type { FaceInfo, SolidKernel } from "../engine/kernel";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import {
  add,
  boxInFrame,
  cross,
  dot,
  scale,
  sub,
  toFrame,
  v2,
  v3,
  type Frame,
  type Vec2,
  type Vec3,
} from "../geometry/vec";
import { loopArea, rectangleBetween } from "../outline";
import { combine, joined, oriented, type Region } from "../outline/boolean";
import { flippedLoop } from "../outline/flip";
import { loopsOfEdges } from "../outline/fromPart";

export const areaOf = (region: Region): number => Math.abs(region.reduce((sum, l) => sum + loopArea(l), 0));

/** Where a piece is held: a band of it over its underside, between jaws that close along a direction. */
export interface Band {
  up: Vec3;
  across: Vec3;
  /** Levels along up, in the job's own coordinates. */
  low: number;
  high: number;
  /** How far the jaws reach along themselves, by `up` x `across`; as far as the piece where nothing is said. */
  along?: { from: number; to: number };
}

/** The plane a jaw's face lies in, looked at from the jaw: x along the jaw, y up. */
const jawFrame = ({ up, across }: Band, level: number): Frame => ({
  origin: scale(across, level),
  normal: across,
  x: cross(up, across),
  y: up,
});

/** The flats a jaw can lie on: where they are along its way, and what of them is in the band. */
function flatsOf(kernel: SolidKernel, key: string, band: Band): { level: number; region: Region }[] {
  const faces = kernel.faces(key);
  const edges = kernel.edges(key);
  return faces.flatMap((f, i) => {
    if (f.surface !== "plane" || dot(f.normal, band.across) < PARALLEL) return [];
    const level = dot(f.point, band.across);
    const frame = jawFrame(band, level);
    const rim = edges.filter((e) => e.length > 0 && e.faces[0] !== e.faces[1] && e.faces.includes(i));
    const whole = loopsOfEdges(rim, frame);
    const region = whole.ok ? withinBand(whole.value, frame, f, band) : [];
    return region.length ? [{ level, region }] : [];
  });
}

function withinBand(region: Region, frame: Frame, face: FaceInfo, band: Band): Region {
  const { min, max } = boxInFrame(frame, face.box);
  const { from, to } = band.along ?? { from: min.x - 1, to: max.x + 1 };
  const strip = rectangleBetween(v2(from, band.low), v2(to, band.high));
  return combine(oriented(region), [strip], "overlap");
}

/** What a jaw touches: the flats farthest out for a plain jaw, all that look to it for one that follows the piece. */
function touched(kernel: SolidKernel, key: string, band: Band, follows: boolean): Region {
  const flats = flatsOf(kernel, key, band);
  const far = Math.max(...flats.map((f) => f.level));
  const lying = flats.filter((f) => follows || f.level > far - CONTACT);
  return lying.reduce<Region>((all, f) => (all.length ? joined(all, f.region) : f.region), []);
}

/** The band as the other jaw sees it. */
const seenFromBehind = ({ along, across, ...band }: Band): Band => ({
  ...band,
  across: scale(across, -1),
  ...(along ? { along: { from: -along.to, to: -along.from } } : {}),
});

/** Upright rounds that jaws cut to the piece lie on, mm². */
function roundArea(kernel: SolidKernel, key: string, band: Band): number {
  const frame: Frame = { ...jawFrame(band, 0), normal: band.up, y: band.across, origin: v3(0, 0, 0) };
  const isBetweenJaws = (at: Vec3): boolean => {
    const x = dot(at, frame.x);
    return !band.along || (x > band.along.from && x < band.along.to);
  };
  return kernel.faces(key).reduce((sum, f) => {
    if (f.surface !== "cylinder" || f.hollow || !f.axis || Math.abs(dot(f.axis.direction, band.up)) < PARALLEL)
      return sum;
    if (!isBetweenJaws(f.axis.origin)) return sum;
    const { min, max } = boxInFrame(frame, f.box);
    const long = Math.min(max.z, band.high) - Math.max(min.z, band.low);
    return long > 0 ? sum + f.radius! * (f.sweep ?? 2 * Math.PI) * long : sum;
  }, 0);
}

/**
 * Area on which two jaws hold, mm²: flats of both sides that truly stand opposite each other, both jaws together; of
 * jaws cut to the piece the upright rounds too.
 * @param follows the jaws are cut to the piece and touch every flat that looks to them
 */
export function gripArea(kernel: SolidKernel, key: string, band: Band, follows: boolean): number {
  const one = touched(kernel, key, band, follows);
  const other = touched(kernel, key, seenFromBehind(band), follows);
  const rounds = follows ? roundArea(kernel, key, band) : 0;
  if (!one.length || !other.length) return rounds;
  // Looked at from the other jaw it is seen the other way round.
  const opposite = combine(one, oriented(other.map(flippedLoop)), "overlap");
  return rounds + 2 * areaOf(opposite);
}

/** A round held about an axis: its radius and the area on which jaws bored to it lie, mm and mm². */
export interface RoundGrip {
  radius: number;
  area: number;
}

/** The outer rounds about an axis, of the largest radius that is in the band; null where nothing there is round. */
function roundGrip(kernel: SolidKernel, key: string, axis: Frame, low: number, high: number): RoundGrip | null {
  const rounds = kernel.faces(key).flatMap((f) => {
    if (f.surface !== "cylinder" || f.hollow || !f.axis) return [];
    if (Math.abs(dot(f.axis.direction, axis.normal)) < PARALLEL) return [];
    const off = toFrame(axis, f.axis.origin);
    if (Math.hypot(off.x, off.y) > CONTACT) return [];
    const { min, max } = boxInFrame(axis, f.box);
    const long = Math.min(max.z, high) - Math.max(min.z, low);
    return long > CONTACT ? [{ radius: f.radius!, long, sweep: f.sweep ?? 2 * Math.PI }] : [];
  });
  if (!rounds.length) return null;
  const radius = Math.max(...rounds.map((r) => r.radius));
  const held = rounds.filter((r) => r.radius > radius - CONTACT);
  return { radius, area: held.reduce((sum, r) => sum + r.radius * r.sweep * r.long, 0) };
}

/** Jaws of a chuck (common practice, no source): so many flats even about the axis are held, or a round. */
const JAWS = 3;

/** Three flats even about an axis, the farthest out that are in the band: of a hexagon every other one; null without. */
function flatsGrip(
  kernel: SolidKernel,
  key: string,
  axis: Frame,
  low: number,
  high: number,
): (RoundGrip & { ways: Vec2[] }) | null {
  const base = dot(axis.origin, axis.normal);
  const flats = kernel.faces(key).flatMap((f) => {
    if (f.surface !== "plane" || Math.abs(dot(f.normal, axis.normal)) > FLAT) return [];
    const { x, y } = toFrame({ ...axis, origin: v3(0, 0, 0) }, f.normal);
    return [{ normal: f.normal, angle: Math.atan2(y, x), out: dot(sub(f.point, axis.origin), f.normal) }];
  });
  const areaAt = (normal: Vec3) => {
    const band = { up: axis.normal, across: normal, low: base + low, high: base + high };
    return areaOf(touched(kernel, key, band, false));
  };
  const sets = flats.flatMap((first) => {
    const three = Array.from({ length: JAWS }, (_, k) =>
      flats.find(
        (f) => Math.abs(f.out - first.out) < CONTACT && turnsBy(first.angle, f.angle, (k * 2 * Math.PI) / JAWS),
      ),
    );
    return three.every((f) => f !== undefined) && first.out > CONTACT ? [{ out: first.out, three }] : [];
  });
  for (const { out, three } of sets.sort((a, b) => b.out - a.out)) {
    const areas = three.map((f) => areaAt(f.normal));
    if (!areas.every((a) => a > CONTACT)) continue;
    const ways = three.map((f) => v2(Math.cos(f.angle), Math.sin(f.angle)));
    return { radius: out, area: areas.reduce((sum, a) => sum + a, 0), ways };
  }
  return null;
}
/** How square to the axis a flat stands that jaws hold (a sine), and how even they stand about it, rad. */
const FLAT = 1e-6;
const EVEN = 1e-6;
function turnsBy(from: number, to: number, by: number): boolean {
  const off = (to - from - by) / (2 * Math.PI);
  return Math.abs(off - Math.round(off)) * 2 * Math.PI < EVEN;
}

/** Points of the edges that run through a band about an axis, in the axis's own coordinates. */
function pointsInBand(kernel: SolidKernel, key: string, axis: Frame, low: number, high: number): Vec3[] {
  return kernel.edges(key).flatMap((e) => {
    if (!(e.length > 0)) return [];
    const points = [e.from, e.middle, e.to].map((p) => toFrame(axis, p));
    const heights = points.map((p) => p.z);
    const within = Math.min(high, Math.max(...heights)) - Math.max(low, Math.min(...heights));
    return within > CONTACT ? points : [];
  });
}

/**
 * What a chuck holds about an axis: a round, or three flats of a piece with no round as far out. Null where neither is
 * there, or where something else of the piece stands out farther between the jaws' ends: they would close on that.
 */
export function chuckGrip(kernel: SolidKernel, key: string, axis: Frame, low: number, high: number): RoundGrip | null {
  const round = roundGrip(kernel, key, axis, low, high);
  const flats = flatsGrip(kernel, key, axis, low, high);
  const points = pointsInBand(kernel, key, axis, low, high);
  if (flats && (!round || flats.radius > round.radius + CONTACT)) {
    const standsOut = points.some((p) => flats.ways.some((w) => p.x * w.x + p.y * w.y > flats.radius + CONTACT));
    return standsOut ? null : flats;
  }
  return round && points.some((p) => Math.hypot(p.x, p.y) > round.radius + CONTACT) ? null : round;
}

/** The middle of a box's underside, as an upright frame. */
export const axisOfBox = (frame: Frame, box: { min: Vec3; max: Vec3 }): Frame => ({
  ...frame,
  origin: add(
    frame.origin,
    add(scale(frame.x, (box.min.x + box.max.x) / 2), scale(frame.y, (box.min.y + box.max.y) / 2)),
  ),
});
