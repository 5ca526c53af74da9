"use client";
import { apply, type Patches } from "mutative";
import { create } from "zustand";
import {
  applyEdits,
  jobOf,
  refusedBySchema,
  type Job,
  type JobDocument,
  type JobEdit,
  type StoredJob,
} from "@/core/job";
import type { SlipKind } from "@/core/mismatch";
import { keepHistory, readHistory, type Change } from "./history";
import { reconcile } from "./reconcile";
import { SaveQueue, type SaveStatus } from "./saveQueue";
import { forgetLeftover, forgetUnsent, readUnsent, type Leftover, type Unsent } from "./unsent";

export type { SaveState } from "./saveQueue";

/** Edits of a tab that is closed by now, and how they stand to the job. */
export interface Offered {
  leftover: Leftover;
  /** The job with them: made from what is here now, or as it was there; null when neither is known. */
  document: JobDocument | null;
  /** The job they go on top of; on any other they would be another change. */
  fitsOn: JobDocument | null;
  count: number;
}

/** Edits that are shown and not made, and the job without them. */
export interface Trial {
  edits: JobEdit[];
  kind: SlipKind;
  before: JobDocument;
}

interface JobState extends SaveStatus {
  id: string | null;
  /** All that is kept of the job. */
  document: JobDocument | null;
  /** The part that is worked on; null for the workpiece. */
  part: string | null;
  /** The job as the part at hand is worked on: what everything on the screen is computed from. */
  job: Job | null;
  /** What the server counts the last save as. */
  revision: number;
  past: Change[];
  future: Change[];
  /** Whether the server has acknowledged everything. */
  pending: boolean;
  /** Left over from closed tabs, and not decided about yet. */
  offered: Offered[];
  /** Why the last edit was not taken; empty when it was. */
  refusal: string;
  /** A slip that is being tried: `job` shows it, but it is no part of the document and is never saved. */
  trial: Trial | null;
  open(stored: StoredJob): Promise<void>;
  /** Lays another part of the job on the bench. */
  showPart(id: string): void;
  close(): void;
  /** Applies edits; returns why not, or null. */
  edit(edits: JobEdit[], label?: string): string | null;
  undo(): void;
  redo(): void;
  /** After a conflict: keep what is here, or take what is there. */
  settle(keep: "mine" | "theirs"): void;
  /** What a closed tab left: put into this job, or let go of (when it was kept otherwise). */
  takeUp(offer: Offered): void;
  letGo(offer: Offered): void;
  forgiveRefusal(): void;
  /** Sends what waits now. */
  saveNow(): void;
  /** Shows the job with edits that are not made; returns why not, or null. */
  tryOut(edits: JobEdit[], kind: SlipKind): string | null;
  endTrial(how: "keep" | "back"): void;
}

const DEPTH = 500;
/** One queue a job, for as long as something of it is unsaved: it outlives the open page of the job. */
const queues = new Map<string, SaveQueue>();
if (typeof window !== "undefined") {
  window.addEventListener("online", () => queues.forEach((q) => q.flush()));
  window.addEventListener("pagehide", () => queues.forEach((q) => q.flush(true)));
}

/** A document, and the job as its part at hand is worked on; the workpiece where that part is gone. */
const shownAt = (document: JobDocument, part: string | null) => {
  const at = document.parts.some((p) => p.id === part) ? part : null;
  return { document, part: at, job: jobOf(document, at ?? undefined) };
};

const closed = {
  id: null,
  part: null,
  document: null,
  job: null,
  revision: 0,
  past: [],
  future: [],
  pending: false,
  offered: [],
  refusal: "",
  trial: null,
  save: "saved" as const,
  message: "",
  since: null,
  conflict: null,
};

/**
 * The open job with its history. Every change goes through `edit`, is undone by its own inverse and is saved within
 * half a second.
 */
