import { inCallout, type NumberText, type Quantity } from "../number";
import type { Reader } from "./reader";

/** A number of a row: where it is kept, what it means, and what was typed. */
/**
 * What a number of a callout is, beyond its quantity. `across`: a polygon's size; `leg`: of a chamfer or break;
 * `copies`: how often the row is there; `repeat`: places along one way of a pattern.
 */
export type Meaning =
  | "length"
  | "diameter"
  | "radius"
  | "depth"
  | "angle"
  | "coordinate"
  | "across"
  | "leg"
  | "countersink"
  | "copies"
  | "repeat"
  | "ratio"
  | "sides";

export interface NumberField {
  path: string;
  label: string;
  quantity: Quantity;
  means: Meaning;
  text: NumberText;
}

/** How rows are named in text (by their number) and in the document (by an id that survives reordering). */
export interface RowNames {
  idOf(number: number): string;
  numberOf(id: string): number | string;
  /** The rows of another part of the job, by its name; none where there is no such part. */
  ofPart?(name: string): RowNames | undefined;
  /** Balloons that print a thread, as a row cites them (`#9`); unknown where nobody says. */
  threads?: ReadonlySet<string>;
}

// A row under construction; its shape is checked by the row kind's schema when it is whole.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Draft = any;

/**
 * One piece of a row's callout. Reading and writing come from the same description:
 * `starts` looks ahead, `read` fills the draft, `write` gives the canonical text ('' when the piece is absent),
 * `numbers` lists the numbers it holds.
 */
export interface Part {
  expected: string;
  starts(r: Reader): boolean;
  read(r: Reader, row: Draft, names: RowNames): void;
  write(row: Draft, names: RowNames): string;
  numbers(row: Draft): NumberField[];
}

/** A part that may stand in any order after the head of a callout. */
export interface Clause extends Part {
  required?: boolean;
}

export const getPath = (row: Draft, path: string): Draft =>
  path.split(".").reduce((o, k) => (o === undefined || o === null ? undefined : o[k]), row);

/** Sets a value deep in a draft, making the objects on the way. */
export function setPath(row: Draft, path: string, value: unknown): void {
  const keys = path.split(".");
  let o = row;
  for (const k of keys.slice(0, -1)) o = o[k] ??= {};
  if (value === undefined) delete o[keys[keys.length - 1]];
  else o[keys[keys.length - 1]] = value;
}

/** What a number is by its sign and quantity, where its description says no more. */
export function meaningOf(quantity: Quantity, round = false): Meaning {
  switch (quantity) {
    case "angle":
    case "includedAngle":
      return "angle";
    case "coordinate":
    case "offset":
      return "coordinate";
    case "count":
      return "repeat";
    default:
      return round ? "diameter" : "length";
  }
}

/** `sign`: a diameter, its sign read or not and always written; `bare`: read with the sign, written without. */
interface NumberOptions {
  sign?: "⌀";
  bare?: boolean;
  angle?: boolean;
  /** What it is, where its sign and quantity do not say. */
  means?: Meaning;
}

/** A number in its place. `⌀` may be left out when read and is always written. */
export function number(
  path: string,
  label: string,
  quantity: Quantity,
  { sign, bare, angle, means = meaningOf(quantity, Boolean(sign || bare)) }: NumberOptions = {},
): Part {
  return {
    expected: label.toLowerCase(),
    starts: (r) => (sign ? r.sees(sign) : false) || r.seesNumber(),
    read(r, row) {
      if (sign || bare) r.take("⌀");
      setPath(row, path, angle ? r.angle(path) : r.number(path, label.toLowerCase()));
    },
    write: (row) => (getPath(row, path) === undefined ? "" : (sign ?? "") + inCallout(getPath(row, path))),
    numbers: (row) =>
      getPath(row, path) === undefined ? [] : [{ path, label, quantity, means, text: getPath(row, path) }],
  };
}

/** A fixed word. */
export const word = (w: string): Part => ({
  expected: w,
  starts: (r) => r.sees(w),
  read: (r) => r.want(w),
  write: () => w,
  numbers: () => [],
});

