"use client";
import { otherUnit } from "@/core/number";
import { useEffect } from "react";
import { steps, useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { stepRow } from "./actions";

/** How long a step's card may take to come, ms. */
const CARD_WITHIN = 3000;
/** Puts the cursor into a field of a step that may still be coming onto the screen. */
function focusOnceThere(id: string, since = performance.now()): void {
  const field = document.getElementById(id);
  if (field) field.focus();
  else if (performance.now() - since < CARD_WITHIN) requestAnimationFrame(() => focusOnceThere(id, since));
}

/** Every key of the bench, for the list under `?` and for the listener: one place. */
export const keyList: [string, string][] = [
  ["1 – 7", "the steps, Print to Release"],
  ["/", "to the callout line"],
  ["l", "to the ledger’s entry line"],
  ["[  ]", "one row back, one row forth"],
  ["b", "hold: the print over the view"],
  ["m", "measure: pick two places"],
  ["u", "inch or millimetre in the readout"],
  ["=", "the reckoner"],
  ["?", "this list"],
  ["Ctrl Z", "undo; with Shift, redo"],
  ["Alt ↑ ↓", "move the row that has the keyboard"],
  ["Enter", "open or close a row"],
  ["Tab", "on; the part on the stage has keys of its own:"],
  ["← → ↑ ↓", "on the stage: turn the part, or move along a view"],
  ["+  -", "on the stage: nearer, and away"],
  [".  ,", "on the stage: pick the next face, the one before; Enter opens its row"],
  ["Esc", "close what is open"],
];

const typing = (t: EventTarget | null) =>
  t instanceof HTMLElement && (t.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName));

export function useKeys(): void {
  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      const bench = useBench.getState();
      if (
        (e.ctrlKey || e.metaKey) &&
        e.key.toLowerCase() === "z" &&
        !(typing(e.target) && (e.target as HTMLInputElement).dataset.draft === "yes")
      ) {
        e.preventDefault();
        if (e.shiftKey) useJob.getState().redo();
        else useJob.getState().undo();
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === "Escape") {
        bench.set({
          help: false,
          measuring: false,
          measured: [],
          picking: null,
          ...(typing(e.target) ? {} : { openRow: null }),
        });
        if (typing(e.target)) (e.target as HTMLElement).blur();
        return;
      }
      if (typing(e.target)) return;
      if (/^[1-7]$/.test(e.key)) bench.set({ step: steps[Number(e.key) - 1], picked: null });
      else if (e.key === "/") {
        e.preventDefault();
        bench.set({ step: "shape" });
        focusOnceThere("callout-line");
      } else if (e.key === "l") {
        e.preventDefault();
        bench.set({ step: "print" });
        focusOnceThere("ledger-line");
      } else if (e.key === "[") stepRow(-1);
      else if (e.key === "]") stepRow(1);
      else if (e.key === "b" && !e.repeat) bench.set({ blink: true });
      else if (e.key === "m") bench.set({ measuring: !bench.measuring, measured: [] });
      else if (e.key === "u")
        bench.set({ unitShown: otherUnit(bench.unitShown ?? useJob.getState().job?.unit ?? "mm") });
      else if (e.key === "=") bench.set({ reckoner: !bench.reckoner });
      else if (e.key === "?") bench.set({ help: !bench.help });
    };
    const up = (e: KeyboardEvent) => {
      if (e.key === "b") useBench.getState().set({ blink: false });
    };
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    return () => {
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
    };
  }, []);
}