export const useJob = create<JobState>((set, get) => {
  const shown = (document: JobDocument) => shownAt(document, get().part);
  const queueFor = (id: string, base: number, job: JobDocument): SaveQueue => {
    const told = (q: SaveQueue) => {
      if (get().id === q.id) set({ ...q.status, pending: q.pending, revision: q.base });
      else if (!q.pending) queues.delete(q.id);
    };
    const queue = new SaveQueue(id, base, job, told);
    queues.set(id, queue);
    return queue;
  };
  const changed = (document: JobDocument, patches: Patches, more: Partial<JobState>) => {
    const { id } = get();
    set({ ...shown(document), refusal: "", ...more });
    if (id) {
      queues.get(id)?.add(document, patches);
      keepHistory(id, document, get());
    }
    set({ pending: true });
  };
  /** What this tab had not sent when it was closed, put back where it was. */
  const takeBack = (queue: SaveQueue, stored: StoredJob, unsent: Unsent): void => {
    const mine = reconcile(stored, unsent);
    if (mine.kind === "none") return void forgetUnsent(stored.id);
    const job = mine.job ?? stored.job;
    queue.job = job;
    set(shown(job));
    if (mine.kind === "fits") queue.resume(mine.batch, mine.rest, mine.restId);
    else queue.stand(stored);
  };

  return {
    ...closed,
    async open(stored) {
      // What this page still has on its way is ahead of what the server told.
      const going = queues.get(stored.id);
      const left = await readUnsent(stored.id);
      const queue = going?.pending ? going : queueFor(stored.id, stored.revision, stored.job);
      const offered = left.others.flatMap((l) => offer(stored, l));
      set({
        ...closed,
        id: stored.id,
        ...shownAt(queue.job, null),
        revision: queue.base,
        offered,
        ...queue.status,
        pending: queue.pending,
      });
      if (queue !== going && left.mine) takeBack(queue, stored, left.mine);
      const history = await readHistory(stored.id, queue.job);
      // What was changed meanwhile has a history of its own.
      if (get().id === stored.id && !get().past.length && get().document === queue.job) set(history);
    },
    showPart(id) {
      const { document, trial } = get();
      if (document && !trial) set(shownAt(document, id === document.parts[0].id ? null : id));
    },
    close() {
      const { id } = get();
      set(closed);
      const queue = id ? queues.get(id) : undefined;
      if (!queue) return;
      queue.flush();
      if (!queue.pending) queues.delete(queue.id);
    },
    edit(edits, label = "") {
      const s = get();
      if (!s.document || !edits.length) return null;
      if (s.trial) {
        const wait = "a slip is being tried: keep it or put it back first";
        set({ refusal: wait });
        return wait;
      }
      const r = applyEdits(s.document, edits, s.part ?? undefined);
      // What cannot be done is said where it was asked for; what could not be kept is said over the stage too.
      if (!r.ok) return r.problems[0].message;
      const refusal = refusedBySchema(r.value.job);
      if (refusal !== null) {
        set({ refusal });
        return refusal;
      }
      if (!r.value.patches.length) return null;
      const change = { patches: r.value.patches, inverse: r.value.inverse, label };
      changed(r.value.job, r.value.patches, { past: [...s.past, change].slice(-DEPTH), future: [] });
      return null;
    },
    undo() {
      const s = get();
      if (s.trial) return s.endTrial("back");
      const last = s.past[s.past.length - 1];
      if (!last || !s.document) return;
      changed(apply(s.document, last.inverse), last.inverse, {
        past: s.past.slice(0, -1),
        future: [last, ...s.future],
      });
    },
    redo() {
      const s = get();
      if (s.trial) return;
      const next = s.future[0];
      if (!next || !s.document) return;
      changed(apply(s.document, next.patches), next.patches, { past: [...s.past, next], future: s.future.slice(1) });
    },
    settle(keep) {
      get().endTrial("back");
      const { conflict, document, id } = get();
      const queue = id ? queues.get(id) : undefined;
      if (!conflict || !queue || !document) return;
      if (keep === "theirs") {
        set({ ...shown(conflict.job), past: [], future: [] });
        queue.restart(conflict.revision, conflict.job, [] as Patches);
        return;
      }
      const r = applyEdits(conflict.job, [{ edit: "replace", job: document }]);
      if (r.ok) queue.restart(conflict.revision, document, r.value.patches);
    },
    takeUp(o) {
      if (!o.document || get().edit([{ edit: "replace", job: o.document }], "taken up from a closed window") !== null)
        return;
      get().letGo(o);
    },
    letGo(o) {
      set({ offered: get().offered.filter((x) => x !== o) });
      void forgetLeftover(o.leftover);
    },
    forgiveRefusal: () => set({ refusal: "" }),
    saveNow: () => queues.forEach((q) => q.flush()),
    tryOut(edits, kind) {
      const s = get();
      if (!s.document || s.trial) return s.trial ? "another slip is being tried" : null;
      const r = applyEdits(s.document, edits, s.part ?? undefined);
      const refusal = r.ok ? refusedBySchema(r.value.job) : r.problems[0].message;
      if (r.ok && refusal === null) set({ ...shown(r.value.job), trial: { edits, kind, before: s.document } });
      return refusal;
    },
    endTrial(how) {
      const { trial } = get();
      if (!trial) return;
      set({ ...shown(trial.before), trial: null, refusal: "" });
      if (how === "keep") get().edit(trial.edits, "a slip mended");
    },
  };
});

/** What a closed tab left, if the server does not have it all by now. */
function offer(stored: StoredJob, leftover: Leftover): Offered[] {
  const r = reconcile(stored, leftover.unsent);
  if (r.kind === "none") {
    void forgetLeftover(leftover);
    return [];
  }
  const count = r.kind === "apart" ? r.count : (r.batch?.patches.length ?? 0) + r.rest.length;
  return [{ leftover, document: r.job, fitsOn: r.kind === "fits" ? stored.job : null, count }];
}
