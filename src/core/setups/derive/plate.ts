import { fail, ok, type Result } from "../../base/result";
import { PARALLEL } from "../../geometry/tolerance";
import { dot } from "../../geometry/vec";
import { loopArea } from "../../outline";
import { fixturePractice } from "../../tables";
import type { Work } from "../setup";
import type { Setup } from "../../job/schema";
import {
  baseOf,
  freeName,
  gripOf,
  largestThrough,
  nestLines,
  Writer,
  type Base,
  type DerivedFixture,
  type DeriveFrom,
  type FixtureWishes,
} from "./common";

interface Station {
  x: number;
  y: number;
  base: Base;
}

const up = (mm: number, step: number): number => Math.ceil(mm / step - 1e-9) * step;

/**
 * A fixture plate as the lines of a part: a nest a station, drop holes under the piece's through holes, dowels and
 * mounting holes. The stations serve one setup, or successive ones of the same piece.
 */
export function derivePlate(from: DeriveFrom, op: number, wishes: FixtureWishes): Result<DerivedFixture> {
  const { document, work } = from;
  const w = new Writer(document.unit);
  const ops = wishes.serves?.length ? wishes.serves : [op];
  const bases: Base[] = [];
  for (const o of ops) {
    const base = baseOf(from, o);
    if (!base.ok) return base;
    bases.push(base.value);
  }
  const count = wishes.stations ?? { x: bases.length, y: 1 };
  if (!(count.x >= 1 && count.y >= 1 && count.x * count.y <= 100))
    return fail("that many stations are none", { path: "stations", expected: "1x1 to 100 in all" });
  const grip = gripOf(
    bases.reduce((a, b) => (b.height < a.height ? b : a)),
    wishes.grip,
    document.unit,
  );
  if (!grip.ok) return grip;
  const size = { x: Math.max(...bases.map((b) => b.long)), y: Math.max(...bases.map((b) => b.wide)) };
  const { between, plateMargin, floor, dropOver, tableScrew, dowel, bossRoom } = fixturePractice[document.unit];
  const pitch = {
    x: wishes.pitch?.x || up(size.x + between, 5),
    y: wishes.pitch?.y || up(size.y + between, 5),
  };
  const tight = (["x", "y"] as const).find((k) => count[k] > 1 && pitch[k] <= size[k]);
  if (tight)
    return fail(`a pitch of ${pitch[tight].toFixed(3)} mm is smaller than the nest, ${size[tight].toFixed(3)} mm`, {
      path: "pitch",
      expected: "a pitch over the size of the piece",
    });
  const stations = stationsOf(count, pitch, bases);
  const name = freeName(document, wishes.name ?? "fixture plate");
  const long = up((count.x - 1) * pitch.x + size.x + 2 * plateMargin + 2 * tableScrew, 10);
  const wide = up((count.y - 1) * pitch.y + size.y + 2 * plateMargin, 10);
  const thick = up(grip.value + floor, 5);
  const own = w.quoted(work.part.name);
  const nests: string[] = [];
  const cuts: string[] = [];
  for (const base of bases) {
    const outline = `nest ${base.standing.setup.op}`;
    const nest = nestLines(w, outline, base, work, { ...wishes, grip: grip.value });
    if (!nest.ok) return nest;
    nests.push(...nest.value);
    cuts.push(`CUT "nest ${base.standing.setup.op}": POCKET ${w.quoted(outline)} DEEP ${w.n(grip.value)}`);
    const nestRow = cuts.length + 1;
    for (const boss of bases.length === 1 ? bossesOf(base, work, grip.value) : []) {
      const name = `boss ${base.standing.setup.op}-${boss.row}`;
      nests.push(
        `OUTLINE ${w.quoted(name)}`,
        `EDGES MOUTH OF ${own} ROW ${boss.row}`,
        `OFFSET ${w.n(-bossRoom)}`,
        "END",
      );
      cuts.push(`LEAVE ${w.quoted(name)}: TEXT ${w.quoted(name)} X ${w.n(boss.height)} ON FLOOR OF ${nestRow}`);
    }
  }
  const through = largestThrough(bases[0], work);
  if (through !== null) {
    nests.push(`OUTLINE "under"`, `FACE ${bases[0].up.toUpperCase()} OF ${own}`, "END");
    cuts.push(`CUT "drop holes": ⌀${w.n(2 * through + dropOver)} THRU PLACES "under" CIRCLES`);
  }
  const edge = { x: long / 2 - tableScrew, y: wide / 2 - tableScrew };
  const lines = [
    `PART ${w.quoted(name)} PLATE`,
    ...nests,
    `LEAVE "plate": BLOCK ${w.n(long)} X ${w.n(wide)} X ${w.n(thick)}`,
    ...cuts,
    `CUT "mounting holes": 4X ⌀${w.n(tableScrew)} THRU GRID 2 2 BY ${w.n(2 * edge.x)} ${w.n(2 * edge.y)}`,
    `CUT "dowels": 2X ⌀${w.n(dowel)} THRU LINE 2 BY ${w.n(2 * edge.x)} AT ${w.n(-edge.x)},0`,
    ...stations.map(
      (s) =>
        `PLACE ${own} IN ${w.quoted(name)} AT ${w.n(s.x)},${w.n(s.y)},${w.n(thick - grip.value)} UP ${s.base.up.toUpperCase()} MIDDLE AFTER SETUP ${s.base.after}`,
    ),
  ];
  const hold: Setup["hold"] = { fixture: "plate", part: name };
  const setups = document.setups.map((s) => (ops.includes(s.op) ? { ...s, hold } : s));
  return ok({ name, lines, setups });
}

/**
 * Bosses that come up into pockets of a piece's underside and locate it: of every pocket open there that is wide enough,
 * some way below its floor.
 */
function bossesOf(base: Base, work: Work, grip: number): { row: number; height: number }[] {
  const { bossLeast, bossUnder } = fixturePractice[work.part.job.unit];
  return work.rows.flatMap((row) => {
    const step = row.placed?.step;
    const isThere = base.after > 0 && row.state === "ok" && !row.placed!.thru && row.feature?.is === "pocket";
    if (!isThere || step?.op !== "cut" || step.body.body !== "prism" || step.places.length > 1) return [];
    if (dot(step.frame.normal, base.standing.frame.normal) > -PARALLEL) return [];
    const area = Math.abs(loopArea(step.body.outline.outer));
    const height = Math.min(grip, step.body.to - bossUnder);
    return area >= bossLeast && height > 1 ? [{ row: row.number, height }] : [];
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
