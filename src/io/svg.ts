import type { DrawnLine } from "@/core/engine/kernel";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { endOf, startOf, type Segment } from "@/core/outline";
import { COINCIDENT } from "@/core/geometry/tolerance";

/** A view as SVG in millimetres: visible lines full, hidden ones dashed. */
export function drawingSvg(
  lines: DrawnLine[],
  options: { margin?: number; stroke?: string; width?: number; pixels?: number } = {},
): string {
  const points = lines.flatMap((l) => l.points);
  if (!points.length) return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"></svg>';
  const xs = points.map((p) => p.x),
    ys = points.map((p) => p.y);
  const x0 = xs.reduce((a, b) => Math.min(a, b)),
    x1 = xs.reduce((a, b) => Math.max(a, b)),
    y0 = ys.reduce((a, b) => Math.min(a, b)),
    y1 = ys.reduce((a, b) => Math.max(a, b));
  const span = Math.max(x1 - x0, y1 - y0) || 1;
  const m = options.margin ?? span * 0.03;
  const w = x1 - x0 + 2 * m,
    h = y1 - y0 + 2 * m;
  const n = (v: number) => String(Number(v.toFixed(4)));
  const path = (hidden: boolean) =>
    lines
      .filter((l) => l.hidden === hidden)
      .map((l) => l.points.map((p, i) => `${i ? "L" : "M"}${n(p.x - x0 + m)} ${n(y1 - p.y + m)}`).join(""))
      .join("");
  const stroke = options.stroke ?? "#22262b",
    width = options.width ?? span / 260;
  const size = options.pixels
    ? `width="${options.pixels}" height="${Math.round((options.pixels * h) / w)}"`
    : `width="${n(w)}mm" height="${n(h)}mm"`;
  const dashed = path(true);
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${n(w)} ${n(h)}"><g fill="none" stroke="${stroke}" stroke-linecap="round" stroke-linejoin="round">${dashed ? `<path d="${dashed}" stroke-width="${n(width * 0.6)}" stroke-dasharray="${n(width * 4)} ${n(width * 3)}"/>` : ""}<path d="${path(false)}" stroke-width="${n(width)}"/></g></svg>`;
}

const drawn =
  /^(?:<\/?(?:svg|g|path)(?: (?:xmlns|width|height|viewBox|fill|stroke|stroke-width|stroke-linecap|stroke-linejoin|stroke-dasharray|d)="[^"<>&()]*")*\/?>)+$/;

/** Whether a text is nothing but lines and curves as {@link drawingSvg} draws them: it can be shown as it is. */
export const isDrawingSvg = (text: string): boolean => text.startsWith("<svg ") && drawn.test(text);

/**
 * Outlines as SVG in millimetres, each a group of its own, y turned over; arcs stay arcs, a whole circle is two
 * halves.
 */
export function outlinesSvg(outlines: EvaluatedOutline[]): string {
  const n = (v: number) => String(Number(v.toFixed(9)));
  const drawn = outlines.filter((o) => o.box),
    corners = drawn.length
      ? drawn.flatMap((o) => [o.box!.min, o.box!.max])
      : [
          { x: 0, y: 0 },
          { x: 10, y: 10 },
        ];
  const xs = corners.map((p) => p.x),
    ys = corners.map((p) => p.y),
    box = { min: { x: Math.min(...xs), y: Math.min(...ys) }, max: { x: Math.max(...xs), y: Math.max(...ys) } };
  const arc = (s: Extract<Segment, { kind: "arc" }>): string => {
    if (Math.abs(s.sweep) > 2 * Math.PI - COINCIDENT)
      return [0, 1].map((i) => arc({ ...s, start: s.start + (i * s.sweep) / 2, sweep: s.sweep / 2 })).join("");
    const e = endOf(s);
    return `A${n(s.radius)} ${n(s.radius)} 0 ${Math.abs(s.sweep) > Math.PI ? 1 : 0} ${s.sweep > 0 ? 0 : 1} ${n(e.x)} ${n(-e.y)}`;
  };
  const path = (chain: Segment[], closed: boolean) => {
    const p = startOf(chain[0]);
    return `M${n(p.x)} ${n(-p.y)}${chain.map((s) => (s.kind === "line" ? `L${n(s.to.x)} ${n(-s.to.y)}` : arc(s))).join("")}${closed ? "Z" : ""}`;
  };
  const m = Math.max(box.max.x - box.min.x, box.max.y - box.min.y) * 0.03,
    w = box.max.x - box.min.x + 2 * m,
    h = box.max.y - box.min.y + 2 * m;
  const name = (t: string) =>
    t.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c]!);
  const groups = drawn
    .map(
      (o) =>
        `<g id="${name(o.name)}"><path d="${[...o.region.map((l) => path(l, true)), ...o.open.map((l) => path(l, false))].join("")}"/></g>`,
    )
    .join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="${n(box.min.x - m)} ${n(-box.max.y - m)} ${n(w)} ${n(h)}"><g fill="none" fill-rule="evenodd" stroke="#22262b" stroke-width="${n(Math.max(w, h) / 300)}">${groups}</g></svg>`;
}
export const outlineSvg = (o: EvaluatedOutline): string => outlinesSvg([o]);
