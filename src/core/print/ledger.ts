import { keyOf } from '../key';
import type { EdgeInfo, FaceInfo } from '../engine/kernel';
import type { SolvedRow } from '../engine/solve';
import type { Balloon, Job } from '../job/schema';
import type { NumberScope } from '../number';
import { valueOf } from '../engine/numbers';
import { drilledHole } from '../rows/cutTapped';
import { citations } from './citations';
import { findFeature, measureFeatures } from './features';
import { fitting } from './meaning';
import { countCopies, measurementsOf, type Measurement } from './measurements';
import { balloonLimits } from './tolerance';

export type BalloonState = 'unused' | 'drives' | 'proved' | 'off' | 'stale';

/** A balloon against the model. Lengths mm, angles radians. */
export interface LedgerEntry {
  number: number;
  state: BalloonState;
  nominal: number | null;
  low: number | null;
  high: number | null;
  /** Where the limits come from, in words. */
  tolerance: string;
  /** What was measured on the solid, and on what. */
  measured: number | null;
  by: string;
  /** Rows with a number made from it. */
  rows: number[];
  /** Key of all that the proof rests on; a record made on another basis is stale. */
  basis: string;
  problem?: string;
}

type Draft = Omit<LedgerEntry, 'basis'> & { on: string[] };

/**
 * State of every balloon. "Proved" rests on the solid alone: cylinders, flats, axes and edges that the rows citing the balloon made,
 * never on the number that was typed. A proof that was recorded and whose ground has changed since is stale.
 */
export function ledger(job: Job, rows: SolvedRow[], faces: FaceInfo[], edges: EdgeInfo[], scope: NumberScope): LedgerEntry[] {
  const citing = citations(job, rows, scope);
  const known = new Map<string, Measurement[]>();
  const measured = (r: SolvedRow) => {
    let m = known.get(r.row.id);
    if (!m) known.set(r.row.id, (m = measurementsOf(r, faces, edges)));
    return m;
  };
  return job.balloons.map((b) => {
    const draft = entry(b, job, rows, citing.get(b.number) ?? [], faces, measured, scope);
    const grounds = rows.filter((r) => draft.on.includes(r.row.id) || draft.rows.includes(r.number)).map((r) => [r.row.id, r.resolved, r.planes?.start ?? null, r.outlineNumbers.map((n) => n.value?.value ?? null)]);
    const basis = keyOf(null, [b.kind, draft.nominal, draft.low, draft.high, b.measure ?? null, grounds]);
    const record = job.proofs.find((p) => p.number === b.number);
    const { on: _, ...plain } = draft;
    const stale = record !== undefined && record.basis !== basis && draft.state === 'proved';
    return { ...plain, basis, ...(stale ? { state: 'stale' as const } : {}) };
  });
}

function entry(b: Balloon, job: Job, rows: SolvedRow[], cited: SolvedRow[], faces: FaceInfo[], measured: (r: SolvedRow) => Measurement[], scope: NumberScope): Draft {
  const limits = balloonLimits(b, job, scope);
  const base = { number: b.number, rows: cited.map((r) => r.number), measured: null, by: '', on: [] };
  if (!limits.ok) return { ...base, nominal: null, low: null, high: null, tolerance: '', state: cited.length ? 'drives' : 'unused', problem: limits.problems[0].message };
  const thread = b.kind === 'thread';
  const { nominal, low, high } = limits.value;
  const own = { ...base, nominal: thread ? null : nominal, low: thread ? null : low, high: thread ? null : high, tolerance: limits.value.by };
  if (b.measure) return byPick(b, own, { nominal, low, high }, faces);
  // A thread is cosmetic: the solid holds its drilled hole and nothing to measure the thread's depth on.
  const alive = cited.filter((r) => r.state === 'ok' && !onlyThreadDepth(r, b));
  if (cited.length && !alive.length && cited.some((r) => r.state === 'ok')) return { ...own, state: 'drives', by: 'a cosmetic thread has no depth to measure' };
  if (thread) return threadEntry(b, own, alive, faces, scope);
  if (!cited.length && !b.reference) return { ...own, state: 'unused' };
  const looked = b.reference && !cited.length ? rows.filter((r) => r.state === 'ok') : alive;
  const found = looked.flatMap((r) => fitting(b, r, measured(r)));
  if (!found.length) return { ...own, state: cited.length ? 'drives' : 'unused', ...(alive.length ? { by: 'nothing on the solid to measure it on; pick it on the stage' } : {}) };
  const best = nearest(found, nominal);
  const agrees = inside(best.value, nominal, low, high);
  if (!agrees && b.reference) return { ...own, state: 'unused' };
  // A counted dimension (6X ⌀.25) is right only when as many are there.
  const count = b.count === undefined || b.kind === 'count' ? null : valueOf(b.count, 'count', scope);
  const many = count?.ok ? howMany(b.kind, best.value, looked, faces) : null;
  if (agrees && count?.ok && many !== null && many !== count.value.value)
    return { ...own, state: 'off', measured: best.value, by: `${many} on the solid, ${count.value.value} on the print`, on: best.rows };
  // A fit such as f7 leaves the nominal outside its own limits.
  const atNominal = !agrees && (nominal < low || nominal > high) && Math.abs(best.value - nominal) < 1e-6;
  return { ...own, state: agrees ? 'proved' : 'off', measured: best.value, by: atNominal ? `${best.by}, at the nominal: outside its limits; MID models their middle` : best.by, on: best.rows };
}

