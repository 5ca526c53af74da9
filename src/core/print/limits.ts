import { COINCIDENT, CONTACT } from "../geometry/tolerance";
/** What a balloon asks for, mm or radians. */
export interface Limits {
  nominal: number;
  low: number;
  high: number;
}

/** Inside the limits, with the slack of the solid's own arithmetic. */
export function inside(value: number, l: Limits): boolean {
  const slack = CONTACT + COINCIDENT * Math.abs(l.nominal);
  return value >= l.low - slack && value <= l.high + slack;
}
