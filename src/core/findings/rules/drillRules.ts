import type { CutHoles } from "../../rows/cutHoles";
import { say, whose, type Rule } from "../rule";
import { CONTACT } from "../../geometry/tolerance";

/**
 * A hole over the largest drill: milled or bored. Where its bottom is left to the drill's point, the point of a
 * drill that is not there is asked about.
 */
export const tooBigToDrill: Rule = {
  id: "too-big-to-drill",
  find: (c) =>
    c.rows.flatMap((row) => {
      const hole = row.state === "ok" && row.feature?.is === "hole" ? row.feature : null;
      if (!hole || hole.thread) return [];
      const { diameter } = hole;
      const largest = c.limits.largestDrill.value;
      if (diameter <= largest + CONTACT) return [];
      const body = row.row.body as CutHoles;
      const asked = body.depth === "deep" && body.end === undefined;
      const over = `⌀${say(c, diameter)} is over the largest drill, ⌀${say(c, largest)}: milled or bored`;
      return [
        {
          ...whose(row),
          severity: asked ? ("caution" as const) : ("note" as const),
          value: diameter,
          limit: largest,
          place: row.planes?.start?.origin ?? null,
          source: c.limits.largestDrill.source,
          text: asked
            ? `${over}, which leaves no drill's point; the row has one of 118° below its depth. Is its bottom flat?`
            : over,
          ...(asked
            ? {
                fix: {
                  label: "FLAT",
                  edits: [{ edit: "setRow" as const, id: row.row.id, body: { ...body, end: "flat" as const } }],
                },
              }
            : {}),
        },
      ];
    }),
};
