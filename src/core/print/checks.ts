import { INCH, type NumberScope } from '../number';
import type { CheckValue, Job } from '../job/schema';
import { valueOf } from '../engine/numbers';
import { decimalsOf } from './tolerance';

/** A check value of the print against the model: g, mm³, mm², mm. */
export interface CheckResult { kind: CheckValue['kind']; of?: string; expected: number | null; actual: number | null; agrees: boolean; tolerance: number | null; problem?: string }

export interface PartFigures { volume: number; mass: number | null; size: { x: number; y: number; z: number }; faceArea: Record<string, number> }

const grams = { g: 1, kg: 1000, lb: 453.59237, oz: 28.349523125 };

/** A printed figure agrees when the model's rounds to it, and never when they are more than this share apart. */
const MOST = 0.005;

/**
 * Compares every check value with the model.
 * Without a tolerance of its own a figure agrees within half of its last printed digit, within half a per cent, and a size within 0.05 mm.
 */
export function compareChecks(job: Job, part: PartFigures | null, scope: NumberScope): CheckResult[] {
  const unit = job.unit === 'in' ? INCH : 1;
  return job.checks.map((c): CheckResult => {
    const factor = c.kind === 'mass' ? grams[c.unit] : c.kind === 'volume' ? unit ** 3 : c.kind === 'area' ? unit ** 2 : unit;
    const of = 'of' in c ? { of: c.of } : {};
    const v = valueOf(c.value, 'plain', scope);
    const actual = !part ? null : c.kind === 'mass' ? part.mass : c.kind === 'volume' ? part.volume : c.kind === 'area' ? part.faceArea[c.of] : part.size[c.of];
    if (!v.ok) return { kind: c.kind, ...of, expected: null, actual, agrees: false, tolerance: null, problem: v.problems[0].message };
    const expected = v.value.typed * factor;
    const own = c.tolerance === undefined ? null : valueOf(c.tolerance, 'plain', scope);
    const digits = decimalsOf(c.value);
    const rounding = digits === null ? Infinity : 0.5 * 10 ** -digits * factor;
    const tolerance = own?.ok ? own.value.typed * factor : Math.min(rounding, MOST * Math.abs(expected), c.kind === 'size' ? 0.05 : Infinity);
    const problem = actual === null && part ? { problem: 'the density of the material is not known' } : {};
    return { kind: c.kind, ...of, expected, actual, tolerance, agrees: actual !== null && Math.abs(actual - expected) <= tolerance + 1e-9 * Math.abs(expected), ...problem };
  });
}
