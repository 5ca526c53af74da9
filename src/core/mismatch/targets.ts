import type { NumberReport } from "../engine/numbers";
import type { PreparedRow, Prepared } from "../engine/prepare";
import type { JobEdit } from "../job/edits";
import type { Balloon, Job } from "../job/schema";
import { balloonAlone, toNumberText, unitOf, type LengthUnit } from "../number";
import { valueOf } from "../engine/numbers";
import type { Meaning } from "../grammar/grammar";
import { balloonLimits, balloonQuantity } from "../balloons/tolerance";
import { readings, type Reading, type Role } from "./readings";
import type { Slip } from "./slip";
import { usedBalloons } from "./unused";
import { COINCIDENT } from "../geometry/tolerance";

/**
 * A number that could have been typed or read wrongly: the edits that set it to a value, and all other readings of
 * it.
 */
export interface Target {
  row: number | null;
  field: string;
  balloon?: number;
  text: string;
  /** Value in the job's unit, or degrees. */
  value: number;
  /** Whether it is a balloon's that the solid answers to. */
  proved?: boolean;
  /** How areas and volumes go with it. */
  form: "straight" | "square" | "bent";
  set(text: string): JobEdit[];
  readings: (Reading & { extra?: number })[];
}

/** How a number is misread, and how areas and volumes go with it, by what it is. */
const byMeaning: Record<Meaning, { role: Role; form: Target["form"] }> = {
  length: { role: "length", form: "straight" },
  depth: { role: "length", form: "straight" },
  coordinate: { role: "length", form: "straight" },
  diameter: { role: "diameter", form: "square" },
  radius: { role: "radius", form: "square" },
  across: { role: "length", form: "square" },
  leg: { role: "length", form: "square" },
  countersink: { role: "diameter", form: "bent" },
  angle: { role: "angle", form: "bent" },
  copies: { role: "length", form: "straight" },
  repeat: { role: "length", form: "straight" },
  sides: { role: "length", form: "straight" },
  ratio: { role: "length", form: "bent" },
};

/** Bare text of a number: without the mark of its source. */
const bare = (text: string) => text.replace(/!$|\{[^{}]*\}$/, "").trim();
const tail = (text: string) => text.slice(bare(text).length);

/**
 * Every length and angle of the job that drives the part: literals where they stand in a row, printed values where
 * balloons drive,
 * named values, and those of the outlines and planes it is made from. Counts are another matter (`instances`).
 */
export function targets(job: Job, prepared: Prepared, proved: ReadonlySet<number> = new Set()): Target[] {
  const out: Target[] = [],
    drawn = new Set<string>();
  const cited = new Map<number, { row: PreparedRow; number: NumberReport }[]>();
  for (const r of prepared.rows) {
    if (r.row.off) continue;
    for (const n of r.numbers) {
      if (n.quantity === "count" || !n.value) continue;
      for (const c of n.value.cites) cited.set(c, [...(cited.get(c) ?? []), { row: r, number: n }]);
      out.push(doubtedLast(inRow(job, prepared, r, n), n.value.cites, proved));
    }
    for (const n of [...r.outlineNumbers, ...r.planeNumbers])
      for (const c of n.value?.cites ?? []) if (!cited.has(c)) cited.set(c, [{ row: r, number: n }]);
    out.push(...inOutline(job, r, drawn), ...inPlanes(job, r, drawn));
  }
  for (const b of job.balloons) {
    const first = cited.get(b.number)?.[0];
    if (first && b.value !== undefined && b.kind !== "count" && !b.reference)
      out.push(doubtedLast(onPrint(job, prepared, b, first), [b.number], proved));
  }
  for (const name of job.names) {
    const user = prepared.rows.find(
      (r) => !r.row.off && r.numbers.some((n) => n.value?.named.includes(name.name.toLowerCase())),
    );
    const v = valueOf(name.value, "plain", prepared.scope);
    if (!user || !v.ok || v.value.cites.length) continue;
    out.push({
      row: user.number,
      field: name.name,
      form: "bent",
      text: name.value,
      value: v.value.typed,
      readings: readings(bare(name.value), v.value.typed, "length", job.unit),
      set: (text) => [
        {
          edit: "setNames",
          names: job.names.map((n) => (n === name ? { ...n, value: toNumberText(text + tail(name.value)) } : n)),
        },
      ],
    });
  }
  return out.filter((t) => t.readings.length > 0);
}

