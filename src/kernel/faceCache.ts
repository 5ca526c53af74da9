import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape, TopoDS_Wire } from "replicad-opencascadejs";
import { scale, sub, dot, unit, type Box, type Vec3 } from "@/core/geometry/vec";
import type { FaceInfo } from "@/core/engine/kernel";
import { flatMesh, flatMeshLess, ringsOfWires } from "./flatMesh";
import { areaOfGaps, gapsOf, type Gaps } from "./gaps";
import { extractMesh, type FaceMesh } from "./meshing";
import type { OC } from "./oc";
import { boundedByOtherCurves, boxOfShape, describeFace, describeFlat, turnedBetween, type Turned } from "./topology";

/** Normal and a point of a flat face. */
export interface Flat {
  normal: Vec3;
  point: Vec3;
}

interface Entry {
  face: TopoDS_Face;
  info?: FaceInfo;
  mesh?: Meshed;
  gaps?: Gaps;
  /** Bounded by anything but lines and circles. */
  intricate?: boolean;
  box?: Box;
  /** Normal and a point of a flat face; null for a curved one. */
  flat?: Flat | null;
  turned?: Turned | null;
  /** The flat it was made from by putting ways round into it: its triangles need not all be made anew. */
  grown?: { from: Entry; wires: TopoDS_Wire[] };
}

type Meshed = { deflection: number; mesh: FaceMesh };
type PointsOf = (edge: TopoDS_Edge, deflection: number) => Vec3[];

/** Whether the triangles kept of a face are as fine as wanted, and not much finer. */
const fits = (e: Entry, deflection: number): boolean =>
  e.mesh !== undefined && e.mesh.deflection <= deflection * 1.5 && e.mesh.deflection >= deflection / 3;

const HASH_SPACE = 2147483647;
/**
 * Faces remembered besides those of the part at hand; past that all are forgotten, for a handle keeps its face's
 * geometry alive.
 */
const SPARE_FACES = 1500;

/**
 * What was measured on a face, kept under the face itself. A cut leaves most faces of a part as they were:
 * an edit measures and meshes only the faces it changed.
 */
export class FaceCache {
  private buckets = new Map<number, Entry[]>();
  /** The same, by the handle it was asked with: states share their handles. */
  private byHandle = new WeakMap<TopoDS_Face, Entry>();
  private count = 0;
  /** Faces of the part at hand. */
  atHand = 0;
  constructor(private oc: OC) {}

  private entry(face: TopoDS_Face): Entry {
    const near = this.byHandle.get(face);
    if (near) return near;
    const found = this.find(face);
    this.byHandle.set(face, found);
    return found;
  }
  private find(face: TopoDS_Face): Entry {
    const h = this.oc.ReplicadShapeHasher.HashCode(face, HASH_SPACE);
    const bucket = this.buckets.get(h);
    const known = bucket?.find((e) => e.face.IsEqual(face));
    if (known) return known;
    if (this.count >= SPARE_FACES + 2 * this.atHand) this.clear();
    // A handle of our own: the caller frees the one it came with.
    const made: Entry = { face: this.oc.TopoDS.Face(face) };
    if (this.buckets.has(h)) this.buckets.get(h)!.push(made);
    else this.buckets.set(h, [made]);
    this.count++;
    return made;
  }
  clear(): void {
    for (const e of [...this.buckets.values()].flat()) {
      e.face.delete();
      for (const w of e.grown?.wires ?? []) w.delete();
    }
    this.buckets.clear();
    this.byHandle = new WeakMap();
    this.count = 0;
  }

