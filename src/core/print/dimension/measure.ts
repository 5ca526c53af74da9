import { dot, length, scale, sub, type Vec3 } from "../../geometry/vec";
import type { Shape } from "./surfaces";
import { COINCIDENT, CONTACT } from "../../geometry/tolerance";

/** What kind of dimension a measurement is; a balloon says which it prints. */
export type Family = "diameter" | "radius" | "distance" | "angle" | "boltCircle";

/** What a measurement runs between, or what of: a print's words (AF, AC, C TO C, OVER ALL) mean one of them. */
export type Between =
  | "flats"
  | "corners"
  | "cornersAlong"
  | "axes"
  | "cornerAndAxis"
  | "flatAndAxis"
  | "flatAndCorner"
  | "overRound"
  | "overRounds"
  | "levels"
  | "rounds"
  | "mouth"
  | "cone"
  | "halfCone"
  | "one"
  | "circle"
  | "edge";

/** Asks the shapes of a model, moved or not, for one figure. */
export interface Measure {
  family: Family | "leg" | "depth";
  between: Between;
  words: string;
  ids: string[];
  of: (get: (id: string) => Shape) => number | null;
}

/** A way to measure one shape, or two: what it is called, and its figure for any numbers. */
export interface Way {
  family: Family;
  between: Between;
  words: string;
  of: (a: Shape, b: Shape) => number | null;
}
const along = (a: Vec3, b: Vec3) => Math.abs(dot(a, b)) > 1 - COINCIDENT;
const across = (a: Vec3, b: Vec3) => Math.abs(dot(a, b)) < COINCIDENT;
const hasAxis = (s: Shape): s is Exclude<Shape, { is: "plane" }> => s.is !== "plane";
const axes: [string, Vec3][] = [
  ["X", { x: 1, y: 0, z: 0 }],
  ["Y", { x: 0, y: 1, z: 0 }],
  ["Z", { x: 0, y: 0, z: 1 }],
];

/** Everything one shape tells by itself: diameters, radii, angles of cones. */
export function waysOfOne(s: Shape): Way[] {
  switch (s.is) {
    case "cylinder":
    case "ring": {
      const what = s.is === "ring" ? "a round edge" : "a round wall";
      return [
        { family: "diameter", between: "one", words: what, of: (a) => ("radius" in a ? 2 * a.radius : null) },
        { family: "radius", between: "one", words: what, of: (a) => ("radius" in a ? a.radius : null) },
        ...axes.flatMap(([name, axis]): Way[] =>
          along(s.direction, axis) || across(s.direction, axis)
            ? []
            : [lean(name, axis, true), lean(name, axis, false)],
        ),
      ];
    }
    case "torus":
      return [
        { family: "radius", between: "one", words: "a rounded wall", of: (a) => (a.is === "torus" ? a.radius : null) },
        {
          family: "diameter",
          between: "one",
          words: "a rounded wall",
          of: (a) => (a.is === "torus" ? 2 * a.radius : null),
        },
        {
          family: "diameter",
          between: "one",
          words: "the circle a rounded wall runs along",
          of: (a) => (a.is === "torus" ? 2 * a.reach : null),
        },
        {
          family: "radius",
          between: "one",
          words: "the circle a rounded wall runs along",
          of: (a) => (a.is === "torus" ? a.reach : null),
        },
      ];
    case "cone":
      return [
        { family: "angle", between: "cone", words: "a cone", of: (a) => (a.is === "cone" ? 2 * a.halfAngle : null) },
        {
          family: "angle",
          between: "halfCone",
          words: "half a cone",
          of: (a) => (a.is === "cone" ? a.halfAngle : null),
        },
      ];
    case "plane":
      return axes.flatMap(([name, axis]): Way[] =>
        along(s.normal, axis) || across(s.normal, axis) ? [] : [slope(name, axis, true), slope(name, axis, false)],
      );
    case "corner":
      return [];
  }
}

/** An axis against a main direction: the angle it makes with it, and the rest of two right angles. */
const lean = (name: string, axis: Vec3, sharp: boolean): Way => ({
  family: "angle",
  between: "one",
  words: `an axis against ${name}`,
  of: (a) => {
    if (a.is === "plane") return null;
    const angle = Math.acos(Math.min(1, Math.abs(dot(a.direction, axis))));
    return sharp ? angle : Math.PI - angle;
  },
});

