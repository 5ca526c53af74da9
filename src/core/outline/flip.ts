import { v2, type Vec2 } from "../geometry/vec";
import { reversed } from "./meet";
import type { Loop, Outline, Segment } from "./outline";

/** A point turned over in x: as it is seen in a mirror that stands upright. */
export const flippedPoint = (p: Vec2): Vec2 => v2(-p.x, p.y);

const flippedSegment = (s: Segment): Segment =>
  s.kind === "line"
    ? { kind: "line", from: flippedPoint(s.from), to: flippedPoint(s.to) }
    : { ...s, centre: flippedPoint(s.centre), start: Math.PI - s.start, sweep: -s.sweep };

/** A chain turned over in x, gone the same way. */
export const flippedChain = (chain: Segment[]): Segment[] => chain.map(flippedSegment);
/** A loop turned over in x, gone round the same way as before. */
export const flippedLoop = (loop: Loop): Loop => [...flippedChain(loop)].reverse().map(reversed);
export const flippedOutline = (o: Outline): Outline => ({
  outer: flippedLoop(o.outer),
  holes: o.holes.map(flippedLoop),
});
