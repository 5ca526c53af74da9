import { negated } from "../../number";
import type { Words } from "./words";

/** What says that places share a circle evenly, which is what a bolt circle does anyway. */
const spaced = [
  ["EQ", "SP"],
  ["EQSP"],
  ["EQ", "SPACED"],
  ["EQUALLY", "SPACED"],
  ["EQUI", "SPACED"],
  ["EQUISPACED"],
  ["EQSPACED"],
  ["EVENLY", "SPACED"],
  ["EQL", "SP"],
  ["EQUAL", "SPACES"],
];

const bothSides = [
  ["BOTH", "SIDES"],
  ["EACH", "SIDE"],
  ["NEAR", "SIDE", "AND", "FAR", "SIDE"],
  ["NEAR", "SIDE", "&", "FAR", "SIDE"],
  ["NEAR", "AND", "FAR", "SIDE"],
  ["NEAR", "&", "FAR", "SIDE"],
];
const rectangles = ["RECTANGLE", "PATTERN", "CENTRES", "CENTERS", "CTRS", "CRS"] as const;
const BOTTOM = " ON BOTTOM";
const FULL_TURN = 360;

/** Where a cut stands, as the card writes it: its pattern, and its plane. */
export class Places {
  private readonly points: { x: string; y: string }[] = [];
  private pattern = "";
  private turn: string | null = null;
  private plane = "";
  private start = "";
  private circle: string | null = null;
  private from: string | null = null;
  /** Said of the far side of a view from above: there y runs the other way. */
  private isFar = false;
  private isNear = false;
  /** The same is done from the far side too. */
  isBoth = false;
  private apart: string | null = null;
  /** How many there are by what is said of their places: a rectangle's four, angles one by one, signs both ways. */
  private many: number | null = null;
  private isRectangle = false;
  private isSpaced = false;

  /** Whether so many go round evenly, where they are said to stand so many degrees apart. */
  isEven(count: string | null): boolean {
    if (this.many !== null && count !== null && Number(count) !== this.many) return false;
    if (this.isRectangle && count === null) return false;
    return this.apart === null || (this.circle !== null && Number(count) * Number(this.apart) === FULL_TURN);
  }

  /** Takes a phrase that says where; false where what stands there says something else. */
  take(w: Words): boolean {
    return w.firstOf(
      () => this.side(w),
      () => this.boltCircle(w),
      () => this.laterFirst(w),
      () => this.rectangle(w),
      () => this.central(w),
      () => this.listed(w),
      () => this.written(w),
    );
  }

  get text(): string {
    return this.seenFrom(this.isFar);
  }
  /** The same places on the far side. */
  get farText(): string {
    return this.seenFrom(true) + (this.plane ? "" : BOTTOM);
  }

  private seenFrom(isFar: boolean): string {
    const seen = (t: string) => (isFar ? negated(t) : t);
    const circle =
      this.circle === null ? "" : ` ON BC ${this.circle}${this.from === null ? "" : ` FROM ${seen(this.from)}`}`;
    const turn = this.turn === null ? "" : ` TURN ${seen(this.turn)}`;
    const points = this.points.length ? ` AT ${this.points.map((p) => `${p.x},${seen(p.y)}`).join(" ")}` : "";
    return circle + this.pattern + turn + points + this.start + this.plane;
  }

  /** On one plane, and not on another besides. */
  private stands(plane: string): boolean {
    if (this.plane || this.isBoth) return false;
    this.plane = plane;
    return !this.isNear || plane !== BOTTOM;
  }

  /** EQ SP, FAR SIDE, NEAR SIDE, ON TOP. */
  private side(w: Words): boolean {
    if (spaced.some((words) => w.take(...words))) {
      this.isSpaced = true;
      return true;
    }
    if (this.degreesApart(w)) return true;
    if (w.sees("FROM", "FAR", "SIDE") || w.sees("ON", "FAR", "SIDE") || w.sees("FROM", "OTHER", "SIDE")) w.next();
    if (bothSides.some((words) => w.take(...words))) {
      this.isBoth = true;
      return this.plane === "" && !this.isNear;
    }
    if (w.take("FAR", "SIDE") || w.take("FS") || w.take("OTHER", "SIDE") || w.take("OPPOSITE", "SIDE")) {
      this.isFar = true;
      return this.stands(BOTTOM);
    }
    if (!w.take("NEAR", "SIDE") && !w.take("NS") && !w.take("THIS", "SIDE")) return false;
    this.isNear = true;
    return this.plane !== BOTTOM && !this.isBoth;
  }

