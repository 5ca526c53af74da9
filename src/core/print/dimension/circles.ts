import { cross, dot, length, scale, sub, type Frame, type Vec3 } from "../../geometry/vec";
import { COINCIDENT, CONTACT, PARALLEL } from "../../geometry/tolerance";
import { circleThrough, type AxisCircle, type Measure } from "./measure";
import type { PartModel } from "./model";
import type { Shape, Surface } from "./surfaces";

/** A row whose copies stand on a circle, and that circle for any numbers. */
interface OnCircle {
  frame: Frame;
  ids: string[];
  circle: (get: Get) => AxisCircle | null;
}
type Get = (id: string) => Shape;

/** Circles through the axes of a row's copies, and the directions the copies stand in about their middle. */
export function circlesOf(
  model: PartModel,
  moving: Set<string>,
  stands: (id: string) => boolean,
  flats: Surface[],
): Measure[] {
  // Copies share the axes of their original, and are looked at from where that stands.
  const originals = model.rows.filter((m) => !m.copy);
  return originals.flatMap((m): Measure[] => {
    const ids = axesOf(model, m.row.row.id, stands);
    if (ids.length < 2 || !ids.some((id) => moving.has(id))) return [];
    const circle = (get: Get) =>
      circleThrough(
        ids.map((id) => {
          const s = get(id);
          return s.is === "plane" ? { x: 0, y: 0, z: 0 } : s.origin;
        }),
        m.frame.normal,
      );
    const on: OnCircle = { frame: m.frame, ids, circle };
    return [diameterOf(on, model), ...middlesOf(on, flats), ...gapsOf(on), ...anglesOf(on)];
  });
}

function diameterOf({ ids, circle }: OnCircle, model: PartModel): Measure {
  const base = circle((id) => model.surfaces.get(id)!.shape);
  return {
    family: "boltCircle",
    between: "circle",
    words: `circle through ${ids.length} axes`,
    ids,
    // A circle whose middle goes elsewhere with the number is one that only happens to go through them.
    of: (get) => {
      const c = circle(get);
      if (!c || !base) return null;
      const isMoved = Math.abs(c.diameter - base.diameter) > CONTACT / 10;
      return isMoved && length(sub(c.centre, base.centre)) > STEADY ? null : c.diameter;
    },
  };
}

/** From flats along the axes to the middle of the circle. */
const middlesOf = ({ frame, ids, circle }: OnCircle, flats: Surface[]): Measure[] =>
  flats.flatMap((flat): Measure[] => {
    if (flat.shape.is !== "plane" || Math.abs(dot(flat.shape.normal, frame.normal)) > COINCIDENT) return [];
    const of = (get: Get) => {
      const c = circle(get);
      const p = get(flat.id);
      return c && p.is === "plane" ? Math.abs(dot(c.centre, p.normal) - p.offset) : null;
    };
    const words = "from a flat to the middle of a circle";
    return [{ family: "distance", between: "flatAndAxis", words, ids: [...ids, flat.id], of }];
  });

/** Between neighbours, about the middle. */
const gapsOf = ({ frame, ids, circle }: OnCircle): Measure[] =>
  ids.slice(1, 4).map((id, i): Measure => ({
    family: "angle",
    between: "circle",
    words: "between two axes about their middle",
    ids,
    of: (get) => {
      const c = circle(get);
      const [a, b] = [get(ids[i]), get(id)];
      if (!c || a.is === "plane" || b.is === "plane") return null;
      const from = across(sub(a.origin, c.centre), frame.normal);
      return angleBetween(sub(b.origin, c.centre), scale(from, 1 / length(from)), frame.normal);
    },
  }));

/** From the directions of the plane, about the middle. */
const anglesOf = ({ frame, ids, circle }: OnCircle): Measure[] =>
  ids.slice(0, 4).flatMap((id) =>
    turns(frame).map(([word, from, clockwise, way]): Measure => ({
      family: "angle",
      between: "circle",
      words: `an axis about the middle, from ${word}${clockwise}`,
      ids,
      of: (get) => {
        const c = circle(get);
        const s = get(id);
        const turned = c && s.is !== "plane" ? turnFrom(sub(s.origin, c.centre), from, frame.normal) : null;
        return turned === null ? null : way(turned);
      },
    })),
  );

/** How far a circle's middle may go when its number is moved, mm: the arithmetic of what stays. */
const STEADY = 2e-8;

