import { evaluateNumber, type NumberScope, type NumberText, type Quantity } from '../number';
import { fail, ok, type Problem, type Result } from '../result';
import { v2, type Vec2 } from '../geometry/vec';
import { band, combine, offsetRegion, oriented, type Region } from './boolean';
import { fullRound, relieve, treat } from './corners';
import { defectsOf, type Defect } from './defects';
import type { OutlineItem, OutlineText } from './items';
import { circle, loopArea, loopBox, perimeter, type Segment } from './outline';
import { link, mirrored, moved, polygon, rectangle, ring, segment, slot, star } from './shapes';
import { solveWire, type Wire } from './wire';

/** An outline computed: closed loops (outer ones counter-clockwise, holes clockwise), open chains, and what is to be said of it. mm, mm². */
export interface EvaluatedOutline {
  id: string; name: string;
  region: Region; open: Segment[][];
  wire: Wire | null;
  /** Whether shapes, corners or repeats make something else of the walk. */
  modified: boolean;
  area: number; perimeter: number; centroid: Vec2 | null; box: { min: Vec2; max: Vec2 } | null;
  problems: (Problem & { item: number })[];
  defects: Defect[];
}

type Made = { region: Region; open: Segment[][] };
const DEPTH = 20;

/** Evaluates every outline of a job, each once; outlines may use others, never in a circle. */
export function evaluateOutlines(outlines: readonly OutlineText[], scope: NumberScope): Map<string, EvaluatedOutline> {
  const done = new Map<string, EvaluatedOutline>();
  const byName = new Map(outlines.map((o) => [o.name.toLowerCase(), o]));
  const underway: string[] = [];
  const get = (name: string): Result<EvaluatedOutline> => {
    const o = byName.get(name.toLowerCase());
    if (!o) return fail(`there is no outline "${name}"`, { expected: byName.size ? [...byName.values()].slice(0, 8).map((x) => `"${x.name}"`).join(', ') : 'an outline of this job' });
    if (underway.includes(o.name) || underway.length > DEPTH) return fail(`"${o.name}" is made of itself in a circle (${[...underway, o.name].join(' → ')})`, { expected: 'another outline' });
    const known = done.get(o.id);
    if (known) return ok(known);
    underway.push(o.name);
    const e = evaluateOne(o, scope, get);
    underway.pop();
    done.set(o.id, e);
    return ok(e);
  };
  for (const o of outlines) get(o.name);
  return done;
}

function evaluateOne(o: OutlineText, scope: NumberScope, get: (name: string) => Result<EvaluatedOutline>): EvaluatedOutline {
  const problems: EvaluatedOutline['problems'] = [];
  const walked = o.items.filter((i) => i.item === 'line' || i.item === 'arc' || i.item === 'start').length;
  const wire = walked ? solveWire(o.items, scope) : null;
  let now: Made = { region: [], open: [] };
  if (wire) {
    problems.push(...wire.problems);
    if (wire.closed) now.region = oriented([wire.segments.filter((s) => s.kind === 'arc' || Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y) > 1e-9)].filter((l) => l.length > 0));
    else if (wire.segments.length) now.open = [wire.segments];
  }
  o.items.forEach((it, item) => {
    const bad = (p: Problem) => void problems.push({ ...p, item });
    const num = (t: NumberText, q: Quantity): number | null => { const r = evaluateNumber(t, q, scope); if (r.ok) return r.value.value; bad(r.problems[0]); return null; };
    const r = apply(it, now, num, get, wire);
    if (r === null) return;
    if (!r.ok) return bad(r.problems[0]);
    now = r.value;
  });
  const loops = now.region;
  const area = loops.reduce((s, l) => s + loopArea(l), 0);
  const all = [...loops.flat(), ...now.open.flat()];
  return { id: o.id, name: o.name, ...now, wire, modified: o.items.some((i) => !['start', 'line', 'arc', 'relation', 'dimension'].includes(i.item) && !((i.item === 'corners' || i.item === 'fullRound') && i.off)), area, perimeter: perimeter(all), centroid: Math.abs(area) > 1e-9 ? centroidOf(loops, area) : null, box: all.length ? loopBox(all) : null, problems, defects: defectsOf(now.region, now.open) };
}

