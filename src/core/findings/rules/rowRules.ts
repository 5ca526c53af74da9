import {
  boxInFrame,
  dot,
  fromFrame,
  sideNormal,
  sides,
  toFrame,
  v2,
  type Frame,
  type Side,
  type Vec2,
  type Vec3,
} from "../../geometry/vec";
import { endOf, sampleLoop, type Segment } from "../../outline";
import { insideRegion } from "../../outline/boolean";
import type { BodyStep, EdgeInfo, FaceInfo } from "../../engine/kernel";
import type { SolvedRow } from "../../engine/solve";
import { partKinds } from "../../job/partKinds";
import { isSeated, type SeatedRecipe } from "../../rows";
import type { Finding } from "../finding";
import { say, whose, type Rule, type RuleContext } from "../rule";
import { COINCIDENT, CONTACT, DISPLAY, PARALLEL } from "../../geometry/tolerance";
const WHOLE = 2 * Math.PI - 0.01;
type Found = Omit<Finding, "rule">;

/**
 * The step of a row that takes or adds a body; null for edges, for facing that takes only stock, and for rows that
 * are not made.
 */
const bodyStep = (r: SolvedRow): BodyStep | null => {
  const step = r.state === "ok" ? r.placed?.step : null;
  return step && (step.op === "cut" || step.op === "leave") ? step : null;
};
/** The profile of a row of round holes: radius by depth. */
const profileOf = (r: SolvedRow): { r: number; z: number }[] | null => {
  const step = bodyStep(r);
  return step?.op === "cut" && step.body.body === "revolved" ? step.body.profile : null;
};
const widest = (profile: { r: number }[]): number => Math.max(...profile.map((p) => p.r));

/** Faces a row made, as they stood right after it. */
const facesThen = (c: RuleContext, r: SolvedRow): FaceInfo[] =>
  r.key ? c.kernel.faces(r.key).filter((f) => f.tag?.row === r.row.id) : [];

const facesNow = (c: RuleContext, r: SolvedRow): FaceInfo[] => c.faces.filter((f) => f.tag?.row === r.row.id);

export const cutsNothing: Rule = {
  id: "cuts-nothing",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      if (row.state !== "ok" || !row.recipe || ["leave", "edges", "said"].includes(row.recipe.op)) return [];
      const place = row.planes?.start?.origin ?? null;
      const facesStock = row.recipe.op === "face" && row.placed?.step === null && (c.allowance?.top ?? 0) > CONTACT;
      const source = "the solid before and after the row";
      if (Math.abs(row.removed) < CONTACT)
        return facesStock
          ? []
          : [
              {
                ...whose(row),
                severity: "stop",
                value: 0,
                limit: 0,
                place,
                text: "cuts nothing: there is no material where it goes",
                source,
              },
            ];
      const step = bodyStep(row);
      if (!step || step.places.length < 2 || step.places.length > MOST_LOOKED) return [];
      const parts = step.body.body === "prism" ? 1 + (step.body.more?.length ?? 0) : 1;
      const without = (faces: FaceInfo[]) => {
        const there = new Set(faces.map((f) => Math.floor(f.tag!.instance / parts)));
        return step.places.flatMap((p, i) =>
          there.has(step.instances?.[i] ?? i) || doubled(step.places, i) ? [] : [p],
        );
      };
      // What is there at the end was there before; only what is not is looked for as it stood then.
      const missing = without(facesNow(c, row)).length ? without(facesThen(c, row)) : [];
      if (!missing.length) return [];
      return [
        {
          ...whose(row),
          severity: "stop",
          value: missing.length,
          limit: 0,
          place: fromFrame(step.frame, missing[0]),
          text: `${missing.length} of its ${step.places.length} places cut${missing.length === 1 ? "s" : ""} nothing: there is no material there`,
          source,
        },
      ];
    }),
};
const MOST_LOOKED = 400;
const doubled = (places: Vec2[], i: number): boolean =>
  places.slice(0, i).some((p) => Math.hypot(p.x - places[i].x, p.y - places[i].y) < CONTACT);

export const addsNothing: Rule = {
  id: "adds-nothing",
  find: (c) =>
    c.rows.flatMap((row): Found[] =>
      row.state === "ok" && row.recipe?.op === "leave" && row.removed > -CONTACT
        ? [
            {
              ...whose(row),
              severity: "caution",
              value: 0,
              limit: 0,
              place: row.planes?.start?.origin ?? null,
              text: "adds nothing: it lies wholly in what is there",
              source: "the solid before and after the row",
            },
          ]
        : [],
    ),
};

