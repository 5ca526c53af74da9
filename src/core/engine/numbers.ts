import { problems } from "./problems";
import {
  evaluateNumber,
  fromInside,
  toNumberText,
  type NumberScope,
  type NumberText,
  type NumberValue,
} from "../number";
import type { Balloon, Job, NamedValue } from "../job/schema";
import { balloonQuantity, drivingValue } from "../balloons/tolerance";
import { setPath, type NumberField } from "../grammar/grammar";
import { rowNumbers, type ResolvedRow, type RowBody } from "../rows";
import { balloonsOfThread, threadMeant } from "../balloons/threads";
import { fail, ok, type Problem, type Result } from "../base/result";
import { withNamedPlanes, type PlaneSource } from "./namedPlanes";
import { wholeOf } from "../job/toleranceKinds";

/** A number of a row with what became of it. */
export interface NumberReport extends NumberField {
  value?: NumberValue;
  problem?: Problem;
}

/** One balloon's number moved a little, to see what answers to it; in the job's unit, or degrees. */
interface MovedBalloon {
  balloon: number;
  by: number;
}

/**
 * Balloons and named values as numbers: their nominal in the job's unit, each worked out once; a circle of
 * references is an error.
 */
export function numberScope(
  job: Pick<Job, "unit" | "balloons"> & { names?: Job["names"]; title?: Job["title"] },
  moved?: MovedBalloon,
): NumberScope {
  const scope: NumberScope = {
    unit: job.unit,
    balloon: balloonReader(job, () => scope, moved),
    name: nameReader(job.names ?? [], () => scope),
  };
  return scope;
}

const someOf = (list: string[]): string => `one of ${list.slice(0, 8).join(", ")}`;
const circle = (what: string, way: string[], more: Omit<Problem, "message"> = {}) =>
  fail(problems.numberOfItself(what, [...way, what].join(" → ")), { ...more });

/** Values of balloons as typed, each worked out once. */
function balloonReader(
  job: Pick<Job, "unit" | "balloons"> & { title?: Job["title"] },
  scope: () => NumberScope,
  moved: MovedBalloon | undefined,
): NumberScope["balloon"] {
  const known = new Map<number, Result<number>>();
  const open = new Set<number>();
  const byNumber = new Map(job.balloons.map((b) => [b.number, b]));
  return (n) => {
    const done = known.get(n);
    if (done) return done;
    const b = byNumber.get(n);
    if (!b)
      return fail(problems.noBalloon(n), {
        expected: byNumber.size ? someOf([...byNumber.keys()].map((k) => `#${k}`)) : "a number",
      });
    if (b.reference) return fail(problems.referenceDrives(n), { about: `#${n}` });
    if (open.has(n))
      return circle(
        `#${n}`,
        [...open].map((k) => `#${k}`),
        { about: `#${n}` },
      );
    open.add(n);
    const r = balloonTyped(job, b, scope());
    open.delete(n);
    const value = r.ok ? ok(r.value + (moved?.balloon === n ? moved.by : 0)) : aboutBalloon(r.problems, n);
    known.set(n, value);
    return value;
  };
}

/** What a balloon says, as typed in the job's unit: the middle of its limits where they drive, else its number. */
function balloonTyped(
  job: Pick<Job, "unit"> & { title?: Job["title"] },
  b: Balloon,
  scope: NumberScope,
): Result<number> {
  const quantity = balloonQuantity(b);
  if (b.middle && job.title) {
    const m = drivingValue(b, { unit: job.unit, title: job.title }, scope);
    return m.ok ? ok(fromInside(m.value, quantity, job.unit)) : m;
  }
  const whole = wholeOf(b.tolerance);
  const text = whole ? middleOf(whole) : b.kind === "count" ? b.count : b.value;
  if (text === undefined)
    return fail(problems.balloonWithoutLength(b.number, b.kind === "thread" ? "a thread" : "empty"), {
      about: `#${b.number}`,
    });
  const r = evaluateNumber(text, quantity, scope);
  return r.ok ? ok(r.value.typed) : r;
}

