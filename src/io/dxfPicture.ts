import DxfParser, { type IDxf, type IEntity } from 'dxf-parser';
import { fail, ok, type Result } from '@/core/result';

interface Drawn { paths: string[]; texts: { x: number; y: number; h: number; turn: number; text: string }[]; box: { x0: number; y0: number; x1: number; y1: number } }
interface P { x: number; y: number }
type Place = { x: number; y: number; sx: number; sy: number; turn: number };

const MOST = 200_000;

/**
 * A DXF drawing as an SVG picture of its lines, for the print table. Only for looking at: it is calibrated like any picture.
 * Lines, arcs, circles, ellipses, polylines with bulges, splines by their points, texts and inserted blocks are drawn; the rest is left out.
 */
export function dxfPicture(text: string): Result<{ svg: string; width: number; height: number; entities: number }> {
  let dxf: IDxf | null;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch (e) {
    return fail(`the DXF cannot be read: ${e instanceof Error ? e.message.slice(0, 160) : 'unknown'}`, { expected: 'an ASCII DXF drawing' });
  }
  if (!dxf) return fail('the DXF cannot be read', { expected: 'an ASCII DXF drawing' });
  const out: Drawn = { paths: [], texts: [], box: { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity } };
  draw(dxf, dxf.entities, { x: 0, y: 0, sx: 1, sy: 1, turn: 0 }, out, 0);
  const { x0, y0, x1, y1 } = out.box;
  if (!(x1 >= x0) || !(y1 >= y0)) return fail('the drawing has nothing that can be shown', { expected: 'lines, arcs, circles or polylines' });
  const margin = Math.max(x1 - x0, y1 - y0, 1e-6) * 0.03;
  const w = x1 - x0 + 2 * margin, h = y1 - y0 + 2 * margin;
  // Drawn 2000 units wide, with y turned over.
  const k = 2000 / w;
  const X = (x: number) => ((x - x0 + margin) * k).toFixed(2), Y = (y: number) => ((y1 - y + margin) * k).toFixed(2);
  const path = out.paths.map((p) => p.replace(/([-\d.e]+),([-\d.e]+)/g, (_, a: string, b: string) => `${X(Number(a))} ${Y(Number(b))}`)).join('');
  const texts = out.texts.map((t) => `<text x="${X(t.x)}" y="${Y(t.y)}" font-size="${(t.h * k).toFixed(2)}"${t.turn ? ` transform="rotate(${(-t.turn).toFixed(3)} ${X(t.x)} ${Y(t.y)})"` : ''}>${escape(t.text)}</text>`).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="${(h * k).toFixed(0)}" viewBox="0 0 2000 ${(h * k).toFixed(2)}"><rect width="100%" height="100%" fill="#fff"/><path d="${path}" fill="none" stroke="#22262b" stroke-width="1.6"/><g font-family="sans-serif" fill="#22262b">${texts}</g></svg>`;
  return ok({ svg, width: 2000, height: h * k, entities: out.paths.length + out.texts.length });
}

const escape = (t: string) => t.replace(/[<>&"]/g, (c) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;' })[c]!);

function draw(dxf: IDxf, entities: IEntity[], place: Place, out: Drawn, depth: number): void {
  const at = (p: P): P => {
    const a = (place.turn * Math.PI) / 180, x = p.x * place.sx, y = p.y * place.sy;
    return { x: place.x + x * Math.cos(a) - y * Math.sin(a), y: place.y + x * Math.sin(a) + y * Math.cos(a) };
  };
  const grow = (p: P) => {
    out.box = { x0: Math.min(out.box.x0, p.x), y0: Math.min(out.box.y0, p.y), x1: Math.max(out.box.x1, p.x), y1: Math.max(out.box.y1, p.y) };
  };
  const line = (points: P[], closed = false) => {
    const seen = points.filter((p) => Number.isFinite(p.x) && Number.isFinite(p.y)).map(at);
    if (seen.length < 2 || out.paths.length > MOST) return;
    seen.forEach(grow);
    out.paths.push(seen.map((p, i) => `${i ? 'L' : 'M'}${p.x},${p.y}`).join('') + (closed ? 'Z' : ''));
  };
  for (const e of entities) {
    const d = e as unknown as Record<string, unknown> & { vertices?: (P & { bulge?: number })[]; center?: P; radius?: number; startAngle?: number; endAngle?: number; shape?: boolean; position?: P; name?: string };
    switch (e.type) {
      case 'LINE': line(d.vertices ?? []); break;
      case 'LWPOLYLINE': case 'POLYLINE': line(bulged(d.vertices ?? [], Boolean(d.shape)), Boolean(d.shape)); break;
      case 'CIRCLE': line(arc(d.center!, d.radius!, 0, 2 * Math.PI), true); break;
      case 'ARC': line(arc(d.center!, d.radius!, d.startAngle!, d.endAngle! <= d.startAngle! ? d.endAngle! + 2 * Math.PI : d.endAngle!)); break;
      case 'ELLIPSE': {
        const major = d.majorAxisEndPoint as P, ratio = d.axisRatio as number, a = Math.hypot(major.x, major.y), turn = Math.atan2(major.y, major.x), s = d.startAngle ?? 0, f = (d.endAngle ?? 2 * Math.PI) <= s ? (d.endAngle ?? 0) + 2 * Math.PI : d.endAngle!;
        line(Array.from({ length: 65 }, (_, i) => { const t = s + ((f - s) * i) / 64, x = a * Math.cos(t), y = a * ratio * Math.sin(t); return { x: d.center!.x + x * Math.cos(turn) - y * Math.sin(turn), y: d.center!.y + x * Math.sin(turn) + y * Math.cos(turn) }; }));
        break;
      }
      case 'SPLINE': line((d.fitPoints as P[] | undefined)?.length ? (d.fitPoints as P[]) : ((d.controlPoints as P[] | undefined) ?? [])); break;
      case 'TEXT': case 'MTEXT': {
        const p = (d.startPoint ?? d.position) as P | undefined;
        if (!p) break;
        const q = at(p), h = Number(d.textHeight ?? d.height ?? 2.5) * Math.abs(place.sy), text = String(d.text ?? '').replace(/\\[A-Za-z][^;]*;|[{}]/g, '').replace(/\\P/g, ' ').replace(/%%c/gi, '⌀').replace(/%%d/gi, '°').replace(/%%p/gi, '±').slice(0, 300);
        if (!text || !Number.isFinite(q.x + q.y + h)) break;
        grow(q);
        grow({ x: q.x + h * 0.6 * text.length, y: q.y + h });
        out.texts.push({ ...q, h, turn: Number(d.rotation ?? 0) + place.turn, text });
        break;
      }
      case 'INSERT': {
        const block = dxf.blocks?.[d.name ?? ''];
        if (!block?.entities || depth > 6) break;
        const o = at(d.position ?? { x: 0, y: 0 });
        draw(dxf, block.entities, { x: o.x, y: o.y, sx: place.sx * Number(d.xScale ?? 1), sy: place.sy * Number(d.yScale ?? 1), turn: place.turn + Number(d.rotation ?? 0) }, out, depth + 1);
        break;
      }
      default: // Dimensions keep their drawn form in a block of their own.
        if (e.type === 'DIMENSION' && typeof d.block === 'string' && dxf.blocks?.[d.block]?.entities && depth < 6) draw(dxf, dxf.blocks[d.block].entities, place, out, depth + 1);
    }
  }
}

function arc(c: P, r: number, from: number, to: number): P[] {
  const n = Math.max(8, Math.ceil(((to - from) / (2 * Math.PI)) * 96));
  return Array.from({ length: n + 1 }, (_, i) => ({ x: c.x + r * Math.cos(from + ((to - from) * i) / n), y: c.y + r * Math.sin(from + ((to - from) * i) / n) }));
}

/** A polyline with its bulges: tan of a quarter of the arc's angle, positive to the left. */
function bulged(v: (P & { bulge?: number })[], closed: boolean): P[] {
  const out: P[] = [];
  v.forEach((p, i) => {
    out.push(p);
    const q = v[i + 1] ?? (closed ? v[0] : undefined);
    if (!p.bulge || !q) return;
    const angle = 4 * Math.atan(p.bulge), chord = Math.hypot(q.x - p.x, q.y - p.y);
    if (chord < 1e-12) return;
    const r = chord / 2 / Math.sin(angle / 2), m = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 }, h = r * Math.cos(angle / 2);
    const c = { x: m.x - (h * (q.y - p.y)) / chord, y: m.y + (h * (q.x - p.x)) / chord }, s = Math.atan2(p.y - c.y, p.x - c.x);
    for (let k = 1; k < 24; k++) out.push({ x: c.x + Math.abs(r) * Math.cos(s + (angle * k) / 24), y: c.y + Math.abs(r) * Math.sin(s + (angle * k) / 24) });
  });
  return out;
}
