"use client";
import { Checkbox, Slider } from "antd";
import { useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import { viewsFor } from "@/core/engine/views";
import type { Job } from "@/core/job";
import { sides, type Side } from "@/core/geometry/vec";
import { useBench, type ViewName } from "../store/benchStore";
import { useSetups } from "../store/setupsStore";
import { stepRow } from "../bench/actions";
import css from "./Stage.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";

/** The views of a drawing sheet, the plane of the section, and which row's state is on the stage. */
export function ViewBar({ job, hasPrint }: { job: Job; hasPrint: boolean }) {
  const { view, step, set } = useBench(useShallow((s) => ({ view: s.view, step: s.step, set: s.set })));
  const tracing = useBench((s) => s.step === "shape" && s.openOutline !== null);
  const rows = useBench((s) => s.evaluated?.evaluation.solved.rows);
  const views = useMemo((): ViewName[] => ["pictorial", ...viewsFor(rows ?? []), "section"], [rows]);
  return (
    <div className={css.views} role="toolbar" aria-label="Views">
      {views.map((v) => (
        <Bare
          key={v}
          aria-pressed={view === v}
          title={view === v ? "press again: fit the view" : undefined}
          onClick={() => set({ view: v, fits: useBench.getState().fits + 1 })}
        >
          {v[0].toUpperCase() + v.slice(1)}
        </Bare>
      ))}
      <span className={css.tail}>
        {view === "section" && <SectionPlane />}
        {hasPrint && step === "proof" && <PrintOverPart />}
        {hasPrint && tracing && <TracedPrint />}
        <StateShown job={job} />
      </span>
    </div>
  );
}

interface BarSliderProps {
  say: string;
  value: number;
  change: (value: number) => void;
  step?: number;
  min?: number;
  max?: number;
}

const BarSlider = ({ say, value, change, step = 0.05, min = 0, max = 1 }: BarSliderProps) => (
  <Slider
    className={css.slider}
    ariaLabelForHandle={say}
    tooltip={{ open: false }}
    {...{ min, max, step, value }}
    onChange={change}
  />
);

/** From where a section is looked at, and where it is cut. */
function SectionPlane() {
  const { section, set } = useBench(useShallow((s) => ({ section: s.section, set: s.set })));
  return (
    <>
      <Choice
        label="Section looks from"
        value={section.side}
        choose={(side) => set({ section: { ...section, side: side as Side } })}
        options={sides.map((s) => ({ value: s, label: `from the ${s}` }))}
      />
      <BarSlider
        say="Place of the section plane"
        min={0.01}
        max={0.99}
        step={0.01}
        value={section.at}
        change={(at) => set({ section: { ...section, at } })}
      />
    </>
  );
}

/** The print over the part, wiped across it or shining through. */
function PrintOverPart() {
  const { wipe, printOpacity, set } = useBench(
    useShallow((s) => ({ wipe: s.wipe, printOpacity: s.printOpacity, set: s.set })),
  );
  return (
    <>
      <Checkbox checked={wipe !== null} onChange={(e) => set({ wipe: e.target.checked ? 0.5 : null })}>
        wipe
      </Checkbox>
      {wipe === null && "print "}
      {wipe === null ? (
        <BarSlider
          say="How strong the print lies over the part"
          value={printOpacity}
          change={(v) => set({ printOpacity: v })}
        />
      ) : (
        <BarSlider say="How far the print is wiped across" step={0.01} value={wipe} change={(v) => set({ wipe: v })} />
      )}
    </>
  );
}

/** The print behind an outline that is traced from it. */
function TracedPrint() {
  const { traceOpacity, set } = useBench(useShallow((s) => ({ traceOpacity: s.traceOpacity, set: s.set })));
  return (
    <>
      {"print "}
      <BarSlider
        say="How strong the print shows to trace it"
        value={traceOpacity}
        change={(v) => set({ traceOpacity: v })}
      />
    </>
  );
}

/** Which state is on the stage: a moment of a setup, or the part after a row. */
function StateShown({ job }: { job: Job }) {
  const { showRow, step } = useBench(useShallow((s) => ({ showRow: s.showRow, step: s.step })));
  const setup = useSetups((s) => (s.bodies.length > 0 && step === "hold" ? s.shown : null));
  const moment = useSetups((s) => s.moment);
  const at = showRow ? job.rows.findIndex((r) => r.id === showRow) + 1 : job.rows.length;
  if (setup !== null) return <span>{`${moment} of setup ${setup}`}</span>;
  if (!job.rows.length) return null;
  return (
    <span>
      {`after row ${at} of ${job.rows.length}`}
      <Bare title="one row back: key [" aria-label="One row back" onClick={() => stepRow(-1)}>
        [
      </Bare>
      <Bare title="one row forth: key ]" aria-label="One row forth" onClick={() => stepRow(1)}>
        ]
      </Bare>
    </span>
  );
}
