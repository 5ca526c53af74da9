import { add, dot, length, scale, sub, type Vec3 } from "../../geometry/vec";
import type { EdgeInfo, FaceInfo } from "../../engine/kernel";
import type { Shape, Surface } from "./surfaces";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
const WHOLE = 2 * Math.PI - 0.01;
const along = (a: Vec3, b: Vec3) => Math.abs(dot(a, b)) > PARALLEL;
/** Distance of a point from a line. */
const offLine = (p: Vec3, origin: Vec3, direction: Vec3): number => {
  const d = sub(p, origin);
  return length(sub(d, scale(direction, dot(d, direction))));
};

/** The faces and edges of a solid, by the row and copy that made them. */
export class Solid {
  private readonly byMaker = new Map<string, FaceInfo[]>();
  private readonly mouths = new Map<string, number | null>();

  constructor(
    readonly faces: FaceInfo[],
    readonly edges: EdgeInfo[],
  ) {
    for (const f of faces) {
      if (!f.tag) continue;
      const key = `${f.tag.row}/${f.tag.instance}`;
      const list = this.byMaker.get(key);
      if (list) list.push(f);
      else this.byMaker.set(key, [f]);
    }
  }

  of(row: string, instance: number): FaceInfo[] {
    return this.byMaker.get(`${row}/${instance}`) ?? [];
  }
  ofRow(row: string): FaceInfo[] {
    return this.faces.filter((f) => f.tag?.row === row);
  }
  /** Edges with a face of a row on either side. */
  edgesOf(row: string): EdgeInfo[] {
    return this.edges.filter((e) => e.faces.some((i) => this.faces[i]?.tag?.row === row));
  }

  /** Whether the face of a flat looks out in a direction. */
  looksAlong(s: Surface, direction: Vec3): boolean {
    return this.of(s.row, s.instance).some((f) => isPlane(f, s.shape) && dot(f.normal, direction) > PARALLEL);
  }

  /**
   * Level along a direction of the flat that a copy's walls end at upwards: the lowest that looks that way and is no
   * lower than they reach.
   */
  mouthLevel(row: string, instance: number, up: Vec3): number | null {
    const key = `${row}/${instance}/${up.x},${up.y},${up.z}`;
    const known = this.mouths.get(key);
    if (known !== undefined) return known;
    const reach = this.of(row, instance)
      .filter((f) => f.tag!.role === "wall" || f.tag!.role === "cone")
      .map((f) => Math.max(...corners(f).map((p) => dot(p, up))));
    const top = reach.length ? Math.max(...reach) : null;
    const levels =
      top === null
        ? []
        : this.faces
            .filter((f) => f.surface === "plane" && dot(f.normal, up) > PARALLEL)
            .map((f) => dot(f.point, up))
            .filter((l) => l > top - CONTACT);
    const level = levels.length ? Math.min(...levels) : null;
    this.mouths.set(key, level);
    return level;
  }
}

const corners = (f: FaceInfo): Vec3[] =>
  [f.box.min.x, f.box.max.x].flatMap((x) =>
    [f.box.min.y, f.box.max.y].flatMap((y) => [f.box.min.z, f.box.max.z].map((z) => ({ x, y, z }))),
  );

const isPlane = (f: FaceInfo, s: Shape): boolean =>
  s.is === "plane" &&
  f.surface === "plane" &&
  along(f.normal, s.normal) &&
  Math.abs(dot(f.point, s.normal) - s.offset) < CONTACT;

/** A surface as it stands on the solid; `whole`: a round wall that goes all round. */
interface Real {
  shape: Shape;
  whole: boolean;
}
type Of<Is extends Shape["is"]> = Extract<Shape, { is: Is }>;

