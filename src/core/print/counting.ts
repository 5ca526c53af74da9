import { valueOf } from "../engine/numbers";
import type { FaceInfo } from "../engine/kernel";
import type { SolvedRow } from "../engine/solve";
import { isSeated } from "../rows";
import type { Balloon } from "../job/schema";
import type { Claim } from "./claims";
import type { LedgerContext } from "./ledger";
import { inside, type Limits } from "./limits";

type Counted = Pick<LedgerContext, "faces" | "rows" | "scope" | "dimensions">;
const WALLS = new Set(["wall", "side", "cone"]);

/** Copies of a row of which a wall still stands, by their number. */
const standing = (row: string, faces: FaceInfo[]): Set<number> =>
  new Set(
    faces.flatMap((f) =>
      f.tag?.row === row && (WALLS.has(f.tag.role) || f.surface === "cylinder") ? [f.tag.instance] : [],
    ),
  );

const counted = (wanted: number, n: number, what: string, rows: SolvedRow[]): Claim => ({
  of: "count",
  says: `${wanted} of them`,
  state: n === wanted ? "true" : "false",
  by: `${n} ${what} on the solid${n === wanted ? "" : `, ${wanted} on the print`}`,
  on: rows.map((r) => ({ row: r.row.id })),
});
const uncounted = (wanted: number, why: string): Claim => ({
  of: "count",
  says: `${wanted} of them`,
  state: "unexamined",
  by: why,
  on: [],
});

/**
 * A number that says only how many: every number made from it has to be it, and as many have to stand.
 * @param rows the rows whose numbers are made from it
 */
export function countClaims(b: Balloon, wanted: number, rows: SolvedRow[], c: Counted): Claim[] {
  return rows.flatMap((r): Claim[] => {
    const mine = r.numbers.filter((n) => n.quantity === "count" && n.value?.cites.includes(b.number));
    const claims = mine.flatMap((n) =>
      n.value!.cites.length > 1
        ? [uncounted(wanted, `in row ${r.number} it is counted together with another`)]
        : ofNumber(n.path, n.value!.value, wanted, r, c),
    );
    const drawn = r.outlineNumbers.some((n) => n.quantity === "count" && n.value?.cites.includes(b.number));
    return [...claims, ...(drawn ? [equalWalls(r, wanted, c.faces)] : [])];
  });
}

function ofNumber(path: string, value: number, wanted: number, r: SolvedRow, c: Counted): Claim[] {
  if (value !== wanted) return [counted(wanted, value, `made in row ${r.number}`, [r])];
  const made = r.recipe?.op === "repeat" ? repeated(r, c) : [placed(r, c.faces)];
  if (!made.length) return [uncounted(wanted, "nothing on the solid to count")];
  // Along a grid each of its two counts is as it says where every place of the grid stands.
  const isOfGrid = /\.n[xy]$/.test(path);
  return made.map(({ there, of }) => {
    if (!isOfGrid) return counted(wanted, there, "counted", [r]);
    return there === of
      ? {
          ...counted(wanted, wanted, "counted along the grid", [r]),
          by: `all ${of} places of the grid stand on the solid`,
        }
      : {
          ...counted(wanted, there, "counted", [r]),
          state: "false" as const,
          by: `${there} of ${of} places of the grid stand on the solid`,
        };
  });
}

/** Of a row's own places those that stand. */
function placed(r: SolvedRow, faces: FaceInfo[]): { there: number; of: number } {
  const of = r.recipe && "places" in r.recipe ? r.recipe.places.length : 1;
  return { there: [...standing(r.row.id, faces)].filter((i) => i < of).length, of };
}

/** Of each row that a repeat puts again: how often it stands, the original among them. */
function repeated(r: SolvedRow, { faces, rows }: Counted): { there: number; of: number }[] {
  const recipe = r.recipe?.op === "repeat" ? r.recipe : null;
  return (recipe?.rows ?? []).flatMap((id) => {
    const original = rows.find((o) => o.row.id === id);
    if (!original || !isSeated(original.recipe)) return [];
    const there = standing(id, faces);
    const copies = (r.planes?.elements ?? []).filter((e) => e.row === id);
    const first = [...there].some((i) => i < placesOf(original));
    const stand = copies.filter((e) => {
      const from = e.from ?? 0;
      return [...there].some((i) => i >= from && i < from + placesOf(original));
    });
    return [{ there: stand.length + Number(first), of: copies.length + (recipe?.skip.length ?? 0) + 1 }];
  });
}
const placesOf = (r: SolvedRow): number => (r.recipe && "places" in r.recipe ? r.recipe.places.length : 1);

/**
 * Groups of equal walls that a row's outline left: the flanks of its teeth, its rounds, its holes. Equal are those
 * of one kind, radius and area. A tooth has two flanks and may share its ends with its neighbours.
 */
