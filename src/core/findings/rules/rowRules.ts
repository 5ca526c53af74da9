import { dot, fromFrame, toFrame, v2, type Vec2, type Vec3 } from "../../geometry/vec";
import { endOf, sampleLoop, type Segment } from "../../outline";
import { insideRegion } from "../../outline/boolean";
import type { FaceInfo } from "../../engine/kernel";
import { numbersOf, placeOfFace, type Made } from "../../engine/madeBy";
import type { SolvedRow } from "../../engine/solve";
import { partKinds } from "../../job/partKinds";
import type { Finding } from "../finding";
import { whose, type Rule, type RuleContext } from "../rule";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import { facesNow, facesThen, looked } from "./lookedAt";
type Found = Omit<Finding, "rule">;

const nothingCut = (row: SolvedRow, more: Pick<Found, "value" | "place" | "places" | "text">): Found => ({
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
          places,
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

/** A room inside the part that nothing leads into: no cutter gets there, and no chip out. */
export const closedVoid: Rule = {
  id: "closed-void",
  find(c) {
    // The solid's own count decides: faces only say where.
    if (c.kernel.measure(c.key).solids !== 1 || c.kernel.skins(c.key) < 2) return [];
    const skins = skinsOf(c).sort((a, b) => skinSize(c, b) - skinSize(c, a));
    const rooms = skins.slice(1);
    const ids = new Set(rooms.flat().map((f) => c.faces[f].tag?.row));
    const rows = c.rows.filter((r) => ids.has(r.row.id));
    const last = rows[rows.length - 1];
    const places = rooms.map((faces) => c.faces[faces[0]].point);
    const made = rows.length ? ` (rows ${rows.map((r) => r.number).join(", ")})` : "";
    return [
      {
        ...(last ? whose(last) : { row: null, rowId: null }),
        severity: "stop",
        value: c.kernel.skins(c.key) - 1,
        limit: 0,
        place: places[0] ?? null,
        places,
        text: `${rooms.length > 1 ? `${rooms.length} rooms` : "a room"} inside the part that nothing leads into${made}: no cutter gets there`,
        source: "the solid, its skins counted",
      },
    ];
  },
};

/** Faces of the part that hang together by their edges, skin by skin. */
function skinsOf({ faces, edges }: RuleContext): number[][] {
  const of = faces.map((_, i) => i);
  const root = (i: number): number => {
    while (of[i] !== i) i = of[i] = of[of[i]];
    return i;
  };
  for (const e of edges) if (e.length > 0) of[root(e.faces[0])] = root(e.faces[1]);
  const skins = new Map<number, number[]>();
  faces.forEach((_, i) => skins.set(root(i), [...(skins.get(root(i)) ?? []), i]));
  return [...skins.values()];
}
/** Half way round the box of a skin: the outside's is the largest. */
const skinSize = (c: RuleContext, skin: number[]): number =>
  (["x", "y", "z"] as const).reduce(
    (sum, k) =>
      sum + Math.max(...skin.map((f) => c.faces[f].box.max[k])) - Math.min(...skin.map((f) => c.faces[f].box.min[k])),
    0,
  );

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
              places: off,
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
