import type { RowNames } from "../grammar/grammar";
import type { Row } from "./schema";

/** Whether an id stands for a row that is gone: what a number came to that no row had. */
export const isGone = (id: string): boolean => id.startsWith("gone-");

/** How the rows of a list are named in text: by their place, 1, 2, 3. An id that is gone is written as 0. */
export function rowNames(rows: readonly Pick<Row, "id">[]): RowNames {
  const numbers = new Map(rows.map((r, i) => [r.id, i + 1]));
  return {
    idOf: (n) => rows[n - 1]?.id ?? `gone-${n}`,
    numberOf: (id) => numbers.get(id) ?? /^gone-(\d+)$/.exec(id)?.[1] ?? 0,
  };
}
