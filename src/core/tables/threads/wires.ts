import type { Thread } from "./thread";

/** Half the angle of a thread's flanks, radians; null for those that are not measured over wires here. */
const halfAngles: Partial<Record<Thread["form"], number>> = {
  metric: Math.PI / 6,
  unified: Math.PI / 6,
  trapezoidal: Math.PI / 12,
  acme: (14.5 * Math.PI) / 180,
};

/**
 * The wire that touches the flanks at the pitch line, mm: P / (2 cos a); null for threads that are not measured so.
 * @source geometry of the basic profile
 */
export function bestWire(t: Pick<Thread, "form" | "pitch">): number | null {
  const a = halfAngles[t.form];
  return a === undefined ? null : t.pitch / (2 * Math.cos(a));
}

/**
 * Measurement over three wires of a pitch diameter, mm: d2 + w (1 + 1 / sin a) - P / 2 cot a.
 * The lead angle is left out, as usual for threads of one start: less than .01 mm for them.
 * @param wire diameter of the wires, mm   @source geometry; ASME B1.2 and handbooks, from memory
 */
export function overWires(t: Pick<Thread, "form" | "pitch">, pitchDiameter: number, wire: number): number | null {
  const a = halfAngles[t.form];
  return a === undefined ? null : pitchDiameter + wire * (1 + 1 / Math.sin(a)) - t.pitch / 2 / Math.tan(a);
}
