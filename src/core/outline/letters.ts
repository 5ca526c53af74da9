import { fail, ok, type Result } from "../base/result";
import { distance2, v2, type Vec2 } from "../geometry/vec";
import { fonts } from "../tables/glyphs";
import { oriented, type Region } from "./boolean";
import { moveLoop, type Loop, type Segment } from "./outline";
import { COINCIDENT, CONTACT, ROUNDING } from "../geometry/tolerance";

type FontName = keyof typeof fonts;
interface Lettering {
  text: string;
  height: number;
  font: FontName;
  align?: "left" | "middle" | "right";
  around?: { diameter: number; from: number; inside: boolean };
}

/** How far the arcs of a letter may leave its curve: a share of the letter height (5 µm on 10 mm). */
const NEAR = 1 / 2000;
/** Chord of the rounds at a letter's corners, as a share of the height: these become true rounds. */
const CORNER = 0.03;
/** Letters the fonts write otherwise. */
const standsFor: Record<string, string> = { "⌀": "Ø", "×": "×", "−": "-" };

/**
 * Text as closed chains of lines and arcs on a base line from 0,0, or round a circle about 0,0. `height` is that of
 * the capitals, as drawings give it.
 * Curves of the font become arcs that meet smoothly, within a two-thousandth of the height.
 */
export function lettering(t: Lettering): Result<Region> {
  const font = fonts[t.font],
    k = t.height / font.capHeight;
  const letters = [...t.text].map((c) => standsFor[c] ?? c);
  const missing = letters.find((c) => !font.glyphs[c]);
  if (missing)
    return fail(`the font has no letter ${JSON.stringify(missing)}`, {
      path: "text",
      expected: "letters, figures and signs of western Europe",
    });
  const places: number[] = [];
  let x = 0;
  letters.forEach((c, i) => {
    if (i) x += (font.kern[letters[i - 1] + c] ?? 0) * k;
    places.push(x);
    x += font.glyphs[c][0] * k;
  });
  const shift = t.align === "middle" ? -x / 2 : t.align === "right" ? -x : 0;
  const out: Region = [];
  letters.forEach((c, i) => {
    const loops = oriented(glyphLoops(font.glyphs[c][1], k, t.height * NEAR, t.height * CORNER));
    if (!t.around) return void out.push(...loops.map((l) => moveLoop(l, v2(places[i] + shift, 0))));
    // Each letter stands square on the circle at the middle of its own width.
    const r = t.around.diameter / 2,
      half = (font.glyphs[c][0] * k) / 2,
      along = (places[i] + shift + half) / r;
    const a = t.around.inside ? t.around.from + along : t.around.from - along;
    const turn = t.around.inside ? a + Math.PI / 2 : a - Math.PI / 2;
    out.push(...loops.map((l) => moveLoop(moveLoop(l, v2(-half, 0)), v2(r * Math.cos(a), r * Math.sin(a)), turn)));
  });
  return out.length ? ok(out) : fail("the text has no letters", { path: "text", expected: "at least one letter" });
}

type Cubic = [Vec2, Vec2, Vec2, Vec2];

/** Loops of one letter at scale k. */
function glyphLoops(path: string, k: number, near: number, corner: number): Loop[] {
  const loops: Loop[] = [];
  let loop: Loop = [],
    at = v2(0, 0),
    start = at;
  const straight = (to: Vec2) => {
    if (distance2(at, to) > COINCIDENT) loop.push({ kind: "line", from: at, to });
    at = to;
  };
  const close = () => {
    straight(start);
    if (loop.length) loops.push(loop);
    loop = [];
  };
  for (const m of path.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = m[2]
        .trim()
        .split(/\s+/)
        .map((s) => Number(s) * k),
      p = (i: number) => v2(n[i], n[i + 1]);
    if (m[1] === "Z") close();
    else if (m[1] === "M") {
      if (loop.length) close();
      at = start = p(0);
    } else if (m[1] === "L") straight(p(0));
    else {
      const a = at,
        to = p(n.length - 2);
      // A quadratic curve is the cubic whose handles lie two thirds of the way to its own.
      const cubic: Cubic =
        n.length === 4
          ? [
              a,
              v2(a.x + (2 * (n[0] - a.x)) / 3, a.y + (2 * (n[1] - a.y)) / 3),
              v2(to.x + (2 * (n[0] - to.x)) / 3, to.y + (2 * (n[1] - to.y)) / 3),
              to,
            ]
          : [a, p(0), p(2), to];
      loop.push(...arcsOf(cubic, near, corner));
      at = to;
    }
  }
  if (loop.length) close();
  return loops;
}

