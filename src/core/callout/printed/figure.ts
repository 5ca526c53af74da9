import { evaluateNumber, unitNames } from "../../number";

/** A number without a dimension is the same in every unit, and no balloon stands on a print. */
const scope = { unit: unitNames[0], balloon: () => ({ ok: false as const, problems: [] }) };

/** What a printed number comes to by itself, `1-1/2` too; NaN where it cites a balloon or is none. */
export function figureOf(text: string | undefined): number {
  const value = text === undefined ? null : evaluateNumber(text, "plain", scope);
  return value?.ok ? value.value.typed : NaN;
}
