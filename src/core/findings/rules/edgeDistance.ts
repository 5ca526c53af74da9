import {
  boxInFrame,
  dot,
  fromFrame,
  length,
  sub,
  toFrame,
  unit,
  type Box,
  type Frame,
  type Vec3,
} from "../../geometry/vec";
import type { CutHoles } from "../../rows/cutHoles";
import { type CutTapped } from "../../rows/cutTapped";
import type { SolvedRow } from "../../engine/solve";
import type { FaceInfo } from "../../engine/kernel";
import { lengthText, showLength, unitOf } from "../../number";
import { drillUnder } from "../../tables";
import type { Fix } from "../finding";
import { down, facesOfRow, say, up, whose, type Rule, type RuleContext } from "../rule";
import { COINCIDENT, CONTACT } from "../../geometry/tolerance";
import { drilled, drillsOf, holeOf, isHole, isTapped, setNumber } from "./holes";

/**
 * The largest diameter of a hole that stands beside the edge: its thread, or what is drilled. A mouth is measured by
 * its own faces.
 */
function largestDiameter(row: SolvedRow, drilledDiameter: number): number {
  return holeOf(row)?.thread?.major ?? drilledDiameter;
}

interface Wall {
  wall: number;
  from: Vec3;
  to: Vec3;
  instance: number;
  other: FaceInfo;
}

export const edgeDistance: Rule = {
  id: "edge-distance",
  find(c) {
    const ends = endsOfFaces(c);
    return c.rows.filter(isBored).flatMap((row) => {
      const hole = boredBy(c, row);
      const frame = row.planes?.start;
      if (!hole || !frame) return [];
      const { limit, source } = wallWanted(c, largestDiameter(row, hole.diameter));
      let worst: Wall | null = null;
      const upright = c.faces.flatMap((face, index) =>
        standsAlong(face, frame.normal) ? [{ face, index, box: boxInFrame(frame, face.box) }] : [],
      );
      const own = upright.filter(
        ({ face }) => face.tag?.row === row.row.id && face.surface === "cylinder" && face.hollow,
      );
      for (const mine of [...own, ...mouthsOf(c, row, frame)]) {
        for (const other of upright) {
          const same = other.face.tag?.row === row.row.id && other.face.tag.instance === mine.face.tag!.instance;
          if (same || gap(mine.box, other.box) > limit) continue;
          const d = across(frame, mine.face, mine.box, other.face, other.box, ends[other.index]);
          // Faces that touch break into one another: that is a crossing, not a wall.
          if (!d || d.wall < CONTACT) continue;
          // The thread stands wider than its drill.
          const wall =
            d.wall -
            (Math.abs(mine.face.radius! - hole.diameter / 2) < CONTACT
              ? (largestDiameter(row, hole.diameter) - hole.diameter) / 2
              : 0);
          if (wall >= limit - CONTACT || (worst && wall >= worst.wall)) continue;
          worst = { ...d, wall, instance: mine.face.tag!.instance, other: other.face };
        }
      }
      if (!worst) return [];
      const neighbour = worst.other.surface === "cylinder" && worst.other.hollow;
      const fix = edgeFix(c, row, worst, limit, hole.diameter);
      return [
        {
          ...whose(row),
          severity: "caution" as const,
          value: worst.wall,
          limit,
          place: worst.to,
          lines: [[worst.from, worst.to] as [Vec3, Vec3]],
          text: `wall of ${say(c, worst.wall)} between hole and ${neighbour ? "neighbour" : "edge"}; ${say(c, limit)} wanted`,
          source,
          ...(fix ? { fix } : {}),
        },
      ];
    });
  },
};

/** Rows that leave a wall round a bore of their own: drilled holes, and tapers. */
const isBored = (r: SolvedRow): boolean => isHole(r) || (r.state === "ok" && r.feature?.is === "taper");
function boredBy(c: RuleContext, row: SolvedRow): { diameter: number } | null {
  return row.feature?.is === "taper" ? { diameter: row.feature.large } : drilled(c, row);
}

