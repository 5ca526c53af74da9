import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { DrawnLine, View } from "@/core/engine/kernel";
import { scope, type OC } from "./oc";
import { samples } from "./topology";

/**
 * Lines of a shape as a draughtsman sees them from one side: outlines and sharp edges, hidden ones apart. Exact
 * hidden-line removal.
 */
export function hiddenLineDrawing(oc: OC, shape: TopoDS_Shape, view: View, hidden: boolean): DrawnLine[] {
  return scope((own) => {
    const eye = own(new oc.gp_Dir(view.toEye.x, view.toEye.y, view.toEye.z));
    const right = own(new oc.gp_Dir(view.right.x, view.right.y, view.right.z));
    const axes = own(new oc.gp_Ax2(own(new oc.gp_Pnt(0, 0, 0)), eye, right));
    const projector = own(new oc.HLRAlgo_Projector(axes));
    const algo = own(new oc.HLRBRep_Algo());
    algo.Add(shape, 0);
    algo.Projector(projector);
    algo.Update();
    algo.Hide();
    const out = own(new oc.HLRBRep_HLRToShape(algo));
    const lines: DrawnLine[] = [];
    const collect = (make: () => TopoDS_Shape, isHidden: boolean) => {
      let compound: TopoDS_Shape;
      try {
        compound = own(make());
        if (compound.IsNull()) return;
      } catch {
        return; // no lines of this kind
      }
      oc.BRepLib.BuildCurves3d(compound);
      const ex = own(
        new oc.TopExp_Explorer(compound, oc.TopAbs_ShapeEnum.TopAbs_EDGE, oc.TopAbs_ShapeEnum.TopAbs_SHAPE),
      );
      for (; ex.More(); ex.Next()) {
        const edge = own(oc.TopoDS.Edge(own(ex.Current())));
        lines.push({ points: samples(oc, edge, Math.PI / 36).map((p) => ({ x: p.x, y: p.y })), hidden: isHidden });
      }
    };
    collect(() => out.VCompound(), false);
    collect(() => out.OutLineVCompound(), false);
    if (hidden) {
      collect(() => out.HCompound(), true);
      collect(() => out.OutLineHCompound(), true);
    }
    return lines;
  });
}
