import { INCH, type LengthUnit, byFigures } from "../../number";
import { findThread, inchDrills } from "../../tables";
import { plainSigns, tokensOf, type Token } from "./tokens";

/** A number of a printed line with what is said of it. */
export interface Size {
  text: string;
  tag: Tag | null;
  /** Its tolerance as printed, `±.005` or `+.001/-.000`, or its fit. */
  tolerance: string | null;
  /** The word behind it that said what it is, as printed, and what else is said of it. */
  remarks: string[];
  at: number;
}
export type Tag =
  "⌀" | "R" | "OD" | "ID" | "wall" | "centres" | "AF" | "AC" | "long" | "wide" | "high" | "deep" | "angle";

/** Words and signs that say what a number is, before it or behind it. */
const before: Record<string, Tag> = {
  "⌀": "⌀",
  DIA: "⌀",
  DIAMETER: "⌀",
  R: "R",
  RAD: "R",
  RADIUS: "R",
  OD: "OD",
  ID: "ID",
  AF: "AF",
  AC: "AC",
  "↧": "deep",
  DEEP: "deep",
  DP: "deep",
  DEPTH: "deep",
};
const behind: Record<string, Tag> = {
  ...before,
  D: "⌀",
  THK: "high",
  THICK: "high",
  HIGH: "high",
  TALL: "high",
  HT: "high",
  HEIGHT: "high",
  H: "high",
  LG: "long",
  LONG: "long",
  LENGTH: "long",
  L: "long",
  WIDE: "wide",
  WD: "wide",
  WIDTH: "wide",
  W: "wide",
  WALL: "wall",
  CC: "centres",
  CRS: "centres",
  CTRS: "centres",
  CENTERS: "centres",
  CENTRES: "centres",
  "°": "angle",
  DEG: "angle",
  DEGREES: "angle",
};
/** Said before a number that has no other word: `⌀60 LG 85`. */
const ahead: Record<string, Tag> = {
  LG: "long",
  LENGTH: "long",
  WIDTH: "wide",
  HEIGHT: "high",
  THICKNESS: "high",
};
/** `L=60`: a size by its letter. */
const equated: Record<string, Tag> = { L: "long", W: "wide", H: "high", T: "high" };
const across: Record<string, Tag> = { FLATS: "AF", CORNERS: "AC" };
/** Said of a number and without any bearing on it. */
const silent = ["REF", "TYP", "TYPICAL", "NOM", "NOMINAL", "BASIC", "MIN", "MAX"];
/** Letters of the zones holes and shafts usually have; R and S would be radii and sizes. */
const fit = /^(?:JS|[DEFGHKMNP])$/;

/** How prints spell what widens a hole's mouth. */
export const spellings = {
  counterbore: ["CBORE", "⌴", "COUNTERBORE", "CTRBORE", "CNTRBORE"],
  spotface: ["SPOTFACE", "SF", "SFACE"],
  countersink: ["CSK", "⌵", "COUNTERSINK", "CSINK", "CTSK"],
} as const;

/** Goes along a printed line word by word. */
export class Words {
  private i = 0;
  /** The last number that was read as a size. */
  private last: Size | null = null;
  /** Numbers that are printed with a tolerance: each could be a balloon. */
  readonly toleranced: Size[] = [];
  private constructor(
    private readonly line: string,
    private readonly tokens: Token[],
    readonly unit: LengthUnit,
  ) {}

  /** The words of a line; null where a sign in it is none of a callout. */
  static of(typed: string, unit: LengthUnit): Words | null {
    const tokens = tokensOf(typed, unit);
    return tokens && new Words(plainSigns(typed), tokens, unit);
  }

