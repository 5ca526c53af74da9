import { partInStock } from "../stockRules";
import { drawnEdge } from "../../engine/edgeDrawn";
import { isSharp, isTreated } from "../../engine/edgesByMeaning";
import { sides, type Side } from "../../geometry/vec";
import { inCallout, showVolume } from "../../number";
import { grownStock } from "../../stock/stock";
import { readRowLine } from "../../callout";
import { rowNames } from "../../job/names";
import { formOf } from "../../job/stockForms";
import { say, type Rule, type RuleContext } from "../rule";
import type { Fix } from "../finding";
import { CONTACT } from "../../geometry/tolerance";

export const outsideStock: Rule = {
  id: partInStock,
  find(c) {
    if (!c.stock || !c.allowance || !c.job.stock) return [];
    if (c.stock.solid) return outsideSolid(c, c.outsideStock);
    const round = c.radialAllowance !== null;
    const looked: Side[] = round ? ["top", "bottom"] : sides;
    const least = looked.reduce((a, b) => (c.allowance![b] < c.allowance![a] ? b : a));
    const radial = round ? c.radialAllowance! : Infinity;
    const out = Math.min(c.allowance[least], radial);
    const bars = c.faces.every((f) => f.surface !== "plane" || Math.abs(f.normal.z) > 0.999);
    const larger = grownStock(c.job.stock, c.stock, c.partBox, c.job.unit, c.scope, bars);
    const fix: Fix | undefined = larger
      ? { label: "next size", edits: [{ edit: "setStock", stock: larger }] }
      : undefined;
    if (out < -CONTACT) {
      const where = radial < c.allowance[least] ? "round the bar" : `on the ${least}`;
      const row = sticksOut(c);
      return [
        {
          row: row?.number ?? null,
          rowId: row?.row.id ?? null,
          severity: "stop",
          value: out,
          limit: 0,
          fix,
          place: corner(c, radial < c.allowance[least] ? "right" : least),
          text: `the part sticks out of the stock by ${say(c, -out)} ${where}`,
          source: "geometry: the part lies inside its stock",
        },
      ];
    }
    const limit = c.limits.sawnAllowance;
    const thin = formOf(c.stock).sawn.filter((s) => c.allowance![s] < limit.value - CONTACT);
    if (!thin.length) return [];
    const tight = thin.reduce((a, b) => (c.allowance![b] < c.allowance![a] ? b : a));
    return [
      {
        row: null,
        rowId: null,
        severity: "caution",
        value: c.allowance[tight],
        limit: limit.value,
        fix,
        place: corner(c, tight),
        text: `only ${say(c, c.allowance[tight])} to clean up on the ${tight}; a sawn face wants ${say(c, limit.value)}`,
        source: limit.source,
      },
    ];
  },
};

/** Less than this is what two solids of the same sizes differ by, mm³. */
const NOTHING = 1e-3;

/** A casting has no sizes to compare: what of the part is no part of it. */
function outsideSolid(c: RuleContext, outside: number | null): ReturnType<Rule["find"]> {
  if (outside === null)
    return [
      {
        row: null,
        rowId: null,
        severity: "caution",
        value: 0,
        limit: 0,
        place: null,
        text: "whether the part lies in its stock could not be worked out: lay one over the other and look",
        source: "the solid kernel could not take the stock off the part",
      },
    ];
  if (outside < NOTHING) return [];
  const row = sticksOut(c);
  return [
    {
      row: row?.number ?? null,
      rowId: row?.row.id ?? null,
      severity: "stop",
      value: outside,
      limit: 0,
      place: null,
      text: `${showVolume(outside, c.job.unit)} of the part stand out of the stock`,
      source: "geometry: the part lies inside its stock",
    },
  ];
}

