import type { FaceInfo, Mesh, SolidKernel } from "../engine/kernel";
import { isOneOf, madeBy, makes, type Made } from "../engine/madeBy";
import type { SolvedRow } from "../engine/solve";
import { ParallelRays } from "../geometry/parallelRays";
import { CONTACT, MEET, PARALLEL } from "../geometry/tolerance";
import {
  add,
  boxInFrame,
  cross,
  dot,
  fromFrame,
  length,
  scale,
  sides,
  sideNormal,
  sub,
  toFrame,
  unit,
  v3,
  type Frame,
  type Side,
  type Vec3,
} from "../geometry/vec";

/** A direction a cutter can come from, with what it is called. */
export interface Direction {
  name: string;
  side: Side | null;
  up: Vec3;
}
export const sideDirections: Direction[] = sides.map((side) => ({ name: side, side, up: sideNormal(side) }));

/** A face as it is tried: points a little off it, and the ways it looks there. */
interface Tried {
  face: number;
  spots: { at: Vec3; looks: Vec3[] }[];
}

/** How far off a face it is looked from (over the chord error of a picture), and how much it may lean away: mm, a cosine. */
const OFF = 0.02;
const LEAN = 1e-3;
/**
 * Flats are drawn with fewer chords along their rounds than the walls there: between two chords they reach over a
 * hollow wall by this share of its radius, and by no more than this, mm.
 */
const CHORD_SHARE = 0.0065;
const CHORD_MOST = 0.16;

/** How far off a face a place has to lie to be clear of how its neighbours are drawn. */
const clearOf = ({ hollow, radius }: FaceInfo): number =>
  hollow && radius ? OFF + Math.min(CHORD_MOST, CHORD_SHARE * radius) : OFF;

/** Triangles of a face that are tried; of a flat they all look the same way, of a round they go all about it. */
const MOST_SPOTS = 12;

const vectorOf = (list: Float32Array, i: number): Vec3 => v3(list[3 * i], list[3 * i + 1], list[3 * i + 2]);

/** A triangle of a picture: its middle, its size, and how the true face looks at its corners. */
function triangleOf({ positions, normals, triangles }: Mesh, start: number) {
  const at = [0, 1, 2].map((k) => triangles[start + k]);
  const [a, b, c] = at.map((i) => vectorOf(positions, i));
  const middle = scale(add(add(a, b), c), 1 / 3);
  const flat = cross(sub(b, a), sub(c, a));
  return {
    size: length(flat),
    middle,
    looks: agreeing(
      at.map((i) => vectorOf(normals, i)),
      flat,
    ),
  };
}

/** The tip of a cone looks no way of its own: what a corner there is said to look is left out, by the other two. */
function agreeing(looks: Vec3[], flat: Vec3): Vec3[] {
  const ahead = looks.filter((n) => dot(n, flat) > 0);
  const behind = looks.filter((n) => dot(n, flat) < 0);
  return ahead.length >= behind.length ? ahead : behind;
}

/** Points of every face of a picture, spread over its triangles, the largest among them. */
function spotsOf(mesh: Mesh, faces: FaceInfo[]): Map<number, Tried["spots"]> {
  const found = new Map<number, Tried["spots"]>();
  for (const g of mesh.groups) {
    const all = Array.from({ length: g.count / 3 }, (_, t) => triangleOf(mesh, g.start + 3 * t)).filter(
      (t) => t.size > 0,
    );
    const step = Math.max(1, Math.floor(all.length / MOST_SPOTS));
    const spread = all.filter((_, i) => i % step === 0);
    const largest = all.reduce((x, y) => (y.size > x.size ? y : x), all[0]);
    const spots = largest && !spread.includes(largest) ? [largest, ...spread] : spread;
    const known = found.get(g.face) ?? [];
    found.set(g.face, [
      ...known,
      ...spots.map(({ middle, looks }) => ({
        at: add(middle, scale(unit(looks.reduce(add, v3(0, 0, 0))), clearOf(faces[g.face]))),
        looks,
      })),
    ]);
  }
  return found;
}

/** What keeps a cutter from a row when it comes from a direction. */
export type Hindrance = "looks away" | "in the way";
/** How much of a row a direction sees: its faces that can be reached, and of the others why not. */
export interface Seen {
  faces: Set<number>;
  why: Map<number, Hindrance>;
}

