import { problems } from "../problems";
import { fail, ok, type Result } from "../../base/result";
import { PARALLEL } from "../../geometry/tolerance";
import { saidLength } from "../../number";
import { shapeOfPart } from "../../engine/partShapes";
import { dot } from "../../geometry/vec";
import { loopArea, loopBox } from "../../outline";
import { shadowOfBand } from "../../engine/shadow";
import { findThread, readThread, type FixturePractice } from "../../tables";
import { practiceOf, type Work } from "../setup";
import type { Setup } from "../../job/schema";
import { cutterRoom, type CutterRoom } from "./cutterRoom";
import {
  baseOf,
  dropLines,
  freeName,
  gripOf,
  lyingFrame,
  nestLines,
  Writer,
  type Base,
  type DerivedFixture,
  type DeriveFrom,
  type FixtureWishes,
  type Nests,
} from "./common";

interface Station {
  x: number;
  y: number;
  base: Base;
}

const up = (mm: number, step: number): number => Math.ceil(mm / step - 1e-9) * step;

/** What a plate is laid out by. */
interface Layout {
  bases: Base[];
  count: { x: number; y: number };
  pitch: { x: number; y: number };
  size: { x: number; y: number };
  grip: number;
  /** What is taken away round each nest for a cutter, where it is. */
  rooms: (CutterRoom | null)[];
  clamp: Clamp | null;
}

/** A clamp screw: its thread as a card has it, and its major diameter, mm. */
interface Clamp {
  thread: string;
  major: number;
}

function clampOf(text: string | undefined): Result<Clamp | null> {
  if (!text) return ok(null);
  const found = readThread(text.trim());
  const known = found && found.length === text.trim().length ? findThread(found.designation) : null;
  return known
    ? ok({ thread: found!.designation, major: known.major })
    : fail(problems.notAThread(text), { path: "clamps" });
}

function layoutOf(from: DeriveFrom, op: number, wishes: FixtureWishes): Result<Layout> {
  const bases: Base[] = [];
  for (const o of wishes.serves?.length ? wishes.serves : [op]) {
    const base = baseOf(from, o);
    if (!base.ok) return base;
    bases.push(base.value);
  }
  const count = wishes.stations ?? { x: bases.length, y: 1 };
  if (!(count.x >= 1 && count.y >= 1 && count.x * count.y <= MOST_STATIONS))
    return fail(problems.tooManyStations(MOST_STATIONS), { path: "stations" });
  const lowest = bases.reduce((a, b) => (b.height < a.height ? b : a));
  const grip = gripOf(lowest, wishes.grip, from.work);
  if (!grip.ok) return grip;
  const clamp = clampOf(wishes.clamps);
  if (!clamp.ok) return clamp;
  const practice = practiceOf(from.work);
  const { between, sizeStep } = practice;
  const clearance = wishes.clearance ?? practice.clearance;
  const rooms = bases.map((b) => cutterRoom(b, from.work, grip.value, clearance));
  const room = Math.max(0, ...rooms.map((r) => r?.wide ?? 0));
  const screws = clamp.value ? 2 * (practice.clampOff + practice.clampHead / 2) * clamp.value.major : 0;
  const size = {
    x: Math.max(...bases.map((b) => b.long)) + 2 * room + screws,
    y: Math.max(...bases.map((b) => b.wide)) + 2 * room,
  };
  const pitch = {
    x: wishes.pitch?.x || up(size.x + between, sizeStep),
    y: wishes.pitch?.y || up(size.y + between, sizeStep),
  };
  const tight = (["x", "y"] as const).find((k) => count[k] > 1 && pitch[k] <= size[k]);
  if (tight) return fail(problems.pitchUnderNest(saidLength(pitch[tight]), saidLength(size[tight])), { path: "pitch" });
  return ok({ bases, count, pitch, size, grip: grip.value, rooms, clamp: clamp.value });
}
const MOST_STATIONS = 100;

