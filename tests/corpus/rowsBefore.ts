import { readRowLine, type RowNames } from "@/core/callout";
import type { Row } from "@/core/job/schema";

export const names: RowNames = { idOf: (n) => `r${n}`, numberOf: (id) => id.slice(1) };

/** What stands before a line of the corpus, by the number the line itself would have. */
const before: Record<string, string[]> = {
  "1:": [],
  "2:": ["LEAVE ROUND ⌀30 X 60"],
  "4:": ["LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 30 X 20 R5 DEEP 8", 'CUT POCKET "o" DEEP 4'],
  "3:": ["LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 30 X 20 R5 DEEP 8"],
};

/** A line of the corpus without its number, and the rows before it; undefined where it says none. */
export function withRowsBefore(line: string): { typed: string; earlier: Row[] | undefined } {
  const at = line.slice(0, 2);
  if (!(at in before)) return { typed: line, earlier: undefined };
  const earlier = before[at].map((text, i) => {
    const read = readRowLine(text, names, `r${i + 1}`);
    if (!read.ok) throw new Error(read.error.message);
    return read.row;
  });
  return { typed: line.slice(2), earlier };
}
