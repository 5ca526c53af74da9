import type { FaceInfo, SolidKernel } from "../engine/kernel";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { add, boxInFrame, cross, dot, scale, toFrame, v2, v3, type Frame, type Vec3 } from "../geometry/vec";
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
  const strip = rectangleBetween(v2(min.x - 1, band.low), v2(max.x + 1, band.high));
  return combine(oriented(region), [strip], "overlap");
}

/** What a jaw touches: the flats farthest out for a plain jaw, all that look to it for one that follows the piece. */
function touched(kernel: SolidKernel, key: string, band: Band, follows: boolean): Region {
  const flats = flatsOf(kernel, key, band);
  const far = Math.max(...flats.map((f) => f.level));
  const lying = flats.filter((f) => follows || f.level > far - CONTACT);
  return lying.reduce<Region>((all, f) => (all.length ? joined(all, f.region) : f.region), []);
}

/** Upright rounds that jaws cut to the piece lie on, mm². */
function roundArea(kernel: SolidKernel, key: string, band: Band): number {
  const frame: Frame = { ...jawFrame(band, 0), normal: band.up, y: band.across, origin: v3(0, 0, 0) };
  return kernel.faces(key).reduce((sum, f) => {
    if (f.surface !== "cylinder" || f.hollow || !f.axis || Math.abs(dot(f.axis.direction, band.up)) < PARALLEL)
      return sum;
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
  const other = touched(kernel, key, { ...band, across: scale(band.across, -1) }, follows);
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
export function roundGrip(kernel: SolidKernel, key: string, axis: Frame, low: number, high: number): RoundGrip | null {
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

/** The middle of a box's underside, as an upright frame. */
export const axisOfBox = (frame: Frame, box: { min: Vec3; max: Vec3 }): Frame => ({
  ...frame,
  origin: add(
    frame.origin,
    add(scale(frame.x, (box.min.x + box.max.x) / 2), scale(frame.y, (box.min.y + box.max.y) / 2)),
  ),
});
