import { z } from 'zod';
import { marked, sequence, word } from '../../callout/grammar';
import { numberText } from '../../number';
import { ok } from '../../result';
import { depthClause, depthField, depthFields, depthOf, placesOf, planeOf } from '../common';
import type { RowKind } from '../kind';
import { outlineName, outlinesFor } from '../outlineSource';
import { countPrefix, pattern, patternClause, planeClause, planeRef, startClause } from '../places';

const schema = z.strictObject({ kind: z.literal('cutOutline'), count: numberText.optional(), outline: z.string().min(1).max(120), ...depthFields, turn: numberText.optional(), pattern, plane: planeRef });
export type CutOutline = z.infer<typeof schema>;

/** A pocket or window of any outline, islands and all: `CUT POCKET "cam" DEEP 5`. */
export const cutOutline: RowKind<CutOutline> = {
  kind: 'cutOutline', verb: 'cut', label: 'outline', schema, blank: () => ({ pattern: { kind: 'single' }, plane: { on: 'top' } }),
  example: { in: 'CUT POCKET "outline" DEEP .25', mm: 'CUT POCKET "outline" DEEP 6' },
  callout: { head: sequence(countPrefix, word('POCKET'), outlineName), clauses: [depthClause, marked('TURN', 'turn', 'Turn', 'angle', { angle: true }), patternClause, startClause, planeClause] },
  recipe(row, raw, outlines) {
    const o = outlinesFor(raw.outline, outlines, row.turn ?? 0);
    if (!o.ok) return o;
    const depth = depthOf(row);
    if (!depth.ok) return depth;
    const places = placesOf(row.pattern, row.count);
    const [outline, ...more] = o.value;
    return places.ok ? ok({ op: 'cut', plane: planeOf(row.plane), body: { body: 'prism', outline, ...(more.length ? { more } : {}), depth: depth.value }, places: places.value }) : places;
  },
  closedForm: () => null,
  fields: [{ field: 'outline', path: 'outline', label: 'Outline' }, depthField, { field: 'number', path: 'deep', label: 'Depth' }, { field: 'number', path: 'turn', label: 'Turn', optional: true }, { field: 'pattern' }, { field: 'plane' }],
};
