import { valueOf } from "../engine/numbers";
import type { SolvedRow } from "../engine/solve";
import type { Balloon } from "../job/schema";
import type { Claim } from "./claims";
import type { LedgerContext } from "./ledger";
import { saysEvenly } from "./words";

/** What a dimension claims of its kind besides its value: both legs of a chamfer, an even spacing. */
export function kindClaims(b: Balloon, rows: SolvedRow[], c: LedgerContext): Claim[] {
  return [...(b.kind === "chamfer" ? chamferClaim(b, rows, c) : []), ...(saysEvenly(b) ? [evenClaim(rows, c)] : [])];
}

/** `2 X 45°`: across the edge the other leg is the first times the tangent of the angle, on every face it made. */
function chamferClaim(b: Balloon, rows: SolvedRow[], { scope, dimensions }: LedgerContext): Claim[] {
  const [leg, angle] = [valueOf(b.value, "coordinate", scope), valueOf(b.angle, "angle", scope)];
  if (!leg.ok || !angle.ok) return [];
  const says = `${Math.round((1800 * angle.value.value) / Math.PI) / 10}° across its edge`;
  const legs = dimensions.chamfers(b, rows);
  if (!legs.length)
    return [{ of: "kind", says, state: "unexamined", by: "the faces beside it do not tell its legs", on: [] }];
  const other = leg.value.value * Math.tan(angle.value.value);
  // Half a degree: an angle without decimals and without a tolerance of its own.
  const slack = Math.max(
    1e-6,
    leg.value.value * (Math.tan(angle.value.value + HALF_DEGREE) - Math.tan(angle.value.value)),
  );
  const isRight = ([p, q]: [number, number]) =>
    Math.min(
      Math.max(Math.abs(p - leg.value.value), Math.abs(q - other)),
      Math.max(Math.abs(q - leg.value.value), Math.abs(p - other)),
    ) <= slack;
  const wrong = legs.find((l) => !isRight(l));
  const [p, q] = wrong ?? legs[0];
  const lean = (180 * Math.atan2(Math.min(p, q), Math.max(p, q))) / Math.PI;
  return [
    {
      of: "kind",
      says,
      state: wrong ? "false" : "true",
      by: `its legs lean at ${lean.toFixed(1)}°`,
      on: rows.filter((r) => r.recipe?.op === "edges").map((r) => ({ row: r.row.id })),
    },
  ];
}
const HALF_DEGREE = Math.PI / 360;

function evenClaim(rows: SolvedRow[], { dimensions }: LedgerContext): Claim {
  const says = "equally spaced";
  const spaced = rows.map((r) => dimensions.spacing(r.row.id));
  const on = rows.map((r) => ({ row: r.row.id }));
  if (spaced.every((s) => s === null))
    return { of: "words", says, state: "unexamined", by: "no circle of copies was found", on: [] };
  const isEven = spaced.every((s) => s !== false);
  return {
    of: "words",
    says,
    state: isEven ? "true" : "false",
    by: isEven ? "all gaps are alike" : "the gaps differ",
    on,
  };
}
