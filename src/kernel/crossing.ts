import type { TopoDS_Compound, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import type { FaceInfo } from "@/core/engine/kernel";
import { COINCIDENT, CONTACT } from "@/core/geometry/tolerance";
import { dot, type Box, type Vec3 } from "@/core/geometry/vec";
import type { MeasuredEdge } from "@/core/outline/fromPart";
import { scope, type OC } from "./oc";
import { edgesInOrder } from "./solids";
import { measureCurve } from "./topology";

/** Shapes side by side as one. The caller frees it. */
export const compoundOf = (oc: OC, shapes: TopoDS_Shape[]): TopoDS_Compound =>
  scope((own) => {
    const builder = own(new oc.TopoDS_Builder());
    const compound = new oc.TopoDS_Compound();
    builder.MakeCompound(compound);
    for (const s of shapes) builder.Add(compound, s);
    return compound;
  });

/**
 * The edges a plane and faces have in common. Only faces that the plane can meet are asked: a part with letters has
 * hundreds, and each takes the library its time.
 */
export function crossingOf(
  oc: OC,
  faces: TopoDS_Face[],
  infos: FaceInfo[],
  { origin, normal }: { origin: Vec3; normal: Vec3 },
): MeasuredEdge[] {
  const level = dot(origin, normal);
  const met = faces.filter((_, i) => reaches(infos[i].box, normal, level));
  if (!met.length) return [];
  return scope((own) => {
    const at = own(new oc.gp_Pnt(origin.x, origin.y, origin.z));
    const plane = own(new oc.gp_Pln(at, own(new oc.gp_Dir(normal.x, normal.y, normal.z))));
    const section = own(new oc.BRepAlgoAPI_Section(own(compoundOf(oc, met)), plane, false));
    section.Build(own(new oc.Message_ProgressRange()));
    return edgesInOrder(oc, own(section.Shape()), own).map((e) => measureCurve(oc, own(oc.TopoDS.Edge(e))));
  });
}

/** Whether a box reaches a level along a direction. */
function reaches({ min, max }: Box, n: Vec3, level: number): boolean {
  const middle = dot(n, min) / 2 + dot(n, max) / 2;
  const half =
    (Math.abs(n.x) * (max.x - min.x) + Math.abs(n.y) * (max.y - min.y) + Math.abs(n.z) * (max.z - min.z)) / 2;
  return Math.abs(middle - level) <= half + CONTACT;
}

const figure = (n: number): string => (Math.round(n * 1e9) / 1e9 + 0).toFixed(9);
/** A direction by its figures. */
export const wayName = (n: Vec3): string => [n.x, n.y, n.z].map(figure).join();
/** A plane by its direction, of either side the one that looks along the first axis it leans to, and its level. */
export function planeName(origin: Vec3, n: Vec3): [way: string, level: string] {
  const first = [n.x, n.y, n.z].find((c) => Math.abs(c) > COINCIDENT) ?? 1;
  const sign = Math.sign(first);
  const way = { x: sign * n.x, y: sign * n.y, z: sign * n.z };
  return [wayName(way), figure(dot(origin, way))];
}

/** What is known under a name, or made now and known from then on. */
export function kept<T>(known: Map<string, T>, name: string, make: () => T): T {
  const found = known.get(name);
  if (found !== undefined) return found;
  const made = make();
  known.set(name, made);
  return made;
}