/** One item that is not part of the walk, on what stands so far. Null where there is nothing to do. */
function apply(it: OutlineItem, now: Made, num: (t: NumberText, q: Quantity) => number | null, get: (name: string) => Result<EvaluatedOutline>, wire: Wire | null): Result<Made> | null {
  const need = <T extends number[]>(...v: (number | null)[]): T | null => (v.some((x) => x === null) ? null : (v as T));
  const at = (p: { at?: { x: NumberText; y: NumberText }; turn?: NumberText }): { at: Vec2; turn: number } | null => {
    const v = need<[number, number, number]>(p.at ? num(p.at.x, 'coordinate') : 0, p.at ? num(p.at.y, 'coordinate') : 0, p.turn === undefined ? 0 : num(p.turn, 'angle'));
    return v && { at: v2(v[0], v[1]), turn: v[2] };
  };
  const added = (made: Result<Region>, p: { at: Vec2; turn: number } | null): Result<Made> | null => (!p ? null : made.ok ? ok({ ...now, region: oriented([...now.region, ...moved(made.value, p.at, p.turn)]) }) : made);
  switch (it.item) {
    case 'start': case 'line': case 'arc': case 'relation': case 'dimension': return null;
    case 'circle': { const d = num(it.diameter, 'length'); return d === null ? null : added(ok([circle(d / 2)]), at(it)); }
    case 'rectangle': { const v = need<[number, number, number]>(num(it.length, 'length'), num(it.width, 'length'), it.radius === undefined ? 0 : num(it.radius, 'offset')); return v && added(rectangle(v[0], v[1], v[2], Boolean(it.corner)), at(it)); }
    case 'slot': { const v = need<[number, number]>(num(it.length, 'length'), num(it.width, 'length')); return v && added(slot(v[0], v[1], Boolean(it.centres)), at(it)); }
    case 'polygon': { const v = need<[number, number, number]>(num(it.sides, 'count'), num(it.size, 'length'), it.radius === undefined ? 0 : num(it.radius, 'offset')); return v && added(polygon(v[0], it.across, v[1], v[2]), at(it)); }
    case 'star': { const v = need<[number, number, number]>(num(it.points, 'count'), num(it.outer, 'length'), num(it.inner, 'length')); return v && added(star(...v), at(it)); }
    case 'ring': { const v = need<[number, number]>(num(it.outer, 'length'), num(it.inner, 'length')); return v && added(ring(...v), at(it)); }
    case 'link': {
      const v = need<[number, number, number, number, number, number]>(num(it.first, 'length'), num(it.firstAt.x, 'coordinate'), num(it.firstAt.y, 'coordinate'), num(it.second, 'length'), num(it.secondAt.x, 'coordinate'), num(it.secondAt.y, 'coordinate'));
      return v && added(link(v[0], v2(v[1], v[2]), v[3], v2(v[4], v[5])), { at: v2(0, 0), turn: 0 });
    }
    case 'segment': {
      const d = num(it.diameter, 'length'), h = it.height === undefined ? undefined : num(it.height, 'length'), c = it.chord === undefined ? undefined : num(it.chord, 'length');
      return d === null || h === null || c === null ? null : added(segment(d, { height: h, chord: c }), at(it));
    }
    case 'use': case 'join': case 'cutout': case 'overlap': {
      const other = get(it.outline), p = at(it);
      if (!other.ok) return other;
      if (!p) return null;
      const region = moved(other.value.region, p.at, p.turn);
      if (it.item === 'use') return ok({ region: oriented([...now.region, ...region]), open: [...now.open, ...moved(other.value.open, p.at, p.turn)] });
      return ok({ ...now, region: oriented(combine(now.region, region, it.item)) });
    }
    case 'offset': {
      const d = num(it.by, 'coordinate');
      if (d === null) return null;
      if (now.open.length) {
        if (!it.both && d !== 0 && !now.region.length) return ok({ region: oriented(now.open.reduce<Region>((all, c) => combine(all, band(c, Math.abs(d)), 'join'), [])), open: [] });
        return ok({ region: oriented(now.open.reduce<Region>((all, c) => combine(all, band(c, Math.abs(d)), 'join'), it.both ? combine(offsetRegion(now.region, Math.abs(d)), offsetRegion(now.region, -Math.abs(d)), 'cutout') : offsetRegion(now.region, d))), open: [] });
      }
      const grown = it.both ? combine(offsetRegion(now.region, Math.abs(d)), offsetRegion(now.region, -Math.abs(d)), 'cutout') : offsetRegion(now.region, d);
      return grown.length ? ok({ ...now, region: oriented(grown) }) : fail('nothing is left of the outline at this distance', { expected: 'a smaller distance inwards' });
    }
    case 'mirror': {
      let from = v2(0, 0), angle = it.about === 'Y' ? Math.PI / 2 : 0;
      if (typeof it.about !== 'string') {
        const v = need<[number, number, number, number]>(num(it.about.from.x, 'coordinate'), num(it.about.from.y, 'coordinate'), num(it.about.to.x, 'coordinate'), num(it.about.to.y, 'coordinate'));
        if (!v) return null;
        from = v2(v[0], v[1]);
        angle = Math.atan2(v[3] - v[1], v[2] - v[0]);
      }
      const flipped = mirrored(now.region, from, angle), open = mirrored(now.open, from, angle);
      return ok(it.keep ? { region: oriented(combine(now.region, flipped, 'join')), open: [...now.open, ...open] } : { region: flipped, open });
    }
    case 'repeat': {
      const places = placesOf(it.pattern, num);
      if (!places) return null;
      if (places.length > 2000) return fail(`${places.length} places are too many`, { expected: 'at most 2000' });
      const kept = places.filter((_, i) => !it.skip?.includes(i + 1));
      // Copies that overlap become one: a repeated tooth runs into its neighbours.
      let region: Region = [];
      for (const p of kept) {
        const copy = now.region.map((l) => moveAbout(l, p));
        region = region.length ? combine(region, copy, 'join') : copy;
      }
      return ok({ region: oriented(region), open: kept.flatMap((p) => now.open.map((c) => moveAbout(c, p))) });
    }
    case 'fullRound': {
      if (it.off) return null;
      const [a, b] = it.between.map((n) => wire?.points.find((p) => p.name === n)?.at);
      if (!a || !b) return fail(`there is no point ${it.between[a ? 1 : 0]}`, { expected: 'two neighbouring points of the walk such as P2 P3' });
      const round = fullRound(now.region, a, b);
      return round.ok ? ok({ ...now, region: round.value }) : round;
    }
    case 'corners': {
      if (it.off) return null;
      const size = num(it.size, 'length');
      if (size === null) return null;
      const which = typeof it.which === 'string' ? it.which : it.which.map((n) => wire?.points.find((p) => p.name === n)?.at);
      if (Array.isArray(which) && which.some((p) => !p)) return fail(`there is no point ${(it.which as string[])[which.findIndex((p) => !p)]}`, { expected: 'a point of the walk such as P2' });
      const w = which as Vec2[] | 'all';
      const treated = it.treatment === 'relief' ? relieve(now.region, size, w, it.placement ?? 'corner') : treat(now.region, it.treatment, size, w);
      return treated.ok ? ok({ ...now, region: treated.value }) : treated;
    }
  }
}

