import DxfParser, { type IDxf, type IEntity } from "dxf-parser";
import { checkDxf } from "./dxfText";
import { COINCIDENT } from "@/core/geometry/tolerance";

export interface Point {
  x: number;
  y: number;
}

/** A plane map: x' = a x + c y + e, y' = b x + d y + f. */
export interface Affine {
  a: number;
  b: number;
  c: number;
  d: number;
  e: number;
  f: number;
}
const still: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** `after` done behind `first`. */
const then = (first: Affine, after: Affine): Affine => ({
  a: after.a * first.a + after.c * first.b,
  b: after.b * first.a + after.d * first.b,
  c: after.a * first.c + after.c * first.d,
  d: after.b * first.c + after.d * first.d,
  e: after.a * first.e + after.c * first.f + after.e,
  f: after.b * first.e + after.d * first.f + after.f,
});

export const mapped = (m: Affine, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y + m.e,
  y: m.b * p.x + m.d * p.y + m.f,
});

/**
 * How much a map enlarges when it keeps circles round, negative when it turns them over; null when it does not keep
 * them.
 */
export function evenScale(m: Affine): number | null {
  const x = Math.hypot(m.a, m.b);
  const y = Math.hypot(m.c, m.d);
  const square = m.a * m.c + m.b * m.d;
  const small = COINCIDENT * Math.max(x, y);
  if (Math.abs(x - y) > small || Math.abs(square) > small * Math.max(x, y)) return null;
  return m.a * m.d - m.b * m.c < 0 ? -x : x;
}

/** An entity where it stands in the drawing, on the layer it shows on. */
export interface PlacedEntity {
  entity: IEntity;
  layer: string;
  at: Affine;
}

/** What a DXF draws: the entities of its model and of the blocks put into it. */
interface DxfDrawn {
  entities: PlacedEntity[];
  unitCode: number;
  problems: string[];
}

/** The most entities that are read of one drawing, blocks put in many times counted as often. */
const MOST_ENTITIES = 100_000;
/** How deep blocks may stand in blocks. */
const DEEPEST = 20;

/**
 * Reads a DXF's entities, with the blocks put in where they stand, turned, scaled, mirrored and in rows. Nothing
 * throws; what cannot be read is said.
 */
export function readEntities(text: string): DxfDrawn {
  const checked = checkDxf(text);
  const problems = [...checked.problems];
  const nothing = { entities: [], unitCode: checked.unitCode, problems };
  if (!checked.text) return nothing;
  try {
    const dxf = new DxfParser().parseSync(checked.text);
    if (dxf) return { ...nothing, entities: place(dxf, problems) };
    problems.push("the file is no DXF that can be read");
  } catch (e) {
    problems.push(`the file is no DXF that can be read: ${e instanceof Error ? e.message.slice(0, 120) : ""}`);
  }
  return nothing;
}

interface Inserted {
  name?: string;
  position?: Point;
  xScale?: number;
  yScale?: number;
  rotation?: number;
  columnCount?: number;
  rowCount?: number;
  columnSpacing?: number;
  rowSpacing?: number;
  extrusionDirection?: { z?: number };
}

function place(dxf: IDxf, problems: string[]): PlacedEntity[] {
  const entities = dxf.entities ?? [];
  const total = counter(dxf)(entities);
  if (total > MOST_ENTITIES) {
    problems.push(
      `the drawing comes to ${total < 1e15 ? total.toLocaleString("en") : "more than 10^15"} elements with its blocks; at most ${MOST_ENTITIES.toLocaleString("en")} are read: leave blocks out, or save what is needed as a drawing of its own`,
    );
    return [];
  }
  const out: PlacedEntity[] = [];
  const missing = new Set<string>();
  const walk = (list: IEntity[], at: Affine, layer: string | null, path: string[]) => {
    for (const entity of list) {
      // What a block holds on layer 0 shows on the layer of its insert.
      const on = layer !== null && (entity.layer ?? "0") === "0" ? layer : (entity.layer ?? "0");
      const name = blockOf(entity);
      const block = name === null ? undefined : dxf.blocks?.[name];
      if (name === null) out.push({ entity, layer: on, at: mirrored(entity) ? then(turnedOver, at) : at });
      else if (!block?.entities) missing.add(name);
      else if (path.length < DEEPEST && !path.includes(name))
        for (const m of placesOf(entity, block.position)) walk(block.entities, then(m, at), on, [...path, name]);
    }
  };
  walk(entities, still, null, []);
  for (const name of [...missing].slice(0, 10))
    problems.push(`block ${JSON.stringify(name.slice(0, 40))} is put in and is not there: left out`);
  return out;
}

