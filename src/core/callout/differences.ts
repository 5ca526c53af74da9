import type { Job } from "../job/schema";
import { writeCard } from "./card";

/** Lines of the card that only one of two jobs has, in the order they stand there. */
export interface CardDifferences {
  onlyFirst: string[];
  onlySecond: string[];
}

/**
 * What two states of a job do not have in common, as lines of their cards: what is typed is shown as it is read on a
 * print.
 */
export function cardDifferences(first: Job, second: Job): CardDifferences {
  const a = lines(first);
  const b = lines(second);
  return { onlyFirst: without(a, b), onlySecond: without(b, a) };
}

const lines = (job: Job): string[] =>
  writeCard(job)
    .split("\n")
    .filter((l) => l.trim());

/** Lines that the others do not have as often. */
function without(from: string[], others: string[]): string[] {
  const left = new Map<string, number>();
  for (const l of others) left.set(l, (left.get(l) ?? 0) + 1);
  return from.filter((l) => {
    const n = left.get(l) ?? 0;
    left.set(l, n - 1);
    return n <= 0;
  });
}
