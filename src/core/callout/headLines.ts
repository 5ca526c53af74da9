import type { Job, Stock } from "../job/schema";
import { inCallout, type NumberText } from "../number";
import { readStockForm, writeStockForm } from "../job/stockForms";
import { readPoint } from "../rows/places";
import type { Reader } from "../grammar/reader";

/** Words of the card that no value can be named after. */
const reserved =
  /^(x|by|r|of|on|at|to|ac|af|od|id|bc|dia|deg|deep|dp|thru|through|start|turn|from|grid|line|corner|drill|cbore|csk|flat|point|wide|top|bottom|front|back|left|right|floor|mouth|outer|vertical|all|sharp|mm|in|thou|sqrt|a?sin|a?cos|a?tan2?|abs|min|max|ref|basic|iso)$/i;

/** `LET wall = 3`: a named value. */
export function readLet(r: Reader): Job["names"][number] {
  r.skip();
  const at = r.pos;
  const word = /^[A-Za-z_][A-Za-z0-9_]{0,39}(?![A-Za-z0-9_])/.exec(r.text.slice(at));
  if (!word) r.fail("a name of letters, digits and _");
  const name = word![0];
  if (reserved.test(name)) r.fail("another name", `${name} is a word of the card`, at);
  r.pos += name.length;
  r.skip();
  if (r.text[r.pos] !== "=") r.fail("= and a number");
  r.pos++;
  const value = r.number("value", "a number");
  r.skip();
  return { name, value, ...(r.text[r.pos] === '"' ? { note: r.quoted(200) } : {}) };
}
export const isFreeName = (name: string): boolean => /^[A-Za-z_][A-Za-z0-9_]{0,39}$/.test(name) && !reserved.test(name);
export const writeLet = (n: Job["names"][number]): string =>
  `LET ${n.name} = ${inCallout(n.value)}${n.note ? ` "${n.note.replace(/"/g, "”")}"` : ""}`;

/** `TOLERANCES .XX ±.01 .XXX ±.005 FRACTION ±1/64 ANGLE ±.5` and `TOLERANCES ISO 2768-m`: the title block. */
export function readTolerances(r: Reader, title: Job["title"]): void {
  if (r.done) r.fail(".XX ±.01, FRACTION, ANGLE or ISO 2768-m");
  while (!r.done) {
    const form = /^(X|[.,]X{1,4}|X[.,]X{1,4}|0[.,]X{1,4})(?![A-Za-z])/i.exec(r.text.slice(r.pos));
    const iso = /^ISO\s*2768\s*-\s*(?:1\s*-?\s*)?([fmcv])(?:[HKLhkl])?(?![A-Za-z])/i.exec(r.text.slice(r.pos));
    const value = (path: string): NumberText => {
      r.take("±");
      const n = r.number(path, "a tolerance");
      r.take("°");
      return n;
    };
    if (iso) {
      title.general = iso[1].toLowerCase() as "m";
      r.pos += iso[0].length;
    } else if (form) {
      const decimals = (/[.,](X+)/i.exec(form[0])?.[1] ?? "").length;
      r.pos += form[0].length;
      const list = Array.from({ length: 5 }, (_, i) => title.tolerances?.[i] ?? null);
      list[decimals] = value(`tolerances.${decimals}`);
      title.tolerances = list;
    } else if (r.take("FRACTION") || r.take("FRACTIONS")) title.fractionTolerance = value("fractionTolerance");
    else if (r.take("ANGLE") || r.take("ANGLES")) title.angleTolerance = value("angleTolerance");
    else r.fail(".XX ±.01, FRACTION, ANGLE or ISO 2768-m");
  }
}

export function writeTolerances(title: Job["title"]): string {
  const parts = [
    title.general ? `ISO 2768-${title.general}` : "",
    ...(title.tolerances ?? []).map((t, i) => (t === null ? "" : `${i ? `.${"X".repeat(i)}` : "X"} ±${inCallout(t)}`)),
    title.fractionTolerance === undefined ? "" : `FRACTION ±${inCallout(title.fractionTolerance)}`,
    title.angleTolerance === undefined ? "" : `ANGLE ±${inCallout(title.angleTolerance)}`,
  ].filter(Boolean);
  return parts.length ? `TOLERANCES ${parts.join(" ")}` : "";
}

export function readStock(r: Reader): Stock {
  const stock = readStockForm(r);
  if (r.take("AT")) {
    const p = readPoint(r, "at");
    r.skip();
    if (r.text[r.pos] !== ",") r.fail(", and z");
    r.pos++;
    stock.at = { ...p, z: r.number("at.z", "a coordinate z") };
  }
  return stock;
}

export const writeStock = (s: Stock): string => `STOCK ${writeStockForm(s)}`;