/** Whether the copies of a row stand evenly round their circle; null where they stand on none. */
export function isEven(model: PartModel, row: string, stands: (id: string) => boolean): boolean | null {
  const m = model.rows.find((r) => r.row.row.id === row && !r.copy);
  const ids = m ? axesOf(model, row, stands) : [];
  const origins = ids.flatMap((id) => {
    const { shape } = model.surfaces.get(id)!;
    return shape.is === "plane" ? [] : [shape.origin];
  });
  const circle = m && origins.length > 2 ? circleThrough(origins, m.frame.normal) : null;
  if (!m || !circle) return origins.length > 2 ? false : null;
  const angles = origins
    .map((o) => {
      const d = sub(o, circle.centre);
      return Math.atan2(dot(d, m.frame.y), dot(d, m.frame.x));
    })
    .sort((a, b) => a - b);
  const gap = (2 * Math.PI) / angles.length;
  const gaps = angles.map((a, i) => (i ? a - angles[i - 1] : a + 2 * Math.PI - angles[angles.length - 1]));
  return gaps.every((g) => (Math.abs(g - gap) * circle.diameter) / 2 < UNEVEN);
}
/** As far as places typed with three decimals may be off, mm along the circle. */
const UNEVEN = 0.01;

/** One axis of every copy of a row, all of the same kind, where every copy still stands. */
function axesOf(model: PartModel, row: string, stands: (id: string) => boolean): string[] {
  const byName = new Map<string, Surface[]>();
  const own = model.rows.find((m) => m.row.row.id === row && !m.copy);
  const places = own && "places" in own.recipe ? own.recipe.places.length : 1;
  const isOne = (s: Surface) =>
    s.shape.is === "cylinder" &&
    (places > 1 ? s.instance < places : Math.abs(dot(s.shape.direction, own!.frame.normal)) > PARALLEL);
  for (const s of model.surfaces.values())
    if (own && s.row === row && isOne(s)) {
      const name = s.id.split("/")[2];
      byName.set(name, [...(byName.get(name) ?? []), s]);
    }
  for (const list of byName.values())
    if (list.length > 1 && list.every((s) => stands(s.id))) return list.map((s) => s.id);
  return [];
}

/** Where the round ends of a slot along an arc stand about the axis of that arc, from the directions of its plane. */
export function arcAngles(model: PartModel, s: Surface, ofCopy: Surface[]): Measure[] {
  const frame = model.rows.find((m) => m.row.row.id === s.row && !m.copy)?.frame;
  if (!frame || s.shape.is !== "cylinder") return [];
  const end = s.shape;
  const bend = ofCopy.find((t) => {
    if (t === s || t.shape.is !== "cylinder" || t.shape.radius <= end.radius) return false;
    const apart = across(sub(end.origin, t.shape.origin), frame.normal);
    return Math.abs(Math.abs(length(apart) - t.shape.radius) - end.radius) < CONTACT;
  });
  if (!bend) return [];
  return turns(frame).map(([word, from, clockwise, way]): Measure => ({
    family: "angle",
    between: "circle",
    words: `an end of the slot about its middle, from ${word}${clockwise}`,
    ids: [s.id, bend.id],
    of: (get) => {
      const [e, b] = [get(s.id), get(bend.id)];
      const turned =
        e.is === "plane" || b.is === "plane" ? null : turnFrom(sub(e.origin, b.origin), from, frame.normal);
      return turned === null ? null : way(turned);
    },
  }));
}

const turns = (f: Frame) =>
  directions(f).flatMap(([word, from]) =>
    ways.map(([clockwise, way]): [string, Vec3, string, (a: number) => number] => [word, from, clockwise, way]),
  );
const directions = (f: Frame): [string, Vec3][] => [
  ["x", f.x],
  ["y", f.y],
  ["-x", { x: -f.x.x, y: -f.x.y, z: -f.x.z }],
  ["-y", { x: -f.y.x, y: -f.y.y, z: -f.y.z }],
];

/** Angle from a direction round to another, counter-clockwise as a plane is seen, 0 to a whole turn. */
function turnFrom(d: Vec3, from: Vec3, normal: Vec3): number | null {
  const flat = across(d, normal);
  if (length(flat) < COINCIDENT) return null;
  const angle = Math.atan2(dot(flat, cross(normal, from)), dot(flat, from));
  return angle < -COINCIDENT ? angle + 2 * Math.PI : angle;
}
/** The same, and the other way round. */
const ways: [string, (angle: number) => number][] = [
  ["", (a) => a],
  [", clockwise", (a) => 2 * Math.PI - a],
];

/** What of a direction lies across another. */
const across = (d: Vec3, normal: Vec3): Vec3 => sub(d, scale(normal, dot(d, normal)));

/** Angle between two directions seen along a third, 0 to half a turn. */
function angleBetween(d: Vec3, from: Vec3, normal: Vec3): number | null {
  const flat = across(d, normal);
  const l = length(flat);
  return l < COINCIDENT ? null : Math.acos(Math.max(-1, Math.min(1, dot(flat, from) / l)));
}
