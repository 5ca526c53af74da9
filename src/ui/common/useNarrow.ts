"use client";
import { useSyncExternalStore } from "react";

/** Below this width card and stage do not stand side by side: a small screen, or a large one at 200 %. */
const NARROW = "(max-width: 1019px)";

function listen(told: () => void): () => void {
  const query = matchMedia(NARROW);
  query.addEventListener("change", told);
  return () => query.removeEventListener("change", told);
}

/** Whether there is room for one pane only. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    listen,
    () => matchMedia(NARROW).matches,
    () => false,
  );