/** The mouths of a row's cones, as rings so high as nothing: there a wall beside them is thinnest. */
function mouthsOf(c: RuleContext, row: SolvedRow, frame: Frame): { face: FaceInfo; box: Box }[] {
  const cones = facesOfRow(c, row.row.id).filter(({ face }) => face.surface === "cone");
  return cones.flatMap(({ face, index }) => {
    const rims = c.edges.filter((e) => e.curve === "circle" && e.faces.includes(index) && e.centre && e.radius);
    if (!rims.length) return [];
    const rim = rims.reduce((a, b) => (b.radius! > a.radius! ? b : a));
    if (!looksInwards(face, rim.centre!, frame)) return [];
    const { z } = toFrame(frame, rim.centre!);
    const box = boxInFrame(frame, face.box);
    const ring = {
      min: { ...box.min, z: z - 2 * CONTACT },
      max: { ...box.max, z },
    };
    const axis = { origin: rim.centre!, direction: frame.normal };
    return [{ face: { ...face, surface: "cylinder", hollow: true, radius: rim.radius, axis } as FaceInfo, box: ring }];
  });
}

/** Whether a face round an axis has its material outside it. */
function looksInwards({ point, normal }: FaceInfo, centre: Vec3, frame: Frame): boolean {
  const from = toFrame(frame, centre);
  const at = toFrame(frame, point);
  return (at.x - from.x) * dot(normal, frame.x) + (at.y - from.y) * dot(normal, frame.y) < 0;
}

/** The wall a hole of a diameter wants beside it, and which of the three figures says so. */
function wallWanted({ limits, job }: RuleContext, diameter: number): { limit: number; source: string } {
  const { edgeWallShare, edgeWallLeast, edgeWallMost } = limits;
  const share = edgeWallShare.value * diameter;
  const figure = (mm: number) => showLength(mm, job.unit);
  if (share > edgeWallMost.value)
    return { limit: edgeWallMost.value, source: `${edgeWallMost.source}: ${figure(edgeWallMost.value)} at most` };
  return share > edgeWallLeast.value
    ? { limit: share, source: `${edgeWallShare.source}: half the hole` }
    : { limit: edgeWallLeast.value, source: `${edgeWallLeast.source}: ${figure(edgeWallLeast.value)}` };
}

/** Ends and middles of the edges round every face: a flat wall is as long as they say. */
function endsOfFaces(c: RuleContext): Vec3[][] {
  const ends: Vec3[][] = c.faces.map(() => []);
  for (const e of c.edges) if (e.length > 0) for (const f of e.faces) ends[f].push(e.from, e.to, e.middle);
  return ends;
}

/**
 * Wall between a hole and a face that stands along it, worked out flat in the plane across the axis.
 * Null where they do not face each other at any depth, or where the way between them runs through air:
 * it must leave the material at the far face.
 */
function across(
  frame: Frame,
  hole: FaceInfo,
  holeBox: Box,
  other: FaceInfo,
  otherBox: Box,
  ends: Vec3[],
): { wall: number; from: Vec3; to: Vec3 } | null {
  const low = Math.max(holeBox.min.z, otherBox.min.z),
    high = Math.min(holeBox.max.z, otherBox.max.z);
  if (high - low < CONTACT) return null;
  const at = (x: number, y: number) => fromFrame(frame, { x, y }, -(low + high) / 2);
  const c = toFrame(frame, hole.axis!.origin),
    r = hole.radius!;
  let near: { x: number; y: number }, normal: { x: number; y: number };
  const flat = (v: Vec3) => ({ x: dot(v, frame.x), y: dot(v, frame.y) });
  if (other.surface === "plane") {
    normal = flat(other.normal);
    const along = { x: -normal.y, y: normal.x };
    const p = toFrame(frame, other.point);
    const s = ends.map((q) => {
      const l = toFrame(frame, q);
      return (l.x - p.x) * along.x + (l.y - p.y) * along.y;
    });
    const t = Math.min(Math.max((c.x - p.x) * along.x + (c.y - p.y) * along.y, Math.min(...s)), Math.max(...s));
    near = { x: p.x + along.x * t, y: p.y + along.y * t };
  } else {
    const o = toFrame(frame, other.axis!.origin);
    const d = Math.hypot(c.x - o.x, c.y - o.y);
    if (d < COINCIDENT) return null; // the same axis: a counterbore, a bore behind the hole
    const u = { x: (c.x - o.x) / d, y: (c.y - o.y) / d };
    near = { x: o.x + u.x * other.radius!, y: o.y + u.y * other.radius! };
    const middle = toFrame(frame, other.point);
    const m = { x: (middle.x - o.x) / other.radius!, y: (middle.y - o.y) / other.radius! };
    if (
      other.sweep! < 2 * Math.PI - 0.01 &&
      Math.acos(Math.max(-1, Math.min(1, u.x * m.x + u.y * m.y))) > other.sweep! / 2 + CONTACT
    )
      return null;
    // Out of the material: towards the axis of a hollow face, away from it on a boss.
    normal = other.hollow ? { x: -u.x, y: -u.y } : u;
  }
  const way = { x: near.x - c.x, y: near.y - c.y };
  const l = Math.hypot(way.x, way.y);
  if (l < r || (way.x * normal.x + way.y * normal.y) / l < 0.2) return null;
  return { wall: l - r, from: at(c.x + (way.x / l) * r, c.y + (way.y / l) * r), to: at(near.x, near.y) };
}

