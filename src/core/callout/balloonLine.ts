import type { Balloon } from "../job/schema";
import { inCallout, UNKNOWN, type NumberText } from "../number";
import { readThread } from "../tables";
import type { Reader } from "../grammar/reader";
import { unsound } from "./soundBalloon";
import { toleranceKindOf, wholeOf } from "../job/toleranceKinds";

/**
 * What stands after `#4`: `⌀2.185 ±.005`, `6X 8-32 UNC-2B`, `R.19`, `.375 DEEP`, `45°`, `.03 X 45°`, `6X`, `⌀20
 * H7`, `1.255 / 1.245`, `R.19 MAX`, `2.500 BASIC`, `(.750)`.
 */
export function readBalloon(r: Reader, number: number): Balloon {
  r.skip();
  const from = r.pos;
  const balloon = readWhole(r, number);
  // What stands in back quotes is kept as it was typed, whatever it says.
  const wrong = r.text.includes("`", from) ? null : unsound(balloon);
  if (wrong) r.fail(wrong.expected, wrong.message, from);
  return balloon;
}

function readWhole(r: Reader, number: number): Balloon {
  const b: Balloon = { number, kind: "linear", tolerance: { kind: "default" } };
  if (inBrackets(r, b)) return rest(r, b);
  if (leadingNumber(r, b)) return rest(r, b);
  // `2X (.375)`: a reference that is there twice.
  if (b.count !== undefined && inBrackets(r, b)) return rest(r, b);
  const t = thread(r);
  if (t) {
    r.pos += t.length;
    b.kind = "thread";
    b.thread = t.designation;
    return rest(r, b);
  }
  if (r.take("⌀")) b.kind = "diameter";
  else if (r.take("R")) b.kind = "radius";
  else if (r.take("DEEP")) b.kind = "depth";
  size(r, b);
  // `2X .03 X 45°`: a chamfer that is there more than once.
  if (b.kind === "linear" && b.value !== undefined && r.take("X")) {
    b.kind = "chamfer";
    b.angle = r.angle("angle");
    return rest(r, b);
  }
  if (r.take("°")) b.kind = "angle";
  return rest(r, b);
}

/**
 * A number that stands before the rest: how many (`6X`), or a chamfer's leg (`.03 X 45°`).
 * @returns whether the balloon's size is read with it
 */
function leadingNumber(r: Reader, b: Balloon): boolean {
  const start = r.pos;
  if (!r.seesNumber() || thread(r) || pairAt(r)) return false;
  const first = r.number("count");
  // `4X 90°` is an angle four times, `2X45°` and `2 X 45°` are chamfers.
  const isCount = /^[Xx]\s/.test(r.text.slice(r.pos)) && (/^\d+$/.test(first) || r.text[start] === "`");
  if (!r.take("X") || !startsSize(r)) {
    r.pos = start;
    return false;
  }
  if (r.done || seesNote(r)) {
    b.kind = "count";
    b.count = first;
    return true;
  }
  // `.03 X 45°` is a chamfer, `6X 1.25` a count: the sign after the second number tells.
  const save = r.pos;
  if (r.seesNumber() && !thread(r)) {
    const second = r.number("angle");
    if (!isCount && r.take("°")) {
      b.kind = "chamfer";
      b.value = first;
      b.angle = second;
      return true;
    }
    r.pos = save;
  }
  b.count = first;
  return false;
}

const seesNote = (r: Reader): boolean => {
  r.skip();
  return r.text[r.pos] === '"';
};
/** Two decimals parted by a stroke: limits. */
function pairAt(r: Reader): RegExpExecArray | null {
  r.skip();
  return /^(\d*\.\d+)\/(\d*\.\d+)(?![\w.])/.exec(r.text.slice(r.pos));
}

const startsSize = (r: Reader): boolean =>
  r.done || seesNote(r) || r.sees("⌀") || r.sees("R") || r.sees("DEEP") || r.seesNumber() || thread(r) !== null;

/** In brackets on a print: a reference dimension. */
function inBrackets(r: Reader, b: Balloon): boolean {
  r.skip();
  const m = /^\(\s*(⌀|Ø|∅|R)?\s*([0-9.]+(?:-\d+\/\d+)?|\d+\/\d+)\s*(°)?\s*\)/.exec(r.text.slice(r.pos));
  if (!m) return false;
  r.pos += m[0].length;
  b.kind = m[1] === "R" ? "radius" : m[1] ? "diameter" : m[3] ? "angle" : "linear";
  b.value = m[2] as NumberText;
  b.reference = true;
  return true;
}

