import { delta } from "@/core/job/delta";
import type { KeptLeftover } from "@/core/job";
import { api } from "./api";
import type { Get, Offered, Set } from "./jobState";
import { quietly } from "./unsent";

/**
 * States of the open job that were replaced in this or another window are offered here too. What is just what is here
 * needs no deciding.
 */
export async function lookForReplaced(set: Set, get: Get): Promise<void> {
  const { id } = get();
  const found = id ? await quietly(() => api.leftovers(id)) : undefined;
  const { document, offered } = get();
  if (!found || get().id !== id || !document) return;
  const others = offered.filter((o) => !("server" in o.kept));
  set({ offered: [...others, ...found.map((l) => offerOf(l, delta(document, l.job).length))] });
}

const offerOf = (l: KeptLeftover, count: number): Offered => ({
  key: `replaced-${l.id}`,
  why: "replaced",
  kept: { server: l.id },
  at: l.at,
  document: l.job,
  fitsOn: null,
  count,
});
