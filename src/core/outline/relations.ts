import { evaluateNumber, type NumberScope } from "../number";
import type { Problem } from "../base/result";
import type { OutlineItem } from "./items";
import type { Equation } from "./solve/system";
import { tangentAt, tangentVars, type Element, type Walk } from "./walk";
import { ROUNDING } from "../geometry/tolerance";

type Said = Extract<OutlineItem, { item: "relation" | "dimension" }>;
type Line = { a: number; b: number } | { axis: "X" | "Y" };

/**
 * Equations of the relations and dimensions of a walk. Where an equation has two sides (left or right of a line,
 * inside or outside a circle)
 * the side of the first guess is kept: a mirror solution is never chosen by itself.
 */
export function relationEquations(
  walk: Walk,
  items: OutlineItem[],
  scope: NumberScope,
): { equations: Equation[]; problems: (Problem & { item: number })[] } {
  const equations: Equation[] = [],
    problems: (Problem & { item: number })[] = [];
  const v0 = walk.system.start;
  const X = (k: number) => 2 * k,
    Y = (k: number) => 2 * k + 1;
  const len = (v: Float64Array, a: number, b: number) => Math.hypot(v[X(b)] - v[X(a)], v[Y(b)] - v[Y(a)]);
  const pts = (...k: number[]) => [...new Set(k.flatMap((i) => [X(i), Y(i)]))];

  items.forEach((it, item) => {
    if (it.item !== "relation" && it.item !== "dimension") return;
    const fail = (message: string, expected: string) => void problems.push({ item, message, expected });
    const name = it.item === "relation" ? it.relation : it.dimension;
    const words = `${name} ${it.of.join(" ")}`;
    const put = (vars: number[], f: Equation["f"]) =>
      equations.push({ item, kind: it.item, vars: [...new Set(vars)], words, f });
    let value = 0;
    if (it.item === "dimension") {
      if (it.value === "?") return;
      const quantity =
        it.dimension === "angle"
          ? "angle"
          : it.dimension === "dx" || it.dimension === "dy" || it.dimension === "distance"
            ? "coordinate"
            : "length";
      const r = evaluateNumber(it.value, quantity, scope);
      if (!r.ok) return void problems.push({ ...r.problems[0], item });
      value = r.value.value;
    }
    const element = (ref: number | string): Element | null =>
      typeof ref === "number" ? (walk.elements[ref - 1] ?? null) : null;
    const point = (ref: number | string): number | null =>
      typeof ref === "string" ? (walk.points.get(ref) ?? null) : null;
    const line = (ref: number | string): Line | null =>
      ref === "X" || ref === "Y"
        ? { axis: ref }
        : element(ref)?.kind === "line"
          ? { a: element(ref)!.from, b: element(ref)!.to }
          : null;
    const missing = it.of.find((r) =>
      typeof r === "number" ? !walk.elements[r - 1] : r !== "X" && r !== "Y" && !walk.points.has(r),
    );
    if (missing !== undefined)
      return fail(
        typeof missing === "number" ? `there is no step ${missing}` : `there is no point ${missing}`,
        typeof missing === "number"
          ? `a step from 1 to ${walk.elements.length}`
          : [...walk.points.keys()].slice(0, 12).join(", "),
      );
    const [p, q, s] = it.of;
    const dir = (l: Line, v: Float64Array) =>
      "axis" in l
        ? l.axis === "X"
          ? { x: 1, y: 0 }
          : { x: 0, y: 1 }
        : unit(v[X(l.b)] - v[X(l.a)], v[Y(l.b)] - v[Y(l.a)]);
    const lvars = (l: Line) => ("axis" in l ? [] : pts(l.a, l.b));
    const size = (l: Line, v: Float64Array) => ("axis" in l ? 1 : len(v, l.a, l.b));
    /** Signed distance of a point from a line, left positive. */
    const off = (k: number, l: Line, v: Float64Array) => {
      const d = dir(l, v),
        ox = "axis" in l ? 0 : v[X(l.a)],
        oy = "axis" in l ? 0 : v[Y(l.a)];
      return d.x * (v[Y(k)] - oy) - d.y * (v[X(k)] - ox);
    };
    const ends = (): [number, number] | null =>
      it.of.length === 2
        ? point(p) !== null && point(q) !== null
          ? [point(p)!, point(q)!]
          : null
        : element(p)?.kind === "line"
          ? [element(p)!.from, element(p)!.to]
          : null;
    const arc = (ref: number | string) => (element(ref)?.kind === "arc" ? element(ref) : null);
    const radius = (e: Element, v: Float64Array) => len(v, e.from, e.centre);
    const rvars = (e: Element) => pts(e.from, e.centre);
    const side = (x: number) => (x < 0 ? -1 : 1);

    switch (name) {
      case "horizontal":
      case "vertical": {
        const e = ends();
        if (!e)
          return fail(`${name} is said of a line or of two points`, "a line such as 2, or two points such as P1 P3");
        const i = name === "horizontal" ? Y : X;
        return void put([i(e[0]), i(e[1])], (v) => v[i(e[1])] - v[i(e[0])]);
      }
      case "parallel":
      case "perpendicular": {
        const a = line(p),
          b = line(q);
        if (!a || !b) return fail(`${name} is said of two lines`, "two lines such as 1 3, or X or Y");
        return void put([...lvars(a), ...lvars(b)], (v) => {
          const d = dir(a, v),
            e = dir(b, v);
          return (
            (name === "parallel" ? d.x * e.y - d.y * e.x : d.x * e.x + d.y * e.y) *
            Math.min(size(a, v) === 1 ? Infinity : size(a, v), size(b, v) === 1 ? Infinity : size(b, v), 1e6)
          );
        });
      }
      case "tangent": {
        const a = element(p),
          b = element(q);
        if (!a || !b || (a.kind === "line" && b.kind === "line"))
          return fail("tangent is said of an arc and a line, or of two arcs", "two steps such as 2 3");
        const shared = [a.from, a.to].find((k) => k === b.from || k === b.to);
        if (shared !== undefined && (a.to === b.from || b.to === a.from)) {
          const [first, then] = a.to === b.from ? [a, b] : [b, a];
          put(tangentVars(a, b), tangentAt(first, then, first.to));
          equations[equations.length - 1].eitherWay = tangentAt(first, then, first.to, true);
          return;
        }
        if (a.kind === "arc" && b.kind === "arc") {
          const inside = len(v0, a.centre, b.centre) < Math.max(radius(a, v0), radius(b, v0)),
            larger = side(radius(a, v0) - radius(b, v0));
          return void put(
            [...rvars(a), ...rvars(b)],
            (v) =>
              len(v, a.centre, b.centre) -
              (inside ? larger * (radius(a, v) - radius(b, v)) : radius(a, v) + radius(b, v)),
          );
        }
        const [c, l] = a.kind === "arc" ? [a, line(q)!] : [b, line(p)!];
        const keep = side(off(c.centre, l, v0));
        return void put([...rvars(c), ...lvars(l)], (v) => keep * off(c.centre, l, v) - radius(c, v));
      }
      case "equal": {
        const a = element(p),
          b = element(q);
        if (!a || !b || a.kind !== b.kind)
          return fail("equal is said of two lines or of two arcs", "two steps of one kind");
        return void (a.kind === "arc"
          ? put([...rvars(a), ...rvars(b)], (v) => radius(a, v) - radius(b, v))
          : put(pts(a.from, a.to, b.from, b.to), (v) => len(v, a.from, a.to) - len(v, b.from, b.to)));
      }
      case "concentric":
      case "coincident": {
        const a = name === "concentric" ? arc(p)?.centre : point(p),
          b = name === "concentric" ? arc(q)?.centre : point(q);
        if (a == null || b == null)
          return fail(
            name === "concentric" ? "concentric is said of two arcs" : "coincident is said of two points",
            name === "concentric" ? "two arcs such as 2 4" : "two points such as P1 P5",
          );
        put([X(a), X(b)], (v) => v[X(b)] - v[X(a)]);
        return void put([Y(a), Y(b)], (v) => v[Y(b)] - v[Y(a)]);
      }
      case "symmetric": {
        const a = point(p),
          b = point(q),
          l = line(s);
        if (a === null || b === null || !l)
          return fail("symmetric is said of two points about a line", "SYMMETRIC P1 P2 ABOUT 3, or ABOUT X");
        put([...pts(a, b), ...lvars(l)], (v) => {
          const d = dir(l, v);
          return d.x * (v[X(b)] - v[X(a)]) + d.y * (v[Y(b)] - v[Y(a)]);
        });
        return void put([...pts(a, b), ...lvars(l)], (v) => off(a, l, v) + off(b, l, v));
      }
      case "midpoint": {
        const a = point(p),
          e = element(q);
        if (a === null || e?.kind !== "line") return fail("midpoint is said of a point and a line", "MIDPOINT P2 OF 4");
        put([X(a), X(e.from), X(e.to)], (v) => 2 * v[X(a)] - v[X(e.from)] - v[X(e.to)]);
        return void put([Y(a), Y(e.from), Y(e.to)], (v) => 2 * v[Y(a)] - v[Y(e.from)] - v[Y(e.to)]);
      }
      case "on": {
        const a = point(p),
          e = arc(q),
          l = line(q);
        if (a === null || (!e && !l)) return fail("on is said of a point and a step", "ON P2 4, or ON P2 X");
        return void (e
          ? put([...pts(a), ...rvars(e)], (v) => len(v, a, e.centre) - radius(e, v))
          : put([...pts(a), ...lvars(l!)], (v) => off(a, l!, v)));
      }
      case "fix": {
        const a = point(p);
        if (a === null) return fail("fix is said of a point", "FIX P0");
        const [x, y] = [v0[X(a)], v0[Y(a)]];
        put([X(a)], (v) => v[X(a)] - x);
        return void put([Y(a)], (v) => v[Y(a)] - y);
      }
      case "distance": {
        const a = point(p),
          b = point(q),
          la = line(p),
          lb = line(q);
        if (a !== null && b !== null) return void put(pts(a, b), (v) => len(v, a, b) - value);
        const [k, l] =
          a !== null && lb
            ? [a, lb]
            : b !== null && la
              ? [b, la]
              : la && lb
                ? "axis" in la
                  ? ["axis" in lb ? -1 : lb.a, la]
                  : [la.a, lb]
                : [-1, null];
        if (!l || k < 0)
          return fail(
            "a distance runs between points, or from a point or line to a line",
            "DISTANCE P1 P3 20, or DISTANCE P2 4 10",
          );
        const keep = side(off(k, l, v0));
        return void put([...pts(k), ...lvars(l)], (v) => keep * off(k, l, v) - value);
      }
      case "dx":
      case "dy": {
        const a = point(p),
          b = point(q);
        if (a === null || b === null)
          return fail(`${name} runs from one point to another`, `${name.toUpperCase()} P1 P3 20`);
        const i = name === "dx" ? X : Y;
        return void put([i(a), i(b)], (v) => v[i(b)] - v[i(a)] - value);
      }
      case "angle": {
        const a = line(p),
          b = it.of.length === 2 ? line(q) : null;
        if (!a || (it.of.length === 2 && !b))
          return fail("an angle is that of a line to the x axis, or between two lines", "ANGLE 1 30, or ANGLE 1 2 60");
        const base: Line = b ? a : { axis: "X" },
          other = b ?? a;
        // Counter-clockwise from the first line to the second, either way along them.
        return void put([...lvars(base), ...lvars(other)], (v) => {
          const d = dir(base, v),
            e = dir(other, v),
            c = Math.cos(value),
            n = Math.sin(value);
          return (
            ((d.x * c - d.y * n) * e.y - (d.x * n + d.y * c) * e.x) *
            Math.min(size(other, v), "axis" in base ? Infinity : size(base, v))
          );
        });
      }
      case "length": {
        const e = element(p);
        if (e?.kind !== "line") return fail("a length is that of a line", "LENGTH 2 40");
        return void put(pts(e.from, e.to), (v) => len(v, e.from, e.to) - value);
      }
      case "radius":
      case "diameter": {
        const e = arc(p);
        if (!e) return fail(`a ${name} is that of an arc`, `${name.toUpperCase()} 3 10`);
        e.radius = name === "radius" ? value : value / 2;
        return void put(rvars(e), (v) => radius(e, v) - (name === "radius" ? value : value / 2));
      }
    }
  });
  return { equations, problems };
}

const unit = (x: number, y: number) => {
  const l = Math.hypot(x, y) || ROUNDING;
  return { x: x / l, y: y / l };
};
export type { Said };