  get done(): boolean {
    return this.i >= this.tokens.length;
  }
  get here(): Token | undefined {
    return this.tokens[this.i];
  }
  private ahead(by: number): Token | undefined {
    return this.tokens[this.i + by];
  }
  next(): Token | undefined {
    return this.tokens[this.i++];
  }
  mark(): number {
    return this.i;
  }
  back(to: number): void {
    this.i = to;
  }
  /** The words since a mark, as they are written. */
  said(from: number): string {
    return this.tokens
      .slice(from, this.i)
      .map((t) => t.text)
      .join(" ");
  }
  /** What is left of the line, as it was typed. */
  rest(): string {
    return this.here ? this.line.slice(this.here.at) : "";
  }

  sees(...words: string[]): boolean {
    return words.every((w, k) => {
      const t = this.ahead(k);
      return t !== undefined && (t.is === "word" || t.is === "sign") && t.text === w;
    });
  }
  /**
   * `50x30`, `50 x 30`: two numbers with an X that is as near to the one as to the other. `4X2` may be four of 2, and
   * is left to the reader of counts.
   */
  seesProduct(): boolean {
    const [a, x, b] = [this.here, this.ahead(1), this.ahead(2)];
    if (a?.is !== "number" || x?.text !== "X" || b?.is !== "number") return false;
    const isMany = x.at === a.end && /^\d+$/.test(a.text) && Number(a.text) <= MOST_COUNTED;
    return !isMany && x.at - a.end === b.at - x.end;
  }
  /** A word that a number stands straight behind. */
  seesAtNumber(word: string): boolean {
    const number = this.ahead(1);
    return this.sees(word) && number?.is === "number" && number.at === this.here!.end;
  }
  take(...words: string[]): boolean {
    if (!this.sees(...words)) return false;
    this.i += words.length;
    return true;
  }
  /** One of several words, said which. */
  takeOne<W extends string>(list: readonly W[]): W | null {
    return list.find((w) => this.take(w)) ?? null;
  }
  thread(): string | null {
    const t = this.here;
    if (t?.is !== "thread" || !findThread(t.text)) return null;
    this.i++;
    return t.text;
  }
  quoted(): string | null {
    if (this.here?.is !== "quoted") return null;
    return this.next()!.text;
  }

  /**
   * A drill by its number or letter, as its diameter: `NO. 7`, `LETTER F`, `F DRILL`. `#7` is a balloon here.
   * Inches in an inch line, with their unit in another.
   */
  drill(): string | null {
    const save = this.i;
    const name = this.drillName();
    const drill = name === null ? undefined : inchDrills.rows.find((d) => d.name === name);
    if (!drill) {
      this.i = save;
      return null;
    }
    const inches = (drill.diameter / INCH)
      .toFixed(5)
      .replace(/^0/, "")
      .replace(/(\.\d{3}\d*?)0+$/, "$1");
    return inches + byFigures(this.unit, { in: "", mm: "in" });
  }
  private drillName(): string | null {
    if (this.takeOne(["NO", "NUMBER"])) {
      const n = this.number();
      return n !== null && /^\d{1,2}$/.test(n) ? `No. ${n}` : null;
    }
    const numbered = this.numberedDrill();
    if (numbered !== null) return numbered;
    const isSaid = this.takeOne(["LETTER", "LTR"]) !== null;
    const t = this.here;
    if (t?.is !== "word" || !/^[A-Z]$/.test(t.text)) return null;
    const follows = this.ahead(1)?.text ?? "";
    const isDrill = (text: string | undefined) => text === "DRILL" || text === "DRILLED";
    // `DRILL F THRU`; a letter that says something of a number is none.
    const isBehind = isDrill(this.ahead(-1)?.text) && !/[DRX]/.test(t.text) && ends.has(follows);
    if (!isSaid && !isDrill(follows) && !isBehind) return null;
    this.i++;
    return t.text;
  }

  /** `DRILL #7 (.201)`: its size says that it is the drill of that number; `#7` alone would be balloon 7. */
  private numberedDrill(): string | null {
    const name = /^#(\d{1,2})$/.exec(this.here?.text ?? "")?.[1];
    const size = /^\((\.\d+)\)$/.exec(this.ahead(1)?.text ?? "")?.[1];
    const drill = inchDrills.rows.find((d) => d.name === `No. ${name}`);
    if (!drill || !size || Math.abs(Number(size) * INCH - drill.diameter) > 1e-6) return null;
    this.i++;
    return drill.name;
  }