/** Parts one after the other; the first decides whether the sequence starts. */
export const sequence = (...parts: Part[]): Part => ({
  expected: parts[0].expected,
  starts: (r) => parts[0].starts(r),
  read: (r, row, names) => parts.forEach((p) => p.read(r, row, names)),
  write: (row, names) =>
    parts
      .map((p) => p.write(row, names))
      .filter(Boolean)
      .join(" "),
  numbers: (row) => parts.flatMap((p) => p.numbers(row)),
});

/** A part that may be missing; `path` tells from the row whether it is there. */
export const optional = (path: string, part: Part): Clause => ({
  expected: part.expected,
  starts: (r) => part.starts(r),
  read: (r, row, names) => {
    if (part.starts(r)) part.read(r, row, names);
  },
  write: (row, names) => (getPath(row, path) === undefined ? "" : part.write(row, names)),
  numbers: (row) => (getPath(row, path) === undefined ? [] : part.numbers(row)),
});

/** One of several forms; `chosen` tells which from the row, `fix` marks the row when a form was read. */
export function choice(path: string, forms: Record<string, Part>): Clause {
  const chosen = (row: Draft) => forms[getPath(row, path)];
  return {
    expected: Object.values(forms)
      .map((f) => f.expected)
      .join(" or "),
    starts: (r) => Object.values(forms).some((f) => f.starts(r)),
    read(r, row, names) {
      const form = Object.entries(forms).find(([, f]) => f.starts(r));
      if (!form) return r.fail(this.expected);
      setPath(row, path, form[0]);
      form[1].read(r, row, names);
    },
    write: (row, names) => chosen(row)?.write(row, names) ?? "",
    numbers: (row) => chosen(row)?.numbers(row) ?? [],
  };
}

/** A word with a number after it, written together where that is how prints write it (`R.25`). */
export function marked(
  mark: string,
  path: string,
  label: string,
  quantity: Quantity,
  options: NumberOptions & { tight?: boolean } = {},
): Clause {
  const inner = number(path, label, quantity, options);
  return {
    expected: mark,
    starts: (r) => r.sees(mark),
    read(r, row, names) {
      r.want(mark);
      inner.read(r, row, names);
    },
    write(row, names) {
      const n = inner.write(row, names);
      return n === "" ? "" : mark + (options.tight && !/^[a-z_]/i.test(n) ? "" : " ") + n;
    },
    numbers: inner.numbers,
  };
}

/** A word that is there or not. */
export const flag = (w: string, path: string): Clause => ({
  expected: w,
  starts: (r) => r.sees(w),
  read(r, row) {
    r.want(w);
    setPath(row, path, true);
  },
  write: (row) => (getPath(row, path) ? w : ""),
  numbers: () => [],
});

export const required = (part: Part): Clause => ({ ...part, required: true });

/** A whole callout after its verb: a head that names the row, then clauses in any order. */
export interface CalloutGrammar {
  head: Part;
  clauses: Clause[];
}

export function readCallout(g: CalloutGrammar, r: Reader, row: Draft, names: RowNames): void {
  g.head.read(r, row, names);
  const left = new Set(g.clauses);
  while (!r.done) {
    const clause = [...left].find((c) => c.starts(r));
    if (!clause) {
      const twice = g.clauses.find((c) => c.starts(r));
      const expected = [...left].map((c) => c.expected).join(", ") || "the end of the line";
      r.fail(expected, twice ? `${r.here} is given twice` : undefined);
    }
    left.delete(clause!);
    clause!.read(r, row, names);
  }
  const missing = [...left].find((c) => c.required);
  if (missing) r.fail(missing.expected, `${missing.expected} is missing`);
}

export const writeCallout = (g: CalloutGrammar, row: Draft, names: RowNames): string =>
  [g.head, ...g.clauses]
    .map((p) => p.write(row, names))
    .filter(Boolean)
    .join(" ");

export const numbersOf = (g: CalloutGrammar, row: Draft): NumberField[] =>
  [g.head, ...g.clauses].flatMap((p) => p.numbers(row));
