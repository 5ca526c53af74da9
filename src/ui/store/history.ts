import { createStore, get, set, type UseStore } from "idb-keyval";
import type { Patches } from "mutative";
import { keepable } from "@/core/base/keepable";
import type { JobDocument } from "@/core/job";
import { delta } from "@/core/job/delta";
import { quietly } from "./unsent";

/** One change of a job, and what takes it back. */
export interface Change {
  patches: Patches;
  inverse: Patches;
  label: string;
}
export interface History {
  past: Change[];
  future: Change[];
}
/** A history with the job it leads to: on any other its changes would be other ones. */
type Kept = History & { document: JobDocument };

/** Changes kept over a reload. */
const DEPTH = 100;
/** Quiet time before a history is written, ms. */
const QUIET = 300;

/** A store of its own: what waits to be sent is looked through whole. Made when it is first needed, in the browser. */
let own: UseStore | null = null;
const store = (): UseStore => (own ??= createStore("sgorbia-history", "history"));
const waiting = new Map<string, { timer: ReturnType<typeof setTimeout>; write: () => void }>();

function flush(job: string): void {
  const w = waiting.get(job);
  if (!w) return;
  clearTimeout(w.timer);
  waiting.delete(job);
  w.write();
}
if (typeof window !== "undefined")
  window.addEventListener("pagehide", () => [...waiting.keys()].forEach((job) => flush(job)));

/** Keeps a job's history in this browser, once its typing pauses. */
export function keepHistory(job: string, document: JobDocument, { past, future }: History): void {
  clearTimeout(waiting.get(job)?.timer);
  const kept: Kept = { document, past: past.slice(-DEPTH), future: future.slice(0, DEPTH) };
  const write = () => void quietly(() => set(job, kept, store()));
  waiting.set(job, { timer: setTimeout(() => flush(job), QUIET), write });
}

/** What can be undone of a job: only where it is as the history left it, whoever has changed it since. */
export async function readHistory(job: string, document: JobDocument): Promise<History> {
  const none: History = { past: [], future: [] };
  const kept = await quietly(() => get<Kept>(job, store()));
  if (!kept || !goesOn(keepable(kept.document), document)) return none;
  return { past: keepable(kept.past), future: keepable(kept.future) };
}

/** Whether two documents are the same, in whatever order their keys stand; what is undefined is not there. */
const goesOn = (kept: JobDocument, document: JobDocument): boolean =>
  delta(JSON.parse(JSON.stringify(kept)), JSON.parse(JSON.stringify(document))).length === 0;
