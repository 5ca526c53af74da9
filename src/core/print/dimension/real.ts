import { add, dot, length, scale, sub, type Box, type Vec3 } from "../../geometry/vec";
import type { EdgeInfo, FaceInfo, FaceTag } from "../../engine/kernel";
import type { Shape, Surface } from "./surfaces";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
const WHOLE = 2 * Math.PI - 0.01;
const HALF = Math.PI + 0.01;
const along = (a: Vec3, b: Vec3) => Math.abs(dot(a, b)) > PARALLEL;
/** Distance of a point from a line. */
const offLine = (p: Vec3, origin: Vec3, direction: Vec3): number => {
  const d = sub(p, origin);
  return length(sub(d, scale(direction, dot(d, direction))));
};

/** The faces and edges of a solid, by the row and copy that made them. */
export class Solid {
  private readonly byMaker = new Map<string, FaceInfo[]>();
  private readonly mouths = new Map<string, { level: number; face: FaceInfo } | null>();
  private readonly bordering = new Map<FaceInfo, { edge: EdgeInfo; face: FaceInfo }[]>();

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
    for (const edge of edges) {
      const [a, b] = edge.faces.map((i) => faces[i]);
      if (!a || !b || a === b) continue;
      this.border(a, edge, b);
      this.border(b, edge, a);
    }
  }
  private border(f: FaceInfo, edge: EdgeInfo, face: FaceInfo): void {
    const list = this.bordering.get(f);
    if (list) list.push({ edge, face });
    else this.bordering.set(f, [{ edge, face }]);
  }
  /** The faces beside a face, each with the edge where they meet. */
  besides = (f: FaceInfo): { edge: EdgeInfo; face: FaceInfo }[] => this.bordering.get(f) ?? [];

  of(row: string, instance: number): FaceInfo[] {
    return this.byMaker.get(`${row}/${instance}`) ?? [];
  }
  ofRow(row: string): FaceInfo[] {
    return this.faces.filter((f) => f.tag?.row === row);
  }
  tagsAt = (e: EdgeInfo): FaceTag[] => tagsOf(e.faces.flatMap((i) => this.faces[i] ?? []));
  /** Edges with a face of a row on either side. */
  edgesOf(row: string): EdgeInfo[] {
    return this.edges.filter((e) => e.faces.some((i) => this.faces[i]?.tag?.row === row));
  }

  /** Faces of a flat that stand where a surface says. */
  faceAt = (s: Surface): FaceInfo[] => this.of(s.row, s.instance).filter((f) => isPlane(f, s.shape));

  /** Whether the face of a flat looks out in a direction. */
  looksAlong(s: Surface, direction: Vec3): boolean {
    return this.of(s.row, s.instance).some((f) => isPlane(f, s.shape) && dot(f.normal, direction) > PARALLEL);
  }

  /**
   * The flat that a copy's walls end at upwards: of those beside them, or beside the edge that is broken there, the
   * highest. Where nothing flat is beside them, and nothing round either, the lowest that they do not pass.
   */
  mouthOf(row: string, instance: number, up: Vec3): { level: number; face: FaceInfo } | null {
    const key = `${row}/${instance}/${up.x},${up.y},${up.z}`;
    const known = this.mouths.get(key);
    if (known !== undefined) return known;
    const beside = this.besideWalls(row, instance);
    const flats = (list: FaceInfo[]) =>
      list
        .filter((f) => f.surface === "plane" && dot(f.normal, up) > PARALLEL)
        .map((face) => ({ face, level: dot(face.point, up) }));
    const reach = this.walls(row, instance).map((f) => Math.max(...corners(f).map((p) => dot(p, up))));
    const top = reach.length ? Math.max(...reach) : null;
    const near = flats(beside).filter((f) => top !== null && f.level > Math.min(...reach) - CONTACT);
    const isRound = beside.some((f) => f.surface === "cylinder" && !f.hollow);
    const far = top === null || isRound ? [] : flats(this.faces).filter((f) => f.level > top - CONTACT);
    const found = near.length
      ? near.reduce((a, b) => (b.level > a.level ? b : a))
      : far.length
        ? far.reduce((a, b) => (b.level < a.level ? b : a))
        : null;
    this.mouths.set(key, found);
    return found;
  }
  private walls = (row: string, instance: number): FaceInfo[] =>
    this.of(row, instance).filter((f) => f.tag!.role === "wall" || f.tag!.role === "cone");
  /** Faces beside the walls of a copy that other rows made; past an edge that was broken, those beyond it. */
  private besideWalls(row: string, instance: number): FaceInfo[] {
    const isOther = (f: FaceInfo) => f.tag?.row !== row;
    return this.walls(row, instance).flatMap((w) =>
      this.besides(w).flatMap(({ face }) => {
        if (!isOther(face)) return [];
        const isBreak = face.tag?.role === "chamfer" || face.tag?.role === "round";
        return isBreak ? this.besides(face).flatMap((b) => (isOther(b.face) ? [b.face] : [])) : [face];
      }),
    );
  }
  /** The round a copy's walls come out of; null where they come out of none. */
  crestOf = (row: string, instance: number): FaceInfo | null =>
    this.besideWalls(row, instance).find((f) => f.surface === "cylinder" && !f.hollow) ?? null;
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
export interface Real {
  shape: Shape;
  whole: boolean;
  /** The faces it was read from. */
  tags: FaceTag[];
  /** Of a round wall of which less than half stands: the box of what does. */
  box?: Box;
}
type Of<Is extends Shape["is"]> = Extract<Shape, { is: Is }>;

