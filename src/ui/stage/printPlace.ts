import type { Print } from '@/core/job';
import type { NumberScope } from '@/core/number';
import { valueOf } from '@/core/engine/numbers';
import { viewOf } from '@/core/engine/views';
import { add, dot, scale, type Box, type Vec3 } from '@/core/geometry/vec';

/**
 * The four corners of a calibrated picture in space, from lower left counter-clockwise, laid in front of the part.
 * Point a of the picture comes to its place on the part; a to b is the given distance along x or y of the view.
 * Picture coordinates run from 0 to 1 across its width, y down, in units of the width.
 */
export function printCorners(print: Print, aspect: number, part: Box, scope: NumberScope): Vec3[] | null {
  const c = print.calibration;
  if (!c) return null;
  const d = valueOf(c.distance, 'length', scope), px = valueOf(c.place.x, 'coordinate', scope), py = valueOf(c.place.y, 'coordinate', scope);
  if (!d.ok || !px.ok || !py.ok) return null;
  const dx = c.b.x - c.a.x, dy = -(c.b.y - c.a.y);
  const l = Math.hypot(dx, dy);
  if (l < 1e-6) return null;
  const k = d.value.value / l;
  // Turned so that a to b runs along the axis it was drawn along; never mirrored.
  const turn = (c.direction === 'x' ? 0 : Math.PI / 2) - Math.atan2(dy, dx);
  const flip = Math.cos(turn) < -0.5 ? Math.PI : 0;
  const cs = Math.cos(turn + flip), sn = Math.sin(turn + flip);
  const { right, up, toEye } = viewOf[c.view];
  const corners = [part.min, part.max].map((p) => dot(p, toEye));
  const front = Math.max(...corners) + 0.5;
  return [[0, aspect], [1, aspect], [1, 0], [0, 0]].map(([u, v]) => {
    const x = (u - c.a.x) * k, y = -(v - c.a.y) * k;
    const X = x * cs - y * sn + px.value.value, Y = x * sn + y * cs + py.value.value;
    return add(add(scale(right, X), scale(up, Y)), scale(toEye, front));
  });
}