  /** `120° APART`, `AT 120° ON ⌀60`: what a count says of a bolt circle anyway. */
  private degreesApart(w: Words): boolean {
    const save = w.mark();
    const isAt = w.take("AT");
    const angle = w.size();
    if (angle?.tag === "angle" && this.apart === null && (w.take("APART") || (isAt && sharesDiameter(w)))) {
      this.apart = angle.text;
      return true;
    }
    w.back(save);
    return false;
  }

  /** ON ⌀3.500 BC, ON A 3.5 DIA BOLT CIRCLE, PCD 80; then AT 22.5° or FROM 22.5. */
  private boltCircle(w: Words): boolean {
    const save = w.mark();
    const isOn = w.take("ON");
    if (!w.take("A")) w.take("AN");
    const named = isCircle(w);
    const size = w.size();
    // `EQ SP ON ⌀80`: places spaced evenly on a diameter share a circle.
    const isEven = this.isSpaced || this.apart !== null || spaced.some((words) => w.sees(...words));
    const isShared = isOn && isEven && size?.tag === "⌀";
    // `ON 1.50 R`: a circle by its radius.
    if (size?.tag === "R" && isOn && this.circle === null) {
      this.circle = `(2*${size.text})`;
      return true;
    }
    if (size && this.circle === null && (named || isCircle(w) || isShared)) {
      this.circle = size.text;
      this.firstHole(w);
      return true;
    }
    w.back(save);
    return false;
  }
  private firstHole(w: Words): void {
    const save = w.mark();
    const from = w.take("FROM") || w.take("STARTING", "AT") || w.take("START", "AT") || w.take("FIRST", "AT");
    const isAt = !from && w.take("AT");
    const angle = from || isAt ? w.size() : null;
    if (!angle || !(from || angle.tag === "angle")) return w.back(save);
    const all = [angle.text, ...this.moreAngles(w)];
    if (!isEvenly(all) || w.sees(",")) return w.back(save);
    this.from = angle.text;
    if (all.length > 1) this.many = all.length;
  }
  /** `AT 0°, 120°, 240°`: what even spacing says anyway. */
  private moreAngles(w: Words): string[] {
    const more: string[] = [];
    for (;;) {
      const save = w.mark();
      if (!w.take(",")) w.take("&");
      const next = w.size();
      if (next?.tag !== "angle") {
        w.back(save);
        return more;
      }
      more.push(next.text);
    }
  }

  /** `, FIRST HOLE AT 22.5°`: behind what else is said of the circle. */
  private laterFirst(w: Words): boolean {
    const save = w.mark();
    w.take(",");
    if (this.circle === null || this.from !== null || !w.takeOne(["FIRST", "START", "STARTING"]))
      return this.giveUp(w, save);
    w.take("HOLE");
    w.take("AT");
    const angle = w.size();
    if (!angle) return this.giveUp(w, save);
    this.from = angle.text;
    return true;
  }
  /** `ON 50 X 30 CENTRES`: one at each corner of a rectangle about the middle. */
  private rectangle(w: Words): boolean {
    const save = w.mark();
    if (!w.take("ON")) w.take(",");
    w.take("A");
    const [a, b] = [w.number(), w.take("X") ? w.number() : null];
    w.takeOne(["RECTANGULAR", "RECT"]);
    if (a === null || b === null || this.pattern || !w.takeOne(rectangles)) return this.giveUp(w, save);
    this.pattern = ` GRID 2 2 BY ${a} ${b}`;
    this.many = 4;
    this.isRectangle = true;
    return true;
  }
  /** `IN CENTRE`, `AT CENTER OF PART`: where a cut stands that says no place. */
  private central(w: Words): boolean {
    const save = w.mark();
    const isSaid = w.takeOne(["IN", "AT", "ON"]) !== null;
    w.take("THE");
    const isMiddle = w.takeOne(["CENTRE", "CENTER", "CENTRAL"]) !== null;
    if (!isMiddle || (!isSaid && !w.sees("HOLE") && !w.sees("BORE") && !w.done) || this.text !== "")
      return this.giveUp(w, save);
    if (w.take("OF")) w.takeOne(["PART", "BLOCK", "PLATE"]);
    this.points.push({ x: "0", y: "0" });
    return true;
  }
  private giveUp(w: Words, save: number): false {
    w.back(save);
    return false;
  }

