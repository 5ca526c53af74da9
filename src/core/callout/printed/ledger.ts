import type { LengthUnit } from "../../number";
import { figureOf } from "./figure";
import { isNoDimension, ledgerForm } from "./ledgerForms";
import { evenly, features, noted, skipped } from "./ledgerNotes";
import { isCircle } from "./places";
import { clearanceAt } from "./screws";
import { Words, type Size } from "./words";

/** One dimension of a ledger's line, as the card writes it after its number. */
export type LedgerText = string;

/**
 * A line of the ledger in the dimensions it holds, each as a line of its own: `8X ⌀.281 THRU ⌴ ⌀.438 ↧ .28 ON ⌀3.500 B.C.`
 * is four. Null where it is not understood.
 */
export function ledgerTexts(typed: string, unit: LengthUnit): LedgerText[] | null {
  const w = isNoDimension(typed) ? null : Words.of(ledgerForm(typed, unit), unit);
  if (!w) return null;
  const line = new LedgerWords();
  while (!w.done) if (!line.take(w)) return null;
  return line.texts();
}

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
  /** An X stood before what comes. */
  private crossed = false;
  /** Words that stand before the dimension they are said of. */
  private waiting: string[] = [];

  take(w: Words): boolean {
    if (w.here?.is === "quoted") return this.note(w.quoted()!.slice(1, -1));
    const note = noted.find(([words]) => w.take(...words));
    if (note) return this.note(note[1]);
    const bound = this.last && w.takeOne(["REF", "BASIC", "MAX", "MIN"]);
    if (bound) return this.bound(bound);
    if (w.take("THRU", "ALL") || w.take("THRU") || w.take("THROUGH")) return this.through();
    const many = this.countOfPlural(w);
    if (many !== null) return this.many(many, false);
    const spaced = this.spacedCount(w);
    if (spaced !== null) return this.manyOfFirst(spaced);
    const count = w.count();
    if (count !== null) return this.many(count, w.done);
    if (this.drillByName(w) || this.clearance(w)) return true;
    if (w.take("ON") && isCircle(w)) {
      this.circle = true;
      return true;
    }
    if (isCircle(w)) return this.onCircle(w);
    if (w.sees("X")) this.crossed = true;
    if (skipped.some((words) => w.take(...words))) return true;
    const feature = features.find((names) => w.takeOne(names));
    if (feature) {
      if ((w.done || w.here?.is === "tolerance") && this.last) return this.namedAfter(feature[0]);
      // `.4375 DRILL 1.00 DEEP`: its diameter before the name, its depth behind.
      const isBefore = this.list.length === 1 && /^(?:\d+X )?[\d./-]+$/.test(this.last!.body) && this.nextIsDepth(w);
      if (isBefore && !this.last!.notes.length && !this.last!.tail.includes("THRU")) {
        this.namedAfter(feature[0]);
        this.sized = true;
        this.feature = feature[0];
        return true;
      }
      this.feature = feature[0];
      this.sized = false;
      return true;
    }
    const thread = w.thread();
    if (thread !== null) {
      this.put(thread);
      return true;
    }
    // `.3125 REAM +.0005 -.0000`: its tolerance behind the word.
    const bounds = this.last && w.fitOfLast();
    if (bounds) return this.last.tail.unshift(bounds) > 0;
    const size = w.size();
    return size !== null && this.size(size, w);
  }

  /** `NO. 7 DRILL (.201)`: its diameter, with its name as its words. */
  private drillByName(w: Words): boolean {
    const from = w.mark();
    const diameter = w.drill();
    if (diameter === null) return false;
    const name = w.said(from);
    const save = w.mark();
    const again = w.size();
    if (!again || Number(again.text.replace(/[()]/g, "")) !== parseFloat(diameter)) w.back(save);
    this.put(`⌀${diameter}`, { notes: [name] });
    return true;
  }

  /** `M6 CLEARANCE`: the hole's diameter by its table, with that as its words. */
  private clearance(w: Words): boolean {
    const hole = clearanceAt(w, w.unit);
    const m = hole === null ? null : /^(.*)\{(.*)\}$/.exec(hole);
    if (!m) return false;
    this.put(`⌀${m[1]}`, { notes: [m[2]] });
    return true;
  }

  private get last(): Said | undefined {
    return this.list[this.list.length - 1];
  }
  private note(text: string): boolean {
    if (this.last && !this.last.notes.includes(text)) this.last.notes.push(text);
    else if (!this.last) this.waiting.push(text);
    return true;
  }
  private nextIsDepth(w: Words): boolean {
    const save = w.mark();
    const isDeep = w.size()?.tag === "deep";
    w.back(save);
    return isDeep;
  }
  /** `1.250 BORE`, `4X .438 CBORE`: the feature's name behind its dimension. */
  private namedAfter(feature: string): boolean {
    const bare = /^((?:\d+X )?)([\d./-]+)$/.exec(this.last!.body);
    if (round.includes(feature) && bare) this.last!.body = `${bare[1]}⌀${bare[2]}`;
    return this.note(feature);
  }
  /** `⌀4.000 B.C. REF`, `.010 BREAK MAX`: said of the last dimension, once. */
  private bound(text: string): boolean {
    if (this.last!.tail.includes(text)) return false;
    this.last!.tail.push(text);
    return true;
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
  /** `2 SLOTS`: a whole number before more than one of them. */
  private countOfPlural(w: Words): string | null {
    const save = w.mark();
    const n = w.number();
    if (n !== null && /^\d{1,3}$/.test(n) && w.takeOne(plurals)) {
      this.feature = "SLOT";
      this.sized = false;
      return n;
    }
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
    const all = [...new Set([...notes, ...(more.notes ?? [])])];
    this.list.push({ body: this.count + body, tail: more.tail ?? [], notes: all });
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
    // `45° X 2`: the other way round.
    if (s.tag === "angle" && leans.has(s.text) && w.take("X")) {
      const leg = w.size();
      if (leg?.tag === null) {
        this.put(`${leg.text} X ${s.text}°`, { tail: leg.tolerance === null ? [] : [leg.tolerance] });
        return true;
      }
      w.back(save);
    }
    // A countersink's first size is its diameter, and no leg.
    const isRoundNext = round.includes(this.feature) && !this.sized;
    if (s.tag === null && !isRoundNext && w.take("X")) {
      const lean = w.size();
      const isLean = lean && (lean.tag === "angle" || (lean.tag === null && this.isLeanAlone(s, lean)));
      if (lean && isLean) {
        this.put(`${s.text} X ${lean.text}°`, {
          tail: [...tolerance, ...kept],
          notes: [...notes, ...lean.remarks.filter((r) => !own.includes(r))],
        });
        return true;
      }
      w.back(save);
    }
    const limits = s.tolerance?.includes("/") && !/[+±-]/.test(s.tolerance) ? s.tolerance : null;
    const value = limits ? limits.replace("/", " / ") : s.text;
    // A drill is named by its diameter, whatever stands before it.
    const isFirst = this.feature !== "" && s.tag === null && round.includes(this.feature) && !this.sized;
    this.sized = this.sized || s.tag === null || s.tag === "⌀";
    const isRound = s.tag === "⌀" || s.tag === "OD" || s.tag === "ID" || this.circle || isFirst;
    const sign = isRound ? "⌀" : s.tag === "R" ? "R" : "";
    // `CBORE .750 X .250`: how deep.
    const isDepth = s.tag === "deep" || (s.tag === null && this.crossed && !isFirst && sunk.includes(this.feature));
    this.crossed = false;
    const mark = s.tag === "angle" ? "°" : isDepth ? " DEEP" : "";
    const more = s.tag === "OD" || s.tag === "ID" || s.tag === "AF" || s.tag === "AC" ? [s.tag] : [];
    this.put(`${sign}${value}${mark}`, {
      tail: [...(limits ? [] : tolerance), ...kept],
      notes: [...new Set([...more, ...notes])],
    });
    return true;
  }

  /** `CHAMFER 1 x 60`, `.03 x 45`: the degrees are understood, 45 of them beside a leg that is much less. */
  private isLeanAlone(leg: Size, lean: Size): boolean {
    if (this.feature === "CHAMFER") return leans.has(lean.text);
    return lean.text === "45" && figureOf(leg.text) * MUCH_LESS < 45;
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

/** A leg that is so much less than 45 is none of two sizes. */
const MUCH_LESS = 8;
/** Angles of chamfers that nobody reads as a size. */
const leans = new Set(["45", "30", "60"]);
const plurals = ["SLOTS"] as const;
/** Features whose bare number is a diameter. */
const round: string[] = ["DRILL", "REAM", "BORE", "CBORE", "CSK", "SPOTFACE"];
/** Of those, what is said to be so deep by an X. */
const sunk: string[] = ["CBORE", "SPOTFACE"];
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
