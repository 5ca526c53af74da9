import { dot, toFrame, boxInFrame, type Box, type Vec3 } from "../geometry/vec";
import type { Job } from "../job/schema";
import type { EdgeInfo, FaceInfo, SolidKernel } from "../engine/kernel";
import { shaftOf, type Shaft } from "../engine/rowShape";
import type { SolvedRow } from "../engine/solve";
import { lengthText, showLength, type NumberScope, type NumberText, unitOf } from "../number";
import type { PlacedStock } from "../engine/placedStock";
import type { Allowance } from "../stock/stock";
import type { Cutter } from "../tables";
import type { Finding } from "./finding";
import type { Limits } from "../tables";
import { CONTACT, PARALLEL } from "../geometry/tolerance";

/** All that a rule may look at: the job, and what was measured on the solid. */
export interface RuleContext {
  job: Job;
  scope: NumberScope;
  rows: SolvedRow[];
  kernel: SolidKernel;
  key: string;
  faces: FaceInfo[];
  edges: EdgeInfo[];
  partBox: Box;
  stock: PlacedStock | null;
  allowance: Allowance | null;
  radialAllowance: number | null;
  /** How much of the part stands out of a stock that is a solid of its own, mm³; null of any other. */
  outsideStock: number | null;
  crib: readonly Cutter[];
  limits: Limits;
}

/** A rule: its id is its name in the list of checks. */
export interface Rule {
  id: string;
  find(c: RuleContext): Omit<Finding, "rule">[];
}

/** Length with its unit's habits, for texts and for numbers of fixes. */
export const say = (c: RuleContext, mm: number): string => showLength(mm, c.job.unit);
export const sayRadius = (c: RuleContext, mm: number): string => `R${showLength(mm, c.job.unit)}`;
/** A length to type into a row. Rounded up to what the unit usually carries, so that a fix clears its finding. */
export function up(c: RuleContext, mm: number): NumberText {
  const { step } = unitOf[c.job.unit];
  return lengthText(Math.ceil(mm / step - CONTACT) * step, c.job.unit);
}
export function down(c: RuleContext, mm: number): NumberText {
  const { step } = unitOf[c.job.unit];
  return lengthText(Math.floor(mm / step + CONTACT) * step, c.job.unit);
}

export const facesOfRow = (c: RuleContext, id: string): { face: FaceInfo; index: number }[] =>
  c.faces.flatMap((face, index) => (face.tag?.row === id ? [{ face, index }] : []));

/** How deep a row's walls really go below its plane, measured on the solid; 0 when nothing is left of them. */
export function wallDepth(c: RuleContext, row: SolvedRow): number {
  const frame = row.planes?.start;
  if (!frame) return 0;
  let deepest = 0;
  for (const { face } of facesOfRow(c, row.row.id))
    if (face.tag!.role === "wall") deepest = Math.max(deepest, -boxInFrame(frame, face.box).min.z);
  return deepest;
}

/** Inside corners of a row: hollow part-cylinders that stand along its axis. */
export function insideCorners(c: RuleContext, row: SolvedRow): { radius: number; point: Vec3 }[] {
  const n = row.planes?.start?.normal;
  if (!n) return [];
  return facesOfRow(c, row.row.id).flatMap(({ face }) =>
    face.surface === "cylinder" &&
    face.hollow &&
    face.tag!.role === "wall" &&
    face.sweep! < 2 * Math.PI - 0.01 &&
    Math.abs(dot(face.axis!.direction, n)) > PARALLEL
      ? [{ radius: face.radius!, point: face.point }]
      : [],
  );
}

const isUpright = (role: string): boolean => role === "wall" || role === "side";

/** The shaft a row is laid round, along whose radii its walls stand; null of any other row. */
function shaftRoundWhich(c: RuleContext, { recipe }: SolvedRow): Shaft | null {
  if (recipe === null || !("body" in recipe) || recipe.body.body !== "wrapped") return null;
  const { row } = recipe.body;
  const shape = c.rows.find((r) => r.row.id === row)?.planes?.shape;
  return shape ? shaftOf(shape) : null;
}

/**
 * Upright sharp inside corners that a row takes part in, wherever they come from: a pocket, an outline, a prism, letters
 * laid round a shaft.
 */
export function sharpCorners(c: RuleContext, row: SolvedRow): EdgeInfo[] {
  const shaft = shaftRoundWhich(c, row);
  const frame = shaft?.frame ?? row.planes?.start;
  if (!frame) return [];
  const isUprightEdge = (e: EdgeInfo): boolean => {
    const [p, q] = [toFrame(frame, e.from), toFrame(frame, e.to)];
    if (!shaft) return Math.hypot(p.x - q.x, p.y - q.y) < CONTACT;
    const across = (p.x * q.y - p.y * q.x) / shaft.radius;
    return Math.abs(p.z - q.z) < CONTACT && Math.abs(across) < CONTACT;
  };
  return c.edges.filter((e) => {
    if (e.curve !== "line" || e.turn !== "concave" || e.length < CONTACT) return false;
    const a = c.faces[e.faces[0]].tag,
      b = c.faces[e.faces[1]].tag;
    if (!a || !b || !isUpright(a.role) || !isUpright(b.role) || (a.row !== row.row.id && b.row !== row.row.id))
      return false;
    // The later of two rows made the corner.
    const other = a.row === row.row.id ? b.row : a.row;
    if (c.rows.findIndex((r) => r.row.id === other) > row.number - 1) return false;
    return isUprightEdge(e);
  });
}

export const largestWithin = (crib: readonly Cutter[], radius: number, depth = 0): Cutter | null =>
  crib.reduce<Cutter | null>(
    (best, t) =>
      t.diameter / 2 <= radius + CONTACT && t.reach >= depth - CONTACT && (!best || t.diameter > best.diameter)
        ? t
        : best,
    null,
  );

export const smallestReaching = (crib: readonly Cutter[], depth: number): Cutter | null =>
  crib.reduce<Cutter | null>(
    (best, t) => (t.reach >= depth - CONTACT && (!best || t.diameter < best.diameter) ? t : best),
    null,
  );

export const whose = (row: SolvedRow) => ({ row: row.number, rowId: row.row.id });