/** A flat against a main direction: the angle it makes with it, and the rest of two right angles. */
const slope = (name: string, axis: Vec3, sharp: boolean): Way => ({
  family: "angle",
  between: "one",
  words: `a flat against ${name}`,
  of: (a) => {
    if (a.is !== "plane") return null;
    const angle = Math.asin(Math.min(1, Math.abs(dot(a.normal, axis))));
    return sharp ? angle : Math.PI - angle;
  },
});

/**
 * Everything two shapes tell together: distances between flats, axes, rings and corners, over round walls, and
 * angles between flats.
 */
export function waysOfTwo(a: Shape, b: Shape): Way[] {
  if (a.is === "plane" && b.is === "plane") return planes(a, b);
  if (a.is === "plane" && hasAxis(b)) return planeAndAxis(a, b).map(swapped);
  if (hasAxis(a) && b.is === "plane") return planeAndAxis(b, a);
  if (hasAxis(a) && hasAxis(b)) return twoAxes(a, b);
  return [];
}

/** A way written for (axis, flat), asked with (flat, axis). */
const swapped = (w: Way): Way => ({ ...w, of: (a, b) => w.of(b, a) });

function planes(a: Extract<Shape, { is: "plane" }>, b: Extract<Shape, { is: "plane" }>): Way[] {
  if (along(a.normal, b.normal)) {
    return [
      {
        family: "distance",
        between: "flats",
        words: "between two flats",
        of: (p, q) =>
          p.is === "plane" && q.is === "plane" && along(p.normal, q.normal)
            ? Math.abs(p.offset - Math.sign(dot(p.normal, q.normal)) * q.offset)
            : null,
      },
    ];
  }
  const angle = (p: Shape, q: Shape) =>
    p.is === "plane" && q.is === "plane" ? Math.acos(Math.max(-1, Math.min(1, dot(p.normal, q.normal)))) : null;
  if (across(a.normal, b.normal)) return [];
  return [
    { family: "angle", between: "flats", words: "between two flats", of: angle },
    {
      family: "angle",
      between: "flats",
      words: "between two flats",
      of: (p, q) => {
        const v = angle(p, q);
        return v === null ? null : Math.PI - v;
      },
    },
  ];
}

/**
 * From a flat to an axis or an upright edge along it, over and short of a round wall; from a flat to a level on an
 * axis across it. Asked with (axis, flat).
 */
function planeAndAxis(p: Extract<Shape, { is: "plane" }>, s: Exclude<Shape, { is: "plane" }>): Way[] {
  const gap = (a: Shape, b: Shape): number | null =>
    hasAxis(a) && b.is === "plane" ? Math.abs(dot(a.origin, b.normal) - b.offset) : null;
  if (across(p.normal, s.direction)) {
    const plain: Way = {
      family: "distance",
      between: s.is === "corner" ? "flatAndCorner" : "flatAndAxis",
      words: s.is === "corner" ? "from a flat to an edge" : "from a flat to an axis",
      of: gap,
    };
    if (s.is !== "cylinder" && s.is !== "ring") return [plain];
    const over = (sign: number): Way => ({
      family: "distance",
      between: "overRound",
      words: "from a flat over a round wall",
      of: (a, b) => {
        const g = gap(a, b);
        return g === null || !("radius" in a) ? null : Math.abs(g + sign * a.radius);
      },
    });
    // A round that runs into the flat has no far side of its own; over one whose axis lies in it is a radius.
    const now = gap(s, p) ?? 0;
    const touches = Math.abs(now - s.radius) < CONTACT || now < CONTACT;
    return touches ? [plain] : [plain, over(1), over(-1)];
  }
  if (!along(p.normal, s.direction) || (s.is !== "ring" && s.is !== "torus")) return [];
  return [
    {
      family: "distance",
      between: "levels",
      words: s.is === "ring" ? "from a flat to the end of a round wall" : "from a flat to the middle of a rounded wall",
      of: gap,
    },
  ];
}

