import { problems } from "./problems";
import { evaluateNumber, inUnit, problemIn, type NumberScope } from "../number";
import { fail, ok, type Problem, type Result } from "../base/result";
import { distance2, type Vec2 } from "../geometry/vec";
import { applyItem, isWalked } from "./lines/registry";
import type { Work } from "./lines/common";
import { oriented, TooMany, within, type Region } from "./boolean";
import { centroidOf } from "./centroid";
import type { Made } from "./chains";
import { defectsOf, type Defect } from "./defects";
import { partKey, type PartItem } from "./fromPart";
import type { OutlineText } from "./items";
import { loopArea, loopBox, perimeter, type Segment } from "./outline";
import { NO_LENGTH } from "./walk";
import { solveWire, type Wire } from "./wire";
import { COINCIDENT } from "../geometry/tolerance";

/**
 * An outline computed: closed loops (outer ones counter-clockwise, holes clockwise), open chains, and what is to be
 * said of it. mm, mm².
 */
export interface EvaluatedOutline {
  id: string;
  name: string;
  region: Region;
  open: Segment[][];
  wire: Wire | null;
  /** Whether shapes, corners or repeats make something else of the walk. */
  modified: boolean;
  area: number;
  perimeter: number;
  centroid: Vec2 | null;
  box: { min: Vec2; max: Vec2 } | null;
  problems: (Problem & { item: number })[];
  defects: Defect[];
  /** What it takes from the part, its own and that of the outlines it is made with. */
  waits: PartItem[];
}

/** Loops taken from the part as it stands after a row, by `partKey`; what is not there yet is waited for. */
export type PartShapes = ReadonlyMap<string, Result<Region>>;
const nothing: PartShapes = new Map();
const DEPTH = 20;
/** Pairs of elements one line of an outline may look at: about a second's work. */
const PAIRS = 400_000;

/** Evaluates every outline of a job, each once; outlines may use others, never in a circle. */
export function evaluateOutlines(
  outlines: readonly OutlineText[],
  scope: NumberScope,
  shapes: PartShapes = nothing,
): Map<string, EvaluatedOutline> {
  const done = new Map<string, EvaluatedOutline>();
  const byName = new Map(outlines.map((o) => [o.name.toLowerCase(), o]));
  const underway: string[] = [];
  const get = (name: string): Result<EvaluatedOutline> => {
    const o = byName.get(name.toLowerCase());
    if (!o)
      return fail(problems.noOutline(name), {
        expected: byName.size
          ? [...byName.values()]
              .slice(0, 8)
              .map((x) => `"${x.name}"`)
              .join(", ")
          : "an outline of this job",
      });
    if (underway.includes(o.name) || underway.length > DEPTH)
      return fail(problems.madeOfItself(o.name, [...underway, o.name].join(" → ")));
    const known = done.get(o.id);
    if (known) return ok(known);
    underway.push(o.name);
    const e = evaluateOne(o, scope, get, shapes);
    underway.pop();
    done.set(o.id, e);
    return ok(e);
  };
  for (const o of outlines) get(o.name);
  return done;
}

/** Elements that came out without any length: no relation is held by one. A line home that is home already is none. */
function noLength(o: OutlineText, wire: NonNullable<EvaluatedOutline["wire"]>): EvaluatedOutline["problems"] {
  if (wire.conflicts.length) return [];
  return wire.segments.flatMap((s, i) => {
    const item = wire.items[i];
    const it = o.items[item];
    const closes = it && "close" in it && it.close === true;
    const nothing =
      s.kind === "line"
        ? Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y) < NO_LENGTH
        : s.radius < NO_LENGTH || Math.abs(s.sweep) * s.radius < NO_LENGTH;
    return nothing && !closes
      ? [
          {
            item,
            message: `element ${i + 1} comes out with no length: what is asked of it cannot hold together`,
            expected: "one of its relations or dimensions dropped",
          },
        ]
      : [];
  });
}

