import { z } from "zod";
import { numberText, type NumberText } from "../number";

/** `diameter`: x is typed as a diameter, as turned profiles are; half of it is meant. */
const xy = z.strictObject({ x: numberText, y: numberText, diameter: z.literal(true).optional() });
const some = z.strictObject({
  x: numberText.optional(),
  y: numberText.optional(),
  diameter: z.literal(true).optional(),
});
const place = { at: xy.optional(), turn: numberText.optional() };
const rowRef = z.string().min(1).max(64);
const flat = z.enum(["top", "bottom", "front", "back", "left", "right"]);

/**
 * A point of the walk (`P3`, the end of step 3; `P0` the start), the centre of an arc (`C4`), or an element by its
 * step.
 */
export const pointRef = z.string().regex(/^[PC]\d{1,4}$/);
export const elementRef = z.number().int().min(1).max(5000);
export const lineRef = z.union([elementRef, z.enum(["X", "Y"])]);

export const relations = [
  "horizontal",
  "vertical",
  "parallel",
  "perpendicular",
  "tangent",
  "equal",
  "concentric",
  "coincident",
  "symmetric",
  "midpoint",
  "on",
  "fix",
] as const;
export const dimensions = ["distance", "dx", "dy", "angle", "length", "radius", "diameter"] as const;

export const outlineItem = z.discriminatedUnion("item", [
  z.strictObject({ item: z.literal("start"), at: xy }),
  z.strictObject({
    item: z.literal("line"),
    to: some.optional(),
    by: some.optional(),
    length: numberText.optional(),
    angle: numberText.optional(),
    tangent: z.literal(true).optional(),
    close: z.literal(true).optional(),
    near: xy.optional(),
  }),
  z.strictObject({
    item: z.literal("arc"),
    to: some.optional(),
    by: some.optional(),
    radius: numberText.optional(),
    centre: xy.optional(),
    sweep: numberText.optional(),
    side: z.enum(["ccw", "cw"]),
    long: z.literal(true).optional(),
    tangent: z.literal(true).optional(),
    close: z.literal(true).optional(),
    near: xy.optional(),
  }),
  z.strictObject({
    item: z.literal("relation"),
    relation: z.enum(relations),
    of: z
      .array(z.union([lineRef, pointRef]))
      .min(1)
      .max(3),
  }),
  z.strictObject({
    item: z.literal("dimension"),
    dimension: z.enum(dimensions),
    of: z
      .array(z.union([lineRef, pointRef]))
      .min(1)
      .max(2),
    value: numberText,
  }),
  z.strictObject({ item: z.literal("circle"), diameter: numberText, ...place }),
  z.strictObject({
    item: z.literal("rectangle"),
    length: numberText,
    width: numberText,
    radius: numberText.optional(),
    corner: z.literal(true).optional(),
    ...place,
  }),
  z.strictObject({
    item: z.literal("slot"),
    length: numberText,
    width: numberText,
    centres: z.literal(true).optional(),
    ...place,
  }),
  z.strictObject({
    item: z.literal("polygon"),
    sides: numberText,
    across: z.enum(["AF", "AC"]),
    size: numberText,
    radius: numberText.optional(),
    ...place,
  }),
  z.strictObject({ item: z.literal("star"), points: numberText, outer: numberText, inner: numberText, ...place }),
  z.strictObject({ item: z.literal("ring"), outer: numberText, inner: numberText, ...place }),
  z.strictObject({ item: z.literal("link"), first: numberText, firstAt: xy, second: numberText, secondAt: xy }),
  z.strictObject({
    item: z.literal("segment"),
    diameter: numberText,
    height: numberText.optional(),
    chord: numberText.optional(),
    ...place,
  }),
  z.strictObject({
    item: z.literal("text"),
    text: z.string().min(1).max(200),
    height: numberText,
    font: z.enum(["plain", "mono"]),
    align: z.enum(["left", "middle", "right"]).optional(),
    /**
     * Round a circle of this diameter: outside reading clockwise, or inside reading counter-clockwise; `from` is
     * where its anchor stands.
     */
    around: z
      .strictObject({ diameter: numberText, from: numberText.optional(), inside: z.literal(true).optional() })
      .optional(),
    ...place,
  }),
  // What the part gives, as it stands after a row: it follows the part.
  z.strictObject({ item: z.literal("face"), face: z.union([flat, z.literal("floor")]), row: rowRef, ...place }),
  z.strictObject({
    item: z.literal("edges"),
    edges: z.enum(["mouthOf", "floorOf", "outerTop", "outerBottom"]),
    row: rowRef,
    ...place,
  }),
  z.strictObject({ item: z.literal("section"), axis: z.enum(["X", "Y", "Z"]), at: numberText, row: rowRef }),
  z.strictObject({ item: z.literal("trim"), at: xy, against: z.string().min(1).max(120).optional() }),
  z.strictObject({
    item: z.literal("extend"),
    end: z.enum(["start", "end"]),
    against: z.string().min(1).max(120).optional(),
    length: numberText.optional(),
  }),
  z.strictObject({ item: z.literal("break"), at: xy }),
  z.strictObject({ item: z.literal("mend"), gap: numberText.optional() }),
  z.strictObject({ item: z.literal("use"), outline: z.string().min(1).max(120), ...place }),
  z.strictObject({ item: z.enum(["join", "cutout", "overlap"]), outline: z.string().min(1).max(120), ...place }),
  z.strictObject({ item: z.literal("offset"), by: numberText, both: z.literal(true).optional() }),
  z.strictObject({
    item: z.literal("mirror"),
    about: z.union([z.enum(["X", "Y"]), z.strictObject({ from: xy, to: xy })]),
    keep: z.literal(true).optional(),
  }),
  z.strictObject({
    item: z.literal("repeat"),
    pattern: z.discriminatedUnion("kind", [
      z.strictObject({ kind: z.literal("around"), n: numberText, centre: xy.optional(), step: numberText.optional() }),
      z.strictObject({ kind: z.literal("line"), n: numberText, by: numberText, turn: numberText.optional() }),
      z.strictObject({ kind: z.literal("grid"), nx: numberText, ny: numberText, dx: numberText, dy: numberText }),
    ]),
    skip: z.array(z.number().int().min(1).max(5000)).max(500).optional(),
  }),
  z.strictObject({
    item: z.literal("fullRound"),
    between: z.tuple([pointRef, pointRef]),
    off: z.literal(true).optional(),
  }),
  z.strictObject({
    item: z.literal("corners"),
    treatment: z.enum(["round", "chamfer", "relief"]),
    size: numberText,
    which: z.union([z.enum(["all", "inside", "outside"]), z.array(pointRef).min(1).max(500)]),
    placement: z.enum(["corner", "wall", "bisector"]).optional(),
    off: z.literal(true).optional(),
  }),
]);
export type OutlineItem = z.infer<typeof outlineItem>;
export type Walked = Extract<OutlineItem, { item: "start" | "line" | "arc" | "relation" | "dimension" }>;

export const outlineSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().min(1).max(120),
  items: z.array(outlineItem).max(5000),
});
/** Names of the outlines an item is made with. */
export const outlinesUsed = (i: OutlineItem): string[] =>
  "outline" in i ? [i.outline] : "against" in i && i.against !== undefined ? [i.against] : [];
/** The item with another name for an outline it is made with. */
export function renamedIn(i: OutlineItem, same: (name: string) => boolean, name: string): void {
  if ("outline" in i && same(i.outline)) i.outline = name;
  if ("against" in i && i.against !== undefined && same(i.against)) i.against = name;
}
export type OutlineText = z.infer<typeof outlineSchema>;
export type { NumberText };
