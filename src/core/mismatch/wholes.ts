import type { Prepared, PreparedRow } from "../engine/prepare";
import { COINCIDENT } from "../geometry/tolerance";
import { oppositeSide, sides, type Side } from "../geometry/vec";
import { rowNames } from "../job/names";
import type { Job } from "../job/schema";
import { toNumberText } from "../number";
import { changedRow, kindOf, writeRowBody, type RowBody } from "../rows";
import { findMaterial, materials } from "../tables";
import { freshRowId } from "./ids";
import { instanceSlips } from "./instances";
import type { Slip } from "./slip";

/** Depths of the print tried for one hole that goes through. */
const MOST_DEPTHS = 12;

/** Slips that are not one number read wrongly: a count, a whole row, through for a depth, the material. */
export function wholeSlips(job: Job, prepared: Prepared): Slip[] {
  const names = rowNames(job.rows);
  const text = (r: PreparedRow) => writeRowBody(r.row.body, names);
  return prepared.rows.flatMap((r) => {
    if (r.row.off) return [offSlip(r, text(r))];
    return [
      ...instanceSlips(r),
      ...doubled(job, prepared, r, text),
      ...otherSide(job, r),
      ...edgesLeftOut(r, text(r)),
      ...otherWidth(r),
      ...radiusTooMany(r),
      ...depthSlips(job, prepared, r),
    ];
  });
}

/** A slip of a row as a whole; nothing where the row it would become is none. */
function rowSlip(
  r: PreparedRow,
  slip: Pick<Slip, "kind" | "field" | "from" | "to" | "cost">,
  body: RowBody | null,
): Slip[] {
  return body ? [{ ...slip, row: r.number, edits: [{ edit: "setRow", id: r.row.id, body }] }] : [];
}

/** A row switched off by mistake. */
const offSlip = (r: PreparedRow, mine: string): Slip => ({
  kind: "missing-row",
  row: r.number,
  field: "row",
  from: "off",
  to: mine,
  edits: [{ edit: "switchRow", id: r.row.id, off: false }],
  cost: 0.9,
});

/** A row typed twice, or one that is not on the print. */
function doubled(job: Job, prepared: Prepared, r: PreparedRow, text: (r: PreparedRow) => string): Slip[] {
  const mine = text(r);
  const twin = prepared.rows.find((o) => o !== r && !o.row.off && text(o) === mine);
  const needed = JSON.stringify(job.rows.map((o) => (o.id === r.row.id ? null : o.body))).includes(`"${r.row.id}"`);
  if (needed || (r.number === 1 && !twin)) return [];
  return [
    {
      kind: "doubled-row",
      row: r.number,
      field: "row",
      from: mine,
      to: "off",
      edits: [{ edit: "switchRow", id: r.row.id, off: true }],
      cost: twin ? 0.9 : 2.2,
    },
  ];
}

const sideOpposite = (on: string): Side | undefined =>
  sides.some((s) => s === on) ? oppositeSide[on as Side] : undefined;

/** A row that belongs on the other side too. */
function otherSide(job: Job, r: PreparedRow): Slip[] {
  const { body } = r.row;
  const also = (changed: RowBody | null, to: string): Slip[] =>
    changed
      ? [
          {
            kind: "missing-row",
            row: r.number,
            field: "row",
            from: "one side",
            to,
            edits: [{ edit: "addRows", rows: [{ id: freshRowId(job), body: changed }], at: r.number }],
            cost: 2,
          },
        ]
      : [];
  const on = "plane" in body && body.plane ? sideOpposite(body.plane.on) : undefined;
  const goesThrough = "depth" in body && body.depth === "thru";
  const facing =
    on && r.feature?.is !== "body" && !goesThrough && "plane" in body
      ? also(changedRow(body, { plane: { ...body.plane, on } }), `the same ${on === "top" ? "on top" : `on the ${on}`}`)
      : [];
  const side = "side" in body && body.side && kindOf(body).traits?.sided ? sideOpposite(body.side) : undefined;
  return side ? [...facing, ...also(changedRow(body, { side }), `the same on the ${side}`)] : facing;
}

