import { figureOf } from "./figure";
import { sizesBetweenX } from "./leave";
import { Places } from "./places";
import type { Size, Words } from "./words";

const heads = [
  "POCKET",
  "POCKETS",
  "RECESS",
  "PKT",
  "SLOT",
  "SLOTS",
  "CUTOUT",
  "WINDOW",
  "OPENING",
  "OBROUND",
  "OBROUNDS",
  "OBLONG",
  "LONGHOLE",
] as const;
/** Those with round ends. */
const slots = ["SLOT", "OB", "LONG"];
/** Said of a pocket and without any bearing on its size. */
const silent = [
  [","],
  [":"],
  ["AS", "SHOWN"],
  ["X"],
  ["TYP"],
  ["WITH"],
  ["RECTANGULAR"],
  ["RECT"],
  ["CIRCULAR"],
  ["ROUND"],
  ["CENTRAL"],
  ["MILL"],
  ["AND"],
  ["&"],
  ["ALL", "CORNERS"],
  ["IN", "CORNERS"],
  ["CORNERS"],
  ["CORNER", "RADIUS"],
  ["CORNER"],
  ["FULL", "RADIUS"],
  ["FULL", "RAD"],
  ["FULL", "R"],
];

/** Pockets and slots from a print's words: `POCKET 2.00 X 1.00 X .25 DEEP R.188`, `SLOT .25 WIDE X 2 LG X .1 DEEP`. */
export function pocketText(w: Words): string | null {
  const said = new PocketWords();
  while (!w.done) if (!said.take(w)) return null;
  return said.text();
}

class PocketWords {
  private head: "POCKET" | "SLOT" | null = null;
  private count: string | null = null;
  private depth: string | null = null;
  private radius: string | null = null;
  private readonly sizes: Size[] = [];
  private readonly places = new Places();
  /** Its one size is that of both sides. */
  private isSquare = false;

  /** Takes the next phrase; false where it is none of a pocket's, or says again what is said. */
  take(w: Words): boolean {
    if (silent.some((words) => w.take(...words))) return true;
    if (w.takeOne(["SQ", "SQUARE"])) {
      this.isSquare = true;
      return this.sizes.length === 1;
    }
    const head = w.takeOne(heads);
    if (head) {
      if (this.head) return false;
      this.head = slots.some((s) => head.startsWith(s)) ? "SLOT" : "POCKET";
      if (head.startsWith("OB")) w.takeOne(["HOLES", "HOLE"]);
      return true;
    }
    const count = this.countOfHead(w) ?? (this.head && w.seesProduct() ? null : w.count());
    if (count !== null) {
      if (this.count !== null) return false;
      this.count = count;
      return true;
    }
    return w.firstOf(
      () => this.places.take(w),
      () => (w.take("THRU", "ALL") || w.take("THRU") || w.take("THROUGH")) && this.deep("THRU"),
      () => this.measures(w),
    );
  }

  /** `2 SLOTS`: the number before the word. */
  private countOfHead(w: Words): string | null {
    const save = w.mark();
    if (w.here?.measured) return null;
    const n = w.number();
    if (n !== null && /^\d+$/.test(n) && heads.some((h) => w.sees(h))) return n;
    w.back(save);
    return null;
  }

  private deep(text: string): boolean {
    if (this.depth !== null) return false;
    this.depth = text;
    return true;
  }
  private measures(w: Words): boolean {
    return (sizesBetweenX(w) ?? this.radiusAlone(w))?.every((s) => this.put(s)) ?? false;
  }
  private radiusAlone(w: Words): Size[] | null {
    const s = w.size();
    return s && [s];
  }
  private put(s: Size): boolean {
    if (s.tag === "deep" || s.tag === "high") return this.deep(`DEEP ${s.text}`);
    if (s.tag !== "R") {
      this.sizes.push(s);
      return true;
    }
    if (this.radius !== null) return false;
    this.radius = s.text;
    return true;
  }

  text(): string | null {
    const sizes = this.isSquare ? [this.sizes[0], ...this.sizes] : this.sizes;
    if (!this.head) return null;
    // Of three sizes the last is how deep.
    const last = sizes[2];
    const isRoundDeep = sizes.length === 2 && sizes[0].tag === "⌀" && sizes[1].tag === null && this.head === "POCKET";
    if (this.depth === null && isRoundDeep) this.depth = `DEEP ${sizes.pop()!.text}`;
    if (this.depth === null && sizes.length === 3 && last.tag === null) this.depth = `DEEP ${sizes.pop()!.text}`;
    if (this.depth === null) return null;
    // A slot's ends are round by half its width: another radius would be another thing.
    if (this.head === "SLOT" && this.radius !== null) return null;
    const shape = this.head === "SLOT" ? slotOf(sizes) : pocketOf(sizes, this.radius);
    const count = this.count === null ? "" : `${this.count}X `;
    return shape && `CUT ${count}${shape} ${this.depth}${this.places.text}`;
  }
}

function slotOf(sizes: Size[]): string | null {
  const centres = sizes.find((s) => s.tag === "centres");
  // From centre to centre of its ends: it is longer by its width.
  if (centres && sizes.length === 2) {
    const width = sizes.find((s) => s !== centres)!;
    return width.tag && width.tag !== "wide" ? null : `SLOT (${centres.text}+${width.text}) X ${width.text}`;
  }
  if (sizes.length !== 2 || sizes.some((s) => s.tag && s.tag !== "long" && s.tag !== "wide")) return null;
  const wide =
    sizes.find((s) => s.tag === "wide") ??
    sizes.find((s) => !sizes.some((o) => o.tag === "long" && o === s) && sizes.some((o) => o.tag === "long"));
  if (wide) return `SLOT ${sizes.find((s) => s !== wide)!.text} X ${wide.text}`;
  // Of two sizes without words the longer is the length.
  const [length, width] = [...sizes].sort((a, b) => figureOf(b.text) - figureOf(a.text));
  return Number.isFinite(figureOf(length.text)) && Number.isFinite(figureOf(width.text))
    ? `SLOT ${length.text} X ${width.text}`
    : `SLOT ${sizes[0].text} X ${sizes[1].text}`;
}

function pocketOf(sizes: Size[], radius: string | null): string | null {
  const corner = radius === null ? "" : ` R${radius}`;
  if (sizes.length === 1) return sizes[0].tag === "⌀" && !corner ? `POCKET ⌀${sizes[0].text}` : null;
  if (sizes.length !== 2 || sizes.some((s) => s.tag && s.tag !== "long" && s.tag !== "wide")) return null;
  const [a, b] = sizes;
  const [length, width] = a.tag === "wide" || b.tag === "long" ? [b, a] : [a, b];
  return `POCKET ${length.text} X ${width.text}${corner}`;
}
