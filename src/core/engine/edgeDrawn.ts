import { add, cross, length, scale, sub, unit, type Vec3 } from "../geometry/vec";
import { COINCIDENT } from "../geometry/tolerance";
import type { EdgeInfo } from "./kernel";

/** A round is drawn in pieces of at most this angle. */
const PIECE = Math.PI / 24;

/**
 * An edge as it runs, in straight pieces: a line as it is, a round along its circle, any other curve through its
 * middle. One without length (a face's seam, which nobody sees) is not drawn.
 */
export function drawnEdge(e: EdgeInfo): [Vec3, Vec3][] {
  if (e.length < COINCIDENT) return [];
  const points = pointsOf(e);
  return points.slice(1).map((p, i) => [points[i], p]);
}

function pointsOf({ curve, from, to, middle, length: long, centre, radius, axis }: EdgeInfo): Vec3[] {
  if (curve === "line") return [from, to];
  if (curve !== "circle" || !centre || !radius || !axis || radius < COINCIDENT) return [from, middle, to];
  const sweep = long / radius;
  const out = scale(sub(from, centre), 1 / radius);
  const round = cross(unit(axis), out);
  const at = (angle: number): Vec3 =>
    add(centre, add(scale(out, radius * Math.cos(angle)), scale(round, radius * Math.sin(angle))));
  // The axis does not say which way the edge runs: its middle does.
  const way = length(sub(at(sweep / 2), middle)) <= length(sub(at(-sweep / 2), middle)) ? 1 : -1;
  const pieces = Math.max(2, Math.ceil(sweep / PIECE));
  return Array.from({ length: pieces + 1 }, (_, i) => at((way * sweep * i) / pieces));
}
