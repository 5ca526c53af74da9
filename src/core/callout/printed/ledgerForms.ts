import { byFigures, unitNames, unitOf, type LengthUnit } from "../../number";

/**
 * `TAPER 1:10`, `30 H7/g6`, `// .002 A`: a ratio, a fit of two parts, and a tolerance of form or place with its datum
 * are no dimensions of one.
 */
export const isNoDimension = (typed: string): boolean =>
  /\d ?: ?\d/.test(typed) ||
  /^\s*\/\//.test(typed) ||
  /^\s*[⌀Øø]? ?\d*[.,]\d+ +[A-C](?: [A-C]){0,2}\s*$/.test(typed) ||
  /[A-Z]{1,2}\d{1,2} ?\/ ?[a-z]{1,2}\d{1,2}/.test(typed);

/** A line of the ledger in the form its words are read from: what prints write in one way or another, in one. */
export function ledgerForm(typed: string, unit: LengthUnit): string {
  const forms = [
    ranged,
    pairOfSizes,
    cornerBreak,
    thickness,
    oneSided,
    bounded,
    fitLimits,
    inBrackets,
    squared,
    spherical,
    numberedDrill,
    summed,
    commaInBrackets,
    (t: string) => otherUnits(t, unit),
    boxed,
  ];
  return forms.reduce((text, form) => form(text), typed);
}

/**
 * `1.75" ±.01"`: marks of inches straight behind a figure, which would begin a remark. Between quotes nothing is
 * touched.
 */