/** Moves the hole away from the thin wall where its place is its own; else makes the hole smaller. */
function edgeFix(c: RuleContext, row: SolvedRow, worst: Wall, limit: number, diameter: number): Fix | undefined {
  if (!isHole(row)) return undefined;
  const body = row.row.body as CutHoles | CutTapped;
  const frame = row.planes!.start!;
  const away = unit(sub(worst.from, worst.to));
  const missing = limit - worst.wall + unitOf[c.job.unit].step;
  const ownNeighbour = worst.other.tag?.row === row.row.id;
  const dx = dot(away, frame.x) * missing,
    dy = dot(away, frame.y) * missing;
  const resolved = row.resolved && "pattern" in row.resolved ? row.resolved.pattern : { kind: "single" as const };
  if (
    !ownNeighbour &&
    body.pattern.kind === "points" &&
    resolved.kind === "points" &&
    length(sub(worst.to, worst.from)) > CONTACT &&
    worst.instance < resolved.points.length
  ) {
    const next = structuredClone(body);
    const p = resolved.points[worst.instance];
    if (next.pattern.kind === "points")
      next.pattern.points[worst.instance] = {
        x: lengthText(p.x + dx, c.job.unit),
        y: lengthText(p.y + dy, c.job.unit),
      };
    return {
      label: `move to ${lengthText(p.x + dx, c.job.unit)},${lengthText(p.y + dy, c.job.unit)}`,
      edits: [{ edit: "setRow", id: row.row.id, body: next }],
    };
  }
  if (!ownNeighbour && body.pattern.kind === "boltCircle" && resolved.kind === "boltCircle") {
    const outward = worst.other.hollow ? 1 : -1;
    const wanted = resolved.diameter + 2 * outward * missing;
    const bc = outward > 0 ? up(c, wanted) : down(c, wanted);
    return setNumber(row, "pattern.diameter", bc, `BC ${bc}`);
  }
  if (!isTapped(row)) {
    // Each millimetre off the hole gives half to the wall, and half its diameter is what the wall must be.
    const share = c.limits.edgeWallShare.value;
    const target = Math.min(
      diameter + 2 * worst.wall - 2 * c.limits.edgeWallLeast.value,
      (2 * worst.wall + diameter) / (1 + 2 * share),
    );
    const smaller = drillUnder(target, drillsOf(c));
    if (smaller)
      return setNumber(
        row,
        "diameter",
        lengthText(smaller.diameter, c.job.unit),
        `⌀${lengthText(smaller.diameter, c.job.unit)}`,
      );
  }
  return undefined;
}

/** Walls that stand along the hole: planes and cylinders whose normals lie across its axis. */
const standsAlong = (f: FaceInfo, axis: Vec3): boolean =>
  (f.surface === "plane" || f.surface === "cylinder") && Math.abs(dot(f.normal, axis)) < CONTACT;

function gap(a: Box, b: Box): number {
  const g = (k: "x" | "y") => Math.max(0, a.min[k] - b.max[k], b.min[k] - a.max[k]);
  return Math.hypot(g("x"), g("y"));
}
