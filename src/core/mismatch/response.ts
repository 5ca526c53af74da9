import type { JobEdit } from "../job/edits";
import type { CheckResult } from "../print/checks";
import type { Target } from "./targets";
import { COINCIDENT } from "../geometry/tolerance";

/**
 * How every check value answers to one number, from one look close by (two for an angle). Null where nothing can be
 * computed or nothing changes.
 */
export async function response(
  t: Target,
  trial: (e: JobEdit[]) => Promise<number[] | null>,
  now: CheckResult[],
): Promise<((check: number, value: number) => number) | null> {
  const h = Math.abs(t.value) * 0.004;
  const at = async (v: number) => trial(t.set(v.toFixed(9)));
  const [more, by] = await (async () => {
    const up = await at(t.value + h);
    return up ? ([up, h] as const) : ([await at(t.value - h), -h] as const);
  })();
  if (!more) return null;
  // A number no check value depends on needs no second look.
  if (more.every((c, i) => Math.abs(c - (now[i].actual ?? 0)) < COINCIDENT * Math.abs(now[i].actual ?? 1))) return null;
  const form = t.form === "square" ? (v: number) => v * v : (v: number) => v;
  const less = t.form === "bent" ? await at(t.value - by) : null;
  return (check, value) => {
    const f0 = now[check].actual ?? NaN,
      f1 = more[check];
    if (!less) return f0 + ((f1 - f0) * (form(value) - form(t.value))) / (form(t.value + by) - form(t.value));
    const f2 = less[check],
      d = value - t.value;
    return f0 + ((f1 - f2) / (2 * by)) * d + (((f1 - 2 * f0 + f2) / (by * by)) * d * d) / 2;
  };
}
