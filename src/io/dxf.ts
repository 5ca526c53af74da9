import type { Loop, Segment } from "@/core/outline";
import type { PathPlan } from "@/core/paths/plan";
import { type LengthUnit, unitOf } from "@/core/number";
import type { DrawnLine } from "@/core/engine/kernel";
import { COINCIDENT } from "@/core/geometry/tolerance";

type Pair = [code: number, value: string | number];

/** A drawing in the plain ASCII form of the R12 exchange file: lines, arcs, circles and points on named layers. */
export class DxfDrawing {
  private layers = new Map<string, number>();
  private entities: Pair[] = [];
  constructor(private unit: LengthUnit) {}

  private n(mm: number): string {
    const v = mm / unitOf[this.unit].mm;
    return (Math.abs(v) < 5e-13 ? 0 : v).toFixed(10).replace(/\.?0+$/, "") || "0";
  }
  layer(name: string, colour = 7): string {
    const clean = name
      .toUpperCase()
      .replace(/[^A-Z0-9_$-]+/g, "_")
      .slice(0, 31);
    if (!this.layers.has(clean)) this.layers.set(clean, colour);
    return clean;
  }
  segment(layer: string, s: Segment): void {
    if (s.kind === "line")
      this.entities.push(
        [0, "LINE"],
        [8, layer],
        [10, this.n(s.from.x)],
        [20, this.n(s.from.y)],
        [30, 0],
        [11, this.n(s.to.x)],
        [21, this.n(s.to.y)],
        [31, 0],
      );
    else if (Math.abs(s.sweep) >= 2 * Math.PI - COINCIDENT)
      this.entities.push(
        [0, "CIRCLE"],
        [8, layer],
        [10, this.n(s.centre.x)],
        [20, this.n(s.centre.y)],
        [30, 0],
        [40, this.n(s.radius)],
      );
    else {
      const from = s.sweep > 0 ? s.start : s.start + s.sweep,
        to = s.sweep > 0 ? s.start + s.sweep : s.start;
      this.entities.push(
        [0, "ARC"],
        [8, layer],
        [10, this.n(s.centre.x)],
        [20, this.n(s.centre.y)],
        [30, 0],
        [40, this.n(s.radius)],
        [50, degrees(from)],
        [51, degrees(to)],
      );
    }
  }
  loop(layer: string, loop: Loop): void {
    for (const s of loop) this.segment(layer, s);
  }
  point(layer: string, x: number, y: number): void {
    this.entities.push([0, "POINT"], [8, layer], [10, this.n(x)], [20, this.n(y)], [30, 0]);
  }
  text(): string {
    const pairs: Pair[] = [
      [0, "SECTION"],
      [2, "HEADER"],
      [9, "$ACADVER"],
      [1, "AC1009"],
      [9, "$INSUNITS"],
      [70, unitOf[this.unit].inFiles.dxf],
      [0, "ENDSEC"],
      [0, "SECTION"],
      [2, "TABLES"],
      [0, "TABLE"],
      [2, "LTYPE"],
      [70, 1],
      [0, "LTYPE"],
      [2, "CONTINUOUS"],
      [70, 0],
      [3, "Solid line"],
      [72, 65],
      [73, 0],
      [40, 0],
      [0, "ENDTAB"],
      [0, "TABLE"],
      [2, "LAYER"],
      [70, this.layers.size + 1],
      [0, "LAYER"],
      [2, "0"],
      [70, 0],
      [62, 7],
      [6, "CONTINUOUS"],
      ...[...this.layers].flatMap(([name, colour]): Pair[] => [
        [0, "LAYER"],
        [2, name],
        [70, 0],
        [62, colour],
        [6, "CONTINUOUS"],
      ]),
      [0, "ENDTAB"],
      [0, "ENDSEC"],
      [0, "SECTION"],
      [2, "ENTITIES"],
      ...this.entities,
      [0, "ENDSEC"],
      [0, "EOF"],
    ];
    return pairs.map(([c, v]) => `${String(c).padStart(3)}\r\n${v}\r\n`).join("");
  }
}

const degrees = (a: number): string =>
  (((((a * 180) / Math.PI) % 360) + 360) % 360).toFixed(10).replace(/\.?0+$/, "") || "0";

/**
 * Chains, drill points and rest of every path, each on its own layer, in the coordinates of its plane and the job's
 * unit.
 */
export function pathsDxf(
  plans: PathPlan[],
  unit: LengthUnit,
  outlines: { name: string; region: Loop[]; open: Segment[][] }[] = [],
): string {
  const d = new DxfDrawing(unit);
  for (const o of outlines) for (const l of [...o.region, ...o.open]) d.loop(d.layer(`OUTLINE_${o.name}`, 3), l);
  for (const p of plans) {
    const base = `${p.kind}_${p.row}`;
    if (p.chains.length) p.chains.forEach((l) => d.loop(d.layer(base, 5), l));
    if (p.clearing.length) p.clearing.forEach((l) => d.loop(d.layer(`${base}_CLEAR`, 8), l));
    if (p.rest.loops.length) p.rest.loops.forEach((l) => d.loop(d.layer(`${base}_REST`, 1), l));
    p.points.forEach((q) => d.point(d.layer(base, 5), q.x, q.y));
  }
  return d.text();
}

/** A view of the part as lines (curves drawn as short chords). */
export function drawingDxf(lines: DrawnLine[], unit: LengthUnit): string {
  const d = new DxfDrawing(unit);
  for (const l of lines)
    for (let i = 0; i + 1 < l.points.length; i++)
      d.segment(d.layer(l.hidden ? "HIDDEN" : "VISIBLE", l.hidden ? 8 : 7), {
        kind: "line",
        from: l.points[i],
        to: l.points[i + 1],
      });
  return d.text();
}
