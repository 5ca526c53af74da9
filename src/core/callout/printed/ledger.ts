import type { LengthUnit } from "../../number";
import { isCircle } from "./places";
import { spellings, Words, type Size } from "./words";

/** One dimension of a ledger's line, as the card writes it after its number. */
export type LedgerText = string;

const features = [
  spellings.counterbore,
  spellings.spotface,
  spellings.countersink,
  ["DRILL", "DRILLED"],
  ["REAM", "REAMED"],
  ["TAP", "TAPPED"],
  ["BORE", "BORED"],
  ["SLOT", "SLOTS"],
  ["POCKET"],
  ["CHAMFER", "CHAM"],
  ["FILLET", "FILLETS"],
  ["KEYWAY", "KEYSEAT"],
  ["DOWEL"],
] as const;
/** Kept as the words of the dimension they are said of. */
const noted = [
  [["EQ", "SP"], "EQ SP"],
  [["EQUALLY", "SPACED"], "EQ SP"],
  [["EQSP"], "EQ SP"],
  [["TYP"], "TYP"],
  [["TYPICAL"], "TYP"],
  [["FAR", "SIDE"], "FAR SIDE"],
  [["NEAR", "SIDE"], "NEAR SIDE"],
  [["BOTH", "SIDES"], "BOTH SIDES"],
  [["ALL", "AROUND"], "ALL AROUND"],
  [["ALL", "FILLETS"], "ALL FILLETS"],
  [["ALL", "RADII"], "ALL RADII"],
  [["ALL", "CORNERS"], "ALL CORNERS"],
  [["INCL"], "INCL"],
  [["FULL", "THREAD"], "FULL THREAD"],
  [["FULL", "THD"], "FULL THREAD"],
  [["STOCK"], "STOCK"],
  [["SQ"], "SQ"],
  [["SQUARE"], "SQ"],
  [["BOTH", "WALLS"], "BOTH WALLS"],
  [["BOTH", "ENDS"], "BOTH ENDS"],
  [["TO", "CENTERLINE"], "TO CENTERLINE"],
  [["TO", "CL"], "TO CENTERLINE"],
  [["APART"], "APART"],
  [["DEVELOPED"], "DEVELOPED"],
] as const;
const evenly = noted.filter(([, note]) => note === "EQ SP").map(([words]) => words);
const skipped = [
  [","],
  [":"],
  ["X"],
  ["ON"],
  ["A"],
  ["AT"],
  ["TO"],
  ["WITH"],
  ["AND"],
  ["&"],
  ["/"],
  ["HOLES"],
  ["HOLE"],
];

/**
 * A line of the ledger in the dimensions it holds, each as a line of its own: `8X ⌀.281 THRU ⌴ ⌀.438 ↧ .28 ON ⌀3.500 B.C.`
 * is four. Null where it is not understood.
 */
export function ledgerTexts(typed: string, unit: LengthUnit): LedgerText[] | null {
  const w = Words.of(boxed(spherical(squared(ranged(oneSided(typed))))), unit);
  if (!w) return null;
  const said = new LedgerWords();
  while (!w.done) if (!said.take(w)) return null;
  return said.texts();
}

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
  typed.replace(/([\d.]) +([+-]) ?(\d+),(\d+)\s*$/, (_, last, sign, a, b) =>
    sign === "-" ? `${last} +0 -${a}.${b}` : `${last} +${a}.${b} -0`,
  );
/** `1.250-1.255`: two limits of the same decimals that lie close together. */
const ranged = (typed: string): string => {
  const m = /^([^\d.]*)(\d*\.\d+) ?- ?(\d*\.\d+)(?![\d.])(.*)$/.exec(typed);
  if (!m) return typed;
  const [low, high] = [Number(m[2]), Number(m[3])];
  const decimals = (t: string) => t.length - t.indexOf(".");
  const isPair = decimals(m[2]) === decimals(m[3]) && high > low && high - low < low * WIDEST;
  return isPair ? `${m[1]}${m[3]}/${m[2]}${m[4]}` : typed;
};
/** Limits farther apart than this share of their size are a difference that somebody wrote. */
const WIDEST = 0.05;

interface Said {
  body: string;
  tail: string[];
  notes: string[];
}

class LedgerWords {
  private readonly list: Said[] = [];
  private count = "";
  private feature = "";
  /** Whether the feature has its diameter. */
  private sized = false;
  private circle = false;
  /** Words that stand before the dimension they are said of. */
  private waiting: string[] = [];

  take(w: Words): boolean {
    if (w.here?.is === "quoted") return this.note(w.quoted()!.slice(1, -1));
    const note = noted.find(([words]) => w.take(...words));
    if (note) return this.note(note[1]);
    if (w.take("THRU", "ALL") || w.take("THRU") || w.take("THROUGH")) return this.through();
    const spaced = this.spacedCount(w);
    if (spaced !== null) return this.manyOfFirst(spaced);
    const count = w.count();
    if (count !== null) return this.many(count, w.done);
    if (w.take("ON") && isCircle(w)) {
      this.circle = true;
      return true;
    }
    if (isCircle(w)) return this.onCircle(w);
    if (skipped.some((words) => w.take(...words))) return true;
    const feature = features.find((names) => w.takeOne(names));
    if (feature) {
      if (w.done && this.last) return this.namedAfter(feature[0]);
      this.feature = feature[0];
      this.sized = false;
      return true;
    }
    const thread = w.thread();
    if (thread !== null) {
      this.put(thread);
      return true;
    }
    const size = w.size();
    return size !== null && this.size(size, w);
  }

