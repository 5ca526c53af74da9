import type { DrawnLine } from '@/core/engine/kernel';

/** A view as SVG in millimetres: visible lines full, hidden ones dashed. */
export function drawingSvg(lines: DrawnLine[], options: { margin?: number; stroke?: string; width?: number; pixels?: number } = {}): string {
  const points = lines.flatMap((l) => l.points);
  if (!points.length) return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"></svg>';
  const xs = points.map((p) => p.x), ys = points.map((p) => p.y);
  const x0 = xs.reduce((a, b) => Math.min(a, b)), x1 = xs.reduce((a, b) => Math.max(a, b)), y0 = ys.reduce((a, b) => Math.min(a, b)), y1 = ys.reduce((a, b) => Math.max(a, b));
  const span = Math.max(x1 - x0, y1 - y0) || 1;
  const m = options.margin ?? span * 0.03;
  const w = x1 - x0 + 2 * m, h = y1 - y0 + 2 * m;
  const n = (v: number) => String(Number(v.toFixed(4)));
  const path = (hidden: boolean) => lines.filter((l) => l.hidden === hidden).map((l) => l.points.map((p, i) => `${i ? 'L' : 'M'}${n(p.x - x0 + m)} ${n(y1 - p.y + m)}`).join('')).join('');
  const stroke = options.stroke ?? '#22262b', width = options.width ?? span / 260;
  const size = options.pixels ? `width="${options.pixels}" height="${Math.round((options.pixels * h) / w)}"` : `width="${n(w)}mm" height="${n(h)}mm"`;
  const dashed = path(true);
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${n(w)} ${n(h)}"><g fill="none" stroke="${stroke}" stroke-linecap="round" stroke-linejoin="round">${dashed ? `<path d="${dashed}" stroke-width="${n(width * 0.6)}" stroke-dasharray="${n(width * 4)} ${n(width * 3)}"/>` : ''}<path d="${path(false)}" stroke-width="${n(width)}"/></g></svg>`;
}
