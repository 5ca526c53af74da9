import { fail, ok, type Result } from "../result";
import type { NumberText, Quantity } from "../number";
import { v2, type Vec2 } from "../geometry/vec";
import { band, combine, joined, offsetRegion, oriented, type Region } from "./boolean";
import { breakAt, extend, mend, trimAt, type Made } from "./chains";
import { fullRound, relieve, treat } from "./corners";
import type { EvaluatedOutline } from "./evaluateOutline";
import type { PartItem } from "./fromPart";
import type { OutlineItem } from "./items";
import { lettering } from "./letters";
import { circle } from "./outline";
import { moveAbout, placesOf } from "./repeat";
import { link, mirrored, moved, polygon, rectangle, ring, segment, slot, star } from "./shapes";
import type { Wire } from "./wire";

type XY = { x: NumberText; y: NumberText; diameter?: true };
/** What an item works on: what stands so far, and where numbers, other outlines and the part come from. */
export interface Work {
  now: Made;
  wire: Wire | null;
  /** Value of a number, null where it fails (and has been said). */
  num(t: NumberText, q: Quantity): number | null;
  get(name: string): Result<EvaluatedOutline>;
  fromPart(want: PartItem): Result<Region>;
}
/** Gaps that are mended without a size being said, mm. */
const MEND = 0.05;
/** Elements a repeat may make: more could not be followed while typing. */
const MOST = 6000;
const closed = (m: Made): Made => ({ region: oriented(m.region), open: m.open });

