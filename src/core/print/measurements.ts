import { boxInFrame, dot, length, scale, sub, toFrame, type Frame, type Vec3 } from '../geometry/vec';
import type { EdgeInfo, FaceInfo } from '../engine/kernel';
import type { SolvedRow } from '../engine/solve';

/** What kind of thing was measured; a number of a row is proved only by kinds that could mean it. */
export type Family = 'diameter' | 'boltCircle' | 'radius' | 'width' | 'depth' | 'position' | 'pitch' | 'overRound' | 'leg' | 'cone' | 'slope' | 'direction' | 'count';

/** Something measured on the solid itself, what it was measured on, and the rows whose faces it took. `along` is the direction of a distance. */
export interface Measurement { value: number; by: string; family: Family; along?: Vec3; rows: string[] }

const PARALLEL = 1 - 1e-9;
const parallel = (a: Vec3, b: Vec3) => Math.abs(dot(a, b)) > PARALLEL;
const own = (row: SolvedRow, faces: FaceInfo[]): FaceInfo[] => faces.filter((f) => f.tag?.row === row.row.id);

/** All that can be measured on the faces, edges and axes a row left on the solid. Lengths mm, angles radians. */
export function measurementsOf(row: SolvedRow, faces: FaceInfo[], edges: EdgeInfo[]): Measurement[] {
  const mine = own(row, faces);
  return [...round(row, mine, faces, edges), ...flats(row, mine, faces), ...axial(row, mine, faces), ...depths(row, mine, faces), ...angles(row, mine, faces), ...copies(row, mine), ...equalWalls(row, mine)];
}

/** Diameters and radii of a row's cylinders and round edges, and the circle its axes stand on. */
function round(row: SolvedRow, mine: FaceInfo[], faces: FaceInfo[], edges: EdgeInfo[]): Measurement[] {
  const out: Measurement[] = [], rows = [row.row.id];
  const put = (radius: number, what: string) => out.push({ value: 2 * radius, by: `${what} of row ${row.number}`, family: 'diameter', rows }, { value: radius, by: `${what} of row ${row.number}`, family: 'radius', rows });
  for (const f of mine) if (f.surface === 'cylinder') put(f.radius!, 'cylinder');
    else if (f.radius !== undefined) out.push({ value: f.radius, by: `${f.surface === 'torus' ? 'round' : 'ball'} of row ${row.number}`, family: 'radius', rows });
  for (const e of edges) if (e.curve === 'circle' && e.faces.some((i) => faces[i].tag?.row === row.row.id)) put(e.radius!, 'round edge');
  // A groove of round section turned about an axis stands where its middle is.
  if (row.row.body.kind === 'cutTurned') for (const f of mine) if (f.surface === 'torus') out.push({ value: Math.abs((f.box.min.z + f.box.max.z) / 2), by: `middle of the round groove of row ${row.number} from Z0`, family: 'position', along: { x: 0, y: 0, z: 1 }, rows });
  const bc = boltCircle(row, mine);
  if (bc !== null) out.push({ value: bc, by: `circle through the ${axesOf(mine).length} axes of row ${row.number}`, family: 'boltCircle', rows });
  return out;
}

