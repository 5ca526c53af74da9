import type { Job, Row } from '../job/schema';
import type { NumberScope } from '../number';
import { kindOf, type Recipe } from '../rows';
import type { Problem } from '../result';
import { deriveSources, numberScope, reportNumbers, resolveBody, type NumberReport } from './numbers';

/** A row after stages 1 to 3: its numbers, and its recipe or the reason there is none. */
export interface PreparedRow {
  row: Row;
  number: number;
  numbers: NumberReport[];
  resolved: unknown;
  recipe: Recipe | null;
  problem: Problem | null;
}

export interface Prepared { job: Job; scope: NumberScope; rows: PreparedRow[] }

const memo = new WeakMap<object, { scopeKey: string; numbers: NumberReport[]; resolved: unknown; recipe: Recipe | null; problem: Problem | null }>();

/** Stages 1 to 3 (numbers, outlines, recipes): plain and quick, run on every keystroke. A row that did not change is not done again. */
export function prepare(job: Job): Prepared {
  const scope = numberScope(job);
  const scopeKey = `${job.unit}|${JSON.stringify(job.balloons.map((b) => [b.number, b.value, b.count, b.kind, b.reference, b.thread, b.middle ? [b.tolerance, b.basic, b.leg, job.title] : b.tolerance.kind === 'limits' ? b.tolerance : 0]))}|${JSON.stringify(job.names.map((n) => [n.name, n.value]))}`;
  const rows = job.rows.map((row, i): PreparedRow => {
    let m = memo.get(row.body);
    if (!m || m.scopeKey !== scopeKey) {
      const numbers = deriveSources(row.body, reportNumbers(row.body, scope), job, scope);
      const resolved = resolveBody(row.body, numbers);
      const recipe = resolved.ok ? kindOf(row.body).recipe(resolved.value, row.body as never) : resolved;
      m = { scopeKey, numbers, resolved: resolved.ok ? resolved.value : null, recipe: recipe.ok ? recipe.value : null, problem: recipe.ok ? null : recipe.problems[0] };
      memo.set(row.body, m);
    }
    return { row, number: i + 1, numbers: m.numbers, resolved: m.resolved, recipe: m.recipe, problem: m.problem };
  });
  return { job, scope, rows };
}
