import { Matrix, solve } from "ml-matrix";

/**
 * Poles of a Bézier curve that runs through a smooth way: it agrees with it at Chebyshev's points, so that its error
 * falls with every degree as fast as the way is smooth.
 * @param way of a share from 0 to 1, any number of coordinates
 * @returns null where the way is farther than `near` from the curve, or is no number
 */
export function bezierThrough(way: (share: number) => number[], near: number): number[][] | null {
  const values = NODES.map(way);
  if (values.some((v) => v.some((x) => !Number.isFinite(x)))) return null;
  const poles = TO_POLES.map((row) => values[0].map((_, k) => row.reduce((sum, w, j) => sum + w * values[j][k], 0)));
  const isNear = BETWEEN.every((t) => {
    const [on, meant] = [bezierAt(poles, t), way(t)];
    return Math.hypot(...on.map((x, k) => x - meant[k])) <= near;
  });
  return isNear ? poles : null;
}

/** A point of a Bézier curve, by de Casteljau's construction. */
export function bezierAt(poles: number[][], t: number): number[] {
  let points = poles;
  while (points.length > 1)
    points = points.slice(1).map((q, i) => q.map((x, k) => points[i][k] + (x - points[i][k]) * t));
  return points[0];
}

const DEGREE = 9;
const NODES = Array.from({ length: DEGREE + 1 }, (_, i) => (1 - Math.cos((i * Math.PI) / DEGREE)) / 2);
const BETWEEN = NODES.slice(1).map((t, i) => (t + NODES[i]) / 2);

/** Bernstein's polynomials at the nodes, turned round: values at the nodes to poles. */
const TO_POLES = inverse(
  NODES.map((t) => Array.from({ length: DEGREE + 1 }, (_, i) => choose(DEGREE, i) * t ** i * (1 - t) ** (DEGREE - i))),
);

function choose(n: number, k: number): number {
  let c = 1;
  for (let i = 0; i < k; i++) c = (c * (n - i)) / (i + 1);
  return c;
}

function inverse(rows: number[][]): number[][] {
  const m = new Matrix(rows);
  return solve(m, Matrix.eye(rows.length)).to2DArray();
}