const outerEdges = [
  { edge: "outerTop", words: "OUTER TOP" },
  { edge: "outerBottom", words: "OUTER BOTTOM" },
  { edge: "vertical", words: "VERTICAL" },
] as const;

/** Edges a chamfer or round leaves out. */
function edgesLeftOut(r: PreparedRow, mine: string): Slip[] {
  const { body } = r.row;
  if (!("edges" in body)) return [];
  return outerEdges
    .filter(({ edge }) => !body.edges.some((e) => e.edge === edge))
    .flatMap(({ edge, words }) =>
      rowSlip(
        r,
        { kind: "missing-row", field: "edges", from: mine, to: `also ${words}`, cost: 1.7 },
        changedRow(body, { edges: [...body.edges, { edge }] }),
      ),
    );
}

/** A polygon measured across corners where flats are meant, or the other way round. */
function otherWidth(r: PreparedRow): Slip[] {
  const { body } = r.row;
  const shape = "shape" in body && body.shape && "across" in body.shape ? body.shape : undefined;
  const across = shape?.across ?? ("across" in body ? body.across : undefined);
  if (!across) return [];
  const other = across === "AF" ? "AC" : "AF";
  return rowSlip(
    r,
    { kind: "flats-for-corners", field: shape ? "shape.across" : "across", from: across, to: other, cost: 1 },
    changedRow(body, shape ? { shape: { ...shape, across: other } } : { across: other }),
  );
}

/** A corner radius that is not on the print. */
function radiusTooMany(r: PreparedRow): Slip[] {
  const { body } = r.row;
  if (!("radius" in body) || body.radius === undefined) return [];
  return [
    {
      kind: "wrong-corner-radius",
      row: r.number,
      field: "radius",
      from: body.radius,
      to: "none",
      edits: [{ edit: "setNumber", id: r.row.id, path: "radius", text: undefined }],
      cost: 1.8,
    },
  ];
}

/** A depth where the print says through, and the other way round with every depth the print has. */
function depthSlips(job: Job, prepared: Prepared, r: PreparedRow): Slip[] {
  const { body } = r.row;
  if (!("depth" in body)) return [];
  if (body.depth === "deep")
    return rowSlip(
      r,
      { kind: "through-for-depth", field: "depth", from: `DEEP ${body.deep}`, to: "THRU", cost: 1.4 },
      changedRow(body, { depth: "thru", deep: undefined }),
    );
  // A drilled hole ends in a point; one that is milled or bored ends flat.
  const ends = kindOf(body).traits?.ends ? [{}, { end: "flat" }] : [{}];
  return [...depthsToTry(job, prepared)].slice(0, MOST_DEPTHS).flatMap(([text, cost]) =>
    ends.flatMap((end) => {
      const flat = "end" in end;
      return rowSlip(
        r,
        {
          kind: "depth-for-through",
          field: "depth",
          from: "THRU",
          to: `DEEP ${text}${flat ? " FLAT" : ""}`,
          cost: cost + (flat ? 0.1 : 0),
        },
        changedRow(body, { ...end, depth: "deep", deep: toNumberText(text) }),
      );
    }),
  );
}

/** Depths of the print and of the other rows, with how unlikely each is. */
function depthsToTry(job: Job, prepared: Prepared): Map<string, number> {
  const depths = new Map<string, number>();
  for (const b of job.balloons)
    if ((b.kind === "depth" || b.kind === "linear") && !b.reference && b.value !== undefined)
      depths.set(`#${b.number}`, b.kind === "depth" ? 1.4 : 2.2);
  for (const o of prepared.rows)
    for (const n of o.numbers) if (n.means === "depth" && n.value && !n.value.cites.length) depths.set(n.text, 1.9);
  return depths;
}

/** Every other material of the table, and the mass read in another unit: neither changes the solid. */
export function massSlips(job: Job, density: number | null): (Slip & { density?: number })[] {
  const from = job.material.density ?? (density === null ? "?" : String(density));
  return materials.rows
    .filter((m) => density === null || Math.abs(m.density - density) > COINCIDENT)
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
