import { PARALLEL } from "../geometry/tolerance";
import { dot } from "../geometry/vec";
import type { Fix } from "../findings/finding";
import type { Setup } from "../job/schema";
import { showLength } from "../number";
import type { SolvedRow } from "../engine/solve";
import { changed, type CheckContext, type SetupFinding } from "./finding";
import { axisOfBox } from "./grip";
import type { Direction, Reach } from "./reach";
import type { Routing, RowAccess } from "./routing";
import type { StandingSetup, Work } from "./setup";

/** What is remarked of a routing: rows it leaves uncut, and what lies across a turn-over. */
export function routingFindings(
  { work, routing, setups, reach }: { work: Work; routing: Routing; setups: StandingSetup[]; reach: Reach },
  c: CheckContext,
): SetupFinding[] {
  // A job that only says how it is held has no routing yet.
  if (!c.setups.some((s) => s.rows)) return [];
  return [
    ...leftOver(work, routing, setups, c),
    ...acrossTurns(work, routing, setups, c),
    ...notTurned(routing, setups, reach, work),
  ];
}

/** Rows of a lathe's setup that are not round about its axis, and that no mill cuts either. */
function notTurned(routing: Routing, setups: StandingSetup[], reach: Reach, work: Work): SetupFinding[] {
  const cutting = (a: RowAccess) => setups.filter((s) => s.piece.rows.some((r) => r.row.id === a.rowId));
  return routing.access.flatMap((a): SetupFinding[] => {
    const at = cutting(a);
    if (!at.length || at.some((s) => s.setup.machine !== "lathe")) return [];
    const isTurned = at.some((s) => reach.roundAbout(a.faces, axisOfBox(s.frame, s.finished)).size === a.faces.length);
    if (isTurned) return [];
    const { op } = at[0].setup;
    return [
      {
        rule: "not-turned",
        setup: op,
        row: a.row,
        rowId: a.rowId,
        severity: "caution",
        value: 0,
        limit: 0,
        place: work.rows[a.row - 1].planes?.start?.origin ?? null,
        text: `row ${a.row} is not round about the axis of setup ${op}: turning does not make it, a driven tool or a mill does`,
        source: "geometry: what turns is round about its axis",
      },
    ];
  });
}

const leftOver = (work: Work, routing: Routing, setups: StandingSetup[], c: CheckContext): SetupFinding[] =>
  routing.unassigned.map((row): SetupFinding => {
    const a = accessTo(routing, row);
    if (!a) return saidOfNoSetup(work.rows[row - 1], setups, c);
    const fix = cutSomewhere(a, setups, c);
    const isIn = setups.some((s) => s.piece.rows.some((r) => r.number === row));
    const from = [...new Set([...a.whole, ...a.some].map((d) => d.name))].slice(0, 4).join(", ") || "nowhere";
    return {
      rule: isIn ? "row-unreachable" : "row-in-no-setup",
      setup: null,
      place: work.rows[row - 1].planes?.start?.origin ?? null,
      severity: isIn ? "stop" : "caution",
      row,
      rowId: a.rowId,
      value: 0,
      limit: 0,
      text: isIn
        ? `row ${row} is not reached whole in its setups; it is seen from ${from}`
        : `row ${row} is in no setup; it is seen from ${from}`,
      source: "geometry: from where the row is seen",
      ...(fix ? { fix } : {}),
    };
  });

/** A thread or a knurl that no setup has: put where the round it stands on is turned. */
function saidOfNoSetup(
  { row, number, planes, feature }: SolvedRow,
  setups: StandingSetup[],
  c: CheckContext,
): SetupFinding {
  const shaft = feature?.is === "thread" || feature?.is === "knurl" ? feature.shaft : null;
  const at = setups.find((s) => shaft !== null && s.setup.rows?.includes(shaft))?.setup;
  const fix: Fix | null = at
    ? { label: `row ${number} in setup ${at.op}`, edits: [changed(c, at.op, { rows: [...(at.rows ?? []), row.id] })] }
    : null;
  return {
    rule: "row-in-no-setup",
    setup: null,
    place: planes?.start?.origin ?? null,
    severity: "caution",
    row: number,
    rowId: row.id,
    value: 0,
    limit: 0,
    text: `row ${number} is in no setup`,
    source: "the rows of the setups",
    ...(fix ? { fix } : {}),
  };
}

