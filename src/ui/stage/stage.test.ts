import { numberScope } from '@/core/engine/numbers';
import { sideFrame, v3 } from '@/core/geometry/vec';
import { circle } from '@/core/outline';
import { emptyJob, type Print } from '@/core/job';
import { toNumberText } from '@/core/number';
import { boxEdges, boxFaces, chainDotted, drillMark, loopLines, stockBottom, stockEdges } from './outlines';
import { printCorners } from './printPlace';

const scope = numberScope(emptyJob('x', 'mm', ''));
const n = toNumberText;
const part = { min: v3(-50, -30, 0), max: v3(50, 30, 20) };
const print = (change: Partial<NonNullable<Print['calibration']>> = {}): Print => ({
  id: 'p', name: 'sheet', attachment: '0'.repeat(64), mediaType: 'image/png',
  calibration: { view: 'top', a: { x: 0.25, y: 0.3 }, b: { x: 0.75, y: 0.3 }, distance: n('100'), direction: 'x', place: { x: n('-50'), y: n('0') }, ...change },
});

describe('a print laid over a view', () => {
  it('comes to scale, point a to its place', () => {
    // Half of the width is 100 mm: the picture is 200 wide, 120 high at an aspect of .6.
    const [a, b, c, d] = printCorners(print(), 0.6, part, scope)!;
    expect([a.x, a.y]).toEqual([expect.closeTo(-100, 9), expect.closeTo(-60, 9)]);
    expect([b.x, b.y]).toEqual([expect.closeTo(100, 9), expect.closeTo(-60, 9)]);
    expect([c.x, c.y]).toEqual([expect.closeTo(100, 9), expect.closeTo(60, 9)]);
    expect([d.x, d.y]).toEqual([expect.closeTo(-100, 9), expect.closeTo(60, 9)]);
    expect(a.z).toBeGreaterThan(20);
  });

  it('is straightened when it was photographed askew', () => {
    const corners = printCorners(print({ b: { x: 0.75, y: 0.25 } }), 0.6, part, scope)!;
    const [a, b] = corners;
    const tilt = Math.atan2(b.y - a.y, b.x - a.x);
    expect(tilt).toBeCloseTo(-Math.atan2(0.05, 0.5), 9);
  });

  it('stands in front of any side', () => {
    const [a] = printCorners(print({ view: 'front', place: { x: n('-50'), y: n('10') } }), 0.6, part, scope)!;
    expect(a.y).toBeLessThan(-30);
    expect(a.z).toBeCloseTo(10 - 60, 9);
  });

  it('is not laid where a number is missing or the points are one', () => {
    expect(printCorners({ ...print(), calibration: undefined }, 1, part, scope)).toBeNull();
    expect(printCorners(print({ distance: n('?') }), 1, part, scope)).toBeNull();
    expect(printCorners(print({ b: { x: 0.25, y: 0.3 } }), 1, part, scope)).toBeNull();
  });
});

describe('lines drawn on the stage', () => {
  it('a box has twelve edges and twelve triangles', () => {
    expect(boxEdges(part)).toHaveLength(12);
    expect(boxFaces(part)).toHaveLength(12 * 9);
  });

  it('a chain-dotted line goes from end to end with gaps', () => {
    const p = chainDotted([[v3(0, 0, 0), v3(100, 0, 0)]], 2);
    expect(p[0]).toBe(0);
    const drawn = Array.from({ length: p.length / 6 }, (_, i) => p[6 * i + 3] - p[6 * i]).reduce((a, b) => a + b, 0);
    expect(drawn).toBeGreaterThan(50);
    expect(drawn).toBeLessThan(80);
    expect(chainDotted([[v3(1, 1, 1), v3(1, 1, 1)]], 2)).toEqual([]);
  });

  it('a round stock has its radius everywhere', () => {
    const stock = { shape: 'round' as const, diameter: 80, volume: 0, box: { min: v3(-40, -40, 0), max: v3(40, 40, 30) } };
    for (const [a] of stockEdges(stock)) expect(Math.hypot(a.x, a.y)).toBeCloseTo(40, 9);
    expect(stockBottom(stock)).toHaveLength(72 * 9);
    expect(stockBottom({ ...stock, shape: 'plate' })).toHaveLength(18);
  });

  it('loops and drill points lie at their depth', () => {
    const top = sideFrame('top', 20);
    const l = loopLines(top, circle(5), 8);
    for (let i = 2; i < l.length; i += 3) expect(l[i]).toBeCloseTo(12, 9);
    expect(l.slice(0, 3)).toEqual([l[l.length - 3], l[l.length - 2], l[l.length - 1]]);
    const m = drillMark(top, { x: 3, y: 4 }, 10, 2);
    expect(m).toHaveLength(18);
    expect(m[17]).toBe(10);
  });
});
