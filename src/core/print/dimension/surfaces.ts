import { add, dot, fromFrame, scale, unit, v2, type Frame, type Vec2, type Vec3 } from "../../geometry/vec";
import { arcPoint, endOf, startOf, type Loop, type Segment } from "../../outline";
import { directionAt } from "../../outline/meet";
import type { Body, Extent, ProfilePoint, PrismBody, SeatedRecipe } from "../../rows";
import { COINCIDENT, CONTACT } from "../../geometry/tolerance";

/** A surface of the part, or a line or circle where surfaces meet, as exact numbers. Lengths mm, angles radians. */
export type Shape =
  /** A flat: its direction, and how far along it from the job's zero. */
  | { is: "plane"; normal: Vec3; offset: number }
  | { is: "cylinder"; origin: Vec3; direction: Vec3; radius: number }
  | { is: "cone"; origin: Vec3; direction: Vec3; halfAngle: number }
  /**
   * A round groove or a round edge about an axis: the tube's radius, where its middle stands along the axis, and how
   * far from it.
   */
  | { is: "torus"; origin: Vec3; direction: Vec3; radius: number; reach: number }
  /** An upright edge between two walls. */
  | { is: "corner"; origin: Vec3; direction: Vec3 }
  /** A circle where two round surfaces, or a round one and a flat, meet. */
  | { is: "ring"; origin: Vec3; direction: Vec3; radius: number };

/** A shape with what it is of: row, copy, and a name that stays the same when numbers change. */
export interface Surface {
  id: string;
  row: string;
  instance: number;
  /** What it is to its row: a floor is measured from the mouth above it. */
  role: "wall" | "floor" | "start" | "top" | "middle";
  shape: Shape;
}

const TANGENT = 1e-4;

/** Where the wall of a step stands: along the direction of its side, from the job's zero. */
export interface StepWall {
  normal: Vec3;
  offset: number;
}

/** What a recipe makes, standing on a frame: every wall, floor, corner and ring of every copy. */
export function surfacesOf(
  row: string,
  recipe: SeatedRecipe,
  frame: Frame,
  stepWall: StepWall | null,
  from = 0,
): Surface[] {
  const put = (name: string, shape: Shape, role: Surface["role"] = "wall", instance = 0): Surface => ({
    id: `${row}/${instance}/${name}`,
    row,
    instance,
    role,
    shape,
  });
  const level = (depth: number): Shape => planeThrough(frame.normal, fromFrame(frame, v2(0, 0), depth));
  if (recipe.op === "face") return [put("floor", level(recipe.depth), "floor")];
  if (recipe.op === "step") {
    const wall = stepWall === null ? [] : [put("wall", { is: "plane", ...stepWall })];
    return [put("floor", level(recipe.depth), "floor"), ...wall];
  }
  const leave = recipe.op === "leave";
  return recipe.places.flatMap((place, at) =>
    bodySurfaces(recipe.body, frame, place, leave).flatMap(({ shapes, part, parts }) =>
      shapes.map((s) => put(s.name, s.shape, s.role, (from + at) * parts + part)),
    ),
  );
}

interface Named {
  name: string;
  shape: Shape;
  role: Surface["role"];
}
/** Shapes of one copy; a body of several outlines makes several numbered solids at every place. */
type Parts = { shapes: Named[]; part: number; parts: number }[];

function bodySurfaces(body: Body, frame: Frame, place: Vec2, leave: boolean): Parts {
  switch (body.body) {
    case "prism": {
      const all = [body.outline, ...(body.more ?? [])];
      return all.map((o, part) => ({
        part,
        parts: all.length,
        shapes: [
          ...(body.draft
            ? leaning([o.outer, ...o.holes], frame, place, leave ? body.draft : -body.draft)
            : walls([o.outer, ...o.holes], frame, place)),
          ...levels(body.depth, frame, leave, body.way),
        ],
      }));
    }
    case "open":
      return [
        { part: 0, parts: 1, shapes: [...walls([body.chain], frame, place), ...levels(body.depth, frame, leave)] },
      ];
    case "revolved":
      return [{ part: 0, parts: 1, shapes: revolved(body.profile, frame, place) }];
    case "turned":
      return [
        {
          part: 0,
          parts: 1,
          shapes: turned(
            body.chain ? [body.chain.segments] : body.outlines.flatMap((o) => [o.outer, ...o.holes]),
            frame,
            place,
          ),
        },
      ];
    case "tube":
      return [{ part: 0, parts: 1, shapes: tubeWalls(body, frame, place) }];
    case "rib":
      return [{ part: 0, parts: 1, shapes: ribWalls(body, frame, place) }];
    case "collar":
      return [{ part: 0, parts: 1, shapes: collarWalls(body, frame) }];
    case "vee":
    case "wrapped":
    case "wrappedVee":
    case "helix":
    case "imported":
      return [];
  }
}

