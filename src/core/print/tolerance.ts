import type { Balloon, Job } from '../job/schema';
import { toInside, type NumberScope } from '../number';
import { valueOf } from '../engine/numbers';
import { ok, type Result } from '../result';

export interface Limits { nominal: number; low: number; high: number }

/** Number of decimals a number is printed with; null for a fraction or an expression. */
export const decimalsOf = (text: string): number | null => {
  const m = /^-?\d*(?:\.(\d*))?!?$/.exec(text.trim());
  return m ? (m[1]?.length ?? 0) : null;
};

/**
 * Nominal and limits of a balloon, mm, radians or plain.
 * Without its own tolerance: the job's default for as many decimals, else half of the last printed digit.
 */
export function balloonLimits(b: Balloon, job: Pick<Job, 'unit' | 'title'>, scope: NumberScope): Result<Limits> {
  const quantity = b.kind === 'angle' ? 'angle' : b.kind === 'count' ? 'count' : 'coordinate';
  const text = b.kind === 'count' ? b.count : b.value;
  if (b.kind === 'thread') return ok({ nominal: 0, low: 0, high: 0 });
  const v = valueOf(text, quantity, scope);
  if (!v.ok) return v;
  const nominal = v.value.value;
  if (b.kind === 'count') return ok({ nominal, low: nominal, high: nominal });
  const t = b.tolerance;
  if (t.kind === 'byDecimals') {
    const decimals = decimalsOf(text!);
    const stated = decimals === null ? null : job.title.tolerances?.[decimals];
    const tol = stated ? valueOf(stated, quantity, scope) : null;
    const half = tol?.ok ? tol.value.value : toInside(0.5 * 10 ** -(decimals ?? 3), quantity, job.unit);
    return ok({ nominal, low: nominal - half, high: nominal + half });
  }
  const plus = valueOf(t.kind === 'plusMinus' ? t.value : t.plus, quantity, scope);
  const minus = valueOf(t.kind === 'plusMinus' ? t.value : t.minus, quantity, scope);
  if (!plus.ok) return plus;
  if (!minus.ok) return minus;
  return ok({ nominal, low: nominal - Math.abs(minus.value.value), high: nominal + plus.value.value });
}
