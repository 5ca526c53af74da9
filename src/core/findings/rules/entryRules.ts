import { boxInFrame, dot, fromFrame, toFrame, type Frame, type Vec2, type Vec3 } from "../../geometry/vec";
import type { EdgeInfo, FaceInfo } from "../../engine/kernel";
import { numbersOf, type Made } from "../../engine/madeBy";
import type { SolvedRow } from "../../engine/solve";
import type { Finding } from "../finding";
import { say, whose, type Rule, type RuleContext } from "../rule";
import { CONTACT, DISPLAY, PARALLEL } from "../../geometry/tolerance";
import { facesNow, facesThen, looked } from "./lookedAt";
const WHOLE = 2 * Math.PI - 0.01;
type Found = Omit<Finding, "rule">;

/** The profile of a body of round holes: radius by depth. */
const profileOf = ({ step }: Made): { r: number; z: number }[] | null =>
  step.op === "cut" && step.body.body === "revolved" ? step.body.profile : null;
const widest = (profile: { r: number }[]): number => Math.max(...profile.map((p) => p.r));

interface Hole {
  row: SolvedRow;
  frame: Frame;
  at: Vec2;
  radius: number;
  place: Vec3;
}
function holesOf(c: RuleContext): Hole[] {
  return c.rows.flatMap((row) =>
    looked(row).flatMap((m) => {
      const profile = profileOf(m);
      const { frame, places } = m.step;
      return profile
        ? places.map((at) => ({ row, frame, at, radius: widest(profile), place: fromFrame(frame, at) }))
        : [];
    }),
  );
}

export const overlap: Rule = {
  id: "overlap",
  find(c) {
    const holes = holesOf(c);
    const found = new Map<string, Found>();
    for (let i = 0; i < holes.length; i++) {
      for (let j = i + 1; j < holes.length; j++) {
        const [a, b] = [holes[i], holes[j]];
        if (dot(a.frame.normal, b.frame.normal) < PARALLEL) continue;
        const q = toFrame(a.frame, b.place);
        const apart = Math.hypot(q.x - a.at.x, q.y - a.at.y);
        const into = a.radius + b.radius - apart;
        // On one axis: a step of the same hole.
        if (apart < CONTACT && a.row !== b.row) continue;
        if (into <= CONTACT || found.has(b.row.row.id)) continue;
        const other = a.row === b.row ? "one another" : `those of row ${a.row.number}`;
        found.set(b.row.row.id, {
          ...whose(b.row),
          severity: "caution",
          value: into,
          limit: 0,
          place: b.place,
          text:
            apart < CONTACT ? "two of its holes stand in one place" : `its holes run into ${other} by ${say(c, into)}`,
          source: "geometry: places and widest diameters",
        });
      }
    }
    return [...found.values()];
  },
};

/** Circles of a radius round a hole's axis, at a level of its frame, as they stood after the row. */
const circlesAt = (edges: EdgeInfo[], f: Frame, at: Vec2, radius: number): EdgeInfo[] =>
  edges.filter((e) => {
    if (e.curve !== "circle" || Math.abs(e.radius! - radius) > CONTACT || Math.abs(dot(e.axis!, f.normal)) < PARALLEL)
      return false;
    const q = toFrame(f, e.centre!);
    return Math.hypot(q.x - at.x, q.y - at.y) < CONTACT;
  });
/** Levels of a hole's frame at which arcs of a circle stand, with how much of it stands there, radians. */
function arcsByLevel(edges: EdgeInfo[], f: Frame): { level: number; sweep: number }[] {
  const levels: { level: number; sweep: number }[] = [];
  for (const e of edges) {
    const level = toFrame(f, e.centre!).z;
    const there = levels.find((l) => Math.abs(l.level - level) < DISPLAY);
    if (there) there.sweep += e.length / e.radius!;
    else levels.push({ level, sweep: e.length / e.radius! });
  }
  return levels;
}

interface HoleState {
  broken: Vec3[];
  mouths: Vec3[];
  slanted: { place: Vec3; deep: number }[];
  /** Mouths that lie half on one level and half on another, and how far those are apart. */
  overSteps: { place: Vec3; step: number }[];
}
const clean = (s: HoleState): boolean =>
  !s.broken.length && !s.mouths.length && !s.slanted.length && !s.overSteps.length;
const known = new WeakMap<RuleContext, Map<SolvedRow, HoleState>>();

/**
 * What became of the walls and mouths of holes: on the finished part, and where that leaves a doubt (a mouth may
 * have been chamfered since) as they stood then.
 */
function holeState(c: RuleContext, row: SolvedRow): HoleState {
  const states = known.get(c) ?? new Map<SolvedRow, HoleState>();
  known.set(c, states);
  const done = states.get(row);
  if (done) return done;
  const all = looked(row).map((m) => stateOf(c, row, m));
  const state: HoleState = {
    broken: all.flatMap((s) => s.broken),
    mouths: all.flatMap((s) => s.mouths),
    slanted: all.flatMap((s) => s.slanted),
    overSteps: all.flatMap((s) => s.overSteps),
  };
  states.set(row, state);
  return state;
}

function stateOf(c: RuleContext, row: SolvedRow, m: Made): HoleState {
  const profile = profileOf(m);
  if (!profile || !row.key) return { broken: [], mouths: [], slanted: [], overSteps: [] };
  const state = stateOfHoles(profile, m, facesNow(c, m), c.edges);
  return clean(state) || row.key === c.key
    ? state
    : stateOfHoles(profile, m, facesThen(c, row, m), c.kernel.edges(row.key));
}

