import type { EvaluatedPart } from "../evaluate/parts";
import { axisDirections, turnAbout } from "../geometry/motion";
import { dot, v3 } from "../geometry/vec";
import { PARALLEL } from "../geometry/tolerance";
import { valueOf } from "../engine/numbers";
import type { SolvedRow } from "../engine/solve";
import type { Setup } from "../job/schema";
import { axisOfBox } from "./grip";
import { Reach, sideDirections, type Direction, type Hindrance } from "./reach";
import type { StandingSetup, Work } from "./setup";

/** A setup that is proposed: which way is up, its rows, and why each is in it. */
export interface ProposedSetup {
  op: number;
  up: Setup["up"];
  direction: Direction;
  rows: number[];
  machine: Setup["machine"];
  why: string[];
}
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

/** Setups are numbered in tens: there is room to put one between. */
const OP_STEP = 10;

/**
 * The fewest directions from which every face that can be cut is seen, and of equal ones those that cut most rows whole:
 * all sets of directions are tried, small ones first.
 */
export function proposeRouting(
  access: RowAccess[],
  directions: (Direction & { says: Setup["up"] })[],
  reach: Reach,
  unmarked: SolvedRow[],
  rows: SolvedRow[],
): ProposedSetup[] {
  const wanted = new Set(
    access.flatMap((a) => a.faces.filter((f) => directions.some((d) => reach.seen([f], d).faces.has(f)))),
  );
  if (!wanted.size) return [];
  const sees = directions.map((d) => new Set([...wanted].filter((f) => reach.seen([f], d).faces.has(f))));
  const wholeRows = (set: number[]) =>
    access.filter((a) => set.some((i) => a.faces.every((f) => sees[i].has(f) || !wanted.has(f)))).length;
  const chosen = smallestCover(sees, wanted.size, wholeRows);
  // The direction that sees most comes first: the piece is held by its stock then.
  const order = [...chosen].sort((a, b) => sees[b].size - sees[a].size || a - b);
  const setups = withUnmarked(inSetups(order, access, directions, sees), unmarked).map((s) => ({
    ...s,
    machine: machineFor(s, rows),
  }));
  const unseen = access.filter((a) => !a.some.length);
  return withTurned(setups, unseen);
}

/** What no straight cutter reaches is turned, where a setup stands on a lathe. */
function withTurned(setups: ProposedSetup[], unseen: RowAccess[]): ProposedSetup[] {
  const lathe = setups.find((s) => s.machine === "lathe");
  if (!lathe) return setups;
  lathe.rows = [...lathe.rows, ...unseen.map((a) => a.row)].sort((a, b) => a - b);
  lathe.why.push(...unseen.map((a) => `row ${a.row}: it turns before the tool`));
  return setups;
}

/** What is turned about the setup's own axis is turned on a lathe. */
function machineFor(setup: ProposedSetup, rows: SolvedRow[]): Setup["machine"] {
  const isTurned = setup.rows.some((n) => {
    const { feature, planes } = rows[n - 1];
    return (
      feature?.is === "turned" &&
      planes?.shape &&
      Math.abs(dot(planes.shape.frame.normal, setup.direction.up)) > PARALLEL
    );
  });
  return isTurned ? "lathe" : setup.machine;
}

/** Rows that leave no face of their own (a facing, an edge that another row took) go where they are cut from. */
function withUnmarked(setups: ProposedSetup[], rows: SolvedRow[]): ProposedSetup[] {
  for (const row of rows) {
    const way = row.planes?.start?.normal;
    const at = setups.find((s) => way && dot(s.direction.up, way) > PARALLEL) ?? setups[0];
    if (!at) continue;
    at.rows = [...at.rows, row.number].sort((a, b) => a - b);
    at.why.push(`row ${row.number}: it leaves no face of its own`);
  }
  return setups;
}

/** Largest sets that are tried: more directions than this are taken one after the other, the best first. */
const MOST_TRIED = 4;

function smallestCover(sees: Set<number>[], wanted: number, worth: (set: number[]) => number): number[] {
  for (let size = 1; size <= Math.min(MOST_TRIED, sees.length); size++) {
    let best: number[] | null = null;
    for (const set of subsets(sees.length, size)) {
      const all = new Set(set.flatMap((i) => [...sees[i]]));
      if (all.size === wanted && (!best || worth(set) > worth(best))) best = set;
    }
    if (best) return best;
  }
  const chosen: number[] = [];
  const done = new Set<number>();
  while (done.size < wanted) {
    const gain = sees.map((s) => [...s].filter((f) => !done.has(f)).length);
    const next = gain.indexOf(Math.max(...gain));
    if (gain[next] === 0) break;
    chosen.push(next);
    for (const f of sees[next]) done.add(f);
  }
  return chosen;
}

function* subsets(n: number, size: number, from = 0): Generator<number[]> {
  if (size === 0) yield [];
  else for (let i = from; i + size <= n; i++) for (const rest of subsets(n, size - 1, i + 1)) yield [i, ...rest];
}

/** A row goes where it is cut whole, the earliest such setup; one that no setup sees whole goes to each that it needs. */
function inSetups(
  order: number[],
  access: RowAccess[],
  directions: (Direction & { says: Setup["up"] })[],
  sees: Set<number>[],
): ProposedSetup[] {
  const setups = order.map((i, k): ProposedSetup & { at: number } => ({
    at: i,
    op: OP_STEP * (k + 1),
    up: directions[i].says,
    direction: directions[i],
    machine: directions[i].side ? "mill" : "index",
    rows: [],
    why: [],
  }));
  for (const a of access) {
    const whole = setups.find((s) => a.faces.every((f) => sees[s.at].has(f)));
    if (whole) {
      whole.rows.push(a.row);
      whole.why.push(`row ${a.row}: all of it is reached from ${whole.direction.name}`);
      continue;
    }
    const open = new Set(a.faces);
    for (const s of setups) {
      const here = [...open].filter((f) => sees[s.at].has(f));
      if (!here.length) continue;
      here.forEach((f) => open.delete(f));
      s.rows.push(a.row);
      s.why.push(`row ${a.row}: ${here.length} of its ${a.faces.length} faces are reached from ${s.direction.name}`);
    }
  }
  return setups.filter((s) => s.rows.length).map(({ at: _, ...s }) => s);
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
