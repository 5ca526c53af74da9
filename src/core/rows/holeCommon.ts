import { problems } from "./problems";
import { z } from "zod";
import { marked, number, sequence, word, type Clause, optional } from "../grammar/grammar";
import { numberText } from "../number";
import { fail, ok, type Result } from "../base/result";
import { envelope, profileVolume, type Piece } from "./common";
import type { Body, Extent, Field, ProfilePoint } from "./kind";

type RevolvedBody = Extract<Body, { body: "revolved" }>;

/** Included angle of a usual twist drill's point: 118 degrees, common practice, no source. */
export const DRILL_POINT = (118 * Math.PI) / 180;

export const mouthFields = {
  end: z.enum(["flat", "point"]).optional(),
  point: numberText.optional(),
  cbore: z.strictObject({ diameter: numberText, deep: numberText }).optional(),
  csk: z.strictObject({ diameter: numberText, angle: numberText }).optional(),
  spotface: z.strictObject({ diameter: numberText, deep: numberText.optional() }).optional(),
};

/** `FLAT` or `POINT a`: how a blind hole ends. */
export const endClause: Clause = {
  expected: "FLAT or POINT",
  starts: (r) => r.sees("FLAT") || r.sees("POINT"),
  read(r, row) {
    if (r.take("FLAT")) row.end = "flat";
    else {
      r.want("POINT");
      row.end = "point";
      row.point = r.angle("point");
    }
  },
  write: (row, names) =>
    row.end === "flat"
      ? "FLAT"
      : row.end === "point"
        ? marked("POINT", "point", "Point angle", "includedAngle").write(row, names)
        : "",
  numbers: (row) =>
    row.end === "point" && row.point !== undefined
      ? [{ path: "point", label: "Point angle", quantity: "includedAngle", means: "angle", text: row.point }]
      : [],
};
export const cboreClause = optional(
  "cbore",
  sequence(
    word("CBORE"),
    number("cbore.diameter", "Counterbore ⌀", "length", { sign: "⌀" }),
    marked("DEEP", "cbore.deep", "Counterbore depth", "length", { means: "depth" }),
  ),
);
export const cskClause = optional(
  "csk",
  sequence(
    word("CSK"),
    number("csk.diameter", "Countersink ⌀", "length", { sign: "⌀", means: "countersink" }),
    word("X"),
    number("csk.angle", "Countersink angle", "includedAngle", { angle: true }),
  ),
);

/** `SPOTFACE ⌀d [DEEP d]`: a flat seat; without a depth it takes only what stands over the plane. */
export const spotfaceClause = optional(
  "spotface",
  sequence(
    word("SPOTFACE"),
    number("spotface.diameter", "Spotface ⌀", "length", { sign: "⌀" }),
    optional("spotface.deep", marked("DEEP", "spotface.deep", "Spotface depth", "length", { means: "depth" })),
  ),
);

interface Mouth {
  spotface?: { diameter: number; deep?: number };
  end?: "flat" | "point";
  point?: number;
  cbore?: { diameter: number; deep: number };
  csk?: { diameter: number; angle: number };
}

/** What widens a hole's mouth. */
export const mouthOf = (row: Mouth): ("counterbore" | "countersink")[] => [
  ...(row.cbore ? (["counterbore"] as const) : []),
  ...(row.csk ? (["countersink"] as const) : []),
];

/**
 * Profile of a hole with its counterbore and countersink, both cut from the plane. Point depth = (d/2) /
 * tan(point/2).
 */
