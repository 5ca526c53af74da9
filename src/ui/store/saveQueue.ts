import type { Patches } from "mutative";
import { applyEdits, refusedBySchema, withoutRefused, type JobDocument, type StoredJob } from "@/core/job";
import { api, Refused } from "./api";
import { forgetUnsent, keepUnsent, type Batch, type Unsent } from "./unsent";

export type SaveState = "saved" | "saving" | "away" | "conflict" | "refused";

/** How it stands with saving: in words, and since when it does not go. */
export interface SaveStatus {
  save: SaveState;
  message: string;
  since: number | null;
  conflict: StoredJob | null;
}

const SAVE_AFTER = 350;
const FIRST_PAUSE = 1000;
const LONGEST_PAUSE = 60_000;
const none = [] as Patches;

/**
 * Edits of one job on their way to the server, in order. They are forgotten only when the server has acknowledged them;
 * whatever else it answers, they are sent again with growing pauses. It goes on when the job is closed, until all is
 * acknowledged.
 */
export class SaveQueue {
  status: SaveStatus = { save: "saved", message: "", since: null, conflict: null };
  batch: Batch | null = null;
  rest: Patches = none;
  /**
   * Id under which `rest` will be sent: it is kept before anything goes, so that a page that is left in the middle
   * knows its own save again.
   */
  private nextId = crypto.randomUUID();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private sending = false;
  private pause = FIRST_PAUSE;
  /** How many edits were refused together; none where nothing was. */
  private refusedCount = 0;

  constructor(
    readonly id: string,
    public base: number,
    public job: JobDocument,
    private readonly told: (queue: SaveQueue) => void,
    /** Takes a job that goes on without what was refused, and that state itself. */
    private readonly setAside: (job: JobDocument, refused: Unsent) => void = () => {},
  ) {}

  get pending(): boolean {
    return this.batch !== null || this.rest.length > 0;
  }

  /** Takes over edits that were kept. */
  resume(batch: Batch | null, rest: Patches, restId: string): void {
    this.batch = batch;
    this.rest = rest;
    this.nextId = restId;
    if (!this.pending) return;
    this.tell({ save: "saving" });
    this.keep();
    this.schedule(50);
  }

  add(job: JobDocument, patches: Patches): void {
    this.job = job;
    this.rest = [...this.rest, ...patches] as Patches;
    this.keep();
    if (this.status.save === "conflict") return;
    // What was refused may be mended by this very edit: it is tried at once.
    if (this.status.save === "saved" || this.status.save === "refused") this.tell({ save: "saving" });
    this.schedule(SAVE_AFTER);
  }

  /** Shows that the job has moved on elsewhere; nothing is sent until somebody has chosen. */
  stand(conflict: StoredJob): void {
    this.stopTimer();
    this.tell({ save: "conflict", conflict, message: "this job was changed in another window", since: Date.now() });
    this.keep();
  }

  /** Starts again from what the server has, with other edits or none. */
  restart(base: number, job: JobDocument, rest: Patches): void {
    this.base = base;
    this.job = job;
    this.batch = null;
    this.rest = rest;
    this.pause = FIRST_PAUSE;
    this.tell({ save: rest.length ? "saving" : "saved", conflict: null, message: "", since: null });
    if (rest.length) {
      this.keep();
      this.schedule(20);
    } else this.forget();
  }

  /** Sends now what waits, as when a page is left or the network is back. */
  flush(leaving = false): void {
    if (!this.pending || this.sending || this.status.save === "conflict") return;
    this.stopTimer();
    void this.send(leaving);
  }

  private schedule(ms: number): void {
    this.stopTimer();
    this.timer = setTimeout(() => void this.send(), ms);
  }
  private stopTimer(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  private async send(leaving = false): Promise<void> {
    this.timer = null;
    if (this.sending) return this.schedule(100);
    if (!this.pending || this.status.save === "conflict") return;
    // Kept with its id before it goes: after a lost answer the very same save is sent again.
    if (!this.batch) {
      this.batch = { id: this.nextId, patches: this.rest };
      this.rest = none;
      this.nextId = crypto.randomUUID();
      this.keep();
    }
    this.sending = true;
    try {
      const answer = await api.save(this.id, this.base, this.batch.patches, this.batch.id, leaving);
      if ("conflict" in answer) this.stand(answer.conflict);
      else this.acknowledged(answer.revision);
    } catch (e) {
      if (!(await this.goneOnWithout(e))) this.failed(e);
    } finally {
      this.sending = false;
    }
  }

  private acknowledged(revision: number): void {
    this.base = revision;
    this.batch = null;
    this.pause = FIRST_PAUSE;
    this.refusedCount = 0;
    this.tell({ save: this.rest.length ? "saving" : "saved", message: "", since: null });
    if (!this.rest.length) return this.forget();
    this.keep();
    this.schedule(50);
  }

  /**
   * What was refused, and was refused again with an edit after it, is set aside: the job goes on without it, so that
   * no later edit waits for it. @returns whether it does
   */
  private async goneOnWithout(e: unknown): Promise<boolean> {
    if (!isRefusal(e) || !this.batch || !this.refusedCount || this.batch.patches.length <= this.refusedCount)
      return false;
    const stored = await api.read(this.id).catch(() => null);
    if (!stored || stored.revision !== this.base) return false;
    const places = e.problems.flatMap((p) => (p.place ? [p.place] : []));
    const job = withoutRefused(stored.job, this.job, places) ?? stored.job;
    const left = refusedBySchema(job) === null ? job : stored.job;
    const change = applyEdits(stored.job, [{ edit: "replace", job: left }]);
    if (!change.ok) return false;
    const { batch, base, rest } = this;
    const patches = [...batch.patches, ...rest] as Patches;
    this.setAside(left, {
      base,
      batch: null,
      rest: patches,
      restId: crypto.randomUUID(),
      job: this.job,
      at: new Date().toISOString(),
      refused: true,
    });
    this.refusedCount = 0;
    this.restart(stored.revision, left, change.value.patches);
    return true;
  }

  private failed(e: unknown): void {
    const refused = isRefusal(e);
    if (refused && this.batch) {
      // The server took nothing of it: what comes after may mend it, so both go together under a new id.
      this.rest = [...this.batch.patches, ...this.rest] as Patches;
      this.batch = null;
      this.nextId = crypto.randomUUID();
      this.refusedCount = this.rest.length;
      this.keep();
    }
    const since = this.status.since ?? Date.now();
    this.tell({ save: refused ? "refused" : "away", since, message: whyNot(e, refused) });
    this.schedule(this.pause);
    this.pause = Math.min(LONGEST_PAUSE, this.pause * 2);
  }

  private tell(status: Partial<SaveStatus>): void {
    this.status = { ...this.status, ...status };
    this.told(this);
  }
  private keep(): void {
    void keepUnsent(this.id, {
      base: this.base,
      batch: this.batch,
      rest: this.rest,
      restId: this.nextId,
      job: this.job,
      at: new Date().toISOString(),
    });
  }
  private forget(): void {
    void forgetUnsent(this.id);
  }
}

const isRefusal = (e: unknown): e is Refused => e instanceof Refused && e.status >= 400 && e.status < 500;

function whyNot(e: unknown, refused: boolean): string {
  if (refused) return `the server does not take these edits: ${(e as Refused).message}`;
  if (e instanceof Refused) return `the server could not save: ${e.message}`;
  return "the server does not answer";
}
