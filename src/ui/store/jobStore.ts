'use client';
import { apply, type Patches } from 'mutative';
import { create } from 'zustand';
import { applyEdits, type Job, type JobEdit, type StoredJob } from '@/core/job';
import { api, Refused } from './api';
import { forgetUnsent, keepUnsent, readUnsent } from './unsent';

interface Change { patches: Patches; inverse: Patches; label: string }
export type SaveState = 'saved' | 'saving' | 'away' | 'conflict' | 'refused';

interface JobState {
  id: string | null;
  job: Job | null;
  /** Revision on the server that `unsent` builds on. */
  base: number;
  unsent: Patches;
  past: Change[];
  future: Change[];
  save: SaveState;
  saveMessage: string;
  conflict: StoredJob | null;
  open(stored: StoredJob): Promise<void>;
  close(): void;
  /** Applies edits; returns why not, or null. */
  edit(edits: JobEdit[], label?: string): string | null;
  undo(): void;
  redo(): void;
  /** After a conflict: keep what is here, or take what is there. */
  settle(keep: 'mine' | 'theirs'): void;
}

const DEPTH = 500;
const SAVE_AFTER = 350;
let timer: ReturnType<typeof setTimeout> | null = null;
let sending = false;

/** The open job with its history. Every change goes through `edit`, is undone by its own inverse and is saved within half a second. */
export const useJob = create<JobState>((set, get) => {
  const changed = (job: Job, patches: Patches, more: Partial<JobState>) => {
    const s = get();
    const unsent = [...s.unsent, ...patches] as Patches;
    set({ job, unsent, ...(s.save === 'saved' ? { save: 'saving' as const } : {}), ...more });
    if (s.id) void keepUnsent(s.id, { base: s.base, patches: unsent });
    schedule(SAVE_AFTER);
  };
  const schedule = (ms: number) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void send(), ms);
  };
  const send = async () => {
    timer = null;
    const { id, unsent, base, save } = get();
    if (!id || !unsent.length || save === 'conflict') return;
    if (sending) return schedule(100);
    sending = true;
    set({ save: 'saving' });
    const count = unsent.length;
    try {
      const r = await api.save(id, base, unsent);
      if (get().id !== id) return;
      if ('conflict' in r) set({ save: 'conflict', conflict: r.conflict, saveMessage: 'this job was changed in another window' });
      else {
        const rest = get().unsent.slice(count) as Patches;
        set({ base: r.revision, unsent: rest, save: rest.length ? 'saving' : 'saved', saveMessage: '' });
        if (rest.length) {
          void keepUnsent(id, { base: r.revision, patches: rest });
          schedule(50);
        } else void forgetUnsent(id);
      }
    } catch (e) {
      if (get().id !== id) return;
      if (e instanceof Refused) set({ save: 'refused', saveMessage: e.message });
      else {
        set({ save: 'away', saveMessage: 'the server is away; everything is kept in this browser' });
        schedule(2000);
      }
    } finally {
      sending = false;
    }
  };

  return {
    id: null, job: null, base: 0, unsent: [] as unknown as Patches, past: [], future: [], save: 'saved', saveMessage: '', conflict: null,
    async open(stored) {
      const left = await readUnsent(stored.id);
      let job = stored.job;
      let unsent = [] as unknown as Patches;
      let conflict: StoredJob | null = null;
      if (left?.patches.length) {
        try {
          job = apply(stored.job, left.patches);
          unsent = left.patches;
          if (left.base !== stored.revision) {
            // Sent just before the page went, and never heard of again: what is there already is no conflict.
            if (JSON.stringify(job) === JSON.stringify(stored.job)) {
              unsent = [] as unknown as Patches;
              void forgetUnsent(stored.id);
            } else conflict = stored;
          }
        } catch { void forgetUnsent(stored.id); }
      }
      set({ id: stored.id, job, base: stored.revision, unsent, past: [], future: [], save: conflict ? 'conflict' : unsent.length ? 'saving' : 'saved', saveMessage: '', conflict });
      if (unsent.length && !conflict) schedule(50);
    },
    close() {
      if (timer) clearTimeout(timer);
      void send();
      set({ id: null, job: null, past: [], future: [], unsent: [] as unknown as Patches });
    },
    edit(edits, label = '') {
      const s = get();
      if (!s.job || !edits.length) return null;
      const r = applyEdits(s.job, edits);
      if (!r.ok) return r.problems[0].message;
      if (!r.value.patches.length) return null;
      const change = { patches: r.value.patches, inverse: r.value.inverse, label };
      changed(r.value.job, r.value.patches, { past: [...s.past, change].slice(-DEPTH), future: [], ...(s.save === 'refused' ? { save: 'saving' as const } : {}) });
      return null;
    },
    undo() {
      const s = get();
      const last = s.past[s.past.length - 1];
      if (!last || !s.job) return;
      changed(apply(s.job, last.inverse), last.inverse, { past: s.past.slice(0, -1), future: [last, ...s.future] });
    },
    redo() {
      const s = get();
      const next = s.future[0];
      if (!next || !s.job) return;
      changed(apply(s.job, next.patches), next.patches, { past: [...s.past, next], future: s.future.slice(1) });
    },
    settle(keep) {
      const { conflict, job, id } = get();
      if (!conflict || !id || !job) return;
      if (keep === 'theirs') {
        void forgetUnsent(id);
        set({ job: conflict.job, base: conflict.revision, unsent: [] as unknown as Patches, past: [], future: [], save: 'saved', conflict: null });
        return;
      }
      const r = applyEdits(conflict.job, [{ edit: 'replace', job }]);
      if (!r.ok) return;
      set({ base: conflict.revision, unsent: r.value.patches, save: 'saving', conflict: null });
      void keepUnsent(id, { base: conflict.revision, patches: r.value.patches });
      schedule(20);
    },
  };
});