/** A surface of a row as it stands on the solid, measured there; null when nothing of it is left. */
export function realOf(s: Surface, solid: Solid, other: (id: string) => { shape: Shape } | null): Real | null {
  const mine = solid.of(s.row, s.instance);
  switch (s.shape.is) {
    case "plane":
      return s.role === "middle" ? middle(s, other) : realPlane(s.shape, mine);
    case "cylinder":
      return realCylinder(s.shape, mine);
    case "cone":
      return realCone(s.shape, mine);
    case "torus":
      return realTorus(s.shape, mine);
    case "corner":
      return realCorner(s.shape, solid.edgesOf(s.row));
    case "ring":
      return realRing(s.shape, solid.edgesOf(s.row));
  }
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < CONTACT;

function realPlane(shape: Of<"plane">, mine: FaceInfo[]): Real | null {
  const f = mine.find((g) => isPlane(g, shape));
  return f ? { shape: { ...shape, offset: dot(f.point, shape.normal) }, whole: true } : null;
}

function realCylinder(shape: Of<"cylinder">, mine: FaceInfo[]): Real | null {
  const all = mine.filter(
    (g) =>
      g.surface === "cylinder" &&
      along(g.axis!.direction, shape.direction) &&
      offLine(g.axis!.origin, shape.origin, shape.direction) < CONTACT &&
      near(g.radius!, shape.radius),
  );
  if (!all.length) return null;
  return {
    shape: { ...shape, origin: all[0].axis!.origin, radius: all[0].radius! },
    whole: all.some((g) => g.sweep! > WHOLE),
  };
}

function realCone(shape: Of<"cone">, mine: FaceInfo[]): Real | null {
  const f = mine.find((g) => g.surface === "cone" && near(g.halfAngle!, shape.halfAngle));
  return f ? { shape: { ...shape, halfAngle: f.halfAngle! }, whole: true } : null;
}

/** A round edge: a torus, or a sphere where its tube's centre lies on the axis. */
function realTorus(shape: Of<"torus">, mine: FaceInfo[]): Real | null {
  for (const g of mine) {
    if (g.surface === "sphere" && near(g.radius ?? 0, shape.radius) && shape.reach < CONTACT)
      return { shape: { ...shape, radius: g.radius! }, whole: true };
    if (g.surface !== "torus" || !g.tube) continue;
    const reach = offLine(g.tube, shape.origin, shape.direction);
    const height = dot(sub(g.tube, shape.origin), shape.direction);
    if (near(g.radius!, shape.radius) && near(reach, shape.reach) && near(height, 0)) {
      const origin = add(shape.origin, scale(shape.direction, height));
      return { shape: { ...shape, radius: g.radius!, reach, origin }, whole: true };
    }
  }
  return null;
}

function realCorner(shape: Of<"corner">, edges: EdgeInfo[]): Real | null {
  const { origin, direction } = shape;
  const isThere = (e: EdgeInfo) =>
    e.curve === "line" &&
    e.length > CONTACT &&
    offLine(e.from, origin, direction) < CONTACT &&
    offLine(e.to, origin, direction) < CONTACT;
  return edges.some(isThere) ? { shape, whole: true } : null;
}

function realRing(shape: Of<"ring">, edges: EdgeInfo[]): Real | null {
  const e = edges.find(
    (g) => g.curve === "circle" && length(sub(g.centre!, shape.origin)) < CONTACT && near(g.radius!, shape.radius),
  );
  if (!e) return null;
  const whole = e.length > 2 * Math.PI * shape.radius - 0.01 * shape.radius;
  return { shape: { ...shape, origin: e.centre!, radius: e.radius! }, whole };
}

/** The middle of two walls stands where both of them do. */
function middle(s: Surface, other: (id: string) => { shape: Shape } | null): { shape: Shape; whole: boolean } | null {
  const [place, name] = [s.id.slice(0, s.id.lastIndexOf("/") + 1), s.id.slice(s.id.lastIndexOf("/") + 1)];
  const [loop, i, j] = name.replace("middle ", "").split(".");
  const a = other(`${place}wall ${loop}.${i}`)?.shape;
  const b = other(`${place}wall ${loop}.${j}`)?.shape;
  if (a?.is !== "plane" || b?.is !== "plane" || s.shape.is !== "plane") return null;
  const along1 = (p: Extract<Shape, { is: "plane" }>) =>
    dot(p.normal, (s.shape as Extract<Shape, { is: "plane" }>).normal) * p.offset;
  return { shape: { ...s.shape, offset: (along1(a) + along1(b)) / 2 }, whole: true };
}
