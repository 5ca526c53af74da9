import { Dual, least } from "./solve/dual";
import { apart, cross, dot, keeps, turned, unknownsOf, xOf, yOf } from "./solve/terms";
import {
  directionOf,
  extentOf,
  offLine,
  radiusOf,
  Refusal,
  signOf,
  unknownsOfLine,
  unknownsOfRadius,
  type Clause,
  type Ref,
  type Said,
  type StraightLine,
  type Terms,
} from "./relationTerms";
import { tangentAt, unknownsOfBoth, type Element } from "./walk";

type RelationName = Extract<Said, { item: "relation" }>["relation"];
type DimensionName = Extract<Said, { item: "dimension" }>["dimension"];
type Made = Clause[] | Refusal;

const difference = (a: number, b: number, by = 0): Clause => ({ vars: [a, b], keeps: by, residual: keeps(a, b, by) });

/** Two points level with one another, along one axis. */
const level =
  (name: RelationName, axis: (point: number) => number) =>
  (t: Terms, of: readonly Ref[]): Made => {
    const e = t.ends(of);
    return e
      ? [difference(axis(e[0]), axis(e[1]))]
      : new Refusal(`${name} is said of a line or of two points`, "a line such as 2, or two points such as P1 P3");
  };

/** Two lines at an angle whose sine or cosine is zero; as a length, so that it counts like the others. */
const lean =
  (name: RelationName, product: typeof cross) =>
  (t: Terms, of: readonly Ref[]): Made => {
    const a = t.line(of[0]),
      b = t.line(of[1]);
    if (!a || !b) return new Refusal(`${name} is said of two lines`, "two lines such as 1 3, or X or Y");
    return [
      {
        vars: [...unknownsOfLine(a), ...unknownsOfLine(b)],
        residual: (u) => {
          const lengths = [extentOf(a, u), extentOf(b, u)].filter((l) => l !== null);
          return product(directionOf(a, u), directionOf(b, u)).times(lengths.reduce(least, new Dual(1e6)));
        },
      },
    ];
  };

/** One point in another's place. */
const together = (a: number, b: number): Clause[] => [difference(xOf(a), xOf(b)), difference(yOf(a), yOf(b))];

function tangent(t: Terms, [p, q]: readonly Ref[]): Made {
  const a = t.element(p),
    b = t.element(q);
  if (!a || !b || (a.kind === "line" && b.kind === "line"))
    return new Refusal("tangent is said of an arc and a line, or of two arcs", "two steps such as 2 3");
  const joined = a.to === b.from || b.to === a.from;
  if (joined) {
    const [first, then] = a.to === b.from ? [a, b] : [b, a];
    return [
      {
        vars: unknownsOfBoth(a, b),
        residual: tangentAt(first, then, first.to),
        eitherWay: tangentAt(first, then, first.to, true),
      },
    ];
  }
  if (a.kind === "arc" && b.kind === "arc") return circlesTouch(t, a, b);
  const [circle, line] = a.kind === "arc" ? [a, t.line(q)!] : [b, t.line(p)!];
  const off = offLine(circle.centre, line);
  const keep = signOf(t.guessed(off));
  return [
    {
      vars: [...unknownsOfRadius(circle), ...unknownsOfLine(line)],
      residual: (u) => off(u).scaled(keep).minus(radiusOf(circle, u)),
    },
  ];
}

/** Two circles touch, one inside the other or beside it, as they do at the first guess. */
function circlesTouch(t: Terms, a: Element, b: Element): Clause[] {
  const [ra, rb] = [radiusOf(a, t.first).value, radiusOf(b, t.first).value];
  const inside = apart(t.first, a.centre, b.centre).value < Math.max(ra, rb);
  const larger = signOf(ra - rb);
  return [
    {
      vars: [...unknownsOfRadius(a), ...unknownsOfRadius(b)],
      residual: (u) => {
        const [r, s] = [radiusOf(a, u), radiusOf(b, u)];
        return apart(u, a.centre, b.centre).minus(inside ? r.minus(s).scaled(larger) : r.plus(s));
      },
    },
  ];
}