  /** AT x,y and more places. */
  private listed(w: Words): boolean {
    const save = w.mark();
    if (this.points.length || !(w.take("AT") || w.take("@"))) return false;
    let isBothWays = false;
    for (;;) {
      const here = w.mark();
      w.take("(");
      const isNamed = w.take("X");
      w.take("=");
      const x = w.coordinates();
      const isParted = w.take(",");
      const y = x !== null && (isNamed ? w.take("Y") : isParted) ? (w.take("="), w.coordinates()) : null;
      if (x === null || y === null) {
        w.back(here);
        break;
      }
      isBothWays ||= x.length > 1 || y.length > 1;
      this.points.push(...x.flatMap((x1) => y.map((y1) => ({ x: x1, y: y1 }))));
      if (w.take(")") && w.sees(",", "(")) w.take(",");
      if (!w.take("AND")) w.take("&");
    }
    if (!this.points.length) return this.giveUp(w, save);
    if (isBothWays) this.many = this.points.length;
    return true;
  }

  /** Patterns and planes in the card's own words: GRID, LINE, ON FLOOR OF 2, START .1, TURN 45. */
  private written(w: Words): boolean {
    const n = () => w.number();
    if (w.take("GRID")) {
      const [nx, ny] = [n(), n()];
      if (!w.take("BY")) return false;
      const dx = n();
      w.take("X");
      const dy = n();
      this.pattern += ` GRID ${nx} ${ny} BY ${dx} ${dy}`;
      return Boolean(nx && ny && dx && dy);
    }
    if (w.take("LINE")) {
      const count = n();
      if (!w.take("BY")) return false;
      const by = n();
      this.turn = w.take("TURN") ? n() : null;
      w.take("°");
      this.pattern += ` LINE ${count} BY ${by}`;
      return Boolean(count && by);
    }
    if (this.turn === null && w.take("TURN")) {
      this.turn = n();
      w.take("°");
      return this.turn !== null;
    }
    if (!this.start && w.take("START")) {
      const s = n();
      this.start = ` START ${s}`;
      return s !== null;
    }
    return this.named(w);
  }

  private named(w: Words): boolean {
    const save = w.mark();
    if (!w.takeOne(["ON", "IN", "FROM"])) return false;
    w.take("THE");
    const of = w.take("FLOOR", "OF") ? "FLOOR" : w.take("TOP", "OF") ? "TOP" : null;
    if (of) {
      w.take("ROW");
      const row = w.number();
      if (row !== null) {
        return this.stands(` ON ${of} OF ${row}`);
      }
    }
    const side = w.takeOne(["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT"]);
    if (!side) {
      w.back(save);
      return false;
    }
    if (!w.take("SIDE")) w.take("FACE");
    return this.stands(` ON ${side}`);
  }
}

/** `ON ⌀60` behind a step of degrees: the circle they go round. */
function sharesDiameter(w: Words): boolean {
  const save = w.mark();
  const isShared = w.take("ON") && w.size()?.tag === "⌀";
  w.back(save);
  return isShared;
}

/** Whether angles go round evenly, or there is but one. */
const isEvenly = (angles: string[]): boolean =>
  angles.every((a, i) => Math.abs(Number(a) - Number(angles[0]) - (i * FULL_TURN) / angles.length) < 1e-9);

export const isCircle = (w: Words): boolean =>
  w.take("BC") ||
  w.take("BCD") ||
  w.take("PCD") ||
  w.take("PC") ||
  w.take("BHC") ||
  w.take("BOLT", "CIRCLE") ||
  w.take("BOLT", "HOLE", "CIRCLE") ||
  w.take("PITCH", "CIRCLE") ||
  w.take("HOLE", "CIRCLE") ||
  w.take("BASIC", "BC") ||
  w.take("CIRCLE");
