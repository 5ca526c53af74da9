import { lengthText, type LengthUnit, type NumberScope, unitOf } from "../number";
import type { Problem } from "../base/result";
import { v2, type Vec2 } from "../geometry/vec";
import type { OutlineItem } from "./items";
import type { Segment } from "./outline";
import { relationEquations } from "./relations";
import { goNear } from "./near";
import { findConflicts, type Conflict } from "./solve/conflict";
import { freedomOf } from "./solve/diagnose";
import { solveSystem, steadily } from "./solve/newton";
import type { Equation } from "./solve/system";
import { apart } from "./solve/terms";
import { buildWalk } from "./buildWalk";
import { segmentsOf, type Walk } from "./walk";
import { CONTACT } from "../geometry/tolerance";

/**
 * A conflict: what cannot hold together, by the items of the outline, and every one of them that mends it when it is
 * dropped.
 * Without `proven` it is the rest, as it stands, that leaves no room for them.
 */
export interface WireConflict {
  items: number[];
  words: string;
  drop: number[];
  proven: boolean;
  /** They hold, but only with an element of no length. */
  shrunk: boolean;
}

/** A conflict in words; where no line of it can be dropped it may be the beginning that was far off: that is said, and what helps. */
export function conflictWords(c: Pick<WireConflict, "words" | "drop" | "proven" | "shrunk">): string {
  if (!c.drop.length)
    return `no way was found to make these hold together: ${c.words}. NEAR on an open end says where to look`;
  const why = c.shrunk ? ": a step would have no length" : c.proven ? "" : ", the rest being as it stands";
  return `${c.words} cannot hold together${why}`;
}

/** What became of a walk. `inked` says of each element whether it is fully located. */
export interface Wire {
  segments: Segment[];
  closed: boolean;
  freedom: number;
  /** What is still free, in plain words. */
  free: string[];
  /** The same, by point. */
  loose: FreePoint[];
  inked: boolean[];
  /** Contradictions, each by itself. */
  conflicts: WireConflict[];
  /** Items that only repeat what others say. */
  redundant: number[];
  problems: (Problem & { item: number })[];
  points: { name: string; at: Vec2 }[];
  /** Item of each element. */
  items: number[];
  solved: boolean;
}

/** Less than this share of a motion is none. */
const MOVES = 1e-7;

/** Solves a walk with its relations and dimensions, tells what is free and what contradicts. */
export function solveWire(items: OutlineItem[], scope: NumberScope): Wire {
  const size = guessSize(items, scope.unit);
  const walk = buildWalk(items, scope, size);
  const said = relationEquations(walk, items, scope);
  const problems = [...walk.problems, ...said.problems];
  walk.system.equations.push(...said.equations);
  const { system } = walk;
  let solution = steadily(system);
  if (solution.converged) {
    const nearer = goNear(walk, solution);
    solution = nearer.solution;
    problems.push(...nearer.problems);
  }
  if (halfCircles(walk, solution.v)) solution = solveSystem(system, system.equations, solution.v);
  // Shown is the outline without the last of each that contradict: as it was before that one came.
  const told = solution.converged ? { conflicts: [], held: system.equations, v: solution.v } : findConflicts(system);
  const { held, v } = told;
  const conflicts = told.conflicts.map(inItems);
  const d = freedomOf(system, v, held);
  const loose = freePoints(walk, d.motions);
  const inked = walk.elements.map((e) => {
    const k = [e.from, e.to, ...(e.centre >= 0 ? [e.centre] : [])];
    return d.motions.every((m) => k.every((i) => Math.abs(m[2 * i]) < MOVES && Math.abs(m[2 * i + 1]) < MOVES));
  });
  return {
    segments: segmentsOf(walk, v),
    closed: walk.closed || meets(walk, v),
    freedom: d.freedom,
    free: loose.map(freeWords),
    loose,
    inked,
    conflicts,
    redundant: [
      ...new Set(
        d.redundant
          .filter((e) => e.kind === "dimension" && !conflicts.length && e.role !== "halfCircle")
          .map((e) => e.item),
      ),
    ],
    problems,
    points: [...walk.points].map(([name, k]) => ({ name, at: v2(v[2 * k], v[2 * k + 1]) })),
    items: walk.elements.map((e) => e.item),
    solved: !conflicts.length && problems.length === 0,
  };
}

/** A contradiction of equations, as one of the outline's lines. */
function inItems(c: Conflict): WireConflict {
  const order = (list: { item: number }[]) => [...new Set(list.map((e) => e.item))].sort((a, b) => a - b);
  const words = [...new Set(c.equations.map((e) => e.words))].join(", ");
  return { items: order(c.equations), drop: order(c.drop), words, proven: c.proven, shrunk: c.shrunk };
}

/**
 * An arc whose chord is its whole diameter: its centre is the middle of the chord. Said as two radii the two
 * solutions would fall together there,
 * and neither freedom nor the last digits of the centre could be told. @returns whether there was one
 */