function stateOfHoles(profile: { r: number }[], m: Made, faces: FaceInfo[], edges: EdgeInfo[]): HoleState {
  const { step } = m;
  const numbers = numbersOf(m);
  const out: HoleState = { broken: [], mouths: [], slanted: [], overSteps: [] };
  const last = profile[profile.length - 1].r;
  const drill = last > CONTACT ? last : (profile[profile.length - 2]?.r ?? 0);
  const top = profile[0].r;
  step.places.forEach((at, i) => {
    const place = fromFrame(step.frame, at);
    const mine = faces.filter((f) => f.tag!.instance === numbers[i]);
    const walls = mine.filter((f) => f.surface === "cylinder");
    const arcs = arcsByLevel(circlesAt(edges, step.frame, at, top), step.frame);
    const rims = arcs.filter((a) => a.sweep > WHOLE);
    if (walls.length && walls.every((f) => f.sweep! < WHOLE)) out.broken.push(place);
    else if (top > drill + CONTACT && mine.length && !rims.length) out.mouths.push(place);
    else if (walls.length && top <= drill + CONTACT) {
      const high = Math.max(...walls.map((f) => topOfWall(step.frame, f)));
      if (rims.some((a) => a.level > high - DISPLAY)) return;
      const low = levelOfStep(arcs, high);
      if (low !== null) out.overSteps.push({ place, step: high - low });
      else out.slanted.push({ place, deep: -high });
    }
  });
  return out;
}
/**
 * How high a hole's wall reaches over its frame. Its box stands square to the job: along an axis that does not, a
 * cylinder of length l and radius r is |n| l + 2 r √(1 - n²) wide in the direction its axis leans to most.
 */
function topOfWall(f: Frame, wall: FaceInfo): number {
  const k = (["x", "y", "z"] as const).reduce((a, b) => (Math.abs(f.normal[b]) > Math.abs(f.normal[a]) ? b : a));
  const n = Math.abs(f.normal[k]);
  const { min, max } = wall.box;
  if (n > PARALLEL || wall.surface !== "cylinder") return boxInFrame(f, wall.box).max.z;
  const length = (max[k] - min[k] - 2 * wall.radius! * Math.sqrt(1 - n * n)) / n;
  const middle = { x: (min.x + max.x) / 2, y: (min.y + max.y) / 2, z: (min.z + max.z) / 2 };
  return toFrame(f, middle).z + length / 2;
}
/**
 * Where a mouth that begins at one level ends: the lowest of the levels its arcs lie on. Null where they do not go once
 * round: a whole circle is another end of the hole, and what is missing is no level.
 */
function levelOfStep(arcs: { level: number; sweep: number }[], high: number): number | null {
  const parts = arcs.filter((a) => a.sweep <= WHOLE).sort((a, b) => b.level - a.level);
  if (!parts.length || Math.abs(parts[0].level - high) > DISPLAY) return null;
  let sweep = 0;
  const last = parts.find((a) => (sweep += a.sweep) > WHOLE);
  return last && sweep < 4 * Math.PI - WHOLE ? last.level : null;
}

/** What is said once of all places of a row at which a tool enters or leaves badly. */
const cautioned = (row: SolvedRow, places: Vec3[], more: Pick<Found, "value" | "text" | "source">): Found => ({
  ...whose(row),
  severity: "caution",
  limit: 0,
  place: places[0],
  places,
  ...more,
});
const holesStart = (n: number): string => (n > 1 ? `${n} holes start` : "the hole starts");

export const breaksOut: Rule = {
  id: "breaks-out",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const { broken } = holeState(c, row);
      const crossed = overlap.find(c).some((f) => f.rowId === row.row.id);
      if (!broken.length || crossed) return [];
      const what = broken.length === 1 ? "a hole breaks" : `${broken.length} holes break`;
      const text = `${what} out of the side of the part`;
      return [cautioned(row, broken, { value: broken.length, text, source: "the walls of the holes on the solid" })];
    }),
};

export const mouthOverEdge: Rule = {
  id: "mouth-over-edge",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const { mouths } = holeState(c, row);
      const profile = looked(row).map(profileOf).find(Boolean);
      if (!mouths.length || !profile) return [];
      const value = 2 * profile[0].r;
      const what = `of ⌀${say(c, value)}`;
      const hangs = mouths.length > 1 ? `${mouths.length} mouths ${what} hang` : `the mouth ${what} hangs`;
      const text = `${hangs} over an edge: the land it stands on is narrower`;
      return [cautioned(row, mouths, { value, text, source: "the rim of the mouth on the solid" })];
    }),
};

export const slantedEntry: Rule = {
  id: "slanted-or-round-entry",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const { slanted } = holeState(c, row);
      const [first] = slanted;
      if (!first) return [];
      const meets = `${slanted.length > 1 ? "the first" : "it"} meets the material ${say(c, Math.max(0, first.deep))} below that`;
      const places = slanted.map((s) => s.place);
      return [
        cautioned(row, places, {
          value: first.deep,
          text: `${holesStart(slanted.length)} on a slanted or round face: a drill wanders there. Spot-face or mill a flat first; depths count from the plane, and ${meets}`,
          source: "the mouth of the hole on the solid",
        }),
      ];
    }),
};

export const entryOverStep: Rule = {
  id: "entry-over-step",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const { overSteps } = holeState(c, row);
      const [first] = overSteps;
      if (!first) return [];
      const places = overSteps.map((o) => o.place);
      return [
        cautioned(row, places, {
          value: first.step,
          text: `${holesStart(overSteps.length)} across a step of ${say(c, first.step)}: a drill meets its edge first and wanders. Drill before the step is cut, or mill a flat first`,
          source: "the mouth of the hole on the solid",
        }),
      ];
    }),
};
