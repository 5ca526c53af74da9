import { sub } from "@/core/geometry/vec";
import { type LengthUnit, unitOf } from "@/core/number";

/** As a machine shows it: a leading zero, four decimals of an inch or three of a millimetre. */
export const lengthFigure = (mm: number, unit: LengthUnit): string => {
  const text = (mm / unitOf[unit].mm).toFixed(unitOf[unit].places.exact);
  return /^-0\.0+$/.test(text) ? text.slice(1) : text;
};

export const bulkFigure = (mm3: number, unit: LengthUnit): string =>
  (mm3 / unitOf[unit].bulk.mm3).toFixed(unitOf[unit].bulk.places);

export const areaFigure = (mm2: number, unit: LengthUnit): string =>
  (mm2 / unitOf[unit].area.mm2).toFixed(unitOf[unit].places.shown);

type Vector = Parameters<typeof sub>[0];

export const distance = (a: Vector, b: Vector): number => {
  const d = sub(a, b);
  return Math.hypot(d.x, d.y, d.z);
};