export const inPieces: Rule = {
  id: "in-pieces",
  find(c) {
    const { solids, box } = c.kernel.measure(c.key);
    const pieces: readonly number[] = partKinds[c.job.part?.kind ?? "work"].pieces;
    if (solids < 2 || pieces.includes(solids)) return [];
    const first = c.rows.find(
      (r) => r.state === "ok" && r.key !== null && c.kernel.has(r.key) && c.kernel.measure(r.key).solids > 1,
    );
    return [
      {
        row: first?.number ?? null,
        rowId: first?.row.id ?? null,
        severity: "stop",
        value: solids,
        limit: 1,
        place: first?.planes?.start?.origin ?? { x: box.max.x, y: box.max.y, z: box.max.z },
        text: `the part is in ${solids} pieces${first ? ", from this row on" : ""}: what touches along a line or not at all is not joined`,
        source: "the solid, counted",
      },
    ];
  },
};

interface Hole {
  row: SolvedRow;
  frame: Frame;
  at: Vec2;
  radius: number;
  place: Vec3;
}
function holesOf(c: RuleContext): Hole[] {
  return c.rows.flatMap((row) => {
    const profile = profileOf(row);
    const step = bodyStep(row);
    if (!profile || !step || step.places.length > MOST_LOOKED) return [];
    return step.places.map((at) => ({
      row,
      frame: step.frame,
      at,
      radius: widest(profile),
      place: fromFrame(step.frame, at),
    }));
  });
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
const isWhole = (e: EdgeInfo): boolean => e.length > WHOLE * e.radius!;

interface HoleState {
  broken: Vec3[];
  mouths: Vec3[];
  slanted: { place: Vec3; deep: number }[];
}
const clean = (s: HoleState): boolean => !s.broken.length && !s.mouths.length && !s.slanted.length;
const looked = new WeakMap<RuleContext, Map<SolvedRow, HoleState>>();

/**
 * What became of the walls and mouths of holes: on the finished part, and where that leaves a doubt (a mouth may
 * have been chamfered since) as they stood then.
 */
function holeState(c: RuleContext, row: SolvedRow): HoleState {
  const known = looked.get(c) ?? new Map<SolvedRow, HoleState>();
  looked.set(c, known);
  const done = known.get(row);
  if (done) return done;
  const none: HoleState = { broken: [], mouths: [], slanted: [] };
  const profile = profileOf(row);
  const step = bodyStep(row);
  let state = none;
  if (profile && step && row.key && step.places.length <= MOST_LOOKED) {
    state = stateOfHoles(profile, step, facesNow(c, row), c.edges);
    if (!clean(state) && row.key !== c.key)
      state = stateOfHoles(profile, step, facesThen(c, row), c.kernel.edges(row.key));
  }
  known.set(row, state);
  return state;
}

function stateOfHoles(profile: { r: number }[], step: BodyStep, faces: FaceInfo[], edges: EdgeInfo[]): HoleState {
  const out: HoleState = { broken: [], mouths: [], slanted: [] };
  const last = profile[profile.length - 1].r;
  const drill = last > CONTACT ? last : (profile[profile.length - 2]?.r ?? 0);
  const top = profile[0].r;
  const circles = edges.filter((e) => e.curve === "circle" && isWhole(e));
  step.places.forEach((at, i) => {
    const place = fromFrame(step.frame, at);
    const mine = faces.filter((f) => f.tag!.instance === (step.instances?.[i] ?? i));
    const walls = mine.filter((f) => f.surface === "cylinder");
    const rims = circlesAt(circles, step.frame, at, top);
    if (walls.length && walls.every((f) => f.sweep! < WHOLE)) out.broken.push(place);
    else if (top > drill + CONTACT && mine.length && !rims.length) out.mouths.push(place);
    else if (walls.length && top <= drill + CONTACT && !rims.some((e) => entryLevel(step.frame, e.centre!, walls)))
      out.slanted.push({ place, deep: -Math.max(...walls.map((f) => topOfWall(step.frame, f))) });
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
/** Whether a circle is where the hole begins: no wall reaches higher. */
const entryLevel = (f: Frame, centre: Vec3, walls: FaceInfo[]): boolean =>
  toFrame(f, centre).z > Math.max(...walls.map((w) => topOfWall(f, w))) - DISPLAY;

export const breaksOut: Rule = {
  id: "breaks-out",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const { broken } = holeState(c, row);
      const crossed = overlap.find(c).some((f) => f.rowId === row.row.id);
      return broken.length && !crossed
        ? [
            {
              ...whose(row),
              severity: "caution",
              value: broken.length,
              limit: 0,
              place: broken[0],
              text: `${broken.length === 1 ? "a hole breaks" : `${broken.length} holes break`} out of the side of the part`,
              source: "the walls of the holes on the solid",
            },
          ]
        : [];
    }),
};

export const mouthOverEdge: Rule = {
  id: "mouth-over-edge",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const { mouths } = holeState(c, row);
      const profile = profileOf(row);
      return mouths.length
        ? [
            {
              ...whose(row),
              severity: "caution",
              value: 2 * profile![0].r,
              limit: 0,
              place: mouths[0],
              text: `the mouth of ⌀${say(c, 2 * profile![0].r)} hangs over an edge: the land it stands on is narrower`,
              source: "the rim of the mouth on the solid",
            },
          ]
        : [];
    }),
};

