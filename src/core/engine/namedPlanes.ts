import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { v3 } from "../geometry/vec";
import type { Job } from "../job/schema";
import { evaluateNumber, type NumberScope } from "../number";
import { numbersOfPlane, type NamedPlane, type PlaneMade, type PlanePlace } from "../rows";
import { planeOf } from "../rows/extent";

/** Gives what a job's named planes are made of, by name. */
export type PlaneSource = (name: string) => Result<PlaneMade>;

/** The named planes of a job with their numbers worked out; a circle of planes is an error. */
export function planeSource(job: Pick<Job, "planes">, scope: NumberScope): PlaneSource {
  const planes = job.planes ?? [];
  const known = new Map<string, Result<PlaneMade>>();
  const open = new Set<string>();
  const source: PlaneSource = (name) => {
    const key = name.toLowerCase();
    const done = known.get(key);
    if (done) return done;
    const plane = planes.find((p) => p.name.toLowerCase() === key);
    if (!plane)
      return fail(problems.noPlane(name), {
        expected: planes.length ? planes.map((p) => `"${p.name}"`).join(", ") : "a PLANE line with this name",
      });
    if (open.has(key)) return fail(problems.planeMadeOfItself(plane.name));
    open.add(key);
    const made = madeOf(plane, scope, source);
    open.delete(key);
    known.set(key, made);
    return made;
  };
  return source;
}

function madeOf(plane: NamedPlane, scope: NumberScope, source: PlaneSource): Result<PlaneMade> {
  const values = new Map<string, number>();
  for (const n of numbersOfPlane(plane)) {
    const r = evaluateNumber(n.text, n.quantity, scope);
    if (!r.ok)
      return fail(problems.planeFault(plane.name, n.label.toLowerCase(), r.problems[0].message), {
        expected: r.problems[0].expected,
      });
    values.set(n.path, r.value.value);
  }
  const value = (path: string) => values.get(path) ?? 0;
  const m = plane.making;
  switch (m.is) {
    case "offset": {
      const from = withNamedPlanes(planeOf(m.from as object), source);
      return from.ok ? ok({ is: "offset", by: value("by"), from: from.value }) : from;
    }
    case "midway": {
      const a = withNamedPlanes(planeOf(m.a as object), source);
      const b = withNamedPlanes(planeOf(m.b as object), source);
      if (!a.ok) return a;
      return b.ok ? ok({ is: "midway", a: a.value, b: b.value }) : b;
    }
    case "tilt":
      return ok({
        is: "tilt",
        angle: value("angle"),
        about: m.about,
        at: v3(value("at.x"), value("at.y"), value("at.z")),
      });
    case "tangent":
      return ok({ is: "tangent", row: m.row, angle: value("angle") });
    case "index":
      return ok({ is: "index", angle: value("angle"), about: m.about });
    case "copy": {
      const { copy, row } = m;
      if (!m.from) return ok({ is: "copy", copy, row, from: { on: "origin", z: 0 } });
      const from = withNamedPlanes(planeOf(m.from as object), source);
      return from.ok ? ok({ is: "copy", copy, row, from: from.value }) : from;
    }
  }
}

const isNamed = (o: object): o is { on: "named"; plane: string; made?: PlaneMade } => "on" in o && o.on === "named";

/** A resolved row, or a plane, with every named plane in it given what it is made of. Changes what it is given. */
export function withNamedPlanes<T extends object | PlanePlace>(value: T, source: PlaneSource): Result<T> {
  if (isNamed(value)) {
    const made = source(value.plane);
    if (!made.ok) return { ok: false, problems: made.problems.map((p) => ({ ...p, path: "plane" })) };
    value.made = made.value;
  }
  for (const [key, part] of Object.entries(value)) {
    if (key === "made" || typeof part !== "object" || part === null) continue;
    const inside = withNamedPlanes(part as object, source);
    if (!inside.ok) return inside;
  }
  return ok(value);
}

/** Whether a row names a plane anywhere. */
export const namesPlane = (body: object): boolean =>
  isNamed(body) || Object.values(body).some((v) => typeof v === "object" && v !== null && namesPlane(v));
/** The names of planes a row, or a plane, uses. */
export const planesNamed = (body: object): string[] => [
  ...(isNamed(body) ? [body.plane] : []),
  ...Object.values(body).flatMap((v) => (typeof v === "object" && v !== null ? planesNamed(v) : [])),
];
