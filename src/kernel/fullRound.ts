import type { BodyStep, EdgeInfo, FaceTag } from "@/core/engine/kernel";
import { cross, dot, length, scale, sub, unit, v2, type Frame, type Vec2, type Vec3 } from "@/core/geometry/vec";
import { loopArea, type Loop } from "@/core/outline";
import { CONTACT, MEET, PARALLEL } from "@/core/geometry/tolerance";
import { copiesOf, type Tagged } from "./bodies";
import type { KnownEdge } from "./edgeCache";
import type { Library } from "./library";
import type { State } from "./state";

/**
 * Rounds that use up the face beside them to its last line (R30 on both edges of a 60 wide top): the library's own
 * rounding wants something of it left. Along straight edges between flats that end squarely, a round is what a tool
 * takes whose section is the corner less the circle.
 */

/** How far a tool reaches out of the part, of its size. */
const OUT = 0.1;

/** A straight edge between two flats, with the ways into them and the angle between their outward normals. */
interface Corner {
  at: Vec3;
  along: Vec3;
  long: number;
  normals: [Vec3, Vec3];
  ways: [Vec3, Vec3];
  angle: number;
}

/** The tools of rounds on edges; null where one of them is no straight edge between flats that ends squarely. */
export function fullRoundTools(
  library: Library,
  from: State,
  edges: KnownEdge[],
  all: KnownEdge[],
  size: number,
  tag: FaceTag,
): Tagged[] | null {
  const infos = all.map((e) => library.edges.info(e, from.faces));
  const corners = edges.map((e) => cornerAt(library, from, infos[all.indexOf(e)], infos));
  if (!corners.every((c) => c !== null)) return null;
  return corners.flatMap((corner) => {
    const tools = copiesOf(library.oc, toolOf(corner, size));
    return tools.map(({ shape, tags }) => ({ shape, tags: tags.map(() => tag) }));
  });
}

function cornerAt(
  { faces: cache }: Library,
  { faces }: State,
  info: EdgeInfo | null,
  all: (EdgeInfo | null)[],
): Corner | null {
  if (!info || info.curve !== "line" || info.turn !== "convex") return null;
  const along = unit(sub(info.to, info.from));
  if (!isSquareAt(info.from, along, info, all) || !isSquareAt(info.to, along, info, all)) return null;
  const [a, b] = info.faces.map((f) => cache.flat(faces[f])?.normal);
  if (!a || !b) return null;
  const cosine = dot(a, b);
  // Into each flat, square to the edge: away from where the other looks.
  const ways: [Vec3, Vec3] = [unit(sub(scale(a, cosine), b)), unit(sub(scale(b, cosine), a))];
  return { at: info.from, along, long: info.length, normals: [a, b], ways, angle: Math.acos(cosine) };
}

/** Whether every other edge that ends where an edge ends leaves it squarely. */
function isSquareAt(end: Vec3, along: Vec3, own: EdgeInfo, all: (EdgeInfo | null)[]): boolean {
  return all.every((e) => {
    if (!e || e === own || !(e.length > 0)) return true;
    const meets = length(sub(e.from, end)) < MEET || length(sub(e.to, end)) < MEET;
    if (!meets) return true;
    if (e.curve === "line") return Math.abs(dot(unit(sub(e.to, e.from)), along)) < CONTACT;
    return e.curve === "circle" && e.axis !== undefined && Math.abs(dot(unit(e.axis), along)) > PARALLEL;
  });
}

/** What a round takes along its edge, and a little of the air over it. */
function toolOf({ at, along, long, normals: [a, b], ways: [p, q], angle }: Corner, size: number): BodyStep {
  const leg = size * Math.tan(angle / 2);
  const far = size * OUT;
  const point = (way: Vec3, out: Vec3, k: number) => sub(scale(way, leg), scale(out, -k));
  const centre = sub(scale(p, leg), scale(a, size));
  // Where both flats, moved out so far, meet.
  const outermost = scale(sub(a, scale(b, -1)), far / (1 + Math.cos(angle)));
  const section = [point(p, a, 0), point(p, a, far), outermost, point(q, b, far), point(q, b, 0)];
  const [x, normal] = [p, scale(along, -1)];
  const seen: Frame = { origin: at, x, y: cross(normal, x), normal };
  // Seen from the other end the section runs the other way round.
  const other = { ...seen, origin: sub(at, scale(along, -long)), y: cross(along, x), normal: along };
  const [near, far2] = [sectionIn(seen, section, centre, size), sectionIn(other, section, centre, size)];
  const [frame, outer] = loopArea(near) > 0 ? [seen, near] : [other, far2];
  return {
    op: "cut",
    row: "",
    frame,
    body: { body: "prism", outline: { outer, holes: [] }, from: 0, to: long },
    places: [v2(0, 0)],
  };
}

/** The corner less the circle, in a plane across the edge: straight sides and the arc back. */
function sectionIn(frame: Frame, points: Vec3[], centre: Vec3, radius: number): Loop {
  const flat = (p: Vec3): Vec2 => v2(dot(p, frame.x), dot(p, frame.y));
  const at = points.map(flat);
  const c = flat(centre);
  const [last, first] = [at[at.length - 1], at[0]];
  const start = Math.atan2(last.y - c.y, last.x - c.x);
  const turn = Math.atan2(first.y - c.y, first.x - c.x) - start;
  const sweep = Math.abs(turn) <= Math.PI ? turn : turn - 2 * Math.PI * Math.sign(turn);
  return [
    ...at.slice(1).map((to, i) => ({ kind: "line" as const, from: at[i], to })),
    { kind: "arc", centre: c, radius, start, sweep },
  ];
}