function halfCircles(w: Walk, v: Float64Array): boolean {
  let found = false;
  w.elements.forEach((e) => {
    if (e.kind !== "arc" || e.radius === undefined || e.from === e.to) return;
    const { from: a, to: b, centre: c, radius } = e;
    const chord = Math.hypot(v[2 * b] - v[2 * a], v[2 * b + 1] - v[2 * a + 1]);
    if (Math.abs(chord - 2 * radius) > CONTACT * radius) return;
    const ends = [2 * a, 2 * a + 1, 2 * b, 2 * b + 1];
    // What made it an arc of that radius, wherever it was said.
    const about = (q: Equation) =>
      q.vars.includes(2 * c) &&
      q.vars.every((i) => ends.includes(i) || i === 2 * c || i === 2 * c + 1) &&
      (q.kind === "shape" || q.role === "radius");
    const mine = w.system.equations.filter(about),
      said = mine.find((q) => q.kind !== "shape");
    if (!said) return;
    w.system.equations = w.system.equations.filter((q) => !mine.includes(q));
    for (const k of [0, 1])
      w.system.equations.push({
        item: e.item,
        kind: "shape",
        vars: [2 * c + k, 2 * a + k, 2 * b + k],
        words: "the centre of half a circle",
        residual: (u) =>
          u.at(2 * c + k).minus(
            u
              .at(2 * a + k)
              .plus(u.at(2 * b + k))
              .scaled(0.5),
          ),
      });
    w.system.equations.push({
      item: said.item,
      kind: "dimension",
      vars: ends,
      words: said.words,
      role: "halfCircle",
      residual: (u) => apart(u, a, b).shifted(-2 * radius),
    });
    found = true;
  });
  return found;
}

/** Whether the walk ends where it started, without saying CLOSE. */
function meets(w: Walk, v: Float64Array): boolean {
  if (!w.elements.length) return false;
  const a = w.points.get("P0")!,
    b = w.elements[w.elements.length - 1].to;
  return a !== b && Math.hypot(v[2 * a] - v[2 * b], v[2 * a + 1] - v[2 * b + 1]) < 1e-7;
}

/** A point that can still move: along an axis, along a direction (degrees), or anywhere. */
export interface FreePoint {
  name: string;
  along: "X" | "Y" | "X and Y" | number;
}

/** Each point that can still move, and which way. */
function freePoints(w: Walk, motions: Float64Array[]): FreePoint[] {
  const start = w.points.get("P0");
  return [...w.points].flatMap(([name, k]): FreePoint[] => {
    // A point closed onto the start is said once.
    if (name !== "P0" && k === start) return [];
    const ways = motions.map((m) => v2(m[2 * k], m[2 * k + 1])).filter((d) => Math.hypot(d.x, d.y) > MOVES);
    return ways.length ? [{ name, along: wayOf(ways) }] : [];
  });
}

/** The one way some motions go; anywhere where they go more than one. */
function wayOf(ways: Vec2[]): FreePoint["along"] {
  const [first] = ways;
  const l = Math.hypot(first.x, first.y);
  const isOne = ways.every((d) => Math.abs(first.x * d.y - first.y * d.x) < CONTACT * l * Math.hypot(d.x, d.y));
  if (!isOne) return "X and Y";
  if (Math.abs(first.y) < CONTACT * l) return "X";
  if (Math.abs(first.x) < CONTACT * l) return "Y";
  const degrees = (Math.atan2(first.y, first.x) * 180) / Math.PI;
  return degrees <= -90 ? degrees + 180 : degrees > 90 ? degrees - 180 : degrees;
}

function freeWords({ name, along }: FreePoint): string {
  const step = Number(name.slice(1));
  const what = name === "P0" ? "the start" : `the ${name[0] === "C" ? "centre" : "end"} of step ${step}`;
  return `${what} (${name}) is free along ${typeof along === "number" ? `${Number(along.toFixed(1))} degrees` : along}`;
}

/** Extent of the numbers that are typed, mm: what first guesses are measured by. */
function guessSize(items: OutlineItem[], unit: LengthUnit): number {
  let most = 0;
  const look = (x: unknown) => {
    if (typeof x === "string") {
      const n = Number(x.replace(/[!#].*$/, ""));
      if (Number.isFinite(n) && n < 1e5) most = Math.max(most, Math.abs(n));
    } else if (x && typeof x === "object") Object.values(x).forEach(look);
  };
  for (const i of items)
    if (i.item === "start" || i.item === "line" || i.item === "arc") look({ ...i, angle: undefined, sweep: undefined });
  return Math.max(1, (most || 20) * unitOf[unit].mm);
}

/**
 * Dimensions that would tie down what is still free, one for each freedom: the coordinates of points as they stand now.
 * They are nobody's numbers yet: they carry no source until somebody vouches for them.
 */
export function tieDown(items: OutlineItem[], scope: NumberScope): OutlineItem[] {
  const out: OutlineItem[] = [];
  let now = items;
  for (let guard = 0; guard < 200; guard++) {
    const w = solveWire(now, scope);
    if (!w.freedom || w.conflicts.length) break;
    const before = w.freedom;
    const p0 = w.points.find((p) => p.name === "P0")!;
    const candidates = w.loose.flatMap(({ name, along }): OutlineItem[] => {
      if (name === "P0") return [{ item: "relation", relation: "fix", of: ["P0"] }];
      const p = w.points.find((q) => q.name === name)!;
      const say = (dimension: "dx" | "dy", mm: number): OutlineItem => ({
        item: "dimension",
        dimension,
        of: ["P0", name],
        value: lengthText(mm, scope.unit, unitOf[scope.unit].places.exact),
      });
      return [
        ...(along === "Y" ? [] : [say("dx", p.at.x - p0.at.x)]),
        ...(along === "X" ? [] : [say("dy", p.at.y - p0.at.y)]),
      ];
    });
    const taken = candidates.find((c) => {
      const t = solveWire([...now, c], scope);
      return t.freedom < before && !t.conflicts.length;
    });
    if (!taken) break;
    out.push(taken);
    now = [...now, taken];
  }
  return out;
}
