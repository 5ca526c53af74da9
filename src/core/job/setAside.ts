import type { JobDocument } from "./schema";

/** What tells the records of a list apart. */
const KEYS = ["id", "number", "op", "name"] as const;
type Item = Record<string, unknown>;
const isItem = (v: unknown): v is Item => typeof v === "object" && v !== null && !Array.isArray(v);
const keyOfItem = (item: unknown): string | null => {
  if (!isItem(item)) return null;
  const key = KEYS.find((k) => item[k] !== undefined);
  return key ? `${key} ${String(item[key])}` : null;
};

/**
 * The job as it is here, less what was refused: each record at fault is as the server has it, or is left out where
 * the server has none.
 * @param server the job as the server has it
 * @param places where in the job here something was refused
 * @returns null where that cannot be told apart from the rest
 */
export function withoutRefused(
  server: JobDocument,
  here: JobDocument,
  places: readonly (readonly PropertyKey[])[],
): JobDocument | null {
  if (!places.length || places.some((p) => p.length === 0)) return null;
  let job: unknown = here;
  // From the last to the first: what is left out moves only what comes after it.
  const sorted = [...places].sort((a, b) => comparePlaces(b, a));
  for (const place of sorted) job = without(job, server, place);
  return job as JobDocument;
}

function comparePlaces(a: readonly PropertyKey[], b: readonly PropertyKey[]): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    if (a[i] === b[i]) continue;
    return typeof a[i] === "number" && typeof b[i] === "number" ? Number(a[i]) - Number(b[i]) : 0;
  }
  return a.length - b.length;
}

/** A value with the record at a place put back to what it was; the innermost record that has a key of its own. */
function without(value: unknown, was: unknown, place: readonly PropertyKey[]): unknown {
  const [step, ...rest] = place;
  if (Array.isArray(value)) {
    const at = Number(step);
    const key = keyOfItem(value[at]);
    const before = Array.isArray(was) ? was.find((w) => key !== null && keyOfItem(w) === key) : undefined;
    if (hasKeyBelow(value[at], rest)) return value.map((v: unknown, i) => (i === at ? without(v, before, rest) : v));
    return value.flatMap((v: unknown, i) => (i !== at ? [v] : before === undefined ? [] : [before]));
  }
  if (!isItem(value)) return was;
  const own = isItem(was) ? was[String(step)] : undefined;
  if (rest.length && value[String(step)] !== undefined && typeof value[String(step)] === "object")
    return { ...value, [String(step)]: without(value[String(step)], own, rest) };
  const { [String(step)]: _refused, ...others } = value;
  return own === undefined ? others : { ...others, [String(step)]: own };
}

/** Whether a further record with a key of its own lies on the way. */
function hasKeyBelow(value: unknown, place: readonly PropertyKey[]): boolean {
  let at = value;
  for (const step of place) {
    if (Array.isArray(at) && keyOfItem(at[Number(step)]) !== null) return true;
    at = (at as Item | undefined)?.[String(step)];
  }
  return false;
}