interface Placed { turn: number; about: Vec2; by: Vec2 }
/** A chain turned about a point and then moved. */
function moveAbout(chain: Segment[], p: Placed): Segment[] {
  const [back] = moved([chain], v2(-p.about.x, -p.about.y), 0);
  return moved([moved([back], v2(0, 0), p.turn)[0]], v2(p.about.x + p.by.x, p.about.y + p.by.y), 0)[0];
}
function placesOf(p: Extract<OutlineItem, { item: 'repeat' }>['pattern'], num: (t: NumberText, q: Quantity) => number | null): Placed[] | null {
  const zero = v2(0, 0);
  if (p.kind === 'around') {
    const n = num(p.n, 'count'), x = p.centre ? num(p.centre.x, 'coordinate') : 0, y = p.centre ? num(p.centre.y, 'coordinate') : 0, step = p.step === undefined ? undefined : num(p.step, 'angle');
    return n === null || x === null || y === null || step === null ? null : Array.from({ length: n }, (_, i) => ({ turn: i * (step ?? (2 * Math.PI) / n), about: v2(x, y), by: zero }));
  }
  if (p.kind === 'line') {
    const n = num(p.n, 'count'), by = num(p.by, 'coordinate'), turn = p.turn === undefined ? 0 : num(p.turn, 'angle');
    return n === null || by === null || turn === null ? null : Array.from({ length: n }, (_, i) => ({ turn: 0, about: zero, by: v2(i * by * Math.cos(turn), i * by * Math.sin(turn)) }));
  }
  const nx = num(p.nx, 'count'), ny = num(p.ny, 'count'), dx = num(p.dx, 'coordinate'), dy = num(p.dy, 'coordinate');
  if (nx === null || ny === null || dx === null || dy === null || nx * ny > 5000) return null;
  return Array.from({ length: nx * ny }, (_, i) => ({ turn: 0, about: zero, by: v2((i % nx) * dx, Math.floor(i / nx) * dy) }));
}

/** Centroid of a region by Green's theorem; an arc adds its circular segment at (4/3) r sin³(φ/2)/(φ − sin φ) from its centre. */
function centroidOf(loops: Region, area: number): Vec2 {
  let x = 0, y = 0;
  for (const s of loops.flat()) {
    const a = s.kind === 'line' ? s.from : v2(s.centre.x + s.radius * Math.cos(s.start), s.centre.y + s.radius * Math.sin(s.start));
    const b = s.kind === 'line' ? s.to : v2(s.centre.x + s.radius * Math.cos(s.start + s.sweep), s.centre.y + s.radius * Math.sin(s.start + s.sweep));
    const c = (a.x * b.y - b.x * a.y) / 2;
    x += (c * (a.x + b.x)) / 3;
    y += (c * (a.y + b.y)) / 3;
    if (s.kind === 'arc') {
      const phi = s.sweep, part = (s.radius * s.radius * (phi - Math.sin(phi))) / 2;
      if (Math.abs(part) > 1e-15) {
        const d = (4 * s.radius * Math.sin(phi / 2) ** 3) / (3 * (phi - Math.sin(phi))), m = s.start + phi / 2;
        x += part * (s.centre.x + d * Math.cos(m));
        y += part * (s.centre.y + d * Math.sin(m));
      }
    }
  }
  return v2(x / area, y / area);
}
