import type { Frame, Vec3 } from "../geometry/vec";
import type { Recipe } from "../rows";
import type { EdgeInfo, SingleStep } from "./kernel";

/** An edge by what it was when it was chamfered or rounded, and the way the flat it is measured on looks. */
export interface EdgeMark {
  edge: EdgeInfo;
  face: Vec3;
}

/** What a row put in one place, so that it can be put in another. */
export interface Element {
  row: string;
  /** As it is placed: turned over where it is the mirror image. */
  recipe: Recipe;
  frame: Frame | null;
  steps: SingleStep[];
  thru: boolean;
  marks?: EdgeMark[];
  /** The mirror image of what the row itself left or cut. */
  mirrored?: true;
  /** Number of its first place among all copies of the row. */
  from?: number;
  /** By which repeats it came where it is, the innermost first: which of their copies, the first after the original being 0. */
  moves?: { by: string; motion: number }[];
}
