import { fractionText, INCH, type LengthUnit, unitOf } from "../number";
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

/**
 * All single slips of reading or typing that turn one number into another.
 * @param text as typed: its own digits are swapped and misread   @param value what it is worth, in the job's unit
 */
export function readings(text: string, value: number, role: Role, unit: LengthUnit): Reading[] {
  const out: Reading[] = [];
  const literal = /^-?(\d+\.?\d*|\.\d+)$/.test(text);
  const fraction = /\//.test(text);
  const decimals = literal ? (text.split(".")[1]?.length ?? 0) : unitOf[unit].places.exact;
  const write = (v: number): string => {
    if (fraction && unitOf[unit].fractions) {
      const f = fractionText(v, 64);
      if (Math.abs(f.off) < COINCIDENT) return f.text;
    }
    let digits = decimals;
    while (digits < 6 && Math.abs(Number(v.toFixed(digits)) - v) > COINCIDENT) digits++;
    const t = v.toFixed(digits);
    return !unitOf[unit].leadingZero || text.startsWith(".") ? t.replace(/^(-?)0\./, "$1.") : t;
  };
  const put = (kind: SlipKind, v: number, cost: number, own?: string) => {
    if (Number.isFinite(v) && Math.abs(v - value) > COINCIDENT && (value > 0 ? v > 0 : true))
      out.push({
        kind:
          role === "radius" && kind !== "wrong-unit" && kind !== "swapped-digits" && kind !== "decimal-point"
            ? "wrong-corner-radius"
            : kind,
        value: v,
        text: own ?? write(v),
        cost,
      });
  };
  if (role !== "angle") {
    put(role === "diameter" ? "radius-for-diameter" : "half-for-whole", value * 2, 1);
    put(role === "diameter" ? "radius-for-diameter" : "half-for-whole", value / 2, 1);
    put("wrong-unit", value * INCH, 1.3);
    put("wrong-unit", value / INCH, 1.3);
  } else {
    put("half-for-whole", value * 2, 1);
    put("half-for-whole", value / 2, 1);
    put("another-dimension", 90 - value, 1.6);
    put("another-dimension", 180 - value, 1.6);
  }
  if (role === "radius") for (const r of usualRadii[unit]) put("wrong-corner-radius", r, 1.6);
  if (unitOf[unit].fractions && role !== "angle" && Math.abs(value * 64 - Math.round(value * 64)) < 0.04) {
    const near = Math.round(value * 64) / 64;
    for (const [part, cost] of [
      [64, 1.9],
      [32, 1.7],
      [16, 1.5],
      [8, 1.5],
      [4, 1.9],
    ] as const)
      if (Math.abs(near * part - Math.round(near * part)) < COINCIDENT)
        for (const s of [-1, 1]) put("neighbouring-fraction", near + s / part, cost);
  }
  if (!unitOf[unit].fractions && role !== "angle")
    for (const s of [-1, -0.5, 0.5, 1])
      put("neighbouring-fraction", value + s, Math.abs(s) === 1 && Number.isInteger(value) ? 1.4 : 1.8);
  if (literal) digits(text, put);
  const best = new Map<string, Reading>();
  for (const r of out) {
    const key = r.value.toFixed(7);
    const old = best.get(key);
    if (!old || r.cost < old.cost) best.set(key, r);
  }
  return [...best.values()];
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
