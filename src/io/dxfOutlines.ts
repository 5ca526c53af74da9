import DxfParser, { type IEntity } from 'dxf-parser';
import { INCH, type LengthUnit, type NumberText } from '@/core/number';
import { distance2, v2, type Vec2 } from '@/core/geometry/vec';
import type { EvaluatedOutline } from '@/core/outline/evaluateOutline';
import type { OutlineItem } from '@/core/outline/items';
import { reversed } from '@/core/outline/meet';
import { endOf, startOf, type Segment } from '@/core/outline';
import { DxfDrawing } from './dxf';

/** Outlines as a DXF, each on a layer of its own: lines, arcs as arcs, circles; in the job's unit. */
export function outlineDxf(outlines: EvaluatedOutline[], unit: LengthUnit): string {
  const d = new DxfDrawing(unit);
  for (const o of outlines) for (const l of [...o.region, ...o.open]) d.loop(d.layer(o.name, 7), l);
  return d.text();
}

/** Ends this near to one another are joined, mm. */
const JOIN = 1e-4;
/** Millimetres of a drawing unit, by the DXF's own code. */
const units: Record<number, number> = { 1: INCH, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: INCH / 1e6, 9: INCH / 1000, 13: 0.001 };

/**
 * Chains of a DXF as outlines, one a layer: lines, arcs, circles and polylines with their bulges, joined where their ends meet.
 * Without units of its own the file is taken to be in the job's. What cannot be taken is said.
 */
export function readDxfOutlines(text: string, unit: LengthUnit): { outlines: { name: string; items: OutlineItem[] }[]; problems: string[] } {
  let dxf;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch (e) {
    return { outlines: [], problems: [`the file is no DXF that can be read: ${e instanceof Error ? e.message.slice(0, 120) : ''}`] };
  }
  if (!dxf) return { outlines: [], problems: ['the file is no DXF that can be read'] };
  const problems: string[] = [];
  const code = Number((dxf.header as Record<string, unknown> | undefined)?.$INSUNITS ?? 0);
  const k = units[code] ?? (unit === 'in' ? INCH : 1);
  const layers = new Map<string, Segment[]>();
  const left = new Map<string, number>();
  for (const e of dxf.entities) {
    const s = segmentsOf(e, k);
    if (!s) left.set(e.type, (left.get(e.type) ?? 0) + 1);
    else layers.set(e.layer ?? '0', [...(layers.get(e.layer ?? '0') ?? []), ...s]);
  }
  for (const [type, n] of left) problems.push(`${n} ${type} left out: no lines or arcs`);
  const n = (mm: number): NumberText => { const v = unit === 'in' ? mm / INCH : mm; return (Math.abs(v) < 5e-11 ? '0' : v.toFixed(10).replace(/\.?0+$/, '')) as NumberText; };
  const xy = (p: Vec2) => ({ x: n(p.x), y: n(p.y) });
  const outlines = [...layers].flatMap(([layer, segments]) => {
    const chains = chain(segments.filter((s) => (s.kind === 'line' ? distance2(s.from, s.to) : Math.abs(s.sweep) * s.radius) > JOIN / 10));
    return chains.map((c, i) => {
      const closed = distance2(startOf(c[0]), endOf(c[c.length - 1])) < JOIN;
      if (!closed) problems.push(`layer ${layer}: a chain is open from ${startOf(c[0]).x.toFixed(3)}, ${startOf(c[0]).y.toFixed(3)} to ${endOf(c[c.length - 1]).x.toFixed(3)}, ${endOf(c[c.length - 1]).y.toFixed(3)} mm`);
      const name = `${layer === '0' ? 'outline' : layer.toLowerCase()}${chains.length > 1 ? ` ${i + 1}` : ''}`;
      if (c.length === 1 && c[0].kind === 'arc' && Math.abs(c[0].sweep) > 2 * Math.PI - 1e-9) return { name, items: [{ item: 'circle', diameter: n(2 * c[0].radius), at: xy(c[0].centre) } satisfies OutlineItem] };
      const items: OutlineItem[] = [{ item: 'start', at: xy(startOf(c[0])) }];
      c.forEach((s, j) => {
        const last = closed && j === c.length - 1;
        items.push(s.kind === 'line' ? { item: 'line', ...(last ? { close: true as const } : { to: xy(s.to) }) } : { item: 'arc', ...(last ? {} : { to: xy(endOf(s)) }), centre: xy(s.centre), side: s.sweep > 0 ? 'ccw' : 'cw', ...(last ? { close: true as const } : {}) });
      });
      return { name, items };
    });
  });
  return { outlines, problems };
}

function segmentsOf(e: IEntity, k: number): Segment[] | null {
  const d = e as unknown as { vertices?: { x: number; y: number; bulge?: number }[]; center?: Vec2; radius?: number; startAngle?: number; endAngle?: number; shape?: boolean };
  const p = (q: Vec2) => v2(q.x * k, q.y * k);
  switch (e.type) {
    case 'LINE': return [{ kind: 'line', from: p(d.vertices![0]), to: p(d.vertices![1]) }];
    case 'CIRCLE': return [{ kind: 'arc', centre: p(d.center!), radius: d.radius! * k, start: 0, sweep: 2 * Math.PI }];
    case 'ARC': { let sweep = d.endAngle! - d.startAngle!; while (sweep <= 1e-12) sweep += 2 * Math.PI; return [{ kind: 'arc', centre: p(d.center!), radius: d.radius! * k, start: d.startAngle!, sweep }]; }
    case 'LWPOLYLINE': case 'POLYLINE': {
      const v = d.vertices ?? [];
      return v.flatMap((a, i): Segment[] => {
        const b = v[i + 1] ?? (d.shape ? v[0] : undefined);
        if (!b) return [];
        const from = p(a), to = p(b), chord = distance2(from, to);
        if (!a.bulge || chord < 1e-12) return chord < 1e-12 ? [] : [{ kind: 'line', from, to }];
        // The bulge is the tangent of a quarter of the arc's angle, positive to the left.
        const sweep = 4 * Math.atan(a.bulge), radius = chord / 2 / Math.abs(Math.sin(sweep / 2)), h = (chord / 2) / Math.tan(sweep / 2);
        const centre = v2((from.x + to.x) / 2 - (h * (to.y - from.y)) / chord, (from.y + to.y) / 2 + (h * (to.x - from.x)) / chord);
        return [{ kind: 'arc', centre, radius, start: Math.atan2(from.y - centre.y, from.x - centre.x), sweep }];
      });
    }
    case 'POINT': case 'TEXT': case 'MTEXT': case 'DIMENSION': return [];
    default: return null;
  }
}

/** Joins segments end to end, turning them round where they must be. */
function chain(segments: Segment[]): Segment[][] {
  const left = [...segments], out: Segment[][] = [];
  while (left.length) {
    const c = [left.shift()!];
    for (let grown = true; grown; ) {
      grown = false;
      const tail = endOf(c[c.length - 1]), head = startOf(c[0]);
      if (distance2(tail, head) < JOIN) break;
      for (let i = 0; i < left.length && !grown; i++) {
        const s = left[i], take = (front: boolean, x: Segment) => { left.splice(i, 1); if (front) c.unshift(x); else c.push(x); grown = true; };
        if (distance2(startOf(s), tail) < JOIN) take(false, s);
        else if (distance2(endOf(s), tail) < JOIN) take(false, reversed(s));
        else if (distance2(endOf(s), head) < JOIN) take(true, s);
        else if (distance2(startOf(s), head) < JOIN) take(true, reversed(s));
      }
    }
    out.push(c);
  }
  return out;
}