function equal(t: Terms, [p, q]: readonly Ref[]): Made {
  const a = t.element(p),
    b = t.element(q);
  if (!a || !b || a.kind !== b.kind)
    return new Refusal("equal is said of two lines or of two arcs", "two steps of one kind");
  return a.kind === "arc"
    ? [
        {
          vars: [...unknownsOfRadius(a), ...unknownsOfRadius(b)],
          residual: (u) => radiusOf(a, u).minus(radiusOf(b, u)),
        },
      ]
    : [
        {
          vars: unknownsOf(a.from, a.to, b.from, b.to),
          residual: (u) => apart(u, a.from, a.to).minus(apart(u, b.from, b.to)),
        },
      ];
}

function symmetric(t: Terms, [p, q, about]: readonly Ref[]): Made {
  const a = t.point(p),
    b = t.point(q),
    line = t.line(about);
  if (a === null || b === null || !line)
    return new Refusal("symmetric is said of two points about a line", "SYMMETRIC P1 P2 ABOUT 3, or ABOUT X");
  const vars = [...unknownsOf(a, b), ...unknownsOfLine(line)];
  const [offA, offB] = [offLine(a, line), offLine(b, line)];
  return [
    {
      vars,
      residual: (u) => {
        const across = { x: u.at(xOf(b)).minus(u.at(xOf(a))), y: u.at(yOf(b)).minus(u.at(yOf(a))) };
        return dot(directionOf(line, u), across);
      },
    },
    { vars, residual: (u) => offA(u).plus(offB(u)) },
  ];
}

function midpoint(t: Terms, [p, q]: readonly Ref[]): Made {
  const a = t.point(p),
    e = t.element(q);
  if (a === null || e?.kind !== "line")
    return new Refusal("midpoint is said of a point and a line", "MIDPOINT P2 OF 4");
  return [xOf, yOf].map((axis) => ({
    vars: [axis(a), axis(e.from), axis(e.to)],
    residual: (u) =>
      u
        .at(axis(a))
        .scaled(2)
        .minus(u.at(axis(e.from)))
        .minus(u.at(axis(e.to))),
  }));
}

function on(t: Terms, [p, q]: readonly Ref[]): Made {
  const a = t.point(p),
    e = t.arc(q),
    line = t.line(q);
  if (a !== null && e)
    return [
      {
        vars: [...unknownsOf(a), ...unknownsOfRadius(e)],
        residual: (u) => apart(u, a, e.centre).minus(radiusOf(e, u)),
      },
    ];
  if (a !== null && line) return [{ vars: [...unknownsOf(a), ...unknownsOfLine(line)], residual: offLine(a, line) }];
  return new Refusal("on is said of a point and a step", "ON P2 4, or ON P2 X");
}

function fix(t: Terms, [p]: readonly Ref[]): Made {
  const a = t.point(p);
  if (a === null) return new Refusal("fix is said of a point", "FIX P0");
  return [xOf, yOf].map((axis) => {
    const here = t.first.at(axis(a)).value;
    return { vars: [axis(a)], residual: (u) => u.at(axis(a)).shifted(-here) };
  });
}

/** What each relation says. */
export const relationKinds: Record<RelationName, (t: Terms, of: readonly Ref[]) => Made> = {
  horizontal: level("horizontal", yOf),
  vertical: level("vertical", xOf),
  parallel: lean("parallel", cross),
  perpendicular: lean("perpendicular", dot),
  tangent,
  equal,
  concentric(t, [p, q]) {
    const a = t.arc(p),
      b = t.arc(q);
    return a && b
      ? together(a.centre, b.centre)
      : new Refusal("concentric is said of two arcs", "two arcs such as 2 4");
  },
  coincident(t, [p, q]) {
    const a = t.point(p),
      b = t.point(q);
    return a !== null && b !== null
      ? together(a, b)
      : new Refusal("coincident is said of two points", "two points such as P1 P5");
  },
  symmetric,
  midpoint,
  on,
  fix,
};