/** One item that is not part of the walk, on what stands so far. Null where there is nothing to do. */
export function applyItem(it: OutlineItem, { now, num, get, wire, fromPart }: Work): Result<Made> | null {
  const need = <T extends number[]>(...v: (number | null)[]): T | null => (v.some((x) => x === null) ? null : (v as T));
  const spot = (p: XY): Vec2 | null => {
    const v = need<[number, number]>(num(p.x, "coordinate"), num(p.y, "coordinate"));
    return v && v2(p.diameter ? v[0] / 2 : v[0], v[1]);
  };
  const at = (p: { at?: XY; turn?: NumberText }): { at: Vec2; turn: number } | null => {
    const q = p.at ? spot(p.at) : v2(0, 0),
      turn = p.turn === undefined ? 0 : num(p.turn, "angle");
    return q && turn !== null ? { at: q, turn } : null;
  };
  const added = (made: Result<Region>, p: { at: Vec2; turn: number } | null): Result<Made> | null =>
    !p ? null : made.ok ? ok({ ...now, region: oriented([...now.region, ...moved(made.value, p.at, p.turn)]) }) : made;
  /** Chains trimmed, parted, lengthened, mended. */
  function chained(
    c: Extract<OutlineItem, { item: "trim" | "break" | "extend" | "mend" }>,
    spot: (p: XY) => Vec2 | null,
  ): Result<Made> | null {
    if (c.item === "mend") {
      const gap = c.gap === undefined ? MEND : num(c.gap, "offset");
      return gap === null ? null : ok(closed(mend(now, gap)));
    }
    const other = "against" in c && c.against !== undefined ? get(c.against) : null;
    if (other && !other.ok) return other;
    const segments = other?.ok ? [...other.value.region.flat(), ...other.value.open.flat()] : null;
    if (c.item === "extend") {
      const length = c.length === undefined ? undefined : num(c.length, "length");
      if (length === null) return null;
      if (length === undefined && !segments) return fail("how far?", { expected: 'AGAINST "outline" or BY length' });
      const r = extend(now, c.end, length === undefined ? { other: segments! } : { length });
      return r.ok ? ok(closed(r.value)) : r;
    }
    const p = spot(c.at);
    if (!p) return null;
    const r = c.item === "break" ? breakAt(now, p) : trimAt(now, p, segments);
    return r.ok ? ok(closed(r.value)) : r;
  }
  switch (it.item) {
    case "start":
    case "line":
    case "arc":
    case "relation":
    case "dimension":
      return null;
    case "circle": {
      const d = num(it.diameter, "length");
      return d === null ? null : added(ok([circle(d / 2)]), at(it));
    }
    case "rectangle": {
      const v = need<[number, number, number]>(
        num(it.length, "length"),
        num(it.width, "length"),
        it.radius === undefined ? 0 : num(it.radius, "offset"),
      );
      return v && added(rectangle(v[0], v[1], v[2], Boolean(it.corner)), at(it));
    }
    case "slot": {
      const v = need<[number, number]>(num(it.length, "length"), num(it.width, "length"));
      return v && added(slot(v[0], v[1], Boolean(it.centres)), at(it));
    }
    case "polygon": {
      const v = need<[number, number, number]>(
        num(it.sides, "count"),
        num(it.size, "length"),
        it.radius === undefined ? 0 : num(it.radius, "offset"),
      );
      return v && added(polygon(v[0], it.across, v[1], v[2]), at(it));
    }
    case "star": {
      const v = need<[number, number, number]>(
        num(it.points, "count"),
        num(it.outer, "length"),
        num(it.inner, "length"),
      );
      return v && added(star(...v), at(it));
    }
    case "ring": {
      const v = need<[number, number]>(num(it.outer, "length"), num(it.inner, "length"));
      return v && added(ring(...v), at(it));
    }
    case "link": {
      const first = num(it.first, "length"),
        firstAt = spot(it.firstAt),
        second = num(it.second, "length"),
        secondAt = spot(it.secondAt);
      return first === null || second === null || !firstAt || !secondAt
        ? null
        : added(link(first, firstAt, second, secondAt), { at: v2(0, 0), turn: 0 });
    }
    case "segment": {
      const d = num(it.diameter, "length"),
        h = it.height === undefined ? undefined : num(it.height, "length"),
        c = it.chord === undefined ? undefined : num(it.chord, "length");
      return d === null || h === null || c === null ? null : added(segment(d, { height: h, chord: c }), at(it));
    }
    case "text": {
      const height = num(it.height, "length"),
        d = it.around ? num(it.around.diameter, "length") : 0,
        from =
          it.around?.from === undefined
            ? it.around?.inside
              ? -Math.PI / 2
              : Math.PI / 2
            : num(it.around.from, "angle");
      return height === null || d === null || from === null
        ? null
        : added(
            lettering({
              text: it.text,
              height,
              font: it.font,
              align: it.align ?? (it.around ? "middle" : "left"),
              ...(it.around ? { around: { diameter: d, from, inside: Boolean(it.around.inside) } } : {}),
            }),
            at(it),
          );
    }
    case "face":
      return added(fromPart({ item: "face", face: it.face, row: it.row }), at(it));
    case "edges":
      return added(fromPart({ item: "edges", edges: it.edges, row: it.row }), at(it));
    case "section": {
      const plane = num(it.at, "coordinate");
      return plane === null
        ? null
        : added(fromPart({ item: "section", axis: it.axis, at: plane, row: it.row }), { at: v2(0, 0), turn: 0 });
    }
    case "trim":
    case "break":
    case "extend":
    case "mend":
      return chained(it, spot);
    case "use":
    case "join":
    case "cutout":
    case "overlap": {
      const other = get(it.outline),
        p = at(it);
      if (!other.ok) return other;
      if (!p) return null;
      const region = moved(other.value.region, p.at, p.turn);
      if (it.item === "use")
        return ok({
          region: oriented([...now.region, ...region]),
          open: [...now.open, ...moved(other.value.open, p.at, p.turn)],
        });
      return ok({
        ...now,
        region: oriented(it.item === "join" ? joined(now.region, region) : combine(now.region, region, it.item)),
      });
    }
    case "offset": {
      const d = num(it.by, "coordinate");
      if (d === null) return null;
      if (now.open.length) {
        if (!it.both && d !== 0 && !now.region.length)
          return ok({
            region: oriented(now.open.reduce<Region>((all, c) => combine(all, band(c, Math.abs(d)), "join"), [])),
            open: [],
          });
        return ok({
          region: oriented(
            now.open.reduce<Region>(
              (all, c) => combine(all, band(c, Math.abs(d)), "join"),
              it.both
                ? combine(offsetRegion(now.region, Math.abs(d)), offsetRegion(now.region, -Math.abs(d)), "cutout")
                : offsetRegion(now.region, d),
            ),
          ),
          open: [],
        });
      }
      const grown = it.both
        ? combine(offsetRegion(now.region, Math.abs(d)), offsetRegion(now.region, -Math.abs(d)), "cutout")
        : offsetRegion(now.region, d);
      return grown.length
        ? ok({ ...now, region: oriented(grown) })
        : fail("nothing is left of the outline at this distance", { expected: "a smaller distance inwards" });
    }
    case "mirror": {
      let from = v2(0, 0),
        angle = it.about === "Y" ? Math.PI / 2 : 0;
      if (typeof it.about !== "string") {
        const p = spot(it.about.from),
          q = spot(it.about.to);
        if (!p || !q) return null;
        from = p;
        angle = Math.atan2(q.y - p.y, q.x - p.x);
      }
      const flipped = mirrored(now.region, from, angle),
        open = mirrored(now.open, from, angle);
      return ok(
        it.keep
          ? { region: oriented(joined(now.region, flipped)), open: [...now.open, ...open] }
          : { region: flipped, open },
      );
    }
    case "repeat": {
      const places = placesOf(it.pattern, num, spot);
      if (!places) return null;
      if (places.length > 2000) return fail(`${places.length} places are too many`, { expected: "at most 2000" });
      const kept = places.filter((_, i) => !it.skip?.includes(i + 1));
      const elements = kept.length * (now.region.flat().length + now.open.flat().length);
      if (elements > MOST)
        return fail(`${elements} elements are too many`, {
          expected: `at most ${MOST}: fewer copies, or the row repeated`,
        });
      // Copies that overlap become one: a repeated tooth runs into its neighbours.
      let region: Region = [];
      for (const p of kept) {
        const copy = now.region.map((l) => moveAbout(l, p));
        region = region.length ? joined(region, copy) : copy;
      }
      if (!region.length && now.region.length)
        return fail("the copies run into one another in too many places to be joined", {
          expected: "another count, or copies that stand apart",
        });
      return ok({ region: oriented(region), open: kept.flatMap((p) => now.open.map((c) => moveAbout(c, p))) });
    }
    case "fullRound": {
      if (it.off) return null;
      const [a, b] = it.between.map((n) => wire?.points.find((p) => p.name === n)?.at);
      if (!a || !b)
        return fail(`there is no point ${it.between[a ? 1 : 0]}`, {
          expected: "two neighbouring points of the walk such as P2 P3",
        });
      const round = fullRound(now.region, a, b);
      return round.ok ? ok({ ...now, region: round.value }) : round;
    }
    case "corners": {
      if (it.off) return null;
      const size = num(it.size, "length");
      if (size === null) return null;
      const which =
        typeof it.which === "string" ? it.which : it.which.map((n) => wire?.points.find((p) => p.name === n)?.at);
      if (Array.isArray(which) && which.some((p) => !p))
        return fail(`there is no point ${(it.which as string[])[which.findIndex((p) => !p)]}`, {
          expected: "a point of the walk such as P2",
        });
      const w = which as Vec2[] | "all";
      const treated =
        it.treatment === "relief"
          ? relieve(now.region, size, w, it.placement ?? "corner")
          : treat(now.region, it.treatment, size, w);
      return treated.ok ? ok({ ...now, region: treated.value }) : treated;
    }
  }
}
