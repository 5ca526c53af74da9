import type { TopoDS_Edge, TopoDS_Face } from "replicad-opencascadejs";
import { dot, type Vec3 } from "@/core/geometry/vec";
import type { EdgeInfo } from "@/core/engine/kernel";
import type { FaceCache } from "./faceCache";
import type { OC } from "./oc";
import { describeEdge, samples, type RawEdge } from "./topology";

interface Entry {
  edge: TopoDS_Edge;
  info: EdgeInfo | null;
  normals: [Vec3, Vec3] | null;
  reversed: string;
  points?: Vec3[];
}

const HASH_SPACE = 2147483647;
const SPARE_EDGES = 4000;

/**
 * What was measured on an edge, kept under the edge. It holds as long as the faces on its two sides look the same way:
 * a hole in a face makes the face a new one and leaves its other edges as they were.
 */
export class EdgeCache {
  private buckets = new Map<number, Entry[]>();
  private count = 0;
  /** Edges of the part at hand. */
  atHand = 0;
  constructor(
    private oc: OC,
    private faces: FaceCache,
  ) {}

  private clear(): void {
    for (const b of this.buckets.values()) for (const e of b) e.edge.delete();
    this.buckets.clear();
    this.count = 0;
  }
  private find(raw: RawEdge): { bucket: number; entry: Entry | undefined } {
    const bucket = this.oc.ReplicadShapeHasher.HashCode(raw.edge, HASH_SPACE);
    return { bucket, entry: this.buckets.get(bucket)?.find((e) => e.edge.IsSame(raw.edge)) };
  }

  info(raw: RawEdge, faces: TopoDS_Face[]): EdgeInfo | null {
    const { bucket, entry } = this.find(raw);
    const second = raw.uses.find((u) => u.face !== raw.uses[0].face);
    const reversed = String(raw.uses[0].edge.Orientation());
    if (entry && entry.info && entry.normals && second && entry.reversed === reversed) {
      const [a, b] = [raw.uses[0].face, second.face];
      const n1 = this.faces.normalAt(faces[a], entry.info.middle),
        n2 = this.faces.normalAt(faces[b], entry.info.middle);
      if (n1 && n2 && dot(n1, entry.normals[0]) > 1 - 1e-12 && dot(n2, entry.normals[1]) > 1 - 1e-12)
        return { ...entry.info, faces: [a, b] };
    }
    const info = describeEdge(this.oc, raw, faces, (f, at) => this.faces.normalAt(f, at));
    const n1 = info && this.faces.normalAt(faces[info.faces[0]], info.middle),
      n2 = info && this.faces.normalAt(faces[info.faces[1]], info.middle);
    const normals: [Vec3, Vec3] | null = n1 && n2 ? [n1, n2] : null;
    if (entry) Object.assign(entry, { info, normals, reversed });
    else this.put(bucket, { edge: this.oc.TopoDS.Edge(raw.edge), info, normals, reversed });
    return info;
  }
  points(raw: RawEdge): Vec3[] {
    const { bucket, entry } = this.find(raw);
    if (entry) return (entry.points ??= samples(this.oc, raw.edge));
    const points = samples(this.oc, raw.edge);
    this.put(bucket, { edge: this.oc.TopoDS.Edge(raw.edge), info: null, normals: null, reversed: "", points });
    return points;
  }
  private put(bucket: number, entry: Entry): void {
    if (this.count >= SPARE_EDGES + 2 * this.atHand) this.clear();
    if (this.buckets.has(bucket)) this.buckets.get(bucket)!.push(entry);
    else this.buckets.set(bucket, [entry]);
    this.count++;
  }
}
