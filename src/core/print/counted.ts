import { valueOf } from "../engine/numbers";
import type { FaceInfo } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import { isSeated } from "../rows";
import type { Balloon } from "../job/schema";
import type { Draft, LedgerContext } from "./ledger";
import { inside, type Limits } from "./limits";
import { CONTACT } from "../geometry/tolerance";

/** How many copies of a row are there: those with a round wall that goes all round, or with walls. */
function countCopies(row: SolvedRow, faces: FaceInfo[]): number {
  const mine = faces.filter((f) => f.tag?.row === row.row.id);
  const round = mine.filter((f) => f.surface === "cylinder" && f.sweep! > 2 * Math.PI - 0.01);
  const seen = new Set(
    (round.length
      ? round
      : mine.filter((f) => f.tag!.role === "wall" || f.tag!.role === "side" || f.surface === "cylinder")
    ).map((f) => f.tag!.instance),
  );
  return seen.size;
}

/**
 * Groups of equal walls that a row's outline left: the flanks of its teeth, its rounds, its holes. Equal are those
 * of one kind, radius and area.
 */
function equalWalls(row: SolvedRow, faces: FaceInfo[]): number[] {
  const groups = new Map<string, number>();
  for (const f of faces) {
    if (f.tag?.row !== row.row.id || (f.tag.role !== "wall" && f.tag.role !== "side")) continue;
    const key = `${f.surface} ${f.radius?.toFixed(5) ?? ""} ${f.area.toPrecision(7)}`;
    groups.set(key, (groups.get(key) ?? 0) + 1);
  }
  return [...groups.values()];
}

/**
 * A count is proved by as many copies on the solid, no more and no fewer; one that an outline repeats by, by its
 * equal walls.
 */
export function countEntry(
  own: Omit<Draft, "state">,
  wanted: number,
  rows: SolvedRow[],
  { faces, rows: all }: Pick<LedgerContext, "faces" | "rows">,
): Draft {
  const on = rows.map((r) => r.row.id);
  const drawn = rows.filter((r) => r.outlineNumbers.length > 0);
  if (drawn.length) {
    const counts = drawn.flatMap((r) => equalWalls(r, faces));
    if (!counts.length) return { ...own, state: "drives", by: "nothing on the solid to count" };
    // A tooth has two flanks and may share its ends with its neighbours.
    const best = counts.reduce((a, b) => (Math.abs(b - wanted) < Math.abs(a - wanted) ? b : a));
    return {
      ...own,
      state: best === wanted ? "proved" : "off",
      measured: best,
      by: `${best} equal walls, counted on the solid`,
      on,
    };
  }
  const counts = rows.flatMap((r) =>
    r.recipe?.op === "repeat" ? countRepeated(r.recipe.rows, all, faces) : [countCopies(r, faces)],
  );
  const wrong = counts.find((n) => n !== wanted);
  return {
    ...own,
    state: wrong === undefined ? "proved" : "off",
    measured: wrong ?? wanted,
    by: `${wrong ?? wanted} counted on the solid`,
    on,
  };
}

/** How often each row of a repeat is there, the original among them. */
const countRepeated = (repeated: string[], rows: SolvedRow[], faces: FaceInfo[]): number[] =>
  rows
    .filter((r) => repeated.includes(r.row.id) && isSeated(r.recipe))
    .map((r) => countCopies(r, faces) / (r.recipe && "places" in r.recipe ? r.recipe.places.length : 1));

/** A counted dimension (6X ⌀.25) is right only when as many are there. */
export function countCheck(b: Balloon, draft: Draft, limits: Limits, rows: SolvedRow[], c: LedgerContext): Draft {
  const count = b.count === undefined ? null : valueOf(b.count, "count", c.scope);
  if (!count?.ok) return draft;
  const wanted = count.value.value;
  const many =
    b.kind === "diameter" || b.kind === "radius"
      ? c.dimensions.count(b, b.kind, (v) => inside(v, limits))
      : copiesOfPatterns(rows, c.faces);
  if (many === null || many === wanted) return draft;
  return { ...draft, state: "off", by: `${many} on the solid, ${wanted} on the print` };
}

function copiesOfPatterns(rows: SolvedRow[], faces: FaceInfo[]): number | null {
  const patterned = rows.filter((r) => "pattern" in r.row.body);
  return patterned.reduce((sum, r) => sum + countCopies(r, faces), 0) || null;
}

/** A thread is proved when its drilled cylinders stand in the solid, as many as the print counts. */
export function threadEntry(b: Balloon, own: Omit<Draft, "state">, rows: SolvedRow[], c: LedgerContext): Draft {
  let standing = 0;
  let lead = "";
  for (const r of rows) {
    if (r.feature?.is !== "hole" || !r.feature.thread) continue;
    const { diameter, depth, thread } = r.feature;
    standing += new Set(
      c.faces
        .filter(
          (f) =>
            f.tag?.row === r.row.id &&
            f.surface === "cylinder" &&
            f.sweep! > 2 * Math.PI - 0.01 &&
            Math.abs(2 * f.radius! - diameter) < CONTACT,
        )
        .map((f) => f.tag!.instance),
    ).size;
    if (thread.full !== "thru" && depth !== "thru")
      lead = `; drilled ${((depth - thread.full) / thread.pitch).toFixed(1)} pitches deeper than its thread, for the tap's lead`;
  }
  const count = b.count === undefined ? null : valueOf(b.count, "count", c.scope);
  const wanted = count?.ok ? count.value.value : null;
  const state =
    wanted === null
      ? standing > 0
        ? ("proved" as const)
        : ("drives" as const)
      : standing === wanted
        ? ("proved" as const)
        : ("off" as const);
  return {
    ...own,
    state,
    measured: standing,
    by: `${standing} drilled for ${b.thread} on the solid${lead}`,
    on: rows.map((r) => r.row.id),
  };
}
