import { dot, sideNormal, sides, type Side } from "../../geometry/vec";
import { lengthText } from "../../number";
import type { SolvedRow } from "../../engine/solve";
import { isSeated, type SeatedRecipe } from "../../rows";
import type { Finding } from "../finding";
import { say, whose, type Rule } from "../rule";
import { CONTACT } from "../../geometry/tolerance";
type Found = Omit<Finding, "rule">;

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
