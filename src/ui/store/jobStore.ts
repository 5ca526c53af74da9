"use client";
import { create } from "zustand";
import { editing, trying } from "./jobEditing";
import { opening } from "./jobOpening";
import { queues } from "./jobSaving";
import { settling } from "./jobSettling";
import { closed, type JobState } from "./jobState";

export type { SaveState } from "./saveQueue";
export type { Offered, Trial } from "./jobState";

/**
 * The open job with its history. Every change goes through `edit`, is undone by its own inverse and is saved within
 * half a second.
 */
export const useJob = create<JobState>((set, get) => ({
  ...closed,
  ...opening(set, get),
  ...editing(set, get),
  ...trying(set, get),
  ...settling(set, get),
  forgiveRefusal: () => set({ refusal: "" }),
  saveNow: () => queues.forEach((q) => q.flush()),
}));
