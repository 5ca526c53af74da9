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
import { lengthText } from "../../number";
import { endOf, sampleLoop, type Segment } from "../../outline";
import { insideRegion } from "../../outline/boolean";
import type { EdgeInfo, FaceInfo } from "../../engine/kernel";
import { madeBy, numbersOf, placeOfFace, type Made } from "../../engine/madeBy";
import type { SolvedRow } from "../../engine/solve";
import { partKinds } from "../../job/partKinds";
import { isSeated, type SeatedRecipe } from "../../rows";
import type { Finding } from "../finding";
import { say, whose, type Rule, type RuleContext } from "../rule";
import { COINCIDENT, CONTACT, DISPLAY, PARALLEL } from "../../geometry/tolerance";
const WHOLE = 2 * Math.PI - 0.01;
type Found = Omit<Finding, "rule">;

/** The profile of a body of round holes: radius by depth. */
const profileOf = ({ step }: Made): { r: number; z: number }[] | null =>
  step.op === "cut" && step.body.body === "revolved" ? step.body.profile : null;
const widest = (profile: { r: number }[]): number => Math.max(...profile.map((p) => p.r));

/** Bodies of a row, its copies among them, whose places are few enough to be looked at one by one. */
const looked = (row: SolvedRow): Made[] => {
  const made = madeBy(row);
  return made.reduce((n, m) => n + m.step.places.length, 0) > MOST_LOOKED ? [] : made;
};
const MOST_LOOKED = 400;

/** Faces a body made, as they stood right after its row, and as they stand now. */
const facesThen = (c: RuleContext, r: SolvedRow, m: Made): FaceInfo[] =>
  r.key ? c.kernel.faces(r.key).filter((f) => f.tag?.row === m.of) : [];
const facesNow = (c: RuleContext, m: Made): FaceInfo[] => c.faces.filter((f) => f.tag?.row === m.of);

const nothingCut = (row: SolvedRow, more: Pick<Found, "value" | "place" | "text">): Found => ({
  ...whose(row),
  severity: "stop",
  limit: 0,
  source: "the solid before and after the row",
  ...more,
});

export const cutsNothing: Rule = {
  id: "cuts-nothing",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      if (row.state !== "ok" || !row.recipe || ["leave", "edges", "said"].includes(row.recipe.op)) return [];
      const facesStock = row.recipe.op === "face" && row.placed?.step === null && (c.allowance?.top ?? 0) > CONTACT;
      if (facesStock) return [];
      const made = looked(row).filter((m) => m.step.op === "cut");
      const isCopies = row.recipe.op === "repeat";
      if (Math.abs(row.removed) < CONTACT && (made.length || !isCopies)) {
        const place = row.planes?.start?.origin ?? (made[0] ? fromFrame(made[0].step.frame, v2(0, 0)) : null);
        return [nothingCut(row, { value: 0, place, text: "cuts nothing: there is no material where it goes" })];
      }
      const places = made.flatMap((m) => missingPlaces(c, row, m));
      const total = made.reduce((n, m) => n + m.step.places.length, 0);
      if (!places.length || total < (isCopies ? 1 : 2)) return [];
      const n = places.length;
      const what = isCopies ? "copies" : "places";
      return [
        nothingCut(row, {
          value: n,
          place: places[0],
          text: `${n} of its ${total} ${what} cut${n === 1 ? "s" : ""} nothing: there is no material there`,
        }),
      ];
    }),
};

/** Places of a body at which it took nothing: no face of theirs is there now, nor was right after the row. */
function missingPlaces(c: RuleContext, row: SolvedRow, m: Made): Vec3[] {
  const numbers = numbersOf(m);
  const without = (faces: FaceInfo[]) => {
    const there = new Set(faces.map((f) => placeOfFace(m, f)));
    return m.step.places.filter((_, i) => !there.has(numbers[i]) && !doubled(m.step.places, i));
  };
  const missing = without(facesNow(c, m)).length ? without(facesThen(c, row, m)) : [];
  return missing.map((p) => fromFrame(m.step.frame, p));
}
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
const isWhole = (e: EdgeInfo): boolean => e.length > WHOLE * e.radius!;

interface HoleState {
  broken: Vec3[];
  mouths: Vec3[];
  slanted: { place: Vec3; deep: number }[];
}
const clean = (s: HoleState): boolean => !s.broken.length && !s.mouths.length && !s.slanted.length;
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
  };
  states.set(row, state);
  return state;
}