  private get last(): Said | undefined {
    return this.list[this.list.length - 1];
  }
  private note(text: string): boolean {
    if (this.last) this.last.notes.push(text);
    else this.waiting.push(text);
    return true;
  }
  /** `1.250 BORE`: the feature's name behind its dimension. */
  private namedAfter(feature: string): boolean {
    if (round.includes(feature) && /^[\d.]+$/.test(this.last!.body)) this.last!.body = `⌀${this.last!.body}`;
    return this.note(feature);
  }
  private through(): boolean {
    if (!this.last) return false;
    this.last.tail.push("THRU");
    return true;
  }
  /** `6 EQ SP`: a whole number before "equally spaced" says how many, unless a diameter is waited for. */
  private spacedCount(w: Words): string | null {
    if (this.circle || (this.feature && !this.sized)) return null;
    const save = w.mark();
    const n = w.number();
    if (n !== null && /^\d{1,3}$/.test(n) && evenly.some((words) => w.sees(...words))) return n;
    w.back(save);
    return null;
  }
  /** A count that is said last is that of the hole, which is said first. */
  private manyOfFirst(n: string): boolean {
    const [first] = this.list;
    if (this.count || !first || /^\d+X /.test(first.body)) return false;
    first.body = `${n}X ${first.body}`;
    return true;
  }
  /** `4X` before the dimension, `4 PLACES` behind it. */
  private many(n: string, isLast: boolean): boolean {
    // Said at the very end it is that of the hole, whatever else was said of it.
    if (isLast && this.list.length > 1 && !this.count) return this.manyOfFirst(n);
    if (this.last && !this.count && !/^\d+X /.test(this.last.body) && this.list.length === 1) {
      this.last.body = `${n}X ${this.last.body}`;
      return true;
    }
    if (this.count) return false;
    this.count = `${n}X `;
    return true;
  }
  /** BC before its diameter, or behind it: a number that follows is its own, unless it says how many. */
  private onCircle(w: Words): boolean {
    const save = w.mark();
    const isBefore = w.count() === null && w.size() !== null;
    w.back(save);
    if (
      !isBefore &&
      this.last &&
      !this.last.notes.includes("B.C.") &&
      (this.last.body.includes("⌀") || /^[\d.]/.test(this.last.body))
    ) {
      // A counterbore has no bolt circle: the dimension is the circle's alone.
      this.last.notes = [...this.last.notes.filter((n) => n !== this.feature), "B.C."];
      if (!this.last.body.includes("⌀")) this.last.body = `⌀${this.last.body}`;
    } else this.circle = true;
    return true;
  }
  private put(body: string, more: Partial<Said> = {}): void {
    const notes = [...(this.circle ? ["B.C."] : this.feature ? [this.feature] : []), ...this.waiting];
    this.list.push({ body: this.count + body, tail: more.tail ?? [], notes: [...notes, ...(more.notes ?? [])] });
    this.count = "";
    this.circle = false;
    this.waiting = [];
  }

  private size(s: Size, w: Words): boolean {
    const tolerance = s.tolerance === null || s.text === "" ? [] : [s.tolerance];
    const kept = s.remarks.filter((r) => ["MAX", "MIN", "REF", "BASIC"].includes(r));
    const notes = s.remarks.filter((r) => !kept.includes(r) && !own.includes(r));
    // `.03 X 45°`: a chamfer is one dimension.
    const save = w.mark();
    if (s.tag === null && w.take("X")) {
      const lean = w.size();
      if (lean?.tag === "angle") {
        this.put(`${s.text} X ${lean.text}°`, {
          tail: [...tolerance, ...kept],
          notes: [...notes, ...lean.remarks.filter((r) => !own.includes(r))],
        });
        return true;
      }
      w.back(save);
    }
    const limits = s.tolerance?.includes("/") && !/[+-]/.test(s.tolerance) ? s.tolerance : null;
    const value = limits ? limits.replace("/", " / ") : s.text;
    // A drill is named by its diameter, whatever stands before it.
    const isFirst = this.feature !== "" && s.tag === null && round.includes(this.feature) && !this.sized;
    this.sized = this.sized || s.tag === null || s.tag === "⌀";
    const isRound = s.tag === "⌀" || s.tag === "OD" || s.tag === "ID" || this.circle || isFirst;
    const sign = isRound ? "⌀" : s.tag === "R" ? "R" : "";
    const mark = s.tag === "angle" ? "°" : s.tag === "deep" ? " DEEP" : "";
    const more = s.tag === "OD" || s.tag === "ID" || s.tag === "AF" || s.tag === "AC" ? [s.tag] : [];
    this.put(`${sign}${value}${mark}`, {
      tail: [...(limits ? [] : tolerance), ...kept],
      notes: [...new Set([...more, ...notes])],
    });
    return true;
  }

  texts(): LedgerText[] | null {
    // A count alone is one dimension.
    if (!this.list.length && this.count)
      this.list.push({ body: this.count.trim(), tail: [], notes: this.waiting.splice(0) });
    else if (!this.list.length || this.count || this.waiting.length) return null;
    return this.list.map(({ body, tail, notes }) =>
      [body, ...tail, ...(notes.length ? [`"${notes.join(" ")}"`] : [])].join(" "),
    );
  }
}

/** Features whose bare number is a diameter. */
const round: string[] = ["DRILL", "REAM", "BORE", "CBORE", "CSK", "SPOTFACE"];
/** Words that are in the dimension's own sign already. */
const own = [
  "DIA",
  "DIAMETER",
  "D",
  "R",
  "RAD",
  "RADIUS",
  "DEEP",
  "DP",
  "DEPTH",
  "DEG",
  "DEGREES",
  "OD",
  "ID",
  "AF",
  "AC",
  "ACROSS",
  "A",
  "FLATS",
  "CORNERS",
];
