import { fractionText, INCH, type LengthUnit, unitOf, byFigures } from "../number";
import type { SlipKind } from "./slip";
import { COINCIDENT } from "../geometry/tolerance";

/** Another reading of one number: its text and value in the job's unit (or degrees). */
export interface Reading {
  kind: SlipKind;
  text: string;
  value: number;
  cost: number;
}

export type Role = "diameter" | "radius" | "length" | "angle" | "plain";

/** Corner radii the trade uses. Common practice, no source. */
const usualRadii = {
  in: [1 / 16, 3 / 32, 1 / 8, 5 / 32, 3 / 16, 1 / 4, 5 / 16, 3 / 8, 1 / 2, 5 / 8, 3 / 4, 1],
  mm: [0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 15, 16, 20],
};

type Put = (kind: SlipKind, value: number, cost: number, own?: string) => void;

/**
 * All single slips of reading or typing that turn one number into another.
 * @param text as typed: its own digits are swapped and misread   @param value what it is worth, in the job's unit
 */
export function readings(text: string, value: number, role: Role, unit: LengthUnit): Reading[] {
  const isLiteral = /^-?(\d+\.?\d*|\.\d+)$/.test(text);
  const best = new Map<string, Reading>();
  const put: Put = (kind, v, cost, own) => {
    if (!Number.isFinite(v) || Math.abs(v - value) <= COINCIDENT || (value > 0 && v <= 0)) return;
    const key = v.toFixed(7);
    const old = best.get(key);
    if (old && old.cost <= cost) return;
    best.set(key, { kind: ofRole(kind, role), value: v, text: own ?? written(v, text, isLiteral, unit), cost });
  };
  if (role === "angle") angles(value, put);
  else sizes(value, role, unit, put);
  if (isLiteral) digits(text, put);
  return [...best.values()];
}

/** A radius misread is a wrong corner, whatever else it could be called. */
const ownKinds: readonly SlipKind[] = ["wrong-unit", "swapped-digits", "decimal-point"];
const ofRole = (kind: SlipKind, role: Role): SlipKind =>
  role === "radius" && !ownKinds.includes(kind) ? "wrong-corner-radius" : kind;

/** A value as the text it stands for would be written: a fraction, or with as many decimals and zeros. */
function written(v: number, like: string, isLiteral: boolean, unit: LengthUnit): string {
  if (like.includes("/") && unitOf[unit].fractions) {
    const f = fractionText(v, 64);
    if (Math.abs(f.off) < COINCIDENT) return f.text;
  }
  let decimals = isLiteral ? (like.split(".")[1]?.length ?? 0) : unitOf[unit].places.exact;
  while (decimals < 6 && Math.abs(Number(v.toFixed(decimals)) - v) > COINCIDENT) decimals++;
  const t = v.toFixed(decimals);
  return !unitOf[unit].leadingZero || like.startsWith(".") ? t.replace(/^(-?)0\./, "$1.") : t;
}

/** Half and whole, and the angle on the other side of the corner. */
function angles(value: number, put: Put): void {
  put("half-for-whole", value * 2, 1);
  put("half-for-whole", value / 2, 1);
  put("another-dimension", 90 - value, 1.6);
  put("another-dimension", 180 - value, 1.6);
}

/** Half and whole, the other unit, the next usual radius, the next fraction or half millimetre. */
function sizes(value: number, role: Role, unit: LengthUnit, put: Put): void {
  const half = role === "diameter" ? "radius-for-diameter" : "half-for-whole";
  put(half, value * 2, 1);
  put(half, value / 2, 1);
  put("wrong-unit", value * INCH, 1.3);
  put("wrong-unit", value / INCH, 1.3);
  if (role === "radius") for (const r of byFigures(unit, usualRadii)) put("wrong-corner-radius", r, 1.6);
  if (unitOf[unit].fractions) nextFractions(value, put);
  else
    for (const s of [-1, -0.5, 0.5, 1])
      put("neighbouring-fraction", value + s, Math.abs(s) === 1 && Number.isInteger(value) ? 1.4 : 1.8);
}

/** Parts of an inch a neighbour is taken by, and how unlikely each is. */
const parts = [
  [64, 1.9],
  [32, 1.7],
  [16, 1.5],
  [8, 1.5],
  [4, 1.9],
] as const;
function nextFractions(value: number, put: Put): void {
  const near = Math.round(value * 64) / 64;
  if (Math.abs(value - near) * 64 >= 0.04) return;
  for (const [part, cost] of parts)
    if (Math.abs(near * part - Math.round(near * part)) < COINCIDENT)
      for (const s of [-1, 1]) put("neighbouring-fraction", near + s / part, cost);
}

/** Slips of single digits in a typed decimal: two neighbours swapped, one misread, the point moved. */
function digits(text: string, put: (kind: SlipKind, value: number, cost: number, own?: string) => void): void {
  const at = [...text].flatMap((c, i) => (/\d/.test(c) ? [i] : []));
  const replaced = (changes: Record<number, string>) => [...text].map((c, i) => changes[i] ?? c).join("");
  for (let k = 0; k + 1 < at.length; k++) {
    const t = replaced({ [at[k]]: text[at[k + 1]], [at[k + 1]]: text[at[k]] });
    put("swapped-digits", Number(t), 1.4, t);
  }
  for (const i of at)
    for (let d = 0; d <= 9; d++) {
      const was = Number(text[i]);
      if (d === was) continue;
      // A neighbouring digit, or one of those that look alike on a worn print.
      const alike =
        Math.abs(d - was) === 1 ||
        ["17", "71", "38", "83", "56", "65", "68", "86", "08", "80", "69", "96"].includes(`${was}${d}`);
      const t = replaced({ [i]: String(d) });
      put("wrong-digit", Number(t), alike ? 1.5 : 2.1, t);
    }
  const v = Number(text);
  put("decimal-point", v * 10, 1.9);
  put("decimal-point", v / 10, 1.9);
}
