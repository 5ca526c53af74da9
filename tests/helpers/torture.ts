import { isDeepStrictEqual } from "node:util";
import { apply, type Patches } from "mutative";
import { evaluate } from "@/core/evaluate";
import { applyEdits, type Job, type JobEdit, type Row } from "@/core/job";
import { rowNames } from "@/core/job/names";
import { readRowLine } from "@/core/callout";
import { rowKinds, rowNumbers } from "@/core/rows";
import { byFigures, toNumberText } from "@/core/number";
import type { SolidKernel } from "@/core/engine/kernel";
import { prepare, solve } from "@/core/engine";

/** A generator of numbers from 0 to 1 that gives the same ones for the same seed (mulberry32, public domain). */
export function dice(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const pick = <T>(list: readonly T[], roll: () => number): T => list[Math.floor(roll() * list.length)];
/** Ways a number is got wrong, or merely changed. */
const changed = (text: string, roll: () => number): string =>
  pick(
    [`(${text})*1.1`, `(${text})/2`, `(${text})*2`, `-(${text})`, "0", "?", `(${text})*100`, `(${text})+.01`, "#999"],
    roll,
  );

/** A row from the example of any kind, aimed at rows that are there or are not. */
function freshRow(job: Job, roll: () => number, id: string): Row | null {
  const kind = pick(rowKinds, roll);
  const outlines = job.outlines.map((o) => o.name);
  const text = byFigures(job.unit, kind.example)
    .replace(/"[^"]+"/, () => `"${outlines.length ? pick(outlines, roll) : "none"}"`)
    .replace(/(OF|REPEAT|MIRROR) \d/, (_, word: string) => `${word} ${1 + Math.floor(roll() * (job.rows.length + 1))}`);
  const read = readRowLine(text, rowNames(job.rows), id, new Set(), { unit: job.unit, suggest: false });
  return read.ok ? read.row : null;
}

/** One thing somebody might do to the rows of a job. */
export function randomEdit(job: Job, roll: () => number, serial: number): JobEdit[] {
  const row = job.rows.length ? pick(job.rows, roll) : null;
  const kind = roll();
  if (!row || kind < 0.12) {
    const fresh = freshRow(job, roll, `torture${serial}`);
    return fresh ? [{ edit: "addRows", rows: [fresh], at: Math.floor(roll() * (job.rows.length + 1)) }] : [];
  }
  if (kind < 0.62) {
    const numbers = rowNumbers(row.body);
    if (!numbers.length) return [];
    const n = pick(numbers, roll);
    return [{ edit: "setNumber", id: row.id, path: n.path, text: toNumberText(changed(n.text, roll)) }];
  }
  if (kind < 0.74) return [{ edit: "switchRow", id: row.id, off: !row.off }];
  if (kind < 0.86) return [{ edit: "moveRow", id: row.id, to: Math.floor(roll() * job.rows.length) }];
  if (kind < 0.94) return [{ edit: "deleteRow", id: row.id }];
  return [{ edit: "addRows", rows: [{ ...structuredClone(row), id: `torture${serial}` }] }];
}

/** What went wrong, with all that leads to it again. */
export class Broken extends Error {}

/**
 * Does random edits to a job, and takes them back. After every one the job computes without a crash, and what there is
 * of a solid is whole; taken back, it is the same document with the same volume.
 * @param told is called with each edit before it is computed, and without one after it
 * @param whole how often everything is computed, remarks and ledger too: every n-th time
 */
export async function torture(
  job: Job,
  kernel: SolidKernel,
  seed: number,
  edits: number,
  told: (edit: string | null, job: Job) => void = () => undefined,
  whole = 7,
): Promise<number> {
  const roll = dice(seed);
  const volumeOf = async (j: Job, all: boolean): Promise<number> => {
    const solved = all ? (await evaluate(j, kernel)).solved : await solve(prepare(j), kernel);
    if (solved.finalKey === null) return 0;
    const { volume, solids, box } = kernel.measure(solved.finalKey);
    const sound = Number.isFinite(volume) && volume > 0 && solids > 0 && box.max.z > box.min.z;
    if (!sound) throw new Broken(`volume ${volume}, ${solids} solids`);
    return volume;
  };
  let now = job;
  let done = 0;
  while (done < edits) {
    // A few things one after the other, then all of them undone.
    const before = now;
    const volume = await volumeOf(now, false);
    const back: Patches[] = [];
    const said: string[] = [];
    for (let i = 0; i < 5; i++) {
      const edit = randomEdit(now, roll, seed * 100_000 + done * 10 + i);
      const r = applyEdits(now, edit);
      if (!edit.length || !r.ok) continue;
      back.push(r.value.inverse);
      said.push(JSON.stringify(edit));
      now = r.value.job;
      done++;
      told(said[said.length - 1], now);
      try {
        await volumeOf(now, done % whole === 0);
        told(null, now);
      } catch (e) {
        throw new Broken(`seed ${seed} after ${said.join("\n")}\n${e instanceof Error ? e.stack : String(e)}`);
      }
    }
    const undone = back.reverse().reduce((j, inverse) => apply(j, inverse), now);
    if (!isDeepStrictEqual(undone, before)) throw new Broken(`seed ${seed}: undo gives another document`);
    const again = await volumeOf(undone, false);
    if (again !== volume) throw new Broken(`seed ${seed}: ${again} after undo, ${volume} before; ${said.join("\n")}`);
    // Now and then what was done stays done, and then it begins anew.
    now = roll() > 0.3 ? undone : roll() > 0.5 ? now : job;
  }
  return done;
}
