import { nameText } from "../../base/name";
import type { Meaning } from "../../grammar/grammar";
import { z } from "zod";
import type { RowNames } from "../../grammar/grammar";
import type { Reader } from "../../grammar/reader";
import { v2, type Vec2 } from "../../geometry/vec";
import { inCallout, numberText, type NumberText, type Quantity } from "../../number";
import { ok, type Result } from "../../base/result";
import { oriented, type Region } from "../boolean";
import type { Made } from "../chains";
import type { EvaluatedOutline } from "../evaluateOutline";
import type { PartItem } from "../fromPart";
import { moved } from "../shapes";
import type { Wire } from "../wire";

/** `diameter`: x is typed as a diameter, as turned profiles are; half of it is meant. */
export const xy = z.strictObject({ x: numberText, y: numberText, diameter: z.literal(true).optional() });
export const some = z.strictObject({
  x: numberText.optional(),
  y: numberText.optional(),
  diameter: z.literal(true).optional(),
});
export type XY = z.infer<typeof xy>;
export type Some = z.infer<typeof some>;
export const place = { at: xy.optional(), turn: numberText.optional() };
export interface Placed {
  at?: XY;
  turn?: NumberText;
}
export const rowRef = z.string().min(1).max(64);
export const outlineName = nameText.min(1);

/** One number of an outline's line: what it is, and where it stands in the line. */
export interface ItemNumber {
  at: (string | number)[];
  label: string;
  quantity: Quantity;
  means: Extract<Meaning, "length" | "diameter" | "radius" | "angle" | "repeat">;
  text: NumberText;
}

/** What a line works on: what stands so far, and where numbers, other outlines and the part come from. */
export interface Work {
  now: Made;
  wire: Wire | null;
  /** Value of a number, null where it fails (and has been said). */
  num(t: NumberText, q: Quantity): number | null;
  get(name: string): Result<EvaluatedOutline>;
  fromPart(want: PartItem): Result<Region>;
}

/** A line to start from, and what it is for. */
export interface Example {
  text: string;
  /** The same of an inch job, where it has a length in it. */
  inch?: string;
  what: string;
}
export type Group = "steps" | "relations and dimensions" | "shapes" | "made from others" | "corners and chains";

/**
 * A kind of line of an outline: everything that is known of it.
 * `read` is asked where one of its words stands, and gives null where the line is another kind's after all.
 * `apply` says what it does to what stands so far; null where there is nothing to do. Lines of the walk have none: they are
 * solved together.
 */
export interface OutlineLine<I extends { item: string }> {
  schema: z.ZodType<I>;
  /** What is said when a line starts with nothing that is known. */
  words: string;
  group: Group;
  examples: Example[];
  read(r: Reader, names: RowNames): I | null;
  write(i: I, names: RowNames): string;
  numbers(i: I, put: Put): void;
  /** The field that names another outline it is made with. */
  uses?: "outline" | "against";
  apply?(i: I, work: Work): Result<Made> | null;
}

// Reading.
const round = (r: Reader) => (r.take("⌀") ? { diameter: true as const } : {});
export function readPoint(r: Reader, path: string): XY {
  const diameter = round(r);
  const x = r.number(`${path}.x`, "a coordinate x");
  r.skip();
  if (r.text[r.pos] !== ",") r.fail("a comma and y");
  r.pos++;
  return { x, y: r.number(`${path}.y`, "a coordinate y"), ...diameter };
}
/** `10,20`, or only what changes: `X 10`, `Y 20`. */
export function readSome(r: Reader, path: string): Some {
  if (r.take("X")) {
    const diameter = round(r);
    return {
      x: r.number(`${path}.x`, "a coordinate x"),
      ...diameter,
      ...(r.take("Y") ? { y: r.number(`${path}.y`, "a coordinate y") } : {}),
    };
  }
  if (r.take("Y")) return { y: r.number(`${path}.y`, "a coordinate y") };
  return readPoint(r, path);
}
export function readName(r: Reader): string {
  const name = r.quoted(120).trim();
  if (!name) r.fail("the name of an outline");
  return name;
}
export function readPlaced(r: Reader): Placed {
  const out: Placed = {};
  for (;;) {
    if (r.take("AT")) out.at = readPoint(r, "at");
    else if (r.take("TURN")) out.turn = r.angle("turn");
    else return out;
  }
}
export function readRow(r: Reader, names: RowNames, word: "OF" | "AFTER"): string {
  r.want(word);
  return names.idOf(r.whole("the number of a row"));
}

