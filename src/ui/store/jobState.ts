import type { StoreApi } from "zustand";
import { jobOf, type Job, type JobDocument, type JobEdit, type StoredJob } from "@/core/job";
import type { SlipKind } from "@/core/mismatch";
import type { Change } from "./history";
import type { SaveStatus } from "./saveQueue";
import type { Leftover } from "./unsent";

/** Why a state of the job lies beside it. */
export type WhyOffered =
  /** A tab was closed before the server had its edits. */
  | "closed"
  /** Two windows changed the job, and the other one's state was taken. */
  | "replaced"
  /** The server did not take these edits: what came after them went without. */
  | "refused";

/** A state of the job that lies beside it, and how it stands to it. */
export interface Offered {
  key: string;
  why: WhyOffered;
  /** Where it is kept until somebody has decided about it: in this browser, or with the server. */
  kept: { leftover: Leftover } | { server: string };
  /** When the last of it was typed, or it was replaced; empty where nobody knows. */
  at: string;
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

export interface JobState extends SaveStatus {
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
  settle(keep: "mine" | "theirs"): Promise<void>;
  /** What a closed tab left: put into this job, or let go of (when it was kept otherwise). */
  takeUp(offer: Offered): void;
  letGo(offer: Offered): void;
  /** Looks for states of this job that another window has replaced. */
  lookAside(): Promise<void>;
  forgiveRefusal(): void;
  /** Sends what waits now. */
  saveNow(): void;
  /** Shows the job with edits that are not made; returns why not, or null. */
  tryOut(edits: JobEdit[], kind: SlipKind): string | null;
  endTrial(how: "keep" | "back"): void;
}

/** How the parts of the store change it and see it. */
export type Set = StoreApi<JobState>["setState"];
export type Get = StoreApi<JobState>["getState"];

/** A document, and the job as its part at hand is worked on; the workpiece where that part is gone. */
export const shownAt = (document: JobDocument, part: string | null) => {
  const at = document.parts.some((p) => p.id === part) ? part : null;
  return { document, part: at, job: jobOf(document, at ?? undefined) };
};

export const closed = {
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
