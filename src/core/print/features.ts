import { problems } from "./problems";
import { dot, length, scale, sub, v3, type Box, type Vec3 } from "../geometry/vec";
import type { FaceInfo } from "../engine/kernel";
import { fail, ok, type Result } from "../base/result";
import type { Balloon, Feature } from "../job/schema";
import { COINCIDENT, PARALLEL } from "../geometry/tolerance";

/** What a picked face is, by meaning: which row made it, what it is to that row, and which copy. */
export const featureOf = (face: FaceInfo, at: Vec3): Feature | null =>
  face.tag
    ? {
        row: face.tag.row,
        role: face.tag.role,
        instance: face.tag.instance,
        surface: face.surface,
        near: [at.x, at.y, at.z],
      }
    : null;

/** The face a feature means on the solid as it is now; null when it is gone. */
export function findFeature(f: Feature, faces: FaceInfo[]): FaceInfo | null {
  const near = v3(...f.near);
  const mine = faces.filter(
    (g) => g.tag?.row === f.row && g.tag.role === f.role && g.tag.instance === f.instance && g.surface === f.surface,
  );
  return mine.length ? mine.reduce((a, b) => (distanceToBox(near, b.box) < distanceToBox(near, a.box) ? b : a)) : null;
}

const distanceToBox = (p: Vec3, b: Box): number =>
  Math.hypot(...(["x", "y", "z"] as const).map((k) => Math.max(b.min[k] - p[k], 0, p[k] - b.max[k])));

export interface Picked {
  value: number;
  by: string;
}

/**
 * Everything the two picked faces (or one) can tell a dimension of this kind: diameter, radius, distance (true, or
 * along X, Y, Z), angle. mm, radians.
 */
export function measureFeatures(kind: Balloon["kind"], a: FaceInfo, b: FaceInfo | null): Result<Picked[]> {
  if (!b) {
    if (a.surface === "cylinder")
      return ok(
        kind === "radius"
          ? [{ value: a.radius!, by: "the picked round face" }]
          : [
              { value: 2 * a.radius!, by: "the picked round face" },
              { value: a.radius!, by: "the picked round face" },
            ].slice(0, kind === "diameter" ? 1 : 2),
      );
    if (a.halfAngle !== undefined)
      return ok([
        { value: 2 * a.halfAngle, by: "the picked cone" },
        { value: a.halfAngle, by: "half of the picked cone" },
      ]);
    return fail(problems.oneFlatHasNoSize());
  }
  const axis = (f: FaceInfo) => f.axis ?? null;
  const flat = (f: FaceInfo) => f.surface === "plane";
  if (flat(a) && flat(b)) {
    const c = dot(a.normal, b.normal);
    if (Math.abs(c) > PARALLEL)
      return ok([{ value: Math.abs(dot(sub(b.point, a.point), a.normal)), by: "between the two picked flats" }]);
    const angle = Math.acos(Math.min(1, Math.max(-1, c)));
    return ok([
      { value: angle, by: "between the two picked flats" },
      { value: Math.PI - angle, by: "between the two picked flats" },
    ]);
  }
  const [p, q] = flat(a) ? [a, b] : [b, a];
  if (flat(p) && axis(q)) {
    if (Math.abs(dot(p.normal, axis(q)!.direction)) > COINCIDENT) return fail(problems.axisAcrossFlat());
    return ok([
      { value: Math.abs(dot(sub(p.point, axis(q)!.origin), p.normal)), by: "from the picked flat to the picked axis" },
    ]);
  }
  if (axis(a) && axis(b)) {
    if (Math.abs(dot(axis(a)!.direction, axis(b)!.direction)) < PARALLEL) return fail(problems.axesNotParallel());
    const d = sub(axis(b)!.origin, axis(a)!.origin),
      across = sub(d, scale(axis(a)!.direction, dot(d, axis(a)!.direction)));
    return ok([
      { value: length(across), by: "between the two picked axes" },
      ...(["x", "y", "z"] as const)
        .filter((k) => Math.abs(across[k]) > COINCIDENT)
        .map((k) => ({ value: Math.abs(across[k]), by: `between the two picked axes along ${k.toUpperCase()}` })),
    ]);
  }
  return fail(problems.noPlainDistance());
}
