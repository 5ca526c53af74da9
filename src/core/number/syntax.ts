import type { Problem } from "../base/result";

/** A number as it was typed, read into a small tree. Positions are offsets into the whole text. */
export type Node =
  | { kind: "literal"; value: number; unit?: "mm" | "in" | "dms"; at: number }
  | { kind: "balloon"; number: number; at: number }
  | { kind: "name"; name: string; at: number }
  | { kind: "unary"; operator: "-" | "+"; of: Node; at: number }
  | { kind: "binary"; operator: "+" | "-" | "*" | "/" | "^"; left: Node; right: Node; at: number }
  | { kind: "call"; name: string; args: Node[]; at: number }
  | { kind: "unit"; unit: "mm" | "in"; of: Node; at: number };

/** Thrown inside the reader only; never leaves this folder or the callout reader. */
export class NumberSyntaxError extends Error {
  constructor(readonly problem: Problem & { at: number }) {
    super(problem.message);
  }
}

const functions: Record<string, number | "many"> = {
  sqrt: 1,
  sin: 1,
  cos: 1,
  tan: 1,
  asin: 1,
  acos: 1,
  atan: 1,
  abs: 1,
  atan2: 2,
  min: "many",
  max: "many",
};
const decimal = /\d+\.?\d*|\.\d+/y;
const MAX_DEPTH = 60;

/**
 * Reads one expression from `text` at `start`.
 * `spaced` allows blanks between its parts; in a callout they are allowed only inside brackets.
 * @returns the tree and the offset after it
 * @throws NumberSyntaxError with the offset at fault
 */
export function readExpression(text: string, start: number, spaced: boolean): { node: Node; end: number } {
  const reader = new ExpressionReader(text, start, spaced);
  const node = reader.sum();
  return { node, end: reader.pos };
}

/** Goes down an expression by the rank of its operators: sum, product, sign, power, and what stands by itself. */
class ExpressionReader {
  private brackets = 0;
  private calls = 0;
  private depth = 0;
  constructor(
    private text: string,
    public pos: number,
    private spaced: boolean,
  ) {}

  private bad(message: string, expected = "a number", at = this.pos): never {
    throw new NumberSyntaxError({ message, expected, at });
  }
  private get here(): string | undefined {
    return this.text[this.pos];
  }
  private get blanksAllowed(): boolean {
    return this.spaced || this.brackets > 0;
  }
  private blanks(): void {
    if (this.blanksAllowed) while (this.here === " " || this.here === "\t") this.pos++;
  }
  private match(re: RegExp): RegExpExecArray | null {
    re.lastIndex = this.pos;
    return re.exec(this.text);
  }
  private deeper<T>(what: string, read: () => T): T {
    if (++this.depth > MAX_DEPTH) this.bad(what);
    const value = read();
    this.depth--;
    return value;
  }

  sum(): Node {
    let left = this.product();
    for (;;) {
      const operator = this.operator("+", "-");
      if (!operator) return left;
      left = { kind: "binary", operator: operator.sign, left, right: this.product(), at: operator.at };
    }
  }

  private product(): Node {
    let left = this.signed("");
    for (;;) {
      const operator = this.operator("*", "/");
      if (!operator) return left;
      left = { kind: "binary", operator: operator.sign, left, right: this.signed(operator.sign), at: operator.at };
    }
  }

  private signed(previous: string): Node {
    this.blanks();
    const at = this.pos;
    const c = this.here;
    if (c !== "-" && c !== "+") return this.power(previous);
    return this.deeper("too many signs", () => {
      this.pos++;
      return { kind: "unary", operator: c, of: this.signed(""), at };
    });
  }

  /** `a^b`, from the right: 2^3^2 is 2^9. */
  private power(previous: string): Node {
    const left = this.primary(previous);
    const operator = this.operator("^");
    if (!operator) return left;
    const right = this.deeper("too many powers", () => this.signed("^"));
    return { kind: "binary", operator: "^", left, right, at: operator.at };
  }

  /** One of some operators, past the blanks before it; the reading point stays where there is none. */
  private operator<S extends string>(...signs: S[]): { sign: S; at: number } | null {
    const save = this.pos;
    this.blanks();
    const sign = signs.find((s) => s === this.here);
    if (sign) return { sign, at: this.pos++ };
    this.pos = save;
    return null;
  }

  /** What stands by itself: a bracket, a balloon, a number, a function or a name; and the unit after it. */
  private primary(previous: string): Node {
    return this.deeper("too many brackets inside one another", () => {
      this.blanks();
      const at = this.pos;
      const c = this.here;
      const node = this.alone(c, previous);
      if (node.kind === "literal" && c !== "(") return node;
      const u = this.unitAt();
      if (!u || u.unit === "thou") return node;
      this.pos += u.length;
      return { kind: "unit", unit: u.unit, of: node, at };
    });
  }

  private alone(c: string | undefined, previous: string): Node {
    if (c === undefined) return this.bad("a number is missing");
    if (c === "(") return this.bracketed();
    if (c === "#") return this.balloon();
    if (/[A-Za-z_]/.test(c)) return this.word();
    if (!/[0-9.]/.test(c)) return this.bad(`${JSON.stringify(c)} is no number`);
    if (c === "." && !/[0-9]/.test(this.text[this.pos + 1] ?? "")) this.bad("a point alone is no number");
    return this.literal(previous);
  }

  private bracketed(): Node {
    this.pos++;
    this.brackets++;
    const node = this.sum();
    this.close();
    return node;
  }

