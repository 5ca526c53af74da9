import { lengthText, type LengthUnit, unitOf } from "@/core/number";
import { distance2, v2, type Vec2 } from "@/core/geometry/vec";
import { endOf, startOf, type Segment } from "@/core/outline";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { meetings, parameterOf, pointAt } from "@/core/outline/meet";

/** A place near the pointer that means something, or the nearest of the grid: as text for a line of the outline. */
export function snapTo(e: EvaluatedOutline, at: Vec2, reach: number, unit: LengthUnit): { text: string; what: string } {
  const segments = [...e.region.flat(), ...e.open.flat(), ...(e.modified ? (e.wire?.segments ?? []) : [])];
  const places: { p: Vec2; what: string; rank: number }[] = [{ p: v2(0, 0), what: "zero", rank: 0 }];
  const put = (p: Vec2, what: string, rank: number) => places.push({ p, what, rank });
  // Where the next step would leave from.
  const steps = e.wire && !e.wire.closed ? e.wire.segments : [],
    from = steps.length ? endOf(steps[steps.length - 1]) : null;
  for (const s of segments) {
    put(startOf(s), "end", 0);
    put(endOf(s), "end", 0);
    put(pointAt(s, 0.5), "middle", 2);
    if (s.kind !== "arc") continue;
    put(s.centre, "centre", 1);
    for (let q = 0; q < 4; q++) {
      const p = v2(
          s.centre.x + s.radius * Math.cos((q * Math.PI) / 2),
          s.centre.y + s.radius * Math.sin((q * Math.PI) / 2),
        ),
        t = parameterOf(s, p);
      if (t >= 0 && t <= 1) put(p, "quadrant", 1);
    }
    for (const p of tangentPoints(from, s)) put(p, "tangent", 1);
  }
  if (segments.length < 300)
    segments.forEach((s, i) =>
      segments.slice(i + 1).forEach((o) => meetings(s, o).forEach((p) => put(p, "crossing", 1))),
    );
  const near = places
    .map((q) => ({ ...q, d: distance2(q.p, at) }))
    .filter((q) => q.d <= reach)
    .sort((a, b) => a.rank - b.rank || a.d - b.d)[0];
  // Without anything near: the grid that the eye can tell apart at this size.
  const unitSize = unitOf[unit].mm,
    step = 10 ** Math.ceil(Math.log10(reach / unitSize)) * unitSize;
  const p = near?.p ?? v2(Math.round(at.x / step) * step, Math.round(at.y / step) * step);
  const t = (mm: number) => lengthText(mm, unit, unitOf[unit].places.fine);
  return { text: `${t(p.x)},${t(p.y)}`, what: near?.what ?? "grid" };
}

/** Points of an arc where a line from `from` touches it: acos(r/d) to either side of the way to its centre. */
function tangentPoints(from: Vec2 | null, s: Segment): Vec2[] {
  if (!from || s.kind !== "arc") return [];
  const d = distance2(from, s.centre);
  if (d <= s.radius + 1e-9) return [];
  const back = Math.atan2(from.y - s.centre.y, from.x - s.centre.x),
    half = Math.acos(s.radius / d);
  return [back - half, back + half]
    .map((a) => v2(s.centre.x + s.radius * Math.cos(a), s.centre.y + s.radius * Math.sin(a)))
    .filter((p) => {
      const t = parameterOf(s, p);
      return t >= 0 && t <= 1;
    });
}
