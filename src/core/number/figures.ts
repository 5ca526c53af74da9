import { INCH, type LengthUnit } from "./evaluate";

/** One unit of length with what areas, volumes and masses are shown in beside it. */
interface Figures {
  /** Millimetres in one of it. */
  mm: number;
  area: { name: string; mm2: number; places: number };
  volume: { name: string; mm3: number; places: number };
  /** Volumes of whole parts and blanks. */
  bulk: { name: string; mm3: number; places: number };
}

const figures: Record<LengthUnit, Figures> = {
  in: {
    mm: INCH,
    area: { name: "in²", mm2: INCH ** 2, places: 4 },
    volume: { name: "in³", mm3: INCH ** 3, places: 4 },
    bulk: { name: "in³", mm3: INCH ** 3, places: 3 },
  },
  mm: {
    mm: 1,
    area: { name: "mm²", mm2: 1, places: 2 },
    volume: { name: "mm³", mm3: 1, places: 1 },
    bulk: { name: "cm³", mm3: 1000, places: 3 },
  },
};

/** An area as a job shows it: in² or mm². @param mm2 square millimetres */
export function showArea(mm2: number, unit: LengthUnit, places = figures[unit].area.places): string {
  const { name, mm2: one } = figures[unit].area;
  return `${(mm2 / one).toFixed(places)} ${name}`;
}

/** A small volume as a job shows it: in³ or mm³. @param mm3 cubic millimetres */
export function showVolume(mm3: number, unit: LengthUnit): string {
  const { name, mm3: one, places } = figures[unit].volume;
  return `${(mm3 / one).toFixed(places)} ${name}`;
}

/** The volume of a part or a blank as a job shows it: in³ or cm³. @param mm3 cubic millimetres */
export function showBulk(mm3: number, unit: LengthUnit): string {
  const { name, mm3: one, places } = figures[unit].bulk;
  return `${(mm3 / one).toFixed(places)} ${name}`;
}
