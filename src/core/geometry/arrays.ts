import { v2, type Vec2 } from "./vec";

/** Places of a grid from its first one at 0,0, along x first; mm. */
export const gridPlaces = (nx: number, ny: number, dx: number, dy: number): Vec2[] =>
  Array.from({ length: nx * ny }, (_, i) => v2((i % nx) * dx, Math.floor(i / nx) * dy));

/** Places on a line from its first one at 0,0, `by` apart in a direction; mm, radians. */
export const linePlaces = (n: number, by: number, turn = 0): Vec2[] =>
  Array.from({ length: n }, (_, i) => v2(i * by * Math.cos(turn), i * by * Math.sin(turn)));

/** Angles of places round a circle from the first, all the way round unless a step is given; radians. */
export const roundAngles = (n: number, from = 0, step = (2 * Math.PI) / n): number[] =>
  Array.from({ length: n }, (_, i) => from + i * step);
