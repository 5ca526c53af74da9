import type { TopoDS_Shape } from "replicad-opencascadejs";
import { fromFrame, scale, sub, type Vec2, type Vec3 } from "@/core/geometry/vec";
import type { BodyStep, FaceRole, FaceTag, KernelStep } from "@/core/engine/kernel";
import { scope, type OC } from "./oc";
import { edgesInOrder, faceOf, solidOf } from "./solids";
import { prismSolid, ribSolid } from "./prismBodies";
import { tubeSolid } from "./tubeBody";
import { helixSolid } from "./helixBody";
import { wrappedVeePieces } from "./wrappedVeeBody";
import { wrappedSolid } from "./wrappedBody";
import { turnedSolid } from "./turnedBodies";
import { veePieces } from "./veeBody";
import { facesOf, ShapeMap } from "./topology";

/** A solid with a tag for each of its faces, in the order facesOf gives them. */
export interface Tagged {
  shape: TopoDS_Shape;
  tags: (FaceTag | null)[];
}

/** All copies of a body, tagged by row, role and instance. */
export function copiesOf(oc: OC, step: BodyStep): Tagged[] {
  const { body } = step;
  // An outline of several loops makes as many solids at every place.
  if (body.body === "prism" && body.more?.length) {
    const all = [body.outline, ...body.more];
    return all.flatMap((outline, k) =>
      copiesOf(oc, { ...step, body: { ...body, outline, more: undefined } }).map((t) => ({
        ...t,
        tags: t.tags.map((g) => g && { ...g, instance: g.instance * all.length + k }),
      })),
    );
  }
  return basesOf(oc, step).flatMap((base) => copiesAt(oc, step, base));
}

function basesOf(oc: OC, { body, frame, op }: BodyStep): BaseSolid[] {
  const adds = op === "leave";
  switch (body.body) {
    case "vee":
      return veePieces(oc, frame, body);
    case "turned":
      return body.outlines.map((o) => turnedSolid(oc, frame, o, body.sweep, adds));
    case "wrappedVee":
      return wrappedVeePieces(oc, frame, body);
    case "wrapped":
      return body.outlines.map((outline) => wrappedSolid(oc, frame, body, outline, adds));
    case "helix":
      return [helixSolid(oc, frame, body)];
    case "tube":
      return [tubeSolid(oc, frame, body, adds)];
    case "rib":
      return [ribSolid(oc, frame, body)];
    case "prism":
      return [prismSolid(oc, frame, body, adds)];
    case "revolved":
      return [solidOf(oc, frame, body, adds)];
    case "imported":
      throw new Error("the solid of a file is not made here");
  }
}

/** A solid with the role of each of its faces, at 0,0 of its frame. */
export interface BaseSolid {
  shape: TopoDS_Shape;
  roles: FaceRole[];
}

/** A solid moved to every place of its row, and freed. */
function copiesAt(oc: OC, step: BodyStep, base: BaseSolid): Tagged[] {
  // Two copies in one place are one cut; the same solid twice would only confuse the boolean.
  const seen = new Set<string>();
  const copies = step.places.flatMap((p, instance) => {
    const spot = `${Math.round(p.x * 1e6)},${Math.round(p.y * 1e6)}`;
    if (seen.has(spot)) return [];
    seen.add(spot);
    return [copyAt(oc, step, base, instance)];
  });
  base.shape.delete();
  return copies;
}

/** How far a place of a row is from 0,0 of its frame. */
export const wayTo = (step: BodyStep, place: Vec2): Vec3 =>
  sub(fromFrame(step.frame, place), fromFrame(step.frame, { x: 0, y: 0 }));

/** A solid moved to one place of its row. */
export function copyAt(oc: OC, step: BodyStep, base: BaseSolid, instance: number): Tagged {
  const shape = scope((own) => {
    const t = own(new oc.gp_Trsf());
    const way = wayTo(step, step.places[instance]);
    t.SetTranslation(own(new oc.gp_Vec(way.x, way.y, way.z)));
    return base.shape.Moved(own(new oc.TopLoc_Location(t)), false);
  });
  return {
    shape,
    tags: base.roles.map((role): FaceTag => ({
      row: step.row,
      role,
      instance: step.instances?.[instance] ?? instance,
    })),
  };
}

/** A plate in one piece: its outer loop and all holes carried down together. */
export function plateOf(oc: OC, step: Extract<KernelStep, { op: "plate" }>): Tagged {
  return scope((own) => {
    const face = own(
      faceOf(
        oc,
        step.frame,
        step.outer,
        step.holes.map((h) => h.loop),
        0,
      ),
    );
    const v = scale(step.frame.normal, step.height);
    const prism = own(new oc.BRepPrimAPI_MakePrism(face, own(new oc.gp_Vec(v.x, v.y, v.z)), false, true));
    const shape = prism.Shape();
    const tags = new ShapeMap<FaceTag>(oc);
    tags.set(own(prism.FirstShape()), { row: step.row, role: "bottom", instance: 0 });
    tags.set(own(prism.LastShape()), { row: step.row, role: "top", instance: 0 });
    // Edges come outer wire first, then hole by hole, each as many as its loop has segments.
    const owners: FaceTag[] = [
      ...step.outer.map(() => ({ row: step.row, role: "side" as const, instance: 0 })),
      ...step.holes.flatMap((h) => h.loop.map(() => ({ row: h.row, role: "wall" as const, instance: h.instance }))),
    ];
    edgesInOrder(oc, face, own).forEach((edge, i) => {
      const made = own(prism.Generated(edge));
      if (!made.IsEmpty() && owners[i]) tags.set(own(made.First()), owners[i]);
    });
    const faces = facesOf(oc, shape);
    const list = faces.map((f) => tags.get(f) ?? null);
    faces.forEach((f) => f.delete());
    return { shape, tags: list };
  });
}
