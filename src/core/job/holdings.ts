import { nameText } from "../base/name";
import { z } from "zod";
import type { Reader } from "../grammar/reader";
import { inCallout, numberText, toNumberText, type NumberText } from "../number";
import type { PartKindId } from "./partKinds";

const partName = nameText.min(1);
const grip = { grip: numberText };
/** Direction in which jaws close, as the piece lies in its setup. */
const across = { across: z.enum(["x", "y"]) };

export const viseSchema = z.strictObject({
  fixture: z.literal("vise"),
  ...across,
  /** How deep the part stands in the jaws. */
  ...grip,
  jawWidth: numberText.optional(),
  jawHeight: numberText.optional(),
});
/** How the piece is held in a setup; parts that hold it are named. */
export const holdingSchema = z.discriminatedUnion("fixture", [
  viseSchema,
  z.strictObject({ fixture: z.literal("jaws"), part: partName, ...across, ...grip }),
  z.strictObject({ fixture: z.literal("plate"), part: partName }),
  z.strictObject({
    fixture: z.literal("chuck"),
    ...grip,
    /** Jaws bored for it. */
    bored: partName.optional(),
    /** How deep the stop stands in them. */
    stop: numberText.optional(),
  }),
  z.strictObject({ fixture: z.literal("index"), ...grip }),
]);
export type Holding = z.infer<typeof holdingSchema>;
type Of<K extends Holding["fixture"]> = Extract<Holding, { fixture: K }>;

interface HoldingKind<H extends Holding> {
  word: string;
  /** As it begins: what is on every bench, or made as a part of that name. */
  start(grip: NumberText, part: string): H;
  /** The kind of part that can be made for it. */
  madeAs?: PartKindId;
  /** Whether a card names that part right after its word: it is nothing without one. */
  isThatPart?: true;
  /** What it is called where one is chosen; none where only a part of the job is one. */
  label?: string;
  /** The part of the job that holds; none where what is on every bench does. */
  part(h: H): string | undefined;
  /** Reads a clause of its own, after its word: whether there was one. */
  clause?(r: Reader, h: H): boolean;
  /** What a card writes after its grip. */
  write?(h: H): string;
  /** What holds, in a few words. */
  words(h: H): string;
  /** Lengths that may be said or left out, each with its name in a field. */
  optional: { label: string; of(h: H): NumberText | undefined; with(h: H, text: NumberText | undefined): H }[];
}

const quoted = (text: string): string => `"${text.replace(/"/g, "”")}"`;
const readAcross = (r: Reader, h: { across: "x" | "y" }): boolean => {
  if (!r.take("ACROSS")) return false;
  const word = r.takeOne(["X", "Y"] as const) ?? r.fail("X or Y");
  h.across = word === "X" ? "x" : "y";
  return true;
};
const without = <H extends object>(h: H, key: keyof H): H => {
  const next = { ...h };
  delete next[key];
  return next;
};

const vise: HoldingKind<Of<"vise">> = {
  word: "VISE",
  start: (grip) => ({ fixture: "vise", across: "y", grip }),
  label: "vise, plain jaws",
  part: () => undefined,
  clause: readAcross,
  write: (h) => `ACROSS ${h.across.toUpperCase()}`,
  words: (h) => `vise, plain jaws across ${h.across}`,
  optional: [
    {
      label: "Jaw width",
      of: (h) => h.jawWidth,
      with: (h, jawWidth) => (jawWidth === undefined ? without(h, "jawWidth") : { ...h, jawWidth }),
    },
    {
      label: "Jaw height",
      of: (h) => h.jawHeight,
      with: (h, jawHeight) => (jawHeight === undefined ? without(h, "jawHeight") : { ...h, jawHeight }),
    },
  ],
};
const jaws: HoldingKind<Of<"jaws">> = {
  word: "JAWS",
  start: (grip, part) => ({ fixture: "jaws", part, across: "y", grip }),
  madeAs: "jaws",
  isThatPart: true,
  part: (h) => h.part,
  clause: readAcross,
  write: (h) => `ACROSS ${h.across.toUpperCase()}`,
  words: (h) => `"${h.part}" across ${h.across}`,
  optional: [],
};
const plate: HoldingKind<Of<"plate">> = {
  word: "PLATE",
  start: (_, part) => ({ fixture: "plate", part }),
  madeAs: "plate",
  isThatPart: true,
  part: (h) => h.part,
  words: (h) => `"${h.part}"`,
  optional: [],
};
const chuck: HoldingKind<Of<"chuck">> = {
  word: "CHUCK",
  start: (grip, part) => ({ fixture: "chuck", grip, ...(part ? { bored: part } : {}) }),
  madeAs: "chuckJaws",
  label: "chuck",
  part: (h) => h.bored,
  clause(r, h) {
    if (r.take("BORED")) h.bored = r.quoted().trim();
    else if (r.take("STOP")) h.stop = r.number("hold.stop", "a depth of the stop");
    else return false;
    return true;
  },
  write: (h) =>
    [h.bored ? `BORED ${quoted(h.bored)}` : "", h.stop === undefined ? "" : `STOP ${inCallout(h.stop)}`]
      .filter(Boolean)
      .join(" "),
  words: (h) => (h.bored ? `"${h.bored}"` : "chuck"),
  optional: [
    {
      label: "Stop, deep",
      of: (h) => h.stop,
      with: (h, stop) => (stop === undefined ? without(h, "stop") : { ...h, stop }),
    },
  ],
};
const index: HoldingKind<Of<"index">> = {
  word: "INDEX",
  start: (grip) => ({ fixture: "index", grip }),
  label: "index head",
  part: () => undefined,
  words: () => "index head",
  optional: [],
};

/** A kind by itself, for whoever does not care which it is. */
type AnyKind = HoldingKind<Holding>;
export const holdingKinds: Record<Holding["fixture"], AnyKind> = { vise, jaws, plate, chuck, index };
export const holdingKindOf = (h: Holding): AnyKind => holdingKinds[h.fixture];
/** The part of the job that holds in a setup; none where what is on every bench does. */
export const partThatHolds = (h: Holding | null): string | undefined => (h ? holdingKindOf(h).part(h) : undefined);

/** `VISE GRIP 3 ACROSS Y`, `JAWS "soft jaws" GRIP 5`, `CHUCK GRIP 12 BORED "jaws" STOP 8`: clauses in any order. */
export function readHolding(r: Reader): Holding {
  const kinds = Object.values(holdingKinds);
  const words = kinds.map((k) => k.word);
  const word = r.takeOne(words);
  const kind = kinds.find((k) => k.word === word);
  if (!kind) return r.fail(`${words.slice(0, -1).join(", ")} or ${words[words.length - 1]}`);
  const hold = kind.start(toNumberText("?"), kind.isThatPart ? r.quoted().trim() : "");
  for (;;) {
    if ("grip" in hold && r.take("GRIP")) hold.grip = r.number("hold.grip", "a grip depth");
    else if (!kind.clause?.(r, hold)) return hold;
  }
}

export function writeHolding(h: Holding): string {
  const kind = holdingKindOf(h);
  const part = kind.isThatPart ? quoted(kind.part(h) ?? "") : "";
  const grip = "grip" in h ? `GRIP ${inCallout(h.grip)}` : "";
  return [kind.word, part, grip, kind.write?.(h) ?? ""].filter(Boolean).join(" ");
}

/** How a setup holds, in a line. */
export function holdingWords(h: Holding | null): string {
  if (!h) return "not held yet";
  return `${holdingKindOf(h).words(h)}${"grip" in h ? `, grip ${h.grip}` : ""}`;
}
