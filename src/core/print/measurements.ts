import { boxInFrame, dot, length, sub, toFrame, v3, type Vec3 } from '../geometry/vec';
import type { EdgeInfo, FaceInfo } from '../engine/kernel';
import type { SolvedRow } from '../engine/solve';

/** Something measured on the solid itself, and what it was measured on. */
export interface Measurement { value: number; by: string }

const PARALLEL = 1 - 1e-9;

/** Diameters of a row's cylinders and round edges, and the circle its axes stand on. */
export function diameters(row: SolvedRow, faces: FaceInfo[], edges: EdgeInfo[]): Measurement[] {
  const out: Measurement[] = own(row, faces).flatMap((f) => (f.surface === 'cylinder' ? [{ value: 2 * f.radius!, by: `cylinder of row ${row.number}` }] : []));
  for (const e of edges) if (e.curve === 'circle' && e.faces.some((i) => faces[i].tag?.row === row.row.id)) out.push({ value: 2 * e.radius!, by: `round edge of row ${row.number}` });
  const bc = boltCircle(row, faces);
  if (bc !== null) out.push({ value: bc, by: `circle through the ${axesOf(row, faces).length} axes of row ${row.number}` });
  return out;
}

export const radii = (row: SolvedRow, faces: FaceInfo[], edges: EdgeInfo[]): Measurement[] => [
  ...own(row, faces).flatMap((f) => (f.surface === 'cylinder' ? [{ value: f.radius!, by: `cylinder of row ${row.number}` }] : [])),
  ...edges.flatMap((e) => (e.curve === 'circle' && e.faces.some((i) => faces[i].tag?.row === row.row.id) ? [{ value: e.radius!, by: `arc of row ${row.number}` }] : [])),
];

/** Distances a row takes part in: between parallel flats, from flats to axes, between axes, of axes from the job's zero; chamfer legs. */
export function distances(row: SolvedRow, faces: FaceInfo[]): Measurement[] {
  const out: Measurement[] = [];
  const flats = faces.filter((f) => f.surface === 'plane');
  const mine = own(row, faces);
  for (const f of mine) {
    if (f.surface !== 'plane') continue;
    for (const g of flats) {
      if (g === f || Math.abs(dot(f.normal, g.normal)) < PARALLEL) continue;
      const d = Math.abs(dot(sub(g.point, f.point), f.normal));
      if (d > 1e-9) out.push({ value: d, by: `between a flat of row ${row.number} and one of ${g.tag?.row === row.row.id ? 'the same row' : 'another row'}` });
    }
  }
  // The middle of two walls that face one another: where a pocket stands.
  for (const f of mine) for (const g of mine) {
    if (f === g || f.surface !== 'plane' || g.surface !== 'plane' || f.tag!.instance !== g.tag!.instance || dot(f.normal, g.normal) > -PARALLEL) continue;
    for (const k of ['x', 'y', 'z'] as const) if (Math.abs(f.normal[k]) > PARALLEL) out.push({ value: Math.abs((f.point[k] + g.point[k]) / 2), by: `middle of two walls of row ${row.number} from ${k.toUpperCase()}0` });
  }
  const axes = axesOf(row, faces);
  for (const a of axes) {
    for (const k of ['x', 'y', 'z'] as const) if (Math.abs(a.direction[k]) < 1e-9) out.push({ value: Math.abs(a.origin[k]), by: `axis of row ${row.number} from ${k.toUpperCase()}0` });
    for (const g of flats) if (Math.abs(dot(g.normal, a.direction)) < 1e-9) out.push({ value: Math.abs(dot(sub(g.point, a.origin), g.normal)), by: `axis of row ${row.number} to a flat` });
  }
  for (let i = 0; i < Math.min(axes.length, 60); i++)
    for (let j = i + 1; j < Math.min(axes.length, 60); j++) {
      const d = sub(axes[j].origin, axes[i].origin);
      const across = sub(d, v3(axes[i].direction.x * dot(d, axes[i].direction), axes[i].direction.y * dot(d, axes[i].direction), axes[i].direction.z * dot(d, axes[i].direction)));
      out.push({ value: length(across), by: `between two axes of row ${row.number}` });
      for (const k of ['x', 'y'] as const) if (Math.abs(across[k]) > 1e-9) out.push({ value: Math.abs(across[k]), by: `between two axes of row ${row.number} along ${k.toUpperCase()}` });
    }
  // Depth of walls below the row's own plane, on the solid.
  const frame = row.planes?.start;
  if (frame) for (const f of mine) if (f.tag!.role === 'wall' || f.tag!.role === 'cone') out.push({ value: -boxInFrame(frame, f.box).min.z, by: `depth of a wall of row ${row.number}` });
  for (const f of mine) if (f.tag!.role === 'chamfer') for (const k of ['x', 'y', 'z'] as const) out.push({ value: f.box.max[k] - f.box.min[k], by: `leg of the chamfer of row ${row.number}` });
  return out;
}

