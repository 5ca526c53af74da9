import { problems } from "./problems";
import type { Job, Row } from "../job/schema";
import { evaluateNumber, problemIn, type NumberScope } from "../number";
import { numbersOfItem, outlinesUsed, type ItemNumber } from "../outline/items";
import { evaluateOutlines, type EvaluatedOutline, type PartShapes } from "../outline/evaluateOutline";
import { kindOf, numbersOfPlane, type Feature, type Recipe, type ResolvedRow } from "../rows";
import { namesPlane, planeSource, planesNamed } from "./namedPlanes";
import { outlinesNamed, type OutlineSource } from "../rows/outlineSource";
import { fail, ok, type Problem } from "../base/result";
import { withContent } from "./solidFiles";
import { noting, stillAnswers, type Asked } from "./asked";
import { deriveSources, numberScope, reportNumbers, resolveBody, type NumberReport } from "./numbers";

/** A row after stages 1 to 3: its numbers, and its recipe or the reason there is none. */
export interface PreparedRow {
  row: Row;
  number: number;
  numbers: NumberReport[];
  /** Numbers of the outline it is made from. */
  outlineNumbers: OutlineNumber[];
  /** Numbers of the named planes it stands on or goes to. */
  planeNumbers: NumberReport[];
  resolved: ResolvedRow | null;
  /** What it is to those who judge, plan, prove and draw it. */
  feature: Feature | null;
  recipe: Recipe | null;
  problem: Problem | null;
}

export interface Prepared {
  job: Job;
  scope: NumberScope;
  rows: PreparedRow[];
  outlines: Map<string, EvaluatedOutline>;
}

/** What stages 1 to 3 make of a row, and what they read of the rest of the job. */
interface Worked extends Pick<PreparedRow, "numbers" | "resolved" | "feature" | "recipe" | "problem"> {
  unit: Job["unit"];
  /** The files its solid may be from. */
  solids: Job["solids"];
  asked: Asked;
  /** Counts and threads of the balloons, where the row's own may be theirs. */
  counts: string;
  outlines: Map<string, EvaluatedOutline> | null;
  /** The job's planes, where the row names one. */
  planes: Job["planes"] | null;
  /** The row as it was told: the same object again while nothing of it has changed. */
  told?: PreparedRow;
}
const memo = new WeakMap<object, Worked>();

/**
 * Stages 1 to 3 (numbers, outlines, recipes): plain and quick, run on every keystroke. A row that did not change, and
 * whose numbers come out as they did, is not done again.
 */
export function prepare(job: Job): Prepared {
  const scope = numberScope(job);
  const outlines = outlinesOf(job, scope);
  const source = sourceOf(job, outlines);
  const counts = JSON.stringify(job.balloons.map((b) => [b.number, b.count, b.kind, b.thread]));
  const rows = job.rows.map((row, i): PreparedRow => {
    const named = outlinesNamed(row.body);
    const drawn = named.length > 0;
    const planes = namesPlane(row.body) ? job.planes : null;
    let m = memo.get(row.body);
    const holds =
      m &&
      m.unit === job.unit &&
      m.solids === job.solids &&
      m.counts === counts &&
      m.outlines === (drawn ? outlines : null) &&
      m.planes === planes &&
      stillAnswers(m.asked, scope);
    if (!m || !holds) {
      m = worked(job, row, scope, source, counts, drawn ? outlines : null);
      memo.set(row.body, m);
    }
    if (!drawn && !planes && m.told?.row === row && m.told.number === i + 1) return m.told;
    m.told = {
      row,
      number: i + 1,
      numbers: m.numbers,
      outlineNumbers: named.flatMap((name) => numbersOfOutline(job, name, scope)),
      planeNumbers: planes ? numbersOfPlanes(job, row.body, scope) : [],
      resolved: m.resolved,
      feature: m.feature,
      recipe: m.recipe,
      problem: m.problem,
    };
    return m.told;
  });
  return { job, scope, rows, outlines };
}

