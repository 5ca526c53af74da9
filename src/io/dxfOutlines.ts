import { DxfWriter, LWPolylineFlags, point2d, point3d } from "@tarikjabiri/dxf";
import type { IEntity } from "dxf-parser";
import { INCH, type LengthUnit, unitOf } from "@/core/number";
import { distance2, v2, type Vec2 } from "@/core/geometry/vec";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { startOf, endOf, type Segment } from "@/core/outline";
import { chainsOfLayer, gapList, type ReadFile } from "./chainItems";
import { DxfDrawing } from "./dxf";
import { evenScale, mapped, readEntities, type Affine } from "./dxfEntities";
import { COINCIDENT, ROUNDING } from "@/core/geometry/tolerance";

/**
 * Outlines as a DXF every reader takes (R12), each on a layer of its own: lines, arcs as arcs, circles; in the job's
 * unit.
 */
export function outlineDxf(outlines: EvaluatedOutline[], unit: LengthUnit): string {
  const d = new DxfDrawing(unit);
  for (const o of outlines) for (const l of [...o.region, ...o.open]) d.loop(d.layer(o.name, 7), l);
  return d.text();
}

/**
 * Outlines as a newer DXF: each chain one polyline, its arcs as bulges, closed where the chain is; whole circles as
 * circles.
 */