const mix = (a: Vec2, b: Vec2, t: number): Vec2 => v2(a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t);
function halves([a, b, c, d]: Cubic, t: number): [Cubic, Cubic] {
  const ab = mix(a, b, t),
    bc = mix(b, c, t),
    cd = mix(c, d, t),
    abc = mix(ab, bc, t),
    bcd = mix(bc, cd, t),
    m = mix(abc, bcd, t);
  return [
    [a, ab, abc, m],
    [m, bcd, cd, d],
  ];
}
const onCurve = (c: Cubic, t: number): Vec2 => halves(c, t)[0][3];
const unit = (a: Vec2, b: Vec2): Vec2 | null => {
  const l = distance2(a, b);
  return l > ROUNDING ? v2((b.x - a.x) / l, (b.y - a.y) / l) : null;
};

/**
 * A cubic curve as pairs of arcs that share its tangents at both ends; halved until they keep within `near` of it;
 * one arc where it will do, and for an even bend no wider than `corner`.
 */
export function arcsOf(c: Cubic, near: number, corner = 0, depth = 0): Segment[] {
  const t0 = unit(c[0], c[1]) ?? unit(c[0], c[2]) ?? unit(c[0], c[3]),
    t1 = unit(c[2], c[3]) ?? unit(c[1], c[3]) ?? unit(c[0], c[3]);
  if (!t0 || !t1) return [];
  // The same angle to the chord at both ends: one arc has both tangents. The small rounds of a font's corners are
  // meant as rounds.
  const one = evenArc(c[0], t0, c[3], t1);
  if (one && (distance2(c[0], c[3]) <= corner || furthest(c, [one]) <= near)) return [one];
  const pair = biarc(c[0], t0, c[3], t1);
  const far = pair ? furthest(c, pair) : Infinity;
  if ((pair && far <= near) || depth > 10) return pair ?? [{ kind: "line", from: c[0], to: c[3] }];
  const [left, right] = halves(c, 0.5);
  return [...arcsOf(left, near, 0, depth + 1), ...arcsOf(right, near, 0, depth + 1)];
}

const furthest = (c: Cubic, of: Segment[]): number =>
  Math.max(
    ...[1, 2, 3, 4, 5, 6, 7].map((i) => {
      const p = onCurve(c, i / 8);
      return Math.min(...of.map((s) => away(s, p)));
    }),
  );
function evenArc(p: Vec2, t0: Vec2, q: Vec2, t1: Vec2): Segment | null {
  const u = unit(p, q);
  if (!u) return null;
  const a = Math.atan2(t0.x * u.y - t0.y * u.x, t0.x * u.x + t0.y * u.y),
    b = Math.atan2(u.x * t1.y - u.y * t1.x, u.x * t1.x + u.y * t1.y);
  return Math.abs(a - b) < CONTACT && Math.abs(a) > COINCIDENT ? arcBy(p, t0, q) : null;
}

/** Distance from a segment's line or circle. */
const away = (s: Segment, p: Vec2): number =>
  s.kind === "arc"
    ? Math.abs(distance2(s.centre, p) - s.radius)
    : Math.abs((s.to.x - s.from.x) * (p.y - s.from.y) - (s.to.y - s.from.y) * (p.x - s.from.x)) /
      distance2(s.from, s.to);

/**
 * Two arcs from p0 along t0 to p1 along t1, meeting smoothly, with equal handles d: |v − d(t0 + t1)| = 2d with v =
 * p1 − p0.
 */
function biarc(p0: Vec2, t0: Vec2, p1: Vec2, t1: Vec2): Segment[] | null {
  const v = v2(p1.x - p0.x, p1.y - p0.y),
    vv = v.x * v.x + v.y * v.y,
    t = v2(t0.x + t1.x, t0.y + t1.y),
    vt = v.x * t.x + v.y * t.y,
    a = 2 * (1 - (t0.x * t1.x + t0.y * t1.y));
  const d = a < COINCIDENT ? vv / (2 * vt) : (-vt + Math.sqrt(vt * vt + a * vv)) / a;
  if (!Number.isFinite(d) || d <= 0) return null;
  const m = v2((p0.x + p1.x + d * (t0.x - t1.x)) / 2, (p0.y + p1.y + d * (t0.y - t1.y)) / 2);
  const first = arcBy(p0, t0, m),
    second = arcBy(p1, v2(-t1.x, -t1.y), m);
  return [
    first,
    second.kind === "line"
      ? { kind: "line", from: second.to, to: second.from }
      : { ...second, start: second.start + second.sweep, sweep: -second.sweep },
  ];
}

/** The arc that leaves p along t and ends at q; a line where it is straight. */
function arcBy(p: Vec2, t: Vec2, q: Vec2): Segment {
  const dx = q.x - p.x,
    dy = q.y - p.y,
    side = t.x * dy - t.y * dx,
    chord = Math.hypot(dx, dy);
  if (Math.abs(side) < COINCIDENT * chord) return { kind: "line", from: p, to: q };
  const r = (chord * chord) / (2 * side),
    centre = v2(p.x - t.y * r, p.y + t.x * r);
  const start = Math.atan2(p.y - centre.y, p.x - centre.x),
    half = Math.atan2(side, t.x * dx + t.y * dy);
  return { kind: "arc", centre, radius: Math.abs(r), start, sweep: 2 * half };
}
