import { distance2, type Vec2 } from "../geometry/vec";
import { band, offsetRegion } from "./boolean";
import { directionAt, splitAt, pointAt } from "./meet";
import { endOf, loopArea, perimeter, startOf, type Segment } from "./outline";
import { CONTACT, DISPLAY, MEET } from "../geometry/tolerance";

/** A stretch of a chain whose groove is one solid, and whether it comes back to its own start. */
interface VeeRun {
  segments: Segment[];
  closed: boolean;
}

/**
 * Chains of a groove of half width w, parted into stretches that run on smoothly and never lap over themselves;
 * `cones` are the sharp corners and ends.
 * An arc tighter than the groove is wide laps over itself at its axis: it stays alone.
 */
export function veeRuns(chains: Segment[][], w: number): { runs: VeeRun[]; cones: Vec2[] } {
  const runs: VeeRun[] = [],
    cones: Vec2[] = [];
  for (const chain of chains) {
    const n = chain.length,
      closed = distance2(startOf(chain[0]), endOf(chain[n - 1])) < CONTACT;
    const tight = (s: Segment) => s.kind === "arc" && s.radius < w * 1.001;
    const sharp = (a: Segment, b: Segment) => {
      const u = directionAt(a, 1),
        v = directionAt(b, 0);
      return Math.abs(u.x * v.y - u.y * v.x) > DISPLAY || u.x * v.x + u.y * v.y < 0;
    };
    // Whether the chain is parted after segment i.
    const parted = chain.map((s, i) => {
      const next = chain[(i + 1) % n];
      if (i === n - 1 && !closed) {
        cones.push(endOf(s));
        return true;
      }
      if (sharp(s, next)) {
        cones.push(endOf(s));
        return true;
      }
      return tight(s) || tight(next);
    });
    if (!closed) cones.push(startOf(chain[0]));
    const first = parted.lastIndexOf(true);
    if (first < 0 || (n === 1 && closed)) {
      runs.push(...unlapped({ segments: chain, closed: true }, w));
      continue;
    }
    let run: Segment[] = [];
    for (let k = 1; k <= n; k++) {
      const i = (first + k) % n;
      run.push(chain[i]);
      if (parted[i]) {
        runs.push(...unlapped({ segments: run, closed: false }, w));
        run = [];
      }
    }
  }
  return { runs, cones };
}

/**
 * A run as it is where its groove does not lap over itself, else in two: parted in a line where there is one, as
 * planes part cleanly.
 */
function unlapped(run: VeeRun, w: number): VeeRun[] {
  const { segments, closed } = run;
  // An arc alone laps, if at all, over its own axis, which its wedge is cut off at.
  if ((segments.length === 1 && !closed) || !laps(run, w)) return [run];
  if (closed) {
    const i = Math.max(
      0,
      segments.findIndex((s) => s.kind === "line"),
    );
    const [a, b] = halves(segments[i]);
    return unlapped({ segments: [b, ...segments.slice(i + 1), ...segments.slice(0, i), a], closed: false }, w);
  }
  // The line nearest to the middle.
  const half = perimeter(segments) / 2;
  let best = -1,
    near = Infinity,
    way = 0;
  segments.forEach((s, i) => {
    const l = perimeter([s]),
      off = Math.abs(way + l / 2 - half);
    if (s.kind === "line" && l > 1e-3 && off < near) [best, near] = [i, off];
    way += l;
  });
  if (best >= 0 && near < half * 0.9) {
    const [a, b] = halves(segments[best]);
    return [
      ...unlapped({ segments: [...segments.slice(0, best), a], closed: false }, w),
      ...unlapped({ segments: [b, ...segments.slice(best + 1)], closed: false }, w),
    ];
  }
  const m = Math.ceil(segments.length / 2);
  return [
    ...unlapped({ segments: segments.slice(0, m), closed: false }, w),
    ...unlapped({ segments: segments.slice(m), closed: false }, w),
  ];
}
const halves = (s: Segment): [Segment, Segment] => splitAt(s, [pointAt(s, 0.5)]) as [Segment, Segment];

/**
 * Whether a groove laps over itself: then its outline is shorter than Steiner's formula says.
 * A loop offset by w to one side and the other is longer and shorter by 2πw; the band of an open run has the area
 * 2wL + πw².
 */
function laps({ segments, closed }: VeeRun, w: number): boolean {
  const l = perimeter(segments);
  if (closed) {
    const out = offsetRegion([segments], w),
      into = offsetRegion([segments], -w),
      p = (r: Segment[][]) => r.reduce((s, x) => s + perimeter(x), 0);
    const turn = Math.sign(loopArea(segments));
    return (
      out.length !== 1 ||
      into.length !== 1 ||
      Math.abs(p(out) - l - turn * 2 * Math.PI * w) > MEET * l ||
      Math.abs(p(into) - l + turn * 2 * Math.PI * w) > MEET * l
    );
  }
  const b = band(segments, w),
    area = b.reduce((s, x) => s + loopArea(x), 0),
    whole = 2 * w * l + Math.PI * w * w;
  return Math.abs(area - whole) > CONTACT * whole;
}