/** How many of a counted dimension stand on the solid: equal copies of a row, or equal rounds and holes of its outline. Null where they cannot be told. */
function howMany(kind: Balloon['kind'], value: number, rows: SolvedRow[], faces: FaceInfo[]): number | null {
  const drawn = rows.filter((r) => 'outline' in r.row.body);
  if (drawn.length) {
    if (kind !== 'radius' && kind !== 'diameter') return null;
    const radius = kind === 'radius' ? value : value / 2;
    return faces.filter((f) => f.surface === 'cylinder' && drawn.some((r) => r.row.id === f.tag?.row) && Math.abs(f.radius! - radius) < 1e-6).length || null;
  }
  return rows.some((r) => 'pattern' in r.row.body) ? rows.reduce((s, r) => s + countCopies(r, faces), 0) || null : null;
}

/** Inside the limits, with the slack of the solid's own arithmetic. */
const inside = (value: number, nominal: number, low: number, high: number): boolean => {
  const slack = 1e-6 + 1e-9 * Math.abs(nominal);
  return value >= low - slack && value <= high + slack;
};
const nearest = <T extends { value: number }>(list: T[], nominal: number): T => list.reduce((x, y) => (Math.abs(y.value - nominal) < Math.abs(x.value - nominal) ? y : x));

/** A dimension measured where it was picked, and nowhere else. */
function byPick(b: Balloon, own: Omit<Draft, 'state'>, l: { nominal: number; low: number; high: number }, faces: FaceInfo[]): Draft {
  const a = findFeature(b.measure!.a, faces), second = b.measure!.b ? findFeature(b.measure!.b, faces) : null;
  const on = [b.measure!.a.row, ...(b.measure!.b ? [b.measure!.b.row] : [])];
  const state = own.rows.length ? 'drives' as const : 'unused' as const;
  if (!a || (b.measure!.b && !second)) return { ...own, on, state, by: 'the picked face is gone; pick it again' };
  const m = measureFeatures(b.kind, a, second);
  if (!m.ok) return { ...own, on, state, by: m.problems[0].message };
  const best = nearest(m.value, l.nominal);
  return { ...own, on, state: inside(best.value, l.nominal, l.low, l.high) ? 'proved' : 'off', measured: best.value, by: best.by };
}

/** Whether a tapped row uses a balloon for the depth of its thread and for nothing else. */
function onlyThreadDepth(r: SolvedRow, b: Balloon): boolean {
  if (r.row.body.kind !== 'cutTapped' || b.kind === 'thread') return false;
  const paths = r.numbers.filter((n) => n.value?.cites.includes(b.number)).map((n) => n.path);
  return paths.length > 0 && paths.every((p) => p === 'deep');
}

/** A thread is proved when its drilled cylinders stand in the solid, as many as the print counts. */
function threadEntry(b: Balloon, own: Omit<Draft, 'state'>, rows: SolvedRow[], faces: FaceInfo[], scope: NumberScope): Draft {
  if (!rows.length) return { ...own, state: own.rows.length ? 'drives' : 'unused' };
  let standing = 0;
  for (const r of rows) {
    const hole = drilledHole(r.resolved as never);
    if (hole.ok) standing += new Set(faces.filter((f) => f.tag?.row === r.row.id && f.surface === 'cylinder' && Math.abs(2 * f.radius! - hole.value.diameter) < 1e-6).map((f) => f.tag!.instance)).size;
  }
  const count = b.count === undefined ? null : valueOf(b.count, 'count', scope);
  const wanted = count?.ok ? count.value.value : 1;
  return { ...own, state: b.count === undefined ? (standing > 0 ? 'proved' : 'drives') : standing === wanted ? 'proved' : 'off', measured: standing, by: `${standing} drilled for ${b.thread} on the solid`, on: rows.map((r) => r.row.id) };
}
