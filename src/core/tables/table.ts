/** A table is data with its source in the header; code never holds a magic limit. */
interface Table<T> {
  source: string;
  checked: string;
  rows: readonly T[];
}
export const table = <T>(t: Table<T>): Table<T> => t;

/** A line of a sheet: its name, and a figure for each column; null where the table gives none. */
export type SheetRow<K extends string> = { name: string } & Record<K, number | null>;

/**
 * A table written as it stands in a book: a line for each row, the name first, then a figure for each column; `-` where
 * there is none. Figures may be decimals, fractions (`17/32`) or mixed numbers (`1-3/16`).
 * @param unit what one of its figures is, mm
 * @throws where a line has another number of figures than columns: a slip of whoever typed it
 */
export function sheet<K extends string>(columns: readonly K[], unit: number, text: string): SheetRow<K>[] {
  return text
    .trim()
    .split("\n")
    .map((line) => {
      const [name, ...figures] = line.trim().split(/\s+/);
      if (figures.length !== columns.length) throw new Error(`${columns.join(" ")}: ${line.trim()}`);
      const values = columns.map((c, i) => [c, figures[i] === "-" ? null : figureIn(figures[i]) * unit] as const);
      return { name, ...Object.fromEntries(values) } as SheetRow<K>;
    });
}

/** A figure as tables print it: `.375`, `17/32`, `1-3/16`; NaN for anything else. */
export function figureIn(text: string): number {
  const mixed = /^(?:(\d+)[- ])?(\d+)\/(\d+)$/.exec(text);
  if (mixed) return Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3]);
  return /^-?(?:\d+\.?\d*|\.\d+)$/.test(text) ? Number(text) : NaN;
}
