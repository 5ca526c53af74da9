import { NumberSyntaxError, readExpression, type LengthUnit, byFigures } from "../../number";
import { findThread, readThread } from "../../tables";

/** A piece of a printed line. `at` and `end` are offsets into the line as it was typed. */
export interface Token {
  is: "number" | "word" | "thread" | "tolerance" | "sign" | "quoted";
  /** Limits a number stands in the middle of, as printed. */
  limits?: string;
  /** A number with its unit behind it: it is no count. */
  measured?: true;
  /** As the card writes it: words in capitals without points, numbers as typed. */
  text: string;
  at: number;
  end: number;
}

/** Signs of type that mean the same as a plain one; each is one character, so that offsets hold. */
const plain: Record<string, string> = {
  "−": "-",
  "–": "-",
  "‐": "-",
  "×": "X",
  "✕": "X",
  Ø: "⌀",
  ø: "⌀",
  "∅": "⌀",
  Φ: "⌀",
  φ: "⌀",
  "”": '"',
  "“": '"',
  "″": '"',
  "’": "'",
  "′": "'",
  º: "°",
  "\u00a0": " ",
  "\t": " ",
};
export const plainSigns = (text: string): string =>
  [...text]
    .map((c) => plain[c] ?? c)
    .join("")
    .replace(/ W\/(?=[ .R\d])/gi, " , ")
    .replace(/\b(?:LONG|ELONGATED) (HOLES?|SLOTS?)\b/gi, (all, what: string) =>
      /^S/i.test(what) ? what.padStart(all.length) : "LONGHOLE".padEnd(all.length),
    )
    .replace(/\bTHRO('|(?![A-Z]))/gi, (all) => "THRU".padEnd(all.length))
    // `⌀40/⌀34`: two diameters.
    .replace(/(?<=\d)\/(?=⌀)/g, " ")
    // `⌀.1935 (#10)`: the drill of that number.
    .replace(/(?<=\d )\(#(\d{1,2})\)/g, "NO $1")
    // `4-⌀.25`: so many of them.
    .replace(/^(\s*\d{1,3} ?)-(?= ?⌀)/, "$1X")
    .replace(/^(\s*\d{1,3}) -(?= \.\d+ ?(?:DIA|D)\b)/i, "$1X ")
    .replace(bracketed, (all: string, words: string, at: number, line: string) =>
      isQuoted(line, at) ? all : ` ${words} `,
    );
/** Whether a place of a line lies between double quotes: what stands there is a name. */
const isQuoted = (line: string, at: number): boolean => line.slice(0, at).split('"').length % 2 === 0;

/** Words in brackets that say what they say without them too: `(TYP)`, `(2 PLACES)`, `(LTR H)`. */
const bracketed =
  /\(((?:TYP|TYPICAL|REF|NEAR SIDE|FAR SIDE|BOTH SIDES|EQ\.? SP\.?|LTR\.? ?[A-Z]|LETTER [A-Z]|\d+ ?(?:X|PLACES?|PLCS?|PLS?|HOLES?))\.?)\)/gi;

/** Words of a print that mean one thing, as they are written; matched without points, blanks and strokes. */
const word = /^[A-Z](?:[A-Z]|[.'/&-](?=[A-Z]))*(?:\.(?!\d))?/i;
/** Two decimals parted by a stroke: limits, the larger and the smaller. */
const limitPair = /^(\d*[.,]\d+)\s*\/\s*(\d*[.,]\d+)(?![\w.])/;
/** Two decimals with a dash. */
const rangePair = /^(\d*\.\d+) ?- ?(\d*\.\d+)(?![\w.])/;
const decimalsOf = (text: string): number => text.length - text.indexOf(".");
/** Limits that lie so near one another, by their size, are no difference that somebody wrote. */
const NEAR = 0.02;

/**
 * Two limits with a dash, the larger first: `.251-.250`. Those with the smaller first are always limits, for no
 * difference that is less than nothing is meant. Null where it is neither.
 */
function rangeAt(rest: string): { limits: string; length: number } | null {
  const range = rangePair.exec(rest);
  if (!range || decimalsOf(range[1]) !== decimalsOf(range[2])) return null;
  const [high, low] = [range[1], range[2]].sort((a, b) => Number(b) - Number(a));
  const isApart = high === range[1] && Number(high) - Number(low) > NEAR * Number(high);
  return high === low || isApart ? null : { limits: `${high}/${low}`, length: range[0].length };
}

/** Whether a diameter of a line is printed as two limits with a dash, which in a card is a difference. */
export const hasLimits = (text: string): boolean =>
  [...text.matchAll(/⌀ ?(?=\d*\.\d)/g)].some((m) => rangeAt(text.slice(m.index + m[0].length)) !== null);
/** A mixed number with a blank: `1 1/2`. */
const mixed = /^(\d+) +(\d+\/\d+)(?![\d.-])/;
const figure = String.raw`(?:\d+\/\d+|\d*[.,]?\d+)`;
const tolerance = new RegExp(
  String.raw`^±\s*\d+(?:\.\d+)?'|^(?:±|\+\/-|\+-)\s*${figure}°?|^[+-]\s*${figure}\s*\/?\s*[+-]\s*${figure}(?![\w.])|^[+-]\s*${figure}\s*(?:\/\s*|\s)0(?![\w.,])|^0\s*\/\s*[+-]\s*${figure}(?![\w.])`,
);
/** A number whose decimals stand behind a comma: never where a place is written. */
const comma = /^(\d+),(\d+)(?![\d.])/;

/** A printed line in pieces; null where a sign in it is none of a callout. */
export function tokensOf(typed: string, unit: LengthUnit): Token[] | null {
  const text = plainSigns(typed);
  const tokens: Token[] = [];
  let pos = 0;
  const put = ({ length, ...piece }: Piece) => {
    tokens.push({ ...piece, at: pos, end: pos + length });
    pos += length;
  };
  while (pos < text.length) {
    const rest = text.slice(pos);
    const before = tokens[tokens.length - 1];
    if (rest[0] === " ") {
      pos++;
      continue;
    }
    // `AT ±1.25,±.75`: each of them is two places.
    const bound = boundAt(rest, before);
    if (bound) put({ is: "tolerance", text: toleranceText(bound[0]), length: bound[0].length });
    else if (rest[0] === '"') {
      const close = rest.indexOf('"', 1);
      if (close < 0) return null;
      put({ is: "quoted", text: rest.slice(0, close + 1), length: close + 1 });
    } else {
      const piece = pieceAt(text, pos, before, unit);
      if (!piece) return null;
      put(piece);
    }
  }
  return tokens;
}

/** A tolerance behind what can have one; where places stand, `±1.25` is two of them, and a comma parts x from y. */
function boundAt(rest: string, before: Token | undefined): RegExpExecArray | null {
  if (before && ["AT", "@", ",", "&", "AND"].includes(before.text)) return /^±\s*\d*\.?\d+/.exec(rest);
  return isSized(before) && /^[+-]|^±|^0 ?\//.test(rest) ? tolerance.exec(rest) : null;
}

/** A tolerance as the card writes it: `+0,1/0`, `0/-0,1`, `±5'` of an angle. */
const toleranceText = (typed: string): string =>
  typed
    .trim()
    .replace(/,/g, ".")
    .replace(/\s*\/\s*0$/, " 0")
    .replace(/^0\s*\/\s*/, "+0 ")
    .replace(/^±\s*([\d.]+')$/, "±0°$1");

/**
 * `#10-32`: a screw of the table, though it could be balloon 10 less 32. A diameter's sign before it makes it that.
 */
export function isHashedThread(text: string): boolean {
  const name = /^#(\d{1,2}-\d{2})(?![\d.])/.exec(text)?.[1];
  return name !== undefined && Boolean(findThread(name)?.size);
}

/** A thread; `M6 X 12 DEEP` is M6 and a depth, for no M6 has a pitch of 12. */
function threadAt(typed: string): Piece | null {
  // `M10x1,25`: a pitch with a decimal comma.
  const rest = typed.replace(/^(M\d+ ?X ?\d),(\d+)(?!\d*,)/i, "$1.$2");
  // `#10-24 UNC`: the sign is that of a screw's number, where its series says so.
  const hash = /^#(?=\d+-\d+ ?UN)/i.test(rest) || isHashedThread(rest) ? 1 : 0;
  const t = readThread(rest.slice(hash));
  if (!t) return null;
  if (hash) return findThread(t.designation) ? { is: "thread", text: t.designation, length: t.length + 1 } : null;
  if (findThread(t.designation)) return { is: "thread", text: t.designation, length: t.length };
  const coarse = /^M\d+(?:\.\d+)?/i.exec(rest)?.[0];
  return coarse && findThread(coarse.toUpperCase())
    ? { is: "thread", text: coarse.toUpperCase(), length: coarse.length }
    : null;
}

interface Piece {
  is: Token["is"];
  text: string;
  length: number;
  limits?: string;
  measured?: true;
}

function pieceAt(text: string, pos: number, before: Token | undefined, unit: LengthUnit): Piece | null {
  const rest = text.slice(pos);
  const thread = before?.text === "⌀" ? null : threadAt(rest);
  if (thread) return thread;
  const number = numberAt(text, pos, before, unit);
  if (number) return number;
  // `⌀6 H7 - 15 DEEP`: a dash between blanks parts what is said.
  if (/^- /.test(rest) && text[pos - 1] === " ") return { is: "sign", text: "-", length: 1 };
  const w = word.exec(rest);
  if (w) return { is: "word", text: w[0].toUpperCase().replace(/[.'/&-]/g, ""), length: w[0].length };
  return /^[⌀↧⌴⌵°,:()⌲&=@/□]/.test(rest) ? { is: "sign", text: rest[0], length: 1 } : null;
}

function numberAt(text: string, pos: number, before: Token | undefined, unit: LengthUnit): Piece | null {
  const rest = text.slice(pos);
  if (!/^[\d.#?(]|^[+-][\d.#(]/.test(rest)) return null;
  const pair = limitPair.exec(rest);
  if (pair) {
    const limits = pair[0].replace(/,/g, ".");
    const [a, b] = limits.split("/").map((t) => t.trim());
    return { is: "number", text: middleOf(a, b), length: pair[0].length, limits };
  }
  const range = isPlace(before) ? null : rangeAt(rest);
  if (range) {
    const [high, low] = range.limits.split("/");
    return { is: "number", text: middleOf(high, low), ...range };
  }
  const decimal = comma.exec(rest);
  // After AT a comma parts x from y.
  const isAngle = /^\d+,\d+ ?°/.test(rest);
  if (decimal && (isAngle || !isPlace(before)))
    return { is: "number", text: `${decimal[1]}.${decimal[2]}`, length: decimal[0].length };
  // `1,250.00`: thousands, or two numbers; nobody can tell.
  if (/^\d+,\d/.test(rest) && !isPlace(before) && !decimal) return null;
  // `30° 15'`: minutes after a blank.
  const minutes = /^(\d+)° +(\d+(?:\.\d+)?')/.exec(rest);
  if (minutes) return { is: "number", text: `${minutes[1]}°${minutes[2]}`, length: minutes[0].length };
  const whole = isPlace(before) ? null : mixed.exec(rest);
  if (whole) return { is: "number", text: `${whole[1]}-${whole[2]}`, length: whole[0].length };
  if (rest[0] === "?") return { is: "number", text: "?", length: 1 };
  try {
    const { end } = readExpression(text, pos, false);
    const own = /^!|^\{[^{}]*\}/.exec(text.slice(end))?.[0] ?? "";
    const inch = /^\s?"(?!\w)/.exec(text.slice(end))?.[0] ?? "";
    const body = text.slice(pos, end) + own;
    // `8 MM`: the unit behind a blank.
    const metric = /^ mm\b/i.exec(text.slice(end))?.[0] ?? "";
    if (metric) {
      const measured = body + byFigures(unit, { in: "mm", mm: "" });
      return { is: "number", text: measured, length: body.length + metric.length, measured: true };
    }
    const mark = inch && byFigures(unit, { in: "", mm: "in" });
    return { is: "number", text: body + mark, length: body.length + inch.length };
  } catch (e) {
    if (e instanceof NumberSyntaxError) return null;
    throw e;
  }
}

/** The middle of two printed limits, with one decimal more than they have. */
function middleOf(a: string, b: string): string {
  const decimals = Math.max(...[a, b].map((t) => t.length - t.indexOf(".") - 1)) + 1;
  const text = ((Number(a) + Number(b)) / 2).toFixed(decimals).replace(/0$/, "");
  return a.startsWith(".") ? text.replace(/^0\./, ".") : text;
}

/** What a tolerance may stand behind: a number, its degrees, or the word that says what it is. */
const isSized = (before: Token | undefined): boolean =>
  before !== undefined && (before.is === "number" || before.is === "word" || before.text === "°");

/** A comma after these parts two coordinates, or the items of a list. */
const isPlace = (before: Token | undefined): boolean =>
  before !== undefined && (before.is === "number" || ["AT", "@", ",", "(", ")", "AND", "&"].includes(before.text));
