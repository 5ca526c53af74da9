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
  let pos = start;
  let brackets = 0;
  let calls = 0;
  let depth = 0;

  const bad = (message: string, expected = "a number", at = pos): never => {
    throw new NumberSyntaxError({ message, expected, at });
  };
  const blanks = () => {
    if (spaced || brackets > 0) while (text[pos] === " " || text[pos] === "\t") pos++;
  };
  const match = (re: RegExp): RegExpExecArray | null => {
    re.lastIndex = pos;
    return re.exec(text);
  };

  /** Unit letters straight after a number, or after blanks where blanks are allowed (`375 thou`). */
  const unitAt = (): { unit: "mm" | "in" | "thou"; length: number } | null => {
    const m = match(
      spaced || brackets > 0 ? /[ \t]*(thou|mm|in)(?![A-Za-z0-9_])/iy : /(thou|mm|in)(?![a-wyzA-WYZ_])/iy,
    );
    return m ? { unit: m[1].toLowerCase() as "mm" | "in" | "thou", length: m[0].length } : null;
  };

  const literal = (previous: string): Node => {
    const at = pos;
    const number = (value: number): Node => {
      if (!Number.isFinite(value)) bad("this number is too large", "a number that fits a workshop", at);
      const u = unitAt();
      if (!u) return { kind: "literal", value, at };
      pos += u.length;
      return u.unit === "thou"
        ? { kind: "literal", value: value / 1000, unit: "in", at }
        : { kind: "literal", value, unit: u.unit, at };
    };
    // 1°26'16", 1d26m16s: an angle in degrees, minutes, seconds
    const dms = match(/(\d+)(?:°|d)(?:(\d+)(?:'|′|m(?!m)))(?:(\d+(?:\.\d+)?)(?:"|″|s))?/y) ?? match(/(\d+)d(?![a-z])/y);
    if (dms) {
      pos += dms[0].length;
      const minutes = Number(dms[2] ?? 0),
        seconds = Number(dms[3] ?? 0);
      if (minutes >= 60 || seconds >= 60) bad("minutes and seconds stay below 60", "an angle such as 1°26'16\"", at);
      return { kind: "literal", value: Number(dms[1]) + minutes / 60 + seconds / 3600, unit: "dms", at };
    }
    // A mixed number: 1-1/2 without blanks, or 1 1/2 with them
    const mixed = match(
      spaced || brackets > 0 ? /(\d+)(?:-|[ \t]+)(\d+)\/(\d+)(?![\d.])/y : /(\d+)-(\d+)\/(\d+)(?![\d.])/y,
    );
    if (mixed && previous !== "/") {
      const [whole, top, bottom] = [Number(mixed[1]), Number(mixed[2]), Number(mixed[3])];
      const fractionAt = pos + mixed[0].indexOf("/");
      if (bottom === 0) bad("division by zero", "a fraction such as 1/2", fractionAt);
      if (top >= bottom)
        bad(
          `${mixed[0]} is no mixed number: ${top}/${bottom} is not less than one`,
          "a mixed number such as 1-1/2; a subtraction is written with blanks: (1 - 3/2)",
          at,
        );
      pos += mixed[0].length;
      return number(whole + top / bottom);
    }
    const fraction = match(/(\d+)\/(\d+)(?![\d.])/y);
    if (fraction && previous !== "/") {
      if (Number(fraction[2]) === 0) bad("division by zero", "a fraction such as 3/8", pos + fraction[1].length);
      pos += fraction[0].length;
      return number(Number(fraction[1]) / Number(fraction[2]));
    }
    const plain = match(decimal)!;
    pos += plain[0].length;
    if (text[pos] === "." || /[0-9]/.test(text[pos] ?? ""))
      bad("a number has one decimal point", "a number such as 1.25");
    const read = number(Number(plain[0]));
    // Functions take degrees: the sign may be written.
    if (calls > 0 && text[pos] === "°") pos++;
    return read;
  };

  const primary = (previous: string): Node => {
    if (++depth > MAX_DEPTH) bad("too many brackets inside one another");
    blanks();
    const at = pos;
    const c = text[pos];
    let node: Node;
    if (c === "(") {
      pos++;
      brackets++;
      node = sum();
      blanks();
      if (text[pos] !== ")")
        bad(
          text[pos] === "!" ? "the ! of an own choice stands at the end of the whole number" : "a bracket is open",
          text[pos] === "!" ? "(…)!" : ")",
        );
      pos++;
      brackets--;
    } else if (c === "#") {
      const m = match(/#(\d{1,4})/y);
      if (!m) bad("a balloon is # and its number", "a balloon such as #4", pos + 1);
      pos += m![0].length;
      node = { kind: "balloon", number: Number(m![1]), at };
    } else if (c !== undefined && /[0-9.]/.test(c)) {
      if (c === "." && !/[0-9]/.test(text[pos + 1] ?? "")) bad("a point alone is no number");
      node = literal(previous);
    } else if (c !== undefined && /[A-Za-z_]/.test(c)) {
      const word = match(/[A-Za-z_][A-Za-z0-9_]*/y)![0];
      const name = word.toLowerCase();
      if (text[pos + word.length] === "(") {
        const arity = functions[name];
        if (arity === undefined) bad(`${word} is no function`, Object.keys(functions).join(", "));
        pos += word.length + 1;
        brackets++;
        calls++;
        const args: Node[] = [sum()];
        blanks();
        while (text[pos] === ",") {
          pos++;
          args.push(sum());
          blanks();
        }
        if (text[pos] !== ")")
          bad(
            text[pos] === "!" ? "the ! of an own choice stands at the end of the whole number" : "a bracket is open",
            text[pos] === "!" ? "(…)!" : ")",
          );
        pos++;
        brackets--;
        calls--;
        if (arity !== "many" && args.length !== arity)
          bad(`${name} takes ${arity} number${arity === 1 ? "" : "s"}`, `${name}(…)`, at);
        node = { kind: "call", name, args, at };
      } else {
        pos += word.length;
        node = { kind: "name", name: word, at };
      }
    } else {
      return bad(c === undefined ? "a number is missing" : `${JSON.stringify(c)} is no number`);
    }
    if (node.kind !== "literal" || c === "(") {
      const u = unitAt();
      if (u && u.unit !== "thou") {
        pos += u.length;
        node = { kind: "unit", unit: u.unit, of: node, at };
      }
    }
    depth--;
    return node;
  };
  /** `a^b`, from the right: 2^3^2 is 2^9. */
  const power = (previous: string): Node => {
    const base = primary(previous);
    const save = pos;
    blanks();
    if (text[pos] !== "^") {
      pos = save;
      return base;
    }
    const at = pos++;
    if (++depth > MAX_DEPTH) bad("too many powers");
    const right = signed("^");
    depth--;
    return { kind: "binary", operator: "^", left: base, right, at };
  };
  const signed = (previous: string): Node => {
    blanks();
    const at = pos;
    const c = text[pos];
    if (c === "-" || c === "+") {
      if (++depth > MAX_DEPTH) bad("too many signs");
      pos++;
      const of = signed("");
      depth--;
      return { kind: "unary", operator: c, of, at };
    }
    return power(previous);
  };
  const product = (): Node => {
    let left = signed("");
    for (;;) {
      const save = pos;
      blanks();
      const c = text[pos];
      if (c !== "*" && c !== "/") {
        pos = save;
        return left;
      }
      const at = pos++;
      left = { kind: "binary", operator: c, left, right: signed(c), at };
    }
  };
  const sum = (): Node => {
    let left = product();
    for (;;) {
      const save = pos;
      blanks();
      const c = text[pos];
      if (c !== "+" && c !== "-") {
        pos = save;
        return left;
      }
      const at = pos++;
      left = { kind: "binary", operator: c, left, right: product(), at };
    }
  };

  const node = sum();
  return { node, end: pos };
}