/** The block an entity stands for: an insert, or a dimension that keeps its drawn form in a block. */
function blockOf(e: IEntity): string | null {
  if (e.type === "INSERT") return String((e as Inserted).name ?? "");
  const drawn = (e as { block?: unknown }).block;
  return e.type === "DIMENSION" && typeof drawn === "string" && drawn ? drawn : null;
}

const turnedOver: Affine = { ...still, a: -1 };
/**
 * Whether an entity is seen from behind: its own direction is down, so its x runs the other way (DXF reference,
 * object coordinates; from memory).
 */
function mirrored(e: IEntity): boolean {
  const d = e as { extrusionDirection?: { z?: number }; extrusionDirectionZ?: number };
  return (d.extrusionDirectionZ ?? d.extrusionDirection?.z ?? 1) < 0 && e.type !== "LINE" && e.type !== "POINT";
}

/** The copies of an insert, each as a map of the block's own coordinates. A count that cannot be is one. */
function placesOf(e: IEntity, base: Point | undefined): Affine[] {
  if (e.type !== "INSERT") return [still];
  const i = e as Inserted;
  const [columns, rows] = countsOf(i);
  const turn = ((Number(i.rotation ?? 0) % 360) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [sx, sy] = [Number(i.xScale ?? 1), Number(i.yScale ?? 1)];
  const toBase: Affine = { ...still, e: -(base?.x ?? 0), f: -(base?.y ?? 0) };
  const scaled: Affine = { ...still, a: sx, d: sy };
  const out: Affine[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const shift: Affine = { ...still, e: column * Number(i.columnSpacing ?? 0), f: row * Number(i.rowSpacing ?? 0) };
      const turned: Affine = { a: cos, b: sin, c: -sin, d: cos, e: i.position?.x ?? 0, f: i.position?.y ?? 0 };
      const m = then(then(then(toBase, scaled), shift), turned);
      out.push((i.extrusionDirection?.z ?? 1) < 0 ? then(m, turnedOver) : m);
    }
  }
  return out;
}
const countsOf = (i: Inserted): [number, number] => [count(i.columnCount), count(i.rowCount)];
const count = (n: number | undefined): number => (Number.isFinite(n) && n! >= 1 ? Math.floor(n!) : 1);

/**
 * Counts what a list of entities comes to with its blocks, each block worked out once; an insert counts itself, so
 * that empty blocks put in without end count too.
 */
function counter(dxf: IDxf): (list: IEntity[]) => number {
  const known = new Map<string, number>();
  const ofBlock = (name: string, depth: number): number => {
    const was = known.get(name);
    if (was !== undefined) return was;
    // A block within itself is read once and not again.
    known.set(name, 0);
    const n = ofList(dxf.blocks?.[name]?.entities ?? [], depth + 1);
    known.set(name, n);
    return n;
  };
  const ofList = (list: IEntity[], depth: number): number => {
    let n = 0;
    for (const e of list) {
      const name = blockOf(e);
      if (name === null) n += 1;
      else {
        const [columns, rows] = countsOf(e as Inserted);
        n += (depth < DEEPEST ? 1 + ofBlock(name, depth) : 1) * (e.type === "INSERT" ? columns * rows : 1);
      }
    }
    return n;
  };
  return (list) => ofList(list, 0);
}
