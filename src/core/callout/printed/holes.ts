import type { LengthUnit } from "../../number";
import { figureOf } from "./figure";
import { between, fullThread, NEXT, oneWall, screws, through, verbs } from "./holeTerms";
import { Places } from "./places";
import { isOutside } from "./shafts";
import { clearanceAt, clearanceSaid, lateClearanceAt, screwAt, seatOf, throughHole, type Screw } from "./screws";
import { spellings, type Size, type Words } from "./words";

/** A round cut while its words are read: diameter, and how deep. */
interface Round {
  diameter?: string;
  depth?: string;
}
type Target = "hole" | "drill" | "cbore" | "csk" | "step";

/**
 * Holes and tapped holes, counterbores and countersinks from a print's words, in whatever order:
 * `8X ⌀.281 THRU ⌴ ⌀.438 ↧ .28 EQ SP ON ⌀3.500 B.C.`, `DRILL .201 THRU, TAP 1/4-20 UNC-2B .5 DEEP`.
 * What is stacked on one axis, or done from both sides, becomes several rows, a line each.
 */
export function holeText(w: Words): string | null {
  const said = new HoleWords();
  while (!w.done) if (!said.take(w)) return null;
  return said.text(w.unit);
}

class HoleWords {
  private target: Target = "hole";
  private readonly rounds: Record<Target, Round> = { hole: {}, drill: {}, cbore: {}, csk: {}, step: {} };
  /** Wider steps on the same axis, told one after another. */
  private readonly steps: Round[] = [];
  private count: string | null = null;
  private thread: string | null = null;
  private angle: string | null = null;
  private isBored = false;
  private isDrilled = false;
  private isReamed = false;
  /** Told as a hole by a word: a number behind an X is how deep. */
  private isNamed = false;
  /** The fit of the hole's diameter. */
  private fit: string | null = null;
  private end = "";
  /** The screw it is for, where that is said. */
  private screw: Screw | null = null;
  private readonly places = new Places();
  /** What was named, with or without sizes of its own. */
  private readonly named = new Set<Target>();

  /** Takes the next phrase; false where it is none of a hole's. */
  take(w: Words): boolean {
    // `CLEARANCE HOLE FOR M8` is one phrase; the word by itself says nothing.
    if (this.clearance(w) || this.lateClearance(w)) return true;
    // A pin's fit is said of no thread: `M6 DOWEL`, `M6 PRESS FIT` are not tapped.
    if (this.thread !== null && ["DOWEL", "PRESS", "SLIP", "CLOSE", "CLEARANCE"].some((word) => w.sees(word)))
      return false;
    if (between.some((words) => w.take(...words))) return true;
    return w.firstOf(
      () => this.howMany(w),
      () => this.purpose(w),
      () => this.verb(w),
      () => this.tapped(w),
      () => this.drillByName(w),
      () => this.fitBehind(w),
      () => this.places.take(w),
      () => this.ending(w),
      () => this.measure(w),
    );
  }

  private howMany(w: Words): boolean {
    const save = w.mark();
    const n = w.count();
    if (n === null) return false;
    if (this.count === null || this.count === n) {
      this.count = n;
      return true;
    }
    w.back(save);
    return false;
  }

  /** `M6 CLEARANCE`, `1/4-20 CLOSE FIT`: a hole by the table of clearance holes, and no thread. */
  private clearance(w: Words): boolean {
    if (this.thread !== null) return false;
    const { hole } = this.rounds;
    const diameter = clearanceAt(w, w.unit);
    if (diameter === null) return false;
    // With a diameter of its own the words say what that is for.
    hole.diameter ??= diameter;
    return (this.isNamed = true);
  }

  /** `M6 THRU, CLOSE FIT`: that it is a clearance hole, told after the screw it is for. */
  private lateClearance(w: Words): boolean {
    const { hole, drill } = this.rounds;
    if (this.thread === null || hole.diameter !== undefined || drill.diameter !== undefined) return false;
    const diameter = lateClearanceAt(w, this.thread);
    if (diameter === null) return false;
    hole.diameter = diameter;
    this.thread = null;
    return (this.isNamed = true);
  }

