import type { EdgeInfo, FaceTag, KernelStep } from "@/core/engine/kernel";
import { turnedFrame } from "@/core/geometry/motion";
import { COINCIDENT, MEET, ROUNDING } from "@/core/geometry/tolerance";
import { dot, length, scale, sub, v2, type Frame, type Vec2, type Vec3 } from "@/core/geometry/vec";
import type { Loop } from "@/core/outline";
import type { Tagged } from "./bodies";
import type { KnownEdge } from "./edgeCache";
import type { Library } from "./library";
import { levelFrame } from "./passages";
import type { State } from "./state";
import { turnedSolid } from "./turnedBodies";

type EdgeStep = Extract<KernelStep, { op: "edges" }>;

/** How far the tool of a chamfer reaches beyond its legs, and out over its edge: shares of a leg. */
const BEYOND = 0.05;
const OUT = 0.05;

/** The tool begins beside the seams of the faces it is cut out of, rad. */
const OFF_SEAM = 0.4;

/** The edge all round between a cone and another face turned about the same axis, seen in a half plane through it. */
export interface RingEdge {
  frame: Frame;
  /** The edge, and along each of its faces how far that goes on. x is the radius, y along the axis. */
  at: Vec2;
  faces: { face: number; way: Vec2; room: number }[];
}

/**
 * Edges of a chamfer that the library follows step by step, for ever where it is small on a long shaft: those between
 * cones and cylinders of one axis. A turned tool cuts them exactly.
 */
export function ringEdges(library: Library, from: State, step: EdgeStep, raw: KnownEdge[]): Map<number, RingEdge> {
  const rings = new Map<number, RingEdge>();
  if (step.treatment !== "chamfer" || Math.abs(step.angle - Math.PI / 4) > ROUNDING) return rings;
  for (const { edge } of step.edges) {
    const ring = ringOf(library, from, raw, edge);
    if (ring) rings.set(edge, ring);
  }
  return rings;
}

function ringOf(library: Library, from: State, raw: KnownEdge[], edge: number): RingEdge | null {
  const info = library.edges.info(raw[edge], from.faces);
  if (!info || !isRing(info) || info.turn !== "convex") return null;
  const faces = info.faces.map((f) => library.faces.info(from.faces[f]));
  const isTurned = faces.every((f) => f.surface === "cone" || f.surface === "cylinder");
  if (!isTurned || faces.every((f) => f.surface !== "cone")) return null;
  const frame = turnedFrame({ ...levelFrame(info.axis), origin: info.centre }, OFF_SEAM);
  const inHalfPlane = (p: Vec3): Vec2 => {
    const off = sub(p, frame.origin);
    const along = dot(off, frame.normal);
    return v2(length(sub(off, scale(frame.normal, along))), along);
  };
  const at = v2(info.radius, 0);
  const sides = info.faces.flatMap((face, k) => {
    const way = toUnit(at, inHalfPlane(faces[k].point));
    return way ? [{ face, way, room: roomAlong(library, from, raw, { edge, face, at, way, inHalfPlane }) }] : [];
  });
  return sides.length === 2 ? { frame, at, faces: sides } : null;
}

const isRing = (e: EdgeInfo): e is EdgeInfo & { centre: Vec3; radius: number; axis: Vec3 } =>
  e.curve === "circle" && !!e.centre && !!e.axis && Math.abs(e.length - 2 * Math.PI * (e.radius ?? 0)) < MEET;

function toUnit(from: Vec2, to: Vec2): Vec2 | null {
  const d = Math.hypot(to.x - from.x, to.y - from.y);
  return d < COINCIDENT ? null : v2((to.x - from.x) / d, (to.y - from.y) / d);
}

/** How far a face goes on from its edge: to the nearest of its other edges, whatever they are. */
function roomAlong(
  library: Library,
  from: State,
  raw: KnownEdge[],
  on: { edge: number; face: number; at: Vec2; way: Vec2; inHalfPlane: (p: Vec3) => Vec2 },
): number {
  const others = raw.flatMap((e, i) => {
    if (i === on.edge || !e.uses.some((u) => u.face === on.face)) return [];
    const info = library.edges.info(e, from.faces);
    return info ? [info.from, info.middle, info.to] : [];
  });
  return Math.min(
    ...others.map((p) => {
      const { x, y } = on.inHalfPlane(p);
      return Math.hypot(x - on.at.x, y - on.at.y);
    }),
  );
}

/** Whether rings take chamfers of a size together with whatever other edges of their faces are chamfered. */
export function ringsFit(rings: RingEdge[], treated: EdgeInfo[], size: number): boolean {
  return rings.every(({ faces }) =>
    faces.every(({ face, room }) => {
      const legs = Math.min(2, treated.filter((e) => e.faces.includes(face)).length);
      return legs * size < room - COINCIDENT;
    }),
  );
}

/** The tool that cuts a chamfer all round, a little beyond both its legs. The caller frees it. */
export function ringTool(library: Library, { frame, at, faces }: RingEdge, size: number, tag: FaceTag): Tagged {
  const [a, b] = faces.map(({ way }) => v2(at.x + way.x * size, at.y + way.y * size));
  const along = toUnit(a, b)!;
  const [p, q] = [faces[0].way, faces[1].way];
  const beyond = size * BEYOND;
  const corners = [
    v2(a.x - along.x * beyond, a.y - along.y * beyond),
    v2(b.x + along.x * beyond, b.y + along.y * beyond),
    v2(at.x - (p.x + q.x) * size * OUT, at.y - (p.y + q.y) * size * OUT),
  ];
  const outer: Loop = corners.map((c, i) => ({ kind: "line", from: c, to: corners[(i + 1) % 3] }));
  const { shape, roles } = turnedSolid(library.oc, frame, { outer, holes: [] }, 2 * Math.PI, false);
  return { shape, tags: roles.map(() => tag) };
}