function worked(
  job: Job,
  row: Row,
  over: NumberScope,
  source: OutlineSource,
  counts: string,
  outlines: Map<string, EvaluatedOutline> | null,
): Worked {
  const { scope, asked } = noting(over);
  const numbers = deriveSources(row.body, reportNumbers(row.body, scope), job, over);
  const resolved = resolveBody(row.body, numbers, job.balloons, planeSource(job, scope));
  const made = resolved.ok ? kindOf(row.body).recipe(resolved.value, row.body, source) : resolved;
  const recipe = made.ok ? ok(withContent(made.value, job.solids)) : made;
  return {
    unit: job.unit,
    solids: job.solids,
    asked,
    counts,
    outlines,
    planes: namesPlane(row.body) ? job.planes : null,
    numbers,
    resolved: resolved.ok ? resolved.value : null,
    feature: resolved.ok ? kindOf(row.body).feature(resolved.value) : null,
    recipe: recipe.ok ? recipe.value : null,
    problem: recipe.ok ? null : problemIn(recipe.problems[0], job.unit),
  };
}

/**
 * The outlines again once the part gives what they wait for, and the rows made from them.
 * @param shapes what the part has given so far, by `partKey`
 */
export function withShapes(
  prepared: Prepared,
  shapes: PartShapes,
): { outlines: Map<string, EvaluatedOutline>; row(p: PreparedRow): Pick<PreparedRow, "recipe" | "problem"> } {
  const outlines = evaluateOutlines(prepared.job.outlines, prepared.scope, shapes);
  return {
    outlines,
    row(p) {
      if (!p.resolved) return p;
      const recipe = kindOf(p.row.body).recipe(p.resolved, p.row.body, sourceOf(prepared.job, outlines));
      return {
        recipe: recipe.ok ? recipe.value : null,
        problem: recipe.ok ? null : problemIn(recipe.problems[0], prepared.job.unit),
      };
    },
  };
}

const sourceOf =
  (job: Job, outlines: Map<string, EvaluatedOutline>): OutlineSource =>
  (name) => {
    const o = job.outlines.find((x) => x.name.toLowerCase() === name.toLowerCase());
    return o
      ? ok(outlines.get(o.id)!)
      : fail(problems.noOutline(name), {
          expected: job.outlines.length
            ? job.outlines
                .slice(0, 8)
                .map((x) => `"${x.name}"`)
                .join(", ")
            : "an outline of this job",
        });
  };

const outlineMemo = new WeakMap<object, { asked: Asked; unit: Job["unit"]; done: Map<string, EvaluatedOutline> }>();
/** Outlines are solved again only when they, or the numbers they cite, have changed. */
function outlinesOf(job: Job, over: NumberScope): Map<string, EvaluatedOutline> {
  const known = outlineMemo.get(job.outlines);
  if (known?.unit === job.unit && stillAnswers(known.asked, over)) return known.done;
  const { scope, asked } = noting(over);
  const done = evaluateOutlines(job.outlines, scope);
  outlineMemo.set(job.outlines, { asked, unit: job.unit, done });
  return done;
}

/** A number of an outline, with the line it stands in. */
export interface OutlineNumber extends NumberReport {
  outline: string;
  item: number;
  at: (string | number)[];
  means: ItemNumber["means"];
}

/** Numbers of the planes a row names, and of the planes those are made from. */
function numbersOfPlanes(job: Job, body: object, scope: NumberScope, seen = new Set<string>()): NumberReport[] {
  return planesNamed(body).flatMap((name): NumberReport[] => {
    const plane = job.planes?.find((p) => p.name.toLowerCase() === name.toLowerCase());
    if (!plane || seen.has(plane.id)) return [];
    seen.add(plane.id);
    const own = numbersOfPlane(plane).map((n): NumberReport => {
      const r = evaluateNumber(n.text, n.quantity, scope);
      return { ...n, path: `${plane.id}/${n.path}`, ...(r.ok ? { value: r.value } : { problem: r.problems[0] }) };
    });
    return [...own, ...numbersOfPlanes(job, plane.making, scope, seen)];
  });
}

/** Numbers an outline is made of, those of the outlines it uses too. */
function numbersOfOutline(job: Job, name: string, scope: NumberScope, seen = new Set<string>()): OutlineNumber[] {
  const o = job.outlines.find((x) => x.name.toLowerCase() === name.toLowerCase());
  if (!o || seen.has(o.id)) return [];
  seen.add(o.id);
  return o.items.flatMap((it, item) => [
    ...numbersOfItem(it).map((n): OutlineNumber => {
      const r = evaluateNumber(n.text, n.quantity, scope);
      return {
        ...n,
        path: `${o.id}/${item}/${n.at.join(".")}`,
        outline: o.id,
        item,
        ...(r.ok ? { value: r.value } : { problem: r.problems[0] }),
      };
    }),
    ...outlinesUsed(it).flatMap((used) => numbersOfOutline(job, used, scope, seen)),
  ]);
}