function twoAxes(a: Exclude<Shape, { is: "plane" }>, b: Exclude<Shape, { is: "plane" }>): Way[] {
  if (!along(a.direction, b.direction)) return [];
  const out: Way[] = [];
  const apart = (p: Shape, q: Shape): Vec3 | null => {
    if (!hasAxis(p) || !hasAxis(q)) return null;
    const d = sub(q.origin, p.origin);
    return sub(d, scale(p.direction, dot(d, p.direction)));
  };
  const now = apart(a, b)!;
  const corners = [a, b].filter((s) => s.is === "corner").length;
  const between: Between = (["axes", "cornerAndAxis", "corners"] as const)[corners];
  const what = ["between two axes", "between an edge and an axis", "between two edges"][corners];
  if (length(now) <= COINCIDENT) out.push(...coaxial(a, b));
  if (length(now) > COINCIDENT) {
    out.push({
      family: "distance",
      between,
      words: what,
      of: (p, q) => {
        const d = apart(p, q);
        return d && length(d);
      },
    });
    for (const [name, axis] of axes)
      if (Math.abs(dot(now, axis)) > COINCIDENT && Math.abs(dot(now, axis)) < length(now) - COINCIDENT)
        out.push({
          family: "distance",
          between: between === "corners" ? "cornersAlong" : between,
          words: `${what} along ${name}`,
          of: (p, q) => {
            const d = apart(p, q);
            return d && Math.abs(dot(d, axis));
          },
        });
  }
  if ((a.is === "ring" || a.is === "torus") && (b.is === "ring" || b.is === "torus")) {
    const level = (p: Shape, q: Shape) =>
      hasAxis(p) && hasAxis(q) ? Math.abs(dot(sub(q.origin, p.origin), p.direction)) : null;
    if ((level(a, b) ?? 0) > COINCIDENT)
      out.push({ family: "distance", between: "levels", words: "between the ends of round walls", of: level });
  }
  return out;
}

/** Round walls about one axis: the wall between them, and the circle half way between them. */
function coaxial(a: Shape, b: Shape): Way[] {
  if (a.is !== "cylinder" || b.is !== "cylinder" || Math.abs(a.radius - b.radius) < CONTACT) return [];
  const radii = (p: Shape, q: Shape): [number, number] | null =>
    p.is === "cylinder" && q.is === "cylinder" ? [p.radius, q.radius] : null;
  const of = (figure: (r: number, s: number) => number) => (p: Shape, q: Shape) => {
    const both = radii(p, q);
    return both && figure(...both);
  };
  return [
    { family: "distance", between: "rounds", words: "between two round walls", of: of((r, s) => Math.abs(r - s)) },
    { family: "diameter", between: "rounds", words: "half way between two round walls", of: of((r, s) => r + s) },
    { family: "radius", between: "rounds", words: "half way between two round walls", of: of((r, s) => (r + s) / 2) },
  ];
}

/** Over the round ends of one slot: from the far side of one to the far side of the other. */
export const overRoundEnds: Way = {
  family: "distance",
  between: "overRounds",
  words: "over two round ends",
  of: (p, q) => {
    if (p.is !== "cylinder" || q.is !== "cylinder") return null;
    const d = sub(q.origin, p.origin);
    const apart = length(sub(d, scale(p.direction, dot(d, p.direction))));
    return apart < COINCIDENT ? null : apart + p.radius + q.radius;
  },
};

/** Circle through axes, and where they stand on it. */
export interface AxisCircle {
  centre: Vec3;
  diameter: number;
}

/** The circle through parallel axes (two: across them); null when they stand on none. */
export function circleThrough(origins: Vec3[], direction: Vec3): AxisCircle | null {
  const flat = origins.map((p) => sub(p, scale(direction, dot(p, direction))));
  if (flat.length === 2)
    return {
      centre: scale({ x: flat[0].x + flat[1].x, y: flat[0].y + flat[1].y, z: flat[0].z + flat[1].z }, 0.5),
      diameter: length(sub(flat[0], flat[1])),
    };
  if (flat.length < 3) return null;
  const [a, b, c] = [flat[0], flat[Math.floor(flat.length / 3)], flat[Math.floor((2 * flat.length) / 3)]];
  const u = sub(b, a);
  const v = sub(c, a);
  const uu = dot(u, u);
  const vv = dot(v, v);
  const uv = dot(u, v);
  const d = 2 * (uu * vv - uv * uv);
  if (Math.abs(d) < COINCIDENT) return null;
  const s = (vv * (uu - uv)) / d;
  const t = (uu * (vv - uv)) / d;
  const centre = { x: a.x + s * u.x + t * v.x, y: a.y + s * u.y + t * v.y, z: a.z + s * u.z + t * v.z };
  const r = length(sub(a, centre));
  return flat.every((p) => Math.abs(length(sub(p, centre)) - r) < CONTACT) ? { centre, diameter: 2 * r } : null;
}
