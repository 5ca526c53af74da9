import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { DISPLAY } from "../geometry/tolerance";
import { boxInFrame, fromFrame, v2, type Frame } from "../geometry/vec";
import { loopsOfEdges } from "../outline/fromPart";
import { joined, oriented, type Region } from "../outline/boolean";
import { rectanglesIn, type Rectangle } from "../outline/rectangles";
import type { SolidKernel } from "./kernel";

/** How near to a level it is looked, mm: what a chamfer adds within this is left out. */
const BESIDE = 5 * DISPLAY;

/**
 * What a state covers between two depths below a plane, seen square to the plane. Between levels where something begins,
 * ends or is widest its sections only grow or only shrink, so that those next to the levels say all; upright walls are
 * exact, slanted ones to half a micrometre. What a face does within what is covered already changes nothing: the widest
 * faces are looked at first, and letters in the middle of a plate not at all.
 */
export function shadowOfBand(kernel: SolidKernel, key: string, frame: Frame, from: number, to: number): Result<Region> {
  let region: Region = [];
  let place = rectanglesIn(region);
  const look = (depth: number): Result<Region> => {
    const section = sectionAt(kernel, key, frame, depth);
    if (section.ok && section.value.length) {
      region = region.length ? joined(region, section.value) : section.value;
      place = rectanglesIn(region);
    }
    return section;
  };
  const spans = spansOf(kernel, key, frame).sort((a, b) => areaOf(b.seen) - areaOf(a.seen));
  const used = [from, to];
  for (const depth of [from + BESIDE, to - BESIDE]) {
    const section = look(depth);
    if (!section.ok) return section;
  }
  for (const { seen, depths } of spans) {
    const fresh = depths.filter((d) => isBetween(d, from, to) && used.every((u) => Math.abs(u - d) > 4 * BESIDE));
    if (!fresh.length || place(seen) === "in") continue;
    used.push(...fresh);
    for (const depth of fresh.flatMap((d) => [d - BESIDE, d + BESIDE])) {
      const section = look(depth);
      if (!section.ok) return section;
    }
  }
  return region.length ? ok(oriented(region)) : fail(problems.bandWithoutPart());
}

const isBetween = (d: number, from: number, to: number): boolean => d > from + 4 * BESIDE && d < to - 4 * BESIDE;
const areaOf = ({ min, max }: Rectangle): number => (max.x - min.x) * (max.y - min.y);

/** A face seen square to a plane: the rectangle it lies in, and the depths where it begins, ends and may turn. */
interface Span {
  seen: Rectangle;
  depths: number[];
}
const spansOf = (kernel: SolidKernel, key: string, frame: Frame): Span[] =>
  kernel.faces(key).map((f) => {
    const { min, max } = boxInFrame(frame, f.box);
    const ends = [-max.z, -min.z];
    return { seen: { min, max }, depths: f.surface === "plane" ? ends : [...ends, -(min.z + max.z) / 2] };
  });

/**
 * Depths at which sections change their way: where faces begin, end, and in the middle of curved ones.
 * @param matters of which faces, by where they lie
 */
export function levelsBetween(
  kernel: SolidKernel,
  key: string,
  frame: Frame,
  from: number,
  to: number,
  matters: (seen: Rectangle) => boolean = () => true,
): number[] {
  const inside = spansOf(kernel, key, frame)
    .filter((s) => s.depths.some((d) => isBetween(d, from, to)) && matters(s.seen))
    .flatMap((s) => s.depths.filter((d) => isBetween(d, from, to)));
  const sorted = [from, ...inside, to].sort((a, b) => a - b);
  return sorted.filter((d, i) => i === 0 || d - sorted[i - 1] > 4 * BESIDE || d === to);
}

/** Sections that were asked for last: a nest is looked at many times over. */
const sections = new WeakMap<SolidKernel, Map<string, Result<Region>>>();
/** More than this are forgotten, all at once. */
const MOST_SECTIONS = 3000;

/** The section of a state at a depth below a plane; empty where there is nothing. */
export function sectionAt(kernel: SolidKernel, key: string, frame: Frame, depth: number): Result<Region> {
  const known = sections.get(kernel) ?? new Map<string, Result<Region>>();
  sections.set(kernel, known);
  if (known.size > MOST_SECTIONS) known.clear();
  const { origin, normal, x } = frame;
  const way = [origin, normal, x].flatMap((v) => [v.x, v.y, v.z]).map((n) => n.toFixed(7));
  const name = `${key}/${way.join()}/${depth.toFixed(7)}`;
  const made = known.get(name) ?? sectionMade(kernel, key, frame, depth);
  known.set(name, made);
  return made;
}

function sectionMade(kernel: SolidKernel, key: string, frame: Frame, depth: number): Result<Region> {
  const at = fromFrame(frame, v2(0, 0), depth);
  const crossed = kernel.crossing(key, at, frame.normal);
  if (!crossed.length) return ok([]);
  const quick = loopsOfEdges(crossed, frame);
  if (quick.ok) return quick;
  // A plane some face lies in, or that runs along an edge: cut for good.
  const edges = kernel.sectionEdges(key, at, frame.normal);
  return edges.length ? loopsOfEdges(edges, frame) : ok([]);
}
