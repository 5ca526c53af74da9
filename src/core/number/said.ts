import type { Problem } from "../base/result";
import { decimalText } from "./format";
import { COINCIDENT } from "../geometry/tolerance";
import { unitOf, type LengthUnit } from "./unit";

/**
 * Lengths in a sentence of those who work in millimetres and do not know the job's unit: they mark the length, and
 * whoever knows the unit puts it in.
 */
const MARKED = /⟦(≤?)(-?[\d.e+-]+(?:;-?[\d.e+-]+)*)⟧/g;

/** A length in a sentence, mm. */
export const saidLength = (mm: number): string => `⟦${mm}⟧`;
/** The most a length may be, mm: told no larger than it is, for what is told is typed. */
export const saidMost = (mm: number): string => `⟦≤${mm}⟧`;
/** A place in space in a sentence, mm. */
export const saidPoint = ({ x, y, z }: { x: number; y: number; z: number }): string => `⟦${x};${y};${z}⟧`;
/** A place in a sentence, mm. */
export const saidPlace = ({ x, y }: { x: number; y: number }): string => `⟦${x};${y}⟧`;

const DECIMALS = 4;
const STEPS = 10 ** DECIMALS;

const shown = (mm: string, unit: LengthUnit, isMost = false): string => {
  const one = unitOf[unit].mm;
  const rounded = isMost ? (Math.floor((Number(mm) / one) * STEPS + COINCIDENT) / STEPS) * one : Number(mm);
  const text = decimalText(rounded, { unit, decimals: DECIMALS });
  return text.replace(/\.?0+$/, "") || "0";
};

/** A sentence with its marked lengths in a unit. */
export const inUnit = (text: string, unit: LengthUnit): string =>
  text.replace(MARKED, (_, most: string, lengths: string) => {
    const each = lengths.split(";").map((mm) => shown(mm, unit, most !== ""));
    const text = each.length === 3 ? each.map((length, i) => `${"XYZ"[i]} ${length}`).join(" ") : each.join(", ");
    return `${text} ${unit}`;
  });

/** A problem with its marked lengths in a unit. */
export const problemIn = <P extends Problem>(p: P, unit: LengthUnit): P => ({
  ...p,
  message: inUnit(p.message, unit),
  ...(p.expected === undefined ? {} : { expected: inUnit(p.expected, unit) }),
});