/** A row put into the setup that sees it whole, or into a further one that does; else into others besides its own. */
export function cutSomewhere(
  { row, rowId, whole, some }: RowAccess,
  setups: StandingSetup[],
  c: CheckContext,
): Fix | null {
  const there = setups.find((s) => whole.some((d) => dot(d.up, s.frame.normal) > PARALLEL));
  const without = c.setups.map((s) => ({ ...s, rows: (s.rows ?? []).filter((id) => id !== rowId) }));
  if (there) {
    const { op } = there.setup;
    const list = without.map((s) => (s.op === op ? { ...s, rows: [...s.rows, rowId] } : s));
    return { label: `row ${row} in setup ${op}`, edits: [{ edit: "setSetups", setups: list }] };
  }
  const from = whole.find((d) => d.side !== null);
  if (!from?.side) return cutInMore(row, rowId, some, setups, c);
  const op = Math.max(...c.setups.map((s) => s.op)) + STEP;
  const further: Setup = { op, machine: "mill", up: from.side, hold: null, rows: [rowId] };
  const label = `row ${row} in a setup ${op}, ${from.side} up`;
  return { label, edits: [{ edit: "setSetups", setups: [...without, further] }] };
}
/** A row that no one setup sees whole, put into all that see some of it. */
function cutInMore(
  row: number,
  rowId: string,
  some: Direction[],
  setups: StandingSetup[],
  c: CheckContext,
): Fix | null {
  const seeing = setups.filter((s) => some.some((d) => dot(d.up, s.frame.normal) > PARALLEL)).map((s) => s.setup.op);
  const more = c.setups.filter((s) => seeing.includes(s.op) && !s.rows?.includes(rowId)).map((s) => s.op);
  if (!more.length) return null;
  const list = c.setups.map((s) => (more.includes(s.op) ? { ...s, rows: [...(s.rows ?? []), rowId] } : s));
  return { label: `row ${row} in setup ${more.join(" and ")} too`, edits: [{ edit: "setSetups", setups: list }] };
}
/** What op numbers are apart. */
const STEP = 10;

const accessTo = (routing: Routing, row: number): RowAccess | undefined => routing.access.find((a) => a.row === row);

/** Balloons between rows of different setups, each with what a turn-over costs, and the setup that would spare it. */
function acrossTurns(work: Work, routing: Routing, setups: StandingSetup[], c: CheckContext): SetupFinding[] {
  return routing.marked.map((m): SetupFinding => {
    const l = work.part.evaluation.ledger.find((e) => e.number === m.number)!;
    const width = l.low !== null && l.high !== null ? l.high - l.low : null;
    const cost = c.limits.turnOver;
    const row = work.rows[m.rows[0] - 1];
    const fix = spared(routing, m.rows, setups, c);
    const wide = width === null ? "" : `, ${showLength(width, c.unit)} wide,`;
    return {
      rule: "turn-over",
      setup: m.setups[m.setups.length - 1],
      row: row.number,
      rowId: row.row.id,
      severity: width !== null && width < 2 * cost.value ? "caution" : "note",
      value: width ?? 0,
      limit: 2 * cost.value,
      place: row.planes?.start?.origin ?? null,
      text: `balloon ${m.number}${wide} lies between setups ${m.setups.join(" and ")}; a turn-over costs ±${showLength(cost.value, c.unit)} in this shop`,
      source: cost.source,
      ...(fix ? { fix } : {}),
    };
  });
}

/** A setup that sees all of the rows whole: cut there together, nothing lies between them. */
function spared(routing: Routing, rows: number[], setups: StandingSetup[], c: CheckContext): Fix | null {
  const accesses = rows.flatMap((n) => accessTo(routing, n) ?? []);
  const sees = (s: StandingSetup, a: RowAccess) => a.whole.some((d) => dot(d.up, s.frame.normal) > PARALLEL);
  const at = accesses.length === rows.length ? setups.find((s) => accesses.every((a) => sees(s, a))) : undefined;
  if (!at) return null;
  const ids = accesses.map((a) => a.rowId);
  const isHere = (op: number) => op === at.setup.op;
  return {
    label: `rows ${rows.join(", ")} in setup ${at.setup.op}`,
    edits: [
      {
        edit: "setSetups",
        setups: c.setups.map((s) => ({
          ...s,
          rows: isHere(s.op)
            ? [...new Set([...(s.rows ?? []), ...ids])]
            : (s.rows ?? []).filter((id) => !ids.includes(id)),
        })),
      },
    ],
  };
}
