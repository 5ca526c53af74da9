import type { Fix } from "../../findings/finding";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import { lengthText, unitOf, valueOf } from "../../number";
import type { Placement, Setup } from "../../job/schema";
import type { EvaluatedPart } from "../../evaluate/parts";
import { cribFor } from "../../tables";
import { baseOn, dropLines, nestLines, Writer, type Base } from "../derive/common";
import { changed, say, type CheckContext } from "../finding";
import type { Held } from "../fixtureChecks";
import { practiceOf } from "../setup";
import { addedRows } from "./addedRows";
import { extentAlong, heightOf, resized } from "./growing";

/** How deep the piece lies in what holds it, mm. */
const depthOf = ({ lying }: Held): number => lying.holderBox.max.z - lying.box.min.z;

const baseOf = (c: CheckContext, { standing }: Held): Base | null => {
  const base = baseOn(standing, c.setups);
  return base.ok ? base.value : null;
};

/** A name no outline of a part has yet. */
function freeOutline({ job }: EvaluatedPart, wanted: string): string {
  const taken = new Set(job.outlines.map((o) => o.name.toLowerCase()));
  for (let i = 1; ; i++) {
    const name = i === 1 ? wanted : `${wanted} ${i}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}

/** The nest cut once more as an assistant would cut it: the piece's shadow as deep as it lies, relieved, with room. */
export function nestFreed(c: CheckContext, held: Held): Fix | null {
  const base = baseOf(c, held);
  const depth = depthOf(held);
  if (!base || depth <= CONTACT) return null;
  const w = new Writer(c.unit);
  const name = freeOutline(held.holder, `freed ${base.standing.setup.op}`);
  const clearance = Math.max(c.practice.clearance, c.limits.nestRoomLeast.value);
  const nest = nestLines(w, name, base, held.work, { grip: depth, clearance });
  if (!nest.ok) return null;
  const cut = `CUT ${w.quoted(name)}: POCKET ${w.quoted(name)} DEEP ${w.n(depth)}`;
  return addedRows(c, held.holder.id, "cut the nest free", [...nest.value, cut]);
}

/** The nest cut deeper, the piece let down into it, and the grip of its setup said so. */
export function nestDeeper(c: CheckContext, held: Held, deep: number, hold: Setup["hold"]): Fix | null {
  const base = baseOf(c, held);
  if (!base) return null;
  const w = new Writer(c.unit);
  const name = freeOutline(held.holder, `deeper ${base.standing.setup.op}`);
  const nest = nestLines(w, name, base, held.work, { grip: deep });
  const station = moved(c, held.work.scope, held.lying.placement, { z: depthOf(held) - deep });
  if (!nest.ok || !station) return null;
  const cut = `CUT ${w.quoted(name)}: POCKET ${w.quoted(name)} DEEP ${w.n(deep)}`;
  const rows = addedRows(c, held.holder.id, `grip ${say(c, deep)}`, [...nest.value, cut]);
  const places = held.holder.places.map((p) => (p === held.lying.placement ? station : p));
  return (
    rows && {
      ...rows,
      edits: [
        ...rows.edits,
        { edit: "setPart", id: held.holder.id, part: { places } },
        changed(c, base.standing.setup.op, { hold }),
      ],
    }
  );
}

/** The room round a nest set to what the shop proposes, where the nest's outline says it in one number. */
export function roomSet(c: CheckContext, held: Held): Fix | null {
  const own = held.work.part.name.toLowerCase();
  const { setup } = held.lying.placement;
  const nest = held.holder.job.outlines.find((o) =>
    o.items.some((i) => "part" in i && i.part?.toLowerCase() === own && (!("setup" in i) || i.setup === setup)),
  );
  const at = nest?.items.findIndex((i) => i.item === "offset") ?? -1;
  if (!nest || at < 0) return null;
  const by = lengthText(c.practice.clearance, c.unit, unitOf[c.unit].places.fine);
  const items = nest.items.map((i, k) => (k === at && i.item === "offset" ? { ...i, by } : i));
  const edit = { edit: "setOutline" as const, id: nest.id, outline: { ...nest, items } };
  return { label: `room ${by} a side`, edits: [{ edit: "ofPart", part: held.holder.id, edits: [edit] }] };
}

/** A part's body made longer along an axis of the plate, as much on both sides. */
export function longer(c: CheckContext, { holder }: Held, axis: "x" | "y", by: number): Fix | null {
  const body = bodyRow(holder);
  const edit = body === null ? null : resized(holder, body, extentAlong(axis), 2 * by);
  if (!edit) return null;
  const edits = [edit, ...holesAlong(holder, axis).flatMap((row) => resized(holder, row, heightOf, by) ?? [])];
  return { label: `${say(c, 2 * by)} longer`, edits: [{ edit: "ofPart", part: holder.id, edits }] };
}

/** Cuts that come in from the sides across an axis: they begin farther out, and end where they did. */
const holesAlong = ({ evaluation }: EvaluatedPart, axis: "x" | "y"): string[] =>
  evaluation.solved.rows.flatMap((r) => {
    const step = r.placed?.step;
    return step?.op === "cut" && Math.abs(step.frame.normal[axis]) > PARALLEL ? [r.row.id] : [];
  });

/** A part's body made thicker under what lies in it: the stations rise with its top. */
export function thicker(c: CheckContext, { holder, work }: Held, by: number): Fix | null {
  const body = bodyRow(holder);
  const edit = body === null ? null : resized(holder, body, heightOf, by);
  if (!edit) return null;
  const places = holder.places.map((p) => moved(c, work.scope, p, { z: by }));
  if (places.some((p) => !p)) return null;
  return {
    label: `${say(c, by)} thicker`,
    edits: [
      { edit: "ofPart", part: holder.id, edits: [edit] },
      { edit: "setPart", id: holder.id, part: { places: places.filter((p) => p !== null) } },
    ],
  };
}

/** The row that leaves a part's body. */
const bodyRow = ({ evaluation }: EvaluatedPart): string | null =>
  evaluation.solved.rows.find((r) => r.state === "ok" && r.recipe?.op === "leave")?.row.id ?? null;

/** Room for a cutter round the piece, as far down as it goes; none where no nest would be left. */
export function roomForCutter(c: CheckContext, held: Held, below: number): Fix | null {
  const base = baseOf(c, held);
  const depth = depthOf(held);
  const { clearance, roomBelow, nestLeast } = practiceOf(held.work);
  const deep = below + roomBelow;
  if (!base || depth - deep < nestLeast) return null;
  const w = new Writer(c.unit);
  const { job } = held.work.part;
  const wide = clearance + Math.max(...(job.crib ?? cribFor(job.unit)).map((t) => t.diameter));
  const name = freeOutline(held.holder, `room ${base.standing.setup.op}`);
  const nest = nestLines(w, name, base, held.work, { grip: depth, relief: 0, clearance: wide });
  if (!nest.ok) return null;
  const cut = `CUT ${w.quoted(name)}: POCKET ${w.quoted(name)} DEEP ${w.n(deep)}`;
  return addedRows(c, held.holder.id, `room for the cutter, ${say(c, deep)} deep`, [...nest.value, cut]);
}

/** Holes that let what is cut through drop out; none where the mouths above do not tell where they are. */
export function dropHole(c: CheckContext, held: Held, row: number): Fix | null {
  const base = baseOf(c, held);
  if (!base) return null;
  const w = new Writer(c.unit);
  const { outlines, cuts } = dropLines(w, base, held.work, "THRU", new Set([row]));
  if (!cuts.length) return null;
  const [wanted] = [`under ${row}`];
  const name = freeOutline(held.holder, wanted);
  const named = [...outlines, ...cuts].map((l) => l.replaceAll(w.quoted(wanted), w.quoted(name)));
  return addedRows(c, held.holder.id, "drop holes under it", named);
}

/** Switches a row of the part that holds off. */
export const switchedOff = (holder: EvaluatedPart, rowId: string, label: string): Fix => ({
  label,
  edits: [{ edit: "ofPart", part: holder.id, edits: [{ edit: "switchRow", id: rowId, off: true }] }],
});

/** A station moved away from another, and whatever follows it. */
export function stationMoved(
  c: CheckContext,
  { holder, work }: Pick<Held, "holder" | "work">,
  placement: Placement,
  by: Partial<Record<"x" | "y", number>>,
): Fix | null {
  const to = moved(c, work.scope, placement, by);
  if (!to) return null;
  const places = holder.places.map((p) => (p === placement ? to : p));
  return { label: "move the station", edits: [{ edit: "setPart", id: holder.id, part: { places } }] };
}

/** Stations that have the piece another way round, turned like the first. */
export function turnedAlike({ holder }: Pick<Held, "holder">, first: Placement, others: Placement[]): Fix {
  const { up, turn } = first;
  const like = (p: Placement): Placement => {
    const { up: _up, turn: _turn, ...rest } = p;
    return { ...rest, ...(up ? { up } : {}), ...(turn === undefined ? {} : { turn }) };
  };
  const places = holder.places.map((p) => (others.includes(p) ? like(p) : p));
  return { label: "turn them alike", edits: [{ edit: "setPart", id: holder.id, part: { places } }] };
}

/** A station moved along its holder's axes. @returns null where a number of its place cannot be worked out */
function moved(
  c: CheckContext,
  scope: Held["work"]["scope"],
  place: Placement,
  by: Partial<Record<"x" | "y" | "z", number>>,
): Placement | null {
  const at = { ...place.at };
  for (const axis of ["x", "y", "z"] as const) {
    const more = by[axis];
    const now = valueOf(at[axis], "coordinate", scope);
    if (!now.ok) return null;
    if (more) at[axis] = lengthText(now.value.value + more, c.unit, unitOf[c.unit].places.fine);
  }
  return { ...place, at };
}