export const slantedEntry: Rule = {
  id: "slanted-or-round-entry",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const [first] = holeState(c, row).slanted;
      return first
        ? [
            {
              ...whose(row),
              severity: "caution",
              value: first.deep,
              limit: 0,
              place: first.place,
              text: `the hole starts on a slanted or round face: a drill wanders there. Spot-face or mill a flat first; depths count from the plane, and it meets the material ${say(c, Math.max(0, first.deep))} below that`,
              source: "the mouth of the hole on the solid",
            },
          ]
        : [];
    }),
};

/** Two faces with material between them, and how thick it is. */
interface Thickness {
  thick: number;
  a: FaceInfo;
  b: FaceInfo;
}

/** Thin places between parallel flats and between round walls about one axis, measured on the solid. */
function thinPlaces(c: RuleContext, most: number): Thickness[] {
  const out: Thickness[] = [];
  const flats = c.faces.filter((f) => f.surface === "plane" && f.area > 1);
  flats.forEach((a, i) => {
    for (const b of flats.slice(i + 1)) {
      if (dot(a.normal, b.normal) > -1 + COINCIDENT) continue;
      const thick = dot(a.normal, a.point) + dot(b.normal, b.point);
      if (thick > CONTACT && thick < most && sideBySide(a, b, a.normal)) out.push({ thick, a, b });
    }
  });
  const round = c.faces.filter((f) => f.surface === "cylinder" && f.sweep! > Math.PI);
  for (const inner of round.filter((f) => f.hollow))
    for (const outer of round.filter((f) => !f.hollow)) {
      const thick = outer.radius! - inner.radius!;
      if (thick < CONTACT || thick >= most || Math.abs(dot(inner.axis!.direction, outer.axis!.direction)) < PARALLEL)
        continue;
      const d = {
        x: inner.axis!.origin.x - outer.axis!.origin.x,
        y: inner.axis!.origin.y - outer.axis!.origin.y,
        z: inner.axis!.origin.z - outer.axis!.origin.z,
      };
      const along = dot(d, outer.axis!.direction);
      const off = Math.hypot(
        d.x - along * outer.axis!.direction.x,
        d.y - along * outer.axis!.direction.y,
        d.z - along * outer.axis!.direction.z,
      );
      const overlapping = (["x", "y", "z"] as const).every(
        (k) => inner.box.min[k] < outer.box.max[k] - CONTACT && inner.box.max[k] > outer.box.min[k] + CONTACT,
      );
      if (off < CONTACT && overlapping) out.push({ thick, a: inner, b: outer });
    }
  return out;
}
/** Whether two flats that look away from one another lie side by side, seen along their direction. */
function sideBySide(a: FaceInfo, b: FaceInfo, n: Vec3): boolean {
  return (["x", "y", "z"] as const).every(
    (k) => Math.abs(n[k]) > 0.999 || Math.min(a.box.max[k], b.box.max[k]) - Math.max(a.box.min[k], b.box.min[k]) > 0.05,
  );
}
const isFloor = (t: Thickness): boolean => t.a.tag?.role === "floor" || t.b.tag?.role === "floor";

