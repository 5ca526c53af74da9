import type { Evaluation } from "./evaluate";
import type { Job } from "../job/schema";

/** How far the model answers the print. */
export interface Complete {
  balloons: number;
  proved: number;
  drives: number;
  unused: number;
  off: number;
  stale: number;
  unsourced: number;
  text: string;
}

/** Unsourced numbers of the outlines rows are made from, each once. */
function outlineQuestions(e: Pick<Evaluation, "solved">): number {
  const seen = new Set(
    e.solved.rows.flatMap((r) =>
      r.state === "off"
        ? []
        : [...r.outlineNumbers, ...r.planeNumbers].filter((x) => x.value?.source === "unsourced").map((x) => x.path),
    ),
  );
  return seen.size;
}

/** Counts the ledger's states and the numbers nobody has vouched for, and says it in one line. */
export function completeness(job: Pick<Job, "balloons">, e: Pick<Evaluation, "ledger" | "solved">): Complete {
  // What another part is made from is not left out of the model.
  const count = (s: string) => e.ledger.filter((l) => l.state === s && l.elsewhere === undefined).length;
  const unsourced =
    e.solved.rows.reduce(
      (n, r) => n + (r.state === "off" ? 0 : r.numbers.filter((x) => x.value?.source === "unsourced").length),
      0,
    ) + outlineQuestions(e);
  const [proved, drives, unused, off, stale] = ["proved", "drives", "unused", "off", "stale"].map(count);
  const text =
    [
      `${proved} of ${job.balloons.length} balloons proved`,
      ...(drives ? [`${drives} not measured`] : []),
      `${unused} unused`,
      `${off} off`,
      ...(stale ? [`${stale} stale`] : []),
    ].join(", ") +
    `; ${unsourced} number${unsourced === 1 ? "" : "s"} in the model ${unsourced === 1 ? "has" : "have"} no source`;
  return { balloons: job.balloons.length, proved, drives, unused, off, stale, unsourced, text };
}