/** The printed number, or its two limits. */
function size(r: Reader, b: Balloon): void {
  const from = r.pos;
  const pair = pairAt(r);
  if (pair) {
    r.pos += pair[0].length;
    return limits(r, b, pair[1] as NumberText, pair[2] as NumberText, from);
  }
  r.skip();
  const at = r.pos;
  b.value = r.number("value", "a dimension");
  const power = /^e\d+/i.exec(r.text.slice(r.pos));
  if (power)
    r.fail(
      `${b.value} ${power[0]} with a space for the fit, or the number written out`,
      `${b.value}${power[0]} can be the fit ${power[0]} or a power of ten`,
      at,
    );
  // Degrees, minutes and seconds are an angle whatever stands before them.
  if (/[°]|\dd/i.test(b.value) && r.text[at] !== "`") b.kind = "angle";
  // `1.255 / 1.245` or `1.245 TO 1.255`: two limits.
  r.skip();
  if (r.text[r.pos] !== "/" && !r.sees("TO")) return;
  if (!r.take("TO")) r.pos++;
  r.take("⌀");
  limits(r, b, b.value, r.number("low", "the other limit"), at);
}

/** A thread at the reading point; in back quotes it is one that cannot be read, after `THREAD`. */
const thread = (r: Reader) => {
  r.skip();
  const text = r.text.slice(r.pos);
  const quoted = /^THREAD\s*`([^`]*)`/i.exec(text);
  return quoted ? { designation: quoted[1], length: quoted[0].length } : readThread(text);
};

/** Two limits, the larger one first whichever way they were written. */
function limits(r: Reader, b: Balloon, first: NumberText, second: NumberText, at: number): void {
  const [x, y] = [Number(first), Number(second)];
  if (x === y) r.fail("two limits that differ", "both limits are the same", at);
  delete b.value;
  b.tolerance = { kind: "limits", high: y > x ? second : first, low: y > x ? first : second };
}

const fitAt = /^((?:[A-Z]{1,2}|[a-z]{1,2})(?:01|1[0-8]|[0-9]))(?![\w.])/;

function rest(r: Reader, b: Balloon): Balloon {
  while (!r.done) {
    const text = r.text.slice(r.pos);
    const fit = fitAt.exec(text);
    const own = (t: Balloon["tolerance"]) => {
      if (b.tolerance.kind !== "default") r.fail("one tolerance", "this dimension has two tolerances");
      b.tolerance = t;
    };
    if (fit && b.kind !== "angle" && !r.seesNumber() && b.value !== undefined) {
      own({ kind: "fit", fit: fit[1] });
      r.pos += fit[0].length;
    } else if (r.sees("ISO")) {
      const iso = /^ISO\s*2768\s*-\s*(?:1\s*-?\s*)?([fmcv])\b/i.exec(text);
      if (!iso) r.fail("ISO 2768-f, -m, -c or -v");
      own({ kind: "general", class: iso![1].toLowerCase() as "m" });
      r.pos += iso![0].length;
    } else if (r.take("DEEP")) b.kind = "depth";
    else if (r.sees("±")) {
      own({ kind: "default" });
      r.take("±");
      b.tolerance = { kind: "plusMinus", value: r.number("tolerance", "a tolerance") };
      r.take("°");
    } else if (/^[+-]/.test(text) || overAt(r)) {
      own({ kind: "default" });
      b.tolerance = sided(r);
    } else if (r.sees("MAX") || r.sees("MIN")) {
      own({ kind: r.sees("MAX") ? "max" : "min" });
      r.takeOne(["MAX", "MIN"]);
    } else if (r.take("REF")) b.reference = true;
    else if (r.take("BASIC") || r.take("BSC")) b.basic = true;
    else if (r.take("MID")) b.middle = true;
    else if (r.take("THRU")) b.thru = true;
    else if (r.take("LEG")) b.leg = r.number("leg", "the shorter leg of the angle");
    else if (r.take("ZONE")) {
      r.skip();
      const zone = /^[A-Za-z0-9-]{1,10}/.exec(r.text.slice(r.pos));
      if (!zone) r.fail("a zone such as B3");
      b.zone = zone![0].toUpperCase();
      r.pos += zone![0].length;
    } else if (text[0] === '"') b.note = r.quoted();
    else r.fail("±, + and -, a fit, MAX, MIN, MID, BASIC, REF, DEEP or a note in quotes");
  }
  if (b.basic && b.tolerance.kind !== "default")
    r.fail("BASIC or a tolerance", "a basic dimension has no tolerance of its own");
  return b;
}

/** `+.003 -.001`, also both on one side (`+.003 +.001`, `-.001 -.003`), and `+.003` alone: then the other is 0. */
function sided(r: Reader): Balloon["tolerance"] {
  r.skip();
  // Written one over the other on one line: the slash parts the two and divides nothing.
  const over = overAt(r);
  if (over) {
    r.pos += over.length;
    return deviations(over.first, over.second);
  }
  const one = () => {
    r.skip();
    const sign = r.text[r.pos] === "-" ? -1 : 1;
    r.pos++;
    return { sign, value: r.number("tolerance", "a tolerance") };
  };
  const first = one();
  r.skip();
  const second = /^[+-]/.test(r.text.slice(r.pos))
    ? one()
    : /^0(?![\d.])/.test(r.text.slice(r.pos))
      ? (r.pos++, { sign: -first.sign, value: "0" as NumberText })
      : { sign: -first.sign, value: "0" as NumberText };
  return deviations(first, second);
}

/** `+.003/-.001`, `+0.2/0`, `0/-0.2`: a deviation of nothing has no sign. */
function overAt(r: Reader): { first: Deviation; second: Deviation; length: number } | null {
  r.skip();
  const m = /^([+-]?)\s*(\d*\.?\d+)\s*\/\s*([+-]?)\s*(\d*\.?\d+)(?![\w.])/.exec(r.text.slice(r.pos));
  if (!m || (!m[1] && !m[3])) return null;
  const of = (sign: string, value: string, other: string): Deviation | null => {
    if (sign) return { sign: sign === "-" ? -1 : 1, value: value as NumberText };
    return Number(value) === 0 ? { sign: other === "-" ? 1 : -1, value: value as NumberText } : null;
  };
  const [first, second] = [of(m[1], m[2], m[3]), of(m[3], m[4], m[1])];
  return first && second ? { first, second, length: m[0].length } : null;
}

interface Deviation {
  sign: number;
  value: NumberText;
}

function deviations(first: Deviation, second: Deviation): Balloon["tolerance"] {
  const signed = (v: Deviation, towards: number): NumberText =>
    v.sign === towards || Number(v.value) === 0 ? v.value : (`-${v.value}` as NumberText);
  // The upper deviation is the one that lies higher, whichever was written first: by their signs, or by their sizes
  // where both lie on one side.
  const [a, b] = [first, second].map((d) => d.sign * Number(d.value));
  const isTurned = first.sign === second.sign ? a < b : first.sign < second.sign;
  const high = isTurned ? [second, first] : [first, second];
  return { kind: "sided", plus: signed(high[0], 1), minus: signed(high[1], -1) };
}

/** A number of a dimension that would be refused, or read as another one, stands in back quotes. */
const asItIs = (text: string): string => (text === UNKNOWN ? text : "`" + text + "`");
const isTurnAngle = (text: string): boolean => /[°]|\dd/i.test(text);

function writtenThread(text: string): string {
  const read = readThread(text);
  return read?.length === text.length && read.designation === text ? text : `THREAD \`${text}\``;
}