function thin(c: RuleContext, floors: boolean): Found[] {
  const limit = floors ? c.limits.thinFloor : c.limits.thinWall;
  const found = thinPlaces(c, limit.value - CONTACT).filter((t) => isFloor(t) === floors);
  if (!found.length) return [];
  const worst = found.reduce((x, y) => (y.thick < x.thick ? y : x));
  const number = (f: FaceInfo) => c.rows.findIndex((r) => r.row.id === f.tag?.row);
  const last = c.rows[Math.max(number(worst.a), number(worst.b))];
  return [
    {
      ...(last ? whose(last) : { row: null, rowId: null }),
      severity: "caution",
      value: worst.thick,
      limit: limit.value,
      place: worst.a.point,
      text: `${floors ? "a floor" : "a wall"} of ${say(c, worst.thick)} is left; under ${say(c, limit.value)} it bends and chatters`,
      source: limit.source,
    },
  ];
}
export const thinWall: Rule = { id: "thin-wall", find: (c) => thin(c, false) };
export const thinFloor: Rule = { id: "thin-floor", find: (c) => thin(c, true) };

/** A side plane is the outermost flat that way; where something round reaches farther, it says which it took. */
/** A groove round a shaft counts from the shaft, not from a side of the part. */
const isCollar = (recipe: SeatedRecipe): boolean => recipe.op === "cut" && recipe.body.body === "collar";

export const planeInside: Rule = {
  id: "plane-inside",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const recipe = row.recipe;
      if (
        row.state !== "ok" ||
        !isSeated(recipe) ||
        isCollar(recipe) ||
        !row.planes?.start ||
        !sides.includes(recipe.plane.on as Side)
      )
        return [];
      const before = c.rows
        .slice(0, row.number - 1)
        .reverse()
        .find((r) => r.key !== null)?.key;
      if (!before || !c.kernel.has(before)) return [];
      const normal = sideNormal(recipe.plane.on as Side);
      const flat = dot(row.planes.start.origin, normal) + (recipe.plane as { start: number }).start;
      const { min, max } = c.kernel.measure(before).box;
      const reach = Math.max(dot(min, normal), dot(max, normal));
      if (reach - flat < 0.01) return [];
      const on = recipe.plane.on;
      return [
        {
          ...whose(row),
          severity: "note",
          value: reach - flat,
          limit: 0,
          place: row.planes.start.origin,
          text: `${on.toUpperCase()} is the outermost flat that way; the part reaches ${say(c, reach - flat)} farther with a round`,
          source: "the flats and the box of the part",
        },
      ];
    }),
};

/** Engraving that leaves the flat it stands on. */
export const runsOff: Rule = {
  id: "runs-off",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const step = bodyStep(row);
      if (!step || step.body.body !== "vee") return [];
      const body = step.body;
      const key = c.rows
        .slice(0, row.number - 1)
        .reverse()
        .find((r) => r.key !== null)?.key;
      if (!key || !c.kernel.has(key)) return [];
      const flats = c.kernel
        .faces(key)
        .flatMap((f, i) =>
          f.surface === "plane" &&
          dot(f.normal, step.frame.normal) > PARALLEL &&
          Math.abs(toFrame(step.frame, f.point).z) < CONTACT
            ? [i]
            : [],
        );
      const flat = (p: Vec3): Vec2 => {
        const q = toFrame(step.frame, p);
        return v2(q.x, q.y);
      };
      const rims = c.kernel
        .outerWires(key, flats)
        .map((w) => w.pieces.map(([a, b]): Segment => ({ kind: "line", from: flat(a), to: flat(b) })));
      // A chain is sampled from corner to corner, so its last end is added.
      const drawn = body.chains.flatMap((chain) => [...sampleLoop(chain, Math.PI / 12), ...chain.slice(-1).map(endOf)]);
      const off = step.places
        .flatMap((at) => drawn.map((q) => v2(q.x + at.x, q.y + at.y)))
        .filter((q) => !rims.some((rim) => insideRegion([rim], q)));
      return off.length
        ? [
            {
              ...whose(row),
              severity: "caution",
              value: off.length,
              limit: 0,
              place: fromFrame(step.frame, off[0]),
              text: "the engraving runs off its face",
              source: "geometry: its chains and the outline of the face",
            },
          ]
        : [];
    }),
};