/** A nest a setup that is served, bosses into the piece's pockets, drop holes under its through holes. */
function nestsOf(w: Writer, { bases, grip, rooms }: Layout, work: Work, wishes: FixtureWishes): Result<Nests> {
  const { bossRoom } = practiceOf(work);
  const own = w.quoted(work.part.name);
  const [outlines, cuts]: [string[], string[]] = [[], []];
  for (const [i, base] of bases.entries()) {
    const { op } = base.standing.setup;
    const nest = nestLines(w, `nest ${op}`, base, work, { ...wishes, grip });
    if (!nest.ok) return nest;
    outlines.push(...nest.value);
    cuts.push(`CUT "nest ${op}": POCKET "nest ${op}" DEEP ${w.n(grip)}`);
    // The plate itself is row 1.
    const nestRow = cuts.length + 1;
    const room = rooms[i];
    if (room) {
      const [shadow] = nest.value.filter((l) => l.startsWith("SHADOW"));
      outlines.push(`OUTLINE "room ${op}"`, shadow, `OFFSET ${w.n(room.wide)}`, "END");
      cuts.push(`CUT "room ${op}": POCKET "room ${op}" DEEP ${w.n(room.depth)}`);
    }
    for (const boss of bases.length === 1 ? bossesOf(base, work, grip) : []) {
      const name = `"boss ${op}-${boss.row}"`;
      outlines.push(`OUTLINE ${name}`, `EDGES MOUTH OF ${own} ROW ${boss.row}`, `OFFSET ${w.n(-bossRoom)}`, "END");
      cuts.push(`LEAVE ${name}: TEXT ${name} X ${w.n(boss.height)} ON FLOOR OF ${nestRow}`);
    }
  }
  const drops = dropLines(w, bases[0], work, "THRU");
  outlines.push(...drops.outlines);
  cuts.push(...drops.cuts);
  return ok({ outlines, cuts });
}

/**
 * A fixture plate as the lines of a part: a nest a station, drop holes under the piece's through holes, dowels and
 * mounting holes. The stations serve one setup, or successive ones of the same piece.
 */
export function derivePlate(from: DeriveFrom, op: number, wishes: FixtureWishes): Result<DerivedFixture> {
  const { document, work } = from;
  const w = new Writer(document.unit);
  const layout = layoutOf(from, op, wishes);
  if (!layout.ok) return layout;
  const { bases, count, pitch, size, grip } = layout.value;
  const nests = nestsOf(w, layout.value, work, wishes);
  if (!nests.ok) return nests;
  const { floor, tableScrew, dowel, sizeStep } = practiceOf(work);
  const name = freeName(document, wishes.name ?? "fixture plate");
  const nested = { x: (count.x - 1) * pitch.x + size.x, y: (count.y - 1) * pitch.y + size.y };
  const { long, wide, mounts } = plateSize(nested, practiceOf(work));
  const thick = up(grip + floor, sizeStep);
  const stations = stationsOf(count, pitch, bases);
  const places = stations.map(
    (s) =>
      `PLACE ${w.quoted(work.part.name)} IN ${w.quoted(name)} AT ${w.n(s.x)},${w.n(s.y)},${w.n(thick - grip)} UP ${s.base.up.toUpperCase()} MIDDLE AFTER SETUP ${s.base.after}`,
  );
  const clamps = clampLines(w, layout.value, work);
  const lines = [
    `PART ${w.quoted(name)} PLATE`,
    ...nests.value.outlines,
    ...clamps.outlines,
    `LEAVE "plate": BLOCK ${w.n(long)} X ${w.n(wide)} X ${w.n(thick)}`,
    ...nests.value.cuts,
    ...clamps.cuts,
    `CUT "mounting holes": 4X ⌀${w.n(tableScrew)} THRU GRID 2 2 BY ${w.n(mounts.x)} ${w.n(mounts.y)}`,
    `CUT "dowels": 2X ⌀${w.n(dowel)} THRU LINE 2 BY ${w.n(mounts.x)} AT ${w.n(-mounts.x / 2)},0`,
    ...places,
  ];
  const ops = bases.map((b) => b.standing.setup.op);
  const hold: Setup["hold"] = { fixture: "plate", part: name };
  const setups = document.setups.map((s) => (ops.includes(s.op) ? { ...s, hold } : s));
  return ok({ name, lines, setups });
}