function equalWalls(row: SolvedRow, wanted: number, faces: FaceInfo[]): Claim {
  const groups = new Map<string, number>();
  for (const f of faces) {
    if (f.tag?.row !== row.row.id || (f.tag.role !== "wall" && f.tag.role !== "side")) continue;
    const key = `${f.surface} ${f.radius?.toFixed(5) ?? ""} ${f.area.toPrecision(7)}`;
    groups.set(key, (groups.get(key) ?? 0) + 1);
  }
  const counts = [...groups.values()];
  if (!counts.length) return uncounted(wanted, "nothing on the solid to count");
  const best = counts.reduce((a, b) => (Math.abs(b - wanted) < Math.abs(a - wanted) ? b : a));
  return counted(wanted, best, "equal walls", [row]);
}

/** A dimension that is there several times (`6X ⌀.25`): as many as it says, no more and no fewer. */
export function timesClaim(b: Balloon, limits: Limits, rows: SolvedRow[], c: Counted): Claim[] {
  const count = b.count === undefined ? null : valueOf(b.count, "count", c.scope);
  if (!count?.ok) return [];
  const wanted = count.value.value;
  const isRight = (v: number) => inside(v, limits);
  const edges = rows.filter((r) => r.recipe?.op === "edges");
  if (edges.length && edges.length === rows.length) return [edgeCount(wanted, edges, c)];
  if (b.kind === "diameter" || b.kind === "radius") {
    const walls = c.dimensions.count(b, b.kind, isRight);
    const rounds =
      b.kind === "radius"
        ? c.dimensions.rounds(
            edges.map((r) => r.row.id),
            isRight,
          )
        : 0;
    if (walls !== null || rounds) return [counted(wanted, (walls ?? 0) + rounds, "round walls", rows)];
  }
  const legs = b.kind === "chamfer" ? c.dimensions.chamfers(b, rows) : [];
  if (legs.length) return [counted(wanted, legs.filter((l) => l.some(isRight)).length, "chamfers", rows)];
  return [
    copyCount(
      b,
      wanted,
      rows.filter((r) => !edges.includes(r)),
      c,
    ),
  ];
}

/** Edges that were treated: as many faces, or as many runs of faces that go on into one another. */
function edgeCount(wanted: number, rows: SolvedRow[], { dimensions }: Counted): Claim {
  const made = rows.map((r) => dimensions.treated(r.row.id));
  const faces = made.reduce((n, m) => n + m.faces, 0);
  const runs = made.reduce((n, m) => n + m.runs, 0);
  const n = faces === wanted ? faces : runs;
  return counted(wanted, n, "edges", rows);
}

/**
 * Copies of the rows a dimension is used in; steps of a pattern or a repeat are one fewer, or as many where they go all
 * round. A coordinate is there as often as it is used.
 */
function copyCount(b: Balloon, wanted: number, rows: SolvedRow[], c: Counted): Claim {
  const uses = rows.flatMap((r) =>
    r.numbers
      .filter((n) => n.value?.cites.includes(b.number) && n.quantity !== "count")
      .map((n) => ({ r, path: n.path })),
  );
  if (!uses.length) return uncounted(wanted, "how often an outline has it was not counted");
  const possible = new Set<number>();
  let copies = 0;
  for (const r of new Set(uses.map((u) => u.r))) {
    const own = r.recipe?.op === "repeat" ? (repeated(r, c)[0]?.there ?? 0) : standing(r.row.id, c.faces).size;
    const isStep = uses.every((u) => u.r !== r || /^(pattern|way)\./.test(u.path));
    if (!isStep) copies += own;
    else for (const n of stepsOf(b, r, own, c)) possible.add(n);
  }
  if (!possible.size) return counted(wanted, copies, "copies", rows);
  if (copies) possible.add(copies);
  const written = uses.length;
  if (possible.has(wanted) || written === wanted) return counted(wanted, wanted, "steps", rows);
  return uses.some((u) => u.path.startsWith("pattern.points") || u.path.includes(".at."))
    ? uncounted(wanted, "how often a place is measured was not counted")
    : counted(wanted, [...possible][0], "steps", rows);
}

/** How many steps a pattern of so many copies has, as a print may count them. */
function stepsOf(b: Balloon, r: SolvedRow, copies: number, c: Counted): number[] {
  const { pattern } = r.row.body as { pattern?: { kind: string } };
  const count = (path: string) => r.numbers.find((n) => n.path === path)?.value?.value ?? 0;
  if (pattern?.kind === "grid") {
    const [nx, ny] = [count("pattern.nx"), count("pattern.ny")];
    return [nx - 1, ny - 1, (nx - 1) * ny, nx * (ny - 1)];
  }
  if (pattern?.kind === "boltCircle" && b.kind !== "angle") return [copies];
  if (b.kind !== "angle") return [copies - 1];
  const step = valueOf(b.value, "angle", c.scope);
  const isAllRound = step.ok && Math.abs(copies * step.value.value - 2 * Math.PI) < 1e-3;
  return [isAllRound ? copies : copies - 1];
}
