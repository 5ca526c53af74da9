import { inUnit, type LengthUnit, type NumberText, saidPlace, unitOf } from "@/core/number";
import { distance2, type Vec2 } from "@/core/geometry/vec";
import type { OutlineItem } from "@/core/outline/items";
import { reversed } from "@/core/outline/meet";
import { endOf, segmentLength, startOf, type Arc, type Segment } from "@/core/outline";
import { CONTACT } from "@/core/geometry/tolerance";

/** Ends this near to one another are joined, mm. */
export const JOIN = 1e-4;

/** A chain out of a file: its layer, its steps as an outline's lines, and where it is open. */
export interface ReadChain {
  layer: string;
  items: OutlineItem[];
  closed: boolean;
  gap: { from: Vec2; to: Vec2; width: number } | null;
  length: number;
}
/** What a file of lines holds, before anything is chosen. Millimetres. */
export interface ReadFile {
  /** The unit the file says it is in; null where it says none. */
  said: LengthUnit | "other" | null;
  layers: { name: string; elements: number }[];
  chains: ReadChain[];
  /** What is wrong or left out, with the line of the file where there is one. */
  problems: string[];
}

/** Segments of one layer as chains, joined where their ends meet. */
export function chainsOfLayer(layer: string, segments: Segment[], unit: LengthUnit): ReadChain[] {
  const n = (mm: number): NumberText => {
    const v = mm / unitOf[unit].mm;
    return (Math.abs(v) < 5e-11 ? "0" : v.toFixed(10).replace(/\.?0+$/, "")) as NumberText;
  };
  const xy = (p: Vec2) => ({ x: n(p.x), y: n(p.y) });
  return chain(segments.filter((s) => segmentLength(s) > JOIN / 10)).map((c): ReadChain => {
    const from = startOf(c[0]),
      to = endOf(c[c.length - 1]),
      width = distance2(from, to),
      closed = width < JOIN;
    const base = {
      layer,
      closed,
      gap: closed ? null : { from, to, width },
      length: c.reduce((sum, s) => sum + segmentLength(s), 0),
    };
    const only = wholeCircle(c);
    if (only) return { ...base, items: [{ item: "circle", diameter: n(2 * only.radius), at: xy(only.centre) }] };
    const items: OutlineItem[] = [{ item: "start", at: xy(from) }];
    c.forEach((s, j) => {
      const last = closed && j === c.length - 1;
      if (s.kind === "line") items.push({ item: "line", ...(last ? { close: true as const } : { to: xy(s.to) }) });
      else
        items.push({
          item: "arc",
          ...(last ? { close: true as const } : { to: xy(endOf(s)) }),
          centre: xy(s.centre),
          side: s.sweep > 0 ? "ccw" : "cw",
        });
    });
    return { ...base, items };
  });
}

/** The circle that a chain of arcs goes round once; null where it is anything else. */
function wholeCircle(c: Segment[]): Arc | null {
  const [first] = c;
  if (first.kind !== "arc") return null;
  const same = c.every(
    (s) =>
      s.kind === "arc" &&
      distance2(s.centre, first.centre) < JOIN / 10 &&
      Math.abs(s.radius - first.radius) < JOIN / 10,
  );
  return same && Math.abs(Math.abs(c.reduce((sum, s) => sum + (s as Arc).sweep, 0)) - 2 * Math.PI) < CONTACT
    ? first
    : null;
}

/**
 * Joins segments end to end, turning them round where they must be; at every end the first of the file that fits is
 * taken.
 */
