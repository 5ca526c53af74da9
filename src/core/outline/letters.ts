import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { distance2, v2, type Vec2 } from "../geometry/vec";
import { fonts } from "../tables/glyphs";
import { oriented, type Region } from "./boolean";
import { carriers, directionAt, parallel, placeOn } from "./meet";
import { endOf, moveLoop, segmentLength, startOf, type Line, type Loop, type Segment } from "./outline";
import { COINCIDENT, CONTACT, MEET, ROUNDING } from "../geometry/tolerance";

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
const CORNER = 0.035;
/** Letters the fonts write otherwise. */
const standsFor: Record<string, string> = { "⌀": "Ø", "×": "×", "−": "-" };

/**
 * Text as closed chains of lines and arcs on a base line from 0,0, or round a circle about 0,0. `height` is that of
 * the capitals, as drawings give it.
 * Curves of the font become arcs that meet smoothly, within a two-thousandth of the height; the small bends at a
 * letter's corners become true rounds, which lie up to a hundredth of the height from them.
 */
export function lettering(t: Lettering): Result<Region> {
  const font = fonts[t.font],
    k = t.height / font.capHeight;
  const letters = [...t.text].map((c) => standsFor[c] ?? c);
  const missing = letters.find((c) => !font.glyphs[c]);
  if (missing) return fail(problems.letterMissing(JSON.stringify(missing)), { path: "text" });
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
  return out.length ? ok(out) : fail(problems.noLetters(), { path: "text" });
}

/**
 * A letter's way round with the small bends at its corners made true rounds: fonts put each together from several
 * curves and stubs, meant as one arc that touches the two longer pieces beside it.
 */
function trueRounds(loop: Loop, corner: number): Loop {
  const isStub = (s: Segment) => segmentLength(s) < corner * STUB;
  const first = loop.findIndex((s, i) => !isStub(s) && isStub(loop[(i + 1) % loop.length]));
  if (first < 0) return loop;
  const out: Loop = [loop[first]];
  let bend: Segment[] = [];
  for (let k = 1; k <= loop.length; k++) {
    const s = loop[(first + k) % loop.length];
    if (isStub(s)) {
      bend.push(s);
      continue;
    }
    const isLast = k === loop.length;
    // The first piece came already, with one of its ends as it is to be.
    const next = isLast ? out[0] : s;
    const whole = [out[out.length - 1], ...bend, next];
    const isRound = bend.length < 2 && whole.slice(1).every((b, i) => runsOn(whole[i], b));
    const rounded = bend.length && !isRound ? roundBetween(whole[0], bend, next, corner) : null;
    if (rounded) out.splice(-1, 1, rounded[0], rounded[1]);
    else out.push(...bend);
    const end = rounded ? rounded[2] : next;
    if (isLast) out[0] = end;
    else out.push(end);
    bend = [];
  }
  return out;
}

const runsOn = (a: Segment, b: Segment) => distance2(directionAt(a, 1), directionAt(b, 0)) < MEET;

/** The longest stub of a bend, as a share of the longest chord of a corner's round. */
const STUB = 0.8;
/** What turns by less is no corner, rad. */
const TURNS = 0.35;

/** Two pieces and the one round between them; null where the bend is wide, hardly turns, or no round fits. */
function roundBetween(a: Segment, bend: Segment[], b: Segment, corner: number): [Segment, Segment, Segment] | null {
  const [from, to] = [startOf(bend[0]), endOf(bend[bend.length - 1])];
  const [u, v] = [directionAt(a, 1), directionAt(b, 0)];
  const turn = Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
  const chord = distance2(from, to);
  if (chord > corner || Math.abs(turn) < TURNS) return null;
  const side = turn > 0 ? 1 : -1;
  const [p, q] = [a, b].map((s) => parallel(s, (side * chord) / (2 * Math.sin(Math.abs(turn) / 2)), ROUNDING));
  const middle = mix(from, to, 0.5);
  const near = (x: Vec2) => distance2(x, middle);
  const [centre] = p && q ? carriers(p, q).sort((x, y) => near(x) - near(y)) : [];
  if (!centre) return null;
  const [start, end] = [footOn(a, centre), footOn(b, centre)];
  if (distance2(start, from) > corner / 2 || distance2(end, to) > corner / 2) return null;
  const [before, after] = [cutTo(a, startOf(a), start), cutTo(b, end, endOf(b))];
  return before && after ? [before, arcBy(start, directionAt(before, 1), end), after] : null;
}

/** The point of a segment's line or circle that is nearest to a point. */
function footOn(s: Segment, p: Vec2): Vec2 {
  if (s.kind === "line") {
    const u = directionAt(s, 0);
    const along = (p.x - s.from.x) * u.x + (p.y - s.from.y) * u.y;
    return v2(s.from.x + u.x * along, s.from.y + u.y * along);
  }
  const far = distance2(p, s.centre);
  return mix(s.centre, p, s.radius / far);
}

/** A segment cut or made longer to other ends on its line or circle; null where nothing of it is left. */
function cutTo(s: Segment, from: Vec2, to: Vec2): Segment | null {
  const [begin, end] = [placeOn(s, from), placeOn(s, to)];
  const whole = s.kind === "line" ? segmentLength(s) : Math.abs(s.sweep);
  if (end - begin < whole * 0.1) return null;
  if (s.kind === "line") return { kind: "line", from, to };
  const sense = Math.sign(s.sweep);
  return { ...s, start: s.start + sense * begin, sweep: sense * (end - begin) };
}

