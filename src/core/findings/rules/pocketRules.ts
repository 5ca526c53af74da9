import { drawnEdge } from "../../engine/edgeDrawn";
import { roundedLoop } from "../../outline";
import { pocketShape, type CutPocket } from "../../rows/cutPocket";
import type { Resolved } from "../../rows";
import type { Cutter } from "../../tables";
import type { SolvedRow } from "../../engine/solve";
import {
  insideCorners,
  largestWithin,
  say,
  sayRadius,
  sharpCorners,
  smallestReaching,
  up,
  down,
  wallDepth,
  whose,
  type Rule,
  type RuleContext,
} from "../rule";
import type { Fix } from "../finding";
import { CONTACT, DISPLAY } from "../../geometry/tolerance";

const isTyped = (r: SolvedRow): boolean => r.feature?.is === "pocket" && !r.feature.free;
/** Pockets typed by their shape and pockets of an outline alike. */
const pockets = (c: RuleContext) => c.rows.filter((r) => r.state === "ok" && r.feature?.is === "pocket");
/** The radius of a pocket that is round all over; null for any other. */
function roundRadius(row: SolvedRow): number | null {
  return row.feature?.is === "pocket" ? row.feature.round : null;
}

/** Whether a pocket's walls leave room for rounds of a radius. */
function fits(row: SolvedRow, radius: number): boolean {
  // An outline's corners are its own lines: no number of this row makes them.
  if (!isTyped(row)) return false;
  const shape = pocketShape({ ...(row.resolved as Resolved<CutPocket>), radius: 0 });
  return shape.ok && shape.value !== null && roundedLoop(shape.value.corners, radius) !== null;
}
const setRadius = (c: RuleContext, row: SolvedRow, radius: number): Fix => {
  const text = up(c, radius);
  return { label: `R${text}`, edits: [{ edit: "setNumber", id: row.row.id, path: "radius", text }] };
};
const setDepth = (c: RuleContext, row: SolvedRow, depth: number): Fix => {
  const text = down(c, depth);
  const body = { ...row.row.body, depth: "deep", deep: text } as SolvedRow["row"]["body"];
  return { label: `deep ${text}`, edits: [{ edit: "setRow", id: row.row.id, body }] };
};

export const sharpInsideCorner: Rule = {
  id: "sharp-inside-corner",
  find: (c) =>
    c.rows
      .filter((r) => r.state === "ok" && (r.recipe?.op === "cut" || r.recipe?.op === "leave"))
      .flatMap((row) => {
        const corners = sharpCorners(c, row);
        if (!corners.length) return [];
        const smallest = Math.min(...c.crib.map((t) => t.diameter / 2));
        let fix: Fix | undefined;
        if (isTyped(row)) {
          const depth = wallDepth(c, row);
          const corner = (t: Cutter) => (t.diameter / 2) * c.limits.cornerOverCutter.value;
          const room = c.crib.filter((t) => t.reach >= depth && fits(row, corner(t) * c.limits.cornerRoom.value));
          const cutter = room.length
            ? room.reduce((a, b) => (b.diameter > a.diameter ? b : a))
            : smallestReaching(c.crib, depth);
          if (cutter && fits(row, corner(cutter))) fix = setRadius(c, row, corner(cutter));
        }
        return [
          {
            ...whose(row),
            severity: "stop" as const,
            value: 0,
            limit: smallest,
            place: corners[0].middle,
            lines: corners.flatMap(drawnEdge),
            fix,
            text: `${corners.length} sharp inside corner${corners.length > 1 ? "s" : ""}: no round cutter makes R0; the smallest in the crib leaves ${sayRadius(c, smallest)}`,
            source: "geometry: a round cutter leaves its own radius",
          },
        ];
      }),
};

