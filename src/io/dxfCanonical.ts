/**
 * Entities of a DXF written out again with only what is read of them, each code once and points whole: the reading
 * package waits for ever
 * for what it expects (a polyline without its end, ten thousand million vertices said and none there), so it is
 * given nothing else.
 * Meaning of the codes: DXF reference, from memory; ezdxf judges what is read (tests/judges).
 */

/** An entity's codes and values, in the order of the file. */
type Pairs = [code: number, value: string][];

interface Known {
  /** Codes of x; y and z stand 10 and 20 further. */
  points: number[];
  values: number[];
}
const known: Record<string, Known> = {
  LINE: { points: [10, 11], values: [] },
  CIRCLE: { points: [10], values: [40] },
  ARC: { points: [10], values: [40, 50, 51] },
  ELLIPSE: { points: [10, 11], values: [40, 41, 42] },
  TEXT: { points: [10], values: [1, 40, 50] },
  MTEXT: { points: [10], values: [1, 40, 50] },
  POINT: { points: [10], values: [] },
  INSERT: { points: [10], values: [2, 41, 42, 43, 44, 45, 50, 70, 71] },
  DIMENSION: { points: [], values: [2] },
  BLOCK: { points: [10], values: [2] },
  ENDBLK: { points: [], values: [] },
  POLYLINE: { points: [], values: [70] },
  VERTEX: { points: [10], values: [42, 70] },
  SEQEND: { points: [], values: [] },
};

/** Kinds whose form is written by hand below. */
const listed = new Set(["LWPOLYLINE", "SPLINE"]);
/** Whether an entity of this kind is read at all. */
export const isReadKind = (name: string): boolean => name in known || listed.has(name);

/** An entity's lines written out again. @param lines codes and values in turn, the entity's name first */
export function canonical(name: string, lines: string[]): string[] {
  const pairs = pairsOf(lines);
  const out = ["0", name, ...layerOf(pairs)];
  if (name === "LWPOLYLINE") return [...out, ...lightPolyline(pairs)];
  if (name === "SPLINE") return [...out, ...points(pairs, 10), ...points(pairs, 11)];
  const first = new Map<number, string>();
  for (const [c, v] of pairs) if (!first.has(c)) first.set(c, v);
  for (const c of known[name].values) if (first.has(c)) out.push(String(c), first.get(c)!);
  for (const c of known[name].points) out.push(...point(first, c));
  // Which way an entity is seen from; down is from behind.
  if (Number(first.get(230) ?? 1) < 0 && name !== "LINE") out.push(...seenFromBehind);
  return out;
}
const seenFromBehind = ["210", "0", "220", "0", "230", "-1"];

function pairsOf(lines: string[]): Pairs {
  const out: Pairs = [];
  for (let i = 2; i + 1 < lines.length; i += 2) out.push([Number(lines[i].trim()), lines[i + 1]]);
  return out;
}

const layerOf = (pairs: Pairs): string[] => ["8", pairs.find(([c]) => c === 8)?.[1] ?? "0"];

/** A point when it has both its x and its y; half a point is none, and its entity counts as incomplete. */
function point(first: Map<number, string>, code: number): string[] {
  const x = first.get(code);
  const y = first.get(code + 10);
  return x === undefined || y === undefined ? [] : [String(code), x, String(code + 10), y];
}

/** All points of one kind, in order: an x and the y behind it. */
function points(pairs: Pairs, code: number): string[] {
  const out: string[] = [];
  let x: string | null = null;
  for (const [c, v] of pairs) {
    if (c === code) x = v;
    else if (c === code + 10 && x !== null) {
      out.push(String(code), x, String(code + 10), v);
      x = null;
    }
  }
  return out;
}

/** Vertices with their bulges, counted here and not believed. */
function lightPolyline(pairs: Pairs): string[] {
  const vertices: { x: string; y: string | null; bulge: string | null }[] = [];
  for (const [c, v] of pairs) {
    const last = vertices[vertices.length - 1];
    if (c === 10) vertices.push({ x: v, y: null, bulge: null });
    else if (c === 20 && last) last.y = v;
    else if (c === 42 && last) last.bulge = v;
  }
  const whole = vertices.filter((q) => q.y !== null);
  const flags = pairs.find(([c]) => c === 70)?.[1] ?? "0";
  const behind = Number(pairs.find(([c]) => c === 230)?.[1] ?? 1) < 0 ? seenFromBehind : [];
  return [
    "90",
    String(whole.length),
    "70",
    flags,
    ...behind,
    ...whole.flatMap((q) => ["10", q.x, "20", q.y!, ...(q.bulge === null ? [] : ["42", q.bulge])]),
  ];
}

/** Parts in an order that can be read: vertices only behind their polyline, which has its end. */
export function closedPolylines<P extends { name: string }>(parts: P[], end: P): P[] {
  const out: P[] = [];
  let open = false;
  for (const p of parts) {
    const belongs = p.name === "VERTEX" || p.name === "SEQEND";
    if (belongs && !open) continue;
    if (open && !belongs) out.push(end);
    open = p.name === "POLYLINE" || p.name === "VERTEX";
    out.push(p);
  }
  return open ? [...out, end] : out;
}