  /** What a face is, without its tag. */
  info(face: TopoDS_Face): FaceInfo {
    const e = this.entry(face);
    if (!e.info) {
      e.info = describeFace(this.oc, face);
      e.info.area += areaOfGaps(this.gaps(face));
    }
    return e.info;
  }
  /** What a face lacks up to its true edges: nothing, but where the library drew them badly. */
  gaps(face: TopoDS_Face): Gaps {
    const e = this.entry(face);
    return (e.gaps ??= gapsOf(this.oc, face));
  }
  /**
   * Whether a face is bounded by anything but lines and circles, as where a bore runs through a round: the library's
   * quick sums are a few millionths wrong there.
   */
  isIntricate(face: TopoDS_Face): boolean {
    const e = this.entry(face);
    return (e.intricate ??= boundedByOtherCurves(this.oc, face));
  }
  /** Between which radii a cone or a round along a round edge lies; null for other faces. */
  turned(face: TopoDS_Face): Turned | null {
    const e = this.entry(face);
    return e.turned === undefined ? (e.turned = turnedBetween(this.oc, face, this.info(face))) : e.turned;
  }
  flat(face: TopoDS_Face): Flat | null {
    const e = this.entry(face);
    return e.flat === undefined ? (e.flat = describeFlat(this.oc, face)) : e.flat;
  }
  /** Told what is known already of a face that was just made: the library need not be asked. */
  know(face: TopoDS_Face, flat: Flat | null): void {
    this.entry(face).flat = flat;
  }
  /** Told that a flat is another with ways round put into it. The wires' handles become this cache's. */
  grew(face: TopoDS_Face, from: TopoDS_Face, wires: TopoDS_Wire[]): void {
    const flat = this.flat(from);
    const made = this.entry(face);
    const before = this.entry(from);
    // Room may have been made between the two: what was forgotten is not built on.
    if (this.entry(face) === made) Object.assign(made, { flat, grown: { from: before, wires } });
    else wires.forEach((w) => w.delete());
  }
  /** The box of a face alone, where nothing else of it is asked. */
  box(face: TopoDS_Face): Box {
    const e = this.entry(face);
    return (e.box ??= e.info?.box ?? boxOfShape(this.oc, face));
  }
  /** The flat a flat grew from, and the ways round put into it; null where it is not known. */
  growth(face: TopoDS_Face): { from: TopoDS_Face; wires: TopoDS_Wire[] } | null {
    const { grown } = this.entry(face);
    return grown ? { from: grown.from.face, wires: grown.wires } : null;
  }
  /** @param pointsOf points of an edge to a chord error, as they are kept */
  mesh(face: TopoDS_Face, deflection: number, pointsOf: PointsOf): FaceMesh {
    const e = this.entry(face);
    if (!fits(e, deflection)) {
      const mesh = this.flatMeshOf(e, deflection, pointsOf);
      e.mesh = { deflection, mesh: mesh ?? extractMesh(this.oc, face as TopoDS_Shape, deflection) };
    }
    return (e.mesh as Meshed).mesh;
  }
  /** Triangles of a flat: from those of the flat it grew from where they are there, else from its wires. */
  private flatMeshOf(e: Entry, deflection: number, pointsOf: PointsOf): FaceMesh | null {
    const flat = this.flat(e.face);
    if (!flat) return null;
    const points = (edge: TopoDS_Edge) => pointsOf(edge, deflection);
    const { grown } = e;
    if (grown && !fits(grown.from, deflection)) {
      // The flat before is the one the next edit of the same row starts from: it is made and kept.
      const mesh = flatMesh(this.oc, grown.from.face, flat.normal, points);
      if (mesh) grown.from.mesh = { deflection, mesh };
    }
    const rings = grown?.wires.map((w) => ringsOfWires(this.oc, w, points)?.[0]);
    if (grown?.from.mesh && rings?.every((r) => r !== undefined)) {
      const more = flatMeshLess(grown.from.mesh.mesh, flat.normal, rings as Vec3[][]);
      if (more) return more;
    }
    return flatMesh(this.oc, e.face, flat.normal, points);
  }
  /**
   * Outward normal of a flat or cylindrical face at a point of it, without asking the library; null for other faces.
   */
  normalAt(face: TopoDS_Face, point: Vec3): Vec3 | null {
    const flat = this.flat(face);
    if (flat) return flat.normal;
    const i = this.info(face);
    if (i.surface !== "cylinder") return null;
    const d = sub(point, i.axis!.origin);
    const radial = unit(sub(d, scale(i.axis!.direction, dot(d, i.axis!.direction))));
    return i.hollow ? scale(radial, -1) : radial;
  }
}
