"use client";
import type { Job } from "@/core/job";
import { sides, type Side } from "@/core/geometry/vec";
import { useBench, type ViewName } from "../store/benchStore";
import { stepRow } from "../bench/actions";
import css from "./Stage.module.css";

const views: ViewName[] = ["pictorial", "front", "top", "right", "section"];

/** The views of a drawing sheet, the plane of the section, and which row's state is on the stage. */
export function ViewBar({ job, hasPrint }: { job: Job; hasPrint: boolean }) {
  const { view, section, showRow, set, printOpacity, step, wipe, openOutline, traceOpacity } = useBench();
  const at = showRow ? job.rows.findIndex((r) => r.id === showRow) + 1 : job.rows.length;
  return (
    <div className={css.views} role="toolbar" aria-label="Views">
      {views.map((v) => (
        <button key={v} aria-pressed={view === v} onClick={() => set({ view: v })}>
          {v[0].toUpperCase() + v.slice(1)}
        </button>
      ))}
      <span className={css.tail}>
        {view === "section" && (
          <>
            <select
              aria-label="Section looks from"
              value={section.side}
              onChange={(e) => set({ section: { ...section, side: e.target.value as Side } })}
            >
              {sides.map((s) => (
                <option key={s} value={s}>
                  from the {s}
                </option>
              ))}
            </select>
            <input
              aria-label="Place of the section plane"
              type="range"
              min={0.01}
              max={0.99}
              step={0.01}
              value={section.at}
              onChange={(e) => set({ section: { ...section, at: Number(e.target.value) } })}
            />
          </>
        )}
        {hasPrint && step === "proof" && (
          <>
            <label>
              <input
                type="checkbox"
                checked={wipe !== null}
                onChange={(e) => set({ wipe: e.target.checked ? 0.5 : null })}
              />{" "}
              wipe
            </label>
            {wipe !== null ? (
              <input
                type="range"
                aria-label="How far the print is wiped across"
                min={0}
                max={1}
                step={0.01}
                value={wipe}
                onChange={(e) => set({ wipe: Number(e.target.value) })}
              />
            ) : (
              <>
                print{" "}
                <input
                  aria-label="How strong the print lies over the part"
                  type="range"
                  min={0}
                  max={1}
                  step={0.05}
                  value={printOpacity}
                  onChange={(e) => set({ printOpacity: Number(e.target.value) })}
                />
              </>
            )}
          </>
        )}
        {hasPrint && step === "shape" && openOutline !== null && (
          <>
            print{" "}
            <input
              aria-label="How strong the print shows to trace it"
              type="range"
              min={0}
              max={1}
              step={0.05}
              value={traceOpacity}
              onChange={(e) => set({ traceOpacity: Number(e.target.value) })}
            />
          </>
        )}
        {job.rows.length > 0 && (
          <span>
            after row {at} of {job.rows.length}
            <button title="one row back: key [" aria-label="One row back" onClick={() => stepRow(-1)}>
              [
            </button>
            <button title="one row forth: key ]" aria-label="One row forth" onClick={() => stepRow(1)}>
              ]
            </button>
          </span>
        )}
      </span>
    </div>
  );
}
