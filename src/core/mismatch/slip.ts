import type { JobEdit } from "../job/edits";

/** A single mistake that could explain a figure the model misses. */
export type SlipKind =
  | "radius-for-diameter"
  | "half-for-whole"
  | "neighbouring-fraction"
  | "swapped-digits"
  | "wrong-digit"
  | "decimal-point"
  | "wrong-unit"
  | "wrong-corner-radius"
  | "other-end-of-tolerance"
  | "another-dimension"
  | "one-instance-missing"
  | "one-instance-too-many"
  | "missing-row"
  | "doubled-row"
  | "through-for-depth"
  | "depth-for-through"
  | "wrong-density"
  | "flats-for-corners";

export const slipWords: Record<SlipKind, string> = {
  "radius-for-diameter": "radius for diameter",
  "half-for-whole": "half for whole",
  "neighbouring-fraction": "the fraction beside it",
  "swapped-digits": "two digits swapped",
  "wrong-digit": "one digit misread",
  "decimal-point": "decimal point",
  "wrong-unit": "wrong unit",
  "wrong-corner-radius": "wrong corner radius",
  "other-end-of-tolerance": "other end of the tolerance",
  "another-dimension": "another dimension of the print",
  "one-instance-missing": "one instance missing",
  "one-instance-too-many": "one instance too many",
  "missing-row": "a row is missing",
  "doubled-row": "a row too many",
  "through-for-depth": "through taken for a depth",
  "depth-for-through": "a depth taken for through",
  "wrong-density": "wrong density",
  "flats-for-corners": "across flats for across corners",
};

export interface Slip {
  kind: SlipKind;
  /** Row it stands in, by number; null for the material, the check value itself. */
  row: number | null;
  /** Number of the row, by path, or what else is meant. */
  field: string;
  /** The balloon whose printed value was misread, when it is that. */
  balloon?: number;
  from: string;
  to: string;
  edits: JobEdit[];
  /** How unlikely it is before anything is computed: 1 is the commonest slip. Common practice, no source. */
  cost: number;
  /** The other of two slips made at once: `edits` mend both. */
  second?: Slip;
}
