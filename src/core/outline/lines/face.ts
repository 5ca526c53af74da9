import { z } from "zod";
import {
  added,
  place,
  partOf,
  partRef,
  readOfPart,
  readPlaced,
  rowRef,
  standOf,
  writeOfPart,
  writePlaced,
  type OutlineLine,
} from "./common";

const faces = ["top", "bottom", "front", "back", "left", "right", "floor"] as const;
const words = ["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT", "FLOOR"] as const;
/** What the part gives, as it stands after a row: it follows the part. */
const schema = z.strictObject({ item: z.literal("face"), face: z.enum(faces), row: rowRef, ...partRef, ...place });

export const face: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "FACE",
  group: "made from others",
  examples: [
    { text: "FACE TOP AFTER 1", what: "the part’s own face, as it stands after a row" },
    { text: "FACE FLOOR OF 2", what: "" },
  ],
  read(r, names) {
    if (!r.take("FACE")) return null;
    const word = r.takeOne(words) ?? r.fail("TOP, BOTTOM, FRONT, BACK, LEFT, RIGHT or FLOOR");
    const of = readOfPart(r, names, r.sees("AFTER") ? "AFTER" : "OF");
    return { item: "face", face: faces[words.indexOf(word)], ...of, ...readPlaced(r) };
  },
  write: (i, names) =>
    `FACE ${i.face.toUpperCase()} ${writeOfPart(i, names, i.face === "floor" ? "OF" : "AFTER")}${writePlaced(i)}`,
  numbers: (i, put) => put.placed(i),
  apply: (i, work) => added(work.fromPart({ item: "face", face: i.face, ...partOf(i) }), standOf(i, work), work),
};
