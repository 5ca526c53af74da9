import { dot, length, sub, add } from "../../geometry/vec";
import { PARALLEL } from "../../geometry/tolerance";
import type { Shape, Surface } from "./surfaces";

/** How alike two movements are taken for the same: a share of the movement. */
const ALIKE = 1e-3;

/**
 * Whether a surface moves only because a size of its own body grows to both sides: another of the same copy moves the
 * other way as far. How far it stands from anything else is then half of that size and no dimension of its own.
 */
export function growsBothWays(s: Surface, ofCopy: Surface[], moved: Map<string, Shape>): boolean {
  const to = moved.get(s.id);
  if (!to) return false;
  return ofCopy.some((t) => {
    const its = moved.get(t.id);
    return t !== s && its !== undefined && areOpposite(s.shape, to, t.shape, its);
  });
}

function areOpposite(a: Shape, a2: Shape, b: Shape, b2: Shape): boolean {
  if (a.is === "plane" && a2.is === "plane") {
    if (b.is !== "plane" || b2.is !== "plane" || dot(a.normal, b.normal) > -PARALLEL) return false;
    const by = a2.offset - a.offset;
    return Math.abs(by) > 0 && Math.abs(by - (b2.offset - b.offset)) < ALIKE * Math.abs(by);
  }
  if (a.is === "plane" || a2.is === "plane" || b.is !== a.is || b2.is === "plane") return false;
  const [by, other] = [sub(a2.origin, a.origin), sub(b2.origin, b.origin)];
  const far = length(by);
  return far > 0 && length(add(by, other)) < ALIKE * far;
}
