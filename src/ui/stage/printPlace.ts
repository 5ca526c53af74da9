import type { Region } from "@/core/job";
import type { NumberScope } from "@/core/number";
import { valueOf } from "@/core/engine/numbers";
import { viewOf } from "@/core/engine/views";
import { add, dot, scale, type Box, type Vec3 } from "@/core/geometry/vec";

/**
 * Where a stretch of a page lies: its corners in space from lower left counter-clockwise, and the part of the
 * picture between them (u to the right, v up, 0 to 1).
 */
interface LaidPrint {
  corners: Vec3[];
  uv: { u0: number; v0: number; u1: number; v1: number };
}

/**
 * A calibrated stretch of a page in space, laid in front of the part.
 * Point a of the picture comes to its place on the part; a to b is the given distance along x or y of the view.
 * Picture coordinates run from 0 to 1 across its width, y down, in units of the width.
 * @param turn quarter turns clockwise the page is read with: it tells which way up the picture is
 */
export function layPrint(c: Region, turn: number, aspect: number, part: Box, scope: NumberScope): LaidPrint | null {
  const d = valueOf(c.distance, "length", scope),
    px = valueOf(c.place.x, "coordinate", scope),
    py = valueOf(c.place.y, "coordinate", scope);
  if (!d.ok || !px.ok || !py.ok) return null;
  const dx = c.b.x - c.a.x,
    dy = -(c.b.y - c.a.y);
  const l = Math.hypot(dx, dy);
  if (l < 1e-6) return null;
  const k = d.value.value / l;
  // Turned so that a to b runs along the axis it was drawn along, the way up the page is read; never mirrored.
  const along = (c.direction === "x" ? 0 : Math.PI / 2) - Math.atan2(dy, dx);
  const way = Math.cos(along + (turn * Math.PI) / 2) < -1e-9 ? along + Math.PI : along;
  const cs = Math.cos(way),
    sn = Math.sin(way);
  const { right, up, toEye } = viewOf[c.view];
  const corners = [part.min, part.max].map((p) => dot(p, toEye));
  const front = Math.max(...corners) + 0.5;
  const box = c.box ?? { x0: 0, y0: 0, x1: 1, y1: aspect };
  const [x0, x1, y0, y1] = [
    Math.max(0, Math.min(box.x0, box.x1)),
    Math.min(1, Math.max(box.x0, box.x1)),
    Math.max(0, Math.min(box.y0, box.y1)),
    Math.min(aspect, Math.max(box.y0, box.y1)),
  ];
  return {
    corners: [
      [x0, y1],
      [x1, y1],
      [x1, y0],
      [x0, y0],
    ].map(([u, v]) => {
      const x = (u - c.a.x) * k,
        y = -(v - c.a.y) * k;
      const X = x * cs - y * sn + px.value.value,
        Y = x * sn + y * cs + py.value.value;
      return add(add(scale(right, X), scale(up, Y)), scale(toEye, front));
    }),
    uv: { u0: x0, u1: x1, v0: 1 - y1 / aspect, v1: 1 - y0 / aspect },
  };
}