/** Both sides of a thickened chain. */
function ribWalls(body: Extract<Body, { body: "rib" }>, frame: Frame, place: Vec2): Named[] {
  const at = (p: Vec2) => fromFrame(frame, v2(p.x + place.x, p.y + place.y));
  return body.chain.flatMap((s, i) =>
    [1, -1].map((side): Named => {
      const name = `wall ${i}.${side}`;
      if (s.kind === "arc") {
        const radius = s.radius + (side * body.thick) / 2;
        return { name, role: "wall", shape: { is: "cylinder", origin: at(s.centre), direction: frame.normal, radius } };
      }
      const d = directionAt(s, 0);
      const out = v2(side * d.y, -side * d.x);
      const p = v2(s.from.x + (out.x * body.thick) / 2, s.from.y + (out.y * body.thick) / 2);
      return { name, role: "wall", shape: planeThrough(direction2(frame, out), at(p)) };
    }),
  );
}

/** The bottom and both flanks of a groove round a shaft; its frame lies in the upper one. */
function collarWalls(body: Extract<Body, { body: "collar" }>, frame: Frame): Named[] {
  const flank = (depth: number, up: number) => planeThrough(scale(frame.normal, up), fromFrame(frame, v2(0, 0), depth));
  const { inner } = body;
  const bottom: Named[] =
    typeof inner === "number"
      ? [
          {
            name: "wall bottom",
            role: "wall",
            shape: { is: "cylinder", origin: frame.origin, direction: frame.normal, radius: inner },
          },
        ]
      : [];
  return [
    ...bottom,
    { name: "flank start", role: "wall", shape: flank(0, -1) },
    { name: "flank end", role: "wall", shape: flank(body.width, 1) },
  ];
}

/** Straight walls that lean from the frame on: inwards over it where that is positive. */
function leaning(loops: Loop[], frame: Frame, place: Vec2, by: number): Named[] {
  return walls(loops, frame, place).flatMap((w): Named[] => {
    if (w.shape.is !== "plane" || w.role !== "wall") return [];
    const normal = add(scale(w.shape.normal, Math.cos(by)), scale(frame.normal, Math.sin(by)));
    const point = add(frame.origin, scale(w.shape.normal, w.shape.offset - dot(frame.origin, w.shape.normal)));
    return [{ ...w, shape: planeThrough(normal, point) }];
  });
}

/** Straight stretches of a tube and its bends, inside and out. */
function tubeWalls(body: Extract<Body, { body: "tube" }>, frame: Frame, place: Vec2): Named[] {
  const radii = [body.outer, ...(body.inner > 0 ? [body.inner] : [])];
  const at = (p: Vec2) => fromFrame(frame, v2(p.x + place.x, p.y + place.y));
  const [first, last] = [body.chain[0], body.chain[body.chain.length - 1]];
  const ends: [string, Vec3, Vec2][] = [
    ["end 0", scale(direction2(frame, directionAt(first, 0)), -1), startOf(first)],
    ["end 1", direction2(frame, directionAt(last, 1)), endOf(last)],
  ];
  const flats = ends.map(([name, normal, p]): Named => ({ name, role: "wall", shape: planeThrough(normal, at(p)) }));
  const walls = body.chain.flatMap((s, i) =>
    s.kind === "arc"
      ? radii.map((radius, k): Named => {
          const origin = fromFrame(frame, v2(s.centre.x + place.x, s.centre.y + place.y));
          const bend: Shape = { is: "torus", origin, direction: frame.normal, radius, reach: s.radius };
          return { name: `bend ${i}.${k}`, role: "wall", shape: bend };
        })
      : radii.map((radius, k): Named => {
          const origin = fromFrame(frame, v2(s.from.x + place.x, s.from.y + place.y));
          const direction = direction2(frame, directionAt(s, 0));
          return { name: `tube ${i}.${k}`, role: "wall", shape: { is: "cylinder", origin, direction, radius } };
        }),
  );
  return [...walls, ...flats];
}

