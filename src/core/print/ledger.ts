import type { EdgeInfo, FaceInfo } from '../engine/kernel';
import type { SolvedRow } from '../engine/solve';
import type { Balloon, Job } from '../job/schema';
import type { NumberScope } from '../number';
import { valueOf } from '../engine/numbers';
import { drilledHole } from '../rows/cutTapped';
import { findThread } from '../tables';
import { angles, copies, depths, diameters, distances, radii, type Measurement } from './measurements';
import { balloonLimits } from './tolerance';

export type BalloonState = 'unused' | 'drives' | 'proved' | 'off' | 'stale';

/** A balloon against the model. Lengths mm, angles radians. */
export interface LedgerEntry {
  number: number;
  state: BalloonState;
  nominal: number | null;
  low: number | null;
  high: number | null;
  /** What was measured on the solid, and on what. */
  measured: number | null;
  by: string;
  /** Rows with a number made from it. */
  rows: number[];
  problem?: string;
}

/**
 * State of every balloon. "Proved" rests on the solid alone: cylinders, flats, axes and edges that the rows citing the balloon made,
 * never on the number that was typed.
 */
export function ledger(job: Job, rows: SolvedRow[], faces: FaceInfo[], edges: EdgeInfo[], scope: NumberScope): LedgerEntry[] {
  const citing = citations(job, rows, scope);
  return job.balloons.map((b): LedgerEntry => {
    const limits = balloonLimits(b, job, scope);
    const cited = citing.get(b.number) ?? [];
    const base = { number: b.number, rows: cited.map((r) => r.number), measured: null, by: '' };
    if (!limits.ok) return { ...base, nominal: null, low: null, high: null, state: cited.length ? 'drives' : 'unused', problem: limits.problems[0].message };
    const { nominal, low, high } = limits.value;
    const own = { ...base, nominal: b.kind === 'thread' ? null : nominal, low: b.kind === 'thread' ? null : low, high: b.kind === 'thread' ? null : high };
    // A thread is cosmetic: the solid holds its drilled hole and nothing to measure the thread's depth on.
    const alive = cited.filter((r) => r.state === 'ok' && !onlyThreadDepth(r, b));
    if (cited.length && !alive.length && cited.some((r) => r.state === 'ok')) return { ...own, state: 'drives', by: 'a cosmetic thread has no depth to measure' };
    if (b.kind === 'thread') return threadEntry(b, own, alive, faces, scope);
    if (!cited.length && !b.reference) return { ...own, state: 'unused' };
    const looked = b.reference && !cited.length ? rows.filter((r) => r.state === 'ok') : alive;
    const found = looked.flatMap((r) => measurementsFor(b, r, faces, edges));
    if (!found.length) return { ...own, state: cited.length ? 'drives' : 'unused' };
    const slack = 1e-6 + 1e-9 * Math.abs(nominal);
    const best = found.reduce((x, y) => (Math.abs(y.value - nominal) < Math.abs(x.value - nominal) ? y : x));
    const agrees = best.value >= low - slack && best.value <= high + slack;
    if (!agrees && b.reference) return { ...own, state: 'unused' };
    // A counted dimension (6X ⌀.25) is right only when as many are there.
    const count = b.count === undefined || b.kind === 'count' ? null : valueOf(b.count, 'count', scope);
    const many = count?.ok ? looked.flatMap((r) => copies(r, faces)).reduce((s, m) => s + m.value, 0) : null;
    if (agrees && count?.ok && many !== null && many > 0 && looked.some((r) => 'pattern' in r.row.body) && many !== count.value.value)
      return { ...own, state: 'off', measured: best.value, by: `${many} on the solid, ${count.value.value} on the print` };
    return { ...own, state: agrees ? 'proved' : 'off', measured: best.value, by: best.by };
  });
}

/** Whether a tapped row uses a balloon for the depth of its thread and for nothing else. */
function onlyThreadDepth(r: SolvedRow, b: Balloon): boolean {
  if (r.row.body.kind !== 'cutTapped' || b.kind === 'thread') return false;
  const paths = r.numbers.filter((n) => n.value?.cites.includes(b.number)).map((n) => n.path);
  return paths.length > 0 && paths.every((p) => p === 'deep');
}

function measurementsFor(b: Balloon, r: SolvedRow, faces: FaceInfo[], edges: EdgeInfo[]): Measurement[] {
  switch (b.kind) {
    case 'diameter': return diameters(r, faces, edges);
    case 'radius': return radii(r, faces, edges);
    case 'angle': return angles(r, faces);
    case 'count': return copies(r, faces);
    case 'thread': return [];
    case 'depth': return depths(r, faces);
    case 'linear': case 'chamfer': return [...distances(r, faces), ...(b.kind === 'linear' ? [...diameters(r, faces, edges), ...radii(r, faces, edges)] : [])];
  }
}

/** A thread is proved when its drilled cylinders stand in the solid, as many as the print counts. */
function threadEntry(b: Balloon, own: Omit<LedgerEntry, 'state'>, rows: SolvedRow[], faces: FaceInfo[], scope: NumberScope): LedgerEntry {
  if (!rows.length) return { ...own, state: own.rows.length ? 'drives' : 'unused' };
  let standing = 0;
  for (const r of rows) {
    const hole = drilledHole(r.resolved as never);
    if (hole.ok) standing += new Set(faces.filter((f) => f.tag?.row === r.row.id && f.surface === 'cylinder' && Math.abs(2 * f.radius! - hole.value.diameter) < 1e-6).map((f) => f.tag!.instance)).size;
  }
  const count = b.count === undefined ? null : valueOf(b.count, 'count', scope);
  const wanted = count?.ok ? count.value.value : 1;
  return { ...own, state: b.count === undefined ? (standing > 0 ? 'proved' : 'drives') : standing === wanted ? 'proved' : 'off', measured: standing, by: `${standing} drilled for ${b.thread} on the solid` };
}

/** Rows whose numbers are made from a balloon, directly or through another balloon; threads by their designation. */
function citations(job: Job, rows: SolvedRow[], scope: NumberScope): Map<number, SolvedRow[]> {
  const direct = new Map<number, Set<SolvedRow>>();
  const put = (n: number, r: SolvedRow) => direct.set(n, (direct.get(n) ?? new Set()).add(r));
  for (const r of rows) {
    if (r.state === 'off') continue;
    for (const n of r.numbers) for (const cited of n.value?.cites ?? []) put(cited, r);
    if (r.row.body.kind === 'cutTapped') {
      const mine = findThread(r.row.body.thread);
      for (const b of job.balloons) {
        const theirs = b.kind === 'thread' && b.thread ? findThread(b.thread) : null;
        if (mine && theirs && mine.system === theirs.system && Math.abs(mine.major - theirs.major) < 1e-9 && Math.abs(mine.pitch - theirs.pitch) < 1e-9) put(b.number, r);
      }
    }
  }
  // A balloon made from another passes on what it drives.
  for (let changed = true; changed; ) {
    changed = false;
    for (const b of job.balloons) {
      const v = valueOf(b.kind === 'count' ? b.count : b.value, 'plain', scope);
      if (!v.ok) continue;
      for (const n of v.value.cites) for (const r of direct.get(b.number) ?? []) if (!direct.get(n)?.has(r)) {
        put(n, r);
        changed = true;
      }
    }
  }
  return new Map([...direct].map(([n, s]) => [n, [...s].sort((a, b) => a.number - b.number)]));
}
