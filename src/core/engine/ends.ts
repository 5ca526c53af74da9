import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { add, dot, fromFrame, scale, sub, type Frame, type Vec2, type Vec3 } from "../geometry/vec";
import type { EndPlane } from "../rows";
import type { BodyStep, SolidKernel } from "./kernel";
import { frameOf, type Seat } from "./planes";

/** How far a tool goes past what it leaves, mm: enough to be clear of it, and never into what comes next. */
const CLEAR = 1;

/** Where a plane cuts the way down from a place of a frame: the depth below the frame; slanted planes cut it anywhere. */
export interface Meeting {
  depth: number;
  isSquare: boolean;
  plane: Frame;
}

/** Where the way down from a place meets the plane of an end, gone so far past it in the row's own direction. */
export function meetingOf(end: EndPlane, frame: Frame, at: Vec2, seat: Seat): Result<Meeting> {
  const plane = frameOf(end.to, seat);
  if (!plane.ok) return plane;
  const down = scale(frame.normal, -1);
  const across = dot(down, plane.value.normal);
  if (Math.abs(across) < CONTACT) return fail(problems.runsAlongItsEnd(), { path: "to" });
  const depth = dot(sub(plane.value.origin, fromFrame(frame, at)), plane.value.normal) / across;
  return ok({ depth, isSquare: Math.abs(across) > PARALLEL, plane: plane.value });
}

/** A slanted plane as the end of a prism: it looks along the way the prism goes, shifted past it. */
export function limitOf({ plane }: Meeting, direction: Vec3, past: number): { origin: Vec3; normal: Vec3 } {
  const normal = dot(plane.normal, direction) > 0 ? plane.normal : scale(plane.normal, -1);
  return { origin: add(plane.origin, scale(direction, past)), normal };
}

/**
 * How deep each place of a cut goes until its whole outline has left the material it meets first.
 * @param step the cut as if it went through everything
 */
export function depthsToVoid(step: BodyStep, kernel: SolidKernel, key: string): Result<number[]> {
  const depths: number[] = [];
  for (const [i, stretches] of kernel.passages(key, step).entries()) {
    const sorted = [...stretches].sort((a, b) => a.from - b.from);
    if (!sorted.length)
      return fail(problems.meetsNoMaterial(step.places.length > 1 ? `place ${i + 1}` : "it"), { path: "depth" });
    let end = sorted[0].to;
    let next = 1;
    // What begins before the first has ended belongs to it: a bowed wall is left side by side.
    while (next < sorted.length && sorted[next].from < end + CONTACT) end = Math.max(end, sorted[next++].to);
    const gap = next < sorted.length ? sorted[next].from - end : Infinity;
    depths.push(end + Math.min(CLEAR, gap / 2));
  }
  return ok(depths);
}

/** Places that go equally deep, together. */
export function byDepth(depths: number[]): { depth: number; at: number[] }[] {
  const groups: { depth: number; at: number[] }[] = [];
  depths.forEach((depth, i) => {
    const same = groups.find((g) => Math.abs(g.depth - depth) < CONTACT);
    if (same) same.at.push(i);
    else groups.push({ depth, at: [i] });
  });
  return groups;
}
