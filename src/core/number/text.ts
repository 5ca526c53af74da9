import { z } from 'zod';
import { CHOSEN, INCH, UNKNOWN, type LengthUnit } from './evaluate';
import { NumberSyntaxError, readExpression } from './syntax';

/** A number as typed. Its value is computed; the text is what is kept. */
export const numberText = z.string().max(200).transform(normaliseNumberText).pipe(z.string().brand<'NumberText'>());
export type NumberText = z.infer<typeof numberText>;

/** A length or coordinate, an angle and a count share one text form; the schema names what is meant. */
export const toNumberText = (text: string): NumberText => normaliseNumberText(text) as NumberText;

/** One form for one number: no outer blanks; `(5.8 - 2.3)` and `5.8 - 2.3` are the same text. */
export function normaliseNumberText(text: string): string {
  let t = text.replace(/[\r\n\t`]+/g, ' ').trim();
  if (t === '') return UNKNOWN;
  const chosen = t.endsWith(CHOSEN) && t.length > 1;
  if (chosen) t = t.slice(0, -1).trimEnd();
  while (t.startsWith('(') && closes(t) === t.length - 1 && hasOpenBlank(t.slice(1, -1).trim())) t = t.slice(1, -1).trim();
  return chosen ? t + CHOSEN : t;
}

/** The number as it stands in a callout: bracketed where it holds blanks, in back quotes where it cannot be read yet. */
export function inCallout(text: NumberText | string): string {
  const chosen = text.endsWith(CHOSEN) && text.length > 1;
  const body = chosen ? text.slice(0, -1) : text;
  if (body === UNKNOWN) return UNKNOWN;
  const written = hasOpenBlank(body) ? `(${body})` : body;
  return readable(written) ? written + (chosen ? CHOSEN : '') : '`' + text + '`';
}

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
    if (t[i] === '(') depth++;
    else if (t[i] === ')' && --depth === 0) return i;
  }
  return -1;
}

function hasOpenBlank(t: string): boolean {
  let depth = 0;
  for (const c of t) {
    if (c === '(') depth++;
    else if (c === ')') depth--;
    else if (c === ' ' && depth === 0) return true;
  }
  return false;
}

/** A length for reading: inches with no leading zero and at least three decimals, millimetres plain. */
export function showLength(mm: number, unit: LengthUnit, decimals = unit === 'in' ? 3 : 2): string {
  const value = unit === 'in' ? mm / INCH : mm;
  return trimZero(value.toFixed(decimals), unit);
}

/** A length to as many decimals as it needs, for text that becomes a number again. */
export function lengthText(mm: number, unit: LengthUnit, decimals = unit === 'in' ? 4 : 3): NumberText {
  const value = unit === 'in' ? mm / INCH : mm;
  const fixed = value.toFixed(decimals).replace(/(\.\d*?)0+$/, '$1').replace(/\.$/, '');
  return trimZero(fixed, unit) as NumberText;
}

function trimZero(text: string, unit: LengthUnit): string {
  const t = /^-0(\.0*)?$/.test(text) ? text.slice(1) : text;
  return unit === 'in' ? t.replace(/^(-?)0\./, '$1.') : t;
}