  /** The bracket that ends what one began. */
  private close(): void {
    this.blanks();
    if (this.here === "!") this.bad("the ! of an own choice stands at the end of the whole number", "(…)!");
    if (this.here !== ")") this.bad("a bracket is open", ")");
    this.pos++;
    this.brackets--;
  }

  private balloon(): Node {
    const at = this.pos;
    const m = this.match(/#(\d{1,4})/y);
    if (!m) return this.bad("a balloon is # and its number", "a balloon such as #4", at + 1);
    this.pos += m[0].length;
    return { kind: "balloon", number: Number(m[1]), at };
  }

  private word(): Node {
    const at = this.pos;
    const word = this.match(/[A-Za-z_][A-Za-z0-9_]*/y)![0];
    this.pos += word.length;
    if (this.here !== "(") return { kind: "name", name: word, at };
    return this.called(word, at);
  }

  private called(word: string, at: number): Node {
    const name = word.toLowerCase();
    const arity = functions[name];
    if (arity === undefined) this.bad(`${word} is no function`, Object.keys(functions).join(", "), at);
    this.pos++;
    this.brackets++;
    this.calls++;
    const args: Node[] = [this.sum()];
    this.blanks();
    while (this.here === ",") {
      this.pos++;
      args.push(this.sum());
      this.blanks();
    }
    this.close();
    this.calls--;
    if (arity !== "many" && args.length !== arity)
      this.bad(`${name} takes ${arity} number${arity === 1 ? "" : "s"}`, `${name}(…)`, at);
    return { kind: "call", name, args, at };
  }

  /** Unit letters straight after a number, or after blanks where blanks are allowed (`375 thou`). */
  private unitAt(): { unit: "mm" | "in" | "thou"; length: number } | null {
    const m = this.match(
      this.blanksAllowed ? /[ \t]*(thou|mm|in)(?![A-Za-z0-9_])/iy : /(thou|mm|in)(?![a-wyzA-WYZ_])/iy,
    );
    return m ? { unit: m[1].toLowerCase() as "mm" | "in" | "thou", length: m[0].length } : null;
  }

  private literal(previous: string): Node {
    const at = this.pos;
    const read = this.angle(at) ?? (previous === "/" ? null : (this.mixed(at) ?? this.fraction(at)));
    return read ?? this.decimal(at);
  }

  /** A number with the unit that may follow it. */
  private withUnit(value: number, at: number): Node {
    if (!Number.isFinite(value)) this.bad("this number is too large", "a number that fits a workshop", at);
    const u = this.unitAt();
    if (!u) return { kind: "literal", value, at };
    this.pos += u.length;
    return u.unit === "thou"
      ? { kind: "literal", value: value / 1000, unit: "in", at }
      : { kind: "literal", value, unit: u.unit, at };
  }

  /** 1°26'16", 1d26m16s: an angle in degrees, minutes, seconds. */
  private angle(at: number): Node | null {
    const dms =
      this.match(/(\d+)(?:°|d)(?:(\d+)(?:'|′|m(?!m)))(?:(\d+(?:\.\d+)?)(?:"|″|s))?/y) ?? this.match(/(\d+)d(?![a-z])/y);
    if (!dms) return null;
    this.pos += dms[0].length;
    const minutes = Number(dms[2] ?? 0),
      seconds = Number(dms[3] ?? 0);
    if (minutes >= 60 || seconds >= 60) this.bad("minutes and seconds stay below 60", "an angle such as 1°26'16\"", at);
    return { kind: "literal", value: Number(dms[1]) + minutes / 60 + seconds / 3600, unit: "dms", at };
  }

  /** A mixed number: 1-1/2 without blanks, or 1 1/2 with them. */
  private mixed(at: number): Node | null {
    const mixed = this.match(
      this.blanksAllowed ? /(\d+)(?:-|[ \t]+)(\d+)\/(\d+)(?![\d.])/y : /(\d+)-(\d+)\/(\d+)(?![\d.])/y,
    );
    if (!mixed) return null;
    const [whole, top, bottom] = [Number(mixed[1]), Number(mixed[2]), Number(mixed[3])];
    if (bottom === 0) this.bad("division by zero", "a fraction such as 1/2", at + mixed[0].indexOf("/"));
    if (top >= bottom)
      this.bad(
        `${mixed[0]} is no mixed number: ${top}/${bottom} is not less than one`,
        "a mixed number such as 1-1/2; a subtraction is written with blanks: (1 - 3/2)",
        at,
      );
    this.pos += mixed[0].length;
    return this.withUnit(whole + top / bottom, at);
  }

  private fraction(at: number): Node | null {
    const fraction = this.match(/(\d+)\/(\d+)(?![\d.])/y);
    if (!fraction) return null;
    if (Number(fraction[2]) === 0) this.bad("division by zero", "a fraction such as 3/8", at + fraction[1].length);
    this.pos += fraction[0].length;
    return this.withUnit(Number(fraction[1]) / Number(fraction[2]), at);
  }

  private decimal(at: number): Node {
    const plain = this.match(decimal)!;
    this.pos += plain[0].length;
    if (/[.0-9]/.test(this.here ?? "")) this.bad("a number has one decimal point", "a number such as 1.25");
    const read = this.withUnit(Number(plain[0]), at);
    // Functions take degrees: the sign may be written.
    if (this.calls > 0 && this.here === "°") this.pos++;
    return read;
  }
}
