import { lookUp } from "../../tables";
import { cited } from "./cited";
import type { Words } from "./words";

const ring = String.raw`(?:(?:RETAINING|SNAP) RING )`;
const form = new RegExp(
  String.raw`^${ring}?(?:GROOVE )?(?:FOR )?${ring}?DIN[ -]?(471|472)[ -](\d+)(?: GROOVE)?(?:,? (?:START|FROM END) ([?\w.#/*+()-]+))?( AT .+)?$`,
  "i",
);

/**
 * The groove of a retaining ring by its table: `GROOVE FOR DIN 471 20 START 5` on the round it goes round, `DIN 472 32
 * GROOVE START 4` in a bore.
 * @param shaft the number of the one row that is round outside
 */
export function ringText(w: Words, shaft: string | null): string | null {
  const m = form.exec(w.rest().trim());
  const entry = m && lookUp(`DIN ${m[1]} ${m[2]}`);
  if (!m || !entry || m[3] === undefined) return null;
  while (!w.done) w.next();
  const of = (mm: number) => cited(mm, w.unit, true, `groove of ${entry.what}`);
  const { grooveDiameter, grooveWidth } = entry.values;
  const sizes = `⌀${of(grooveDiameter)} WIDE ${of(grooveWidth)} START ${m[3]}`;
  if (m[1] === "472") return `CUT GROOVE BORE ${sizes}${m[4] ?? ""}`;
  return shaft === null || m[4] ? null : `CUT GROOVE SHAFT ${sizes} OF ${shaft}`;
}
