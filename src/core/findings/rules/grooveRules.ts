import type { SolvedRow } from "../../engine/solve";
import { CONTACT } from "../../geometry/tolerance";
import type { Vec3 } from "../../geometry/vec";
import { lengthText, toNumberText, unitOf } from "../../number";
import { lookUp, outOfLimits } from "../../tables";
import type { Finding } from "../finding";
import { say, whose, type Rule, type RuleContext } from "../rule";
import { setNumber } from "./holes";

type Found = Omit<Finding, "rule">;
const standing = (c: RuleContext): SolvedRow[] => c.rows.filter((r) => r.state === "ok");

/** A ring cut into a shaft: how thick that is there, the groove's diameter and width, mm; null for other rows. */
function shaftGroove(row: SolvedRow): { shaft: number; diameter: number; width: number; origin: Vec3 } | null {
  const step = row.placed?.step;
  if (row.feature?.is !== "groove" || row.recipe?.op !== "cut" || row.recipe.body.body !== "collar") return null;
  if (!step || step.op !== "cut" || step.body.body !== "prism") return null;
  const [hole] = step.body.outline.holes;
  const [outer] = step.body.outline.outer;
  if (hole?.[0].kind !== "arc" || outer?.kind !== "arc") return null;
  const { from, to } = step.body;
  // The tool ring reaches a millimetre beyond the shaft.
  return { shaft: 2 * (outer.radius - 1), diameter: 2 * hole[0].radius, width: to - from, origin: step.frame.origin };
}

/** A groove so near to a retaining ring's is meant for one: its depth by share, its width by so much, mm. */
const NEAR_DEPTH = 0.4;
const NEAR_WIDTH = 0.25;

/** A groove that is nearly a retaining ring's on its shaft, and is not within the ring's limits. */
export const ringGroove: Rule = {
  id: "ring-groove",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const groove = shaftGroove(row);
      const ring = groove && lookUp(`DIN 471 ${Number(groove.shaft.toFixed(3))}`);
      if (!groove || !ring) return [];
      const { grooveDiameter, grooveDiameterMin, grooveDiameterMax, grooveWidth, grooveWidthMax, shaft } = ring.values;
      const isMeant =
        Math.abs(groove.diameter - grooveDiameter) < NEAR_DEPTH * (shaft - grooveDiameter) &&
        Math.abs(groove.width - grooveWidth) < NEAR_WIDTH;
      const isDeepWrong = outOfLimits(groove.diameter, grooveDiameterMin, grooveDiameterMax) !== null;
      const isWideWrong = outOfLimits(groove.width, grooveWidth, grooveWidthMax) !== null;
      if (!isMeant || (!isDeepWrong && !isWideWrong)) return [];
      const [is, wants, path] = isDeepWrong
        ? [groove.diameter, grooveDiameter, "diameter"]
        : [groove.width, grooveWidth, "width"];
      const text = toNumberText(lengthText(wants, c.job.unit, unitOf[c.job.unit].places.exact));
      const limits = isDeepWrong
        ? `⌀${say(c, grooveDiameterMin)} to ${say(c, grooveDiameterMax)}`
        : `${say(c, grooveWidth)} to ${say(c, grooveWidthMax)}`;
      return [
        {
          ...whose(row),
          severity: "caution",
          value: is,
          limit: wants,
          place: groove.origin,
          text: `nearly the groove of ${ring.what}: ${isDeepWrong ? "⌀" : "wide "}${say(c, is)}, a ring wants ${limits}`,
          source: `${ring.standard}, ${ring.source}`,
          fix: setNumber(row, path, text, `${isDeepWrong ? "⌀" : "WIDE "}${text}`),
        },
      ];
    }),
};

/** A groove round a shaft that is deep for its width. */
export const grooveDepth: Rule = {
  id: "groove",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const groove = shaftGroove(row);
      if (!groove) return [];
      const depth = (groove.shaft - groove.diameter) / 2;
      const { width } = groove;
      const limit = c.limits.grooveOverWidth;
      if (depth <= limit.value * width + CONTACT) return [];
      return [
        {
          ...whose(row),
          severity: "caution",
          value: depth / width,
          limit: limit.value,
          place: groove.origin,
          text: `${say(c, depth)} deep and ${say(c, width)} wide: ${(depth / width).toFixed(1)} times its width`,
          source: limit.source,
        },
      ];
    }),
};
