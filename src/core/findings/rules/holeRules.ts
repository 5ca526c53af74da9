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
import type { Feature } from "../../rows";
import type { CutHoles } from "../../rows/cutHoles";
import { type CutTapped } from "../../rows/cutTapped";
import type { SolvedRow } from "../../engine/solve";
import type { FaceInfo } from "../../engine/kernel";
import { lengthText, showLength, type NumberText, byFigures, unitOf } from "../../number";
import { drillOver, drillUnder, inchDrills, metricDrills, minorLimits, percentThread } from "../../tables";
import type { Finding, Fix } from "../finding";
import { down, facesOfRow, say, up, whose, type Rule, type RuleContext } from "../rule";
import { COINCIDENT, CONTACT, DISPLAY } from "../../geometry/tolerance";

type Hole = Extract<Feature, { is: "hole" }>;
/** The hole a row makes; null for any other row, and for one that could not be made. */
const holeOf = (r: SolvedRow): Hole | null => (r.state === "ok" && r.feature?.is === "hole" ? r.feature : null);
const isHole = (r: SolvedRow) => holeOf(r) !== null;
const isTapped = (r: SolvedRow) => Boolean(holeOf(r)?.thread);

/**
 * Drilled diameter of a hole row and how deep the drill's shoulder goes below its plane, measured where the hole
 * goes through.
 */
function drilled(c: RuleContext, row: SolvedRow): { diameter: number; depth: number; blind: boolean } | null {
  const hole = holeOf(row);
  if (!hole) return null;
  const { diameter, depth } = hole;
  if (depth !== "thru") return { diameter, depth, blind: true };
  const frame = row.planes!.start!;
  const own = facesOfRow(c, row.row.id).filter(
    ({ face }) => face.surface === "cylinder" && Math.abs(face.radius! - diameter / 2) < CONTACT,
  );
  const deepest = Math.max(0, ...own.map(({ face }) => -boxInFrame(frame, face.box).min.z));
  // A hole that starts in the air over a lower place is as deep as from where it meets the material.
  const entry = own.length
    ? Math.max(0, Math.min(...facesOfRow(c, row.row.id).map(({ face }) => -boxInFrame(frame, face.box).max.z)))
    : 0;
  return { diameter, depth: deepest - entry, blind: false };
}

const drillsOf = (c: RuleContext) => byFigures(c.job.unit, { in: inchDrills, mm: metricDrills }).rows;
const number = (row: SolvedRow, path: string, text: NumberText, label: string): Fix => ({
  label,
  edits: [{ edit: "setNumber", id: row.row.id, path, text }],
});

export const drillDepthRatio: Rule = {
  id: "drill-depth-ratio",
  find: (c) =>
    c.rows.filter(isHole).flatMap((row) => {
      const hole = drilled(c, row);
      if (!hole || hole.depth === 0) return [];
      const ratio = hole.depth / hole.diameter;
      const { drillPeck, drillDeep, drillStop } = c.limits;
      const over = [drillStop, drillDeep, drillPeck].find((l) => ratio > l.value + CONTACT);
      if (!over) return [];
      let fix: Fix | undefined;
      const tapped = isTapped(row);
      if (!tapped) {
        const wider = drillOver(hole.depth / drillPeck.value, drillsOf(c))?.diameter;
        const depth = down(c, hole.diameter * drillPeck.value);
        // A size that no table has is no fix.
        if (hole.blind) fix = number(row, "deep", depth, `deep ${depth}`);
        else if (wider)
          fix = number(row, "diameter", lengthText(wider, c.job.unit), `⌀${lengthText(wider, c.job.unit)}`);
      } else if (hole.blind) {
        const depth = down(c, hole.diameter * drillPeck.value);
        const body = structuredClone(row.row.body) as CutTapped;
        body.drill = { ...(body.drill ?? {}), deep: depth };
        const own = row.feature?.is === "hole" ? row.feature.thread?.full : undefined;
        if (typeof own === "number" && own > hole.diameter * drillPeck.value) body.deep = depth;
        fix = { label: `drill ${depth}`, edits: [{ edit: "setRow", id: row.row.id, body }] };
      }
      const how =
        over === drillStop
          ? "a gun drill, or from both sides"
          : over === drillDeep
            ? "deep pecking or a long drill"
            : "peck";
      return [
        {
          ...whose(row),
          severity:
            over === drillStop ? ("stop" as const) : over === drillDeep ? ("caution" as const) : ("note" as const),
          value: ratio,
          limit: over.value,
          text: `⌀${say(c, hole.diameter)} by ${say(c, hole.depth)} deep: ${ratio.toFixed(1)} diameters; ${how}`,
          source: over.source,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          ...(fix ? { fix } : {}),
        },
      ];
    }),
};

