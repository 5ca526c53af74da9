import type { TopoDS_Edge, TopoDS_Shape } from "replicad-opencascadejs";
import type { PlacedBody } from "@/core/engine/kernel";
import { turn } from "@/core/geometry/motion";
import { COINCIDENT, MEET } from "@/core/geometry/tolerance";
import { add, distance2, fromFrame, scale, v2, v3, type Frame, type Vec2, type Vec3 } from "@/core/geometry/vec";
import { directionAt, pointAt } from "@/core/outline/meet";
import { endOf, startOf, type Line, type Segment } from "@/core/outline";
import { bezierThrough } from "@/core/geometry/bezier";
import { halved } from "./wrappedBody";
import type { BaseSolid } from "./bodies";
import { scope, type OC } from "./oc";
import { dir, outward, pnt, polygonFace, rolesOf, ruledFace, sewn } from "./turnedBodies";
import { ShapeMap } from "./topology";

type WrappedVee = Extract<PlacedBody, { body: "wrappedVee" }>;

/** How near curves keep to the true ones, mm, and the pieces they are parted into at most. */
const FOLLOWED = 1e-8;
const MOST_PIECES = 64;
const WHOLE = 2 * Math.PI;

/**
 * The grooves of a pointed cutter that always points at the axis of its round: a straight wedge along the axis, a turned
 * one round it, and parts of its own cone at ends and corners. All end flat where they meet, so that they share faces.
 */
export function wrappedVeePieces(oc: OC, frame: Frame, body: WrappedVee): BaseSolid[] {
  const groove = new WrappedVeeGroove(oc, frame, body);
  return body.chains.flatMap((chain) =>
    groove.along(chain.filter((s) => s.kind === "arc" || distance2(s.from, s.to) > MEET).flatMap(halved)),
  );
}

class WrappedVeeGroove {
  constructor(
    private readonly oc: OC,
    private readonly frame: Frame,
    private readonly body: WrappedVee,
  ) {}

  along(chain: Segment[]): BaseSolid[] {
    if (!chain.length) return [];
    const wedges = chain.map((l) => this.wedge(l));
    const [first, last] = [chain[0], chain[chain.length - 1]];
    if (first === last && first.kind === "line" && this.isRing(first)) return wedges;
    const closed = distance2(startOf(first), endOf(last)) < MEET;
    const corners = chain.flatMap((l, i) => {
      const before = chain[i - 1] ?? (closed ? last : null);
      return before ? this.corner(before, l) : [];
    });
    if (closed) return [...wedges, ...corners];
    const [back, on] = [directionAt(first, 0), directionAt(last, 1)];
    return [
      ...wedges,
      ...corners,
      this.cone(startOf(first), angleOf(back) + Math.PI / 2, Math.PI),
      this.cone(endOf(last), angleOf(on) - Math.PI / 2, Math.PI),
    ];
  }

  private isRing = ({ from, to }: Line) => Math.abs(from.x - to.x) > WHOLE * this.body.radius - COINCIDENT;

  /** The tangent plane at a place of the unrolled round: x round it, y along it. */
  private at({ x, y }: Vec2): Frame {
    const { frame, body } = this;
    const turned = (d: Vec3) => turn(d, frame.y, x / body.radius);
    const normal = turned(frame.normal);
    const axis = fromFrame(frame, v2(0, y), body.radius);
    return { origin: add(axis, scale(normal, body.radius)), x: turned(frame.x), y: frame.y, normal };
  }

  /** The cutter's section at a place, across a direction in the tangent plane: its point and its two upper corners. */
  private section(place: Vec2, across: Vec2): Vec3[] {
    const { depth, halfAngle, over } = this.body;
    const half = (depth + over) * Math.tan(halfAngle);
    const f = this.at(place);
    const corner = (side: number) => fromFrame(f, v2(across.x * half * side, across.y * half * side), -over);
    return [fromFrame(f, v2(0, 0), depth), corner(1), corner(-1)];
  }

  private wedge(s: Segment): BaseSolid {
    if (s.kind === "line" && Math.abs(s.from.x - s.to.x) < MEET) return this.straight(s);
    return s.kind === "line" && Math.abs(s.from.y - s.to.y) < MEET ? this.turned(s) : this.ruled(s);
  }
  private straight(line: Line): BaseSolid {
    const { oc, frame } = this;
    const way = scale(frame.y, line.to.y - line.from.y);
    return this.swept(this.section(line.from, v2(1, 0)), (face, own) =>
      own(new oc.BRepPrimAPI_MakePrism(face, own(new oc.gp_Vec(way.x, way.y, way.z)), false, true)).Shape(),
    );
  }

