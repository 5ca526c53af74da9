"use client";
import { Checkbox, Slider } from "antd";
import { useMemo } from "react";
import { viewsFor } from "@/core/engine/views";
import type { Job } from "@/core/job";
import { sides, type Side } from "@/core/geometry/vec";
import { useBench, type ViewName } from "../store/benchStore";
import { useSetups } from "../store/setupsStore";
import { stepRow } from "../bench/actions";
import css from "./Stage.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";
import { useShallow } from "zustand/react/shallow";

/** The views of a drawing sheet, the plane of the section, and which row's state is on the stage. */
export function ViewBar({ job, hasPrint }: { job: Job; hasPrint: boolean }) {
  const { view, section, showRow, set, printOpacity, step, wipe, openOutline, traceOpacity } = useBench(
    useShallow((s) => ({
      view: s.view,
      section: s.section,
      showRow: s.showRow,
      set: s.set,
      printOpacity: s.printOpacity,
      step: s.step,
      wipe: s.wipe,
      openOutline: s.openOutline,
      traceOpacity: s.traceOpacity,
    })),
  );
  const inSetup = useSetups((s) => (s.bodies.length > 0 && step === "hold" ? s.shown : null));
  const moment = useSetups((s) => s.moment);
  const rows = useBench((s) => s.evaluated?.evaluation.solved.rows);
  const views = useMemo((): ViewName[] => ["pictorial", ...viewsFor(rows ?? []), "section"], [rows]);
  const at = showRow ? job.rows.findIndex((r) => r.id === showRow) + 1 : job.rows.length;
  return (
    <div className={css.views} role="toolbar" aria-label="Views">
      {views.map((v) => (
        <Bare key={v} aria-pressed={view === v} onClick={() => set({ view: v })}>
          {v[0].toUpperCase() + v.slice(1)}
        </Bare>
      ))}
      <span className={css.tail}>
        {view === "section" && (
          <>
            <Choice
              label="Section looks from"
              value={section.side}
              choose={(side) => set({ section: { ...section, side: side as Side } })}
              options={sides.map((s) => ({ value: s, label: `from the ${s}` }))}
            />
            <Slider
              className={css.slider}
              ariaLabelForHandle="Place of the section plane"
              min={0.01}
              max={0.99}
              step={0.01}
              tooltip={{ open: false }}
              value={section.at}
              onChange={(v) => set({ section: { ...section, at: v } })}
            />
          </>
        )}
        {hasPrint && step === "proof" && (
          <>
            <Checkbox checked={wipe !== null} onChange={(e) => set({ wipe: e.target.checked ? 0.5 : null })}>
              wipe
            </Checkbox>
            {wipe !== null ? (
              <Slider
                className={css.slider}
                ariaLabelForHandle="How far the print is wiped across"
                min={0}
                max={1}
                step={0.01}
                tooltip={{ open: false }}
                value={wipe}
                onChange={(v) => set({ wipe: v })}
              />
            ) : (
              <>
                print{" "}
                <Slider
                  className={css.slider}
                  ariaLabelForHandle="How strong the print lies over the part"
                  min={0}
                  max={1}
                  step={0.05}
                  tooltip={{ open: false }}
                  value={printOpacity}
                  onChange={(v) => set({ printOpacity: v })}
                />
              </>
            )}
          </>
        )}
        {hasPrint && step === "shape" && openOutline !== null && (
          <>
            print{" "}
            <Slider
              className={css.slider}
              ariaLabelForHandle="How strong the print shows to trace it"
              min={0}
              max={1}
              step={0.05}
              tooltip={{ open: false }}
              value={traceOpacity}
              onChange={(v) => set({ traceOpacity: v })}
            />
          </>
        )}
        {inSetup !== null && (
          <span>
            {moment} of setup {inSetup}
          </span>
        )}
        {inSetup === null && job.rows.length > 0 && (
          <span>
            after row {at} of {job.rows.length}
            <Bare title="one row back: key [" aria-label="One row back" onClick={() => stepRow(-1)}>
              [
            </Bare>
            <Bare title="one row forth: key ]" aria-label="One row forth" onClick={() => stepRow(1)}>
              ]
            </Bare>
          </span>
        )}
      </span>
    </div>
  );
}
