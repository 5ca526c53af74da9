import { problems } from "./problems";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { fail, ok, type Result } from "@/core/base/result";
import { MEET } from "@/core/geometry/tolerance";
import { fromFrame, type Box, type Frame, type Vec3 } from "@/core/geometry/vec";
import { pointAt } from "@/core/outline/meet";
import type { BodyStep, FaceTag, PlacedBody } from "@/core/engine/kernel";
import { copiesOf, type Tagged } from "./bodies";
import { boolean } from "./booleans";
import { scope, type OC } from "./oc";
import { boxOfShape, facesOf, ShapeMap, solidsOf } from "./topology";

/** Whether a body goes on only until it meets material, or is fitted between walls. */
export const isFitted = (body: PlacedBody): boolean =>
  body.body === "rib" || (body.body === "prism" && body.until === "material");

/** The box of a shape in the coordinates of a frame; z is the height over its plane. */
export function boxIn(oc: OC, shape: TopoDS_Shape, frame: Frame): Box {
  return scope((own) => {
    const axes = own(
      new oc.gp_Ax3(
        own(new oc.gp_Pnt(frame.origin.x, frame.origin.y, frame.origin.z)),
        own(new oc.gp_Dir(frame.normal.x, frame.normal.y, frame.normal.z)),
        own(new oc.gp_Dir(frame.x.x, frame.x.y, frame.x.z)),
      ),
    );
    const t = own(new oc.gp_Trsf());
    t.SetTransformation(axes);
    return boxOfShape(oc, own(shape.Moved(own(new oc.TopLoc_Location(t)), false)));
  });
}

/** The tools of a step cut to what is free between them and the material: the pieces that are meant of each. */
export function fittedTools(oc: OC, from: Tagged, step: BodyStep): Result<Tagged[]> {
  const whole = copiesOf(oc, step);
  const fitted: Tagged[] = [];
  try {
    for (const [i, tool] of whole.entries()) {
      const rest = boolean(oc, "cut", tool, [from]);
      if (!rest.ok) return rest;
      const pieces = piecesOf(oc, rest.value);
      rest.value.shape.delete();
      const meant = pieces.filter((p) => isMeant(oc, p.shape, step, i));
      pieces.filter((p) => !meant.includes(p)).forEach((p) => p.shape.delete());
      fitted.push(...meant);
      if (!meant.length)
        return fail(problems.noRoom(), {
          path: "plane",
        });
      const loose = meant.some((p) => runsAway(oc, p.shape, from.shape, step));
      if (loose) return missing(step.body);
    }
    return ok(fitted);
  } finally {
    whole.forEach((t) => t.shape.delete());
  }
}

const missing = (body: PlacedBody) =>
  body.body === "rib"
    ? fail(problems.ribRunsOut(), {
        path: "outline",
      })
    : fail(problems.meetsNotAllOver(), {
        path: "next",
      });

/** The solids of a shape, with the tags of their faces. */
function piecesOf(oc: OC, made: Tagged): Tagged[] {
  return scope((own) => {
    const tags = new ShapeMap<FaceTag | null>(oc);
    facesOf(oc, made.shape).forEach((f, i) => tags.set(own(f), made.tags[i]));
    return solidsOf(oc, made.shape).map((shape): Tagged => {
      const faces = facesOf(oc, shape).map((f) => own(f));
      return { shape, tags: faces.map((f) => tags.get(f) ?? null) };
    });
  });
}

/** What stands on the plane of the row, or holds a piece of its chain: the rest lies beyond the material. */
function isMeant(oc: OC, piece: TopoDS_Shape, step: BodyStep, copy: number): boolean {
  const { body, frame, places } = step;
  if (body.body !== "rib") return boxIn(oc, piece, frame).max.z > -MEET;
  const at = places[copy] ?? places[0];
  return body.chain.some((s) =>
    [0.5, 0.23, 0.77].some((t) => {
      const p = pointAt(s, t);
      return distanceTo(oc, piece, fromFrame(frame, { x: p.x + at.x, y: p.y + at.y }, PROBE)) < 2 * PROBE;
    }),
  );
}
/**
 * How far under its plane a rib is probed, mm. To a piece that holds the place it is as far as to its nearest face, the
 * one on the plane.
 */
const PROBE = 1e-3;

function distanceTo(oc: OC, shape: TopoDS_Shape, p: Vec3): number {
  return scope((own) => {
    const vertex = own(new oc.BRepBuilderAPI_MakeVertex(own(new oc.gp_Pnt(p.x, p.y, p.z))));
    const measure = own(new oc.BRepExtrema_DistShapeShape(own(vertex.Vertex()), shape));
    return measure.IsDone() ? measure.Value() : Infinity;
  });
}

/** Whether a fitted piece comes out of the box of the part: nothing stopped it there. */
function runsAway(oc: OC, piece: TopoDS_Shape, part: TopoDS_Shape, { frame, body }: BodyStep): boolean {
  const [a, b] = [boxIn(oc, piece, frame), boxIn(oc, part, frame)];
  const under = body.body === "rib" && body.depth !== "next" ? false : a.min.z < b.min.z - MEET;
  if (body.body !== "rib") return under;
  return (
    under ||
    a.min.x < b.min.x - MEET ||
    a.max.x > b.max.x + MEET ||
    a.min.y < b.min.y - MEET ||
    a.max.y > b.max.y + MEET
  );
}