  private turned(line: Line): BaseSolid {
    const { oc, frame, body } = this;
    return this.swept(this.section(line.from, v2(0, 1)), (face, own) => {
      const foot = own(pnt(oc, fromFrame(frame, v2(0, 0), body.radius)));
      const axis = own(new oc.gp_Ax1(foot, own(dir(oc, frame.y))));
      const angle = (line.to.x - line.from.x) / body.radius;
      const made = this.isRing(line)
        ? new oc.BRepPrimAPI_MakeRevol(face, axis, false)
        : new oc.BRepPrimAPI_MakeRevol(face, axis, angle, false);
      return own(made).Shape();
    });
  }

  /** Aslant or along an arc: walls ruled between the way of its point and those of its upper corners. */
  private ruled(s: Segment): BaseSolid {
    const { oc } = this;
    const at = (t: number) => {
      const way = directionAt(s, t);
      return this.section(pointAt(s, t), v2(-way.y, way.x));
    };
    const shape = scope((own) => {
      const faces = this.pieces(at).flatMap((edges) => {
        const [point, left, right] = edges.map((poles) => own(bezierEdge(oc, poles, own)));
        return [ruledFace(oc, point, left, own), ruledFace(oc, right, point, own), ruledFace(oc, left, right, own)];
      });
      return sewn(oc, [...faces, own(polygonFace(oc, at(0))), own(polygonFace(oc, at(1)))]);
    });
    return { shape, roles: rolesOf(oc, shape, new ShapeMap(oc), "wall") };
  }

  /** The ways of the three corners of a section as curves by poles, in as many pieces as follow them closely. */
  private pieces(at: (t: number) => Vec3[]): Vec3[][][] {
    for (let n = 1; n <= MOST_PIECES; n *= 2) {
      const made = Array.from({ length: n }, (_, i) =>
        [0, 1, 2].map((corner) => {
          const poles = bezierThrough((t) => {
            const { x, y, z } = at((i + t) / n)[corner];
            return [x, y, z];
          }, FOLLOWED);
          return poles?.map(([x, y, z]) => v3(x, y, z)) ?? null;
        }),
      );
      if (made.every((p): p is Vec3[][] => p.every((poles) => poles !== null))) return made;
    }
    throw new Error("a groove round a row could not be followed");
  }

  /** What the cutter leaves on the outer side of a corner; nothing where the chain runs straight on. */
  private corner(before: Segment, after: Segment): BaseSolid[] {
    const [a, b] = [directionAt(before, 1), directionAt(after, 0)];
    const bend = Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);
    if (Math.abs(bend) < MEET) return [];
    const outside = angleOf(a) - (Math.sign(bend) * Math.PI) / 2;
    return [this.cone(startOf(after), bend > 0 ? outside : outside + bend, Math.abs(bend))];
  }

  /** Part of the cutter's cone at a place, from an angle in the tangent plane on. */
  private cone(place: Vec2, from: number, sweep: number): BaseSolid {
    const { oc } = this;
    const f = this.at(place);
    const [tip, rim] = this.section(place, v2(Math.cos(from), Math.sin(from)));
    const top = fromFrame(f, v2(0, 0), -this.body.over);
    return this.swept([tip, rim, top], (face, own) => {
      const axis = own(new oc.gp_Ax1(own(pnt(oc, f.origin)), own(dir(oc, f.normal))));
      return own(new oc.BRepPrimAPI_MakeRevol(face, axis, sweep, false)).Shape();
    });
  }

  private swept(section: Vec3[], sweep: (face: ReturnType<typeof polygonFace>, own: Own) => TopoDS_Shape): BaseSolid {
    const { oc } = this;
    const shape = scope((own) => outward(oc, sweep(own(polygonFace(oc, section)), own)));
    return { shape, roles: rolesOf(oc, shape, new ShapeMap(oc), "wall") };
  }
}

type Own = Parameters<Parameters<typeof scope>[0]>[0];
const angleOf = (d: Vec2): number => Math.atan2(d.y, d.x);

function bezierEdge(oc: OC, poles: Vec3[], own: Own): TopoDS_Edge {
  const list = own(new oc.NCollection_Array1_gp_Pnt(1, poles.length));
  poles.forEach((p, i) => list.SetValue(i + 1, own(pnt(oc, p))));
  const curve = own(new oc.Geom_BezierCurve(list));
  return own(new oc.BRepBuilderAPI_MakeEdge(curve)).Edge();
}
