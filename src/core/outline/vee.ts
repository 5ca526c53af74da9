import { distance2, type Vec2 } from "../geometry/vec";
import { band, offsetRegion } from "./boolean";
import { splitAt, pointAt } from "./meet";
import { endOf, loopArea, perimeter, startOf, type Segment } from "./outline";
import { CONTACT } from "../geometry/tolerance";
import { veeCells, withCorners, type VeeCells, type VeeRun } from "./veeCells";
import { isCorner, type Element } from "./veeFront";

/**
 * Chains of a groove of half width w, parted into stretches whose walls meet one another in lines and never lap over
 * themselves; `cones` are the sharp corners between two stretches.
 * An arc tighter than the groove is wide is used up on its inner side: between two lines their walls meet there, else
 * it stays alone.
 */
export function veeRuns(chains: Segment[][], w: number): { runs: VeeRun[]; cones: Vec2[] } {
  const cones: Vec2[] = [];
  const runs = chains.flatMap((chain) => {
    const closed = distance2(startOf(chain[0]), endOf(chain[chain.length - 1])) < CONTACT;
    const whole = { elements: withCorners(chain, closed), closed, caps: { start: !closed, end: !closed } };
    return unlapped(whole, w, cones);
  });
  return { runs, cones };
}

/** The pieces of a run, in order: the first and the last have its ends, between them they end flat. */
function cutInto({ caps }: VeeRun, pieces: Element[][]): VeeRun[] {
  const last = pieces.length - 1;
  return pieces.flatMap((elements, i) => {
    const ends = { start: i === 0 && caps.start, end: i === last && caps.end };
    return elements.length ? [{ elements, closed: false, caps: ends }] : [];
  });
}

/**
 * A run as it is where its groove does not lap over itself, else in two: parted where walls cannot be made, or in a
 * line, as planes part cleanly.
 */
function unlapped(run: VeeRun, w: number, cones: Vec2[]): VeeRun[] {
  const { elements, closed, caps } = run;
  const cells = veeCells(run, w);
  const culprit = "element" in cells ? cells.element : null;
  if (!("element" in cells) && !laps(run, cells, w)) return [run];
  if (elements.length === 1 && !closed) {
    // Alone it laps, if at all, over its own axis, which its wedge is cut off at, or with its round ends over itself.
    const [only] = elements;
    cones.push(...(caps.start ? [startOf(only)] : []), ...(caps.end ? [endOf(only)] : []));
    return [{ ...run, caps: { start: false, end: false } }];
  }
  const opened = closed ? openedAt(run, culprit) : run;
  const pieces =
    culprit === null ? (closed ? [opened.elements] : inTwo(elements)) : partedAt(opened, elements[culprit]);
  const flat = pieces.map((p) => p.filter((e, i) => !(isCorner(e) && (i === 0 || i === p.length - 1))));
  // A corner at a cut is a cone of its own.
  const [before, after] = [pieces.flat(), flat.flat()];
  cones.push(...before.filter((e) => isCorner(e) && !after.includes(e)).map(startOf));
  return cutInto(opened, flat).flatMap((r) => unlapped(r, w, cones));
}

/** A closed run opened before an element, or else in the middle of its first line. */
function openedAt({ elements, caps }: VeeRun, at: number | null): VeeRun {
  if (at !== null) {
    return { elements: [...elements.slice(at), ...elements.slice(0, at)], closed: false, caps };
  }
  const i = Math.max(
    0,
    elements.findIndex((s) => s.kind === "line"),
  );
  const [a, b] = halves(elements[i]);
  return { elements: [b, ...elements.slice(i + 1), ...elements.slice(0, i), a], closed: false, caps };
}

/** A run parted before and after an element. */
function partedAt({ elements }: VeeRun, element: Element): Element[][] {
  const i = elements.indexOf(element);
  return [elements.slice(0, i), [element], elements.slice(i + 1)];
}

function inTwo(elements: Element[]): Element[][] {
  const best = lineNearMiddle(elements);
  if (best === null) {
    const m = Math.ceil(elements.length / 2);
    return [elements.slice(0, m), elements.slice(m)];
  }
  const [a, b] = halves(elements[best]);
  return [
    [...elements.slice(0, best), a],
    [b, ...elements.slice(best + 1)],
  ];
}
const halves = (s: Segment): [Segment, Segment] => splitAt(s, [pointAt(s, 0.5)]) as [Segment, Segment];

/** The line nearest to the middle of a run, if one lies anywhere near. */
function lineNearMiddle(elements: Element[]): number | null {
  const half = perimeter(elements) / 2;
  let best = null;
  let near = half * 0.9;
  let way = 0;
  elements.forEach((s, i) => {
    const l = perimeter([s]);
    const off = Math.abs(way + l / 2 - half);
    if (s.kind === "line" && l > 1e-3 && off < near) [best, near] = [i, off];
    way += l;
  });
  return best;
}

/** Whether a groove laps over itself: then what it covers on top is less than its walls say one by one. */
function laps(run: VeeRun, cells: VeeCells, w: number): boolean {
  const segments = run.elements.filter((e) => !isCorner(e));
  const sum = (r: Segment[][]) => r.reduce((s, x) => s + loopArea(x), 0);
  if (run.closed) {
    const [out, into] = [offsetRegion([segments], w), offsetRegion([segments], -w)];
    if (out.length !== 1 || into.length !== 1) return true;
    return Math.abs(Math.abs(sum(out) - sum(into)) - cells.area) > CONTACT * cells.area;
  }
  const flatEnds = cells.ends.length;
  const whole = cells.area + (flatEnds * Math.PI * w * w) / 2;
  return Math.abs(sum(band(segments, w)) - whole) > CONTACT * whole;
}