/** Distances between parallel flats, of two walls' middle from zero, and chamfer legs. */
function flats(row: SolvedRow, mine: FaceInfo[], faces: FaceInfo[]): Measurement[] {
  const out: Measurement[] = [], id = row.row.id;
  for (const f of mine) {
    if (f.surface !== 'plane') continue;
    for (const g of faces) {
      if (g === f || g.surface !== 'plane' || !parallel(f.normal, g.normal)) continue;
      const d = Math.abs(dot(sub(g.point, f.point), f.normal));
      const same = g.tag?.row === id;
      if (d > 1e-9) out.push({ value: d, by: `between a flat of row ${row.number} and one of ${same ? 'the same row' : 'another row'}`, family: 'width', along: f.normal, rows: same || !g.tag ? [id] : [id, g.tag.row] });
      // The middle of two walls that face one another: where a pocket stands.
      if (!same || f.tag!.instance !== g.tag!.instance || dot(f.normal, g.normal) > -PARALLEL) continue;
      for (const k of ['x', 'y', 'z'] as const) if (Math.abs(f.normal[k]) > PARALLEL) out.push({ value: Math.abs((f.point[k] + g.point[k]) / 2), by: `middle of two walls of row ${row.number} from ${k.toUpperCase()}0`, family: 'position', along: f.normal, rows: [id] });
    }
    // A side from the job's zero: where a corner was put.
    for (const k of ['x', 'y', 'z'] as const) if (Math.abs(f.normal[k]) > PARALLEL) out.push({ value: Math.abs(f.point[k]), by: `flat of row ${row.number} from ${k.toUpperCase()}0`, family: 'position', along: f.normal, rows: [id] });
  }
  // From a flat to the far or near side of a round face along it: over a key, a flat on a shaft.
  for (const f of faces) for (const g of faces) {
    if (f.surface !== 'plane' || g.surface !== 'cylinder' || (f.tag?.row !== id && g.tag?.row !== id) || Math.abs(dot(f.normal, g.axis!.direction)) > 1e-9) continue;
    const d = Math.abs(dot(sub(g.axis!.origin, f.point), f.normal));
    const rows = [...new Set([id, ...(f.tag ? [f.tag.row] : []), ...(g.tag ? [g.tag.row] : [])])];
    // A round that runs into the flat has no far side of its own.
    if (Math.abs(d - g.radius!) < 1e-6) continue;
    for (const value of [d + g.radius!, Math.abs(d - g.radius!)]) out.push({ value, by: `from a flat over the round face of row ${row.number}`, family: 'overRound', along: f.normal, rows });
  }
  for (const f of mine) if (f.tag!.role === 'chamfer') for (const k of ['x', 'y', 'z'] as const) out.push({ value: f.box.max[k] - f.box.min[k], by: `leg of the chamfer of row ${row.number}`, family: 'leg', rows: [id] });
  return out;
}

/** Where axes stand: from the job's zero, from flats, from one another, and from the axes of other rows. */
function axial(row: SolvedRow, mine: FaceInfo[], faces: FaceInfo[]): Measurement[] {
  const out: Measurement[] = [], id = row.row.id;
  const axes = axesOf(mine).slice(0, 60);
  const unit = { x: { x: 1, y: 0, z: 0 }, y: { x: 0, y: 1, z: 0 }, z: { x: 0, y: 0, z: 1 } };
  const between = (a: Axis, b: Axis, words: string, rows: string[]) => {
    const d = sub(b.origin, a.origin);
    const across = sub(d, scale(a.direction, dot(d, a.direction)));
    if (length(across) < 1e-9) return;
    out.push({ value: length(across), by: words, family: 'pitch', rows });
    for (const k of ['x', 'y', 'z'] as const) if (Math.abs(across[k]) > 1e-9) out.push({ value: Math.abs(across[k]), by: `${words} along ${k.toUpperCase()}`, family: 'pitch', along: unit[k], rows });
  };
  for (const a of axes) {
    for (const k of ['x', 'y', 'z'] as const) if (Math.abs(a.direction[k]) < 1e-9) out.push({ value: Math.abs(a.origin[k]), by: `axis of row ${row.number} from ${k.toUpperCase()}0`, family: 'position', along: unit[k], rows: [id] });
    for (const g of faces) if (g.surface === 'plane' && Math.abs(dot(g.normal, a.direction)) < 1e-9)
      out.push({ value: Math.abs(dot(sub(g.point, a.origin), g.normal)), by: `axis of row ${row.number} to a flat`, family: 'position', along: g.normal, rows: g.tag ? [id, g.tag.row] : [id] });
  }
  for (let i = 0; i < axes.length; i++) for (let j = i + 1; j < axes.length; j++) between(axes[i], axes[j], `between two axes of row ${row.number}`, [id]);
  for (const f of faces) {
    if (f.tag?.row === id || !f.tag || f.surface !== 'cylinder' || f.sweep! < 2 * Math.PI - 0.01) continue;
    for (const a of axes) if (parallel(a.direction, f.axis!.direction)) between(a, f.axis!, `between an axis of row ${row.number} and one of another row`, [id, f.tag.row]);
  }
  return out;
}

/** Depths below a row's own plane, and between flats that lie along it; the length of a round thing along its axis. */
function depths(row: SolvedRow, mine: FaceInfo[], faces: FaceInfo[]): Measurement[] {
  const frame = row.planes?.start ?? row.planes?.top;
  if (!frame) return [];
  const out: Measurement[] = [], id = row.row.id;
  const level = faces.filter((f) => f.surface === 'plane' && parallel(f.normal, frame.normal));
  for (const f of mine) {
    const box = boxInFrame(frame, f.box);
    if (f.tag!.role === 'wall' || f.tag!.role === 'cone') {
      out.push({ value: -box.min.z, by: `depth of a wall of row ${row.number}`, family: 'depth', along: frame.normal, rows: [id] });
      if (f.surface !== 'plane') out.push({ value: box.max.z - box.min.z, by: `length of a round wall of row ${row.number}`, family: 'depth', along: frame.normal, rows: [id] });
    }
    if (!level.includes(f)) continue;
    for (const g of level) {
      const d = Math.abs(dot(sub(g.point, f.point), frame.normal));
      if (d > 1e-9) out.push({ value: d, by: `between a floor of row ${row.number} and a flat along it`, family: 'depth', along: frame.normal, rows: g.tag && g.tag.row !== id ? [id, g.tag.row] : [id] });
    }
  }
  return out;
}