/** How much more it takes that a number is wrong which the print gives and the solid answers to. */
const PROVED_COST = 2;
/** A number made of balloons that are all proved: typed as printed, it is doubted last. */
function doubtedLast(t: Target, cites: number[], proved: ReadonlySet<number>): Target {
  if (!cites.length || !cites.every((c) => proved.has(c))) return t;
  return { ...t, proved: true, readings: t.readings.map((r) => ({ ...r, cost: r.cost + PROVED_COST })) };
}

/** A number as it stands in its row. One made of balloons can only be halved, doubled, or made of another balloon. */
function inRow(job: Job, prepared: Prepared, r: PreparedRow, n: NumberReport): Target {
  const typed = n.value!.typed,
    { role, form } = byMeaning[n.means];
  const set = (text: string): JobEdit[] => [
    { edit: "setNumber", id: r.row.id, path: n.path, text: toNumberText(text) },
  ];
  const misread = n.value!.cites.length ? [] : readings(bare(n.text), typed, role, job.unit);
  const used = usedBalloons(prepared);
  const others = job.balloons.flatMap((b): (Reading & { extra?: number })[] => {
    if (
      b.reference ||
      b.value === undefined ||
      n.value!.cites.includes(b.number) ||
      (role === "angle") !== (b.kind === "angle") ||
      (role === "diameter" && b.kind !== "diameter" && b.kind !== "linear")
    )
      return [];
    const v = prepared.scope.balloon(b.number);
    if (!v.ok || Math.abs(v.value - typed) < COINCIDENT) return [];
    const unused = !used.has(b.number);
    // What is typed is one slip away from a balloon that nothing uses: that was meant.
    const isMisread = unused && misread.some((r) => Math.abs(r.value - v.value) < COINCIDENT);
    const cost = isMisread ? MEANT : unused ? 1.3 : 2.3;
    return [{ kind: "another-dimension", text: `#${b.number}`, value: v.value, cost }];
  });
  if (n.value!.cites.length || /[A-Za-z_]/.test(bare(n.text).replace(/mm|in|thou/g, ""))) {
    const text = bare(n.text);
    const half = /^(.*)\/2$/.exec(text),
      double = /^(.*)\*2$/.exec(text) ?? /^2\*(.*)$/.exec(text);
    const kind = role === "diameter" ? ("radius-for-diameter" as const) : ("half-for-whole" as const);
    const simple = balloonAlone(text) !== null;
    return {
      row: r.number,
      field: n.path,
      form,
      text: n.text,
      value: typed,
      set,
      readings: [
        { kind, value: typed * 2, text: half ? half[1] : simple ? `${text}*2` : `(${text})*2`, cost: half ? 1 : 1.6 },
        {
          kind,
          value: typed / 2,
          text: double ? double[1] : simple ? `${text}/2` : `(${text})/2`,
          cost: double ? 1 : 1.6,
        },
        ...(simple ? others.map((o) => ({ ...o, cost: o.cost + 0.3 })) : []),
      ],
    };
  }
  return {
    row: r.number,
    field: n.path,
    form,
    text: n.text,
    value: typed,
    set: (text) => set(text.startsWith("#") ? text : text + tail(n.text)),
    readings: [...misread, ...others],
  };
}
/** The likeliest slip of all: a digit of a printed number mistyped, and its balloon left over. */
const MEANT = 0.6;

/** Numbers typed in the outlines a row is made from, each outline once. */
function inOutline(job: Job, r: PreparedRow, seen: Set<string>): Target[] {
  return r.outlineNumbers.flatMap((n): Target[] => {
    const o = job.outlines.find((x) => x.id === n.outline);
    if (!o || !n.value || n.value.cites.length || n.means === "repeat" || seen.has(n.path) || !isTyped(n.text))
      return [];
    seen.add(n.path);
    const set = (text: string): JobEdit[] => {
      const outline = structuredClone(o);
      setAt(outline.items[n.item], n.at, toNumberText(text + tail(n.text)));
      return [{ edit: "setOutline", id: o.id, outline }];
    };
    return [
      {
        row: r.number,
        field: `outline "${o.name}" line ${n.item + 1} ${n.label}`,
        form: "bent",
        text: n.text,
        value: n.value.typed,
        set,
        readings: readings(bare(n.text), n.value.typed, byMeaning[n.means].role, job.unit),
      },
    ];
  });
}

