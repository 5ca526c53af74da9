import { problems } from "./problems";
import type { IEntity } from "dxf-parser";
import { fail, ok, type Result } from "@/core/base/result";
import { mapped, readEntities, type Affine, type PlacedEntity, type Point as P } from "./dxfEntities";
import { arcSweep } from "./dxfOutlines";
import { CONTACT, ROUNDING } from "@/core/geometry/tolerance";

interface Drawn {
  paths: string[];
  texts: { x: number; y: number; h: number; turn: number; text: string }[];
  box: { x0: number; y0: number; x1: number; y1: number };
}

/**
 * A DXF drawing as an SVG picture of its lines, for the print table. Only for looking at: it is calibrated like any
 * picture.
 * Lines, arcs, circles, ellipses, polylines with bulges, splines by their points, texts and inserted blocks are
 * drawn; the rest is left out.
 */
export function dxfPicture(text: string): Result<{ svg: string; width: number; height: number; entities: number }> {
  const { entities, problems: found } = readEntities(text);
  if (!entities.length && found.length) return fail(problems.dxfNotShown(found[found.length - 1]));
  const out: Drawn = { paths: [], texts: [], box: { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity } };
  for (const e of entities) draw(e, out);
  const { x0, y0, x1, y1 } = out.box;
  if (!(x1 >= x0) || !(y1 >= y0)) return fail(problems.nothingToShow());
  const margin = Math.max(x1 - x0, y1 - y0, CONTACT) * 0.03;
  const w = x1 - x0 + 2 * margin,
    h = y1 - y0 + 2 * margin;
  // Drawn 2000 units wide, with y turned over.
  const k = 2000 / w;
  const X = (x: number) => ((x - x0 + margin) * k).toFixed(2),
    Y = (y: number) => ((y1 - y + margin) * k).toFixed(2);
  const path = out.paths
    .map((p) => p.replace(/([-\d.e]+),([-\d.e]+)/g, (_, a: string, b: string) => `${X(Number(a))} ${Y(Number(b))}`))
    .join("");
  const texts = out.texts
    .map(
      (t) =>
        `<text x="${X(t.x)}" y="${Y(t.y)}" font-size="${(t.h * k).toFixed(2)}"${t.turn ? ` transform="rotate(${(-t.turn).toFixed(3)} ${X(t.x)} ${Y(t.y)})"` : ""}>${escape(t.text)}</text>`,
    )
    .join("");
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="${(h * k).toFixed(0)}" viewBox="0 0 2000 ${(h * k).toFixed(2)}"><rect width="100%" height="100%" fill="#fff"/><path d="${path}" fill="none" stroke="#22262b" stroke-width="1.6"/><g font-family="sans-serif" fill="#22262b">${texts}</g></svg>`;
  return ok({ svg, width: 2000, height: h * k, entities: out.paths.length + out.texts.length });
}

const escape = (t: string) =>
  t.replace(/[<>&"]/g, (c) => ({ "<": "&lt;", ">": "&gt;", "&": "&amp;", '"': "&quot;" })[c]!);

interface Shown {
  vertices?: (P & { bulge?: number })[];
  center?: P;
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  shape?: boolean;
  majorAxisEndPoint?: P;
  axisRatio?: number;
  fitPoints?: P[];
  controlPoints?: P[];
}

const reachable = (p: P): boolean => Math.abs(p.x) < FARTHEST && Math.abs(p.y) < FARTHEST;
/** What lies farther out would make a dot of the rest; drawing units. */
const FARTHEST = 1e9;

function draw({ entity: e, at }: PlacedEntity, out: Drawn): void {
  if (e.type === "TEXT" || e.type === "MTEXT") return write(e, at, out);
  const d = e as Shown;
  const line = (points: P[], closed = false) => {
    const seen = points.map((p) => mapped(at, p)).filter(reachable);
    if (seen.length < 2) return;
    seen.forEach((p) => grow(out, p));
    out.paths.push(seen.map((p, i) => `${i ? "L" : "M"}${p.x},${p.y}`).join("") + (closed ? "Z" : ""));
  };
  switch (e.type) {
    case "LINE":
      return line(d.vertices ?? []);
    case "LWPOLYLINE":
    case "POLYLINE":
      return line(bulged(d.vertices ?? [], Boolean(d.shape)), Boolean(d.shape));
    case "CIRCLE":
      return d.center && line(arc(d.center, d.radius ?? 0, 0, 2 * Math.PI), true);
    case "ARC":
      return (
        d.center &&
        line(
          arc(
            d.center,
            d.radius ?? 0,
            d.startAngle ?? 0,
            (d.startAngle ?? 0) + arcSweep(d.startAngle ?? 0, d.endAngle ?? 0),
          ),
        )
      );
    case "ELLIPSE":
      return line(ellipse(d));
    case "SPLINE":
      return line(d.fitPoints?.length ? d.fitPoints : (d.controlPoints ?? []));
  }
}

function ellipse(d: Shown): P[] {
  const major = d.majorAxisEndPoint;
  const centre = d.center;
  if (!major || !centre) return [];
  const a = Math.hypot(major.x, major.y);
  const turn = Math.atan2(major.y, major.x);
  const from = d.startAngle ?? 0;
  const sweep = arcSweep(from, d.endAngle ?? 2 * Math.PI);
  return Array.from({ length: 65 }, (_, i) => {
    const t = from + (sweep * i) / 64;
    const x = a * Math.cos(t);
    const y = a * (d.axisRatio ?? 1) * Math.sin(t);
    return {
      x: centre.x + x * Math.cos(turn) - y * Math.sin(turn),
      y: centre.y + x * Math.sin(turn) + y * Math.cos(turn),
    };
  });
}

function grow(out: Drawn, p: P): void {
  out.box = {
    x0: Math.min(out.box.x0, p.x),
    y0: Math.min(out.box.y0, p.y),
    x1: Math.max(out.box.x1, p.x),
    y1: Math.max(out.box.y1, p.y),
  };
}

function write(e: IEntity, at: Affine, out: Drawn): void {
  const d = e as {
    startPoint?: P;
    position?: P;
    textHeight?: number;
    height?: number;
    rotation?: number;
    text?: unknown;
  };
  const p = d.startPoint ?? d.position;
  if (!p) return;
  const q = mapped(at, p);
  const h = Number(d.textHeight ?? d.height ?? 2.5) * Math.hypot(at.c, at.d);
  const text = String(d.text ?? "")
    .slice(0, 2000)
    .replace(/\\[A-Za-z][^;]*;|[{}]/g, "")
    .replace(/\\P/g, " ")
    .replace(/%%c/gi, "⌀")
    .replace(/%%d/gi, "°")
    .replace(/%%p/gi, "±")
    .slice(0, 300);
  if (!text || !reachable(q) || !(h > 0 && h < FARTHEST)) return;
  grow(out, q);
  grow(out, { x: q.x + h * 0.6 * text.length, y: q.y + h });
  out.texts.push({ ...q, h, turn: (Number(d.rotation ?? 0) % 360) + (Math.atan2(at.b, at.a) * 180) / Math.PI, text });
}

function arc(c: P, r: number, from: number, to: number): P[] {
  const n = Math.min(96, Math.max(8, Math.ceil(((to - from) / (2 * Math.PI)) * 96)));
  return Array.from({ length: n + 1 }, (_, i) => ({
    x: c.x + r * Math.cos(from + ((to - from) * i) / n),
    y: c.y + r * Math.sin(from + ((to - from) * i) / n),
  }));
}

/** A polyline with its bulges: tan of a quarter of the arc's angle, positive to the left. */
function bulged(v: (P & { bulge?: number })[], closed: boolean): P[] {
  const out: P[] = [];
  v.forEach((p, i) => {
    out.push(p);
    const q = v[i + 1] ?? (closed ? v[0] : undefined);
    if (!p.bulge || !q) return;
    const angle = 4 * Math.atan(p.bulge),
      chord = Math.hypot(q.x - p.x, q.y - p.y);
    if (chord < ROUNDING) return;
    const r = chord / 2 / Math.sin(angle / 2),
      m = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 },
      h = r * Math.cos(angle / 2);
    const c = { x: m.x - (h * (q.y - p.y)) / chord, y: m.y + (h * (q.x - p.x)) / chord },
      s = Math.atan2(p.y - c.y, p.x - c.x);
    for (let k = 1; k < 24; k++)
      out.push({
        x: c.x + Math.abs(r) * Math.cos(s + (angle * k) / 24),
        y: c.y + Math.abs(r) * Math.sin(s + (angle * k) / 24),
      });
  });
  return out;
}
