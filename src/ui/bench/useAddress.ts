"use client";
import { useEffect } from "react";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { placeOf, searchOf } from "../store/place";

/**
 * Keeps step and open row in the address: a reload comes back to the same place, and Back goes to where one was.
 * @param live whether the job is on the bench
 */
export function useAddress(live: boolean): void {
  useEffect(() => {
    if (!live) return;
    const there = () => {
      const { step, openRow } = useBench.getState();
      return searchOf({ step, row: openRow });
    };
    const stop = useBench.subscribe((now, before) => {
      if (now.step === before.step && now.openRow === before.openRow) return;
      if (there() !== location.search) history.pushState(null, "", there());
    });
    const back = () => {
      const { step, row } = placeOf(location.search);
      useBench.getState().set({ step, openRow: row, picked: null });
    };
    window.addEventListener("popstate", back);
    return () => {
      stop();
      window.removeEventListener("popstate", back);
    };
  }, [live]);
}

/**
 * Lays the part on the bench that has the row of the address; where no part has it, the row is no longer open.
 * @returns whether the address names a row that is not there
 */
export function openAddressed(): boolean {
  const { openRow, set } = useBench.getState();
  const { job, document, showPart } = useJob.getState();
  if (!openRow || !job || !document || job.rows.some((r) => r.id === openRow)) return false;
  const part = document.parts.find((p) => p.rows.some((r) => r.id === openRow));
  if (part) showPart(part.id);
  else set({ openRow: null });
  return !part;
}

/** Names the job in the window's title. */
export function useTitle(name: string | undefined): void {
  useEffect(() => {
    if (name) document.title = `${name} · Sgorbia`;
  }, [name]);
}
