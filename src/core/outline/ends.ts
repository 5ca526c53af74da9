import { distance2, type Vec2 } from "../geometry/vec";
import { COINCIDENT, MEET } from "../geometry/tolerance";
import { directionAt, lengthOf, merged, reversed, SAME } from "./meet";
import { endOf, startOf, type Segment } from "./outline";

/** Points found again by where they lie. */
class Spots {
  private readonly cells = new Map<string, number[]>();
  constructor(
    private readonly points: Vec2[],
    private readonly tolerance: number,
  ) {
    points.forEach((p, i) => {
      const key = this.cell(p).join();
      const there = this.cells.get(key);
      if (there) there.push(i);
      else this.cells.set(key, [i]);
    });
  }
  private cell = (p: Vec2) => [Math.round(p.x / (this.tolerance * 10)), Math.round(p.y / (this.tolerance * 10))];
  /** Which of the points lie at a place. */
  at(p: Vec2): number[] {
    const [x, y] = this.cell(p);
    return [-1, 0, 1].flatMap((i) =>
      [-1, 0, 1].flatMap((j) =>
        (this.cells.get(`${x + i},${y + j}`) ?? []).filter((k) => distance2(this.points[k], p) <= this.tolerance),
      ),
    );
  }
  /** Leaves a point out from now on: where many lie in one place, looking stays quick. */
  forget(i: number): void {
    const key = this.cell(this.points[i]).join();
    this.cells.set(
      key,
      this.cells.get(key)!.filter((k) => k !== i),
    );
  }
}

/**
 * Pieces without those that lead nowhere: what nothing goes on from, or nothing leads to, is no part of a loop, nor is
 * what leads only there. Such stubs are left of parallels that cross at a slight angle.
 */
export function withoutLooseEnds(pieces: Segment[], tolerance = MEET): Segment[] {
  const own = pieces.filter((s) => lengthOf(s) > 2 * SAME);
  const [starts, ends] = [new Spots(own.map(startOf), tolerance), new Spots(own.map(endOf), tolerance)];
  const next = own.map((s) => starts.at(endOf(s)));
  const before = own.map((s) => ends.at(startOf(s)));
  const gone = new Set<number>();
  const isLoose = (i: number) => !next[i].some((k) => !gone.has(k)) || !before[i].some((k) => !gone.has(k));
  const waiting = own.map((_, i) => i);
  while (waiting.length) {
    const i = waiting.pop()!;
    if (gone.has(i) || !isLoose(i)) continue;
    gone.add(i);
    waiting.push(...next[i], ...before[i]);
  }
  return own.filter((_, i) => !gone.has(i));
}

/**
 * Chains pieces that run head to tail into closed loops; where several go on, the one turning most to the left is
 * taken, so that loops that touch stay apart.
 */
export function stitch(pieces: Segment[], tolerance = MEET): { loops: Segment[][]; open: Segment[][] } {
  const left = pieces.filter((s) => lengthOf(s) > 2 * SAME);
  const starts = new Spots(left.map(startOf), tolerance);
  const used = new Set<number>();
  const after = (s: Segment): number => {
    const d = directionAt(s, 1);
    let best = -1,
      most = -Infinity;
    for (const k of starts.at(endOf(s))) {
      if (used.has(k)) continue;
      const e = directionAt(left[k], 0);
      let turn = Math.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y);
      if (turn > Math.PI - COINCIDENT) turn = -Math.PI;
      if (turn > most) [best, most] = [k, turn];
    }
    return best;
  };
  const loops: Segment[][] = [],
    open: Segment[][] = [];
  for (let i = 0; i < left.length; i++) {
    if (used.has(i)) continue;
    used.add(i);
    const chain = [left[i]];
    for (;;) {
      if (distance2(endOf(chain[chain.length - 1]), startOf(chain[0])) < tolerance) {
        loops.push(chain);
        break;
      }
      const k = after(chain[chain.length - 1]);
      if (k < 0) {
        open.push(chain);
        break;
      }
      used.add(k);
      chain.push(left[k]);
    }
  }
  return { loops: loops.map(merged), open };
}

/** Open chains joined where exactly two of their ends meet. */
export function joinEnds(open: Segment[][], near = MEET): { loops: Segment[][]; open: Segment[][] } {
  const home = (c: Segment[]) =>
    distance2(startOf(c[0]), endOf(c[c.length - 1])) <= near && (c.length > 1 || c[0].kind === "arc");
  const loops = open.filter(home),
    left = open.filter((c) => !home(c));
  // End 2k is the start of chain k, 2k + 1 its end; each goes on with the one other end that lies there.
  const at = left.flatMap((c) => [startOf(c[0]), endOf(c[c.length - 1])]);
  const spots = new Spots(at, near);
  const partner = at.map((p, i) => {
    const there = spots.at(p).filter((j) => j !== i);
    return there.length === 1 ? there[0] : -1;
  });
  const used = new Set<number>(),
    rest: Segment[][] = [];
  const follow = (from: number): { chain: Segment[]; closed: boolean } => {
    const chain: Segment[] = [];
    for (let end = from; ;) {
      const k = end >> 1;
      used.add(k);
      chain.push(...(end % 2 === 0 ? left[k] : turned(left[k])));
      const next = partner[end ^ 1];
      if (next < 0 || next === from) return { chain, closed: next === from };
      if (used.has(next >> 1)) return { chain, closed: false };
      end = next;
    }
  };
  const take = (from: number) => {
    const r = follow(from);
    if (r.closed && (r.chain.length > 1 || r.chain[0].kind === "arc")) loops.push(r.chain);
    else rest.push(r.chain);
  };
  // Chains that begin somewhere first; what is left then goes round.
  for (let e = 0; e < at.length; e++) if (!used.has(e >> 1) && partner[e] < 0) take(e);
  for (let k = 0; k < left.length; k++) if (!used.has(k)) take(2 * k);
  return { loops: loops.map(merged), open: rest };
}
/** A chain walked the other way. */
export const turned = (c: Segment[]): Segment[] => [...c].reverse().map(reversed);

/**
 * Joins segments end to end, turning them round where they must be; at every end the first that fits is
 * taken.
 */
export function endToEnd(segments: Segment[], near = MEET): Segment[][] {
  const ends = new Spots(
    segments.flatMap((s) => [startOf(s), endOf(s)]),
    near,
  );
  const taken = segments.map(() => false);
  const take = (i: number) => {
    taken[i] = true;
    ends.forget(2 * i);
    ends.forget(2 * i + 1);
  };
  /** The first segment not used that begins or ends at a point. */
  const first = (p: Vec2) => ends.at(p).reduce((least, end) => Math.min(least, end >> 1), Infinity);
  const out: Segment[][] = [];
  for (let i = 0; i < segments.length; i++) {
    if (taken[i]) continue;
    take(i);
    // Kept in two halves, so that a long chain grows at both ends without being moved.
    const front: Segment[] = [];
    const back = [segments[i]];
    for (;;) {
      const tail = endOf(back[back.length - 1]);
      const head = startOf(front.length ? front[front.length - 1] : back[0]);
      if (distance2(tail, head) < near) break;
      const [after, before] = [first(tail), first(head)];
      const next = Math.min(after, before);
      if (next === Infinity) break;
      take(next);
      const s = segments[next];
      if (next === after) back.push(distance2(startOf(s), tail) <= near ? s : reversed(s));
      else front.push(distance2(endOf(s), head) <= near ? s : reversed(s));
    }
    out.push([...front.reverse(), ...back]);
  }
  return out;
}
