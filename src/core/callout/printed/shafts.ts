import { findThread } from "../../tables";
import type { Words } from "./words";

/** Whether a line is of an outside thread by its class alone, `M30X1.5-6g`: no hole is meant. */
export const isOutsideThread = (typed: string): boolean =>
  !/^\s*THREAD\b/i.test(typed) &&
  /\bM\d[\d.]*(?: ?[Xx×] ?\d[\d.]*)? ?- ?(?:\d[efgh]){1,2}\b|\bUN[A-Z]*[ -]+\dA\b/.test(typed);

export const isOutside = (designation: string): boolean => findThread(designation)?.external === true;

/**
 * What is done to the outside of a round, on the one there is where none is named: `THREAD M30X1.5-6g X 25`,
 * `3/4-16 UNF-2A 1.00 LG`, `GROOVE .125 WIDE TO ⌀.75 START .5`.
 */
export function shaftText(w: Words, shaft: string | null): string | null {
  return w.sees("GROOVE") || w.sees("SHAFT", "GROOVE") ? grooveText(w, shaft) : threadText(w, shaft);
}

const on = (shaft: string | null, words: string): string | null => (shaft === null ? null : `${words} ${shaft}`);

function threadText(w: Words, shaft: string | null): string | null {
  w.takeOne(["THREAD", "THREADED", "THD"]);
  w.take("OUTSIDE");
  const thread = w.thread();
  if (thread === null || !findThread(thread) || !isOutside(thread)) return null;
  let length: string | null = null;
  let start = "";
  while (!w.done) {
    if (w.take("X") || w.take(",") || w.take("THREAD") || w.take("TYP") || w.take("FOR")) continue;
    if (w.take("START")) {
      const below = w.number();
      if (below === null || start) return null;
      start = ` START ${below}`;
      continue;
    }
    w.take("LEN");
    const size = w.size();
    if (!size || length !== null || (size.tag !== null && size.tag !== "long" && size.tag !== "deep")) return null;
    length = size.text;
  }
  return length === null ? null : on(shaft, `CUT THREAD ${thread} LEN ${length}${start} ON SHAFT OF`);
}

function grooveText(w: Words, shaft: string | null): string | null {
  w.take("SHAFT");
  w.take("GROOVE");
  let width: string | null = null;
  let diameter: string | null = null;
  let start: string | null = null;
  while (!w.done) {
    if (w.take("X") || w.take(",") || w.take("TO") || w.take("TYP") || w.take("SHAFT")) continue;
    if (w.take("START") || w.take("FROM", "END")) {
      start ??= w.number();
      if (start === null) return null;
      continue;
    }
    const size = w.size();
    if (size?.tag === "wide" && width === null) width = size.text;
    else if (size?.tag === "⌀" && diameter === null) diameter = size.text;
    else if (size && width !== null && diameter !== null && start === null && w.take("FROM", "END")) start = size.text;
    else return null;
  }
  if (width === null || diameter === null || start === null) return null;
  return on(shaft, `CUT GROOVE SHAFT ⌀${diameter} WIDE ${width} START ${start} OF`);
}
