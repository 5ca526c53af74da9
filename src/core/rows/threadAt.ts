import { z } from "zod";
import type { RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { readThread } from "../tables";

/** A thread as typed; what a card sets round a text that it cannot read is no part of it. */
export const threadText = z
  .string()
  .max(40)
  .overwrite((text) => text.replace(/[`\p{Cc}]+/gu, " ").trim());

const CITED = /^#\d{1,4}(?![\d.*/+-])/;
const QUOTED = /^`([^`]*)`/;

/** A thread at the reading point, or the balloon that prints one (`#9`), or any text that is meant for one, in back quotes. */
export function threadAt(r: Reader): { designation: string; length: number } | null {
  r.skip();
  const text = r.text.slice(r.pos);
  const quoted = QUOTED.exec(text);
  if (quoted) return { designation: quoted[1], length: quoted[0].length };
  const cited = CITED.exec(text);
  if (cited) return r.named.has(cited[0]) ? { designation: cited[0], length: cited[0].length } : null;
  return readThread(text);
}

/**
 * A thread as a card writes it: in back quotes where it would be read as something else.
 * @param as what reading makes of it besides, such as the letter of its class
 */
export function writeThread(thread: string, names?: RowNames, as: (t: string) => string = (t) => t): string {
  const plain = CITED.test(thread) ? isCited(thread, names) : isRead(thread, as);
  return plain ? thread : "`" + thread + "`";
}
function isRead(thread: string, as: (t: string) => string): boolean {
  const read = readThread(thread);
  return read !== null && read.length === thread.length && as(read.designation) === thread;
}
const isCited = (thread: string, names?: RowNames): boolean =>
  CITED.exec(thread)![0].length === thread.length && names?.threads?.has(thread) !== false;
