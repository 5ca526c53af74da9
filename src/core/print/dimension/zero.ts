import { dot, type Vec3 } from "../../geometry/vec";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import type { FaceInfo } from "../../engine/kernel";
import type { PartModel } from "./model";
import type { Solid } from "./real";
import type { Surface } from "./surfaces";

const HALF_ROUND = Math.PI - 0.01;
const directions: { name: string; along: Vec3 }[] = (["X", "Y", "Z"] as const).map((name) => ({
  name,
  along: { x: Number(name === "X"), y: Number(name === "Y"), z: Number(name === "Z") },
}));

/** The most directions besides the main ones that the zero is looked at in. */
const MOST_TURNED = 2;

/**
 * The planes through the job's zero, as surfaces that dimensions may run from: the three main ones, and those along
 * walls that are turned against them.
 */
export function zeroSurfaces(model: PartModel): Surface[] {
  const all = directions.map((d) => ({ ...d }));
  const isKnown = (n: Vec3) => all.some((d) => Math.abs(dot(d.along, n)) > PARALLEL);
  for (const { shape } of model.surfaces.values()) {
    if (all.length >= directions.length + MOST_TURNED) break;
    if (shape.is === "plane" && !isKnown(shape.normal)) all.push({ name: `turned ${all.length}`, along: shape.normal });
  }
  return all.map(({ name, along }) => ({
    id: `zero/${name}`,
    row: "",
    instance: 0,
    role: "start",
    shape: { is: "plane", normal: along, offset: 0 },
  }));
}
export const isZero = (id: string): boolean => id.startsWith("zero/");

/** What a plane through the job's zero is on the part: where it stands now, mm along its direction, and what it is. */
export interface ZeroEnd {
  offset: number;
  words: string;
}

/**
 * What stands where the job's zero is: a face, an axis, or the middle of two faces that both stand. Where one stood and
 * a later row has cut it, the end has moved with the face. @returns by the surface's id; null where nothing stands
 */
export function zeroEnds(
  zeros: Surface[],
  model: PartModel,
  solid: Solid,
  stands: (id: string) => boolean,
): Map<string, ZeroEnd | null> {
  return new Map(
    zeros.map(({ id, shape }) => [id, shape.is === "plane" ? zeroEnd(shape.normal, model, solid, stands) : null]),
  );
}

const flatsAlong = (faces: FaceInfo[], normal: Vec3): number[] =>
  faces.flatMap((f) => (f.surface === "plane" && dot(f.normal, normal) > PARALLEL ? [dot(f.point, normal)] : []));

function zeroEnd(along: Vec3, model: PartModel, solid: Solid, stands: (id: string) => boolean): ZeroEnd | null {
  const back = { x: -along.x, y: -along.y, z: -along.z };
  const [ahead, behind] = [flatsAlong(solid.faces, along), flatsAlong(solid.faces, back)];
  const isHere = (offset: number) => Math.abs(offset) < CONTACT;
  if ([...ahead, ...behind].some(isHere)) return { offset: 0, words: "the face there" };
  const isAxisHere = (f: FaceInfo) =>
    f.axis !== undefined &&
    (f.sweep ?? 0) > HALF_ROUND &&
    Math.abs(dot(f.axis.direction, along)) < CONTACT &&
    isHere(dot(f.axis.origin, along));
  if (solid.faces.some(isAxisHere)) return { offset: 0, words: "the axis there" };
  if (solid.faces.some((f) => isCrestHere(f, along))) return { offset: 0, words: "the crest of the round there" };
  if (ahead.some((a) => a > CONTACT && behind.some((b) => Math.abs(a - b) < CONTACT)))
    return { offset: 0, words: "the middle of two faces" };
  return movedEnd(along, { ahead, behind }, model, stands);
}

/** Whether a round comes up to the plane through zero and ends there. */
function isCrestHere(f: FaceInfo, along: Vec3): boolean {
  if (f.surface !== "cylinder" || !f.axis || Math.abs(dot(f.axis.direction, along)) > CONTACT) return false;
  const touches = Math.abs(Math.abs(dot(f.axis.origin, along)) - f.radius!) < CONTACT;
  const [low, high] = [f.box.min, f.box.max].map((p) => dot(p, along));
  return touches && Math.min(Math.abs(low), Math.abs(high)) < CONTACT;
}

/** Where the face, or the middle of two faces, that the part began with there stands now. */
function movedEnd(
  along: Vec3,
  { ahead, behind }: { ahead: number[]; behind: number[] },
  model: PartModel,
  stands: (id: string) => boolean,
): ZeroEnd | null {
  const gone = [...model.surfaces.values()].filter(
    (s) =>
      s.shape.is === "plane" &&
      Math.abs(dot(s.shape.normal, along)) > PARALLEL &&
      Math.abs(s.shape.offset) < CONTACT &&
      model.rows.some((m) => m.row.row.id === s.row && m.recipe.op === "leave") &&
      !stands(s.id),
  );
  const face = gone.find((s) => s.role !== "middle");
  if (face?.shape.is === "plane") {
    const isAhead = dot(face.shape.normal, along) > 0;
    const now = isAhead ? ahead : behind;
    return now.length ? { offset: (isAhead ? 1 : -1) * Math.max(...now), words: "where that face stands now" } : null;
  }
  if (!gone.length || !ahead.length || !behind.length) return null;
  return { offset: (Math.max(...ahead) - Math.max(...behind)) / 2, words: "where the middle stands now" };
}