  /** `FOR 1/4 SHCS`, `FOR M6 SCREW`: what the hole is for; a mouth without sizes has those of the screw's head. */
  private purpose(w: Words): boolean {
    const save = w.mark();
    const screw = w.take("FOR") ? screwAt(w) : null;
    const isScrew = screw !== null && (screw.kind !== null || /^[#M]/.test(screw.size));
    if (!isScrew) {
      w.back(save);
      return purposeOnly(w);
    }
    if (w.take("X")) w.number();
    while (w.takeOne(screws));
    this.screw = screw;
    const isMouth = this.target === "cbore" || this.target === "csk";
    // `CSK FOR M5 FHCS THRU`: what follows is said of the hole.
    if (isMouth && this.rounds[this.target].diameter === undefined) this.target = "hole";
    if (w.takeOne(clearanceSaid) === null || this.rounds.hole.diameter !== undefined) return true;
    this.rounds.hole.diameter = throughHole(screw, w.unit) ?? undefined;
    return (this.isNamed = true);
  }

  /** A mouth that is named for a screw, and told no sizes: those of the screw's head, over its clearance hole. */
  private seatScrew(unit: LengthUnit): boolean {
    const { hole, cbore, csk } = this.rounds;
    if (!this.screw || this.thread !== null) return true;
    const isBare = (target: "cbore" | "csk", r: Round) =>
      this.named.has(target) && r.diameter === undefined && r.depth === undefined;
    const mouth = isBare("cbore", cbore) ? "cbore" : isBare("csk", csk) ? "csk" : null;
    if (!mouth) return true;
    const seat = seatOf(this.screw, mouth, unit);
    if (!seat) return false;
    if (seat.cbore) Object.assign(cbore, seat.cbore);
    if (seat.csk) {
      csk.diameter = seat.csk.diameter;
      this.angle ??= seat.csk.angle;
    }
    hole.diameter ??= seat.hole;
    return true;
  }

  private verb(w: Words): boolean {
    if (w.takeOne(spellings.counterbore) || w.takeOne(spellings.spotface) || w.take("SPOT", "FACE")) {
      if (!isWhole(this.rounds.cbore)) return this.turnTo("cbore");
      this.nextStep();
      return true;
    }
    if (w.takeOne(spellings.countersink)) return this.turnTo("csk");
    const verb = w.takeOne(verbs);
    if (!verb) return false;
    this.isNamed = true;
    if (verb.startsWith("DRILL")) this.isDrilled = true;
    if (verb.startsWith("BORE")) this.isBored = true;
    if (verb.startsWith("REAM")) this.isReamed = true;
    if (this.thread !== null && verb.startsWith("DRILL")) return this.turnTo("drill");
    if (this.isMouthTold()) this.target = "hole";
    if (verb.startsWith("TAP")) this.toDrill();
    return true;
  }
  /** `C'BORE ⌀15 X 9, DRILL ⌀9 THRU`: the mouth is told, and what it is the mouth of is not. */
  private isMouthTold(): boolean {
    const { hole, cbore, csk } = this.rounds;
    if (this.thread !== null || hole.diameter !== undefined || hole.depth !== undefined) return false;
    return this.target === "cbore" ? isWhole(cbore) : this.target === "csk" && csk.diameter !== undefined;
  }
  private turnTo(target: Target): true {
    this.target = target;
    this.named.add(target);
    return true;
  }

  /** What was drilled before a thread is said is its tap drill. */
  private toDrill(): void {
    if (this.rounds.hole.diameter === undefined) return;
    this.rounds.drill = this.rounds.hole;
    this.rounds.hole = {};
    this.target = "hole";
  }

  private tapped(w: Words): boolean {
    const thread = this.thread === null ? w.thread() : null;
    if (thread === null || isOutside(thread)) return false;
    this.toDrill();
    this.thread = thread;
    return true;
  }

  /** `NO. 7 DRILL`, `LETTER F DRILL`: a drill of the inch table; the size in brackets behind it says the same again. */
  private drillByName(w: Words): boolean {
    const diameter = w.drill();
    if (diameter === null) return false;
    if (this.thread !== null) this.turnTo("drill");
    this.isDrilled = true;
    const round = this.rounds[this.target];
    // `⌀.266 (LTR H)`: its name said again.
    if (round.diameter !== undefined) return Number(round.diameter) === parseFloat(diameter);
    round.diameter = diameter;
    const save = w.mark();
    const again = w.size();
    if (!again || Number(again.text.replace(/[()]/g, "")) !== parseFloat(diameter)) w.back(save);
    return true;
  }

  /** `⌀12 REAM H7`: the fit behind the word. */
  private fitBehind(w: Words): boolean {
    const fit = w.fitOfLast();
    if (fit && /^[A-Z]/i.test(fit)) this.fit ??= fit;
    return fit !== null;
  }

  private ending(w: Words): boolean {
    if (w.take("BLIND")) return (this.isNamed = true);
    if (oneWall.some((words) => w.take(...words))) {
      const round = this.rounds[this.target];
      round.depth ??= NEXT;
      return round.depth === NEXT;
    }
    if (w.sees("X", "THRU")) w.take("X");
    if (through.some((words) => w.take(...words))) {
      if (this.isMouthTold()) this.target = "hole";
      const round = this.rounds[this.target];
      round.depth ??= "THRU";
      // A hole that is so deep and through says two things: neither is chosen for the reader.
      return round.depth === "THRU";
    }
    if (w.take("FLAT", "BOTTOM") || w.take("FLAT") || w.take("FB")) return this.endIn("FLAT");
    if (!w.take("POINT")) return false;
    const angle = w.size();
    return angle !== null && this.endIn(`POINT ${angle.text}`);
  }

  /** How the bottom of the hole is, which is said once. */
  private endIn(end: string): boolean {
    if (this.end) return false;
    this.end = end;
    return true;
  }

  /** What is told from here on is a wider step on the same axis. */
  private nextStep(): void {
    if (this.rounds.step.diameter !== undefined) this.steps.push(this.rounds.step);
    this.rounds.step = {};
    this.target = "step";
  }

  /** A number: the diameter or depth of what is being told, or a countersink's angle. */
  private measure(w: Words): boolean {
    const isCrossed = w.take("X");
    const size = w.size();
    if (!size) return false;
    if (fullThread.some((words) => w.take(...words)) && this.thread === null) return false;
    // `1/4-20 UNC-2B X .375`: how deep the thread is.
    if (isCrossed && size.tag === null && this.thread !== null && this.target === "hole")
      return put(this.rounds.hole, "depth", size);
    // `CBORE ⌀.75 X .25`: the second of its sizes.
    if (isCrossed && size.tag === null && this.target === "cbore" && this.rounds.cbore.diameter !== undefined)
      return put(this.rounds.cbore, "depth", size);
    // `DRILL ⌀8.5 X 25`, `BLIND HOLE ⌀11 X 30`.
    const isHoles = this.target === "hole" && this.isNamed && this.rounds.hole.diameter !== undefined;
    if (isCrossed && size.tag === null && isHoles) return put(this.rounds.hole, "depth", size);
    // `.53 DRILL THRU, .81 CBORE .50 DEEP`: the diameter before its name.
    if (this.isBeforeCounterbore(size, w)) return put(this.rounds.cbore, "diameter", size);
    if (size.tag === "⌀" && this.isMouthFirst()) this.settleNames();
    if (size.tag === "⌀" && this.isMouthTold()) this.target = "hole";
    // `M8 ↧16 / ⌀6.8 ↧20`: a diameter behind a thread is its tap drill's.
    if (size.tag === "⌀" && this.thread !== null && this.target === "hole") this.turnTo("drill");
    const told = this.rounds[this.target];
    if (size.tag === "⌀" && this.target !== "csk" && this.target !== "drill" && isWhole(told)) this.nextStep();
    const round = this.rounds[this.target];
    switch (size.tag) {
      case "deep":
        return put(round, "depth", size);
      case "angle":
        if (w.take("POINT")) return this.endIn(`POINT ${size.text}`);
        return this.lean(size, w);
      case "⌀":
        if (round === this.rounds.hole && /^[A-Z]/.test(size.tolerance ?? "")) this.fit = size.tolerance;
        return put(round, "diameter", size);
      case null:
        return this.bare(round, size);
      default:
        return false;
    }
  }

  /** `⌀.750 CBORE ↧ .25 ⌀.500 THRU`: what was told so far is the mouth, its diameter before its name. */
  private isMouthFirst(): boolean {
    const { hole, cbore } = this.rounds;
    return this.target === "cbore" && hole.depth === undefined && cbore.diameter === undefined && !!cbore.depth;
  }
  private isBeforeCounterbore(size: Size, w: Words): boolean {
    const isBare = size.tag === null || size.tag === "⌀";
    const isNext = this.target === "hole" && this.rounds.hole.diameter !== undefined && !this.named.has("cbore");
    if (!isBare || !isNext) return false;
    return w.takeOne(spellings.counterbore) !== null && this.turnTo("cbore");
  }

  /** How wide a countersink opens, its name before it or behind: `⌀12 X 90° CSK`. */
  private lean(size: Size, w: Words): boolean {
    const { hole, csk } = this.rounds;
    const isNamedBehind = this.target === "hole" && this.thread === null && hole.depth === undefined;
    if (isNamedBehind && hole.diameter !== undefined && w.takeOne(spellings.countersink)) {
      csk.diameter = hole.diameter;
      this.rounds.hole = {};
      this.turnTo("csk");
    }
    // `82° CSK ⌀.385`: the angle before the name.
    if (this.target !== "csk" && this.angle === null && w.takeOne(spellings.countersink)) this.turnTo("csk");
    if (this.target !== "csk" || this.angle !== null) return false;
    this.angle = size.text;
    return true;
  }

  /** A number without a word: a diameter where none is said yet, else a countersink's angle. */
  private bare(round: Round, size: Size): boolean {
    if (this.target === "hole" && this.thread !== null) return false;
    if (round.diameter === undefined) return put(round, "diameter", size);
    if (this.target === "csk" && this.angle === null) {
      this.angle = size.text;
      return true;
    }
    return false;
  }

  /** `⌀22 ↧ 6 COUNTERBORE`: what is named behind its sizes. False where a name is left without any. */
  private settleNames(): boolean {
    const { hole, cbore, csk } = this.rounds;
    if (csk.depth !== undefined || (this.named.has("csk") && csk.diameter === undefined)) return false;
    if (!this.named.has("cbore") || cbore.diameter !== undefined) return true;
    // `.75 DIA CBORE .25 DEEP`: the diameter before its name.
    if (cbore.depth !== undefined && hole.depth === undefined && this.thread === null && hole.diameter !== undefined) {
      cbore.diameter = hole.diameter;
      this.rounds.hole = {};
      return true;
    }
    if (cbore.depth !== undefined || this.thread !== null || hole.depth === undefined || hole.depth === "THRU")
      return false;
    Object.assign(cbore, hole);
    this.rounds.hole = {};
    return true;
  }

  text(unit: LengthUnit): string | null {
    if (!this.seatScrew(unit) || !this.settleNames() || !this.places.isEven(this.count)) return null;
    const first = this.firstRow();
    const stacked = this.stackedRows();
    const far = this.places.isBoth ? this.farRow() : "";
    if (first === null || stacked === null || far === null) return null;
    return [first, ...stacked, far].filter(Boolean).join("\n");
  }

  private get many(): string {
    return this.count === null ? "" : `${this.count}X `;
  }

  /** A hole with what is on its mouth, or a counterbore or countersink by itself. */
  private firstRow(): string | null {
    const { hole, drill, cbore, csk } = this.rounds;
    const where = this.places.text;
    // A drill's `#7` is its number in a table, and would be balloon 7 here.
    if (this.isDrilled && [hole, drill].some((r) => r.diameter?.startsWith("#"))) return null;
    if (csk.diameter !== undefined && this.angle === null) return null;
    // What widens a mouth is wider than the hole: else their sizes were told the other way round.
    if ([cbore, csk].some((r) => figureOf(r.diameter) <= figureOf(hole.diameter))) return null;
    if (cbore.diameter !== undefined && (cbore.depth === undefined || cbore.depth === "THRU")) return null;
    if (this.thread === null && hole.diameter === undefined) return this.mouthRow(where);
    const reamed = this.isReamed ? `${this.fit === null ? "" : ` ${this.fit}`} REAM` : "";
    const head = this.thread ?? `⌀${hole.diameter}${reamed}`;
    const depth = hole.depth ?? (this.thread === null ? this.depthUnsaid() : drill.depth);
    if (depth === undefined) return null;
    const flat = this.end || (this.isBored && depth !== "THRU" && this.thread === null ? "FLAT" : "");
    return [
      `CUT ${this.many}${head}`,
      depthText(depth),
      this.thread === null ? "" : drillText(drill, hole.depth === undefined),
      flat,
      cbore.diameter === undefined ? "" : `CBORE ⌀${cbore.diameter} DEEP ${cbore.depth}`,
      csk.diameter === undefined ? "" : `CSK ⌀${csk.diameter} X ${this.angle}`,
      where.trim(),
    ]
      .filter(Boolean)
      .join(" ");
  }

  /**
   * `4X ⌀5.5 ⌴ ⌀10 ↧ 5.4`: a print gives every blind hole its depth, and a hole under a counterbore or countersink
   * without one goes through (common practice, no source).
   */
  private depthUnsaid(): string | undefined {
    const { cbore, csk } = this.rounds;
    return cbore.diameter !== undefined || csk.diameter !== undefined ? "THRU" : undefined;
  }

  /** A counterbore or a countersink by itself; null where there is none, or both. */
  private mouthRow(where: string): string | null {
    const { cbore, csk } = this.rounds;
    if ((cbore.diameter === undefined) === (csk.diameter === undefined)) return null;
    return cbore.diameter !== undefined
      ? `CUT ${this.many}CBORE ⌀${cbore.diameter} DEEP ${cbore.depth}${where}`
      : `CUT ${this.many}CSK ⌀${csk.diameter} X ${this.angle}${where}`;
  }

  /** Wider steps on the axis of a hole: each has to be wider and less deep than the one before it. */
  private stackedRows(): string[] | null {
    const all = [...this.steps, ...(this.rounds.step.diameter === undefined ? [] : [this.rounds.step])];
    if (!all.length) return [];
    if (this.thread !== null || this.places.isBoth || this.rounds.csk.diameter !== undefined) return null;
    const { hole, cbore } = this.rounds;
    const axis = [hole, ...(cbore.diameter === undefined ? [] : [cbore]), ...all];
    const deep = (r: Round) => (r.depth === "THRU" ? Infinity : figureOf(r.depth));
    const isStacked = axis.every(
      (r, i) => i === 0 || (figureOf(r.diameter) > figureOf(axis[i - 1].diameter) && deep(r) < deep(axis[i - 1])),
    );
    return isStacked ? all.map((r) => `CUT ${this.many}CBORE ⌀${r.diameter} DEEP ${r.depth}${this.places.text}`) : null;
  }

  /** What is done from the far side as well: the mouth of a hole through, or a blind hole again. */
  private farRow(): string | null {
    const { hole, drill } = this.rounds;
    const where = this.places.farText;
    const isThrough = (hole.depth ?? drill.depth) === "THRU";
    const isHole = this.thread !== null || hole.diameter !== undefined;
    if (isThrough || !isHole) return this.mouthRow(where);
    const near = this.firstRow();
    return near && near.slice(0, near.length - this.places.text.length) + where;
  }
}

/** `FOR .25 DOWEL`: what the hole is for; its figures are told without it. */
function purposeOnly(w: Words): boolean {
  const save = w.mark();
  const size = w.take("FOR") ? (w.thread() ?? w.number()) : null;
  if (size !== null) {
    if (w.take("X")) w.number();
    // `FOR #10`, `FOR M6`: a screw by its name alone.
    let isScrew = /^[#M]/.test(size);
    while (w.takeOne(screws)) isScrew = true;
    if (isScrew) return true;
  }
  w.back(save);
  return false;
}

const isWhole = (r: Round): boolean => r.diameter !== undefined && r.depth !== undefined;
const depthText = (depth: string): string => (depth === "THRU" ? depth : `DEEP ${depth}`);

/** The tap drill, as far as it is said and is not the thread's own depth. */
function drillText({ diameter, depth }: Round, isThreadsDepth: boolean): string {
  const deep = depth === undefined || isThreadsDepth ? "" : ` ${depthText(depth)}`;
  return diameter === undefined && !deep ? "" : `DRILL${diameter === undefined ? "" : ` ⌀${diameter}`}${deep}`;
}

function put(round: Round, what: "diameter" | "depth", size: Size): boolean {
  if (round[what] !== undefined) return false;
  round[what] = size.text;
  return true;
}