function distance(t: Terms, [p, q]: readonly Ref[], value: number): Made {
  const a = t.point(p),
    b = t.point(q);
  if (a !== null && b !== null) return [{ vars: unknownsOf(a, b), residual: (u) => apart(u, a, b).shifted(-value) }];
  const from = pointAndLine(t, p, q);
  if (!from)
    return new Refusal(
      "a distance runs between points, or from a point or line to a line",
      "DISTANCE P1 P3 20, or DISTANCE P2 4 10",
    );
  const off = offLine(from.point, from.line);
  const keep = signOf(t.guessed(off));
  return [
    {
      vars: [...unknownsOf(from.point), ...unknownsOfLine(from.line)],
      residual: (u) => off(u).scaled(keep).shifted(-value),
    },
  ];
}

/** The point and the line a distance runs between; of two lines one gives its first point. */
function pointAndLine(t: Terms, p: Ref, q: Ref): { point: number; line: StraightLine } | null {
  const [a, b] = [t.point(p), t.point(q)];
  const [la, lb] = [t.line(p), t.line(q)];
  if (a !== null) return lb && { point: a, line: lb };
  if (b !== null) return la && { point: b, line: la };
  if (!la || !lb) return null;
  if (!("axis" in la)) return { point: la.a, line: lb };
  return "axis" in lb ? null : { point: lb.a, line: la };
}

/** Along one axis from one point to another. */
const along =
  (name: "dx" | "dy", axis: (point: number) => number) =>
  (t: Terms, [p, q]: readonly Ref[], value: number): Made => {
    const a = t.point(p),
      b = t.point(q);
    return a !== null && b !== null
      ? [difference(axis(a), axis(b), value)]
      : new Refusal(`${name} runs from one point to another`, `${name.toUpperCase()} P1 P3 20`);
  };

/** Counter-clockwise from the first line to the second (from the x axis where there is one), either way along them. */
function angle(t: Terms, of: readonly Ref[], value: number): Made {
  const a = t.line(of[0]),
    b = of.length === 2 ? t.line(of[1]) : null;
  if (!a || (of.length === 2 && !b))
    return new Refusal("an angle is that of a line to the x axis, or between two lines", "ANGLE 1 30, or ANGLE 1 2 60");
  const [base, other]: StraightLine[] = b ? [a, b] : [{ axis: "X" }, a];
  return [
    {
      vars: [...unknownsOfLine(base), ...unknownsOfLine(other)],
      residual: (u) => {
        const lengths = [extentOf(other, u) ?? new Dual(1), extentOf(base, u)].filter((l) => l !== null);
        return cross(turned(directionOf(base, u), value), directionOf(other, u)).times(lengths.reduce(least));
      },
    },
  ];
}

function length(t: Terms, [p]: readonly Ref[], value: number): Made {
  const e = t.element(p);
  if (e?.kind !== "line") return new Refusal("a length is that of a line", "LENGTH 2 40");
  return [{ vars: unknownsOf(e.from, e.to), residual: (u) => apart(u, e.from, e.to).shifted(-value) }];
}

const round =
  (name: "radius" | "diameter", share: number) =>
  (t: Terms, [p]: readonly Ref[], value: number): Made => {
    const e = t.arc(p);
    if (!e) return new Refusal(`a ${name} is that of an arc`, `${name.toUpperCase()} 3 10`);
    e.radius = value * share;
    return [{ role: "radius", vars: unknownsOfRadius(e), residual: (u) => radiusOf(e, u).shifted(-value * share) }];
  };

/** What each dimension says of its number, mm or radians. */
export const dimensionKinds: Record<DimensionName, (t: Terms, of: readonly Ref[], value: number) => Made> = {
  distance,
  dx: along("dx", xOf),
  dy: along("dy", yOf),
  angle,
  length,
  radius: round("radius", 1),
  diameter: round("diameter", 0.5),
};
