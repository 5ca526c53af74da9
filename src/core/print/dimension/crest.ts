import { dot, length, scale, sub, type Vec3 } from "../../geometry/vec";
import { COINCIDENT, CONTACT, PARALLEL } from "../../geometry/tolerance";
import type { FaceInfo } from "../../engine/kernel";
import type { Measure } from "./measure";
import type { Shape, Surface } from "./surfaces";

type Cylinder = Extract<Shape, { is: "cylinder" }>;

/** How far along a direction a line comes out of a round it runs across: of its two ways through, the far one. */
function comesOut(round: Cylinder, through: Vec3, way: Vec3): number | null {
  const off = sub(through, round.origin);
  const flat = sub(off, scale(round.direction, dot(off, round.direction)));
  const along = dot(flat, way);
  const across = length(sub(flat, scale(way, along)));
  const rest = round.radius ** 2 - across ** 2;
  return rest < 0 ? null : dot(through, way) - along + Math.sqrt(rest);
}

/**
 * The depth of a hole that comes out of a round: from where its own axis meets the round down to its floor.
 * @param round the face it comes out of
 */
export function depthFromCrest(floor: Surface, usable: Surface[], round: FaceInfo | null): Measure[] {
  const wall = usable.find((s) => s.row === floor.row && s.instance === floor.instance && s.shape.is === "cylinder");
  if (!round?.axis || wall?.shape.is !== "cylinder") return [];
  const { direction } = wall.shape;
  const outside = usable.find(
    ({ shape, row }) =>
      row !== floor.row &&
      shape.is === "cylinder" &&
      Math.abs(shape.radius - round.radius!) < CONTACT &&
      Math.abs(dot(shape.direction, round.axis!.direction)) > PARALLEL,
  );
  if (!outside || Math.abs(dot(direction, round.axis.direction)) > COINCIDENT) return [];
  return [
    {
      family: "depth",
      between: "mouth",
      words: "from where its axis meets the round",
      ids: [floor.id, wall.id, outside.id],
      of: (get) => {
        const [end, axis, crest] = [floor.id, wall.id, outside.id].map(get);
        if (axis.is !== "cylinder" || crest.is !== "cylinder") return null;
        const up = axis.direction;
        const from = comesOut(crest, axis.origin, up);
        const to = end.is === "plane" ? end.offset * Math.sign(dot(end.normal, up)) : dot(end.origin, up);
        return from === null ? null : from - to;
      },
    },
  ];
}
