import type { NumberReport } from "../engine/numbers";
import type { PreparedRow } from "../engine/prepare";
import type { JobEdit } from "../job/edits";
import { negated, toNumberText, type NumberText } from "../number";
import { changedRow, type Pattern, type RowBody } from "../rows";
import type { Slip } from "./slip";

/** Mirrored places tried of one row. */
const MOST_MIRRORED = 3;

/** One place more or fewer in a repeat: a bolt circle, a line, a grid's rows and columns, listed points. */
export function instanceSlips(r: PreparedRow): Slip[] {
  if (r.row.off) return [];
  const pattern = patternOf(r.row.body);
  if (!pattern) return [];
  return [1, -1].flatMap((by) => counted(r, pattern, by)).concat(pointLess(r, pattern), pointMirrored(r, pattern));
}

const patternOf = (body: RowBody): Pattern | undefined => ("pattern" in body ? body.pattern : undefined);
const ownCount = (r: PreparedRow): NumberReport | undefined => r.numbers.find((n) => n.means === "copies" && n.value);

const slip = (r: PreparedRow, field: string, from: number, to: number, edits: JobEdit[], cost = 1): Slip => ({
  kind: to > from ? "one-instance-missing" : "one-instance-too-many",
  row: r.number,
  field,
  from: String(from),
  to: String(to),
  edits,
  cost,
});

/** One more or fewer where a number says how many. */
function counted(r: PreparedRow, pattern: Pattern, by: number): Slip[] {
  const set = (path: string, n: number): JobEdit => ({
    edit: "setNumber",
    id: r.row.id,
    path,
    text: toNumberText(String(n)),
  });
  const own = ownCount(r);
  if (pattern.kind === "boltCircle" && own) {
    const n = own.value!.typed;
    return n + by >= 1 ? [slip(r, own.path, n, n + by, [set(own.path, n + by)])] : [];
  }
  const steps = r.numbers.filter((n) => n.means === "repeat" && n.value);
  return steps.flatMap((c) => {
    const n = c.value!.typed;
    if (n + by < 1) return [];
    // What nX says has to follow the grid.
    const total = steps.reduce((t, s) => t * (s === c ? n + by : s.value!.typed), 1);
    return [slip(r, c.path, n, n + by, [set(c.path, n + by), ...(own ? [set(own.path, total)] : [])])];
  });
}

/** The row with other points, its own count following them. */
function withPoints(r: PreparedRow, points: { x: NumberText; y: NumberText }[]): JobEdit[] {
  const own = ownCount(r);
  const body = changedRow(r.row.body, {
    pattern: { kind: "points", points },
    ...(own ? { [own.path]: toNumberText(String(points.length)) } : {}),
  });
  return body ? [{ edit: "setRow", id: r.row.id, body }] : [];
}

/** The first or the last of listed points is one too many. */
function pointLess(r: PreparedRow, pattern: Pattern): Slip[] {
  if (pattern.kind !== "points" || pattern.points.length < 2) return [];
  const { points } = pattern;
  return [0, points.length - 1].map((i) =>
    slip(r, `pattern.points.${i}`, points.length, points.length - 1, withPoints(r, points.toSpliced(i, 1))),
  );
}

/**
 * A place is missing among listed points. Which cannot be guessed; the places there are, mirrored about an axis, can
 * be tried.
 */
function pointMirrored(r: PreparedRow, pattern: Pattern): Slip[] {
  if (pattern.kind !== "points") return [];
  const { points } = pattern;
  const mirrors = [
    { x: turned, y: same },
    { x: same, y: turned },
    { x: turned, y: turned },
  ];
  const places = mirrors.flatMap((m) => points.map((p, i) => ({ i, p: { x: m.x(p.x), y: m.y(p.y) } })));
  return places
    .filter(({ p }) => !points.some((q) => q.x === p.x && q.y === p.y))
    .slice(0, MOST_MIRRORED)
    .map(({ i, p }) =>
      slip(r, `pattern.points.${i}`, points.length, points.length + 1, withPoints(r, [...points, p]), 1.2),
    );
}

const same = (t: NumberText): NumberText => t;
const turned = (t: NumberText): NumberText => toNumberText(negated(t));
