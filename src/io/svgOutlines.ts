import { XMLParser } from "fast-xml-parser";
import svgpath from "svgpath";
import { INCH, type LengthUnit, inUnit, saidLength } from "@/core/number";
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
/** Words of a transform, with those of the groups round it: each is multiplied by all before it. */
const MOST_TRANSFORM = 4000;

type Node = Record<string, unknown> & { ":@"?: Record<string, string> };

/**
 * Chains of an SVG: paths, lines, rectangles, circles, polygons, by the group they stand in; arcs of circles stay
 * arcs, other curves become arcs within 0.002 mm.
 * y is turned over. The size comes from the drawing's width and its view box.
 */
export function readSvg(text: string, unit: LengthUnit): ReadFile {
  const root = rootOf(text);
  if (typeof root === "string") return { said: null, layers: [], chains: [], problems: [root] };
  const { scale, said } = sizeOf(root);
  const gathered = new Shapes(scale);
  gathered.walk(root.svg as Node[], "outline", "");
  const chains = [...gathered.layers].flatMap(([layer, s]) => chainsOfLayer(layer, s, unit));
  return {
    said,
    layers: [...gathered.layers].map(([name, s]) => ({ name, elements: s.length })),
    chains,
    problems: [...gathered.problems(unit), ...gapList(chains, unit)],
  };
}

const attributes = (n: Node): Record<string, string> => n[":@"] ?? {};

/** The svg element, or why there is none. */
function rootOf(text: string): Node | string {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: "",
    processEntities: false,
  });
  try {
    const tree = parser.parse(text, true) as Node[];
    return tree.find((n) => "svg" in n) ?? "the file is no SVG: it has no svg element";
  } catch (e) {
    const at = (e as { line?: number }).line;
    const why = e instanceof Error ? e.message.slice(0, 160) : "";
    return `the file is no SVG that can be read: ${why}${at ? ` (line ${at})` : ""}`;
  }
}

/** Millimetres of one unit of the drawing, and the unit its width is given in. */
function sizeOf(root: Node): { scale: number; said: LengthUnit | null } {
  const a = attributes(root);
  const box = a.viewBox
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const width = /^([-+.\deE]+)\s*([a-z]*)$/.exec(a.width ?? "");
  if (!width) return { scale: box ? 1 : units.px, said: null };
  const one = units[width[2]] ?? units.px;
  const said = width[2] === "mm" || width[2] === "in" ? width[2] : null;
  return { scale: box?.length === 4 && box[2] > 0 ? (Number(width[1]) * one) / box[2] : one, said };
}

/** Elements that are no drawing, and nothing is said of them. */
const silent = ["#text", "title", "desc", "defs", "metadata", "style", "?xml", "#comment"];
const groups = ["g", "svg", "a", "symbol"];

/** The segments of every shape by its layer, and what was left out. */
class Shapes {
  readonly layers = new Map<string, Segment[]>();
  private readonly left = new Map<string, number>();
  private readonly broken: string[] = [];
  private curves = 0;
  private count = 0;
  constructor(private readonly scale: number) {}

  walk(nodes: Node[], layer: string, transform: string): void {
    for (const n of nodes) {
      const tag = Object.keys(n).find((key) => key !== ":@")!;
      const a = attributes(n);
      const moved = a.transform ? `${transform} ${a.transform}` : transform;
      if (moved.length > MOST_TRANSFORM) {
        this.broken.push(`a ${tag} is moved by ${moved.length} characters of words, more than are read: left out`);
        continue;
      }
      if (groups.includes(tag)) this.walk(n[tag] as Node[], tag === "g" && a.id ? a.id : layer, moved);
      else this.shape(tag, a, layer, moved);
    }
  }

