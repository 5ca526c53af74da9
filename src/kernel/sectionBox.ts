import type { TopoDS_Shape } from "replicad-opencascadejs";
import { add, cross, dot, length, scale, sub, v3, type Box, type Vec3 } from "@/core/geometry/vec";
import { scope, type OC } from "./oc";

/** A box large enough to take away everything of a part that stands before a plane. The caller frees it. */
export function boxBefore(oc: OC, part: Box, origin: Vec3, normal: Vec3): TopoDS_Shape {
  return scope((own) => {
    const size = length(sub(part.max, part.min)) * 2 + 10;
    const side = Math.abs(normal.z) < 0.9 ? v3(0, 0, 1) : v3(1, 0, 0);
    const across = sub(side, scale(normal, dot(side, normal))),
      x = scale(across, 1 / length(across)),
      y = cross(normal, x);
    const centre = scale(add(part.min, part.max), 0.5);
    const onPlane = sub(centre, scale(normal, dot(sub(centre, origin), normal)));
    const corner = sub(onPlane, add(scale(x, size / 2), scale(y, size / 2)));
    const axes = own(
      new oc.gp_Ax2(
        own(new oc.gp_Pnt(corner.x, corner.y, corner.z)),
        own(new oc.gp_Dir(normal.x, normal.y, normal.z)),
        own(new oc.gp_Dir(x.x, x.y, x.z)),
      ),
    );
    return own(new oc.BRepPrimAPI_MakeBox(axes, size, size, size)).Shape();
  });
}
