import { z } from "zod";
import type { RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { inCallout, numberText, toNumberText, type NumberText } from "../number";

/** What a check value is measured in: everybody who shows or compares one asks this and not its kind. */
export type CheckMeasure = "mass" | "volume" | "area" | "length" | "count";

/** What the finished part weighs, holds and measures; the figures check values are compared with. */
export interface PartFigures {
  volume: number;
  mass: number | null;
  surfaceArea: number;
  size: { x: number; y: number; z: number };
  faceArea: Record<string, number>;
  edges: number;
  holes: number;
  floorArea(row: string): number;
}

const value = { value: numberText };
const held = { ...value, tolerance: numberText.optional() };
const schemas = {
  mass: z.strictObject({ kind: z.literal("mass"), unit: z.enum(["g", "kg", "lb", "oz"]), ...held }),
  volume: z.strictObject({ kind: z.literal("volume"), ...held }),
  area: z.strictObject({
    kind: z.literal("area"),
    of: z.enum(["top", "bottom", "front", "back", "left", "right", "all"]),
    ...held,
  }),
  /** Area of the floor a row cut. */
  floorArea: z.strictObject({ kind: z.literal("floorArea"), row: z.string().min(1).max(64), ...held }),
  size: z.strictObject({ kind: z.literal("size"), of: z.enum(["x", "y", "z"]), ...held }),
  edges: z.strictObject({ kind: z.literal("edges"), ...value }),
  holes: z.strictObject({ kind: z.literal("holes"), ...value }),
};
export const checkSchema = z.discriminatedUnion("kind", [
  schemas.mass,
  schemas.volume,
  schemas.area,
  schemas.floorArea,
  schemas.size,
  schemas.edges,
  schemas.holes,
]);
export type CheckValue = z.infer<typeof checkSchema>;
type Of<K extends CheckValue["kind"]> = Extract<CheckValue, { kind: K }>;

interface CheckKind<C extends CheckValue> {
  measure: CheckMeasure;
  /** Its word in a card, and the words after it that say which: read in this order, the longest first. */
  word: string;
  /** Reads what says which one, after the word; null where that is another kind's. */
  read(r: Reader, names: RowNames): Omit<C, "value" | "tolerance"> | null;
  /** What says which one, as a card writes it. */
  which(c: C, names: RowNames): string;
  /** What the model has; null where it cannot be known. */
  figure(c: C, part: PartFigures): number | null;
  /** Why a model may have none. */
  missing: string;
  /** Whether its figure is read off single faces and edges. */
  ofFaces?: true;
  /** Farther off than this never agrees, mm. */
  most?: number;
  /** All that can be asked for, with its name. */
  choices: { label: string; make: C }[];
  /** Choices that rows of the job add: of rows that leave a floor. */
  ofFloor?(row: string, number: number): { label: string; make: C };
  /** Which one, in words; `rowNumber` tells a row's number. */
  of?(c: C, rowNumber: (row: string) => number | "?"): string;
  /** Its name in a sentence, given which one. */
  name(of: string | undefined): string;
}

const open: NumberText = toNumberText("?");
const areas = ["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT", "ALL"] as const;
const axes = ["X", "Y", "Z"] as const;
const lower = <W extends string>(word: W) => word.toLowerCase() as Lowercase<W>;

const mass: CheckKind<Of<"mass">> = {
  measure: "mass",
  word: "MASS",
  read: () => ({ kind: "mass", unit: "g" }),
  which: () => "",
  figure: (_, part) => part.mass,
  missing: "the density of the material is not known",
  choices: [{ label: "mass", make: { kind: "mass", value: open, unit: "g" } }],
  name: () => "mass",
};
const volume: CheckKind<Of<"volume">> = {
  measure: "volume",
  word: "VOLUME",
  read: () => ({ kind: "volume" }),
  which: () => "",
  figure: (_, part) => part.volume,
  missing: "there is no solid",
  choices: [{ label: "volume", make: { kind: "volume", value: open } }],
  name: () => "volume",
};
const floorArea: CheckKind<Of<"floorArea">> = {
  measure: "area",
  word: "AREA",
  read: (r, names) =>
    r.take("FLOOR", "OF") ? { kind: "floorArea", row: names.idOf(r.whole("the number of a row")) } : null,
  which: (c, names) => `FLOOR OF ${names.numberOf(c.row)}`,
  figure: (c, part) => part.floorArea(c.row) || null,
  missing: "that row leaves no floor",
  ofFaces: true,
  choices: [],
  ofFloor: (row, number) => ({
    label: `area, floor of ${number}`,
    make: { kind: "floorArea", row, value: open },
  }),
  of: (c, rowNumber) => `floor of ${rowNumber(c.row)}`,
  name: (of) => `area ${of}`,
};
const area: CheckKind<Of<"area">> = {
  measure: "area",
  word: "AREA",
  read(r) {
    const of = r.takeOne(areas) ?? r.fail("TOP, BOTTOM, FRONT, BACK, LEFT, RIGHT, ALL or FLOOR OF a row");
    return { kind: "area", of: lower(of) };
  },
  which: (c) => c.of.toUpperCase(),
  figure: (c, part) => (c.of === "all" ? part.surfaceArea : part.faceArea[c.of]),
  missing: "there is no solid",
  choices: areas.map((word) => ({
    label: word === "ALL" ? "whole surface" : `area, ${lower(word)}`,
    make: { kind: "area", of: lower(word), value: open },
  })),
  of: (c) => c.of,
  name: (of) => (of === "all" ? "whole surface" : `area ${of}`),
};
const size: CheckKind<Of<"size">> = {
  measure: "length",
  word: "SIZE",
  read: (r) => ({ kind: "size", of: lower(r.takeOne(axes) ?? r.fail("X, Y or Z")) }),
  which: (c) => c.of.toUpperCase(),
  figure: (c, part) => part.size[c.of],
  missing: "there is no solid",
  most: 0.05,
  choices: axes.map((word) => ({
    label: `size along ${lower(word)}`,
    make: { kind: "size", of: lower(word), value: open },
  })),
  of: (c) => c.of,
  name: (of) => `size ${of}`,
};
const counted = <K extends "edges" | "holes">(kind: K): CheckKind<Of<K>> => ({
  measure: "count",
  word: kind.toUpperCase(),
  read: () => ({ kind }) as Omit<Of<K>, "value" | "tolerance">,
  which: () => "",
  figure: (_, part) => part[kind],
  missing: "there is no solid",
  ofFaces: true,
  choices: [{ label: `number of ${kind}`, make: { kind, value: open } as Of<K> }],
  name: () => `number of ${kind}`,
});

/** A kind by itself, for whoever does not care which it is. */
type AnyKind = CheckKind<CheckValue>;
export const checkKinds: Record<CheckValue["kind"], AnyKind> = {
  mass,
  volume,
  floorArea,
  area,
  size,
  edges: counted("edges"),
  holes: counted("holes"),
};
export const checkKindOf = (c: { kind: CheckValue["kind"] }): AnyKind => checkKinds[c.kind];

/** `CHECK MASS 259.58 g`, `VOLUME 3.21`, `AREA TOP 122`, `AREA FLOOR OF 2 1.5`, `SIZE X 4`, `EDGES 34`, `HOLES 6`. */
export function readCheck(r: Reader, names: RowNames): CheckValue {
  const words = [...new Set(Object.values(checkKinds).map((k) => k.word))];
  const word = r.takeOne(words);
  for (const kind of Object.values(checkKinds).filter((k) => k.word === word)) {
    const which = kind.read(r, names);
    if (!which) continue;
    const number = r.number(
      "value",
      { mass: "a mass", volume: "a volume", area: "an area", length: "a size", count: "a count" }[kind.measure],
    );
    const unit = kind.measure === "mass" ? { unit: lower(r.takeOne(["KG", "G", "LB", "OZ"] as const) ?? "G") } : {};
    const tolerance =
      kind.measure !== "count" && r.take("±") ? { tolerance: r.number("tolerance", "a tolerance") } : {};
    return { ...which, value: number, ...unit, ...tolerance } as CheckValue;
  }
  return r.fail(`${words.slice(0, -1).join(", ")} or ${words[words.length - 1]}`);
}

export function writeCheck(c: CheckValue, names: RowNames): string {
  const kind = checkKindOf(c);
  const parts = ["CHECK", kind.word, kind.which(c, names), inCallout(c.value), "unit" in c ? c.unit : ""];
  const tolerance = "tolerance" in c && c.tolerance !== undefined ? `±${inCallout(c.tolerance)}` : "";
  return [...parts, tolerance].filter(Boolean).join(" ");
}
