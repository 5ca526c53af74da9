/** Millimetres in an inch: exact (international yard and pound agreement, 1959). */
export const INCH = 25.4;

/** Whose figures: of inch prints and shops, or of metric ones. */
export type Figures = "in" | "mm";

/** Something that differs with the figures a unit's prints and shops use: usual sizes, examples, practice. */
export type ByFigures<T> = Readonly<Record<Figures, T>>;

/** What follows from a job's unit: how lengths, areas, volumes and weights are read and shown. */
export interface Unit {
  word: string;
  /** Whose usual sizes and examples it takes. */
  figures: Figures;
  /** Millimetres in one of it. */
  mm: number;
  /** Whether sizes come in fractions too, in 64ths. */
  fractions: boolean;
  /** Decimals for which a title block usually gives tolerances. */
  toleranced: number[];
  /** Whether a print writes a zero before the point. */
  leadingZero: boolean;
  /** Decimals: for reading, for a number that becomes one again, and for one that must not lose anything. */
  places: { shown: number; exact: number; fine: number; least: number };
  area: { name: string; mm2: number; places: number };
  volume: { name: string; mm3: number; places: number };
  /** Volumes of whole parts and blanks. */
  bulk: { name: string; mm3: number; places: number };
  /** Weights of parts and of light ones (international pound, 1959: 0.45359237 kg exactly). */
  /** From `large` on, one decimal fewer. */
  mass: { name: "lb" | "g"; grams: number; places: number; large: number };
  light: { name: string; grams: number; places: number };
  /** Densities: grams to a cubic centimetre in one of it. */
  density: { name: string; perCm3: number; places: number };
  /** Weights of blanks, the lighter first. */
  weights: { name: string; grams: number; places: number; below: number }[];
  /** The least step a shop rounds sizes to, mm: common practice, no source. */
  step: number;
  /**
   * How files name it: `$INSUNITS` of a DXF (1 inches, 4 millimetres; from memory), the word of an NC text (RS-274),
   * and the paper of its sheets.
   */
  inFiles: { dxf: number; nc: string; paper: string };
}

const units = {
  in: {
    word: "inch",
    figures: "in",
    mm: INCH,
    fractions: true,
    toleranced: [2, 3, 4],
    leadingZero: false,
    places: { shown: 3, exact: 4, fine: 5, least: 2 },
    area: { name: "in²", mm2: INCH ** 2, places: 4 },
    volume: { name: "in³", mm3: INCH ** 3, places: 4 },
    bulk: { name: "in³", mm3: INCH ** 3, places: 3 },
    mass: { name: "lb", grams: 453.59237, places: 3, large: Infinity },
    light: { name: "oz", grams: 28.349523125, places: 1 },
    density: { name: "lb/in³", perCm3: 453.59237 / (INCH ** 3 / 1000), places: 4 },
    weights: [{ name: "lb", grams: 453.59237, places: 3, below: Infinity }],
    step: INCH / 1000,
    inFiles: { dxf: 1, nc: "G20", paper: "LETTER" },
  },
  mm: {
    word: "millimetre",
    figures: "mm",
    mm: 1,
    fractions: false,
    toleranced: [0, 1, 2],
    leadingZero: true,
    places: { shown: 2, exact: 3, fine: 4, least: 0 },
    area: { name: "mm²", mm2: 1, places: 2 },
    volume: { name: "mm³", mm3: 1, places: 1 },
    bulk: { name: "cm³", mm3: 1000, places: 3 },
    mass: { name: "g", grams: 1, places: 2, large: 1000 },
    light: { name: "g", grams: 1, places: 1 },
    density: { name: "g/cm³", perCm3: 1, places: 2 },
    weights: [
      { name: "g", grams: 1, places: 1, below: 1000 },
      { name: "kg", grams: 1000, places: 3, below: Infinity },
    ],
    step: 0.05,
    inFiles: { dxf: 4, nc: "G21", paper: "A4" },
  },
} satisfies Record<string, Unit>;

export type LengthUnit = keyof typeof units;

/** The units a job may be in. Nothing else asks which unit it is: it takes what follows from it. */
export const unitOf: Readonly<Record<LengthUnit, Unit>> = units;

/** Their names, as a card writes them. */
export const unitNames = Object.keys(unitOf) as LengthUnit[];

/** The next of them: what a tap on the readout turns to. */
export const otherUnit = (unit: LengthUnit): LengthUnit => unitNames[(unitNames.indexOf(unit) + 1) % unitNames.length];

/** What goes with a unit's figures. */
export const byFigures = <T>(unit: LengthUnit, of: ByFigures<T>): T => of[unitOf[unit].figures];

/** A density as the prints of a unit give it: `0.0975 lb/in³`, `2.70 g/cm³`. */
export function densityText(gramsPerCm3: number, unit: LengthUnit): string {
  const { name, perCm3, places } = unitOf[unit].density;
  return `${(gramsPerCm3 / perCm3).toFixed(places)} ${name}`;
}
