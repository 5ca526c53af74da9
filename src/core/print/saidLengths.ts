import type { FaceInfo } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import { dot } from "../geometry/vec";
import { CONTACT } from "../geometry/tolerance";
import type { Balloon } from "../job/schema";
import type { Claim } from "./claims";
import { inside, type Limits } from "./limits";
import { isBlankOf } from "./threadClaims";

/** How long a thread or a knurl is said to be, by which number of its row, and what it stands on. */
interface Said {
  path: string;
  length: number;
  /** How much of it an edge that is broken may take. */
  lead: number;
  /** Whether a face is its blank. */
  isBlank: (f: FaceInfo) => boolean;
  blank: string;
}

/** What a row says of a length without cutting it: a cosmetic thread, a knurl that is rolled. Null of any other row. */
function saidBy(r: SolvedRow): Said | null {
  const { feature } = r;
  if (feature?.is === "hole" && feature.thread && typeof feature.thread.full === "number") {
    const isBlank = (f: FaceInfo) => f.tag?.row === r.row.id && Math.abs(2 * f.radius! - feature.diameter) < CONTACT;
    return { path: "deep", length: feature.thread.full, lead: LEAD * feature.thread.pitch, isBlank, blank: "hole" };
  }
  if (feature?.is !== "thread" && feature?.is !== "knurl") return null;
  const { shaft } = feature;
  const isRound = (f: FaceInfo) => f.tag?.row === shaft && !f.hollow;
  // Of a shaft of several diameters only the one that carries the thread.
  const isBlank = feature.is === "thread" ? (f: FaceInfo) => isBlankOf(f, shaft, feature.thread.major) : isRound;
  const pitch = feature.is === "thread" ? feature.thread.pitch : feature.pitch;
  return { path: "length", length: feature.length, lead: LEAD * pitch, isBlank, blank: "round" };
}
/** A thread's length has its chamfer in it, of a pitch and a half (common practice, no source). */
const LEAD = 1.5;

/** Whether a number of a row is a length that it only says. */
export const isSaid = (r: SolvedRow, path: string): boolean => saidBy(r)?.path === path;

/**
 * The length of a thread or knurl that is not cut: as its row says it, on a blank that stands so long on the solid.
 */
export function saidClaims(b: Balloon, r: SolvedRow, limits: Limits, faces: FaceInfo[]): Claim[] {
  const said = saidBy(r);
  const isUsed = r.numbers.some((n) => n.path === said?.path && n.value?.cites.includes(b.number));
  if (!said || !isUsed) return [];
  const blanks = faces.filter((f) => f.surface === "cylinder" && f.axis && said.isBlank(f));
  const long = Math.max(0, ...byCopy(blanks).map(lengthOf));
  const isRight = inside(said.length, limits);
  const stands = long > said.length - said.lead - CONTACT;
  const by = !isRight
    ? `row ${r.number} says another length`
    : stands
      ? `as row ${r.number} says it, on a ${said.blank} that stands so long: it is not cut`
      : `the ${said.blank} it stands on is not round for so long`;
  const state = !isRight ? "false" : stands ? "true" : "unexamined";
  return [{ of: "value", says: `its value in row ${r.number}`, state, by, on: blanks.map((f) => f.tag!) }];
}

const byCopy = (faces: FaceInfo[]): FaceInfo[][] => {
  const copies = new Map<number, FaceInfo[]>();
  for (const f of faces) copies.set(f.tag!.instance, [...(copies.get(f.tag!.instance) ?? []), f]);
  return [...copies.values()];
};

/** How far round faces about one axis reach along it, mm: a blank may be parted by a groove. */
function lengthOf(faces: FaceInfo[]): number {
  const d = faces[0].axis!.direction;
  const ends = faces.flatMap(({ box: { min, max } }) =>
    [min, max].map((p) => dot(p, { x: Math.abs(d.x), y: Math.abs(d.y), z: Math.abs(d.z) })),
  );
  return Math.max(...ends) - Math.min(...ends);
}
