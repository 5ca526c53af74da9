import type { DrawnLine, View } from "@/core/engine/kernel";
import { dot, type Vec2, type Vec3 } from "@/core/geometry/vec";
import type { FeatureLabel } from "@/core/print/labels";
import { drawingSvg } from "./svg";

/** Faces the figures are set in, and those the drawing signs are missing from them. */
const FACE = "Figures";
const SIGNS = "Symbols";
const escaped = (t: string) =>
  t.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c]!);
const set = (text: string) =>
  text
    .split(/([⌀↧∅→▲±°]+)/)
    .filter(Boolean)
    .map((t) => `<tspan font-family="${/[⌀↧∅→▲]/.test(t) ? SIGNS : FACE}">${escaped(t)}</tspan>`)
    .join("");

interface Line {
  at: Vec2;
  text: string;
  /** The first line of a feature has its leader. */
  first: boolean;
}

/** The features' lines to the left and to the right: each on its own side, those in the middle where there is more room. */
function columns(features: { at: Vec2; texts: string[] }[], middle: number, near: number): [Line[], Line[]] {
  const sides: [Line[], Line[]] = [[], []];
  const own = (x: number) =>
    Math.abs(x - middle) < near ? Number(sides[0].length > sides[1].length) : Number(x > middle);
  const fromSides = [...features].sort((a, b) => Math.abs(b.at.x - middle) - Math.abs(a.at.x - middle));
  for (const { at, texts } of fromSides)
    sides[own(at.x)].push(...texts.map((text, i) => ({ at, text, first: i === 0 })));
  for (const side of sides) side.sort((a, b) => b.at.y - a.at.y);
  return sides;
}

/** Lines of a column from the top down, none nearer to the next than `step`, each as near to its feature as that allows. */
export function spread(heights: number[], step: number, low: number, high: number): number[] {
  const out = [...heights].sort((a, b) => b - a);
  for (let i = 0; i < out.length; i++) out[i] = Math.min(out[i], i ? out[i - 1] - step : high);
  for (let i = out.length - 1; i >= 0; i--) out[i] = Math.max(out[i], i < out.length - 1 ? out[i + 1] + step : low);
  return out;
}

/** Whether a feature is looked at along its own direction in a view, from above or from below. */
export const faces = (label: FeatureLabel, view: View): boolean => Math.abs(dot(label.normal, view.toEye)) > 0.99;

/**
 * A view with what the print writes beside its features: leaders to two columns, one on either side.
 * @returns SVG in mm, or the bare view where nothing of it faces this way
 */
export function labelledView(lines: DrawnLine[], view: View, labels: FeatureLabel[], stroke: string): string {
  const facing = labels.filter((l) => faces(l, view));
  const points = lines.flatMap((l) => l.points);
  if (!facing.length || !points.length) return drawingSvg(lines, { stroke });
  const flat = (p: Vec3): Vec2 => ({ x: dot(p, view.right), y: dot(p, view.up) });
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const [x0, x1] = [xs.reduce((a, b) => Math.min(a, b)), xs.reduce((a, b) => Math.max(a, b))];
  const [y0, y1] = [ys.reduce((a, b) => Math.min(a, b)), ys.reduce((a, b) => Math.max(a, b))];
  const features = facing.map((l) => ({ at: flat(l.at), texts: l.balloons.map((b) => `${b.number}: ${b.text}`) }));
  const sides = columns(features, (x0 + x1) / 2, (x1 - x0) / 20);
  const size = Math.max(x1 - x0, y1 - y0) / 16;
  const wide = Math.max(...features.flatMap((f) => f.texts).map((t) => t.length)) * size * 0.62 + size;
  const gap = size * 1.4;
  const step = size * 1.3;
  // As many lines as there are need their height, on the paper if not beside the part.
  const tall = Math.max(y1 - y0, step * (Math.max(sides[0].length, sides[1].length) - 1));
  const [low, high] = [(y0 + y1 - tall) / 2, (y0 + y1 + tall) / 2];
  const body = sides
    .flatMap((side, right) => {
      const heights = spread(
        side.map((p) => p.at.y),
        step,
        low,
        high,
      );
      const edge = right ? x1 + gap : x0 - gap;
      return side.map((p, i) => {
        const y = -heights[i];
        const x = edge + (right ? size / 3 : -size / 3);
        const text = `<text x="${x}" y="${y + size * 0.35}" font-size="${size}" text-anchor="${right ? "start" : "end"}" fill="${stroke}">${set(p.text)}</text>`;
        if (!p.first) return text;
        return `<path d="M${p.at.x} ${-p.at.y}L${edge} ${y}" stroke="${stroke}" stroke-width="${size / 18}" fill="none"/><circle cx="${p.at.x}" cy="${-p.at.y}" r="${size / 7}" fill="${stroke}"/>${text}`;
      });
    })
    .join("");
  const path = lines.map((l) => l.points.map((p, i) => `${i ? "L" : "M"}${p.x} ${-p.y}`).join("")).join("");
  const box = [x0 - gap - wide, -high - size, x1 - x0 + 2 * (gap + wide), tall + 2 * size];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box.join(" ")}" width="${box[2]}" height="${box[3]}"><path d="${path}" fill="none" stroke="${stroke}" stroke-width="${size / 9}" stroke-linecap="round"/>${body}</svg>`;
}
