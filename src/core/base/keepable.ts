import { z } from "zod";

/**
 * Text that can be kept: no NUL, and no half of a character that takes two (a lone surrogate). No database of text
 * takes either (PostgreSQL refuses U+0000 in `text` and `jsonb`, and lone surrogates are no Unicode text at all).
 * @source The Unicode Standard, D80 (surrogates); PostgreSQL manual, 8.14 (`\u0000` in jsonb)
 */
const UNKEEPABLE = /\u0000|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
const EVERY_UNKEEPABLE = new RegExp(UNKEEPABLE.source, "g");

/** What stands in place of a character that cannot be kept: Unicode's own mark for it. */
const MARK = "\ufffd";

/** Where text that cannot be kept stands in some data, and which character it is (`U+0000`). */
export interface Unkeepable {
  path: PropertyKey[];
  character: string;
  /** Where in the text, 0-based. */
  at: number;
}

/** The first character of a text that cannot be kept, or null. */
export function unkeepableIn(text: string): Pick<Unkeepable, "character" | "at"> | null {
  const found = UNKEEPABLE.exec(text);
  if (!found) return null;
  const code = found[0].charCodeAt(0).toString(16).toUpperCase().padStart(4, "0");
  return { character: `U+${code}`, at: found.index };
}

/** The first text in any data, keys too, that cannot be kept; null where all of it can. */
export function unkeepable(data: unknown, path: PropertyKey[] = []): Unkeepable | null {
  if (typeof data === "string") {
    const found = unkeepableIn(data);
    return found && { ...found, path };
  }
  if (typeof data !== "object" || data === null) return null;
  for (const [key, value] of Object.entries(data)) {
    const here = [...path, Array.isArray(data) ? Number(key) : key];
    const inKey = unkeepableIn(key);
    const found = inKey ? { ...inKey, path } : unkeepable(value, here);
    if (found) return found;
  }
  return null;
}

/** The same data with a mark in place of every character that cannot be kept; the very same where there is none. */
export function keepable<T>(data: T): T {
  if (unkeepable(data) === null) return data;
  if (typeof data === "string") return data.replace(EVERY_UNKEEPABLE, MARK) as T;
  if (Array.isArray(data)) return data.map((v: unknown) => keepable(v)) as T;
  const entries = Object.entries(data as object).map(([k, v]) => [keepable(k), keepable(v as unknown)] as const);
  return Object.fromEntries(entries) as T;
}

/** What is said of a character that cannot be kept. */
export const unkeepableWords = (found: Pick<Unkeepable, "character">): string =>
  `there is a character here that cannot be kept (${found.character}): leave it out`;

/** Refuses data with text in it that cannot be kept, at its place: the one schema every door uses for that. */
export const allKeepable = <S extends z.ZodType>(schema: S): S =>
  schema.superRefine((data, context) => {
    const found = unkeepable(data);
    if (found) context.addIssue({ code: "custom", path: found.path, message: unkeepableWords(found) });
  });
