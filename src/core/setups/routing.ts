import type { EvaluatedPart } from "../evaluate/parts";
import { axisDirections, turnAbout } from "../geometry/motion";
import { dot, v3 } from "../geometry/vec";
import { PARALLEL } from "../geometry/tolerance";
import { valueOf } from "../engine/numbers";
import type { SolvedRow } from "../engine/solve";
import type { Setup } from "../job/schema";
import { axisOfBox } from "./grip";
import type { ProposedSetup } from "./propose";
import { Reach, sideDirections, type Direction, type Hindrance } from "./reach";
import type { StandingSetup, Work } from "./setup";

/** From where a row can be cut, and what keeps it from being cut from elsewhere. */
export interface RowAccess {
  row: number;
  rowId: string;
  /** Directions that see all of it. */
  whole: Direction[];
  /** Directions that see some of it. */
  some: Direction[];
  why: { direction: Direction; hindrance: Hindrance }[];
  faces: number[];
}
export interface Routing {
  access: RowAccess[];
  /** Numbers of rows that no setup cuts, or cuts whole. */
  unassigned: number[];
  proposed: ProposedSetup[];
  /** Balloons between rows of different setups. */
  marked: { number: number; setups: number[]; rows: number[] }[];
}

/** Ways a cutter can come: the six sides, and those of the job's own tilted and indexed planes. */
export function directionsOf(work: Work): (Direction & { says: Setup["up"] })[] {
  const own = (work.job.planes ?? []).flatMap((p): (Direction & { says: Setup["up"] })[] => {
    const solved = work.part.evaluation.solved.planes.find((s) => s.id === p.id);
    const frame = solved?.frame;
    if (!frame) return [];
    return [
      { name: `plane "${p.name}"`, side: null, up: frame.normal, says: { plane: { on: "named", plane: p.name } } },
    ];
  });
  const turned = indexOf(work);
  const all = [...sideDirections.map((d) => ({ ...d, says: d.side! })), ...own, ...turned];
  return all.filter((d, i) => !all.slice(0, i).some((e) => dot(d.up, e.up) > PARALLEL));
}

/** Index angles of the repeats: what is turned round an axis is cut by turning the piece. */
function indexOf(work: Work): (Direction & { says: Setup["up"] })[] {
  return (work.job.planes ?? []).flatMap((p) => {
    const { making } = p;
    if (making.is !== "index") return [];
    const angle = valueOf(making.angle, "angle", work.scope);
    if (!angle.ok) return [];
    const up = turnAbout(v3(0, 0, 0), axisDirections[making.about], -angle.value.value).direction(v3(0, 0, 1));
    return [{ name: `index ${making.angle}`, side: null, up, says: { index: making.angle, about: making.about } }];
  });
}

/** Rows that leave a mark on the part, with the faces they left. */
export function accessOf(work: Work, reach: Reach, directions: Direction[]): RowAccess[] {
  return work.rows.flatMap((row): RowAccess[] => {
    const faces = row.state === "ok" ? reach.facesOf(row) : [];
    if (!faces.length) return [];
    const seen = directions.map((direction) => ({ direction, ...reach.seen(faces, direction) }));
    const whole = seen.filter((s) => faces.every((f) => s.faces.has(f)));
    const some = seen.filter((s) => faces.some((f) => s.faces.has(f)));
    const why = seen.flatMap((s) => {
      const hindrances = faces.flatMap((f) => (s.faces.has(f) ? [] : [s.why.get(f)!]));
      const worst = hindrances.includes("looks away") ? "looks away" : hindrances[0];
      return worst ? [{ direction: s.direction, hindrance: worst }] : [];
    });
    return [
      {
        row: row.number,
        rowId: row.row.id,
        whole: whole.map((s) => s.direction),
        some: some.map((s) => s.direction),
        why,
        faces,
      },
    ];
  });
}

/** Rows that the setups leave uncut, whole or in part. */
export function unassignedRows(access: RowAccess[], setups: StandingSetup[], reach: Reach): number[] {
  return access
    .filter((a) => {
      const cutting = setups.filter((s) => s.piece.rows.some((r) => r.row.id === a.rowId));
      const seen = cutting.flatMap((s) => [...seenIn(s, a.faces, reach)]);
      const made = new Set(seen);
      return !cutting.length || a.faces.some((f) => !made.has(f));
    })
    .map((a) => a.row);
}
/** Rows that are only said of the part, a thread or a knurl, and that no setup has: they leave no face to miss. */
export const saidRowsLeft = (rows: SolvedRow[], setups: StandingSetup[]): number[] =>
  rows.flatMap((r) =>
    r.state === "ok" && r.recipe?.op === "said" && !setups.some((s) => s.setup.rows?.includes(r.row.id))
      ? [r.number]
      : [],
  );

/** What a setup reaches of some faces: from its way up, and on a lathe what turns before the tool. */
export function seenIn(s: StandingSetup, faces: number[], reach: Reach): Set<number> {
  const { faces: all } = reach.seen(faces, directionOf(s));
  const turned = s.setup.machine === "lathe" ? reach.turned(faces, axisOfBox(s.frame, s.finished)) : [];
  return new Set([...faces.filter((f) => all.has(f)), ...turned]);
}

export const directionOf = ({ setup, frame }: StandingSetup): Direction => ({
  name: `setup ${setup.op}`,
  side: typeof setup.up === "string" ? setup.up : null,
  up: frame.normal,
});

/** Balloons whose rows have no setup in common: their tolerance has the turn-over between its ends. */
export function markedBalloons(part: EvaluatedPart, setups: StandingSetup[], rows: SolvedRow[]): Routing["marked"] {
  return part.evaluation.ledger.flatMap((l) => {
    const numbers = new Set([...l.rows, ...l.on.flatMap((id) => rows.find((r) => r.row.id === id)?.number ?? [])]);
    const cut = [...numbers].map((n) => ({
      row: n,
      setups: setups.filter((s) => s.piece.rows.some((r) => r.number === n)).map((s) => s.setup.op),
    }));
    const placed = cut.filter((c) => c.setups.length);
    if (placed.length < 2) return [];
    const common = placed[0].setups.some((op) => placed.every((c) => c.setups.includes(op)));
    if (common) return [];
    const ops = [...new Set(placed.flatMap((c) => c.setups))].sort((a, b) => a - b);
    return [{ number: l.number, setups: ops, rows: placed.map((c) => c.row) }];
  });
}
