import type { CheckValue, Job, Stock } from "../job/schema";
import { inCallout, type NumberText } from "../number";
import { readStockForm, writeStockForm } from "../job/stockForms";
import { readPoint } from "../rows/places";
import type { RowNames } from "../grammar/grammar";
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
  return { name, value, ...(r.text[r.pos] === '"' ? { note: r.quoted().slice(0, 200) } : {}) };
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

const massUnits = ["KG", "G", "LB", "OZ"] as const;
const areas = ["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT", "ALL"] as const;
/** `CHECK MASS 259.58 g`, `VOLUME 3.21`, `AREA TOP 122`, `AREA FLOOR OF 2 1.5`, `SIZE X 4`, `EDGES 34`, `HOLES 6`. */
export function readCheck(r: Reader, names: RowNames): CheckValue {
  const kind = r.takeOne(["MASS", "VOLUME", "AREA", "SIZE", "EDGES", "HOLES"] as const);
  const tolerance = () => (r.take("±") ? { tolerance: r.number("tolerance", "a tolerance") } : {});
  switch (kind) {
    case "MASS": {
      const value = r.number("value", "a mass");
      const unit = r.takeOne(massUnits) ?? "G";
      return { kind: "mass", value, unit: unit.toLowerCase() as "g" | "kg" | "lb" | "oz", ...tolerance() };
    }
    case "VOLUME":
      return { kind: "volume", value: r.number("value", "a volume"), ...tolerance() };
    case "AREA": {
      if (r.take("FLOOR", "OF")) {
        const row = names.idOf(r.whole("the number of a row"));
        return { kind: "floorArea", row, value: r.number("value", "an area"), ...tolerance() };
      }
      const of = r.takeOne(areas);
      if (!of) r.fail("TOP, BOTTOM, FRONT, BACK, LEFT, RIGHT, ALL or FLOOR OF a row");
      return { kind: "area", of: of!.toLowerCase() as "top", value: r.number("value", "an area"), ...tolerance() };
    }
    case "SIZE": {
      const of = r.takeOne(["X", "Y", "Z"] as const);
      if (!of) r.fail("X, Y or Z");
      return { kind: "size", of: of!.toLowerCase() as "x", value: r.number("value", "a size"), ...tolerance() };
    }
    case "EDGES":
    case "HOLES":
      return { kind: kind.toLowerCase() as "edges", value: r.number("value", "a count") };
    default:
      return r.fail("MASS, VOLUME, AREA, SIZE, EDGES or HOLES");
  }
}

export function writeCheck(c: CheckValue, names: RowNames): string {
  const value = inCallout(c.value);
  const body =
    c.kind === "mass"
      ? `MASS ${value} ${c.unit}`
      : c.kind === "floorArea"
        ? `AREA FLOOR OF ${names.numberOf(c.row)} ${value}`
        : c.kind === "area" || c.kind === "size"
          ? `${c.kind.toUpperCase()} ${c.of.toUpperCase()} ${value}`
          : `${c.kind.toUpperCase()} ${value}`;
  return `CHECK ${body}${"tolerance" in c && c.tolerance !== undefined ? ` ±${inCallout(c.tolerance)}` : ""}`;
}
