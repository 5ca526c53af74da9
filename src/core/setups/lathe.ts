import { CONTACT } from "../geometry/tolerance";
import type { Vec3 } from "../geometry/vec";

/** A place as a lathe reads it from its setup's datum, its axis along Z: X as the diameter about the axis. */
export const onLathe = (at: Vec3): Vec3 => ({ ...at, x: 2 * Math.hypot(at.x, at.y), y: 0 });

/** At what angle about the axis a place stands, radians from X, a whole turn at most; null on the axis itself. */
export function angleOnLathe({ x, y }: Vec3): number | null {
  if (Math.hypot(x, y) < CONTACT) return null;
  const angle = Math.atan2(y, x);
  return angle < 0 ? angle + 2 * Math.PI : angle;
}