export const tapDepth: Rule = {
  id: "tap-depth",
  find: (c) =>
    c.rows.filter(isTapped).flatMap((row) => {
      const hole = row.feature;
      if (hole?.is !== "hole" || !hole.thread || hole.depth === "thru" || hole.thread.full === "thru") return [];
      const { pitch, full } = hole.thread;
      const { tapLeadPlug, tapLeadBottoming } = c.limits;
      const need = full + tapLeadPlug.value * pitch;
      if (hole.depth >= need - CONTACT) return [];
      const bare = hole.depth < full + tapLeadBottoming.value * pitch - CONTACT;
      const depth = up(c, need);
      const next = structuredClone(row.row.body) as CutTapped;
      next.drill = { ...(next.drill ?? {}), deep: depth };
      return [
        {
          ...whose(row),
          severity: bare ? ("stop" as const) : ("caution" as const),
          value: hole.depth,
          limit: need,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          text: `no room for the tap's lead: ${say(c, full)} of thread and ${tapLeadPlug.value} pitches want ${say(c, need)}; drilled ${say(c, hole.depth)}${bare ? ", too little even for a bottoming tap" : ""}`,
          source: bare ? tapLeadBottoming.source : tapLeadPlug.source,
          fix: { label: `drill ${depth}`, edits: [{ edit: "setRow" as const, id: row.row.id, body: next }] },
        },
      ];
    }),
};

export const tapDrill: Rule = {
  id: "tap-drill",
  find: (c) =>
    c.rows.filter(isTapped).flatMap((row) => {
      if (row.feature?.is !== "hole" || !row.feature.thread) return [];
      const { thread, diameter } = row.feature;
      // A taper thread has no per cent of its own: how far the plug goes in says it.
      if (thread.pipe) return [];
      const percent = percentThread(thread, diameter);
      const { min, max } = minorLimits(thread);
      const most = c.limits.threadPercentMost;
      const standard =
        thread.system === "metric" ? "ISO 965-1 class 6H, from memory" : "ASME B1.1 class 2B, from memory";
      const unit = thread.system === "metric" ? "mm" : c.job.unit;
      let found: Pick<Finding, "value" | "limit" | "text" | "source"> | null = null;
      if (diameter > max + DISPLAY)
        found = {
          value: diameter,
          limit: max,
          text: `drill ⌀${showLength(diameter, unit, 4)} is over the largest minor diameter ⌀${showLength(max, unit, 4)}: ${percent.toFixed(0)} % of thread`,
          source: standard,
        };
      else if (percent > most.value + CONTACT)
        found = {
          value: percent,
          limit: most.value,
          text: `drill ⌀${showLength(diameter, unit, 4)} leaves ${percent.toFixed(0)} % of thread: hard on the tap`,
          source: most.source,
        };
      else if (diameter < min - DISPLAY)
        found = {
          value: diameter,
          limit: min,
          text: `drill ⌀${showLength(diameter, unit, 4)} is under the smallest minor diameter ⌀${showLength(min, unit, 4)}`,
          source: standard,
        };
      if (!found) return [];
      const next = structuredClone(row.row.body) as CutTapped;
      let fix: Fix | undefined;
      if (next.drill?.diameter !== undefined && thread.size) {
        delete next.drill.diameter;
        if (!Object.keys(next.drill).length) delete next.drill;
        fix = { label: `${thread.size.drillName} drill`, edits: [{ edit: "setRow", id: row.row.id, body: next }] };
      }
      return [
        {
          ...whose(row),
          severity: "caution" as const,
          ...found,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          ...(fix ? { fix } : {}),
        },
      ];
    }),
};

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
    return c.rows.filter(isHole).flatMap((row) => {
      const hole = drilled(c, row);
      const frame = row.planes?.start;
      if (!hole || !frame) return [];
      const { limit, source } = wallWanted(c, largestDiameter(row, hole.diameter));
      let worst: Wall | null = null;
      const upright = c.faces.flatMap((face, index) =>
        standsAlong(face, frame.normal) ? [{ face, index, box: boxInFrame(frame, face.box) }] : [],
      );
      for (const mine of upright) {
        if (mine.face.tag?.row !== row.row.id || mine.face.surface !== "cylinder" || !mine.face.hollow) continue;
        for (const other of upright) {
          const same = other.face.tag?.row === row.row.id && other.face.tag.instance === mine.face.tag.instance;
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
          worst = { ...d, wall, instance: mine.face.tag.instance, other: other.face };
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
    return number(row, "pattern.diameter", bc, `BC ${bc}`);
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
      return number(
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
