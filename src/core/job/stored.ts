import type { JobDocument } from "./schema";

/** A save that the server has done: its own id, and the revision it made. */
interface DoneSave {
  id: string;
  revision: number;
}

/** A job as it is kept: its document, the revision every save is counted by, and the last saves that made it. */
export interface StoredJob {
  id: string;
  job: JobDocument;
  revision: number;
  changedAt: string;
  saves: DoneSave[];
}

/** What the shelf shows of a job: its picture and the state of its checks. */
export interface JobSummary {
  picture: string | null;
  stops: number;
  cautions: number;
  notes: number;
  failed: number;
  proved: number;
  balloons: number;
  off: number;
  checksOff: number;
  checks: number;
}

/** A job in the list of the shelf; the summary is null until it has been worked out for this revision. */
export interface ListedJob {
  id: string;
  name: string;
  revision: string;
  unit: string;
  material: string;
  rows: number;
  parts: number;
  balloons: number;
  stored: number;
  changedAt: string;
  summary: JobSummary | null;
}

/** A state of a job that another one replaced, kept until somebody has decided about it. */
export interface KeptLeftover {
  id: string;
  job: JobDocument;
  /** The revision it was, or was made from. */
  base: number;
  at: string;
}
