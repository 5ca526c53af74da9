import { prepare } from "../../engine/prepare";
import type { EvaluatedPart } from "../../evaluate/parts";
import type { JobEdit } from "../../job/edits";
import { lengthText, unitOf } from "../../number";
import { loopBox } from "../../outline";
import { withNumber, type Recipe } from "../../rows";

/** What of a row's recipe is looked at, mm; null where the recipe has no such thing. */
export type Looked = (recipe: Recipe) => number | null;

const outlineOf = (recipe: Recipe) =>
  (recipe.op === "leave" || recipe.op === "cut") && recipe.body.body === "prism" ? recipe.body : null;

/** How far the outline of what a row leaves or cuts reaches along x or y. */
export const extentAlong =
  (axis: "x" | "y"): Looked =>
  (recipe) => {
    const body = outlineOf(recipe);
    const box = body && loopBox(body.outline.outer);
    return box && box.max[axis] - box.min[axis];
  };

/** How high a row stands, or how deep it goes. */
export const heightOf: Looked = (recipe) => {
  if (recipe.op !== "leave" && recipe.op !== "cut") return null;
  const { body } = recipe;
  if (body.body === "prism") return typeof body.depth === "number" ? body.depth : null;
  const last = body.body === "revolved" ? body.profile[body.profile.length - 1].z : null;
  return typeof last === "number" ? last : null;
};

/** Where the first place of a row stands along y of its plane. */
export const placeAlongY: Looked = (recipe) =>
  recipe.op === "leave" || recipe.op === "cut" ? (recipe.places[0]?.y ?? null) : null;

/** How much a number is moved to see what it moves, and how nearly one for one that has to be, mm. */
const NUDGE = 0.1;
const NEARLY = 1e-6;

/**
 * The edit of a part that makes something of a row another size by the one number that sizes it one for one.
 * @param of what of the row is to be another size
 * @param by how much, mm
 * @returns null where no number of the row alone does
 */
export function resized({ job }: EvaluatedPart, rowId: string, of: Looked, by: number): JobEdit | null {
  const prepared = prepare(job);
  const row = prepared.rows.find((r) => r.row.id === rowId);
  const was = row?.recipe && of(row.recipe);
  if (!row || was === null || was === undefined) return null;
  const withText = (mm: number) => lengthText(mm, job.unit, unitOf[job.unit].places.fine);
  for (const n of row.numbers) {
    if (!n.value || (n.quantity !== "length" && n.quantity !== "coordinate")) continue;
    const body = withNumber(structuredClone(row.row.body), n.path, withText(n.value.value + NUDGE));
    const rows = job.rows.map((r) => (r.id === rowId ? { ...r, body } : r));
    const moved = prepare({ ...job, rows }).rows.find((r) => r.row.id === rowId);
    const now = moved?.recipe ? of(moved.recipe) : null;
    const nudged = moved?.numbers.find((m) => m.path === n.path)?.value?.value;
    if (now === null || nudged === undefined || Math.abs(now - was - (nudged - n.value.value)) > NEARLY) continue;
    return { edit: "setNumber", id: rowId, path: n.path, text: withText(n.value.value + by) };
  }
  return null;
}