type Cubic = [Vec2, Vec2, Vec2, Vec2];

/** A letter's way round as the font has it: straight pieces and cubic curves. */
type Piece = Line | { kind: "curve"; cubic: Cubic };

/** Loops of one letter at scale k. */
function glyphLoops(path: string, k: number, near: number, corner: number): Loop[] {
  return piecesOf(path, k).map((pieces) => {
    const n = pieces.length;
    const loop = pieces.flatMap((p, i): Segment[] => {
      if (p.kind === "line") return [p];
      const from = sharedTangent(pieces[(i + n - 1) % n], p, near);
      const to = sharedTangent(p, pieces[(i + 1) % n], near);
      return arcsOf(p.cubic, near, { corner, from, to });
    });
    return trueRounds(loop, corner);
  });
}

function piecesOf(path: string, k: number): Piece[][] {
  const loops: Piece[][] = [];
  let loop: Piece[] = [];
  let at = v2(0, 0);
  let start = at;
  const straight = (to: Vec2) => {
    if (distance2(at, to) > COINCIDENT) loop.push({ kind: "line", from: at, to });
    at = to;
  };
  const close = () => {
    straight(start);
    if (loop.length) loops.push(loop);
    loop = [];
  };
  for (const [, command, figures] of path.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = figures
      .trim()
      .split(/\s+/)
      .map((s) => Number(s) * k);
    const points = Array.from({ length: Math.floor(n.length / 2) }, (_, i) => v2(n[2 * i], n[2 * i + 1]));
    if (command === "Z") close();
    else if (command === "M") {
      if (loop.length) close();
      at = start = points[0];
    } else if (command === "L") straight(points[0]);
    else {
      const cubic: Cubic =
        points.length === 2 ? raised(at, points[0], points[1]) : [at, points[0], points[1], points[2]];
      loop.push({ kind: "curve", cubic });
      at = cubic[3];
    }
  }
  if (loop.length) close();
  return loops;
}

/** A quadratic curve as the cubic whose handles lie two thirds of the way to its own. */
const raised = (from: Vec2, handle: Vec2, to: Vec2): Cubic => [
  from,
  mix(from, handle, 2 / 3),
  mix(to, handle, 2 / 3),
  to,
];

/** Fonts round their points: where two pieces bend by less than this they are meant to run on smoothly. */
const MEANT_SMOOTH = 0.03;

/**
 * The direction in which two pieces of a letter meet, where they are meant to meet smoothly: a line keeps its own. A
 * short piece may bend by more, as far as its end moves by no more than `near`.
 */
function sharedTangent(a: Piece, b: Piece, near: number): Vec2 | null {
  const u = a.kind === "line" ? unit(a.from, a.to) : tangentsOf(a.cubic)[1];
  const v = b.kind === "line" ? unit(b.from, b.to) : tangentsOf(b.cubic)[0];
  if (!u || !v) return null;
  const bend = Math.abs(Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y));
  const short = Math.min(...[a, b].filter((p) => p.kind === "curve").map((p) => chordOf(p)));
  if (bend > Math.max(MEANT_SMOOTH, near / short)) return null;
  if (a.kind === "line") return u;
  if (b.kind === "line") return v;
  return unit(v2(0, 0), v2(u.x + v.x, u.y + v.y));
}
const chordOf = (p: Piece): number => (p.kind === "line" ? distance2(p.from, p.to) : distance2(p.cubic[0], p.cubic[3]));

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

interface Ends {
  /** Even bends with no longer chord than this are one arc. */
  corner?: number;
  /** Directions to leave and arrive in, where they are not the curve's own. */
  from?: Vec2 | null;
  to?: Vec2 | null;
}

/**
 * A cubic curve as pairs of arcs that share its tangents at both ends; halved until they keep within `near` of it;
 * one arc where it will do, and for an even bend no wider than `corner`.
 */
export function arcsOf(c: Cubic, near: number, ends: Ends = {}, depth = 0): Segment[] {
  const { corner = 0 } = ends;
  const own = tangentsOf(c);
  const t0 = ends.from ?? own[0];
  const t1 = ends.to ?? own[1];
  if (!t0 || !t1) return [];
  // The same angle to the chord at both ends: one arc has both tangents. The small rounds of a font's corners are
  // meant as rounds.
  const one = evenArc(c[0], t0, c[3], t1);
  if (one && (distance2(c[0], c[3]) <= corner || furthest(c, [one]) <= near)) return [one];
  const pair = biarc(c[0], t0, c[3], t1);
  const far = pair ? furthest(c, pair) : Infinity;
  if ((pair && far <= near) || depth > 10) return pair ?? [{ kind: "line", from: c[0], to: c[3] }];
  const [left, right] = halves(c, 0.5);
  const middle = tangentsOf(left)[1];
  return [
    ...arcsOf(left, near, { from: t0, to: middle }, depth + 1),
    ...arcsOf(right, near, { from: middle, to: t1 }, depth + 1),
  ];
}

/** Directions of a curve at both ends. */
function tangentsOf(c: Cubic): [Vec2 | null, Vec2 | null] {
  return [
    unit(c[0], c[1]) ?? unit(c[0], c[2]) ?? unit(c[0], c[3]),
    unit(c[2], c[3]) ?? unit(c[1], c[3]) ?? unit(c[0], c[3]),
  ];
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
