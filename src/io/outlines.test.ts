import { readCard } from '@/core/callout';
import { numberScope } from '@/core/engine/numbers';
import { evaluateOutlines } from '@/core/outline/evaluateOutline';
import { outlineDxf, readDxfOutlines } from './dxfOutlines';
import { outlineSvg } from './svg';

const evaluated = (unit: 'mm' | 'in', ...lines: string[]) => { const { job, errors } = readCard([`UNIT ${unit}`, 'OUTLINE "plate"', ...lines, 'END'].join('\n')); if (errors.length) throw new Error(errors[0].message); return [...evaluateOutlines(job.outlines, numberScope(job)).values()]; };
const shape = ['START 0,0', 'LINE TO X 4.5', 'ARC TO 4.5,2 R 1 CCW', 'LINE TO 1.7,2.3', 'ARC TO 0,1.1 R 1.3 CW', 'CLOSE', 'CIRCLE ⌀.5 AT 3,1'];

describe('outlines as files', () => {
  it.each(['mm', 'in'] as const)('go out as DXF and come back to 1e-6 mm (%s)', (unit) => {
    const out = evaluated(unit, ...shape), read = readDxfOutlines(outlineDxf(out, unit), unit);
    expect(read.problems).toEqual([]);
    expect(read.outlines.map((o) => o.name)).toEqual(['plate 1', 'plate 2']);
    const { job } = readCard(`UNIT ${unit}`);
    const back = [...evaluateOutlines(read.outlines.map((o, i) => ({ id: `o${i}`, name: o.name, items: o.items })), numberScope(job)).values()];
    expect(back.map((b) => [b.problems, b.wire?.conflict ?? null, b.open.length])).toEqual([[[], null, 0], [[], null, 0]]);
    expect(back[0].area - back[1].area).toBeCloseTo(out[0].area, 6);
    expect(back[0].perimeter + back[1].perimeter).toBeCloseTo(out[0].perimeter, 6);
    expect(back[0].region[0].filter((s) => s.kind === 'arc')).toHaveLength(2);
  });
  it('read closed polylines with bulges, units of their own, and list gaps and what is left out', () => {
    const dxf = (header: string[], ...e: (string | number)[][]) => ['0', 'SECTION', '2', 'HEADER', ...header, '0', 'ENDSEC', '0', 'SECTION', '2', 'ENTITIES', ...e.flat().map(String), '0', 'ENDSEC', '0', 'EOF'].join('\n');
    const slot = [0, 'LWPOLYLINE', 8, 'SLOT', 90, 4, 70, 1, 10, 0, 20, 0, 10, 2, 20, 0, 42, 1, 10, 2, 20, 1, 10, 0, 20, 1, 42, 1];
    const r = readDxfOutlines(dxf(['9', '$INSUNITS', '70', '1'], slot, [0, 'LINE', 8, 'EDGE', 10, 0, 20, 5, 11, 1, 21, 5], [0, 'LINE', 8, 'EDGE', 10, 2, 20, 5, 11, 1, 21, 5], [0, '3DFACE', 8, 'X', 10, 0, 20, 0, 11, 1, 21, 0, 12, 1, 22, 1, 13, 0, 23, 1]), 'mm');
    const { job } = readCard('UNIT mm');
    const e = [...evaluateOutlines([{ id: 'o', ...r.outlines.find((o) => o.name === 'slot')! }], numberScope(job)).values()][0];
    expect(e.area).toBeCloseTo((2 + Math.PI / 4) * 645.16, 5);
    expect(r.problems.some((p) => /EDGE: a chain is open from 0.000, 127.000/.test(p))).toBe(true);
    expect(r.problems.some((p) => /3DFACE left out/.test(p))).toBe(true);
    expect(readDxfOutlines('no dxf', 'mm')).toMatchObject({ outlines: [], problems: [expect.any(String)] });
  });
  it('go out as SVG with arcs as arcs', () => {
    const svg = outlineSvg(evaluated('mm', 'SLOT 40 X 10', 'CIRCLE ⌀4')[0]);
    expect(svg.match(/A5 5 0 0 0/g)!.length + (svg.match(/A5 5 0 1 0/g)?.length ?? 0)).toBe(2);
    expect(svg.match(/A2 2/g)).toHaveLength(2);
    expect(svg).toContain('M-15 5L15 5A');
  });
});