/**
 * A plate round its nests, with its mounting holes beside them, as far apart as whole pitches of the table.
 * @param nested what all nests take together
 */
function plateSize(nested: { x: number; y: number }, practice: FixturePractice) {
  const { plateMargin, tableScrew, tablePitch, sizeStep } = practice;
  const mountsX = up(nested.x + 2 * plateMargin, tablePitch);
  const wideLeast = Math.max(nested.y + 2 * plateMargin, tablePitch + 2 * tableScrew);
  const long = up(mountsX + 2 * tableScrew, 2 * sizeStep);
  const wide = up(wideLeast, 2 * sizeStep);
  const mountsY = Math.max(1, Math.floor((wide - 2 * tableScrew) / tablePitch + 1e-9)) * tablePitch;
  return { long, wide, mounts: { x: mountsX, y: mountsY } };
}

/** How far a piece hangs over what of it lies in the nest, along x. */
function hangsOver(base: Base, work: Work, grip: number): number {
  const shadow = shadowOfBand(work.kernel, base.piece, lyingFrame(base, work), 0, grip);
  if (!shadow.ok || !shadow.value.length) return 0;
  const { min, max } = loopBox(shadow.value.flat());
  const { box } = base.standing;
  return Math.max(0, min.x - box.min.x, box.max.x - max.x);
}

/** Tapped holes for clamps at both ends of every station, clear of what is cut round its nest; they follow the piece. */
function clampLines(w: Writer, { clamp, rooms, bases, grip }: Layout, work: Work): Nests {
  if (!clamp) return { outlines: [], cuts: [] };
  const { clampOff } = practiceOf(work);
  const own = w.quoted(work.part.name);
  const each = bases.map((base, i) => {
    const name = w.quoted(`clamps ${base.standing.setup.op}`);
    const off = (rooms[i]?.wide ?? 0) + clampOff * clamp.major + hangsOver(base, work, grip);
    return {
      outlines: [
        `OUTLINE ${name}`,
        `SHADOW DEEP ${w.n(grip)} FROM ${base.down.toUpperCase()} FILLED OF ${own} AFTER SETUP ${base.after}`,
        `BOX BY ${w.n(off)} X 0`,
        "END",
      ],
      cut: `CUT ${name}: ${clamp.thread} THRU PLACES ${name} MIDDLES X`,
    };
  });
  return { outlines: each.flatMap((e) => e.outlines), cuts: each.map((e) => e.cut) };
}

/**
 * Bosses that come up into pockets of a piece's underside and locate it: of every pocket open there that is wide enough,
 * some way below its floor.
 */
function bossesOf(base: Base, work: Work, grip: number): { row: number; height: number }[] {
  const { bossLeast, bossUnder } = practiceOf(work);
  return work.rows.flatMap((row) => {
    const step = row.placed?.step;
    const isThere = base.after > 0 && row.state === "ok" && !row.placed!.thru && row.feature?.is === "pocket";
    if (!isThere || step?.op !== "cut" || step.body.body !== "prism" || step.places.length > 1) return [];
    if (dot(step.frame.normal, base.standing.frame.normal) > -PARALLEL) return [];
    const area = Math.abs(loopArea(step.body.outline.outer));
    const height = Math.min(grip, step.body.to - bossUnder);
    // Where holes run into the mouth its edges are no way round: then nothing is proposed.
    const mouth = { item: "edges" as const, edges: "mouthOf" as const, row: row.row.id };
    const isTold = area >= bossLeast && height > 1 && shapeOfPart(mouth, work.kernel, work.rows, work.nameOf).ok;
    return isTold ? [{ row: row.number, height }] : [];
  });
}

/** Stations in rows, the setups one after the other along each. */
function stationsOf(count: { x: number; y: number }, pitch: { x: number; y: number }, bases: Base[]): Station[] {
  return Array.from({ length: count.x * count.y }, (_, i) => {
    const [column, row] = [i % count.x, Math.floor(i / count.x)];
    return {
      x: (column - (count.x - 1) / 2) * pitch.x,
      y: (row - (count.y - 1) / 2) * pitch.y,
      base: bases[column % bases.length],
    };
  });
}
