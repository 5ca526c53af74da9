import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { saidPlace } from "../number";
import { dot, toFrame, type Frame, type Side, type Vec2, type Vec3 } from "../geometry/vec";
import { oriented, type Region } from "./boolean";
import { endToEnd, stitch } from "./ends";
import type { OutlineItem } from "./items";
import type { Segment } from "./outline";
import { COINCIDENT, PARALLEL } from "../geometry/tolerance";

/** An item that takes its lines from the part as it stands after a row, with its numbers in millimetres. */
export type PartItem = {
  row: string;
  /** Another part's name. */
  part?: string;
  /** That part as this of its setups left it. */
  setup?: number;
} & (
  | { item: "face"; face: Extract<OutlineItem, { item: "face" }>["face"] }
  | { item: "edges"; edges: Extract<OutlineItem, { item: "edges" }>["edges"] }
  | { item: "section"; axis: "X" | "Y" | "Z"; at: number }
  /** `band`: only of what lies within a distance of one of its sides. */
  | { item: "shadow"; band?: { from: Side; deep: number } }
);
export function partKey(i: PartItem): string {
  const when = i.setup === undefined ? i.row : `setup ${i.setup}`;
  const of = `${i.part === undefined ? "" : `${i.part.toLowerCase()}:`}${when}`;
  switch (i.item) {
    case "face":
      return `${of}/${i.face}`;
    case "edges":
      return `${of}/${i.edges}`;
    case "section":
      return `${of}/${i.axis}${i.at}`;
    case "shadow":
      return `${of}/shadow${i.band ? ` ${i.band.deep} from ${i.band.from}` : ""}`;
  }
}

/** An edge as the solid library measures it. */
export interface MeasuredEdge {
  curve: "line" | "circle" | "ellipse" | "other";
  from: Vec3;
  to: Vec3;
  middle: Vec3;
  centre?: Vec3;
  radius?: number;
  axis?: Vec3;
  sweep?: number;
}

const near = (a: Vec2, b: Vec2): boolean => Math.hypot(a.x - b.x, a.y - b.y) < COINCIDENT;

/** A circle that is seen from the side is none in the plane either. */
const nameOfCurve = (e: MeasuredEdge): string =>
  e.curve === "ellipse"
    ? "part of an ellipse"
    : e.curve === "circle"
      ? "an arc that leans out of the plane"
      : "a free curve";

/**
 * Edges lying in a plane as closed loops of exact lines and arcs, in the coordinates of the plane. Edges that are
 * neither are said.
 */
export function loopsOfEdges(edges: MeasuredEdge[], frame: Frame): Result<Region> {
  const pieces: Segment[] = [];
  const flat = (p: Vec3): Vec2 => {
    const q = toFrame(frame, p);
    return { x: q.x, y: q.y };
  };
  for (const e of edges) {
    const from = flat(e.from),
      to = flat(e.to),
      middle = flat(e.middle);
    // Where a plane touches a seam, an edge without length comes of it.
    if (near(from, to) && near(from, middle)) continue;
    if (e.curve === "line") pieces.push({ kind: "line", from, to });
    else if (e.curve === "circle" && e.centre && e.axis && Math.abs(dot(e.axis, frame.normal)) > PARALLEL) {
      const c = flat(e.centre),
        angle = (p: Vec2) => Math.atan2(p.y - c.y, p.x - c.x);
      const up = (a: number) => {
        let x = a;
        while (x <= COINCIDENT) x += 2 * Math.PI;
        while (x > 2 * Math.PI + COINCIDENT) x -= 2 * Math.PI;
        return x;
      };
      const start = angle(from);
      if (Math.hypot(from.x - to.x, from.y - to.y) < 1e-7)
        pieces.push({ kind: "arc", centre: c, radius: e.radius!, start, sweep: 2 * Math.PI });
      else {
        const turn = up(angle(to) - start),
          through = up(angle(middle) - start);
        pieces.push({
          kind: "arc",
          centre: c,
          radius: e.radius!,
          start,
          sweep: through < turn ? turn : turn - 2 * Math.PI,
        });
      }
    } else return fail(problems.edgeNeitherLineNorArc(nameOfCurve(e), saidPlace(from), saidPlace(to)));
  }
  const { loops, open } = stitch(endToEnd(pieces).flat());
  if (open.length) return fail(problems.edgesDoNotClose());
  return loops.length ? ok(oriented(loops)) : fail(problems.nothingOfThePart());
}
