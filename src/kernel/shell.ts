import { problems } from "./problems";
import { fail, ok, type Result } from "@/core/base/result";
import type { FaceTag, KernelStep } from "@/core/engine/kernel";
import { CONTACT } from "@/core/geometry/tolerance";
import type { Tagged } from "./bodies";
import { boolean, follow } from "./booleans";
import { scope, type OC } from "./oc";
import type { State } from "./state";
import { isClosed } from "./topology";

/** A part hollowed to an even wall. Without an open face a closed hollow is left inside it. The caller frees it. */
export function hollowed(oc: OC, from: State, step: Extract<KernelStep, { op: "shell" }>): Result<Tagged> {
  const tag: FaceTag = { row: step.row, role: "wall", instance: 0 };
  const tooThick = fail(problems.tooThick(), {
    path: "thick",
  });
  return scope((own) => {
    const maker = own(new oc.BRepOffsetAPI_MakeThickSolid());
    const open = own(new oc.NCollection_List_TopoDS_Shape());
    for (const i of step.open) open.Append(from.faces[i]);
    const isOpen = step.open.length > 0;
    const { BRepOffset_Skin } = oc.BRepOffset_Mode;
    const { GeomAbs_Intersection } = oc.GeomAbs_JoinType;
    const range = own(new oc.Message_ProgressRange());
    if (!isOpen) {
      const inner = own(new oc.BRepOffsetAPI_MakeOffsetShape());
      inner.PerformByJoin(
        from.shape,
        -step.thick,
        CONTACT,
        BRepOffset_Skin,
        false,
        false,
        GeomAbs_Intersection,
        false,
        range,
      );
      if (!inner.IsDone()) return tooThick;
      const shape = own(inner.Shape());
      return boolean(oc, "cut", from, [{ shape, tags: from.tags.map(() => tag) }]);
    }
    maker.MakeThickSolidByJoin(
      from.shape,
      open,
      -step.thick,
      CONTACT,
      BRepOffset_Skin,
      false,
      false,
      GeomAbs_Intersection,
      false,
      range,
    );
    if (!maker.IsDone()) return tooThick;
    const shape = maker.Shape();
    const check = own(new oc.BRepCheck_Analyzer(shape, true, false, false));
    if (!check.IsValid() || !isClosed(oc, shape)) {
      shape.delete();
      return tooThick;
    }
    return ok(follow(oc, shape, maker, [from], tag));
  });
}