function stateOf(c: RuleContext, row: SolvedRow, m: Made): HoleState {
  const profile = profileOf(m);
  if (!profile || !row.key) return { broken: [], mouths: [], slanted: [] };
  const state = stateOfHoles(profile, m, facesNow(c, m), c.edges);
  return clean(state) || row.key === c.key
    ? state
    : stateOfHoles(profile, m, facesThen(c, row, m), c.kernel.edges(row.key));
}

function stateOfHoles(profile: { r: number }[], m: Made, faces: FaceInfo[], edges: EdgeInfo[]): HoleState {
  const { step } = m;
  const numbers = numbersOf(m);
  const out: HoleState = { broken: [], mouths: [], slanted: [] };
  const last = profile[profile.length - 1].r;
  const drill = last > CONTACT ? last : (profile[profile.length - 2]?.r ?? 0);
  const top = profile[0].r;
  const circles = edges.filter((e) => e.curve === "circle" && isWhole(e));
  step.places.forEach((at, i) => {
    const place = fromFrame(step.frame, at);
    const mine = faces.filter((f) => f.tag!.instance === numbers[i]);
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
      const profile = looked(row).map(profileOf).find(Boolean);
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

/**
 * The same word for a plane that has become another one: for the first row a side is the plane through the job's zero,
 * for those after it the part's own side. Said of rows that add, which nobody sees go astray.
 */
export const planeChanged: Rule = {
  id: "plane-changed",
  find(c) {
    const [first, ...later] = c.rows.filter((r) => r.state === "ok" && r.recipe?.op === "leave");
    const side = first && sideOf(first);
    const origin = first?.planes?.start?.origin;
    if (!side || !origin) return [];
    const normal = sideNormal(side);
    return later.flatMap((row): Found[] => {
      const start = row.planes?.start?.origin;
      if (sideOf(row) !== side || !start) return [];
      const off = dot(start, normal) - dot(origin, normal);
      if (Math.abs(off) < CONTACT) return [];
      const word = side.toUpperCase();
      return [
        {
          ...whose(row),
          severity: "note",
          value: off,
          limit: 0,
          place: start,
          text: `${word} is the part's own side here, ${say(c, Math.abs(off))} from where row ${first.number} stands: there ${word} was the plane through the job's zero. AT 0,0,${lengthText(-off, c.job.unit)} is that plane`,
          source: "where both rows stand",
        },
      ];
    });
  },
};
/** The side a row stands on without a depth of its own; null where it says another plane, or the top, which is usual. */
function sideOf({ recipe }: SolvedRow): Side | null {
  if (!isSeated(recipe) || recipe.plane.on === "top" || !sides.includes(recipe.plane.on as Side)) return null;
  return "start" in recipe.plane && recipe.plane.start !== 0 ? null : (recipe.plane.on as Side);
}

/** Engraving that leaves the flat it stands on, its copies too. */
export const runsOff: Rule = {
  id: "runs-off",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const off = looked(row).flatMap((m) => offItsFlat(c, row, m));
      return off.length
        ? [
            {
              ...whose(row),
              severity: "caution",
              value: off.length,
              limit: 0,
              place: off[0],
              text: "the engraving runs off its face",
              source: "geometry: its chains and the outline of the face",
            },
          ]
        : [];
    }),
};

/** Places of an engraved chain that lie beside the flat it stands on, as that was before the row. */
function offItsFlat(c: RuleContext, row: SolvedRow, { step }: Made): Vec3[] {
  const { body, frame } = step;
  if (body.body !== "vee") return [];
  const before = c.rows.slice(0, row.number - 1).reverse();
  const key = before.find((r) => r.key !== null)?.key;
  if (!key || !c.kernel.has(key)) return [];
  const isItsFlat = (f: FaceInfo) =>
    f.surface === "plane" && dot(f.normal, frame.normal) > PARALLEL && Math.abs(toFrame(frame, f.point).z) < CONTACT;
  const flats = c.kernel.faces(key).flatMap((f, i) => (isItsFlat(f) ? [i] : []));
  const flat = (p: Vec3): Vec2 => {
    const q = toFrame(frame, p);
    return v2(q.x, q.y);
  };
  const rims = c.kernel
    .outerWires(key, flats)
    .map((w) => w.pieces.map(([a, b]): Segment => ({ kind: "line", from: flat(a), to: flat(b) })));
  // A chain is sampled from corner to corner, so its last end is added.
  const drawn = body.chains.flatMap((chain) => [...sampleLoop(chain, Math.PI / 12), ...chain.slice(-1).map(endOf)]);
  return step.places
    .flatMap((at) => drawn.map((q) => v2(q.x + at.x, q.y + at.y)))
    .filter((q) => !rims.some((rim) => insideRegion([rim], q)))
    .map((q) => fromFrame(frame, q));
}