const planeThrough = (normal: Vec3, point: Vec3): Shape => ({ is: "plane", normal, offset: dot(point, normal) });
const direction2 = (frame: Frame, d: Vec2): Vec3 => unit(add(scale(frame.x, d.x), scale(frame.y, d.y)));

/** Upright walls of loops or of a chain, the corners between them, and the middle of walls that face one another. */
function walls(loops: Loop[], frame: Frame, place: Vec2): Named[] {
  const out: Named[] = [];
  const at = (p: Vec2) => fromFrame(frame, v2(p.x + place.x, p.y + place.y));
  loops.forEach((loop, l) => {
    loop.forEach((s, i) => {
      const name = `${l}.${i}`;
      if (s.kind === "line") {
        const d = directionAt(s, 0);
        out.push({
          name: `wall ${name}`,
          role: "wall",
          shape: planeThrough(direction2(frame, v2(d.y, -d.x)), at(s.from)),
        });
      } else
        out.push({
          name: `wall ${name}`,
          role: "wall",
          shape: { is: "cylinder", origin: at(s.centre), direction: frame.normal, radius: s.radius },
        });
      const before = loop[i === 0 ? loop.length - 1 : i - 1];
      if (turnsAt(before, s))
        out.push({
          name: `corner ${name}`,
          role: "wall",
          shape: { is: "corner", origin: at(startOf(s)), direction: frame.normal },
        });
    });
    out.push(...middles(loop, l, frame, place), ...middleOfEnds(loop, l, frame, place));
  });
  return out;
}

/** Whether two pieces of a loop meet in a corner. */
function turnsAt(a: Segment, b: Segment): boolean {
  const p = endOf(a);
  const q = startOf(b);
  if (Math.hypot(p.x - q.x, p.y - q.y) > CONTACT) return false;
  const d = directionAt(a, 1);
  const e = directionAt(b, 0);
  return Math.abs(d.x * e.y - d.y * e.x) > TANGENT || d.x * e.x + d.y * e.y < 0;
}

/** Middles of opposite walls of one loop: where a pocket, a slot or a block stands. */
function middles(loop: Loop, l: number, frame: Frame, place: Vec2): Named[] {
  const lines = loop.flatMap((s, i) => (s.kind === "line" ? [{ s, i, d: directionAt(s, 0) }] : []));
  if (lines.length > 12) return [];
  const out: Named[] = [];
  lines.forEach((a, k) => {
    for (const b of lines.slice(k + 1)) {
      if (a.d.x * b.d.x + a.d.y * b.d.y > -1 + COINCIDENT) continue;
      // Halfway between the two walls, along their common direction.
      const normal = v2(a.d.y, -a.d.x);
      const h = ((b.s.from.x - a.s.from.x) * normal.x + (b.s.from.y - a.s.from.y) * normal.y) / 2;
      const q = v2(a.s.from.x + place.x + normal.x * h, a.s.from.y + place.y + normal.y * h);
      out.push({
        name: `middle ${l}.${a.i}.${b.i}`,
        role: "middle",
        shape: planeThrough(direction2(frame, normal), fromFrame(frame, q)),
      });
    }
  });
  return out;
}

/** The middle between the two round ends of a slot. */
function middleOfEnds(loop: Loop, l: number, frame: Frame, place: Vec2): Named[] {
  const arcs = loop.flatMap((s, i) => (s.kind === "arc" ? [{ s, i }] : []));
  const isSamePlace = (p: Vec2, q: Vec2) => Math.hypot(p.x - q.x, p.y - q.y) < CONTACT;
  const ends = arcs.filter((e, k) => !arcs.slice(0, k).some((o) => isSamePlace(o.s.centre, e.s.centre)));
  const [a, b] = ends;
  if (ends.length !== 2 || Math.abs(a.s.radius - b.s.radius) > CONTACT) return [];
  const way = v2(b.s.centre.x - a.s.centre.x, b.s.centre.y - a.s.centre.y);
  const far = Math.hypot(way.x, way.y);
  if (far < CONTACT) return [];
  const q = v2((a.s.centre.x + b.s.centre.x) / 2 + place.x, (a.s.centre.y + b.s.centre.y) / 2 + place.y);
  return [
    {
      name: `middle ${l}.${a.i}.${b.i}`,
      role: "middle",
      shape: planeThrough(direction2(frame, v2(way.x / far, way.y / far)), fromFrame(frame, q)),
    },
  ];
}

