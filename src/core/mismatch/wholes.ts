import { freshRowId } from "./ids";
import type { Prepared, PreparedRow } from "../engine/prepare";
import type { JobEdit } from "../job/edits";
import { rowNames } from "../job/names";
import type { Job } from "../job/schema";
import { toNumberText } from "../number";
import { kindOf, writeRowBody } from "../rows";
import { findMaterial, materials } from "../tables";
import type { Slip } from "./slip";

/** Slips that are not one number read wrongly: a count, a whole row, through for a depth, the material. */
export function wholeSlips(job: Job, prepared: Prepared): Slip[] {
  const names = rowNames(job.rows);
  const text = (r: PreparedRow) => writeRowBody(r.row.body, names);
  return prepared.rows.flatMap((r) => [
    ...instances(r),
    ...rowSlips(job, prepared, r, text),
    ...(r.row.off ? [] : depthSlips(job, prepared, r)),
  ]);
}

/** One place more or fewer in a repeat: a bolt circle, a line, a grid's rows and columns, listed points. */
function instances(r: PreparedRow): Slip[] {
  if (r.row.off) return [];
  const counts = r.numbers.filter(
    (n) => n.quantity === "count" && n.value && n.path !== "shape.sides" && n.path !== "sides",
  );
  const out: Slip[] = [];
  const pattern = (r.row.body as { pattern?: { kind: string; points?: unknown[] } }).pattern;
  const put = (
    kind: "one-instance-missing" | "one-instance-too-many",
    field: string,
    from: number,
    to: number,
    edits: JobEdit[],
  ) => out.push({ kind, row: r.number, field, from: String(from), to: String(to), edits, cost: 1 });
  const set = (path: string, n: number): JobEdit => ({
    edit: "setNumber",
    id: r.row.id,
    path,
    text: toNumberText(String(n)),
  });
  const own = counts.find((c) => c.path === "count");
  for (const by of [1, -1]) {
    const kind = by > 0 ? ("one-instance-missing" as const) : ("one-instance-too-many" as const);
    if (pattern?.kind === "boltCircle" && own) {
      const n = own.value!.typed;
      if (n + by >= 1) put(kind, "count", n, n + by, [set("count", n + by)]);
    }
    const steps = counts.filter((c) => c.path.startsWith("pattern."));
    for (const c of steps) {
      const n = c.value!.typed;
      if (n + by < 1) continue;
      // What nX says has to follow the grid.
      const total = steps.reduce((t, s) => t * (s === c ? n + by : s.value!.typed), 1);
      put(kind, c.path, n, n + by, [set(c.path, n + by), ...(own ? [set("count", total)] : [])]);
    }
    if (pattern?.kind === "points" && by < 0 && pattern.points!.length > 1)
      [0, pattern.points!.length - 1].forEach((i) => {
        const body = structuredClone(r.row.body) as { count?: unknown; pattern: { points: unknown[] } };
        body.pattern.points.splice(i, 1);
        if (own) body.count = toNumberText(String(pattern.points!.length - 1));
        put(kind, `pattern.points.${i}`, pattern.points!.length, pattern.points!.length - 1, [
          { edit: "setRow", id: r.row.id, body: body as never },
        ]);
      });
  }
  // The places of listed points cannot be guessed; the row taken once more at a place mirrored about an axis can be
  // tried.
  if (pattern?.kind === "points")
    for (const [fx, fy] of [
      [-1, 1],
      [1, -1],
      [-1, -1],
    ])
      (pattern.points as { x: string; y: string }[]).forEach((p, i) => {
        const mirrored = { x: fx < 0 ? negated(p.x) : p.x, y: fy < 0 ? negated(p.y) : p.y };
        if ((pattern.points as { x: string; y: string }[]).some((q) => q.x === mirrored.x && q.y === mirrored.y))
          return;
        const body = structuredClone(r.row.body) as { count?: unknown; pattern: { points: unknown[] } };
        body.pattern.points.push(mirrored);
        if (own) body.count = toNumberText(String(pattern.points!.length + 1));
        if (out.filter((s) => s.kind === "one-instance-missing").length < 3)
          out.push({
            kind: "one-instance-missing",
            row: r.number,
            field: `pattern.points.${i}`,
            from: String(pattern.points!.length),
            to: String(pattern.points!.length + 1),
            edits: [{ edit: "setRow", id: r.row.id, body: body as never }],
            cost: 1.2,
          });
      });
  return out;
}
const negated = (t: string): string =>
  /^0?\.?0*$/.test(t)
    ? t
    : t.startsWith("-") && /^-[\d.#/]+$/.test(t)
      ? t.slice(1)
      : /^[\d.#/]+$/.test(t)
        ? `-${t}`
        : `-(${t})`;

const opposite: Record<string, string> = {
  top: "bottom",
  bottom: "top",
  front: "back",
  back: "front",
  left: "right",
  right: "left",
};

/** A row typed twice, one not on the print, one switched off by mistake, one that belongs on the other side too. */
function rowSlips(job: Job, prepared: Prepared, r: PreparedRow, text: (r: PreparedRow) => string): Slip[] {
  const mine = text(r);
  if (r.row.off)
    return [
      {
        kind: "missing-row",
        row: r.number,
        field: "row",
        from: "off",
        to: mine,
        edits: [{ edit: "switchRow", id: r.row.id, off: false }],
        cost: 0.9,
      },
    ];
  const out: Slip[] = [];
  const twin = prepared.rows.find((o) => o !== r && !o.row.off && text(o) === mine);
  const needed = JSON.stringify(job.rows.map((o) => (o.id === r.row.id ? null : o.body))).includes(`"${r.row.id}"`);
  if (!needed && (r.number > 1 || twin))
    out.push({
      kind: "doubled-row",
      row: r.number,
      field: "row",
      from: mine,
      to: "off",
      edits: [{ edit: "switchRow", id: r.row.id, off: true }],
      cost: twin ? 0.9 : 2.2,
    });
  const body = r.row.body as { kind: string; plane?: { on: string }; edges?: { edge: string }[]; side?: string };
  const also = (changed: object, to: string) =>
    out.push({
      kind: "missing-row",
      row: r.number,
      field: "row",
      from: "one side",
      to,
      edits: [{ edit: "addRows", rows: [{ id: freshRowId(job), body: changed as never }], at: r.number }],
      cost: 2,
    });
  if (
    body.plane &&
    opposite[body.plane.on] &&
    r.feature?.is !== "body" &&
    (body as { depth?: string }).depth !== "thru"
  )
    also(
      { ...body, plane: { ...body.plane, on: opposite[body.plane.on] } },
      `the same ${opposite[body.plane.on] === "top" ? "on top" : `on the ${opposite[body.plane.on]}`}`,
    );
  if (kindOf(r.row.body).traits?.sided && body.side)
    also({ ...body, side: opposite[body.side] }, `the same on the ${opposite[body.side]}`);
  if (body.edges)
    for (const edge of ["outerTop", "outerBottom", "vertical"])
      if (!body.edges.some((e) => e.edge === edge))
        out.push({
          kind: "missing-row",
          row: r.number,
          field: "edges",
          from: mine,
          to: `also ${edge === "outerTop" ? "OUTER TOP" : edge === "outerBottom" ? "OUTER BOTTOM" : "VERTICAL"}`,
          edits: [{ edit: "setRow", id: r.row.id, body: { ...body, edges: [...body.edges, { edge }] } as never }],
          cost: 1.7,
        });
  const shape = (body as { shape?: { across?: string } }).shape;
  const across = (body as { across?: string }).across ?? shape?.across;
  if (across) {
    const other = across === "AF" ? "AC" : "AF";
    out.push({
      kind: "flats-for-corners",
      row: r.number,
      field: shape ? "shape.across" : "across",
      from: across,
      to: other,
      edits: [
        {
          edit: "setRow",
          id: r.row.id,
          body: (shape ? { ...body, shape: { ...shape, across: other } } : { ...body, across: other }) as never,
        },
      ],
      cost: 1,
    });
  }
  if ("radius" in body)
    out.push({
      kind: "wrong-corner-radius",
      row: r.number,
      field: "radius",
      from: String((body as { radius: string }).radius),
      to: "none",
      edits: [{ edit: "setNumber", id: r.row.id, path: "radius", text: undefined }],
      cost: 1.8,
    });
  return out;
}

/** A depth where the print says through, and the other way round with every depth the print has. */
function depthSlips(job: Job, prepared: Prepared, r: PreparedRow): Slip[] {
  const body = r.row.body as { depth?: "thru" | "deep"; deep?: string };
  if (body.depth === undefined) return [];
  if (body.depth === "deep") {
    const { deep: _, ...rest } = body;
    return [
      {
        kind: "through-for-depth",
        row: r.number,
        field: "depth",
        from: `DEEP ${body.deep}`,
        to: "THRU",
        edits: [{ edit: "setRow", id: r.row.id, body: { ...rest, depth: "thru" } as never }],
        cost: 1.4,
      },
    ];
  }
  const depths = new Map<string, number>();
  for (const b of job.balloons)
    if ((b.kind === "depth" || b.kind === "linear") && !b.reference && b.value !== undefined)
      depths.set(`#${b.number}`, b.kind === "depth" ? 1.4 : 2.2);
  for (const o of prepared.rows)
    for (const n of o.numbers)
      if (/(^|\.)deep$/.test(n.path) && n.value && !n.value.cites.length) depths.set(n.text, 1.9);
  // A drilled hole ends in a point; one that is milled or bored ends flat.
  const ends = kindOf(r.row.body).traits?.ends ? [{}, { end: "flat" }] : [{}];
  return [...depths].slice(0, 12).flatMap(([text, cost]) =>
    ends.map((end): Slip => ({
      kind: "depth-for-through",
      row: r.number,
      field: "depth",
      from: "THRU",
      to: `DEEP ${text}${"end" in end ? " FLAT" : ""}`,
      edits: [
        { edit: "setRow", id: r.row.id, body: { ...body, ...end, depth: "deep", deep: toNumberText(text) } as never },
      ],
      cost: cost + ("end" in end ? 0.1 : 0),
    })),
  );
}

/** Every other material of the table, and the mass read in another unit: neither changes the solid. */
export function massSlips(job: Job, density: number | null): (Slip & { density?: number })[] {
  const from = job.material.density ?? (density === null ? "?" : String(density));
  return materials.rows
    .filter((m) => density === null || Math.abs(m.density - density) > 1e-9)
    .map((m) => ({
      kind: "wrong-density" as const,
      row: null,
      field: "density",
      from: `${from}`,
      to: String(m.density),
      density: m.density,
      edits: [
        {
          edit: "setHead" as const,
          head: {
            material:
              findMaterial(m.name) && job.material.density === undefined
                ? { name: m.name }
                : { ...job.material, density: toNumberText(String(m.density)) },
          },
        },
      ],
      cost: 1.6,
    }));
}