function chain(segments: Segment[]): Segment[][] {
  const ends = new EndGrid(segments);
  const out: Segment[][] = [];
  for (let i = 0; i < segments.length; i++) {
    if (!ends.take(i)) continue;
    // Kept in two halves, so that a long chain grows at both ends without being moved.
    const front: Segment[] = [];
    const back = [segments[i]];
    for (;;) {
      const tail = endOf(back[back.length - 1]);
      const head = startOf(front.length ? front[front.length - 1] : back[0]);
      if (distance2(tail, head) < JOIN) break;
      const after = ends.at(tail);
      const before = ends.at(head);
      const next = after !== null && (before === null || after <= before) ? after : before;
      if (next === null) break;
      ends.take(next);
      const s = segments[next];
      if (next === after) back.push(distance2(startOf(s), tail) < JOIN ? s : reversed(s));
      else front.push(distance2(endOf(s), head) < JOIN ? s : reversed(s));
    }
    out.push([...front.reverse(), ...back]);
  }
  return out;
}

/**
 * Where segments end, by the square of a grid they lie in: looking for what goes on from a point takes no longer in
 * a large drawing.
 */
class EndGrid {
  private readonly cells = new Map<string, number[]>();
  private readonly taken: boolean[];

  constructor(private readonly segments: Segment[]) {
    this.taken = segments.map(() => false);
    segments.forEach((s, i) => {
      for (const p of [startOf(s), endOf(s)]) {
        const key = this.key(p, 0, 0);
        const there = this.cells.get(key);
        if (there) there.push(i);
        else this.cells.set(key, [i]);
      }
    });
  }

  /** Marks a segment as used; false when it was. */
  take(i: number): boolean {
    if (this.taken[i]) return false;
    this.taken[i] = true;
    return true;
  }

  /** The first segment not used that begins or ends at a point. */
  at(p: Vec2): number | null {
    let best: number | null = null;
    for (let dx = -1; dx <= 1; dx++) {
      for (let dy = -1; dy <= 1; dy++) {
        const key = this.key(p, dx, dy);
        const left = this.cells.get(key)?.filter((i) => !this.taken[i]);
        if (!left) continue;
        this.cells.set(key, left);
        for (const i of left) {
          const s = this.segments[i];
          if ((best === null || i < best) && (distance2(startOf(s), p) < JOIN || distance2(endOf(s), p) < JOIN))
            best = i;
        }
      }
    }
    return best;
  }

  private key(p: Vec2, dx: number, dy: number): string {
    return `${Math.floor(p.x / CELL) + dx} ${Math.floor(p.y / CELL) + dy}`;
  }
}
const CELL = 4 * JOIN;

/**
 * The chosen chains as outlines, one a chain, named by their layers.
 * @param mend gaps up to this width are closed by a `MEND` line, as typed; '' for none
 */
export function outlinesOfChains(chains: ReadChain[], mend: string): { name: string; items: OutlineItem[] }[] {
  const count = new Map<string, number>();
  const of = new Map<string, number>();
  for (const c of chains) of.set(c.layer, (of.get(c.layer) ?? 0) + 1);
  return chains.map((c) => {
    const many = of.get(c.layer)! > 1,
      n = (count.get(c.layer) ?? 0) + 1;
    count.set(c.layer, n);
    const name = `${c.layer === "0" || c.layer === "" ? "outline" : c.layer.toLowerCase()}${many ? ` ${n}` : ""}`;
    return {
      name,
      items: !c.closed && mend ? [...c.items, { item: "mend" as const, gap: mend as NumberText }] : c.items,
    };
  });
}

const gapWords = (c: ReadChain): string =>
  c.gap ? `layer ${c.layer}: a chain is open from ${saidPlace(c.gap.from)} to ${saidPlace(c.gap.to)}` : "";

/** Open chains in words, the first of them; a drawing of thousands of loose lines is said in one more. */
export function gapList(chains: ReadChain[], unit: LengthUnit): string[] {
  const open = chains.filter((c) => c.gap);
  const said = open.slice(0, MOST_GAPS).map((c) => inUnit(gapWords(c), unit));
  return open.length > MOST_GAPS ? [...said, `${open.length - MOST_GAPS} more chains are open`] : said;
}
const MOST_GAPS = 50;