/** Numbers typed in the planes a row stands on, each plane once. */
function inPlanes(job: Job, r: PreparedRow, seen: Set<string>): Target[] {
  return r.planeNumbers.flatMap((n): Target[] => {
    const plane = job.planes?.find((p) => n.path.startsWith(`${p.id}/`));
    if (!plane || !n.value || n.value.cites.length || seen.has(n.path) || !isTyped(n.text)) return [];
    seen.add(n.path);
    const path = n.path.slice(plane.id.length + 1);
    return [
      {
        row: r.number,
        field: `plane "${plane.name}" ${n.label}`,
        form: "bent",
        text: n.text,
        value: n.value.typed,
        set: (text) => {
          const changed = structuredClone(plane);
          setAt(changed.making, path.split("."), toNumberText(text + tail(n.text)));
          return [{ edit: "setPlane", id: plane.id, plane: changed }];
        },
        readings: readings(bare(n.text), n.value.typed, byMeaning[n.means].role, job.unit),
      },
    ];
  });
}

/** A number without names or balloons in it. */
const isTyped = (text: string): boolean => !/[A-Za-z_#]/.test(bare(text).replace(/mm|in|thou/g, ""));

/** Puts a value where a path leads in a line of an outline, or in a plane. */
function setAt(into: object, path: (string | number)[], value: unknown): void {
  let at = into as Record<string | number, unknown>;
  for (const k of path.slice(0, -1)) at = at[k] as Record<string | number, unknown>;
  at[path[path.length - 1]] = value;
}

/** What a number is called: of an outline by its line, of a row by its place. */
function fieldOf(job: Job, n: NumberReport & { outline?: string; item?: number }): string {
  const o = n.outline === undefined ? undefined : job.outlines.find((x) => x.id === n.outline);
  return o ? `outline "${o.name}" line ${n.item! + 1} ${n.label}` : n.path;
}

/**
 * A dimension of the print that drives rows: misread when it was taken into the ledger, or meant at the other end of
 * its tolerance.
 */
function onPrint(job: Job, prepared: Prepared, b: Balloon, first: { row: PreparedRow; number: NumberReport }): Target {
  const text = b.value!;
  const v = valueOf(text, balloonQuantity(b), prepared.scope);
  const base = {
    row: first.row.number,
    field: fieldOf(job, first.number),
    balloon: b.number,
    form: byMeaning[first.number.means].form,
    text,
    value: v.ok ? v.value.typed : NaN,
    set: (t: string): JobEdit[] => [
      { edit: "setBalloon", number: b.number, balloon: { ...b, value: toNumberText(t) } },
    ],
  };
  if (!v.ok || v.value.cites.length) return { ...base, readings: [] };
  const role: Role =
    b.kind === "angle" ? "angle" : b.kind === "radius" ? "radius" : b.kind === "diameter" ? "diameter" : "length";
  const limits = balloonLimits(b, job, prepared.scope);
  const out = (inside: number) => (b.kind === "angle" ? (inside * 180) / Math.PI : inside / unitOf[job.unit].mm);
  const ends = limits.ok
    ? [limits.value.low, limits.value.high].filter(Number.isFinite).map((e): Reading => ({
        kind: "other-end-of-tolerance",
        value: out(e),
        text: asPrinted(out(e), job.unit),
        cost: 1.8,
      }))
    : [];
  return {
    ...base,
    readings: [
      ...readings(bare(text), v.value.typed, role, job.unit),
      ...ends.filter((e) => Math.abs(e.value - v.value.typed) > COINCIDENT),
    ],
  };
}

export const slipOf = (t: Target, r: Reading): Slip => ({
  kind: r.kind,
  row: t.row,
  field: t.field,
  ...(t.balloon === undefined ? {} : { balloon: t.balloon }),
  from: bare(t.text),
  to: r.text,
  edits: t.set(r.text),
  cost: r.cost,
});

/** A figure as prints of that unit have it. */
function asPrinted(figure: number, unit: LengthUnit): string {
  const text = String(Number(figure.toFixed(6)));
  return unitOf[unit].leadingZero ? text : text.replace(/^0\./, ".");
}
