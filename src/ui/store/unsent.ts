import { del, get, set } from 'idb-keyval';
import type { Patches } from 'mutative';

/** Edits the server has not taken yet; they outlive a closed browser. */
export interface Unsent { base: number; patches: Patches }

const key = (id: string) => `unsent-${id}`;
export const keepUnsent = (id: string, unsent: Unsent): Promise<void> => set(key(id), unsent).catch(() => {});
export const readUnsent = (id: string): Promise<Unsent | undefined> => get<Unsent>(key(id)).catch(() => undefined);
export const forgetUnsent = (id: string): Promise<void> => del(key(id)).catch(() => {});
