/** Points and directions are plain data. Millimetres. */
export interface Vec2 {
  x: number;
  y: number;
}
export interface Vec3 {
  x: number;
  y: number;
  z: number;
}

export const v2 = (x: number, y: number): Vec2 => ({ x, y });
export const v3 = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
export const add = (a: Vec3, b: Vec3): Vec3 => v3(a.x + b.x, a.y + b.y, a.z + b.z);
export const sub = (a: Vec3, b: Vec3): Vec3 => v3(a.x - b.x, a.y - b.y, a.z - b.z);
export const scale = (a: Vec3, k: number): Vec3 => v3(a.x * k, a.y * k, a.z * k);
export const dot = (a: Vec3, b: Vec3): number => a.x * b.x + a.y * b.y + a.z * b.z;
export const cross = (a: Vec3, b: Vec3): Vec3 =>
  v3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x);
export const length = (a: Vec3): number => Math.hypot(a.x, a.y, a.z);
export const unit = (a: Vec3): Vec3 => scale(a, 1 / (length(a) || 1));
export const add2 = (a: Vec2, b: Vec2): Vec2 => ({ x: a.x + b.x, y: a.y + b.y });
/** How far a point is from the straight stretch between two others, mm. */
export function distanceToStretch(p: Vec3, from: Vec3, to: Vec3): number {
  const way = sub(to, from);
  const along = dot(way, way);
  const t = along === 0 ? 0 : Math.min(1, Math.max(0, dot(sub(p, from), way) / along));
  return length(sub(p, add(from, scale(way, t))));
}
export const distance2 = (a: Vec2, b: Vec2): number => Math.hypot(a.x - b.x, a.y - b.y);

export const rotate2 = (p: Vec2, angle: number): Vec2 => {
  const c = Math.cos(angle),
    s = Math.sin(angle);
  return v2(p.x * c - p.y * s, p.x * s + p.y * c);
};

/** An axis-parallel box. */
export interface Box {
  min: Vec3;
  max: Vec3;
}

/** A plane with its own coordinates: origin, x and y directions in it, and the normal pointing out of the material. */
export interface Frame {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
  normal: Vec3;
}

/** A point of a frame, `depth` below its plane, in space. */
export const fromFrame = (f: Frame, p: Vec2, depth = 0): Vec3 =>
  add(add(add(f.origin, scale(f.x, p.x)), scale(f.y, p.y)), scale(f.normal, -depth));

/** Coordinates of a point in a frame; `z` is the height above its plane. */
export const toFrame = (f: Frame, p: Vec3): Vec3 => {
  const d = sub(p, f.origin);
  return v3(dot(d, f.x), dot(d, f.y), dot(d, f.normal));
};

/** The box of a box, in the coordinates of a frame. */
export function boxInFrame(f: Frame, b: Box): Box {
  const corners = [b.min.x, b.max.x].flatMap((x) =>
    [b.min.y, b.max.y].flatMap((y) => [b.min.z, b.max.z].map((z) => toFrame(f, v3(x, y, z)))),
  );
  return boxOf(corners);
}

/** Smallest box that holds the points. */
export function boxOf(points: Vec3[]): Box {
  const min = v3(Infinity, Infinity, Infinity),
    max = v3(-Infinity, -Infinity, -Infinity);
  for (const p of points) {
    min.x = Math.min(min.x, p.x);
    min.y = Math.min(min.y, p.y);
    min.z = Math.min(min.z, p.z);
    max.x = Math.max(max.x, p.x);
    max.y = Math.max(max.y, p.y);
    max.z = Math.max(max.z, p.z);
  }
  return { min, max };
}

/** The six sides a drawing sheet names, by the direction each looks to. X right, Y to the back, Z up. */
export type Side = "top" | "bottom" | "front" | "back" | "left" | "right";
export const sides: Side[] = ["top", "bottom", "front", "back", "left", "right"];

const sideAxes: Record<Side, { x: Vec3; y: Vec3; normal: Vec3 }> = {
  top: { x: v3(1, 0, 0), y: v3(0, 1, 0), normal: v3(0, 0, 1) },
  bottom: { x: v3(1, 0, 0), y: v3(0, -1, 0), normal: v3(0, 0, -1) },
  front: { x: v3(1, 0, 0), y: v3(0, 0, 1), normal: v3(0, -1, 0) },
  back: { x: v3(-1, 0, 0), y: v3(0, 0, 1), normal: v3(0, 1, 0) },
  right: { x: v3(0, 1, 0), y: v3(0, 0, 1), normal: v3(1, 0, 0) },
  left: { x: v3(0, -1, 0), y: v3(0, 0, 1), normal: v3(-1, 0, 0) },
};

/** The side over against each. */
export const oppositeSide: Record<Side, Side> = {
  top: "bottom",
  bottom: "top",
  front: "back",
  back: "front",
  left: "right",
  right: "left",
};
/** The plane that looks to `side`, at `offset` along that direction; its coordinates count from the job's origin. */
export const sideFrame = (side: Side, offset: number): Frame => {
  const a = sideAxes[side];
  return { origin: scale(a.normal, offset), x: a.x, y: a.y, normal: a.normal };
};

/** The direction a side looks to. */
export const sideNormal = (side: Side): Vec3 => sideAxes[side].normal;