/** Angles of a row: of its cones, between its flats and others, and of its axes about the middle of their circle. */
function angles(row: SolvedRow, mine: FaceInfo[], faces: FaceInfo[]): Measurement[] {
  const out: Measurement[] = [], id = row.row.id;
  for (const f of mine) {
    if (f.halfAngle !== undefined) out.push({ value: 2 * f.halfAngle, by: `cone of row ${row.number}`, family: 'cone', rows: [id] }, { value: f.halfAngle, by: `half of the cone of row ${row.number}`, family: 'slope', rows: [id] });
    if (f.surface === 'plane') for (const g of faces) if (g !== f && g.surface === 'plane') {
      const a = Math.acos(Math.min(1, Math.max(-1, dot(f.normal, g.normal))));
      if (a > 1e-9) for (const value of [a, Math.PI - a]) out.push({ value, by: `between a flat of row ${row.number} and another`, family: 'slope', rows: g.tag && g.tag.row !== id ? [id, g.tag.row] : [id] });
    }
  }
  const frame = row.planes?.start;
  const axes = axesOf(mine);
  if (frame && axes.length) {
    const at = axes.map((a) => toFrame(frame, a.origin));
    const c = { x: at.reduce((s, p) => s + p.x, 0) / at.length, y: at.reduce((s, p) => s + p.y, 0) / at.length };
    const angle = at.map((p) => Math.atan2(p.y - c.y, p.x - c.x));
    for (const a of angle) for (const turn of [0, 2 * Math.PI]) out.push({ value: a + turn, by: `direction of an axis of row ${row.number}`, family: 'direction', rows: [id] });
    // The angle between neighbours on a circle.
    if (angle.length > 1 && angle.length <= 360) {
      const sorted = [...angle].sort((a, b) => a - b);
      for (let i = 0; i < sorted.length; i++) out.push({ value: (sorted[(i + 1) % sorted.length] - sorted[i] + 2 * Math.PI) % (2 * Math.PI), by: `between two axes of row ${row.number}, about the middle`, family: 'direction', rows: [id] });
    }
  }
  return out;
}

/** How many equal copies of a row are really there. */
function copies(row: SolvedRow, mine: FaceInfo[]): Measurement[] {
  const seen = new Set(mine.filter((f) => f.surface === 'cylinder' || f.tag!.role === 'wall').map((f) => f.tag!.instance));
  return seen.size ? [{ value: seen.size, by: `holes and walls of row ${row.number}, counted on the solid`, family: 'count', rows: [row.row.id] }] : [];
}
/** How many equal walls a row's outline left: the flanks of its teeth, its rounds, its holes. Equal are those of one kind, radius and area. */
function equalWalls(row: SolvedRow, mine: FaceInfo[]): Measurement[] {
  if (!('outline' in row.row.body)) return [];
  const groups = new Map<string, number>();
  for (const f of mine) if (f.tag!.role === 'wall' || f.tag!.role === 'side') {
    const key = `${f.surface} ${f.radius?.toFixed(5) ?? ''} ${f.area.toPrecision(7)}`;
    groups.set(key, (groups.get(key) ?? 0) + 1);
  }
  return [...groups.values()].map((value) => ({ value, by: `${value} equal walls of row ${row.number}, counted on the solid`, family: 'count' as const, rows: [row.row.id] }));
}
export const countCopies = (row: SolvedRow, faces: FaceInfo[]): number => copies(row, own(row, faces))[0]?.value ?? 0;

interface Axis { origin: Vec3; direction: Vec3 }
function axesOf(mine: FaceInfo[]): Axis[] {
  const byInstance = new Map<number, Axis>();
  for (const f of mine) if (f.surface === 'cylinder' && f.sweep! > 2 * Math.PI - 0.01) byInstance.set(f.tag!.instance, f.axis!);
  return [...byInstance.values()];
}

/** Diameter of the circle through a row's axes; null when they stand on none. */
function boltCircle(row: SolvedRow, mine: FaceInfo[]): number | null {
  const frame: Frame | null | undefined = row.planes?.start;
  const axes = axesOf(mine);
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
