import { unitOf, type LengthUnit } from "./unit";

/** An area as a job shows it: in² or mm². @param mm2 square millimetres */
export function showArea(mm2: number, unit: LengthUnit, places = unitOf[unit].area.places): string {
  const { name, mm2: one } = unitOf[unit].area;
  return `${(mm2 / one).toFixed(places)} ${name}`;
}

/** A small volume as a job shows it: in³ or mm³. @param mm3 cubic millimetres */
export function showVolume(mm3: number, unit: LengthUnit): string {
  const { name, mm3: one, places } = unitOf[unit].volume;
  return `${(mm3 / one).toFixed(places)} ${name}`;
}

/** The volume of a part or a blank as a job shows it: in³ or cm³. @param mm3 cubic millimetres */
export function showBulk(mm3: number, unit: LengthUnit): string {
  const { name, mm3: one, places } = unitOf[unit].bulk;
  return `${(mm3 / one).toFixed(places)} ${name}`;
}

/** A weight as a job shows it: lb or g, fewer decimals from a kilogram on. */
export function showMass(grams: number, unit: LengthUnit): { text: string; name: string } {
  const { name, grams: one, places, large } = unitOf[unit].mass;
  return { text: (grams / one).toFixed(grams / one < large ? places : places - 1), name };
}

/** The weight of a light thing: oz or g. */
export function showLight(grams: number, unit: LengthUnit): string {
  const { name, grams: one, places } = unitOf[unit].light;
  return `${(grams / one).toFixed(places)} ${name}`;
}

/** The weight of a blank as a job shows it: lb, or g and kg. */
export function showWeight(grams: number, unit: LengthUnit): string {
  const { name, grams: one, places } = unitOf[unit].weights.find((w) => grams < w.below)!;
  return `${(grams / one).toFixed(places)} ${name}`;
}
