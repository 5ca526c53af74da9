import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { BodyStep } from "@/core/engine/kernel";
import { add, cross, dot, length, scale, sub, unit, v3, type Box, type Frame, type Vec3 } from "@/core/geometry/vec";
import { copiesOf, type Tagged } from "./bodies";
import { boxIn } from "./fitted";
import { scope, type OC } from "./oc";
import { solidsOf } from "./topology";

interface Stretch {
  from: number;
  to: number;
}

/** A plane through the job's zero that looks in a direction. */
export function levelFrame(normal: Vec3): Frame {
  const aside = Math.abs(normal.z) < 0.9 ? v3(0, 0, 1) : v3(1, 0, 0);
  const x = unit(sub(aside, scale(normal, dot(aside, normal))));
  return { origin: v3(0, 0, 0), x, y: cross(normal, x), normal };
}

/** What two shapes have in common. The caller frees it. */
function common(oc: OC, a: TopoDS_Shape, b: TopoDS_Shape): TopoDS_Shape {
  return scope((own) => {
    const op = own(new oc.BRepAlgoAPI_Common());
    const args = own(new oc.NCollection_List_TopoDS_Shape());
    const tools = own(new oc.NCollection_List_TopoDS_Shape());
    args.Append(a);
    tools.Append(b);
    op.SetArguments(args);
    op.SetTools(tools);
    op.SetNonDestructive(true);
    op.Build(own(new oc.Message_ProgressRange()));
    return op.Shape();
  });
}

/** For each place of a step, where its tools run through material: depths below its frame. */
export function passagesOf(oc: OC, part: Tagged, step: BodyStep): Stretch[][] {
  return step.places.map((place) =>
    scope((own) =>
      copiesOf(oc, { ...step, places: [place], instances: undefined }).flatMap((tool) => {
        const met = own(common(oc, own(tool.shape), part.shape));
        return solidsOf(oc, met).map((piece): Stretch => {
          const { min, max } = boxIn(oc, own(piece), step.frame);
          return { from: -max.z, to: -min.z };
        });
      }),
    ),
  );
}

/** Where a line runs through a solid: distances from its start. */
export function stretchesOf(oc: OC, shape: TopoDS_Shape, box: Box, start: Vec3, direction: Vec3): Stretch[] {
  return scope((own) => {
    const far = length(sub(box.max, box.min)) + length(sub(start, box.min)) + 1;
    const pnt = (p: Vec3) => own(new oc.gp_Pnt(p.x, p.y, p.z));
    const line = own(new oc.BRepBuilderAPI_MakeEdge(pnt(start), pnt(add(start, scale(direction, far)))));
    const met = own(common(oc, own(line.Edge()), shape));
    const { TopAbs_EDGE, TopAbs_SHAPE } = oc.TopAbs_ShapeEnum;
    const ex = own(new oc.TopExp_Explorer(met, TopAbs_EDGE, TopAbs_SHAPE));
    const found: Stretch[] = [];
    for (; ex.More(); ex.Next()) {
      const { min, max } = boxIn(oc, own(ex.Current()), { ...levelFrame(direction), origin: start });
      found.push({ from: min.z, to: max.z });
    }
    return found.sort((a, b) => a.from - b.from);
  });
}
