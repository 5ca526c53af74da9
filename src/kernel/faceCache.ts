import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { scale, sub, dot, unit, type Box, type Vec3 } from "@/core/geometry/vec";
import type { FaceInfo } from "@/core/engine/kernel";
import { flatMesh } from "./flatMesh";
import { extractMesh, type FaceMesh } from "./meshing";
import type { OC } from "./oc";
import { boundedByOtherCurves, boxOfShape, describeFace, describeFlat } from "./topology";

interface Entry {
  face: TopoDS_Face;
  info?: FaceInfo;
  mesh?: { deflection: number; mesh: FaceMesh };
  /** Bounded by anything but lines and circles. */
  intricate?: boolean;
  box?: Box;
  /** Normal and a point of a flat face; null for a curved one. */
  flat?: { normal: Vec3; point: Vec3 } | null;
}

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
    for (const b of this.buckets.values()) for (const e of b) e.face.delete();
    this.buckets.clear();
    this.byHandle = new WeakMap();
    this.count = 0;
  }

  /** What a face is, without its tag. */
  info(face: TopoDS_Face): FaceInfo {
    const e = this.entry(face);
    return (e.info ??= describeFace(this.oc, face));
  }
  /**
   * Whether a face is bounded by anything but lines and circles, as where a bore runs through a round: the library's
   * quick sums are a few millionths wrong there.
   */
  isIntricate(face: TopoDS_Face): boolean {
    const e = this.entry(face);
    return (e.intricate ??= boundedByOtherCurves(this.oc, face));
  }
  flat(face: TopoDS_Face): { normal: Vec3; point: Vec3 } | null {
    const e = this.entry(face);
    return e.flat === undefined ? (e.flat = describeFlat(this.oc, face)) : e.flat;
  }
  /** The box of a face alone, where nothing else of it is asked. */
  box(face: TopoDS_Face): Box {
    const e = this.entry(face);
    return (e.box ??= e.info?.box ?? boxOfShape(this.oc, face));
  }
  /** @param pointsOf points of an edge to a chord error, as they are kept */
  mesh(face: TopoDS_Face, deflection: number, pointsOf: (edge: TopoDS_Edge, deflection: number) => Vec3[]): FaceMesh {
    const e = this.entry(face);
    if (!e.mesh || e.mesh.deflection > deflection * 1.5 || e.mesh.deflection < deflection / 3) {
      const flat = this.flat(face);
      const quick = flat && flatMesh(this.oc, face, flat.normal, (edge) => pointsOf(edge, deflection));
      e.mesh = { deflection, mesh: quick ?? extractMesh(this.oc, face as TopoDS_Shape, deflection) };
    }
    return e.mesh.mesh;
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
