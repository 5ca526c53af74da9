import { threadMeant } from "@/core/balloons/threads";
import { planeWords } from "@/core/engine/planeWords";
import type { NumberReport } from "@/core/engine/numbers";
import type { Job, Row } from "@/core/job";
import { showLength } from "@/core/number";
import { kindOf } from "@/core/rows";
import { findThread, threadSaid } from "@/core/tables";
import { useBench } from "../store/benchStore";

/** Sizes named at once. */
const NAMED = 3;

/** What was read, in words, with the table's drill where there is one. */
export function RowWords({ row, numbers, job }: { row: Row; numbers: NumberReport[]; job: Job }) {
  const meant = "thread" in row.body ? threadMeant(row.body.thread, job.balloons) : null;
  const thread = meant?.ok ? findThread(meant.value) : null;
  const unsaid = kindOf(row.body).unsaid?.(row.body);
  const earlier = useBench((s) => s.evaluated?.evaluation.solved.rows);
  // Of rows that are not worked out yet nothing is said: without any it is the first.
  const known = earlier ?? (job.rows.length ? null : []);
  const plane = known && "plane" in row.body && row.body.plane ? planeWords(row.body.plane, known, job.unit) : null;
  const told = thread && threadSaid(thread, kindOf(row.body).traits?.outsideThread ? "outside" : "inside");
  const drill = [told?.drill, told?.crest].map((words) => (words ? `, ${words}` : "")).join("");
  const sizes = numbers
    .filter((n) => n.quantity === "length")
    .slice(0, NAMED)
    .map((n) => `${n.label.toLowerCase()} ${showLength(n.value!.value, job.unit)}`)
    .join(", ");
  return (
    <>
      {kindOf(row.body).label}
      {drill}
      {sizes && `: ${sizes}`}
      {unsaid && `, with a ${unsaid}`}
      {plane && `, on ${plane}`}
    </>
  );
}
