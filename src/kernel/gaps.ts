import type { TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { cross, dot, scale, sub, v3, type Vec3 } from "@/core/geometry/vec";
import { CONTACT } from "@/core/geometry/tolerance";
import { scope, type OC } from "./oc";
import { edgeNormal, take } from "./topology";

/** A sliver between an edge and the border that a face has instead of it; `normal` looks out of the face there. */
interface Sliver {
  corners: [Vec3, Vec3, Vec3];
  normal: Vec3;
}
/** What a face lacks up to its true edges. */
export type Gaps = Sliver[];

/** Pieces a loose edge is taken in. */
const PIECES = 96;

/**
 * The gaps between a face and its edges. Where a cone runs out through a round, the library draws the edge on the face
 * some hundredths of a millimetre beside the edge in space: face by face, areas and volumes are summed up to a border
 * that is not the edge. Edges whose tolerance is no more than a contact's are as they should be.
 */
export function gapsOf(oc: OC, face: TopoDS_Face): Gaps {
  return scope((own) => {
    const { TopAbs_EDGE, TopAbs_SHAPE } = oc.TopAbs_ShapeEnum;
    const gaps: Gaps = [];
    const ex = own(new oc.TopExp_Explorer(face, TopAbs_EDGE, TopAbs_SHAPE));
    for (; ex.More(); ex.Next()) {
      const edge = own(oc.TopoDS.Edge(own(ex.Current())));
      if (oc.BRep_Tool.Degenerated(edge) || oc.BRep_Tool.Tolerance(edge) <= CONTACT) continue;
      const inSpace = own(new oc.BRepAdaptor_Curve(edge));
      const onFace = own(new oc.BRepAdaptor_Curve(edge, face));
      const [from, to] = [inSpace.FirstParameter(), inSpace.LastParameter()];
      const at = (i: number) => from + ((to - from) * i) / PIECES;
      const points = (curve: typeof inSpace) => Array.from({ length: PIECES + 1 }, (_, i) => take(curve.EvalD0(at(i))));
      const [edgePoints, facePoints] = [points(inSpace), points(onFace)];
      const isBackward = edge.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED;
      for (let i = 0; i < PIECES; i++) {
        const normal = edgeNormal(oc, edge, face, at(i + 0.5));
        const put = (a: Vec3, b: Vec3, c: Vec3) => gaps.push({ corners: isBackward ? [a, c, b] : [a, b, c], normal });
        put(edgePoints[i], edgePoints[i + 1], facePoints[i + 1]);
        put(edgePoints[i], facePoints[i + 1], facePoints[i]);
      }
    }
    return gaps;
  });
}

/** What the gaps add to the area of their face, mm². */
export const areaOfGaps = (gaps: Gaps): number =>
  gaps.reduce((sum, { corners: [a, b, c], normal }) => sum + dot(cross(sub(b, a), sub(c, a)), normal) / 2, 0);

/**
 * What the gaps of all faces add to the volume of a shape, mm³: the flux through them about the point that the library
 * sums about, the mean of all corners (from memory of the library; that it is so is held in breakOut.test.ts).
 */
export function volumeOfGaps(oc: OC, shape: TopoDS_Shape, gaps: Gaps): number {
  if (!gaps.length) return 0;
  const centre = middleOfCorners(oc, shape);
  return gaps.reduce((sum, { corners }) => {
    const [a, b, c] = corners.map((p) => sub(p, centre));
    return sum + dot(a, cross(b, c)) / 6;
  }, 0);
}

function middleOfCorners(oc: OC, shape: TopoDS_Shape): Vec3 {
  return scope((own) => {
    const { TopAbs_VERTEX, TopAbs_SHAPE } = oc.TopAbs_ShapeEnum;
    let [sum, count] = [v3(0, 0, 0), 0];
    const ex = own(new oc.TopExp_Explorer(shape, TopAbs_VERTEX, TopAbs_SHAPE));
    for (; ex.More(); ex.Next()) {
      const p = take(oc.BRep_Tool.Pnt(own(oc.TopoDS.Vertex(own(ex.Current())))));
      [sum, count] = [v3(sum.x + p.x, sum.y + p.y, sum.z + p.z), count + 1];
    }
    return count ? scale(sum, 1 / count) : sum;
  });
}
