import { problems } from "./problems";
import { z } from "zod";
import { decimalText } from "./format";
import { fail, type Result } from "../base/result";
import { CHOSEN, CITED, evaluateNumber, UNKNOWN, type NumberScope, type NumberValue, type Quantity } from "./evaluate";
import { unitOf, type LengthUnit } from "./unit";
import { NumberSyntaxError, readExpression } from "./syntax";

/** A number as typed. Its value is computed; the text is what is kept. */
export const numberText = z.string().max(200).transform(normaliseNumberText).pipe(z.string().brand<"NumberText">());
export type NumberText = z.infer<typeof numberText>;

/** A length or coordinate, an angle and a count share one text form; the schema names what is meant. */
export const toNumberText = (text: string): NumberText => normaliseNumberText(text) as NumberText;

/** One form for one number: no outer blanks; `(5.8 - 2.3)` and `5.8 - 2.3` are the same text. */
export function normaliseNumberText(text: string): string {
  let t = text.replace(/[\r\n\t`]+/g, " ").trim();
  if (t === "") return UNKNOWN;
  const tail = tailOf(t);
  if (tail) t = t.slice(0, -tail.length).trimEnd();
  while (t.startsWith("(") && closes(t) === t.length - 1 && wantsBrackets(t.slice(1, -1).trim()))
    t = t.slice(1, -1).trim();
  return t + (tail.startsWith("{") ? `{${tail.slice(1, -1).trim()}}` : tail);
}

/**
 * The number as it stands in a callout: bracketed where it holds blanks, in back quotes where it cannot be read yet.
 */
export function inCallout(text: NumberText | string): string {
  const tail = tailOf(text);
  const body = tail ? text.slice(0, -tail.length) : text;
  if (body === UNKNOWN) return UNKNOWN;
  const written = wantsBrackets(body) ? `(${body})` : body;
  return readable(written) ? written + tail : "`" + text + "`";
}

/** What stands after the number itself: `!`, or the table it was taken from in braces. */
function tailOf(text: string): string {
  if (text.endsWith(CHOSEN) && text.length > 1) return CHOSEN;
  const cited = CITED.exec(text);
  return cited && cited.index > 0 ? cited[0] : "";
}

/** A number with blanks, or one that starts with a name, stands in brackets: `(1 - 1/2)`, `R(wall)`. */
const wantsBrackets = (t: string): boolean => hasOpenBlank(t) || /^[A-Za-z_]\w*(?!\w*\()/.test(t);

function readable(text: string): boolean {
  try {
    return readExpression(text, 0, false).end === text.length;
  } catch (e) {
    if (e instanceof NumberSyntaxError) return false;
    throw e;
  }
}

/** Offset of the bracket that closes the one at 0, or -1. */
function closes(t: string): number {
  let depth = 0;
  for (let i = 0; i < t.length; i++) {
    if (t[i] === "(") depth++;
    else if (t[i] === ")" && --depth === 0) return i;
  }
  return -1;
}

function hasOpenBlank(t: string): boolean {
  let depth = 0;
  for (const c of t) {
    if (c === "(") depth++;
    else if (c === ")") depth--;
    else if (c === " " && depth === 0) return true;
  }
  return false;
}

/**
 * A length for reading: inches with at least three decimals and no zero before the point unless the shop wants one,
 * millimetres plain.
 */
export const showLength = (
  mm: number,
  unit: LengthUnit,
  decimals = unitOf[unit].places.shown,
  leadingZero = false,
): string => decimalText(mm, { unit, decimals, leadingZero: leadingZero || unitOf[unit].leadingZero });

/** A length to as many decimals as it needs, for text that becomes a number again. */
export function lengthText(mm: number, unit: LengthUnit, decimals = unitOf[unit].places.exact): NumberText {
  const text = decimalText(mm, { unit, decimals });
  return (
    /\./.test(text)
      ? text
          .replace(/0+$/, "")
          .replace(/\.$/, "")
          .replace(/^(-?)$/, "0")
      : text
  ) as NumberText;
}

/** Evaluates a number that may not be there yet (stock, grip, check value). */
export const valueOf = (text: NumberText | undefined, quantity: Quantity, scope: NumberScope): Result<NumberValue> =>
  text === undefined ? fail(problems.emptyNumber()) : evaluateNumber(text, quantity, scope);

/**
 * The text of the same number on the other side of zero: the sign where there is one figure, else brackets. Nothing
 * stays nothing; what says where a number comes from (`5!`, `5{note}`) stays behind it.
 */
export function negated(text: string): string {
  const [, number, source = ""] = /^(.*?)(!|\{[^{}]*\})?$/.exec(text)!;
  if (/^0?\.?0*$/.test(number)) return text;
  if (/^-[\d.#/]+$/.test(number)) return number.slice(1) + source;
  return (/^[\d.#/]+$/.test(number) ? `-${number}` : `(-(${number}))`) + source;
}
