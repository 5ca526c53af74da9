import type { Problem } from "../base/result";
import { decimalText } from "./format";
import type { LengthUnit } from "./unit";

/**
 * Lengths in a sentence of those who work in millimetres and do not know the job's unit: they mark the length, and
 * whoever knows the unit puts it in.
 */
const MARKED = /⟦([^⟧;]+)(?:;([^⟧]+))?⟧/g;

/** A length in a sentence, mm. */
export const saidLength = (mm: number): string => `⟦${mm}⟧`;
/** A place in a sentence, mm. */
export const saidPlace = ({ x, y }: { x: number; y: number }): string => `⟦${x};${y}⟧`;

const shown = (mm: string, unit: LengthUnit): string => {
  const text = decimalText(Number(mm), { unit, decimals: 4 });
  return text.replace(/\.?0+$/, "") || "0";
};

/** A sentence with its marked lengths in a unit. */
export const inUnit = (text: string, unit: LengthUnit): string =>
  text.replace(MARKED, (_, a: string, b: string | undefined) =>
    b === undefined ? `${shown(a, unit)} ${unit}` : `${shown(a, unit)}, ${shown(b, unit)} ${unit}`,
  );

/** A problem with its marked lengths in a unit. */
export const problemIn = <P extends Problem>(p: P, unit: LengthUnit): P => ({
  ...p,
  message: inUnit(p.message, unit),
  ...(p.expected === undefined ? {} : { expected: inUnit(p.expected, unit) }),
});
