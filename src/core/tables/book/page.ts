import { sheet } from "../table";

/** What a table says of one size. Lengths in mm, angles in degrees. */
export interface TableEntry {
  what: string;
  standard: string;
  /** Where its figures come from: a formula, memory, or what else; and how sure they are. */
  source: string;
  values: Record<string, number>;
  angles?: Record<string, number>;
  /** What is no figure: the name of a drill, of a series, a remark. */
  words?: Record<string, string>;
}

/** A table as it is kept open: what it is, what it says of each size, and how a size of it is called. */
export interface TablePage {
  id: string;
  title: string;
  standard: string;
  source: string;
  /** A size to start from. */
  example: string;
  /** What it goes by before a size: `ISO 4762`, `SHCS`; the first is what its entries are called. */
  names?: readonly string[];
  entries(): readonly TableEntry[];
  /** Another source its figures agree with, independent of the first, and how many of an entry's that looks at. */
  second?: { source: string; figures(entry: TableEntry): number };
  /** The entry a query calls by its whole name; null where it calls none of this table. */
  find(query: string): TableEntry | null;
}

/** Where figures come from, as it is said on the screen. */
export const FROM_MEMORY = "from memory";
export const BY_FORMULA = "by formula";
export const UNSURE = "from memory, not sure of every figure: look it up before it is relied on";
export const PRACTICE = "common practice, no source";

/** A size as it is compared: capitals, without blanks, one sign for times. */
export const plainSize = (text: string): string =>
  text
    .toUpperCase()
    .replace(/[×*]/g, "X")
    .replace(/⌀|Ø|^DIA\.?/g, "")
    .replace(/\s+/g, "");

/**
 * What stands behind one of the names a table goes by, or before it: `ISO 4762 M6` and `M6 SHCS` are M6. Null where none
 * of them stands there.
 */
export function sizeBehind(query: string, names: readonly string[]): string | null {
  const plain = query.trim().replace(/\s+/g, " ");
  for (const name of names) {
    const spaced = name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&").replace(/ /g, "[ -]?");
    const m = new RegExp(`^${spaced}(?![A-Z])\\s*(.+)$`, "i").exec(plain);
    // `M6 SHCS`: the size before its name.
    const before = m ? null : new RegExp(`^(\\S+)\\s+${spaced}$`, "i").exec(plain);
    if (m ?? before) return (m ?? before)![1];
  }
  return null;
}

interface SheetPage<K extends string> extends Omit<TablePage, "entries" | "find"> {
  /** What the table is called before a size: `ISO 4762`, `SHCS`. */
  names: readonly string[];
  columns: readonly K[];
  /** What one of its figures is, mm. */
  unit: number;
  text: string;
  /** More that follows from a row. */
  more?(row: Record<K, number | null> & { name: string }): Partial<TableEntry>;
  /** How a row is called, where that is not by its name alone. */
  calls?(name: string): string[];
  /** Rows nobody is sure of, by their names. */
  unsure?: readonly string[];
}

/** A page whose rows stand in it as in a book. */
export function sheetPage<K extends string>(page: SheetPage<K>): TablePage {
  const { columns, unit, text, more, calls, unsure, ...head } = page;
  const { names } = page;
  const rows = sheet(columns, unit, text);
  const entries = rows.map((row): TableEntry => {
    const own = more?.(row) ?? {};
    const values = Object.fromEntries(
      columns.flatMap((c) => (row[c] === null ? [] : [[c as string, clean(row[c] as number)]])),
    );
    return {
      what: `${names[0]} ${row.name}`,
      standard: page.standard,
      source: unsure?.includes(row.name) ? UNSURE : page.source,
      ...own,
      values: { ...values, ...own.values },
    };
  });
  const called = rows.map((row) => [row.name, ...(calls?.(row.name) ?? [])].map(plainSize));
  return {
    ...head,
    entries: () => entries,
    find(query) {
      const size = sizeBehind(query, names);
      const at = size === null ? -1 : called.findIndex((list) => list.includes(plainSize(size)));
      return at < 0 ? null : entries[at];
    },
  };
}

/** What is made when it is first asked for, and kept. */
export function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** A figure without what binary fractions leave over. */
export const clean = (mm: number): number => Number(mm.toFixed(6));
/** Figures without what binary fractions leave over; those that are none are left out. */
export const cleaned = (values: Record<string, number | null | undefined>): Record<string, number> =>
  Object.fromEntries(
    Object.entries(values).flatMap(([k, v]) => (v === null || v === undefined ? [] : [[k, clean(v)]])),
  );