const middleOf = ([high, low]: NumberText[]) => toNumberText(`(${high} + ${low})/2`);

/** Says which balloon a problem is in, unless its sentence does. */
const aboutBalloon = (problems: Problem[], n: number): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: problems.map((p) => (p.about ? p : { ...p, about: `#${n}`, message: `#${n}: ${p.message}` })),
});

/** Named values, each worked out once. */
function nameReader(list: readonly NamedValue[], scope: () => NumberScope): NonNullable<NumberScope["name"]> {
  const names = new Map(list.map((n) => [n.name.toLowerCase(), n]));
  const known = new Map<string, Result<NumberValue>>();
  const open = new Set<string>();
  return (word) => {
    const key = word.toLowerCase();
    const done = known.get(key);
    if (done) return done;
    const n = names.get(key);
    if (!n)
      return fail(problems.unknownName(word), {
        expected: names.size ? someOf([...names.values()].map((k) => k.name)) : "a number, a balloon or a named value",
      });
    if (open.has(key)) return circle(n.name, [...open]);
    open.add(key);
    const r = evaluateNumber(n.value, "plain", scope());
    open.delete(key);
    const named: Result<NumberValue> = r.ok ? r : { ok: false, problems: r.problems.map((p) => inName(p, n.name)) };
    known.set(key, named);
    return named;
  };
}

/** A number that rests on itself says itself which names are in the circle. */
const CIRCLE = problems.numberOfItself("", "").code;
const inName = (p: Problem, name: string): Problem =>
  p.code === CIRCLE ? p : { ...p, about: undefined, message: `${name}: ${p.message}` };

/** All numbers of a row with value and source, or what is wrong with each. */
export function reportNumbers(body: RowBody, scope: NumberScope): NumberReport[] {
  return rowNumbers(body).map((f) => {
    const r = evaluateNumber(f.text, f.quantity, scope);
    return r.ok ? { ...f, value: r.value } : { ...f, problem: { ...r.problems[0], path: f.path } };
  });
}

/**
 * A row with every number text replaced by its value, mm and radians, its thread by its designation, and its named
 * planes given what they are made of.
 */
export function resolveBody(
  body: RowBody,
  numbers: NumberReport[],
  balloons: Job["balloons"],
  planes: PlaneSource,
): Result<ResolvedRow> {
  const bad = numbers.find((n) => n.problem);
  if (bad)
    return {
      ok: false,
      problems: [{ ...bad.problem!, message: `${bad.label.toLowerCase()}: ${bad.problem!.message}` }],
    };
  const thread = "thread" in body ? threadMeant(body.thread, balloons) : null;
  if (thread && !thread.ok) return thread;
  const copy = JSON.parse(JSON.stringify(body));
  if (thread) copy.thread = thread.value;
  for (const n of numbers) setPath(copy, n.path, n.value!.value);
  return withNamedPlanes(copy as ResolvedRow, planes);
}

export { valueOf } from "../number";

/**
 * Sources that can be derived: a count is the print's where a balloon the row is made from (or its thread's balloon)
 * prints the same count.
 */
export function deriveSources(
  body: RowBody,
  numbers: NumberReport[],
  job: Pick<Job, "balloons">,
  scope: NumberScope,
): NumberReport[] {
  const count = numbers.find((n) => n.path === "count");
  if (!count?.value || count.value.source !== "unsourced") return numbers;
  const cited = new Set(numbers.flatMap((n) => n.value?.cites ?? []));
  const thread = new Set("thread" in body ? balloonsOfThread(body.thread, job.balloons) : []);
  const from = job.balloons.find((b) => {
    if (b.count === undefined || b.kind === "count") return false;
    if (!cited.has(b.number) && !thread.has(b)) return false;
    const v = evaluateNumber(b.count, "count", scope);
    return v.ok && v.value.value === count.value!.value;
  });
  return from
    ? numbers.map((n) => (n === count ? { ...n, value: { ...n.value!, source: "print", cites: [from.number] } } : n))
    : numbers;
}
