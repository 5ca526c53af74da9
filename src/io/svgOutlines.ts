import { XMLParser } from "fast-xml-parser";
import svgpath from "svgpath";
import { INCH, type LengthUnit } from "@/core/number";
import { v2, type Vec2 } from "@/core/geometry/vec";
import { arcsOf } from "@/core/outline/letters";
import type { Segment } from "@/core/outline";
import { chainsOfLayer, gapList, type ReadFile } from "./chainItems";
import { COINCIDENT, ROUNDING } from "@/core/geometry/tolerance";

/** How far the arcs that stand for a curve may leave it, mm. */
const NEAR = 0.002;
/**
 * Millimetres of the units a drawing's width may be given in; a bare number is a ninety-sixth of an inch (CSS Values
 * and Units, from memory).
 */
const units: Record<string, number> = {
  mm: 1,
  cm: 10,
  in: INCH,
  pt: INCH / 72,
  pc: INCH / 6,
  px: INCH / 96,
  "": INCH / 96,
};
const MOST = 20_000;

type Node = Record<string, unknown> & { ":@"?: Record<string, string> };

/**
 * Chains of an SVG: paths, lines, rectangles, circles, polygons, by the group they stand in; arcs of circles stay
 * arcs, other curves become arcs within 0.002 mm.
 * y is turned over. The size comes from the drawing's width and its view box.
 */
export function readSvg(text: string, unit: LengthUnit): ReadFile {
  const problems: string[] = [],
    layers = new Map<string, Segment[]>(),
    left = new Map<string, number>();
  const nothing = { said: null, layers: [], chains: [], problems };
  let tree: Node[];
  try {
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: "",
      processEntities: false,
    }).parse(text, true) as Node[];
  } catch (e) {
    const at = (e as { line?: number }).line;
    problems.push(
      `the file is no SVG that can be read: ${e instanceof Error ? e.message.slice(0, 160) : ""}${at ? ` (line ${at})` : ""}`,
    );
    return nothing;
  }
  const root = tree.find((n) => "svg" in n);
  if (!root) {
    problems.push("the file is no SVG: it has no svg element");
    return nothing;
  }
  const attr = (n: Node) => n[":@"] ?? {};
  const box = attr(root)
      .viewBox?.trim()
      .split(/[\s,]+/)
      .map(Number),
    width = /^([-+.\deE]+)\s*([a-z]*)$/.exec(attr(root).width ?? "");
  const k =
    width && box?.length === 4 && box[2] > 0
      ? (Number(width[1]) * (units[width[2]] ?? units.px)) / box[2]
      : width
        ? (units[width[2]] ?? units.px)
        : box
          ? 1
          : units.px;
  let curves = 0,
    count = 0;
  const walk = (nodes: Node[], layer: string, transform: string) => {
    for (const n of nodes) {
      const tag = Object.keys(n).find((key) => key !== ":@")!,
        a = attr(n),
        inside = n[tag];
      const moved = a.transform ? `${transform} ${a.transform}` : transform;
      if (["g", "svg", "a", "symbol"].includes(tag)) {
        walk(inside as Node[], tag === "g" && a.id ? a.id : layer, moved);
        continue;
      }
      const d = pathOf(tag, a);
      if (d === null) {
        if (
          !["#text", "title", "desc", "defs", "metadata", "style", "?xml", "#comment"].includes(tag) &&
          !tag.includes(":")
        )
          left.set(tag, (left.get(tag) ?? 0) + 1);
        continue;
      }
      if (++count > MOST) continue;
      const path = svgpath(d).abs().transform(moved).unshort() as ReturnType<typeof svgpath> & { err?: string };
      if (path.err)
        problems.push(`a ${tag} cannot be read: ${path.err.slice(0, 100)}; what stands before that is taken`);
      const r = segmentsOf(path, k);
      curves += r.curves;
      if (!r.segments.length) continue;
      const there = layers.get(layer) ?? [];
      for (const q of r.segments) there.push(q);
      layers.set(layer, there);
    }
  };
  walk(root.svg as Node[], "outline", "");
  for (const [tag, n] of left) problems.push(`${n} ${tag} left out: no lines or arcs`);
  if (count > MOST) problems.push(`the drawing has ${count} elements; only the first ${MOST} are read`);
  if (curves) problems.push(`${curves} curve${curves === 1 ? "" : "s"} taken as arcs within ${NEAR} mm`);
  const chains = [...layers].flatMap(([layer, s]) => chainsOfLayer(layer, s, unit));
  return {
    said: width?.[2] === "mm" ? "mm" : width?.[2] === "in" ? "in" : null,
    layers: [...layers].map(([name, s]) => ({ name, elements: s.length })),
    chains,
    problems: [...problems, ...gapList(chains)],
  };
}