/** Depths of a row: of its walls below its own plane, and between flats that lie along that plane. */
export function depths(row: SolvedRow, faces: FaceInfo[]): Measurement[] {
  const frame = row.planes?.start;
  if (!frame) return [];
  const level = faces.filter((f) => f.surface === 'plane' && Math.abs(dot(f.normal, frame.normal)) > PARALLEL);
  return own(row, faces).flatMap((f): Measurement[] => {
    if (f.tag!.role === 'wall' || f.tag!.role === 'cone') return [{ value: -boxInFrame(frame, f.box).min.z, by: `depth of a wall of row ${row.number}` }];
    if (!level.includes(f)) return [];
    return level.flatMap((g) => {
      const d = Math.abs(dot(sub(g.point, f.point), frame.normal));
      return d > 1e-9 ? [{ value: d, by: `between a floor of row ${row.number} and a flat over it` }] : [];
    });
  });
}

/** Angles of a row: of its cones, between its flats and others, and of its axes about the middle of their circle. */
export function angles(row: SolvedRow, faces: FaceInfo[]): Measurement[] {
  const out: Measurement[] = [];
  const mine = own(row, faces);
  for (const f of mine) {
    if (f.halfAngle !== undefined) out.push({ value: 2 * f.halfAngle, by: `cone of row ${row.number}` }, { value: f.halfAngle, by: `half of the cone of row ${row.number}` });
    if (f.surface === 'plane') for (const g of faces) if (g !== f && g.surface === 'plane') {
      const a = Math.acos(Math.max(-1, Math.min(1, dot(f.normal, g.normal))));
      if (a > 1e-6 && a < Math.PI - 1e-6) out.push({ value: a, by: `between two flats of row ${row.number}` }, { value: Math.PI - a, by: `between two flats of row ${row.number}` });
    }
  }
  const frame = row.planes?.start;
  const axes = axesOf(row, faces);
  if (frame && axes.length) {
    const at = axes.map((a) => toFrame(frame, a.origin));
    const c = { x: at.reduce((s, p) => s + p.x, 0) / at.length, y: at.reduce((s, p) => s + p.y, 0) / at.length };
    for (const p of at) {
      const a = Math.atan2(p.y - c.y, p.x - c.x);
      out.push({ value: a, by: `direction of an axis of row ${row.number}` }, { value: a + 2 * Math.PI, by: `direction of an axis of row ${row.number}` });
    }
  }
  return out;
}

/** How many equal copies of a row are really there. */
export function copies(row: SolvedRow, faces: FaceInfo[]): Measurement[] {
  const seen = new Set(own(row, faces).filter((f) => f.surface === 'cylinder' || f.tag!.role === 'wall').map((f) => f.tag!.instance));
  return seen.size ? [{ value: seen.size, by: `holes and walls of row ${row.number}, counted on the solid` }] : [];
}

interface Axis { origin: Vec3; direction: Vec3 }
function axesOf(row: SolvedRow, faces: FaceInfo[]): Axis[] {
  const byInstance = new Map<number, Axis>();
  for (const f of own(row, faces)) if (f.surface === 'cylinder' && f.hollow && f.sweep! > 2 * Math.PI - 0.01) byInstance.set(f.tag!.instance, f.axis!);
  return [...byInstance.values()];
}

/** Diameter of the circle through a row's axes; null when they stand on none. */
function boltCircle(row: SolvedRow, faces: FaceInfo[]): number | null {
  const frame = row.planes?.start;
  const axes = axesOf(row, faces);
  if (!frame || axes.length < 2) return null;
  const p = axes.map((a) => toFrame(frame, a.origin));
  if (p.length === 2) return Math.hypot(p[0].x - p[1].x, p[0].y - p[1].y);
  const [a, b, c] = [p[0], p[Math.floor(p.length / 3)], p[Math.floor((2 * p.length) / 3)]];
  const d = 2 * (a.x * (b.y - c.y) + b.x * (c.y - a.y) + c.x * (a.y - b.y));
  if (Math.abs(d) < 1e-9) return null;
  const sq = (q: Vec3) => q.x * q.x + q.y * q.y;
  const cx = (sq(a) * (b.y - c.y) + sq(b) * (c.y - a.y) + sq(c) * (a.y - b.y)) / d;
  const cy = (sq(a) * (c.x - b.x) + sq(b) * (a.x - c.x) + sq(c) * (b.x - a.x)) / d;
  const r = Math.hypot(a.x - cx, a.y - cy);
  return p.every((q) => Math.abs(Math.hypot(q.x - cx, q.y - cy) - r) < 1e-6) ? 2 * r : null;
}

const own = (row: SolvedRow, faces: FaceInfo[]): FaceInfo[] => faces.filter((f) => f.tag?.row === row.row.id);
