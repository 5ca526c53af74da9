import type { FaceInfo } from "../../engine/kernel";
import { madeBy, type Made } from "../../engine/madeBy";
import type { SolvedRow } from "../../engine/solve";
import type { RuleContext } from "../rule";

/** Bodies of a row, its copies among them, whose places are few enough to be looked at one by one. */
export const looked = (row: SolvedRow): Made[] => {
  const made = madeBy(row);
  return made.reduce((n, m) => n + m.step.places.length, 0) > MOST_LOOKED ? [] : made;
};
const MOST_LOOKED = 400;

/** Faces a body made, as they stood right after its row, and as they stand now. */
export const facesThen = (c: RuleContext, r: SolvedRow, m: Made): FaceInfo[] =>
  r.key ? c.kernel.faces(r.key).filter((f) => f.tag?.row === m.of) : [];
export const facesNow = (c: RuleContext, m: Made): FaceInfo[] => c.faces.filter((f) => f.tag?.row === m.of);
