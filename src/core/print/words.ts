import { dot, scale, sideNormal, type Box, type Side, type Vec3 } from "../geometry/vec";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import type { Balloon } from "../job/schema";
import type { Claim } from "./claims";
import type { Dimension } from "./dimension";
import type { Shape } from "./dimension/surfaces";

/** What a word beside a dimension asks of what is measured; `unknown`: the model has nothing to hold it to. */
export interface Word {
  says: string;
  means: ((d: Dimension, part: Box) => boolean) | "unknown";
}
type Plane = Extract<Shape, { is: "plane" }>;

const oneOf =
  (...between: Dimension["between"][]) =>
  (d: Dimension): boolean =>
    between.includes(d.between);

/** The flats of a measurement, each as its face looks. */
const flats = (d: Dimension): Plane[] =>
  d.of.flatMap(({ shape, looksBack }) => {
    if (shape.is !== "plane") return [];
    return [looksBack ? { ...shape, normal: scale(shape.normal, -1), offset: -shape.offset } : shape];
  });

/** Two flats that look away from one another: material is between them. */
const isThickness = (d: Dimension): boolean => {
  if (d.between === "rounds") return d.family === "distance";
  const [a, b] = flats(d);
  return d.between === "flats" && b !== undefined && dot(a.normal, b.normal) < -PARALLEL && a.offset + b.offset > 0;
};

/** Two flats that look in opposite directions, away from one another or, in a pocket, at one another. */
function isAcross(d: Dimension): boolean {
  const [a, b] = flats(d);
  return d.between === "flats" && b !== undefined && dot(a.normal, b.normal) < -PARALLEL;
}

/** Over all of the part in one direction, or over the round ends of a slot or of the part. */
function isOverAll(d: Dimension, part: Box): boolean {
  if (d.between === "overRounds") return true;
  if (d.between === "axes" || d.between === "corners") return false;
  const [a, b] = flats(d);
  // Between walls that face one another: over all of a slot or a pocket.
  if (b !== undefined && dot(a.normal, b.normal) < -PARALLEL && a.offset + b.offset < 0) return true;
  return (["x", "y", "z"] as const).some((k) => Math.abs(part.max[k] - part.min[k] - d.value) < CONTACT);
}

const reach = (part: Box, n: Vec3): number => {
  const far = (k: "x" | "y" | "z") => (n[k] > 0 ? part.max[k] : part.min[k]) * n[k];
  return far("x") + far("y") + far("z");
};
/** From the outermost flat on a side of the part. */
const isFrom =
  (side: Side) =>
  (d: Dimension, part: Box): boolean => {
    const normal = sideNormal(side);
    return flats(d).some((f) => dot(f.normal, normal) > PARALLEL && Math.abs(f.offset - reach(part, normal)) < CONTACT);
  };

export const CIRCLE_OF_HOLES = "on a circle of holes";
const words: [RegExp, string, Word["means"]][] = [
  [/\b(AF|A\/F|ACROSS FLATS|SW)\b/i, "across flats", isAcross],
  [/\b(AC|A\/C|ACROSS CORNERS)\b/i, "across corners", (d) => d.between === "corners" && d.widest],
  [/\b(CC|C TO C|CENT(?:ER|RE) TO CENT(?:ER|RE))\b/i, "centre to centre", oneOf("axes", "circle")],
  [/\b(BC|B\.C\.|BOLT CIRCLE|PCD)/i, CIRCLE_OF_HOLES, oneOf("circle")],
  [/\b(OVERALL|OVER ALL|OAL)\b/i, "over all", isOverAll],
  [/\b(INCL|INCLUDED)\b/i, "the included angle", oneOf("cone", "flats", "circle")],
  [/\b(PER SIDE|HALF ANGLE)\b/i, "the angle of one side", (d) => d.between !== "cone"],
  [/\b(WALL|THK|THICK)\b/i, "a thickness", isThickness],
  [/\bTO (CENTERLINE|CL)\b/i, "to a centre line", (d) => d.centred],
  ...(["top", "bottom", "front", "back", "left", "right"] as const).map((side): [RegExp, string, Word["means"]] => [
    new RegExp(`\\bFROM (THE )?${side}\\b`, "i"),
    `from the ${side} face`,
    isFrom(side),
  ]),
  [/\bFROM (DATUM )?[A-Z]\b(?!')/, "from a datum", "unknown"],
];

/** What the words beside a dimension ask of it; words that ask nothing of a measurement are not among them. */
export const wordsOf = ({ note }: Pick<Balloon, "note">): Word[] =>
  note === undefined ? [] : words.flatMap(([form, says, means]) => (form.test(note) ? [{ says, means }] : []));

/** What the words of a dimension ask that is not measured between faces: of a thread, of a length that is only said. */
export const unheldWords = (b: Pick<Balloon, "note">): Claim[] =>
  wordsOf(b).map(({ says }) => ({
    of: "words",
    says,
    state: "unexamined",
    by: "what its words say was not examined",
    on: [],
  }));

/** Whether the words say that copies stand evenly round their circle. */
export const saysEvenly = ({ note }: Pick<Balloon, "note">): boolean =>
  /\b(EQ\.? ?SP|EQUALLY SPACED)\b/i.test(note ?? "");
export const saysLeftHand = ({ note }: Pick<Balloon, "note">): boolean => /\b(LH|LEFT[ -]HAND)\b/i.test(note ?? "");
