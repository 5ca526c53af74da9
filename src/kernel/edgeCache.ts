import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { dot, type Vec3 } from "@/core/geometry/vec";
import type { EdgeInfo } from "@/core/engine/kernel";
import type { FaceCache } from "./faceCache";
import { thinned } from "./flatMesh";
import { scope, type OC } from "./oc";
import { describeEdge, samples, ShapeMap, type RawEdge } from "./topology";
import { EXACTLY_PARALLEL } from "@/core/geometry/tolerance";

/** What is known of an edge, whichever state it is in. */
interface Known {
  edge: TopoDS_Edge;
  info?: EdgeInfo | null;
  normals?: [Vec3, Vec3] | null;
  reversed?: string;
  points?: Vec3[];
  drawn?: Float32Array;
  coarse?: { deflection: number; points: Vec3[] };
}
interface Use {
  known: Known;
  edge: TopoDS_Edge;
}
/** An edge of a state, with what is known of it. Its handles are the cache's own. */
export type KnownEdge = RawEdge & { known: Known };

const SPARE_EDGES = 12000;

/**
 * The edges of faces and what was measured on them. A measurement holds as long as the faces on the two sides look the
 * same way: a hole in a face makes the face a new one and leaves its other edges as they were.
 */
export class EdgeCache {
  private known: ShapeMap<Known>;
  private byFace = new WeakMap<TopoDS_Face, Use[]>();
  private owned: TopoDS_Edge[] = [];
  /** Edges of the part at hand. */
  atHand = 0;
  constructor(
    private oc: OC,
    private faces: FaceCache,
  ) {
    this.known = new ShapeMap(oc);
  }

  private clear(): void {
    for (const e of this.owned) e.delete();
    this.owned = [];
    this.known = new ShapeMap(this.oc);
    this.byFace = new WeakMap();
  }
  private entry(edge: TopoDS_Edge): Known {
    const found = this.known.get(edge);
    if (found) return found;
    const made: Known = { edge: this.oc.TopoDS.Edge(edge) };
    this.owned.push(made.edge);
    this.known.set(made.edge, made);
    return made;
  }
  private usesOf(face: TopoDS_Face): Use[] {
    const found = this.byFace.get(face);
    if (found) return found;
    const growth = this.faces.growth(face);
    const uses = growth
      ? [...this.usesOf(growth.from), ...growth.wires.flatMap((w) => this.usesIn(w))]
      : this.usesIn(face);
    this.byFace.set(face, uses);
    return uses;
  }
  private usesIn(shape: TopoDS_Shape): Use[] {
    const { oc } = this;
    return scope((own) => {
      const list: Use[] = [];
      const ex = own(new oc.TopExp_Explorer(shape, oc.TopAbs_ShapeEnum.TopAbs_EDGE, oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
      for (; ex.More(); ex.Next()) {
        const edge = oc.TopoDS.Edge(own(ex.Current()));
        this.owned.push(edge);
        list.push({ known: this.entry(edge), edge });
      }
      return list;
    });
  }

  /** Edges of faces, each with the faces that use it, in a fixed order. They stay the cache's: nobody frees them. */
  edgesOf(faces: TopoDS_Face[]): KnownEdge[] {
    if (this.owned.length > SPARE_EDGES + 6 * this.atHand) this.clear();
    const found = new Map<Known, KnownEdge>();
    faces.forEach((f, face) => {
      for (const { known, edge } of this.usesOf(f)) {
        const raw = found.get(known);
        if (raw) raw.uses.push({ face, edge });
        else found.set(known, { known, edge, uses: [{ face, edge }] });
      }
    });
    return [...found.values()];
  }

  info(raw: KnownEdge, faces: TopoDS_Face[]): EdgeInfo | null {
    const { known } = raw;
    const second = raw.uses.find((u) => u.face !== raw.uses[0].face);
    const reversed = String(raw.uses[0].edge.Orientation());
    if (known.info && known.normals && second && known.reversed === reversed) {
      const [a, b] = [raw.uses[0].face, second.face];
      const n1 = this.faces.normalAt(faces[a], known.info.middle);
      const n2 = this.faces.normalAt(faces[b], known.info.middle);
      if (n1 && n2 && dot(n1, known.normals[0]) > EXACTLY_PARALLEL && dot(n2, known.normals[1]) > EXACTLY_PARALLEL)
        return { ...known.info, faces: [a, b] };
    }
    const info = describeEdge(this.oc, raw, faces, (f, at) => this.faces.normalAt(f, at));
    const n1 = info && this.faces.normalAt(faces[info.faces[0]], info.middle);
    const n2 = info && this.faces.normalAt(faces[info.faces[1]], info.middle);
    Object.assign(known, { info, normals: n1 && n2 ? [n1, n2] : null, reversed });
    return info;
  }
  /** Points along an edge, close enough to draw. */
  pointsOf(edge: TopoDS_Edge): Vec3[] {
    const known = this.entry(edge);
    return (known.points ??= samples(this.oc, edge));
  }
  /** The pieces of an edge as pairs of points, one number after the other. */
  piecesOf({ known }: KnownEdge): Float32Array {
    if (known.drawn) return known.drawn;
    const points = this.pointsOf(known.edge);
    const out = new Float32Array(6 * (points.length - 1));
    for (let i = 1; i < points.length; i++) {
      const [p, q] = [points[i - 1], points[i]];
      out.set([p.x, p.y, p.z, q.x, q.y, q.z], 6 * (i - 1));
    }
    return (known.drawn = out);
  }
  /** As many of them as a chord error asks for. */
  coarsePointsOf(edge: TopoDS_Edge, deflection: number): Vec3[] {
    const known = this.entry(edge);
    if (known.coarse?.deflection !== deflection)
      known.coarse = { deflection, points: thinned(this.pointsOf(edge), deflection) };
    return known.coarse.points;
  }
}
