import { rowNumbers } from "@/core/rows";
import { setPath, getPath } from "@/core/grammar/grammar";
import type { Balloon, Job } from "@/core/job";
import type { Evaluation } from "@/core/evaluate";
import { toNumberText } from "@/core/number";

/** A job with one thing wrong, and the balloon that is untrue by it. */
export interface Slipped {
  kind: string;
  of: number;
  job: Job;
}
type Change = (b: Balloon) => Balloon | null;

/** A number of a row that one balloon alone makes, written otherwise. */
const inModel: [string, (t: string, wide: string) => string][] = [
  ["a constant added", (t, wide) => `((${t})+${wide})`],
  ["a multiple", (t) => `((${t})*1.37)`],
  ["half of it", (t) => `((${t})/2)`],
  ["twice as much", (t) => `(2*(${t}))`],
];

/** What a print says otherwise than the model makes it. */
const onPrint: [string, Change][] = [
  ["a diameter for a radius", (b) => (b.kind === "radius" ? { ...b, kind: "diameter" } : null)],
  ["a radius for a diameter", (b) => (b.kind === "diameter" ? { ...b, kind: "radius" } : null)],
  ["one more of them", (b) => counted(b, 1)],
  ["one fewer of them", (b) => counted(b, -1)],
  ["another chamfer", (b) => (b.kind === "chamfer" && b.angle === "45" ? { ...b, angle: toNumberText("30") } : null)],
  ["another class", (b) => thread(b, /(\d)H$/, "4H") ?? thread(b, /2B$/, "3B") ?? thread(b, /6g$/, "4h")],
  ["a left hand", (b) => (b.kind === "thread" ? { ...b, note: "LH" } : null)],
  ["across corners", (b) => (b.kind === "linear" ? noted(b, "AC") : null)],
  ["a circle of holes", (b) => (b.kind === "radius" ? noted(b, "BC") : null)],
  ["a wall", (b) => (b.kind === "depth" ? noted(b, "WALL") : null)],
  ["from a datum nobody knows", (b) => noted(b, "FROM A")],
];
const noted = (b: Balloon, note: string): Balloon | null => (b.note === undefined ? { ...b, note } : null);
const thread = (b: Balloon, of: RegExp, to: string): Balloon | null =>
  b.thread !== undefined && of.test(b.thread) && !b.thread.endsWith(to)
    ? { ...b, thread: b.thread.replace(of, to) }
    : null;
function counted(b: Balloon, by: number): Balloon | null {
  const n = Number(b.count);
  // What only counts is the number that the rows are made with.
  return b.kind !== "count" && b.count !== undefined && n + by > 0
    ? { ...b, count: toNumberText(String(n + by)) }
    : null;
}

/** Every slip that can be made of a right job, each by itself. */
export function slipsOf(job: Job, e: Evaluation): Slipped[] {
  return [...printSlips(job), ...modelSlips(job, e), ...swaps(job, e)];
}

/** A thread that a row takes from the balloon itself is whatever the balloon says. */
const isTaken = (job: Job, b: Balloon): boolean =>
  b.kind === "thread" && job.rows.some(({ body }) => "thread" in body && body.thread === `#${b.number}`);

const printSlips = (job: Job): Slipped[] =>
  onPrint.flatMap(([kind, change]) =>
    job.balloons.flatMap((b): Slipped[] => {
      const wrong = b.reference || b.measure || isTaken(job, b) ? null : change(b);
      if (!wrong) return [];
      return [{ kind, of: b.number, job: { ...job, balloons: job.balloons.map((x) => (x === b ? wrong : x)) } }];
    }),
  );

function modelSlips(job: Job, e: Evaluation): Slipped[] {
  const inUnit = job.unit === "in" ? 25.4 : 1;
  return e.solved.rows.flatMap((r, at) =>
    r.numbers.flatMap((n): Slipped[] => {
      const cites = n.value?.cites ?? [];
      if (r.state !== "ok" || cites.length !== 1 || n.quantity === "count" || !/^#\d+$/.test(n.text)) return [];
      const l = e.ledger.find((x) => x.number === cites[0])!;
      const span = Math.max(0, (l.high ?? 0) - (l.low ?? 0));
      const wide = Math.max(0.01, (1.3 * span) / (/angle/i.test(n.quantity) ? Math.PI / 180 : inUnit)).toFixed(4);
      return inModel.map(([kind, change]) => ({
        kind,
        of: cites[0],
        job: withNumber(job, at, n.path, change(n.text, wide)),
      }));
    }),
  );
}

function withNumber(job: Job, row: number, path: string, text: string): Job {
  const changed = structuredClone(job);
  setPath(changed.rows[row].body, path, text);
  return changed;
}

/** Two balloons of one row taken for one another. */
function swaps(job: Job, e: Evaluation): Slipped[] {
  return e.solved.rows.flatMap((r, at): Slipped[] => {
    const own = rowNumbers(job.rows[at].body).filter((n) => /^#\d+$/.test(n.text) && n.quantity !== "count");
    const [a, b] = own;
    const other = own.find((n) => n !== a && n.quantity === a.quantity);
    if (r.state !== "ok" || !a || !b || !other) return [];
    const values = [a, other].map((n) => r.numbers.find((x) => x.path === n.path)?.value?.value ?? 0);
    if (Math.abs(values[0] - values[1]) < 1) return [];
    const changed = structuredClone(job);
    const body = changed.rows[at].body;
    const [x, y] = [String(getPath(body, a.path)), String(getPath(body, other.path))];
    setPath(body, a.path, y);
    setPath(body, other.path, x);
    // Which of two lengths is which no print says; how many there are, and what words say, it does.
    const isTold = (n: number) =>
      job.balloons.some((b) => b.number === n && (Number(b.count) > 1 || b.note !== undefined));
    return [a, other]
      .filter((n) => isTold(Number(n.text.slice(1))))
      .map((n) => ({ kind: "two of them swapped", of: Number(n.text.slice(1)), job: changed }));
  });
}