/** One outline: its walk solved, then its lines applied in their order. */
function evaluateOne(
  o: OutlineText,
  scope: NumberScope,
  get: (name: string) => Result<EvaluatedOutline>,
  shapes: PartShapes,
): EvaluatedOutline {
  const waits = new Map<string, PartItem>();
  const found: EvaluatedOutline["problems"] = [];
  const isWalk = o.items.some((i) => i.item === "line" || i.item === "arc" || i.item === "start");
  const wire = isWalk ? solveWire(o.items, scope) : null;
  if (wire) found.push(...wire.problems, ...noLength(o, wire));
  let now = wire ? walked(wire) : { region: [], open: [] };
  let isTooLarge = false;
  o.items.forEach((it, item) => {
    if (isTooLarge) return;
    const bad = (p: Problem) => void found.push({ ...p, item });
    const work: Work = {
      now,
      wire,
      num(t, q) {
        const r = evaluateNumber(t, q, scope);
        if (r.ok) return r.value.value;
        bad(r.problems[0]);
        return null;
      },
      get: (name) => sound(get(name), waits),
      fromPart(want) {
        const key = partKey(want);
        waits.set(key, want);
        return shapes.get(key) ?? fail(problems.partNotThereYet());
      },
    };
    const made = applied(it, work);
    if (made?.ok) now = made.value;
    else if (made) bad(made.problems[0]);
    isTooLarge = Boolean(made && !made.ok && made.problems[0].code === problems.outlineTooLarge(0, "loops", 0).code);
  });
  const { defects, ...figures } = figuresOf(o, now);
  return {
    id: o.id,
    name: o.name,
    ...now,
    wire,
    ...figures,
    defects: defects.map((d) => ({ ...d, words: inUnit(d.words, scope.unit) })),
    problems: found.map((p) => problemIn(p, scope.unit)),
    waits: [...waits.values()],
  };
}

/** What a walk alone makes: a region where it comes home, else an open chain. */
function walked(wire: Wire): Made {
  if (!wire.segments.length) return { region: [], open: [] };
  if (!wire.closed) return { region: [], open: [wire.segments] };
  const loop = wire.segments.filter((s) => s.kind === "arc" || distance2(s.from, s.to) > COINCIDENT);
  return { region: loop.length ? oriented([loop]) : [], open: [] };
}

/** Another outline this one is made of; what is wrong with it is wrong with all that is made of it. */
function sound(r: Result<EvaluatedOutline>, waits: Map<string, PartItem>): Result<EvaluatedOutline> {
  if (!r.ok) return r;
  for (const w of r.value.waits) waits.set(partKey(w), w);
  const [first] = r.value.problems;
  if (first)
    return fail(problems.outlineNotRight(r.value.name, first.message), {
      ...(first.expected ? { expected: first.expected } : {}),
    });
  const clash = r.value.wire?.conflicts[0];
  return clash ? fail(problems.outlineContradicts(r.value.name, clash.words)) : r;
}

/** What a line makes of what stands so far; null where it makes nothing. */
function applied(it: OutlineText["items"][number], work: Work): Result<Made> | null {
  try {
    const made = within(PAIRS, () => applyItem(it, work));
    return made?.ok ? (tooLarge(made.value) ?? made) : made;
  } catch (e) {
    if (!(e instanceof TooMany)) throw e;
    return fail(problems.tooManyCrossings());
  }
}

/** The most lines and arcs one outline holds: more cannot be followed while somebody types. */
const MOST_ELEMENTS = 12_000;
/** The most loops and chains: each is held against every other. */
const MOST_LOOPS = 1500;

function tooLarge({ region, open }: Made): Result<Made> | null {
  const chains = [...region, ...open];
  if (chains.length > MOST_LOOPS) return fail(problems.outlineTooLarge(chains.length, "loops", MOST_LOOPS));
  const elements = chains.reduce((n, l) => n + l.length, 0);
  return elements > MOST_ELEMENTS ? fail(problems.outlineTooLarge(elements, "lines and arcs", MOST_ELEMENTS)) : null;
}

/** The figures of an outline as it came out, and what is wrong with its lines. */
function figuresOf(o: OutlineText, { region, open }: Made) {
  const area = region.reduce((sum, l) => sum + loopArea(l), 0);
  const all = [...region.flat(), ...open.flat()];
  return {
    modified: o.items.some((i) => !isWalked(i) && !("off" in i && i.off)),
    area,
    perimeter: perimeter(all),
    centroid: Math.abs(area) > COINCIDENT ? centroidOf(region, area) : null,
    box: all.length ? loopBox(all) : null,
    defects: defectsOf(region, open),
  };
}