/** From where the faces of a part can be reached by a cutter: worked out once for a part. */
export class Reach {
  private readonly spots: Map<number, Tried["spots"]>;
  private readonly faces: FaceInfo[];
  private readonly known = new Map<string, { seen: Seen; rays: ParallelRays }>();
  private readonly mesh: Mesh;
  constructor(kernel: SolidKernel, key: string) {
    this.mesh = kernel.mesh(key);
    this.faces = kernel.faces(key);
    this.spots = spotsOf(this.mesh, this.faces);
  }

  /** The faces a row made that are still there: its own, or those of its copies. */
  facesOf(row: SolvedRow): number[] {
    const isMade = makes(row);
    return this.faces.flatMap((f, i) => (isMade(f) ? [i] : []));
  }

  /** The same by copies: what a row itself made is one, and each copy of a repeat or mirror. */
  copiesOf(row: SolvedRow): { faces: number[]; place: Vec3 | null }[] {
    const copies = new Map<number, Made[]>();
    for (const m of madeBy(row)) if (m.copy !== undefined) copies.set(m.copy, [...(copies.get(m.copy) ?? []), m]);
    if (!copies.size) return [{ faces: this.facesOf(row), place: row.planes?.start?.origin ?? null }];
    return [...copies.values()].map((made) => {
      const isMade = isOneOf(made);
      const [{ step }] = made;
      return {
        faces: this.faces.flatMap((f, i) => (isMade(f) ? [i] : [])),
        place: fromFrame(step.frame, step.places[0]),
      };
    });
  }

  /** What of some faces is seen from a direction. A wall along it is seen: the side of the cutter makes it. */
  seen(faces: number[], { up }: Direction): Seen {
    const way = [up.x, up.y, up.z].map((n) => n.toFixed(6)).join();
    const known = this.known.get(way) ?? {
      seen: { faces: new Set<number>(), why: new Map<number, Hindrance>() },
      rays: new ParallelRays(this.mesh.positions, this.mesh.triangles, up),
    };
    this.known.set(way, known);
    const { seen, rays } = known;
    for (const face of faces) {
      if (seen.faces.has(face) || seen.why.has(face)) continue;
      const why = this.hindrance(face, up, rays);
      if (why) seen.why.set(face, why);
      else seen.faces.add(face);
    }
    return seen;
  }

  /**
   * What of some faces a lathe reaches besides, its work turning about an axis: what is round about that axis, and open
   * outwards from it.
   */
  turned(faces: number[], axis: Frame): Set<number> {
    return new Set(faces.filter((f) => this.isRoundAbout(this.faces[f], axis) && this.isOpenOutwards(f, axis)));
  }

  /** What of some faces is round about an axis, or lies across it: all that turning can make, from wherever. */
  roundAbout = (faces: number[], about: Frame): Set<number> =>
    new Set(faces.filter((f) => this.isRoundAbout(this.faces[f], about)));

  private isRoundAbout({ surface, axis, normal, tube, box }: FaceInfo, about: Frame): boolean {
    if (surface === "plane") return Math.abs(dot(normal, about.normal)) > PARALLEL;
    if (tube) return true;
    if (surface === "cone" || surface === "sphere") {
      // Round about the axis, its box stands in the middle of it.
      const { min, max } = boxInFrame(about, box);
      return Math.abs(min.x + max.x) < MEET && Math.abs(min.y + max.y) < MEET;
    }
    if (!axis || Math.abs(dot(axis.direction, about.normal)) < PARALLEL) return false;
    const off = toFrame(about, axis.origin);
    return Math.hypot(off.x, off.y) < CONTACT;
  }

  private isOpenOutwards(face: number, about: Frame): boolean {
    // Round about the axis, it looks the same way at every angle: nothing of it may look inwards.
    const spots = this.spots.get(face) ?? [];
    return spots.every((s) => {
      const p = toFrame(about, s.at);
      const r = Math.hypot(p.x, p.y) || 1;
      const out = add(scale(about.x, p.x / r), scale(about.y, p.y / r));
      return s.looks.every((n) => dot(n, out) > -LEAN);
    });
  }

  private hindrance(face: number, up: Vec3, rays: ParallelRays): Hindrance | null {
    const spots = this.spots.get(face) ?? [];
    if (spots.some((s) => s.looks.some((n) => dot(n, up) < -LEAN))) return "looks away";
    return spots.some((s) => rays.meets(s.at, 2 * OFF)) ? "in the way" : null;
  }
}
