import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf';
import DxfParser, { type IEntity } from 'dxf-parser';
import { INCH, type LengthUnit } from '@/core/number';
import { distance2, v2, type Vec2 } from '@/core/geometry/vec';
import type { EvaluatedOutline } from '@/core/outline/evaluateOutline';
import { startOf, endOf, type Segment } from '@/core/outline';
import { chainsOfLayer, gapWords, type ReadFile } from './chainItems';
import { DxfDrawing } from './dxf';
import { checkDxf } from './dxfText';

/** Outlines as a DXF every reader takes (R12), each on a layer of its own: lines, arcs as arcs, circles; in the job's unit. */
export function outlineDxf(outlines: EvaluatedOutline[], unit: LengthUnit): string {
  const d = new DxfDrawing(unit);
  for (const o of outlines) for (const l of [...o.region, ...o.open]) d.loop(d.layer(o.name, 7), l);
  return d.text();
}

/** Outlines as a newer DXF: each chain one polyline, its arcs as bulges, closed where the chain is; whole circles as circles. */
export function outlineDxfNewer(outlines: EvaluatedOutline[], unit: LengthUnit): string {
  const d = new DxfWriter(), k = unit === 'in' ? 1 / INCH : 1;
  d.setUnits(unit === 'in' ? Units.Inches : Units.Millimeters);
  const there = new Set<string>();
  for (const o of outlines) {
    const layer = o.name.replace(/[<>/\\":;?*|=`]+/g, '_').slice(0, 120);
    if (!there.has(layer)) { d.addLayer(layer, 7, 'CONTINUOUS'); there.add(layer); }
    d.setCurrentLayerName(layer);
    const put = (chain: Segment[], closed: boolean) => {
      const only = chain[0];
      if (chain.length === 1 && only.kind === 'arc' && Math.abs(only.sweep) > 2 * Math.PI - 1e-9) return void d.addCircle(point3d(only.centre.x * k, only.centre.y * k, 0), only.radius * k);
      // The bulge is the tangent of a quarter of the arc's angle, positive to the left; more than half a turn is written as two arcs.
      const steps = chain.flatMap((s) => (s.kind === 'arc' && Math.abs(s.sweep) > Math.PI + 1e-9 ? [0, 1].map((i) => ({ ...s, start: s.start + (i * s.sweep) / 2, sweep: s.sweep / 2 })) : [s]));
      const vertices: { point: ReturnType<typeof point2d>; bulge?: number }[] = steps.map((s) => ({ point: point2d(startOf(s).x * k, startOf(s).y * k), ...(s.kind === 'arc' ? { bulge: Math.tan(s.sweep / 4) } : {}) }));
      if (!closed) { const e = endOf(steps[steps.length - 1]); vertices.push({ point: point2d(e.x * k, e.y * k) }); }
      d.addLWPolyline(vertices, { flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
    };
    o.region.forEach((l) => put(l, true));
    o.open.forEach((c) => put(c, false));
  }
  return d.stringify();
}

/** Millimetres of a drawing unit, by the DXF's own code. */
const units: Record<number, number> = { 1: INCH, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: INCH / 1e6, 9: INCH / 1000, 13: 0.001 };

/**
 * Chains of a DXF, by layer: lines, arcs, circles and polylines with their bulges, joined where their ends meet. What cannot be taken is said, with its line.
 * @param unit the job's; @param taken what the drawing's numbers are, when somebody has said so; else the file's own unit, else the job's
 */
export function readDxf(text: string, unit: LengthUnit, taken?: LengthUnit): ReadFile {
  const checked = checkDxf(text), problems = [...checked.problems];
  const none = { said: null, layers: [], chains: [], problems };
  if (!checked.text) return none;
  let dxf;
  try {
    dxf = new DxfParser().parseSync(checked.text);
  } catch (e) {
    problems.push(`the file is no DXF that can be read: ${e instanceof Error ? e.message.slice(0, 120) : ''}`);
    return none;
  }
  if (!dxf) { problems.push('the file is no DXF that can be read'); return none; }
  const code = Number((dxf.header as Record<string, unknown> | undefined)?.$INSUNITS ?? 0);
  const k = taken ? (taken === 'in' ? INCH : 1) : units[code] ?? (unit === 'in' ? INCH : 1);
  const layers = new Map<string, Segment[]>(), left = new Map<string, number>();
  for (const e of dxf.entities) {
    const s = whole(e) ? segmentsOf(e, k) : 'incomplete', layer = e.layer ?? '0';
    if (s === 'incomplete') problems.push(`a ${e.type} on layer ${layer} is incomplete: left out`);
    else if (!s) left.set(e.type, (left.get(e.type) ?? 0) + 1);
    else if (s.length) layers.set(layer, [...(layers.get(layer) ?? []), ...s]);
  }
  for (const [type, n] of left) problems.push(`${n} ${type} left out: no lines or arcs`);
  const chains = [...layers].flatMap(([layer, segments]) => chainsOfLayer(layer, segments, unit));
  return { said: code === 1 ? 'in' : code === 4 ? 'mm' : units[code] ? 'other' : null, layers: [...layers].map(([name, s]) => ({ name, elements: s.length })), chains, problems: [...problems, ...chains.map(gapWords).filter(Boolean)] };
}

interface Drawn { vertices?: { x: number; y: number; bulge?: number }[]; center?: Vec2; radius?: number; startAngle?: number; endAngle?: number; shape?: boolean }
/** Whether an entity has all the numbers its kind needs. */
function whole(e: IEntity): boolean {
  const d = e as unknown as Drawn, numbers = (...v: (number | undefined)[]) => v.every((x) => Number.isFinite(x));
  switch (e.type) {
    case 'LINE': return d.vertices?.length === 2 && d.vertices.every((q) => numbers(q?.x, q?.y));
    case 'CIRCLE': return numbers(d.center?.x, d.center?.y, d.radius);
    case 'ARC': return numbers(d.center?.x, d.center?.y, d.radius, d.startAngle, d.endAngle);
    case 'LWPOLYLINE': case 'POLYLINE': return (d.vertices ?? []).every((q) => numbers(q?.x, q?.y));
    default: return true;
  }
}

function segmentsOf(e: IEntity, k: number): Segment[] | null {
  const d = e as unknown as Drawn;
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
