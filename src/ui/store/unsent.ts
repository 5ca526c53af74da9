import { del, get, set } from 'idb-keyval';
import type { Patches } from 'mutative';

/** Edits the server has not taken yet; they outlive a closed browser. */
export interface Unsent { base: number; patches: Patches }

const key = (id: string) => `unsent-${id}`;
/** A browser that keeps nothing (a private window) must not stop the work. */
const quietly = async <T>(work: () => Promise<T>): Promise<T | undefined> => {
  try {
    return await work();
  } catch {
    return undefined;
  }
};
export const keepUnsent = (id: string, unsent: Unsent) => quietly(() => set(key(id), unsent));
export const readUnsent = (id: string) => quietly(() => get<Unsent>(key(id)));
export const forgetUnsent = (id: string) => quietly(() => del(key(id)));