export function withoutInchMarks(typed: string, unit: LengthUnit): string {
  const mark = byFigures(unit, { in: "", mm: "in" });
  let isQuoted = false;
  return typed.replace(/(\d)(?:''|["”″](?!\w))|["“”]/g, (all, digit: string | undefined) => {
    if (digit !== undefined && !isQuoted) return digit + mark;
    isQuoted = !isQuoted;
    return all;
  });
}

/** `120 x 80`: two sizes, for nothing is there a hundred times. */
const pairOfSizes = (typed: string): string => typed.replace(/^(\s*\d{2,}) +[x×X] *(?=[\d.,]+\s*$)/, "$1, ");
/** `C1`, `2 - C0.5`: a chamfer of 45 degrees, as prints by ISO and JIS have it (from memory). */
const cornerBreak = (typed: string): string =>
  typed.replace(
    /^(\s*\d{1,2} ?[xX×-] ?)?\s*C(\d*[.,]?\d+)(?=\s*$|\s+(?:TYP|MAX|ALL|BOTH|\(|\d))/,
    (_, many: string | undefined, leg: string) =>
      `${many ? `${Number.parseInt(many)}X ` : ""}${leg.replace(",", ".")} X 45°`,
  );
/** `t = 5`, `L=80`: a size by its letter. */
const letters: Record<string, string> = { T: "THK", L: "LG", W: "WIDE", H: "HIGH", D: "DIA" };
const thickness = (typed: string): string =>
  typed.replace(/^\s*([TLWHD⌀Øø]) ?= ?([\d.,]+)/i, (_, letter: string, figure: string) =>
    letters[letter.toUpperCase()] ? `${figure} ${letters[letter.toUpperCase()]}` : `⌀${figure}`,
  );
/** `MAX 12`, `MIN. .5`: the bound before its figure. */
const bounded = (typed: string): string => typed.replace(/^\s*(MAX|MIN)\.? +([⌀ØøR]? ?[\d.,]+)\s*$/i, "$2 $1");
/** `⌀52 H7 (+0.030/0)`, `⌀30 h6 -0.013/0`: what a fit comes to, said again. */
const fitLimits = (typed: string): string => {
  const deviations = String.raw`(?:[+-]? ?[\d.,]+ *[/ ] *[+-]? ?[\d.,]+|± ?[\d.,]+)`;
  const again = new RegExp(
    String.raw`(\d ?(?:js|[a-z])\d{1,2}) *(?:\( *${deviations} *\)|(?=[+-]|0 ?/)${deviations})`,
    "gi",
  );
  return typed.replace(again, "$1");
};
/** `.312 (+.002/-.000)`: its tolerance in brackets. */
const inBrackets = (typed: string): string => typed.replace(/(\w) *\( *((?:±|\+|-)[^()]*)\)/g, "$1 $2");
/** `12.7 [.500]`, `25.4 (1.000)`: the same in the other unit, as far as its decimals tell. */
function otherUnits(typed: string, unit: LengthUnit): string {
  return typed.replace(
    /(\d*[.,]?\d+) *[[(] *(\d*[.,]?\d+) *(?:mm|in|")? *[\])]/gi,
    (all, own: string, other: string) => {
      const figure = (t: string) => Number(t.replace(",", "."));
      const decimals = /[.,](\d*)$/.exec(other)?.[1].length ?? 0;
      const mm = figure(own) * unitOf[unit].mm;
      const isSame = unitNames.some(
        (u) => u !== unit && Math.abs(mm / unitOf[u].mm - figure(other)) <= 0.6 * 10 ** -decimals,
      );
      return isSame ? own : all;
    },
  );
}

/** `#7 DRILL`, `DRILL #7 THRU`: a drill by its number, for no dimension of a ledger cites another. */
const numberedDrill = (typed: string): string =>
  typed
    .replace(/#(\d{1,2})(?=(?: *\([.\d]+\))? *DRILL)/gi, "NO. $1")
    .replace(/\bDRILL *#(?=\d{1,2}\b)/gi, "DRILL NO. ");
/** `3X 15 (=45)`: what they come to together. */
const summed = (typed: string): string => {
  const m = /^\s*(\d+) ?[x×X] ?([\d.,]+)(°?) ?\(? ?= ?([\d.,]+)°? ?\)?\s*$/.exec(typed);
  const figure = (t: string) => Number(t.replace(",", "."));
  const isSum = m !== null && Math.abs(Number(m[1]) * figure(m[2]) - figure(m[4])) < 1e-9;
  return isSum ? `${m[1]}X ${m[2]}${m[3]}, ${m[4]}${m[3]} REF` : typed;
};
/** `(30,5)`: a reference with a decimal comma. */
const commaInBrackets = (typed: string): string => typed.replace(/^(\s*)\((\d+),(\d+)\)\s*$/, "$1($2.$3)");

/** `[3.000]`: a boxed dimension, which is basic. */
const boxed = (typed: string): string => typed.replace(/^(\s*(?:\d+X\s*)?)\[\s*([^[\]]+?)\s*\]\s*$/i, "$1$2 BASIC");
/** `□20`: the side of a square. */
const squared = (typed: string): string => typed.replace(/^(\s*(?:\d+X\s*)?)[□☐] ?([\d.,]+)/i, "$1$2 SQ");
/** `SR 1.00`, `S⌀.5`: of a sphere, kept as a word. */
const spherical = (typed: string): string => {
  const m = /^(\s*(?:\d+X\s*)?)S(?=R ?[\d.]|[⌀Øø∅])(.*)$/i.exec(typed);
  return m ? `${m[1]}${m[2]} "SPHERICAL"` : typed;
};

/** `20 -0,1`: a deviation with a decimal comma, the other is 0. */
const oneSided = (typed: string): string =>
  typed
    .replace(/([\d.]) +0 +- ?(\d*[.,]\d+)/, "$1 +0 -$2")
    .replace(/([\d.]) +([+-]) ?(\d+),(\d+)\s*$/, (_, last, sign, a, b) =>
      sign === "-" ? `${last} +0 -${a}.${b}` : `${last} +${a}.${b} -0`,
    );
/** `1.250-1.255`: two limits of the same decimals that lie close together. */
const ranged = (typed: string): string => {
  const m = /^([^\d.]*)(\d*[.,]?\d+) ?- ?(\d*[.,]\d+)(?![\d.,])(.*)$/.exec(typed);
  if (!m) return typed;
  [m[2], m[3]] = [m[2], m[3]].map((t) => t.replace(",", "."));
  const [low, high] = [m[2], m[3]].sort((a, b) => Number(a) - Number(b));
  const decimals = (t: string) => (t.includes(".") ? t.length - t.indexOf(".") : 0);
  const isRising = low === m[2];
  const apart = Number(high) - Number(low);
  const isPair = (isRising || (decimals(low) > 0 && decimals(high) > 0)) && apart > 0 && apart < Number(low) * WIDEST;
  const places = Math.max(decimals(low), decimals(high)) - 1;
  const alike = (t: string) => (decimals(t) - 1 === places ? t : Number(t).toFixed(places));
  return isPair ? `${m[1]}${alike(high)}/${alike(low)}${m[4]}` : typed;
};
/** Whether a line says another thing on a print than in a card: two limits with a dash, two sizes with an X. */
export const isPrintsOwn = (typed: string): boolean => ranged(typed) !== typed || pairOfSizes(typed) !== typed;
/** Limits farther apart than this share of their size are a difference that somebody wrote. */
const WIDEST = 0.05;
