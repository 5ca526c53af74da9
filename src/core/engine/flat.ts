import { distance2, sub, length, dot, type Frame } from "../geometry/vec";
import { arcPoint, circle, loopBox, moveLoop, type Loop } from "../outline";
import { isPlain, type KernelStep } from "./kernel";
import { COINCIDENT, EXACTLY_PARALLEL, MEET, ROUNDING } from "../geometry/tolerance";

/**
 * A state that is one plate with holes straight through: it can be made anew in one piece, far quicker than hole by
 * hole.
 */
export type Plate = Extract<KernelStep, { op: "plate" }>;

/** The plate a first leave row makes, if it makes one. */
export function plateFrom(step: KernelStep): Plate | null {
  if (step.op !== "leave" || step.body.body !== "prism" || step.places.length !== 1) return null;
  const { outline, more, from, to } = step.body;
  if (more || from !== 0 || !isPlain(step.body)) return null;
  return {
    op: "plate",
    row: step.row,
    frame: step.frame,
    height: from - to,
    outer: moveLoop(outline.outer, step.places[0]),
    holes: outline.holes.map((h) => ({ row: step.row, instance: 0, loop: moveLoop(h, step.places[0]) })),
  };
}

/**
 * The plate after a straight through cut from its top, when every copy lies inside and apart from all others; else
 * null.
 */
export function plateAfter(plate: Plate, step: KernelStep, thru: boolean): Plate | null {
  if (!thru || step.op !== "cut" || plate.holes.length + step.places.length > 3000) return null;
  const top: Frame = { ...plate.frame, origin: { ...plate.frame.origin, z: plate.frame.origin.z + plate.height } };
  if (dot(step.frame.normal, top.normal) < EXACTLY_PARALLEL || length(sub(step.frame.origin, top.origin)) > COINCIDENT)
    return null;
  const shape =
    step.body.body === "prism"
      ? step.body.outline.holes.length || step.body.more || !isPlain(step.body)
        ? null
        : step.body.outline.outer
      : step.body.body === "revolved"
        ? straight(step.body.profile)
        : null;
  if (!shape) return null;
  const added = step.places.map((p, i) => ({
    row: step.row,
    instance: step.instances?.[i] ?? i,
    loop: moveLoop(shape, p),
  }));
  if (!added.every((a) => inside(a.loop, plate.outer))) return null;
  const holes = [...plate.holes, ...added];
  return apart(holes.map((h) => h.loop)) ? { ...plate, holes } : null;
}

const straight = (profile: { r: number; z: number }[]): Loop | null =>
  profile.length === 2 && Math.abs(profile[0].r - profile[1].r) < ROUNDING ? circle(profile[0].r) : null;

/**
 * Whether a loop lies strictly inside a convex outer loop. Points of arcs are sampled; the margin covers the sag
 * between them.
 */
function inside(loop: Loop, outer: Loop): boolean {
  const points = loop.flatMap((s) =>
    s.kind === "line" ? [s.from] : Array.from({ length: 65 }, (_, i) => arcPoint(s, i / 64)),
  );
  const margin =
    MEET + Math.max(0, ...loop.map((s) => (s.kind === "arc" ? s.radius * (1 - Math.cos(s.sweep / 128)) : 0)));
  for (const o of outer) {
    if (o.kind === "line") {
      const l = distance2(o.from, o.to),
        nx = -(o.to.y - o.from.y) / l,
        ny = (o.to.x - o.from.x) / l;
      if (points.some((p) => (p.x - o.from.x) * nx + (p.y - o.from.y) * ny < margin)) return false;
    } else {
      if (o.sweep < 0) return false;
      for (const p of points) {
        let a = Math.atan2(p.y - o.centre.y, p.x - o.centre.x) - o.start;
        while (a < 0) a += 2 * Math.PI;
        if (a <= o.sweep && distance2(p, o.centre) > o.radius - margin) return false;
      }
    }
  }
  return true;
}

/** Whether the boxes of all loops are apart: sorted along x, each against those it could touch. */
function apart(loops: Loop[]): boolean {
  const boxes = loops.map(loopBox).sort((a, b) => a.min.x - b.min.x);
  for (let i = 0; i < boxes.length; i++)
    for (let j = i + 1; j < boxes.length && boxes[j].min.x <= boxes[i].max.x + MEET; j++)
      if (boxes[j].min.y <= boxes[i].max.y + MEET && boxes[i].min.y <= boxes[j].max.y + MEET) return false;
  return true;
}