  /** A plain number. */
  number(): string | null {
    return this.here?.is === "number" ? this.next()!.text : null;
  }
  /** A coordinate; `±1.25` is two of them. */
  coordinates(): string[] | null {
    const t = this.here;
    if (t?.is === "tolerance" && /^±[\d.]+$/.test(t.text)) {
      this.i++;
      return [t.text.slice(1), `-${t.text.slice(1)}`];
    }
    const one = this.number();
    return one === null ? null : [one];
  }
  /** How often: `4X`, `(4) HOLES`, `4 HOLES`, `4 PLACES`. */
  count(): string | null {
    if (this.here?.measured) return null;
    const save = this.i;
    const n = this.number();
    if (n !== null && /^\(?\d+\)?$|^#\d+$/.test(n)) {
      const bare = n.replace(/[()]/g, "");
      if (this.takeOne(counted)) {
        this.takeOne(["HOLES", "HOLE"]);
        return bare;
      }
      // `4X`: the X stands at the number, and what follows is no second number of a size.
      const t = this.here;
      if (t?.text === "X" && (t.at === this.tokens[save].end || this.ahead(1)?.is !== "number")) {
        this.i++;
        return bare;
      }
      if (/^\(/.test(n)) return bare;
      // `4 X .201 THRU`: of two sizes the second goes through nothing.
      const isThrough = ["THRU", "THROUGH", "DIA", "D"].includes(this.ahead(2)?.text ?? "");
      if (save === 0 && t?.text === "X" && this.ahead(1)?.is === "number" && isThrough && /^\d{1,2}$/.test(n)) {
        this.i++;
        return bare;
      }
      // `4 ⌀.25` at the head of a line: a number and a diameter.
      if (save === 0 && t?.text === "⌀" && /^\d{1,3}$/.test(n) && this.ahead(1)?.is === "number") return bare;
    }
    this.i = save;
    return null;
  }

  /** The first reader that takes what stands here. One that went along and then refused ends it: none reads on from there. */
  firstOf(...readers: (() => boolean)[]): boolean {
    for (const reader of readers) {
      const save = this.i;
      if (reader()) return true;
      if (this.i !== save) return false;
    }
    return false;
  }

  /** A number with what is said of it before and behind. */
  size(): Size | null {
    const save = this.i;
    const letter = this.ahead(1)?.text === "=" ? equated[this.here!.text] : undefined;
    const first = this.here && (letter ?? before[this.here.text] ?? ahead[this.here.text]);
    if (first) {
      this.i++;
      this.take("=");
      if (this.here?.is !== "number") this.take(":");
    }
    const at = this.here?.at ?? 0;
    const limits = this.here?.limits ?? null;
    // A number with a sign of its own is half a tolerance, or a place.
    const text = this.here && /^[+-]/.test(this.here.text) ? null : this.number();
    if (text === null) {
      this.i = save;
      return null;
    }
    const bound = limits ?? this.tolerance();
    const said = this.i;
    // `.38 MIN DEEP`: said of the number before what it is.
    if (!first) while (silent.includes(this.here?.text ?? "") && (this.ahead(1)?.text ?? "") in behind) this.i++;
    const tag = first ? this.sameBehind(first) : this.tagBehind();
    const tolerance = bound ?? this.tolerance();
    const remarks = first
      ? []
      : this.tokens
          .slice(said, this.i)
          .filter((t) => t.is === "word")
          .map((t) => t.text);
    // `R.25 TYP`, `.5 MAX`: said of the number and no part of it.
    while (this.here && silent.includes(this.here.text)) remarks.push(this.next()!.text);
    const size = { text, tag, tolerance, remarks, at };
    const bounded = tolerance ?? remarks.find((r) => r === "MAX" || r === "MIN") ?? null;
    if (bounded && !this.toleranced.some((s) => s.at === at)) this.toleranced.push({ ...size, tolerance: bounded });
    this.last = { ...size, tolerance: bounded };
    return size;
  }

  /** A fit or tolerance behind the word that follows its number: `⌀12 REAM H7`. It is the last number's, which has none yet. */
  fitOfLast(): string | null {
    const isBound = this.here?.is === "word" || this.here?.is === "tolerance";
    if (!this.last || this.last.tolerance !== null || !isBound) return null;
    const fit = this.tolerance();
    if (fit === null) return null;
    this.toleranced.push({ ...this.last, tolerance: fit });
    this.last = null;
    return fit;
  }

  private tolerance(): string | null {
    const t = this.here;
    if (t?.is === "tolerance") return this.next()!.text;
    // `H7`: letters with their grade at once behind them.
    const grade = this.ahead(1);
    if (
      t?.is === "word" &&
      fit.test(t.text) &&
      grade?.is === "number" &&
      grade.at === t.end &&
      /^\d{1,2}$/.test(grade.text)
    ) {
      this.i += 2;
      return this.line.slice(t.at, grade.end);
    }
    return null;
  }
  private tagBehind(): Tag | null {
    const t = this.here;
    if (!t || (t.is !== "word" && t.is !== "sign")) return null;
    if (t.text === "ACROSS" || t.text === "A") {
      const tag = this.ahead(1) && across[this.ahead(1)!.text];
      if (tag) this.i += 2;
      return tag ?? null;
    }
    const tag = behind[t.text];
    // A sign before the next number is that number's.
    if (!tag || ((before[t.text] || ahead[t.text]) && this.isNextNumbers(t))) return null;
    this.i++;
    return tag;
  }
  /**
   * Whether a sign belongs to the number that follows it rather than to the one before: `.5 DEEP .25` is .25 deep,
   * `.4 DEEP .188 R` is .4 deep, for what follows says itself what it is.
   */
  private isNextNumbers(sign: Token): boolean {
    const n = this.ahead(1);
    if (n?.is !== "number") return false;
    if (sign.is === "sign") return true;
    // `60 X 40 R8`: the letter stands at the number it is said of.
    if (sign.at > this.ahead(-1)!.end && n.at === sign.end) return true;
    const then = this.ahead(2)?.text ?? "";
    return !(then in behind) && !counted.includes(then as "HOLES") && !notItsOwn.has(then);
  }
  /** `⌀.5 DIA`, `R.25 RAD`: the same said twice. */
  private sameBehind(tag: Tag): Tag {
    const again = this.here && this.here.is === "word" ? behind[this.here.text] : undefined;
    // `⌀1.5 OD`: the word says more than the sign.
    if (tag === "⌀" && (again === "OD" || again === "ID")) {
      this.i++;
      return again;
    }
    if (again === tag && this.ahead(1)?.is !== "number") this.i++;
    return tag;
  }
}

/** More than so many of a thing are not told from a size by their X. */
const MOST_COUNTED = 24;
/** Behind a number that says how many, or how large a circle is: a word before it is not that number's. */
const notItsOwn = new Set(["X", "BC", "PCD", "BOLT", "B", "CORNERS", "EDGES"]);
/** Whether a word or sign says what a number is: left out, the line would be another. */
export const isTelling = (text: string): boolean =>
  text in before ||
  text in behind ||
  text in ahead ||
  Object.values(spellings).some((s) => (s as readonly string[]).includes(text));
/** What may follow a drill's letter. */
const ends = new Set(["", ",", "THRU", "THROUGH", "↧"]);
const counted = [
  "HOLES",
  "HOLE",
  "PLACES",
  "PLACE",
  "PLCS",
  "PLC",
  "PLS",
  "PL",
  "TIMES",
  "POS",
  "POSITIONS",
  "OFF",
] as const;
