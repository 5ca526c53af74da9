import type { Box } from "../geometry/vec";
import type { ViseSetup } from "./vise";

/** An upright rectangle of a drawing, mm: x across the jaws, y up. */
export interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}
/** The piece in the jaws, looked at along them: what stands in and what stands over, true to scale. */
export interface Elevation {
  piece: Rectangle;
  /** The part within the piece; null where the part itself is held. */
  part: Rectangle | null;
  jaws: Rectangle[];
  jawTop: number;
  box: Rectangle;
}

/** Looks along the jaws at a piece that is held; what looks up in the setup is up in the picture. */
export function elevationOf(v: ViseSetup, piece: Box, part: Box | null): Elevation {
  const up = v.upIsTop ? 1 : -1;
  const rectangle = (b: Box): Rectangle => {
    const [a, c] = [up * b.min.z, up * b.max.z];
    return {
      x: b.min[v.across],
      y: Math.min(a, c),
      width: b.max[v.across] - b.min[v.across],
      height: b.max.z - b.min.z,
    };
  };
  const drawn = [piece, ...v.jaws].map(rectangle);
  const x = Math.min(...drawn.map((r) => r.x));
  const y = Math.min(...drawn.map((r) => r.y));
  return {
    piece: drawn[0],
    part: part && rectangle(part),
    jaws: drawn.slice(1),
    jawTop: up * v.jawTop,
    box: {
      x,
      y,
      width: Math.max(...drawn.map((r) => r.x + r.width)) - x,
      height: Math.max(...drawn.map((r) => r.y + r.height)) - y,
    },
  };
}
