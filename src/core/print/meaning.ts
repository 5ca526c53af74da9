import type { Vec3 } from '../geometry/vec';
import type { SolvedRow } from '../engine/solve';
import type { Balloon } from '../job/schema';
import type { Family, Measurement } from './measurements';

const all: Family[] = ['diameter', 'overRound', 'boltCircle', 'radius', 'width', 'depth', 'position', 'pitch', 'leg', 'cone', 'slope', 'direction', 'count'];

/** What a number of a row can mean on the solid, by its place in the row: a pocket's length is a width along x, never a depth. */
function familiesOf(path: string, body: { kind: string }, kind: Balloon['kind']): { families: Family[]; axis?: 'x' | 'y' | 'normal' } {
  const last = path.split('.').at(-1)!;
  switch (path) {
    // A plain number of an outline is a width or a place; its rounds and holes are measured by balloons that say R or ⌀.
    case 'outline': return { families: ['width', 'position', 'pitch', 'overRound', 'leg', 'slope', 'cone', 'direction', ...(kind === 'diameter' ? ['diameter' as const, 'boltCircle' as const] : kind === 'radius' ? ['radius' as const] : kind === 'count' ? ['count' as const] : [])] };
    case 'pattern.diameter': return { families: ['boltCircle', 'pitch'] };
    case 'pattern.from': case 'pattern.turn': case 'turn': return { families: ['direction', 'slope'] };
    case 'pattern.dx': return { families: ['pitch', 'width', 'position'], axis: 'x' };
    case 'pattern.dy': return { families: ['pitch', 'width', 'position'], axis: 'y' };
    case 'pattern.by': return { families: ['pitch', 'width', 'position'] };
    case 'csk.angle': case 'point': return { families: ['cone', 'slope'] };
    case 'angle': return { families: ['slope', 'cone'] };
    case 'radius': return { families: ['radius', 'diameter'] };
    case 'shape.length': case 'length': return { families: ['width', 'position'], axis: 'x' };
    case 'shape.width': return { families: ['width', 'position'], axis: 'y' };
    case 'width': return body.kind === 'leaveBlock' ? { families: ['width', 'position'], axis: 'y' } : body.kind === 'cutBoreGroove' ? { families: ['depth', 'width'], axis: 'normal' } : { families: ['width', 'position', 'overRound'] };
    case 'size': return body.kind === 'cutRound' ? { families: ['radius', 'diameter'] } : body.kind === 'leavePolygon' ? { families: ['width'] } : { families: ['leg', 'width', 'depth'] };
    case 'shape.size': return { families: ['width'] };
    case 'plane.start': case 'at.z': return { families: ['depth', 'width', 'position'], axis: 'normal' };
  }
  if (last === 'x' || last === 'y') return { families: ['position', 'pitch', 'width'], axis: last };
  if (last === 'diameter' || last === 'outer' || last === 'inner') return { families: ['diameter', 'radius', 'width'] };
  if (last === 'deep' || last === 'height') return { families: ['depth', 'width'], axis: 'normal' };
  if (['count', 'sides', 'nx', 'ny', 'n'].includes(last)) return { families: ['count'] };
  return { families: all };
}

/** Kinds of measurement that can prove a kind of balloon at all. */
const ofKind: Record<Balloon['kind'], Family[]> = {
  linear: ['width', 'depth', 'overRound', 'position', 'pitch', 'leg', 'diameter', 'radius', 'boltCircle'], diameter: ['diameter', 'boltCircle'], radius: ['radius'], angle: ['cone', 'slope', 'direction'],
  depth: ['depth'], count: ['count'], thread: [], chamfer: ['leg', 'width', 'depth'],
};

/**
 * The measurements of a row that could prove a balloon: those its kind and the numbers that cite it allow,
 * in the direction the number runs. A balloon nothing cites (a reference dimension) is looked for among all of its kind.
 */
export function fitting(b: Pick<Balloon, 'kind' | 'number'>, row: SolvedRow, measured: Measurement[]): Measurement[] {
  const kind = ofKind[b.kind];
  const cited = [...row.numbers, ...row.outlineNumbers.map((n) => ({ ...n, path: 'outline' }))].filter((n) => n.value?.cites.includes(b.number));
  const frame = row.planes?.start ?? row.planes?.top ?? null;
  const turned = 'turn' in row.row.body && row.row.body.turn !== undefined;
  const meanings = cited.map((n) => familiesOf(n.path, row.row.body, b.kind));
  return measured.filter((m) => {
    if (!kind.includes(m.family)) return false;
    if (!meanings.length) return true;
    return meanings.some(({ families, axis }) => {
      if (!families.includes(m.family)) return false;
      if (!axis || !m.along || !frame || (turned && axis !== 'normal')) return true;
      const d: Vec3 = axis === 'normal' ? frame.normal : frame[axis];
      return Math.abs(d.x * m.along.x + d.y * m.along.y + d.z * m.along.z) > 1 - 1e-9;
    });
  });
}
