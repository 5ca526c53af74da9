import { unitOf, type LengthUnit } from "./unit";
import { COINCIDENT } from "../geometry/tolerance";

/** How a length is written: decimals, or the nearest fraction of an inch. */
interface LengthForm {
  unit: LengthUnit;
  decimals?: number;
  leadingZero?: boolean;
}

/**
 * Decimals a dimension deserves by its tolerance: one more than the first digit the tolerance touches, as the trade
 * writes it.
 * `.005` in gives 3, `.0005` in gives 4, 0.05 mm gives 2. Common practice, no source.
 */
export function decimalsForTolerance(halfWidth: number, unit: LengthUnit): number {
  const t = halfWidth / unitOf[unit].mm;
  if (!(t > 0)) return unitOf[unit].places.exact;
  const needed = Math.ceil(-Math.log10(t) - COINCIDENT);
  return Math.max(unitOf[unit].places.least, Math.min(6, needed));
}

/** A length in decimals: inches without a zero before the point unless the shop wants one, millimetres with it. */
export function decimalText(
  mm: number,
  { unit, decimals = unitOf[unit].places.shown, leadingZero = unitOf[unit].leadingZero }: LengthForm,
): string {
  const text = (mm / unitOf[unit].mm).toFixed(decimals);
  const t = /^-0(\.0*)?$/.test(text) ? text.slice(1) : text;
  return leadingZero ? t : t.replace(/^(-?)0\./, "$1.");
}

/**
 * The nearest fraction of an inch, `1-1/2`, and how far off it is.
 * @param inches value   @param parts finest parts, a power of two   @returns text and value − fraction, inches
 */
export function fractionText(inches: number, parts = 64): { text: string; off: number } {
  const sign = inches < 0 ? "-" : "";
  const size = Math.abs(inches);
  let top = Math.round(size * parts),
    bottom = parts;
  while (top > 0 && top % 2 === 0 && bottom > 1) {
    top /= 2;
    bottom /= 2;
  }
  if (top === 0) bottom = 1;
  const whole = Math.floor(top / bottom),
    rest = top % bottom;
  const text = rest === 0 ? String(whole) : whole ? `${whole}-${rest}/${bottom}` : `${rest}/${bottom}`;
  return { text: top === 0 ? "0" : sign + text, off: inches - (sign ? -1 : 1) * (top / bottom) };
}

/** Degrees, minutes and seconds, carried over properly: 1.43777° is `1°26'16"`. */
export function dmsText(degrees: number, secondDecimals = 0): string {
  const sign = degrees < 0 ? "-" : "";
  const unit = 10 ** secondDecimals;
  let s = Math.round(Math.abs(degrees) * 3600 * unit);
  const d = Math.floor(s / (3600 * unit));
  s -= d * 3600 * unit;
  const m = Math.floor(s / (60 * unit));
  s -= m * 60 * unit;
  const seconds = s / unit;
  if (d === 0 && m === 0 && seconds === 0) return "0°";
  return `${sign}${d}°${m || seconds ? `${m}'` : ""}${seconds ? `${secondDecimals ? seconds.toFixed(secondDecimals) : seconds}"` : ""}`;
}
