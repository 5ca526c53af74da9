import { unkeepableIn, unkeepableWords } from "../base/keepable";
import { CHOSEN, CITED, NumberSyntaxError, readExpression, toNumberText, UNKNOWN, type NumberText } from "../number";

/** Thrown inside the callout reader only; card.ts turns it into `{ line, column, message, expected }`. */
export class CalloutError extends Error {
  constructor(
    readonly at: number,
    message: string,
    readonly expected: string,
    /** The nearest line to what was typed that would be understood. */
    readonly instead?: string,
  ) {
    super(message);
  }
}

/** Spellings of one word; the first is canonical. Symbols and words are equal. */
const spellings: Record<string, string[]> = {
  "⌀": ["⌀", "Ø", "∅", "DIA", "D"],
  DEEP: ["DEEP", "↧", "DP"],
  CBORE: ["CBORE", "⌴"],
  CSK: ["CSK", "⌵"],
  "±": ["±", "+-", "+/-"],
  "°": ["°", "DEG"],
  X: ["X", "×"],
  THRU: ["THRU", "THROUGH"],
};
const limitPair = /^\d*\.\d+\/\d*\.\d+$/;
const isLetter = (c: string | undefined) => c !== undefined && /[A-Za-z_]/.test(c);

/** Reads one line of a card, word by word, and remembers where each number stood. @throws CalloutError */
export class Reader {
  pos = 0;
  /** Offset of each number, by its path in the row. */
  readonly marks = new Map<string, number>();
  /**
   * @param named values the job has given names to, in lower case, which may stand where a number may; and balloons
   * that print a thread, as `#9`
   */
  constructor(
    readonly text: string,
    readonly named: ReadonlySet<string> = new Set(),
  ) {
    const found = unkeepableIn(text);
    if (found) throw new CalloutError(found.at, unkeepableWords(found), "text that can be kept");
  }

  skip(): void {
    while (this.text[this.pos] === " " || this.text[this.pos] === "\t") this.pos++;
  }
  get done(): boolean {
    this.skip();
    return this.pos >= this.text.length;
  }
  /** The word or symbol at the reading point, for messages. */
  get here(): string {
    this.skip();
    const m = /^([A-Za-z_]+|[^\sA-Za-z_][^\s]*)/.exec(this.text.slice(this.pos));
    return m ? m[0].slice(0, 30) : "";
  }
  fail(expected: string, message?: string, at?: number): never {
    this.skip();
    const word = this.here;
    throw new CalloutError(
      at ?? this.pos,
      message ?? (word ? `${JSON.stringify(word)} is not understood here` : "the line ends too early"),
      expected,
    );
  }

  /** Length of `word` at offset `at`, or 0. A word ends where letters end; digits may follow at once (`R.25`, `X2`). */
  private measure(word: string, at: number): number {
    for (const s of spellings[word] ?? [word]) {
      const piece = this.text.slice(at, at + s.length);
      if (piece.toUpperCase() !== s) continue;
      if (isLetter(s[s.length - 1]) && isLetter(this.text[at + s.length])) continue;
      return s.length;
    }
    return 0;
  }
  /** Whether the words stand at the reading point, one after the other. */
  sees(...words: string[]): boolean {
    this.skip();
    let at = this.pos;
    for (const w of words) {
      while (this.text[at] === " " || this.text[at] === "\t") at++;
      const l = this.measure(w, at);
      if (!l) return false;
      at += l;
    }
    return true;
  }
  take(...words: string[]): boolean {
    if (!this.sees(...words)) return false;
    for (const w of words) {
      this.skip();
      this.pos += this.measure(w, this.pos);
    }
    return true;
  }
  want(word: string, expected = word): void {
    if (!this.take(word)) this.fail(expected);
  }
  /** Takes one of several words and says which. */
  takeOne<T extends string>(words: readonly T[]): T | null {
    return words.find((w) => this.take(w)) ?? null;
  }

  /** Whether the word at the reading point is a named value. */
  private seesName(): boolean {
    const word = /^[A-Za-z_][A-Za-z0-9_]*/.exec(this.text.slice(this.pos, this.pos + 60));
    return word !== null && this.named.has(word[0].toLowerCase());
  }

  /** Whether a number could start here. */
  seesNumber(): boolean {
    this.skip();
    const c = this.text[this.pos];
    if (this.named.size > 0 && this.seesName()) return true;
    return (
      c !== undefined &&
      (/[0-9.(#`?]/.test(c) ||
        ((c === "-" || c === "+") && /[0-9.(#]/.test(this.text[this.pos + 1] ?? "")) ||
        /^(sqrt|a?sin|a?cos|a?tan2?|abs|min|max)\(/i.test(this.text.slice(this.pos, this.pos + 6)))
    );
  }
  /** Reads one number and keeps its text; `path` remembers the place for later findings. */
  number(path: string, expected = "a number"): NumberText {
    this.skip();
    const start = this.pos;
    this.marks.set(path, start);
    const c = this.text[start];
    if (c === UNKNOWN) {
      this.pos++;
      return UNKNOWN as NumberText;
    }
    if (c === "`") {
      const close = this.text.indexOf("`", start + 1);
      if (close < 0) this.fail("a closing `", "a back quote is open");
      this.pos = close + 1;
      return this.text.slice(start + 1, close) as NumberText;
    }
    if (c === undefined || (!/[0-9.(#+-]/.test(c) && !this.seesNumber())) this.fail(expected);
    try {
      const { node, end } = readExpression(this.text, start, false);
      if (node.kind === "name" && c !== "(" && !this.seesName()) this.fail(expected, undefined, start);
      this.pos = end;
    } catch (e) {
      if (e instanceof NumberSyntaxError)
        throw new CalloutError(e.problem.at, e.problem.message, e.problem.expected ?? expected);
      throw e;
    }
    if (this.text[this.pos] === CHOSEN) this.pos++;
    else if (this.text[this.pos] === "{") {
      const close = this.text.indexOf("}", this.pos);
      if (close < 0 || !CITED.test(this.text.slice(start, close + 1))) this.fail("a closing }", "a brace is open");
      this.pos = close + 1;
    }
    const text = this.text.slice(start, this.pos);
    // On a print two decimals parted by a stroke are limits, and never a division.
    if (limitPair.test(text))
      throw new CalloutError(
        start,
        `${text} can be two limits or a division`,
        `one number, or (${text}) for the division`,
      );
    return toNumberText(text);
  }
  /** An angle: a number with an optional degree sign. */
  angle(path: string): NumberText {
    const n = this.number(path, "an angle in degrees");
    this.take("°");
    return n;
  }
  /** A diameter: its sign may be left out. */
  diameter(path: string): NumberText {
    this.take("⌀");
    return this.number(path, "a diameter");
  }
  /** A name in double quotes. */
  quoted(most = Infinity): string {
    this.skip();
    const open = this.pos;
    if (this.text[this.pos] !== '"') this.fail("a name in double quotes");
    const close = this.text.indexOf('"', this.pos + 1);
    if (close < 0) this.fail('a closing "', "a quote is open", this.pos);
    const s = this.text.slice(this.pos + 1, close);
    if (s.trim().length > most)
      this.fail(`at most ${most} letters`, `${s.trim().length} letters are more than can be kept`, open);
    this.pos = close + 1;
    return s;
  }
  /** A plain whole number, such as the row a plane belongs to. */
  whole(expected: string): number {
    this.skip();
    const m = /^\d{1,5}/.exec(this.text.slice(this.pos));
    if (!m) this.fail(expected);
    this.pos += m![0].length;
    return Number(m![0]);
  }
}
