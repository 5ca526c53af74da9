import { atan2, Dual, hypot, least, notZero, type Unknowns } from "./dual";

/** What an equation says of the unknowns, mm: zero where it holds. */
export type Residual = (u: Unknowns) => Dual;

/** A vector whose parts go with the unknowns. */
export interface DualVec {
  x: Dual;
  y: Dual;
}

/** The two unknowns of a point. */
export const xOf = (point: number): number => 2 * point;
export const yOf = (point: number): number => 2 * point + 1;
/** The unknowns of some points, each once. */
export const unknownsOf = (...points: number[]): number[] => [...new Set(points.flatMap((k) => [xOf(k), yOf(k)]))];

export const at = (u: Unknowns, point: number): DualVec => ({ x: u.at(xOf(point)), y: u.at(yOf(point)) });
/** From one point to another. */
export const between = (u: Unknowns, a: number, b: number): DualVec => {
  const [p, q] = [at(u, a), at(u, b)];
  return { x: q.x.minus(p.x), y: q.y.minus(p.y) };
};
export const lengthOf = (d: DualVec): Dual => hypot(d.x, d.y);
/** Distance of two points. */
export const apart = (u: Unknowns, a: number, b: number): Dual => lengthOf(between(u, a, b));
export const cross = (a: DualVec, b: DualVec): Dual => a.x.times(b.y).minus(a.y.times(b.x));
export const dot = (a: DualVec, b: DualVec): Dual => a.x.times(b.x).plus(a.y.times(b.y));
export const unitOf = (d: DualVec): DualVec => {
  const l = notZero(lengthOf(d));
  return { x: d.x.over(l), y: d.y.over(l) };
};
export const turned = (d: DualVec, angle: number): DualVec => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return { x: d.x.scaled(c).minus(d.y.scaled(s)), y: d.x.scaled(s).plus(d.y.scaled(c)) };
};
export const constant = (x: number, y: number): DualVec => ({ x: new Dual(x), y: new Dual(y) });

/** Two unknowns keep a distance: v[b] − v[a] − d. */
export const keeps =
  (a: number, b: number, d: number): Residual =>
  (u) =>
    u.at(b).minus(u.at(a)).shifted(-d);

/**
 * How far an arc's end is from its start turned about the centre by an angle, along the circle: said once, across the
 * turned radius, it does not repeat what makes it an arc.
 */
export const turnedBy =
  (from: number, to: number, centre: number, angle: number): Residual =>
  (u) => {
    const start = between(u, centre, from);
    const wanted = turned(start, angle);
    const end = between(u, centre, to);
    return atan2(cross(wanted, end), dot(wanted, end)).times(notZero(lengthOf(start)));
  };

/**
 * The sine of the angle between two directions, as a length: zero where they run into one another smoothly.
 * @param eitherWay turned back on itself counts too
 */
export function smooth(p: DualVec, q: DualVec, eitherWay: boolean): Dual {
  const [lp, lq] = [notZero(lengthOf(p)), notZero(lengthOf(q))];
  const both = lp.times(lq);
  const sine = cross(p, q).over(both);
  const cosine = dot(p, q).value;
  // Turned back on itself is not smooth: the residual grows on that side instead of coming to zero again.
  const off = cosine >= 0 || eitherWay ? sine : sine.scaled(-1).shifted(2 * Math.sign(sine.value || 1));
  return off.times(least(lp, lq));
}