export const cornerTooSmall: Rule = {
  id: "corner-too-small",
  find: (c) =>
    pockets(c).flatMap((row) => {
      const corners = insideCorners(c, row);
      const depth = wallDepth(c, row);
      if (depth === 0) return [];
      const whole = roundRadius(row);
      const round = whole !== null;
      const radius = whole ?? Math.min(...corners.map((k) => k.radius));
      if (!Number.isFinite(radius) || largestWithin(c.crib, radius, depth)) return [];
      const reaching = smallestReaching(c.crib, depth);
      const place = round ? null : corners.reduce((a, b) => (b.radius < a.radius ? b : a)).point;
      const within = largestWithin(c.crib, radius);
      const wanted = reaching && (reaching.diameter / 2) * c.limits.cornerOverCutter.value;
      const fix =
        !round && wanted && fits(row, wanted)
          ? setRadius(c, row, wanted)
          : within
            ? setDepth(c, row, within.reach)
            : undefined;
      return [
        {
          ...whose(row),
          severity: "stop" as const,
          value: radius,
          limit: reaching ? reaching.diameter / 2 : 0,
          place,
          fix,
          text: reaching
            ? `${sayRadius(c, radius)} at ${say(c, depth)} deep: the smallest cutter that reaches is ${reaching.name}, ${sayRadius(c, reaching.diameter / 2)}`
            : `${say(c, depth)} deep: no cutter in the crib reaches`,
          source: "the crib: radius and reach of its cutters",
        },
      ];
    }),
};

export const cornerEqualsCutter: Rule = {
  id: "corner-equals-cutter",
  find: (c) =>
    pockets(c).flatMap((row) => {
      const depth = wallDepth(c, row);
      const corners = insideCorners(c, row);
      if (!corners.length) return [];
      const corner = corners.reduce((a, b) => (b.radius < a.radius ? b : a));
      const cutter = largestWithin(c.crib, corner.radius, depth);
      const limit = c.limits.cornerOverCutter;
      if (!cutter || corner.radius >= (cutter.diameter / 2) * limit.value - CONTACT) return [];
      const better = (cutter.diameter / 2) * limit.value;
      const equal = Math.abs(corner.radius - cutter.diameter / 2) < DISPLAY;
      return [
        {
          ...whose(row),
          severity: "note" as const,
          value: corner.radius / (cutter.diameter / 2),
          limit: limit.value,
          place: corner.point,
          text: equal
            ? `corner equals cutter: ${sayRadius(c, corner.radius)} with a ${cutter.name}, it will dwell; ${sayRadius(c, better)} runs smoother`
            : `corner hardly over the cutter: ${sayRadius(c, corner.radius)} with a ${cutter.name}; ${sayRadius(c, better)} runs smoother`,
          source: limit.source,
          ...(fits(row, better) ? { fix: setRadius(c, row, better) } : {}),
        },
      ];
    }),
};

export const deepForItsCutter: Rule = {
  id: "deep-for-its-cutter",
  find: (c) =>
    pockets(c).flatMap((row) => {
      const depth = wallDepth(c, row);
      const corners = insideCorners(c, row);
      const radius = roundRadius(row) ?? (corners.length ? Math.min(...corners.map((k) => k.radius)) : 0);
      const cutter = radius > 0 ? largestWithin(c.crib, radius) : null;
      if (!cutter || depth === 0) return [];
      const ratio = depth / cutter.diameter;
      const { depthOverCutterCaution: three, depthOverCutterLong: five, depthOverCutterStop: eight } = c.limits;
      const over = [eight, five, three].find((l) => ratio > l.value + CONTACT);
      if (!over) return [];
      const need = c.crib
        .filter((t) => depth / t.diameter <= three.value && t.reach >= depth)
        .sort((a, b) => a.diameter - b.diameter)[0];
      const roomy = need && (need.diameter / 2) * c.limits.cornerOverCutter.value;
      const fix =
        roundRadius(row) === null && roomy && fits(row, roomy)
          ? setRadius(c, row, roomy)
          : setDepth(c, row, cutter.diameter * three.value);
      return [
        {
          ...whose(row),
          severity: over === eight ? ("stop" as const) : ("caution" as const),
          value: ratio,
          limit: over.value,
          place: corners[0]?.point ?? null,
          fix,
          text: `${say(c, depth)} deep with a ${cutter.name}: ${ratio.toFixed(1)} times its diameter${over === eight ? "" : over === five ? ", a long-reach cutter" : ", light cuts"}`,
          source: over.source,
        },
      ];
    }),
};
