import { z } from 'zod';
import { number, required, sequence, word, type Clause } from '../../callout/grammar';
import { numberText } from '../../number';
import { fail, ok } from '../../result';
import { edgeList, edgesPart } from '../edges';
import type { RowKind } from '../kind';

const schema = z.strictObject({ kind: z.literal('cutChamfer'), size: numberText, angle: numberText.optional(), edges: edgeList });
export type CutChamfer = z.infer<typeof schema>;

const angle = sequence(word('X'), number('angle', 'Angle', 'includedAngle', { angle: true }));
const angleClause: Clause = { ...angle, write: (row, names) => (row.angle === undefined ? '' : angle.write(row, names)), numbers: (row) => (row.angle === undefined ? [] : angle.numbers(row)) };

export const cutChamfer: RowKind<CutChamfer> = {
  kind: 'cutChamfer', verb: 'cut', label: 'chamfer', schema, blank: () => ({}),
  example: { in: 'CUT CHAMFER .03 OUTER TOP', mm: 'CUT CHAMFER 1 OUTER TOP' },
  callout: { head: sequence(word('CHAMFER'), number('size', 'Chamfer', 'length')), clauses: [angleClause, required(edgesPart)] },
  recipe: (row) => (row.angle !== undefined && row.angle >= Math.PI / 2 - 1e-9 ? fail('a chamfer leans less than 90 degrees', { path: 'angle', expected: 'an angle such as 45' })
    : ok({ op: 'edges', treatment: 'chamfer', size: row.size, angle: row.angle ?? Math.PI / 4, edges: row.edges as never })),
  closedForm: () => null,
  fields: [{ field: 'number', path: 'size', label: 'Chamfer' }, { field: 'number', path: 'angle', label: 'Angle', optional: true }, { field: 'edges' }],
};
