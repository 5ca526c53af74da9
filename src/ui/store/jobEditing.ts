import { apply } from "mutative";
import { applyEdits, refusedBySchema } from "@/core/job";
import { changed } from "./jobSaving";
import { shownAt, type Get, type JobState, type Set } from "./jobState";

/** Changes that are kept to be undone. */
const DEPTH = 500;

/** Every change goes through `edit` and is undone by its own inverse. */
export const editing = (set: Set, get: Get): Pick<JobState, "edit" | "undo" | "redo"> => ({
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
    changed(r.value.job, r.value.patches, { past: [...s.past, change].slice(-DEPTH), future: [] }, set, get);
    return null;
  },
  undo() {
    const s = get();
    if (s.trial) return s.endTrial("back");
    const last = s.past[s.past.length - 1];
    if (!last || !s.document) return;
    const left = { past: s.past.slice(0, -1), future: [last, ...s.future] };
    changed(apply(s.document, last.inverse), last.inverse, left, set, get);
  },
  redo() {
    const s = get();
    if (s.trial) return;
    const next = s.future[0];
    if (!next || !s.document) return;
    const left = { past: [...s.past, next], future: s.future.slice(1) };
    changed(apply(s.document, next.patches), next.patches, left, set, get);
  },
});

/** Edits shown without being made, until they are kept or put back. */
export const trying = (set: Set, get: Get): Pick<JobState, "tryOut" | "endTrial"> => ({
  tryOut(edits, kind) {
    const s = get();
    if (!s.document || s.trial) return s.trial ? "another slip is being tried" : null;
    const r = applyEdits(s.document, edits, s.part ?? undefined);
    const refusal = r.ok ? refusedBySchema(r.value.job) : r.problems[0].message;
    if (r.ok && refusal === null) set({ ...shownAt(r.value.job, s.part), trial: { edits, kind, before: s.document } });
    return refusal;
  },
  endTrial(how) {
    const { trial, part } = get();
    if (!trial) return;
    set({ ...shownAt(trial.before, part), trial: null, refusal: "" });
    if (how === "keep") get().edit(trial.edits, "a slip mended");
  },
});
