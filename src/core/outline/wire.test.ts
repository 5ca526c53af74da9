import { readCard } from '../callout';
import { numberScope } from '../engine/numbers';
import { loopArea, perimeter } from './outline';
import { solveWire } from './wire';

const wire = (...lines: string[]) => {
  const { job, errors } = readCard(['UNIT mm', 'OUTLINE "o"', ...lines, 'END'].join('\n'));
  if (errors.length) throw new Error(`${errors[0].line}: ${errors[0].message}; ${errors[0].expected}`);
  return solveWire(job.outlines[0].items, numberScope(job));
};

describe('walks', () => {
  it('a rectangle, only what changes typed', () => {
    const w = wire('START 0,0', 'LINE TO X 40', 'LINE TO Y 30', 'LINE TO X 0', 'CLOSE');
    expect([w.freedom, w.closed, w.solved, w.inked]).toEqual([0, true, true, [true, true, true, true]]);
    expect(loopArea(w.segments)).toBeCloseTo(1200, 9);
  });
  it('lengths, angles, increments', () => {
    const w = wire('START 10,10', 'LINE L 50 A 30', 'LINE BY -20,15', 'LINE BY Y 5', 'CLOSE');
    expect(w.points[1].at).toEqual({ x: expect.closeTo(10 + 50 * Math.cos(Math.PI / 6), 9), y: expect.closeTo(35, 9) });
    expect(w.freedom).toBe(0);
  });
  it('arcs by radius, centre, sweep, tangent', () => {
    const slot = wire('START 0,0', 'LINE TO X 40', 'ARC TO 40,20 R 10', 'LINE TO X 0', 'ARC R 10 CLOSE');
    expect(slot.freedom).toBe(0);
    expect(loopArea(slot.segments)).toBeCloseTo(800 + Math.PI * 100, 6);
    const t = wire('START 0,0', 'LINE TO X 40', 'ARC TANGENT SWEEP 90 R 10', 'LINE TANGENT L 20', 'LINE TO X 0', 'CLOSE');
    expect(t.freedom).toBe(0);
    expect(t.points.find((p) => p.name === 'P2')!.at).toEqual({ x: expect.closeTo(50, 8), y: expect.closeTo(10, 8) });
    expect(t.points.find((p) => p.name === 'P3')!.at).toEqual({ x: expect.closeTo(50, 8), y: expect.closeTo(30, 8) });
    const c = wire('START 10,0', 'ARC CENTRE 0,0 TO 0,10 CCW', 'ARC CENTRE 0,0 SWEEP 270 CCW CLOSE');
    expect(perimeter(c.segments)).toBeCloseTo(20 * Math.PI, 6);
    const cw = wire('START 0,0', 'ARC TO 20,0 R 10 CW', 'CLOSE');
    expect(loopArea(cw.segments)).toBeCloseTo(-Math.PI * 50, 6);
    expect(loopArea(wire('START 0,0', 'ARC TO 20,0 R 15 CCW LONG', 'CLOSE').segments)).toBeCloseTo(Math.PI * 225 - 225 * Math.asin(10 / 15) + 10 * Math.sqrt(125), 5);
  });
  it('finds what is left open from the rest', () => {
    // The line at 60 degrees runs until the next one, at 150, comes home level.
    const w = wire('START 0,0', 'LINE TO X 50', 'LINE A 120', 'LINE A 180 TO Y 20', 'LINE TO 0,0');
    expect(w.free).toEqual(['the end of step 3 (P3) is free along X']);
    const u = wire('START 0,0', 'LINE TO X 50', 'LINE A 120', 'LINE A 180 TO 10,20', 'CLOSE');
    expect(u.freedom).toBe(0);
    expect(u.points[2].at).toEqual({ x: expect.closeTo(50 - 20 / Math.tan(Math.PI / 3), 9), y: expect.closeTo(20, 9) });
    const full = wire('START 0,0', 'LINE TO Y 40', 'ARC TANGENT CW', 'LINE TANGENT TO 30,0', 'CLOSE', 'VERTICAL 3');
    expect(full.freedom).toBe(0);
    expect(full.points.find((p) => p.name === 'P2')!.at).toEqual({ x: expect.closeTo(30, 7), y: expect.closeTo(40, 7) });
  });
  it('relations and dimensions locate points', () => {
    const w = wire('START 0,0', 'LINE TO ?,?  NEAR 40,3', 'LINE TO ?,? NEAR 42,25', 'LINE TO ?,? NEAR 3,28', 'CLOSE', 'HORIZONTAL 1', 'PERPENDICULAR 1 2', 'PARALLEL 1 3', 'PERPENDICULAR 3 4', 'LENGTH 1 45', 'DISTANCE 1 3 25');
    expect(w.freedom).toBe(0);
    expect(loopArea(w.segments)).toBeCloseTo(1125, 6);
  });
  it('says what is free, in words, and draws it in pencil', () => {
    const w = wire('START 0,0', 'LINE TO X ?', 'LINE TO Y 20', 'LINE TO X 0', 'CLOSE');
    expect(w.freedom).toBe(1);
    expect(w.free).toEqual(['the end of step 1 (P1) is free along X', 'the end of step 2 (P2) is free along X']);
    expect(w.inked).toEqual([false, false, false, true]);
  });
  it('names the conflict and what to drop', () => {
    const w = wire('START 0,0', 'LINE TO X 40', 'LINE TO Y 30', 'LINE TO X 0', 'CLOSE', 'LENGTH 1 45');
    expect(w.conflict!.drop).toContain(5);
    expect(w.conflict!.items).toContain(5);
    const t = wire('START 0,0', 'LINE L 30 A 0', 'LINE L 10 A 90', 'LINE L 50 CLOSE');
    expect(t.conflict!.drop).toEqual([1, 2, 3]);
  });
  it('knows a dimension that says again what is said', () => {
    expect(wire('START 0,0', 'LINE TO X 40', 'LINE TO Y 30', 'LINE TO X 0', 'CLOSE', 'LENGTH 1 40').redundant).toEqual([5]);
  });
});
