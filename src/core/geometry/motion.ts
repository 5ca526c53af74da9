import { add, cross, dot, scale, sub, v3, type Frame, type Vec3 } from "./vec";

/** A rigid movement of space, or a reflection: where a point goes, where a direction goes. */
export interface Motion {
  point(p: Vec3): Vec3;
  direction(d: Vec3): Vec3;
  /** A reflection turns right hands into left ones. */
  mirrors: boolean;
}

export const moveBy = (way: Vec3): Motion => ({ point: (p) => add(p, way), direction: (d) => d, mirrors: false });

/** A direction turned about a unit axis by an angle, right-handed (Rodrigues' formula). */
export function turn(d: Vec3, axis: Vec3, angle: number): Vec3 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return add(add(scale(d, c), scale(cross(axis, d), s)), scale(axis, dot(axis, d) * (1 - c)));
}

/** Turned about an axis through a point. */
export const turnAbout = (through: Vec3, axis: Vec3, angle: number): Motion => ({
  point: (p) => add(through, turn(sub(p, through), axis, angle)),
  direction: (d) => turn(d, axis, angle),
  mirrors: false,
});

/** Reflected in a plane. */
export function mirrorIn(through: Vec3, normal: Vec3): Motion {
  const direction = (d: Vec3) => sub(d, scale(normal, 2 * dot(d, normal)));
  return { point: (p) => add(through, direction(sub(p, through))), direction, mirrors: true };
}

/**
 * A plane moved. After a reflection its x points the other way, so that it stays right-handed: what lies in it has to
 * be turned over in x.
 */
export function movedFrame(f: Frame, m: Motion): Frame {
  const x = m.direction(f.x);
  return {
    origin: m.point(f.origin),
    x: m.mirrors ? scale(x, -1) : x,
    y: m.direction(f.y),
    normal: m.direction(f.normal),
  };
}

/** What brings the zero of space to lie in a frame. */
export function motionTo(f: Frame): Motion {
  const direction = (d: Vec3) => add(add(scale(f.x, d.x), scale(f.y, d.y)), scale(f.normal, d.z));
  return { point: (p) => add(f.origin, direction(p)), direction, mirrors: false };
}

/** A frame carried along when what lies in one frame comes to lie in another. */
export function carried(f: Frame, from: Frame, to: Frame): Frame {
  const within = (d: Vec3) => v3(dot(d, from.x), dot(d, from.y), dot(d, from.normal));
  const { point, direction } = motionTo(to);
  const moved = (d: Vec3) => direction(within(d));
  return { origin: point(within(sub(f.origin, from.origin))), x: moved(f.x), y: moved(f.y), normal: moved(f.normal) };
}

export const axisDirections: Record<"x" | "y" | "z", Vec3> = { x: v3(1, 0, 0), y: v3(0, 1, 0), z: v3(0, 0, 1) };

/** A frame across an axis of the job, its normal along it; angles count from the next axis round. */
export const frameAcross = (along: "x" | "y" | "z", at: Vec3): Frame => {
  const next = { x: "y", y: "z", z: "x" } as const;
  const [n, x] = [axisDirections[along], axisDirections[next[along]]];
  return { origin: at, x, y: cross(n, x), normal: n };
};

/** A frame turned about its own normal. */
export const turnedFrame = (f: Frame, angle: number): Frame => ({
  ...f,
  x: turn(f.x, f.normal, angle),
  y: turn(f.y, f.normal, angle),
});
