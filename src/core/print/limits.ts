/** What a balloon asks for, mm or radians. */
export interface Limits {
  nominal: number;
  low: number;
  high: number;
}

/** Inside the limits, with the slack of the solid's own arithmetic. */
export function inside(value: number, l: Limits): boolean {
  const slack = 1e-6 + 1e-9 * Math.abs(l.nominal);
  return value >= l.low - slack && value <= l.high + slack;
}
