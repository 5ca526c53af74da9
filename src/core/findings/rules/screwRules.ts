import type { SolvedRow } from "../../engine/solve";
import { byFigures, lengthText, toNumberText, unitOf } from "../../number";
import { screwsThrough, type ScrewSeat } from "../../tables";
import { CONTACT } from "../../geometry/tolerance";
import type { Finding } from "../finding";
import { facesOfRow, say, whose, type Rule, type RuleContext } from "../rule";
import { holeOf, setNumber } from "./holes";

type Found = Omit<Finding, "rule">;

/** A number of a row by its path, as it came out, mm or radians; null where the row has none. */
const numberAt = (row: SolvedRow, path: string): number | null =>
  row.numbers.find((n) => n.path === path)?.value?.value ?? null;

/** A length of a table as it is typed in the job. */
const typedIn = (c: RuleContext, mm: number) =>
  toNumberText(lengthText(mm, c.job.unit, unitOf[c.job.unit].places.exact));

/** What of a seat is not as its screw's standard has it: the path of the number, what it should be, and why. */
function wrongSeat(
  c: RuleContext,
  row: SolvedRow,
  s: ScrewSeat,
): { path: string; is: number; wants: number; text: string } | null {
  const hole = numberAt(row, "diameter")!;
  const wide = numberAt(row, "cbore.diameter")!;
  const deep = numberAt(row, "cbore.deep");
  if (hole < s.close - CONTACT)
    return {
      path: "diameter",
      is: hole,
      wants: s.usual,
      text: `⌀${say(c, hole)} is under the closest hole of ${s.screw}, ⌀${say(c, s.close)}`,
    };
  if (wide < s.headDiameter + CONTACT)
    return {
      path: "cbore.diameter",
      is: wide,
      wants: s.counterbore,
      text: `the head of ${s.screw} is ⌀${say(c, s.headDiameter)}: it does not go into ⌀${say(c, wide)}`,
    };
  if (deep !== null && deep < s.headHeight - CONTACT)
    return {
      path: "cbore.deep",
      is: deep,
      wants: s.counterboreDepth,
      text: `the head of ${s.screw} is ${say(c, s.headHeight)} high: it stands out of ${say(c, deep)}`,
    };
  return null;
}

/**
 * A hole with a counterbore is a screw's: its clearance, its head's width and its height. Of the screws that go through it
 * the one is meant whose head fits; where none fits, the one whose hole is nearest.
 */
export const screwClearance: Rule = {
  id: "screw-clearance",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const hole = holeOf(row);
      if (!hole || hole.thread || numberAt(row, "cbore.diameter") === null || numberAt(row, "diameter") === null)
        return [];
      const wide = numberAt(row, "cbore.diameter")!;
      const deep = numberAt(row, "cbore.deep") ?? Infinity;
      // A counterbore much wider than any head, or shallow beside it, is a washer's, a bearing's, or no screw's at all.
      const meant = screwsOf(c, hole.diameter).filter(
        (s) => wide < s.counterbore * WIDEST_SEAT && deep > s.headHeight * SHALLOWEST_SEAT,
      );
      if (!meant.length || meant.some((s) => !wrongSeat(c, row, s))) return [];
      const [screw] = meant;
      const wrong = wrongSeat(c, row, screw)!;
      const wants = typedIn(c, wrong.wants);
      return [
        {
          ...whose(row),
          severity: "caution",
          value: wrong.is,
          limit: wrong.wants,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          text: wrong.text,
          source: `${screw.standard}, ${byFigures(c.job.unit, { in: "ASME B18.2.8", mm: "ISO 273" })}, from memory`,
          fix: setNumber(row, wrong.path, wants, `${labels[wrong.path]} ${wants}`),
        },
      ];
    }),
};
/** A counterbore wider than so many of the standard's, or shallower than so many heads, is another thing's. */
const WIDEST_SEAT = 1.35;
const SHALLOWEST_SEAT = 0.6;

/** The screws a hole may be for: those of the job's own system, those of the other where it is one of their sizes. */
function screwsOf(c: RuleContext, diameter: number): ScrewSeat[] {
  const [own, other] = byFigures(c.job.unit, { in: ["in", "mm"] as const, mm: ["mm", "in"] as const });
  return [...screwsThrough(diameter, own), ...(isSizeOf(diameter, other) ? screwsThrough(diameter, other) : [])];
}
const labels: Record<string, string> = { diameter: "⌀", "cbore.diameter": "CBORE ⌀", "cbore.deep": "CBORE DEEP" };

/** Included angles of countersunk heads: inch 82°, metric 90°, sheet metal and rivets 100°. */
const angles = { in: 82, mm: 90 };
const SHEET = 100;
/** A mouth from so many of its hole's diameter on is a head's seat, not a broken edge: heads are 1.8 to 2. */
const HEAD_SHARE = 1.6;

/** The angle of a countersink for a head, against the system of screws the job is in. */
export const countersink: Rule = {
  id: "countersink",
  find: (c) =>
    c.rows.flatMap((row): Found[] => {
      const hole = holeOf(row);
      const mouth = numberAt(row, "csk.diameter");
      const radians = numberAt(row, "csk.angle");
      if (!hole || hole.thread || hole.depth !== "thru" || mouth === null || radians === null) return [];
      if (mouth < HEAD_SHARE * hole.diameter) return [];
      const angle = (radians * 180) / Math.PI;
      const wants = byFigures(c.job.unit, angles);
      const other = byFigures(c.job.unit, { in: angles.mm, mm: angles.in });
      // A head of the other system is one where its hole is that system's.
      const isOthers =
        Math.abs(angle - other) < ANGLE_SLACK && isSizeOf(hole.diameter, byFigures(c.job.unit, { in: "mm", mm: "in" }));
      if (isOthers || [wants, SHEET].some((a) => Math.abs(angle - a) < ANGLE_SLACK)) return [];
      return [
        {
          ...whose(row),
          severity: "caution",
          value: angle,
          limit: wants,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          text: `${Number(angle.toFixed(2))}° seats no head of ${byFigures(c.job.unit, { in: "an inch", mm: "a metric" })} screw: they are ${wants}°`,
          source: "ISO 10642 and ISO 7721 (90°), ASME B18.3 and B18.6.3 (82°), from memory",
          fix: setNumber(row, "csk.angle", toNumberText(String(wants)), `${wants}°`),
        },
      ];
    }),
};
const ANGLE_SLACK = 0.5;
/** Whether a hole is a clearance hole of a system, to the hundredth. */
const isSizeOf = (diameter: number, figures: "in" | "mm"): boolean =>
  screwsThrough(diameter, figures).some((s) => [s.close, s.usual, s.loose].some((d) => Math.abs(d - diameter) < 0.01));