/** The level a body starts from and the one it ends at. */
function levels(depth: Extent, frame: Frame, leave: boolean, way?: PrismBody["way"]): Named[] {
  const at = (d: number) => planeThrough(frame.normal, fromFrame(frame, v2(0, 0), d));
  const start: Named = { name: "start", role: "start", shape: at(0) };
  if (typeof depth !== "number") return [start];
  if (leave && way) {
    const [low, high] = way === "down" ? [depth, 0] : [depth / 2, -depth / 2];
    return [
      { name: "start", role: "start", shape: at(low) },
      { name: "top", role: "top", shape: at(high) },
    ];
  }
  return [
    start,
    leave ? { name: "top", role: "top", shape: at(-depth) } : { name: "floor", role: "floor", shape: at(depth) },
  ];
}

/** Cylinders, cones, flats and rings of a hole's profile. */
function revolved(profile: ProfilePoint[], frame: Frame, place: Vec2): Named[] {
  const out: Named[] = [];
  const at = (z: number) => fromFrame(frame, place, z);
  const direction = frame.normal;
  profile.forEach((p, i) => {
    if (p.z !== "thru" && p.r > COINCIDENT)
      out.push({ name: `ring ${i}`, role: "floor", shape: { is: "ring", origin: at(p.z), direction, radius: p.r } });
    const q = profile[i + 1];
    if (!q) return;
    if (Math.abs(p.r - q.r) < COINCIDENT)
      out.push({ name: `wall ${i}`, role: "wall", shape: { is: "cylinder", origin: at(0), direction, radius: p.r } });
    else if (p.z === q.z)
      out.push({ name: `floor ${i}`, role: "floor", shape: planeThrough(direction, at(p.z as number)) });
    else if (p.z !== "thru" && q.z !== "thru")
      out.push({
        name: `cone ${i}`,
        role: "wall",
        shape: {
          is: "cone",
          origin: at(0),
          direction,
          halfAngle: Math.atan(Math.abs(p.r - q.r) / Math.abs(q.z - p.z)),
        },
      });
  });
  const last = profile[profile.length - 1];
  if (last.z !== "thru" && last.r > COINCIDENT)
    out.push({ name: "floor end", role: "floor", shape: planeThrough(direction, at(last.z)) });
  return out;
}

/** Surfaces of half profiles turned about the frame's axis: x is the radius, y the height. */
function turned(chains: Segment[][], frame: Frame, place: Vec2): Named[] {
  const out: Named[] = [];
  const direction = frame.normal;
  const at = (height: number) => fromFrame(frame, place, -height);
  chains.forEach((chain, c) =>
    chain.forEach((s, i) => {
      const name = `${c}.${i}`;
      const a = startOf(s);
      const b = endOf(s);
      if (a.x > COINCIDENT)
        out.push({
          name: `ring ${name}`,
          role: "wall",
          shape: { is: "ring", origin: at(a.y), direction, radius: a.x },
        });
      if (s.kind === "arc") {
        const middle = arcPoint(s, 0.5);
        if (middle.x > COINCIDENT)
          out.push({
            name: `round ${name}`,
            role: "wall",
            shape: { is: "torus", origin: at(s.centre.y), direction, radius: s.radius, reach: s.centre.x },
          });
      } else if (Math.abs(a.x - b.x) < COINCIDENT) {
        if (a.x > COINCIDENT)
          out.push({
            name: `wall ${name}`,
            role: "wall",
            shape: { is: "cylinder", origin: at(0), direction, radius: a.x },
          });
      } else if (Math.abs(a.y - b.y) < COINCIDENT)
        out.push({ name: `level ${name}`, role: "top", shape: planeThrough(direction, at(a.y)) });
      else
        out.push({
          name: `cone ${name}`,
          role: "wall",
          shape: {
            is: "cone",
            origin: at(0),
            direction,
            halfAngle: Math.atan(Math.abs(a.x - b.x) / Math.abs(a.y - b.y)),
          },
        });
    }),
  );
  return out;
}