export function outlineDxfNewer(outlines: EvaluatedOutline[], unit: LengthUnit): string {
  const d = new DxfWriter(),
    k = 1 / unitOf[unit].mm;
  d.setUnits(unitOf[unit].inFiles.dxf);
  const there = new Set<string>();
  for (const o of outlines) {
    const layer = o.name.replace(/[<>/\\":;?*|=`]+/g, "_").slice(0, 120);
    if (!there.has(layer)) {
      d.addLayer(layer, 7, "CONTINUOUS");
      there.add(layer);
    }
    d.setCurrentLayerName(layer);
    const put = (chain: Segment[], closed: boolean) => {
      const only = chain[0];
      if (chain.length === 1 && only.kind === "arc" && Math.abs(only.sweep) > 2 * Math.PI - COINCIDENT)
        return void d.addCircle(point3d(only.centre.x * k, only.centre.y * k, 0), only.radius * k);
      // The bulge is the tangent of a quarter of the arc's angle, positive to the left; more than half a turn is
      // written as two arcs.
      const steps = chain.flatMap((s) =>
        s.kind === "arc" && Math.abs(s.sweep) > Math.PI + COINCIDENT
          ? [0, 1].map((i) => ({ ...s, start: s.start + (i * s.sweep) / 2, sweep: s.sweep / 2 }))
          : [s],
      );
      const vertices: { point: ReturnType<typeof point2d>; bulge?: number }[] = steps.map((s) => ({
        point: point2d(startOf(s).x * k, startOf(s).y * k),
        ...(s.kind === "arc" ? { bulge: Math.tan(s.sweep / 4) } : {}),
      }));
      if (!closed) {
        const e = endOf(steps[steps.length - 1]);
        vertices.push({ point: point2d(e.x * k, e.y * k) });
      }
      d.addLWPolyline(vertices, { flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
    };
    o.region.forEach((l) => put(l, true));
    o.open.forEach((c) => put(c, false));
  }
  return d.stringify();
}

/** Millimetres of a drawing unit, by the DXF's own code. */
const units: Record<number, number> = {
  1: INCH,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: INCH / 1e6,
  9: INCH / 1000,
  10: 914.4,
  13: 0.001,
  14: 100,
};

/**
 * Farther out than this nothing is read, mm: a kilometre beyond any machine, and near enough that figures keep their
 * decimals.
 */
const FARTHEST = 1e6;

/**
 * Chains of a DXF, by layer: lines, arcs, circles and polylines with their bulges, those of the blocks put in too,
 * joined where their ends meet. What cannot be taken is said, with its line.
 * @param unit the job's; @param taken what the drawing's numbers are, when somebody has said so; else the file's own
 * unit, else the job's
 */
export function readDxf(text: string, unit: LengthUnit, taken?: LengthUnit): ReadFile {
  const { entities, unitCode: code, problems } = readEntities(text);
  const k = taken ? unitOf[taken].mm : (units[code] ?? unitOf[unit].mm);
  const layers = new Map<string, Segment[]>();
  const left = new Map<string, number>();
  const leave = (what: string) => left.set(what, (left.get(what) ?? 0) + 1);
  for (const { entity: e, layer, at } of entities) {
    if (!whole(e)) {
      leave(`${e.type} on layer ${layer} incomplete: left out`);
      continue;
    }
    const s = segmentsOf(e, at, k);
    if (s === null) leave(`${e.type} left out: no lines or arcs`);
    else if (s === "squeezed")
      leave(`${e.type} left out: its block is scaled unevenly, which makes ellipses of its arcs`);
    else if (!s.every(near)) leave(`${e.type} on layer ${layer} left out: farther away than ${FARTHEST / 1e6} km`);
    else if (s.length) {
      const there = layers.get(layer) ?? [];
      there.push(...s);
      layers.set(layer, there);
    }
  }
  for (const [what, n] of left) problems.push(`${n} ${what}`);
  const chains = [...layers].flatMap(([layer, segments]) => chainsOfLayer(layer, segments, unit));
  return {
    said: code === 1 ? "in" : code === 4 ? "mm" : units[code] ? "other" : null,
    layers: [...layers].map(([name, s]) => ({ name, elements: s.length })),
    chains,
    problems: [...problems, ...gapList(chains, unit)],
  };
}

const near = (s: Segment): boolean =>
  (s.kind === "line" ? [s.from.x, s.from.y, s.to.x, s.to.y] : [s.centre.x, s.centre.y, s.radius]).every(
    (v) => Math.abs(v) < FARTHEST,
  );

interface Drawn {
  vertices?: { x: number; y: number; bulge?: number }[];
  center?: Vec2;
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  shape?: boolean;
}
/** Whether an entity has all the numbers its kind needs. */
function whole(e: IEntity): boolean {
  const d = e as Drawn,
    numbers = (...v: (number | undefined)[]) => v.every((x) => Number.isFinite(x));
  switch (e.type) {
    case "LINE":
      return d.vertices?.length === 2 && d.vertices.every((q) => numbers(q?.x, q?.y));
    case "CIRCLE":
      return numbers(d.center?.x, d.center?.y, d.radius) && d.radius! > 0;
    case "ARC":
      return numbers(d.center?.x, d.center?.y, d.radius, d.startAngle, d.endAngle) && d.radius! > 0;
    case "LWPOLYLINE":
    case "POLYLINE":
      return (d.vertices ?? []).every((q) => numbers(q?.x, q?.y) && numbers(q.bulge ?? 0));
    default:
      return true;
  }
}

/**
 * Angle of an arc from one to another, counter-clockwise, radians: more than nothing and at most a turn, however
 * often the file goes round.
 */
export function arcSweep(from: number, to: number): number {
  const turn = 2 * Math.PI;
  const rest = (((to - from) % turn) + turn) % turn;
  return rest <= ROUNDING ? turn : rest;
}

/**
 * An entity as lines and arcs where it stands; null when it is none, `squeezed` when its place makes ellipses of its
 * arcs.
 */
export function segmentsOf(e: IEntity, at: Affine, k: number): Segment[] | "squeezed" | null {
  const own = ownSegments(e);
  if (own === null) return null;
  const scale = evenScale(at);
  if (scale === null && own.some((s) => s.kind === "arc")) return "squeezed";
  const p = (q: Vec2) => {
    const m = mapped(at, q);
    return v2(m.x * k, m.y * k);
  };
  return own.map((s): Segment => {
    if (s.kind === "line") return { kind: "line", from: p(s.from), to: p(s.to) };
    const centre = p(s.centre),
      first = p(startOf(s)),
      over = scale! < 0;
    return {
      kind: "arc",
      centre,
      radius: s.radius * Math.abs(scale!) * k,
      start: Math.atan2(first.y - centre.y, first.x - centre.x),
      sweep: over ? -s.sweep : s.sweep,
    };
  });
}

function ownSegments(e: IEntity): Segment[] | null {
  const d = e as Drawn;
  switch (e.type) {
    case "LINE":
      return [
        { kind: "line", from: v2(d.vertices![0].x, d.vertices![0].y), to: v2(d.vertices![1].x, d.vertices![1].y) },
      ];
    case "CIRCLE":
      return [{ kind: "arc", centre: v2(d.center!.x, d.center!.y), radius: d.radius!, start: 0, sweep: 2 * Math.PI }];
    case "ARC":
      return [
        {
          kind: "arc",
          centre: v2(d.center!.x, d.center!.y),
          radius: d.radius!,
          start: d.startAngle! % (2 * Math.PI),
          sweep: arcSweep(d.startAngle!, d.endAngle!),
        },
      ];
    case "LWPOLYLINE":
    case "POLYLINE": {
      const v = d.vertices ?? [];
      return v.flatMap((a, i): Segment[] => {
        const b = v[i + 1] ?? (d.shape ? v[0] : undefined);
        return b ? bulged(a, b) : [];
      });
    }
    case "POINT":
    case "TEXT":
    case "MTEXT":
    case "DIMENSION":
      return [];
    default:
      return null;
  }
}

/**
 * From one vertex of a polyline to the next. The bulge is the tangent of a quarter of the arc's angle, positive to
 * the left.
 */
function bulged(a: { x: number; y: number; bulge?: number }, b: { x: number; y: number }): Segment[] {
  const from = v2(a.x, a.y),
    to = v2(b.x, b.y),
    chord = distance2(from, to);
  if (chord < ROUNDING) return [];
  if (!a.bulge || Math.abs(a.bulge) < COINCIDENT) return [{ kind: "line", from, to }];
  const sweep = 4 * Math.atan(a.bulge),
    radius = chord / 2 / Math.abs(Math.sin(sweep / 2)),
    h = chord / 2 / Math.tan(sweep / 2);
  const centre = v2(
    (from.x + to.x) / 2 - (h * (to.y - from.y)) / chord,
    (from.y + to.y) / 2 + (h * (to.x - from.x)) / chord,
  );
  return [{ kind: "arc", centre, radius, start: Math.atan2(from.y - centre.y, from.x - centre.x), sweep }];
}
