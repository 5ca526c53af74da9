import type { RowNames } from "../grammar/grammar";
import type { Row } from "./schema";

/** Whether an id stands for a row that is gone: what a number came to that no row had. */
export const isGone = (id: string): boolean => id.startsWith("gone-");

/** The number a row had, by the ids that cards and lists give: `r7`, `q1r7` of another part, `gone-7`. */
const NUMBERED = /^(?:gone-|(?:q\d+)?r)(\d+)$/;

/**
 * How the rows of a list are named in text: by their place, 1, 2, 3. An id that is gone keeps its number where no other
 * row has that, and is written as 0 where one has.
 */
export function rowNames(rows: readonly Pick<Row, "id">[]): RowNames {
  const numbers = new Map(rows.map((r, i) => [r.id, i + 1]));
  const gone = (id: string): number => {
    const number = Number(NUMBERED.exec(id)?.[1] ?? 0);
    return number > rows.length ? number : 0;
  };
  return {
    idOf: (n) => rows[n - 1]?.id ?? `gone-${n}`,
    numberOf: (id) => numbers.get(id) ?? gone(id),
  };
}