/** A shape as path data; null for what has no outline. */
function pathOf(tag: string, a: Record<string, string>): string | null {
  const n = (key: string) => Number(a[key] ?? 0);
  switch (tag) {
    case "path":
      return a.d ?? "";
    case "line":
      return `M${n("x1")} ${n("y1")}L${n("x2")} ${n("y2")}`;
    case "polyline":
      return a.points ? `M${a.points}` : "";
    case "polygon":
      return a.points ? `M${a.points}Z` : "";
    case "circle":
    case "ellipse": {
      const rx = tag === "circle" ? n("r") : n("rx"),
        ry = tag === "circle" ? n("r") : n("ry"),
        x = n("cx"),
        y = n("cy");
      return `M${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}Z`;
    }
    case "rect": {
      const x = n("x"),
        y = n("y"),
        w = n("width"),
        h = n("height"),
        rx = Math.min(w / 2, Number(a.rx ?? a.ry ?? 0)),
        ry = Math.min(h / 2, Number(a.ry ?? a.rx ?? 0));
      if (!rx || !ry) return `M${x} ${y}h${w}v${h}h${-w}Z`;
      return `M${x + rx} ${y}h${w - 2 * rx}a${rx} ${ry} 0 0 1 ${rx} ${ry}v${h - 2 * ry}a${rx} ${ry} 0 0 1 ${-rx} ${ry}h${2 * rx - w}a${rx} ${ry} 0 0 1 ${-rx} ${-ry}v${2 * ry - h}a${rx} ${ry} 0 0 1 ${rx} ${-ry}Z`;
    }
    default:
      return null;
  }
}

/** Path data as lines and arcs, in millimetres, y up. */
function segmentsOf(path: ReturnType<typeof svgpath>, k: number): { segments: Segment[]; curves: number } {
  const segments: Segment[] = [];
  let at = v2(0, 0),
    start = at,
    curves = 0;
  const p = (x: number, y: number): Vec2 => v2(x * k, -y * k);
  const line = (to: Vec2) => {
    if (Math.hypot(to.x - at.x, to.y - at.y) > ROUNDING) segments.push({ kind: "line", from: at, to });
    at = to;
  };
  const curve = (b: Vec2, c: Vec2, d: Vec2) => {
    segments.push(...arcsOf([at, b, c, d], NEAR));
    at = d;
  };
  const bend = (data: (string | number)[]) => {
    const [kind, ...v] = data as [string, ...number[]];
    switch (kind) {
      case "M":
        at = start = p(v[0], v[1]);
        break;
      case "L":
        line(p(v[0], v[1]));
        break;
      case "H":
        line(v2(v[0] * k, at.y));
        break;
      case "V":
        line(v2(at.x, -v[0] * k));
        break;
      case "C":
        curves++;
        curve(p(v[0], v[1]), p(v[2], v[3]), p(v[4], v[5]));
        break;
      case "Q": {
        curves++;
        const q = p(v[0], v[1]),
          e = p(v[2], v[3]);
        curve(
          v2(at.x + (2 * (q.x - at.x)) / 3, at.y + (2 * (q.y - at.y)) / 3),
          v2(e.x + (2 * (q.x - e.x)) / 3, e.y + (2 * (q.y - e.y)) / 3),
          e,
        );
        break;
      }
      case "A": {
        const to = p(v[5], v[6]);
        if (Math.abs(v[0] - v[1]) > COINCIDENT * Math.max(v[0], v[1])) {
          // Not of a circle: by way of curves.
          const bezier = svgpath(`M${at.x / k} ${-at.y / k}A${v.join(" ")}`).unarc();
          bezier.iterate((s) => {
            if (s[0] !== "M") bend(s as (string | number)[]);
          });
        } else if (v[0] > 0) {
          segments.push(circleArc(at, to, v[0] * k, v[3] === 1, v[4] === 0));
          at = to;
        } else line(to);
        break;
      }
      case "Z":
      case "z":
        line(start);
        break;
    }
  };
  path.iterate((s) => bend(s as (string | number)[]));
  return { segments, curves };
}

/**
 * The arc of a circle of radius r from a to b: the long way or the short, counter-clockwise or clockwise. A radius
 * too small grows until it reaches.
 */
function circleArc(a: Vec2, b: Vec2, radius: number, long: boolean, ccw: boolean): Segment {
  const chord = Math.hypot(b.x - a.x, b.y - a.y),
    r = Math.max(radius, chord / 2),
    h = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4)) * (long === ccw ? -1 : 1);
  const c = v2((a.x + b.x) / 2 - (h * (b.y - a.y)) / chord, (a.y + b.y) / 2 + (h * (b.x - a.x)) / chord);
  const start = Math.atan2(a.y - c.y, a.x - c.x);
  let sweep = Math.atan2(b.y - c.y, b.x - c.x) - start;
  if (ccw) while (sweep <= ROUNDING) sweep += 2 * Math.PI;
  else while (sweep >= -ROUNDING) sweep -= 2 * Math.PI;
  return { kind: "arc", centre: c, radius: r, start, sweep };
}
