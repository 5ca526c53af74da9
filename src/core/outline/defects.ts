import { saidPlace } from "../number";
import { distance2, type Vec2 } from "../geometry/vec";
import { endOf, loopBox, startOf, type Segment } from "./outline";
import { distanceTo, meetings, pointAt } from "./meet";
import type { Region } from "./boolean";
import { CONTACT, DISPLAY, MEET } from "../geometry/tolerance";

/** Something wrong with a chain: where, and what. */
export interface Defect {
  kind: "open-end" | "self-crossing" | "zero-length" | "overlap";
  at: Vec2;
  words: string;
}

const lengthOf = (s: Segment) => (s.kind === "line" ? distance2(s.from, s.to) : Math.abs(s.sweep) * s.radius);

/** Open ends, crossings of a chain with itself or another, elements of no length, and elements lying on one another. */
export function defectsOf(region: Region, open: Segment[][]): Defect[] {
  const out: Defect[] = [];
  const say = (kind: Defect["kind"], at: Vec2, what: string) => {
    if (!out.some((d) => d.kind === kind && distance2(d.at, at) < DISPLAY))
      out.push({ kind, at, words: `${what} at ${saidPlace(at)}` });
  };
  for (const c of open)
    if (c.length) {
      say("open-end", startOf(c[0]), "an open end");
      say("open-end", endOf(c[c.length - 1]), "an open end");
    }
  const chains = [...region, ...open];
  const all = chains.flatMap((c, k) => c.map((s, i) => ({ s, k, i, n: c.length, box: loopBox([s]) })));
  for (const { s } of all) if (lengthOf(s) < CONTACT) say("zero-length", startOf(s), "an element of no length");
  if (all.length > 1500) return out;
  for (let a = 0; a < all.length; a++)
    for (let b = a + 1; b < all.length; b++) {
      const p = all[a],
        q = all[b];
      if (
        p.box.max.x < q.box.min.x - CONTACT ||
        q.box.max.x < p.box.min.x - CONTACT ||
        p.box.max.y < q.box.min.y - CONTACT ||
        q.box.max.y < p.box.min.y - CONTACT ||
        lengthOf(p.s) < CONTACT ||
        lengthOf(q.s) < CONTACT
      )
        continue;
      const meet = meetings(p.s, q.s);
      if (
        meet.length >= 2 &&
        [0.25, 0.5, 0.75].filter((t) => distanceTo(q.s, pointAt(p.s, t)) < CONTACT).length +
          [0.25, 0.5, 0.75].filter((t) => distanceTo(p.s, pointAt(q.s, t)) < CONTACT).length >
          0
      ) {
        say("overlap", pointAt(p.s, 0.5), "two elements lie on one another");
        continue;
      }
      for (const m of meet) {
        const ends = (s: Segment) => distance2(m, startOf(s)) < MEET || distance2(m, endOf(s)) < MEET;
        // Neighbours share an end; anything else is a crossing or a touch.
        if (p.k === q.k && ends(p.s) && ends(q.s) && (q.i === p.i + 1 || (p.i === 0 && q.i === q.n - 1))) continue;
        if (ends(p.s) && ends(q.s) && p.k !== q.k) continue;
        say("self-crossing", m, "the outline crosses or touches itself");
      }
    }
  return out;
}