  private shape(tag: string, a: Record<string, string>, layer: string, transform: string): void {
    const d = pathOf(tag, a);
    if (d === null) {
      if (!silent.includes(tag) && !tag.includes(":")) this.left.set(tag, (this.left.get(tag) ?? 0) + 1);
      return;
    }
    if (++this.count > MOST) return;
    const path = svgpath(d).abs().transform(transform).unshort() as ReturnType<typeof svgpath> & { err?: string };
    if (path.err)
      this.broken.push(`a ${tag} cannot be read: ${path.err.slice(0, 100)}; what stands before that is taken`);
    const { segments, curves } = segmentsOf(path, this.scale);
    this.curves += curves;
    if (!segments.length) return;
    const there = this.layers.get(layer) ?? [];
    for (const q of segments) there.push(q);
    this.layers.set(layer, there);
  }

  problems(unit: LengthUnit): string[] {
    const { curves, count } = this;
    return [
      ...this.broken,
      ...[...this.left].map(([tag, n]) => `${n} ${tag} left out: no lines or arcs`),
      ...(count > MOST ? [`the drawing has ${count} elements; only the first ${MOST} are read`] : []),
      ...(curves
        ? [`${curves} curve${curves === 1 ? "" : "s"} taken as arcs within ${inUnit(saidLength(NEAR), unit)}`]
        : []),
    ];
  }
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
function segmentsOf(path: ReturnType<typeof svgpath>, scale: number): { segments: Segment[]; curves: number } {
  const pen = new Pen(scale);
  path.iterate((s) => pen.put(s as PathWord));
  return pen;
}

/** One word of path data: its letter and its numbers, absolute. */
type PathWord = [string, ...number[]];

/** Follows path data from word to word. */
class Pen {
  readonly segments: Segment[] = [];
  curves = 0;
  private at = v2(0, 0);
  private start = this.at;
  constructor(private readonly scale: number) {}

  private point(x: number, y: number): Vec2 {
    return v2(x * this.scale, -y * this.scale);
  }
  private line(to: Vec2): void {
    if (Math.hypot(to.x - this.at.x, to.y - this.at.y) > ROUNDING)
      this.segments.push({ kind: "line", from: this.at, to });
    this.at = to;
  }
  private curve(b: Vec2, c: Vec2, d: Vec2): void {
    this.curves++;
    this.segments.push(...arcsOf([this.at, b, c, d], NEAR));
    this.at = d;
  }

  put([kind, ...v]: PathWord): void {
    switch (kind) {
      case "M":
        this.at = this.start = this.point(v[0], v[1]);
        break;
      case "L":
        this.line(this.point(v[0], v[1]));
        break;
      case "H":
        this.line(v2(v[0] * this.scale, this.at.y));
        break;
      case "V":
        this.line(v2(this.at.x, -v[0] * this.scale));
        break;
      case "C":
        this.curve(this.point(v[0], v[1]), this.point(v[2], v[3]), this.point(v[4], v[5]));
        break;
      case "Q":
        this.quadratic(this.point(v[0], v[1]), this.point(v[2], v[3]));
        break;
      case "A":
        this.arc(v);
        break;
      case "Z":
      case "z":
        this.line(this.start);
        break;
    }
  }

  /** A curve with one handle is one with two, each two thirds of the way to it. */
  private quadratic(q: Vec2, end: Vec2): void {
    const handle = (p: Vec2) => v2(p.x + (2 * (q.x - p.x)) / 3, p.y + (2 * (q.y - p.y)) / 3);
    this.curve(handle(this.at), handle(end), end);
  }

  private arc(v: number[]): void {
    const [rx, ry, , large, sweep] = v;
    const to = this.point(v[5], v[6]);
    if (Math.abs(rx - ry) > COINCIDENT * Math.max(rx, ry)) {
      // Not of a circle: by way of curves.
      const { x, y } = this.at;
      const bezier = svgpath(`M${x / this.scale} ${-y / this.scale}A${v.join(" ")}`).unarc();
      bezier.iterate((s) => {
        if (s[0] !== "M") this.put(s as PathWord);
      });
    } else if (rx > 0) {
      this.segments.push(circleArc(this.at, to, rx * this.scale, large === 1, sweep === 0));
      this.at = to;
    } else this.line(to);
  }
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
