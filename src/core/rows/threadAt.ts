import type { Reader } from "../grammar/reader";
import { readThread } from "../tables";

/** A thread at the reading point, or the balloon that prints one (`#9`). */
export function threadAt(r: Reader): { designation: string; length: number } | null {
  r.skip();
  const cited = /^#\d{1,4}(?![\d.*/+-])/.exec(r.text.slice(r.pos));
  if (cited) return r.named.has(cited[0]) ? { designation: cited[0], length: cited[0].length } : null;
  return readThread(r.text.slice(r.pos));
}
