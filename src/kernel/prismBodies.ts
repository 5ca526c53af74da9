import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { FaceRole, FaceTag, PlacedBody, PlacedPrism } from "@/core/engine/kernel";
import type { RoundedEnd } from "@/core/rows";
import { add, boxOf, cross, fromFrame, scale, v2, type Frame, type Vec2 } from "@/core/geometry/vec";
import { loopBox, type Loop } from "@/core/outline";
import { prolonged, thickened } from "@/core/outline/thicken";
import type { BaseSolid, Tagged } from "./bodies";
import { boolean, follow } from "./booleans";
import { scope, type OC } from "./oc";
import { boxBefore } from "./sectionBox";
import { solidOf } from "./solids";
import { facesOf } from "./topology";

/** A prism with what is done to it before it is used: leaning walls, rounded ends, a slanted end. */
export function prismSolid(oc: OC, frame: Frame, body: PlacedPrism, adds: boolean): BaseSolid {
  let made = solidOf(oc, frame, body, adds);
  if (body.draft) made = drafted(oc, frame, body, made);
  for (const end of body.ends ?? []) made = without(oc, made, cornersOfEnd(oc, frame, body, end), "side");
  if (body.limit) made = without(oc, made, [beyond(oc, frame, body)], adds ? "top" : "floor");
  return made;
}

/** A tool used up on a solid before it is one itself; the new faces have a role of their own. */
function without(oc: OC, from: BaseSolid, tools: TopoDS_Shape[], fresh: FaceRole): BaseSolid {
  const tag = (role: FaceRole): FaceTag => ({ row: "", role, instance: 0 });
  const tagged = (shape: TopoDS_Shape, role: FaceRole): Tagged => {
    const faces = facesOf(oc, shape);
    faces.forEach((f) => f.delete());
    return { shape, tags: faces.map(() => tag(role)) };
  };
  const made = boolean(
    oc,
    "cut",
    { shape: from.shape, tags: from.roles.map(tag) },
    tools.map((t) => tagged(t, fresh)),
  );
  for (const shape of [from.shape, ...tools]) shape.delete();
  if (!made.ok) throw new Error(made.problems[0].message);
  return { shape: made.value.shape, roles: made.value.tags.map((t) => t?.role ?? fresh) };
}

/** All that lies past a slanted plane, as it looks. */
function beyond(oc: OC, frame: Frame, body: PlacedPrism): TopoDS_Shape {
  const { min, max } = loopBox(body.outline.outer);
  const corners = [min, max, v2(min.x, max.y), v2(max.x, min.y)].flatMap((c) =>
    [body.from, body.to].map((d) => fromFrame(frame, c, d)),
  );
  return boxBefore(oc, boxOf(corners), body.limit!.origin, body.limit!.normal);
}

/** Walls leaning inwards from the plane of a prism on, the way it goes. */
function drafted(oc: OC, frame: Frame, body: PlacedPrism, base: BaseSolid): BaseSolid {
  return scope((own) => {
    const way = scale(frame.normal, body.from > 0 ? -1 : 1);
    const { origin, normal } = frame;
    const plane = own(
      new oc.gp_Pln(own(new oc.gp_Pnt(origin.x, origin.y, origin.z)), own(new oc.gp_Dir(normal.x, normal.y, normal.z))),
    );
    const direction = own(new oc.gp_Dir(way.x, way.y, way.z));
    const maker = own(new oc.BRepOffsetAPI_DraftAngle(own(base.shape)));
    facesOf(oc, base.shape).forEach((f, i) => {
      if (base.roles[i] === "side" || base.roles[i] === "wall") maker.Add(own(f), direction, body.draft!, plane, true);
      else f.delete();
    });
    maker.Build(own(new oc.Message_ProgressRange()));
    if (!maker.IsDone()) throw new Error("the walls cannot lean so much");
    const tags = base.roles.map((role): FaceTag => ({ row: "", role, instance: 0 }));
    const made = follow(oc, maker.Shape(), maker, [{ shape: base.shape, tags }], null);
    return { shape: made.shape, roles: made.tags.map((t) => t?.role ?? "side") };
  });
}

/** The two corners that a full round takes off an end of a strip: a square less a quarter, through its thickness. */
function cornersOfEnd(oc: OC, frame: Frame, body: PlacedPrism, end: RoundedEnd): TopoDS_Shape[] {
  const out = add(scale(frame.x, end.out.x), scale(frame.y, end.out.y));
  const middle = (body.from + body.to) / 2;
  const radius = Math.abs(body.from - body.to) / 2;
  const across = cross(out, frame.normal);
  // The plate as it is seen: x outwards, y along the frame's normal, the thickness across.
  const seen: Frame = {
    origin: add(fromFrame(frame, end.at, middle), scale(across, end.thick / 2)),
    x: out,
    y: frame.normal,
    normal: across,
  };
  const quarter = (sign: 1 | -1): Loop => {
    const [corner, side, tip]: Vec2[] = [v2(0, sign * radius), v2(-radius, sign * radius), v2(0, 0)];
    const arc = { kind: "arc" as const, centre: v2(-radius, 0), radius, start: 0, sweep: (sign * Math.PI) / 2 };
    return [arc, { kind: "line", from: side, to: corner }, { kind: "line", from: corner, to: tip }];
  };
  return ([1, -1] as const).map(
    (sign) =>
      solidOf(oc, seen, { body: "prism", outline: { outer: quarter(sign), holes: [] }, from: 0, to: end.thick }, false)
        .shape,
  );
}

/** A rib before it is fitted between its walls: the thickened chain, prolonged past everything, and down past it. */
export function ribSolid(oc: OC, frame: Frame, body: Extract<PlacedBody, { body: "rib" }>): BaseSolid {
  const loop = thickened(prolonged(body.chain, body.reach), { left: body.thick / 2, right: body.thick / 2 });
  if (!loop.ok) throw new Error(loop.problems[0].message);
  const down = body.depth === "next" ? body.reach * 2 : body.depth;
  return solidOf(oc, frame, { body: "prism", outline: { outer: loop.value, holes: [] }, from: down, to: 0 }, true);
}
