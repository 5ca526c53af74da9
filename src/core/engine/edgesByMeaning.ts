import { dot, toFrame, type Frame, type Side, type Vec3 } from "../geometry/vec";
import { fail, ok, type Result } from "../base/result";
import type { EdgeChoice } from "../rows";
import type { EdgeInfo, FaceInfo, SolidKernel } from "./kernel";
import { sideOffset, type RowPlanes } from "./planes";
import { COINCIDENT, MEET, PARALLEL } from "../geometry/tolerance";

/** An outside edge counts as sharp when its faces meet at more than this angle between their normals. */
const SHARP = (30 * Math.PI) / 180;

export const isSharp = (e: EdgeInfo): boolean => e.turn === "convex" && e.angle > SHARP + COINCIDENT;

/** Edges named by what they are. Each comes with the face its size is measured on: the flat it rims. */
export function edgesByMeaning(
  choices: EdgeChoice[],
  kernel: SolidKernel,
  key: string,
  earlier: Map<string, RowPlanes>,
  nameOf: (id: string) => string,
): Result<{ edge: number; face: number }[]> {
  const edges = kernel.edges(key),
    faces = kernel.faces(key);
  const chosen = new Map<number, number>();
  for (const c of choices) {
    const found = find(c, edges, faces, kernel, key, earlier, nameOf);
    if (!found.ok) return found;
    for (const { edge, face } of found.value) if (!chosen.has(edge)) chosen.set(edge, face);
  }
  return ok([...chosen].map(([edge, face]) => ({ edge, face })));
}

function find(
  c: EdgeChoice,
  edges: EdgeInfo[],
  faces: FaceInfo[],
  kernel: SolidKernel,
  key: string,
  earlier: Map<string, RowPlanes>,
  nameOf: (id: string) => string,
): Result<{ edge: number; face: number }[]> {
  const pick = (test: (e: EdgeInfo) => number | null) =>
    edges.flatMap((e, edge) => {
      const face = e.length > 0 ? test(e) : null;
      return face === null ? [] : [{ edge, face }];
    });
  switch (c.edge) {
    case "allSharp": {
      const all = pick((e) => (isSharp(e) ? flatOf(e, faces) : null));
      return all.length ? ok(all) : fail("there is no sharp outside edge", { path: "edges" });
    }
    case "vertical": {
      const all = pick((e) =>
        e.curve === "line" &&
        e.turn === "convex" &&
        Math.abs(e.from.x - e.to.x) < MEET &&
        Math.abs(e.from.y - e.to.y) < MEET
          ? e.faces[0]
          : null,
      );
      return all.length ? ok(all) : fail("there is no upright outside corner", { path: "edges" });
    }
    case "outerTop":
    case "outerBottom":
      return rim(c.edge === "outerTop" ? "top" : "bottom", edges, faces, kernel, key, pick);
    case "mouthOf":
    case "floorOf": {
      const planes = earlier.get(c.row);
      if (!planes)
        return fail(`${nameOf(c.row)} is no row before this one`, {
          path: "edges",
          expected: "the number of an earlier row that is on",
        });
      const frame = c.edge === "mouthOf" ? planes.start : planes.floor;
      if (!frame) return fail(`${nameOf(c.row)} has no ${c.edge === "mouthOf" ? "mouth" : "floor"}`, { path: "edges" });
      const mine = (i: number) => faces[i].tag?.row === c.row;
      const all = pick((e) => {
        if (!inPlane(e, frame) || e.turn === "smooth") return null;
        const [a, b] = e.faces;
        if (c.edge === "floorOf") return mine(a) && mine(b) && e.turn === "concave" ? flatOf(e, faces) : null;
        return mine(a) !== mine(b) && e.turn === "convex" ? (mine(a) ? b : a) : null;
      });
      return all.length
        ? ok(all)
        : fail(`nothing is left of the ${c.edge === "mouthOf" ? "mouth" : "floor"} of ${nameOf(c.row)}`, {
            path: "edges",
          });
    }
  }
}

/** Rim of the outermost outline of the highest (or lowest) flat: its convex edges that no hole made. */
function rim(
  side: Side,
  edges: EdgeInfo[],
  faces: FaceInfo[],
  kernel: SolidKernel,
  key: string,
  pick: (t: (e: EdgeInfo) => number | null) => { edge: number; face: number }[],
): Result<{ edge: number; face: number }[]> {
  const { offset, flat } = sideOffset(kernel, key, side);
  if (!flat) return fail(`no flat looks to the ${side}`, { path: "edges", expected: "a part with such a flat" });
  const sign = side === "top" ? 1 : -1;
  const inIt = (f: FaceInfo) =>
    f.surface === "plane" && f.normal.z * sign > PARALLEL && Math.abs(f.point.z * sign - offset) < MEET;
  // A face inside another's outline (an island within a groove) has a rim of its own, but not the outermost one.
  const wires = kernel.outerWires(
    key,
    faces.flatMap((f, i) => (inIt(f) ? [i] : [])),
  );
  const outermost = wires.filter((w) => !wires.some((o) => o !== w && surrounds(o.pieces, w.pieces[0]?.[0])));
  const outer = new Set(outermost.flatMap((w) => w.edges));
  const all = pick((e) => {
    if (e.turn !== "convex" || !outer.has(edges.indexOf(e))) return null;
    return inIt(faces[e.faces[0]]) ? e.faces[0] : e.faces[1];
  });
  return all.length ? ok(all) : fail(`the ${side} has no outer rim`, { path: "edges" });
}

/** Whether closed pieces in a level plane go round a point: a ray along x crosses them an odd number of times. */
function surrounds(pieces: [Vec3, Vec3][], p: Vec3 | undefined): boolean {
  if (!p) return false;
  let odd = false;
  for (const [a, b] of pieces)
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x)) odd = !odd;
  return odd;
}

const inPlane = (e: EdgeInfo, f: Frame): boolean =>
  [e.from, e.to, e.middle].every((p) => Math.abs(toFrame(f, p).z) < MEET);

/** Of an edge's two faces the flat one, the one looking up first: a chamfer's size is measured on it. */
function flatOf(e: EdgeInfo, faces: FaceInfo[]): number {
  const rank = (i: number) =>
    (faces[i].surface === "plane" ? 1 : 0) + Math.abs(dot(faces[i].normal, { x: 0, y: 0, z: 1 }));
  return rank(e.faces[0]) >= rank(e.faces[1]) ? e.faces[0] : e.faces[1];
}
