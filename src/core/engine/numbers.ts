import { evaluateNumber, fromInside, toNumberText, type NumberScope, type NumberValue } from "../number";
import type { Job } from "../job/schema";
import { balloonQuantity, drivingValue } from "../balloons/tolerance";
import { setPath, type NumberField } from "../grammar/grammar";
import { rowNumbers, type RowBody } from "../rows";
import { balloonsOfThread, threadMeant } from "../balloons/threads";
import { fail, ok, type Problem, type Result } from "../base/result";

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
  const names = new Map((job.names ?? []).map((n) => [n.name.toLowerCase(), n]));
  const knownNames = new Map<string, Result<NumberValue>>();
  const openNames = new Set<string>();
  const known = new Map<number, Result<number>>();
  const open = new Set<number>();
  const byNumber = new Map(job.balloons.map((b) => [b.number, b]));
  const scope: NumberScope = {
    unit: job.unit,
    balloon(n) {
      const done = known.get(n);
      if (done) return done;
      const b = byNumber.get(n);
      if (!b)
        return fail(`there is no balloon #${n}`, {
          expected: byNumber.size
            ? `one of ${[...byNumber.keys()]
                .slice(0, 8)
                .map((k) => `#${k}`)
                .join(", ")}`
            : "a number",
        });
      if (b.reference)
        return fail(`#${n} is a reference dimension; it can be proved and never drives`, {
          expected: "the dimension it comes from",
        });
      if (open.has(n))
        return fail(`#${n} refers to itself in a circle (${[...open, n].map((k) => `#${k}`).join(" → ")})`, {
          expected: "a number",
        });
      open.add(n);
      if (b.middle && job.title) {
        open.add(n);
        const m = drivingValue(b, { unit: job.unit, title: job.title }, scope);
        open.delete(n);
        const middle: Result<number> = m.ok
          ? ok(fromInside(m.value, balloonQuantity(b), job.unit) + (moved?.balloon === n ? moved.by : 0))
          : { ok: false, problems: m.problems.map((p) => ({ ...p, message: `#${n}: ${p.message}` })) };
        known.set(n, middle);
        return middle;
      }
      const text =
        b.tolerance.kind === "limits"
          ? toNumberText(`(${b.tolerance.high} + ${b.tolerance.low})/2`)
          : b.kind === "count"
            ? b.count
            : b.value;
      const r: Result<number> =
        text === undefined
          ? fail(`#${n} is ${b.kind === "thread" ? "a thread" : "empty"} and has no length`, {
              expected: "a balloon with a number",
            })
          : typedOf(evaluateNumber(text, balloonQuantity(b), scope), n);
      open.delete(n);
      const value = r.ok && moved?.balloon === n ? ok(r.value + moved.by) : r;
      known.set(n, value);
      return value;
    },
    name(word) {
      const key = word.toLowerCase();
      const done = knownNames.get(key);
      if (done) return done;
      const n = names.get(key);
      if (!n)
        return fail(`nothing is named ${word}`, {
          expected: names.size
            ? `one of ${[...names.values()]
                .slice(0, 8)
                .map((k) => k.name)
                .join(", ")}`
            : "a number, a balloon or a named value",
        });
      if (openNames.has(key))
        return fail(`${n.name} refers to itself in a circle (${[...openNames, key].join(" → ")})`, {
          expected: "a number",
        });
      openNames.add(key);
      const r = evaluateNumber(n.value, "plain", scope);
      openNames.delete(key);
      const named: Result<NumberValue> = r.ok
        ? r
        : {
            ok: false,
            problems: r.problems.map((p) =>
              p.message.includes("in a circle") ? p : { ...p, message: `${n.name}: ${p.message}` },
            ),
          };
      knownNames.set(key, named);
      return named;
    },
  };
  return scope;
}

const typedOf = (r: Result<NumberValue>, n: number): Result<number> =>
  r.ok
    ? ok(r.value.typed)
    : {
        ok: false,
        problems: r.problems.map((p) => (p.message.startsWith("#") ? p : { ...p, message: `#${n}: ${p.message}` })),
      };

/** All numbers of a row with value and source, or what is wrong with each. */
export function reportNumbers(body: RowBody, scope: NumberScope): NumberReport[] {
  return rowNumbers(body).map((f) => {
    const r = evaluateNumber(f.text, f.quantity, scope);
    return r.ok ? { ...f, value: r.value } : { ...f, problem: { ...r.problems[0], path: f.path } };
  });
}

/** A row with every number text replaced by its value, mm and radians, and its thread by its designation. */
export function resolveBody(body: RowBody, numbers: NumberReport[], balloons: Job["balloons"]): Result<never> {
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
  return ok(copy as never);
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
