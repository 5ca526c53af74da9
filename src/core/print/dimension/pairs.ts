import { dot } from "../../geometry/vec";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import { overRoundEnds, waysOfTwo, type Between, type Family, type Measure } from "./measure";
import type { Shape, Surface } from "./surfaces";
import { isZero } from "./zero";

/** What a body stands in the middle of: an axis, the middle of two walls, a plane through the job's zero. */
export const isMiddle = (t: Surface): boolean => isZero(t.id) || t.role === "middle" || t.shape.is !== "plane";
export const isSameFlat = (a: Shape, b: Shape): boolean =>
  a.is === "plane" && b.is === "plane" && dot(a.normal, b.normal) > PARALLEL && Math.abs(a.offset - b.offset) < CONTACT;
export const isSameCopy = (s: Surface, t: Surface): boolean => s.row === t.row && s.instance === t.instance;

/** Every way two surfaces are measured together; over both where they are the round ends of one slot. */
export function pairOf(s: Surface, t: Surface): Measure[] {
  const ways = waysOfTwo(s.shape, t.shape);
  const isRadius = (w: { between: Between }) =>
    w.between === "flatAndAxis" && isSameCopy(s, t) && areTangent(s.shape, t.shape);
  const areEnds =
    isSameCopy(s, t) && s.shape.is === "cylinder" && t.shape.is === "cylinder" && s.shape.radius === t.shape.radius;
  // Half way between two walls is a circle of one body: of a slot along an arc, of a groove.
  const isOfTwo = (w: { between: Between; family: Family }) =>
    w.between === "rounds" && w.family !== "distance" && !isSameCopy(s, t);
  return [...ways.filter((w) => !isRadius(w) && !isOfTwo(w)), ...(areEnds ? [overRoundEnds] : [])].map(
    (w): Measure => ({
      ...w,
      ids: [s.id, t.id],
      of: (get) => w.of(get(s.id), get(t.id)),
    }),
  );
}

export const axisKey = ({ origin, direction }: Extract<Shape, { is: "cylinder" }>): string => {
  const along = dot(origin, direction);
  return [origin.x - along * direction.x, origin.y - along * direction.y, origin.z - along * direction.z]
    .map((v) => (Math.round(v * 1e4) / 1e4 + 0).toFixed(4))
    .join();
};

/** A corner's round that runs into the wall opposite a flat: what is measured from that flat is the wall. */
export function isCornerOf(s: Surface, t: Surface, ofCopy: Surface[]): boolean {
  const [flat, round] = s.shape.is === "plane" ? [s.shape, t] : [t.shape, s];
  if (flat.is !== "plane" || round.shape.is !== "cylinder") return false;
  return ofCopy.some(
    ({ shape, role }) =>
      role !== "middle" &&
      shape.is === "plane" &&
      Math.abs(dot(shape.normal, flat.normal)) > PARALLEL &&
      shape.offset !== flat.offset &&
      areTangent(shape, round.shape),
  );
}

/** A flat that runs into a round: from it to the round's axis is a radius. */
export function areTangent(a: Shape, b: Shape): boolean {
  const [flat, round] = a.is === "plane" ? [a, b] : [b, a];
  return (
    flat.is === "plane" &&
    round.is === "cylinder" &&
    Math.abs(Math.abs(dot(round.origin, flat.normal) - flat.offset) - round.radius) < CONTACT
  );
}
