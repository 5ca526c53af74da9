import type { Job } from "@/core/job";
import type { NumberScope } from "@/core/number";
import type { Vec2, Vec3 } from "@/core/geometry/vec";
import { sampleLoop, endOf, type Segment } from "@/core/outline";
import { evaluateOutlines, type EvaluatedOutline, type PartShapes } from "@/core/outline/evaluateOutline";
import type { OutlineText } from "@/core/outline/items";
import type { Palette } from "./ink";

/** The open outline as it is being typed, computed on the page: it is quick enough for every keystroke. */
export function shownOutline(
  job: Job,
  id: string,
  draft: OutlineText | null,
  scope: NumberScope,
  shapes?: PartShapes,
): EvaluatedOutline | null {
  const outlines = draft && draft.id === id ? job.outlines.map((o) => (o.id === id ? draft : o)) : job.outlines;
  return evaluateOutlines(outlines, scope, shapes).get(id) ?? null;
}

/** The points of a walk by the names its lines call them, at a height. */
export const namedPoints = (drawn: EvaluatedOutline | null, z: number): { name: string; at: Vec3 }[] =>
  (drawn?.wire?.points ?? []).map(({ name, at }) => ({ name, at: { x: at.x, y: at.y, z } }));

const pointsOf = (s: Segment): Vec2[] => [...sampleLoop([s]), endOf(s)];
const segmentsOf = (points: Vec2[], z: number): number[] =>
  points.slice(1).flatMap((q, i) => [points[i].x, points[i].y, z, q.x, q.y, z]);

/**
 * A line drawn loosely: two strokes beside one another, with gaps. The wobble goes by the place, so it stays where
 * it is.
 */
function pencil(points: Vec2[], z: number, wide: number): number[] {
  const out: number[] = [];
  for (const [k, phase] of [
    [0, 0],
    [1, 0.45],
  ] as const) {
    let gone = phase;
    for (let i = 0; i + 1 < points.length; i++) {
      const a = points[i],
        b = points[i + 1],
        l = Math.hypot(b.x - a.x, b.y - a.y),
        n = Math.max(1, Math.ceil(l / (wide * 3)));
      for (let j = 0; j < n; j++) {
        gone += 1;
        if (Math.floor(gone) % 5 === 4) continue;
        const at = (t: number) => {
          const w = wide * 0.28 * Math.sin((a.x + a.y) * 1.7 + (j + t) * 2.1 + k * 2);
          return {
            x: a.x + (b.x - a.x) * ((j + t) / n) - ((b.y - a.y) / (l || 1)) * w,
            y: a.y + (b.y - a.y) * ((j + t) / n) + ((b.x - a.x) / (l || 1)) * w,
          };
        };
        const p = at(0),
          q = at(1);
        out.push(p.x, p.y, z, q.x, q.y, z);
      }
    }
  }
  return out;
}

/** Lines of the open outline for the stage: ink, pencil, conflict, points, and what is wrong with it. */
export function outlineLines(
  e: EvaluatedOutline,
  z: number,
  p: Palette,
): { points: number[]; colour: string; width: number; opacity?: number; onTop?: boolean }[] {
  const size = e.box ? Math.max(e.box.max.x - e.box.min.x, e.box.max.y - e.box.min.y, 1) : 10;
  const ink: number[] = [],
    loose: number[] = [],
    wrong: number[] = [],
    marks: number[] = [];
  const bad = new Set(e.wire?.conflicts.flatMap((c) => c.items));
  const cross = (c: Vec2, r: number, into: number[]) =>
    into.push(c.x - r, c.y, z, c.x + r, c.y, z, c.x, c.y - r, z, c.x, c.y + r, z);
  e.wire?.segments.forEach((s, i) => {
    const points = pointsOf(s);
    if (bad.has(e.wire!.items[i])) wrong.push(...segmentsOf(points, z));
    else if (e.wire!.inked[i]) ink.push(...segmentsOf(points, z));
    else loose.push(...pencil(points, z, size / 160));
  });
  // What was made of the walk (repeats, joins, rounds) in a thin line; a shape without a walk is inked.
  // While the walk is free, what is made of it is as loose as the walk.
  const free = Boolean(e.wire && e.wire.freedom > 0);
  const made =
    e.wire && !e.modified
      ? []
      : [...e.region, ...e.open].flatMap((l) =>
          l.flatMap((s) => (free ? pencil(pointsOf(s), z, size / 160) : segmentsOf(pointsOf(s), z))),
        );
  for (const q of e.wire?.points ?? []) cross(q.at, size / 110, marks);
  for (const d of e.defects) cross(d.at, size / 45, wrong);
  return [
    { points: made, colour: p.ink, width: e.wire ? 1 : 2, opacity: e.wire ? (free ? 0.45 : 0.75) : 1, onTop: true },
    { points: ink, colour: p.ink, width: 2.2, onTop: true },
    { points: loose, colour: p.ink, width: 1, opacity: 0.55, onTop: true },
    { points: marks, colour: p.ink, width: 1, onTop: true },
    { points: wrong, colour: p.vermilion, width: 2.4, onTop: true },
  ];
}