/** Stock that stands over the part, and no facing row takes it: what is cut from above would begin under it. */
export const stockOverCut: Rule = {
  id: "stock-over-cut",
  find(c) {
    if (!c.stock || !c.allowance) return [];
    const cutsFromAbove = c.rows.some(
      (r) => r.state === "ok" && r.recipe?.op === "cut" && (r.planes?.start?.normal.z ?? 0) > 0.999,
    );
    // A facing row takes all the stock that stands over it, wherever it stands on the card.
    const faced = c.rows.some(
      (r) =>
        r.state === "ok" &&
        r.recipe?.op === "face" &&
        (r.planes?.start?.normal.z ?? 0) > 0.999 &&
        r.planes!.floor!.origin.z <= c.partBox.max.z + CONTACT,
    );
    const over = c.allowance.top;
    if (!cutsFromAbove || faced || over < CONTACT) return [];
    const first = c.rows.findIndex((r) => r.recipe?.op === "leave");
    const line = readRowLine("CUT FACE", rowNames(c.job.rows), freshFaceId(c.job.rows));
    return [
      {
        row: null,
        rowId: null,
        severity: "stop",
        value: over,
        limit: 0,
        place: corner(c, "top"),
        text: `${say(c, over)} of stock stand over the part and no row faces them off: no machine words are written while what is cut lies under stock`,
        source: "geometry: stock and part",
        ...(line.ok
          ? { fix: { label: "CUT FACE", edits: [{ edit: "addRows" as const, rows: [line.row], at: first + 1 }] } }
          : {}),
      },
    ];
  },
};

function freshFaceId(rows: { id: string }[]): string {
  for (let i = 1; ; i++) if (!rows.some((r) => r.id === `face-${i}`)) return `face-${i}`;
}

/** The first leave row whose material reaches out of the stock. */
function sticksOut(c: RuleContext) {
  const b = c.stock!.box;
  return (
    c.rows.find((r) => {
      if (r.state !== "ok" || r.recipe?.op !== "leave") return false;
      const box = c.kernel.measure(r.key!).box;
      return (["x", "y", "z"] as const).some((k) => box.min[k] < b.min[k] - CONTACT || box.max[k] > b.max[k] + CONTACT);
    }) ?? c.rows.find((r) => r.state === "ok" && r.recipe?.op === "leave")
  );
}

function corner(c: RuleContext, side: Side) {
  const { min, max } = c.partBox;
  const p = { x: (min.x + max.x) / 2, y: (min.y + max.y) / 2, z: (min.z + max.z) / 2 };
  if (side === "left") p.x = min.x;
  if (side === "right") p.x = max.x;
  if (side === "front") p.y = min.y;
  if (side === "back") p.y = max.y;
  if (side === "bottom") p.z = min.z;
  if (side === "top") p.z = max.z;
  return p;
}

export const edgeBreak: Rule = {
  id: "edge-break",
  find(c) {
    const asked = c.job.title.edgeBreak;
    // The print is the workpiece's.
    if (asked === undefined || c.job.part) return [];
    // A chamfer, a round or a countersink is a broken edge itself; a taper that was turned is none.
    const features = new Map(c.rows.map((r) => [r.row.id, r.feature?.is]));
    const treated = (i: number) => {
      const { tag } = c.faces[i];
      return isTreated(c.faces[i]) || (tag?.role === "cone" && features.get(tag.row) !== "turned");
    };
    // An engraved line is its own sharp edge.
    const engraved = (f: number) => features.get(c.faces[f].tag?.row ?? "") === "engraving";
    const sharp = c.edges.filter(
      (e) => isSharp(e) && e.length > CONTACT && !e.faces.some(treated) && !e.faces.some(engraved),
    );
    if (!sharp.length) return [];
    const line = readRowLine(
      `CUT BREAK ${inCallout(asked)} ALL SHARP`,
      rowNames(c.job.rows),
      `break-${c.job.rows.length + 1}`,
    );
    return [
      {
        row: null,
        rowId: null,
        severity: "caution",
        value: sharp.length,
        limit: 0,
        place: sharp[0].middle,
        lines: sharp.flatMap(drawnEdge),
        text: `the print asks for broken edges (${asked}); ${sharp.length} sharp outside edge${sharp.length > 1 ? "s" : ""} remain, those of chamfers and rounds not among them`,
        source: "the print's edge note",
        ...(line.ok
          ? { fix: { label: `break ${asked} all sharp`, edits: [{ edit: "addRows" as const, rows: [line.row] }] } }
          : {}),
      },
    ];
  },
};