/** A surface of a row as it stands on the solid, measured there; null when nothing of it is left. */
export function realOf(s: Surface, solid: Solid, other: (id: string) => Real | null): Real | null {
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
      return realCorner(s.shape, solid, s.row);
    case "ring":
      return realRing(s.shape, solid, s.row);
  }
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < CONTACT;
const joined = (a: Box, b: Box): Box => ({
  min: { x: Math.min(a.min.x, b.min.x), y: Math.min(a.min.y, b.min.y), z: Math.min(a.min.z, b.min.z) },
  max: { x: Math.max(a.max.x, b.max.x), y: Math.max(a.max.y, b.max.y), z: Math.max(a.max.z, b.max.z) },
});
const tagsOf = (faces: FaceInfo[]): FaceTag[] => faces.flatMap((f) => f.tag ?? []);

function realPlane(shape: Of<"plane">, mine: FaceInfo[]): Real | null {
  const f = mine.find((g) => isPlane(g, shape));
  return f ? { shape: { ...shape, offset: dot(f.point, shape.normal) }, whole: true, tags: tagsOf([f]) } : null;
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
    tags: tagsOf(all),
    ...(isMostly(all) ? {} : { box: all.reduce((b, g) => joined(b, g.box), all[0].box) }),
  };
}

/** Whether a round goes on over what was cut off it: more than half of it stands, or pieces all about it. */
const isMostly = (pieces: FaceInfo[]): boolean =>
  pieces.length > 2 || pieces.reduce((sum, g) => sum + g.sweep!, 0) > HALF;

function realCone(shape: Of<"cone">, mine: FaceInfo[]): Real | null {
  const f = mine.find((g) => g.surface === "cone" && near(g.halfAngle!, shape.halfAngle));
  return f ? { shape: { ...shape, halfAngle: f.halfAngle! }, whole: true, tags: tagsOf([f]) } : null;
}

/** A round edge: a torus, or a sphere where its tube's centre lies on the axis. */
function realTorus(shape: Of<"torus">, mine: FaceInfo[]): Real | null {
  for (const g of mine) {
    if (g.surface === "sphere" && near(g.radius ?? 0, shape.radius) && shape.reach < CONTACT)
      return { shape: { ...shape, radius: g.radius! }, whole: true, tags: tagsOf([g]) };
    if (g.surface !== "torus" || !g.tube) continue;
    const reach = offLine(g.tube, shape.origin, shape.direction);
    const height = dot(sub(g.tube, shape.origin), shape.direction);
    if (near(g.radius!, shape.radius) && near(reach, shape.reach) && near(height, 0)) {
      const origin = add(shape.origin, scale(shape.direction, height));
      return { shape: { ...shape, radius: g.radius!, reach, origin }, whole: true, tags: tagsOf([g]) };
    }
  }
  return null;
}

function realCorner(shape: Of<"corner">, solid: Solid, row: string): Real | null {
  const { origin, direction } = shape;
  const isThere = (e: EdgeInfo) =>
    e.curve === "line" &&
    e.length > CONTACT &&
    offLine(e.from, origin, direction) < CONTACT &&
    offLine(e.to, origin, direction) < CONTACT;
  const e = solid.edgesOf(row).find(isThere);
  return e ? { shape, whole: true, tags: solid.tagsAt(e) } : null;
}

function realRing(shape: Of<"ring">, solid: Solid, row: string): Real | null {
  const e = solid
    .edgesOf(row)
    .find(
      (g) => g.curve === "circle" && length(sub(g.centre!, shape.origin)) < CONTACT && near(g.radius!, shape.radius),
    );
  if (!e) return null;
  const whole = e.length > 2 * Math.PI * shape.radius - 0.01 * shape.radius;
  return { shape: { ...shape, origin: e.centre!, radius: e.radius! }, whole, tags: solid.tagsAt(e) };
}

/** The middle of two walls, or of the axes of two round ends, stands where both of them do. */
function middle(s: Surface, other: (id: string) => Real | null): Real | null {
  const [place, name] = [s.id.slice(0, s.id.lastIndexOf("/") + 1), s.id.slice(s.id.lastIndexOf("/") + 1)];
  const [loop, i, j] = name.replace("middle ", "").split(".");
  const walls = [i, j].map((k) => other(`${place}wall ${loop}.${k}`));
  if (s.shape.is !== "plane") return null;
  const { normal } = s.shape;
  const offsets = walls.map((w) => {
    if (w?.shape.is === "plane") return dot(w.shape.normal, normal) * w.shape.offset;
    return w?.shape.is === "cylinder" ? dot(w.shape.origin, normal) : null;
  });
  const [a, b] = offsets;
  if (a === null || b === null) return null;
  return { shape: { ...s.shape, offset: (a + b) / 2 }, whole: true, tags: walls.flatMap((w) => w?.tags ?? []) };
}
