import type { Patches } from "mutative";

type Path = (string | number)[];
const isObject = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null;

/**
 * What turns one document into another, as patches. Parts that are the same object are not looked into, so an edit of
 * a large job costs what it changed; both documents are as edits leave them, sharing what stayed.
 */
export function delta(before: unknown, after: unknown): Patches {
  const patches: { op: "add" | "remove" | "replace"; path: Path; value?: unknown }[] = [];
  const visit = (a: unknown, b: unknown, path: Path): void => {
    if (Object.is(a, b)) return;
    if (Array.isArray(a) && Array.isArray(b)) return lists(a, b, path);
    if (!isObject(a) || !isObject(b) || Array.isArray(a) || Array.isArray(b)) {
      patches.push({ op: "replace", path, value: b });
      return;
    }
    for (const key of Object.keys(a)) if (b[key] === undefined) patches.push({ op: "remove", path: [...path, key] });
    for (const [key, value] of Object.entries(b)) {
      if (value === undefined) continue;
      if (a[key] === undefined) patches.push({ op: "add", path: [...path, key], value });
      else visit(a[key], value, [...path, key]);
    }
  };
  /** What stands the same at both ends stays; between them things are replaced, taken out or put in. */
  const lists = (a: unknown[], b: unknown[], path: Path): void => {
    let start = 0;
    while (start < a.length && start < b.length && Object.is(a[start], b[start])) start++;
    let end = 0;
    while (end < a.length - start && end < b.length - start && Object.is(a[a.length - 1 - end], b[b.length - 1 - end]))
      end++;
    const [gone, come] = [a.length - end - start, b.length - end - start];
    const both = Math.min(gone, come);
    for (let i = 0; i < both; i++) visit(a[start + i], b[start + i], [...path, start + i]);
    for (let i = gone - 1; i >= both; i--) patches.push({ op: "remove", path: [...path, start + i] });
    for (let i = both; i < come; i++) patches.push({ op: "add", path: [...path, start + i], value: b[start + i] });
  };
  visit(before, after, []);
  return patches as Patches;
}