function holeProfile(diameter: number, depth: number | "thru", mouth: Mouth): Result<ProfilePoint[]> {
  const r = diameter / 2;
  const pieces: Piece[] = [];
  if (depth !== "thru") {
    pieces.push({ r0: r, z0: 0, r1: r, z1: depth });
    if (mouth.end !== "flat")
      pieces.push({ r0: r, z0: depth, r1: 0, z1: depth + r / Math.tan((mouth.point ?? DRILL_POINT) / 2) });
  } else pieces.push({ r0: r, z0: 0, r1: r, z1: diameter });
  if (mouth.cbore) {
    if (mouth.cbore.diameter <= diameter) return fail(problems.counterboreNotWider(), { path: "cbore.diameter" });
    pieces.push({ r0: mouth.cbore.diameter / 2, z0: 0, r1: mouth.cbore.diameter / 2, z1: mouth.cbore.deep });
  }
  if (mouth.spotface) {
    const { diameter: wide, deep = 0 } = mouth.spotface;
    if (wide <= diameter) return fail(problems.spotfaceNotWider(), { path: "spotface.diameter" });
    if (deep > 0) pieces.push({ r0: wide / 2, z0: 0, r1: wide / 2, z1: deep });
  }
  if (mouth.csk) {
    if (mouth.csk.diameter <= diameter) return fail(problems.countersinkNotWider(), { path: "csk.diameter" });
    const top = mouth.csk.diameter / 2;
    pieces.push({ r0: top, z0: 0, r1: 0, z1: top / Math.tan(mouth.csk.angle / 2) });
  }
  return ok(envelope(pieces, depth === "thru" ? r : null));
}

const pointOf = (diameter: number, mouth: Mouth): number =>
  mouth.end === "flat" ? 0 : diameter / 2 / Math.tan((mouth.point ?? DRILL_POINT) / 2);

/** A hole with all that is at its mouth, down to where it ends; its point stands below that. */
export function holeBody(diameter: number, depth: Extent, mouth: Mouth): Result<RevolvedBody> {
  const known = typeof depth === "number" || depth === "thru";
  const profile = holeProfile(diameter, known ? depth : "thru", mouth);
  if (!profile.ok) return profile;
  if (known) return ok({ body: "revolved", profile: profile.value });
  const tip = depth === "next" ? 0 : pointOf(diameter, mouth);
  return ok({ body: "revolved", profile: profile.value, end: { extent: depth, tip } });
}

/** Volume of a lone blind hole; null where it goes to something. */
export function holeVolume(diameter: number, depth: number | null, mouth: Mouth): number | null {
  const profile = depth === null ? null : holeProfile(diameter, depth, mouth);
  return profile?.ok ? profileVolume(profile.value, 0) : null;
}

export const mouthEditor: Field[] = [
  {
    field: "choice",
    path: "end",
    label: "Bottom",
    options: [
      { value: "", label: "drill point 118°", set: { end: undefined, point: undefined } },
      { value: "flat", label: "flat", set: { end: "flat", point: undefined } },
      { value: "point", label: "other point", set: { end: "point", point: "135" } },
    ],
  },
  { field: "number", path: "point", label: "Point angle" },
  {
    field: "choice",
    path: "cbore",
    label: "Counterbore",
    options: [
      { value: "", label: "none", set: { cbore: undefined } },
      { value: "yes", label: "counterbored", set: { cbore: { diameter: "?", deep: "?" } } },
    ],
  },
  { field: "number", path: "cbore.diameter", label: "Counterbore ⌀" },
  { field: "number", path: "cbore.deep", label: "C’bore depth" },
  {
    field: "choice",
    path: "csk",
    label: "Countersink",
    options: [
      { value: "", label: "none", set: { csk: undefined } },
      { value: "yes", label: "countersunk", set: { csk: { diameter: "?", angle: "90" } } },
    ],
  },
  { field: "number", path: "csk.diameter", label: "Countersink ⌀" },
  { field: "number", path: "csk.angle", label: "Included angle" },
  {
    field: "choice",
    path: "spotface",
    label: "Spotface",
    options: [
      { value: "", label: "none", set: { spotface: undefined } },
      { value: "yes", label: "spotfaced", set: { spotface: { diameter: "?" } } },
    ],
  },
  { field: "number", path: "spotface.diameter", label: "Spotface ⌀" },
  { field: "number", path: "spotface.deep", label: "Spotface depth", optional: true },
];