/** The part another outline line takes from, and the row after which: as it is finished where none is said. */
export const partRef = {
  part: nameText.min(1).optional(),
  /** As this setup left it: 0 is the stock. */
  setup: z.number().int().min(0).max(9999).optional(),
};
export const FINISHED = "end";
export interface OfPart {
  part?: string;
  row: string;
  setup?: number;
}
const noRows: Pick<RowNames, "idOf"> = { idOf: (n) => `gone-${n}` };
/** `AFTER 4`, `OF 2`, `OF "clamp"`, `OF "clamp" AFTER 4`, `OF "clamp" AFTER SETUP 10`. */
export function readOfPart(r: Reader, names: RowNames, word: "OF" | "AFTER"): OfPart {
  const isPart = /^OF\s*"/i.test(r.text.slice((r.skip(), r.pos)));
  if (!isPart) return { row: readRow(r, names, word) };
  r.want("OF");
  const part = r.quoted(120).trim();
  // Of a part that is not there nothing can be taken: the line says so when it is made.
  const rows = names.ofPart?.(part) ?? noRows;
  if (r.take("AFTER", "SETUP"))
    return { part, row: FINISHED, setup: r.whole("the number of a setup, or 0 for the stock") };
  const after = r.takeOne(["AFTER", "ROW"] as const);
  return { part, row: after ? rows.idOf(r.whole("the number of a row")) : FINISHED };
}
export function writeOfPart(i: OfPart, names: RowNames, word: "OF" | "AFTER"): string {
  if (i.part === undefined) return `${word} ${names.numberOf(i.row)}`;
  const of = `OF ${writeName(i.part)}`;
  if (i.setup !== undefined) return `${of} AFTER SETUP ${i.setup}`;
  if (i.row === FINISHED) return of;
  return `${of} ${word === "OF" ? "ROW" : "AFTER"} ${names.ofPart?.(i.part)?.numberOf(i.row) ?? 0}`;
}
/** What an item takes of another part, for the part's own lines. */
export const partOf = ({ part, row, setup }: OfPart): OfPart =>
  part === undefined ? { row } : { part, row, ...(setup === undefined ? {} : { setup }) };

// Writing.
export const n = (t: NumberText): string => inCallout(t);
const dia = (p: { diameter?: true }) => (p.diameter ? "⌀" : "");
export const writeXY = (p: XY): string => `${dia(p)}${n(p.x)},${n(p.y)}`;
export function writeSome(p: Some): string {
  if (p.x !== undefined && p.y !== undefined) return `${dia(p)}${n(p.x)},${n(p.y)}`;
  return p.x !== undefined ? `X ${dia(p)}${n(p.x)}` : `Y ${n(p.y!)}`;
}
export const writePlaced = (p: Placed): string =>
  `${p.at ? ` AT ${writeXY(p.at)}` : ""}${p.turn === undefined ? "" : ` TURN ${n(p.turn)}`}`;
export const writeName = (t: string): string => `"${t.replace(/"/g, "”")}"`;
/** A mark and a number where there is one. */
export const writeIf = (mark: string, t: NumberText | undefined): string => (t === undefined ? "" : `${mark}${n(t)}`);

// Numbers.
type Maybe<T> = T | undefined;
/** Takes down a line's numbers, kind by kind: nothing else of a line is ever taken for one. */
export class Put {
  readonly found: ItemNumber[] = [];
  private one(means: ItemNumber["means"], quantity: Quantity, text: Maybe<NumberText>, at: (string | number)[]): void {
    if (text !== undefined) this.found.push({ at, label: String(at[at.length - 1]), quantity, means, text });
  }
  length(text: Maybe<NumberText>, ...at: (string | number)[]): void {
    this.one("length", "coordinate", text, at);
  }
  diameter(text: Maybe<NumberText>, ...at: (string | number)[]): void {
    this.one("diameter", "coordinate", text, at);
  }
  radius(text: Maybe<NumberText>, ...at: (string | number)[]): void {
    this.one("radius", "coordinate", text, at);
  }
  angle(text: Maybe<NumberText>, ...at: (string | number)[]): void {
    this.one("angle", "angle", text, at);
  }
  count(text: Maybe<NumberText>, ...at: (string | number)[]): void {
    this.one("repeat", "count", text, at);
  }
  spot(p: Maybe<Some>, ...at: (string | number)[]): void {
    if (!p) return;
    if (p.diameter) this.diameter(p.x, ...at, "x");
    else this.length(p.x, ...at, "x");
    this.length(p.y, ...at, "y");
  }
  placed(p: Placed): void {
    this.spot(p.at, "at");
    this.angle(p.turn, "turn");
  }
}

// Doing.
/** All of them, or null where one failed. */
export const all = <T extends number[]>(...v: { [K in keyof T]: T[K] | null }): T | null =>
  v.some((x) => x === null) ? null : (v as T);
export function spotOf(p: XY, { num }: Pick<Work, "num">): Vec2 | null {
  const v = all<[number, number]>(num(p.x, "coordinate"), num(p.y, "coordinate"));
  return v && v2(p.diameter ? v[0] / 2 : v[0], v[1]);
}
interface Stand {
  at: Vec2;
  turn: number;
}
export const HERE: Stand = { at: v2(0, 0), turn: 0 };
export function standOf(p: Placed, work: Pick<Work, "num">): Stand | null {
  const at = p.at ? spotOf(p.at, work) : v2(0, 0);
  const turn = p.turn === undefined ? 0 : work.num(p.turn, "angle");
  return at && turn !== null ? { at, turn } : null;
}
/** What a line makes, put where it stands beside what is there. */
export function added(made: Result<Region>, stand: Stand | null, { now }: Pick<Work, "now">): Result<Made> | null {
  if (!stand) return null;
  return made.ok ? ok({ ...now, region: oriented([...now.region, ...moved(made.value, stand.at, stand.turn)]) }) : made;
}
/** What a line makes of numbers, where all of them are there. */
export const from = <T>(v: T | null, make: (v: T) => Result<Made> | null): Result<Made> | null =>
  v === null ? null : make(v);
export const closed = (m: Made): Made => ({ region: oriented(m.region), open: m.open });
