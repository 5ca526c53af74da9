import { byFigures, INCH, type LengthUnit } from "../../number";

/** A figure of a table as a card writes it: in the table's own unit, with what it is of. */
export function cited(mm: number, unit: LengthUnit, isMetric: boolean, of: string): string {
  const figure = isMetric ? Number(mm.toFixed(3)) : Number((mm / INCH).toFixed(4));
  const sign = isMetric ? byFigures(unit, { in: "mm", mm: "" }) : byFigures(unit, { in: "", mm: "in" });
  return `${String(figure).replace(/^0\./, isMetric ? "0." : ".")}${sign}{${of}}`;
}