/** A balloon as the card writes it, without its number. */
export function writeBalloonText(b: Balloon): string {
  const isSound = unsound(b) === null;
  const written = (text: string) =>
    isSound && (b.kind === "angle" || !isTurnAngle(text)) ? inCallout(text) : asItIs(text);
  const count = b.count === undefined ? "" : `${isSound ? inCallout(b.count) : asItIs(b.count)}X`;
  const t = b.tolerance;
  const isWhole = wholeOf(t) !== null;
  const own = toleranceKindOf(t).write(t);
  const value = isWhole ? own : b.value === undefined ? "" : written(b.value);
  const body =
    b.kind === "count"
      ? ""
      : b.kind === "thread"
        ? writtenThread(b.thread ?? "")
        : b.kind === "diameter"
          ? `⌀${value}`
          : b.kind === "radius"
            ? `R${value}`
            : b.kind === "angle"
              ? `${value}${/['"]$/.test(value) ? "" : "°"}`
              : b.kind === "depth"
                ? `${value} DEEP`
                : b.kind === "chamfer"
                  ? `${value} X ${inCallout(b.angle ?? "45")}°`
                  : value;
  return [
    count,
    body,
    b.thru ? "THRU" : "",
    isWhole ? "" : own,
    b.basic ? "BASIC" : "",
    b.middle ? "MID" : "",
    b.reference ? "REF" : "",
    b.leg === undefined ? "" : `LEG ${inCallout(b.leg)}`,
    b.zone ? `ZONE ${b.zone}` : "",
    b.note ? `"${b.note.replace(/"/g, "”")}"` : "",
  ]
    .filter(Boolean)
    .join(" ");
}
