import { readRowLine } from "../callout";
import { writeBalloonText } from "../callout/balloonLine";
import { valueOf } from "../engine/numbers";
import type { Prepared } from "../engine/prepare";
import type { Box } from "../geometry/vec";
import type { Balloon, Job } from "../job/schema";
import { rowNames } from "../job/names";
import { lengthText, unitOf } from "../number";
import { balloonsOfThread } from "../balloons/threads";
import { freshRowId } from "./ids";
import type { Slip } from "./slip";

/**
 * Where holes of a row that was forgotten are tried: their places are not known, only that they lie inside; shares
 * of the smaller side.
 */
const CIRCLES = [0.75, 0.6, 0.85, 0.45];
const PLACES = [
  [0, 0],
  [0.3, 0.3],
  [-0.3, 0.3],
  [0.3, -0.3],
  [-0.3, -0.3],
];

/** Balloons that a row is made of, or its outlines and planes. */
export const usedBalloons = (prepared: Prepared): Set<number> =>
  new Set(
    prepared.rows
      .flatMap((r) => [...r.numbers, ...r.outlineNumbers, ...r.planeNumbers])
      .flatMap((n) => n.value?.cites ?? []),
  );

/**
 * Rows that a balloon of the print asks for and the model has not: an unused diameter or thread is the first suspect
 * when something is missing.
 * Its holes go through, where there is room for them.
 */
export function unusedSlips(job: Job, prepared: Prepared, box: Box): Slip[] {
  const used = usedBalloons(prepared);
  const threaded = new Set(
    prepared.rows.flatMap((r) => ("thread" in r.row.body ? balloonsOfThread(r.row.body.thread, job.balloons) : [])),
  );
  const smaller = Math.min(box.max.x - box.min.x, box.max.y - box.min.y);
  const [mx, my] = [(box.min.x + box.max.x) / 2, (box.min.y + box.max.y) / 2];
  const len = (mm: number) => lengthText(mm, job.unit);
  const recesses = recessSlips(job, used, { smaller, mx, my, high: box.max.z - box.min.z }, prepared);
  const holes = job.balloons.flatMap((b): Slip[] => {
    if (used.has(b.number) || b.reference || (b.kind !== "diameter" && b.kind !== "thread") || threaded.has(b))
      return [];
    const count = b.count === undefined ? 1 : valueOf(b.count, "count", prepared.scope);
    const n = typeof count === "number" ? count : count.ok ? count.value.value : 1;
    const hole = b.kind === "thread" ? b.thread! : `⌀#${b.number}`;
    const lines =
      n > 1
        ? CIRCLES.map((share) => `CUT ${n}X ${hole} THRU ON BC ${len(share * smaller)} AT ${len(mx)},${len(my)}`)
        : PLACES.map(([x, y]) => `CUT ${hole} THRU AT ${len(mx + x * smaller)},${len(my + y * smaller)}`);
    return lines.flatMap((line): Slip[] => {
      const read = readRowLine(line, rowNames(job.rows), freshRowId(job));
      return read.ok
        ? [
            {
              kind: "missing-row",
              row: null,
              field: `balloon ${b.number}`,
              balloon: b.number,
              from: "no row",
              to: `${writeBalloonText({ ...b, note: undefined, zone: undefined })} THRU`,
              edits: [{ edit: "addRows", rows: [read.row] }],
              cost: 1.1,
            },
          ]
        : [];
    });
  });
  return [...recesses.slice(0, MOST_RECESSES), ...holes];
}

interface Room {
  smaller: number;
  mx: number;
  my: number;
  high: number;
}

/** A diameter and a depth that nothing uses are a recess that was forgotten; where is not known. */
function recessSlips(job: Job, used: Set<number>, { smaller, mx, my, high }: Room, prepared: Prepared): Slip[] {
  const len = (mm: number) => lengthText(mm, job.unit);
  const free = job.balloons.filter((b) => !used.has(b.number) && !b.reference && b.value !== undefined);
  const sizeOf = (b: Balloon): number => {
    const v = prepared.scope.balloon(b.number);
    return v.ok ? v.value * unitOf[job.unit].mm : NaN;
  };
  const wide = free.filter((b) => b.kind === "diameter" && (b.count === undefined || b.count === "1"));
  const deep = free.filter((b) => b.kind === "linear" && sizeOf(b) < high);
  return wide.flatMap((d) =>
    deep.flatMap((b): Slip[] => {
      const spots = PLACES.map(([x, y]) => ` AT ${len(mx + x * smaller)},${len(my + y * smaller)}`);
      return [...spots, `${spots[0]} ON BOTTOM`].flatMap((at): Slip[] => {
        const line = `CUT ⌀#${d.number} DEEP #${b.number} FLAT${at}`;
        const read = readRowLine(line, rowNames(job.rows), freshRowId(job));
        if (!read.ok) return [];
        return [
          {
            kind: "missing-row",
            row: null,
            field: `balloons ${d.number} and ${b.number}`,
            balloon: d.number,
            from: "no row",
            to: `⌀#${d.number} DEEP #${b.number}`,
            edits: [{ edit: "addRows", rows: [read.row] }],
            cost: FORGOTTEN,
          },
        ];
      });
    }),
  );
}
/** Recesses that are tried: many balloons left over say little of any two of them. */
const MOST_RECESSES = 36;
/** Two balloons of one recess left over say more than one does. */
const FORGOTTEN = 0.7;
