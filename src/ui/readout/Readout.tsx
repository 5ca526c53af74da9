"use client";
import type { ReactNode } from "react";
import { sub } from "@/core/geometry/vec";
import type { Job } from "@/core/job";
import { otherUnit, showMass, unitOf, type LengthUnit } from "@/core/number";
import { useLongBusy } from "../common/useLongBusy";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { useBench } from "../store/benchStore";
import { usePointer } from "../store/pointer";
import { useSetups } from "../store/setupsStore";
import { onLathe } from "@/core/setups/lathe";
import { areaFigure, bulkFigure, distance, lengthFigure } from "./figures";
import { useOpenOutline, useShown } from "./useShown";
import css from "./Readout.module.css";
import { Bare } from "../fields/Bare";

/** The strip under the stage, in the manner of a machine's digital readout. A tap switches inch and millimetre. */
export function Readout({ job }: { job: Job }) {
  const unit = useBench((s) => s.unitShown) ?? job.unit;
  const outline = useOpenOutline();
  // Figures from before the last edit say so, until those that are being computed are there.
  const isOld = useLongBusy(NOTICED);
  return (
    <section className={`${css.dro} ${isOld ? css.old : ""}`} aria-label="Readout" aria-busy={isOld}>
      {isOld && <span className={css.computed}>being computed</span>}
      <Axes unit={unit} />
      <Amount unit={unit} />
      {outline ? (
        <Figure label="Perimeter" id="perimeter" unit={unit}>
          {isWrong(outline) ? "—" : lengthFigure(outline.perimeter, unit)}
        </Figure>
      ) : (
        <Mass unit={unit} />
      )}
      <Last job={job} unit={unit} />
    </section>
  );
}

/** Milliseconds after which figures from before are told apart. */
const NOTICED = 300;

interface FigureProps {
  label: string;
  id: string;
  unit: string;
  children: ReactNode;
}

const Figure = ({ label, id, unit, children }: FigureProps) => (
  <div>
    <span className="lab">{label}</span>
    <span className={css.fig} data-testid={id}>
      {children} <small>{unit}</small>
    </span>
  </div>
);

/** Where the pointer or the pick is; with nothing pointed at, how large the part is. */
function Axes({ unit }: { unit: LengthUnit }) {
  const set = useBench((s) => s.set);
  const picked = useBench((s) => s.picked?.point);
  const pointer = usePointer((s) => s.at);
  const isHold = useBench((s) => s.step === "hold");
  const isTurned = useSetups((s) => s.bodies.length > 0 && s.machine === "lathe") && isHold;
  const { box } = useShown();
  const read = picked ?? pointer;
  const at = read && isTurned ? onLathe(read) : read;
  const size = box && sub(box.max, box.min);
  const isSize = !at && Boolean(size);
  const label = (axis: "x" | "y" | "z") => {
    if (isSize) return `size ${axis}`;
    return isTurned && axis === "x" ? "x ⌀" : axis;
  };
  // Where nothing stands yet, nothing is what it measures.
  const figure = (axis: "x" | "y" | "z") => lengthFigure((at ?? size)?.[axis] ?? 0, unit);
  return (["x", "y", "z"] as const).map((axis) => (
    <Bare key={axis} onClick={() => set({ unitShown: otherUnit(unit) })} title="tap: inch or millimetre">
      <span className="lab">{label(axis)}</span>
      <span className={css.big}>
        {figure(axis)}
        {axis === "z" && <small>{unit}</small>}
      </span>
    </Bare>
  ));
}

function Amount({ unit }: { unit: LengthUnit }) {
  const { volume } = useShown();
  return (
    <Figure label="Volume" id="volume" unit={unitOf[unit].bulk.name}>
      {bulkFigure(volume ?? 0, unit)}
    </Figure>
  );
}

function Mass({ unit }: { unit: LengthUnit }) {
  const { evaluation, volume } = useShown();
  const density = evaluation?.density;
  const mass = volume === undefined || density == null ? "—" : showMass((volume * density) / 1000, unit).text;
  return (
    <Figure label="Mass" id="mass" unit={unitOf[unit].mass.name}>
      {mass}
    </Figure>
  );
}

/** An outline whose lines cannot all hold has no size: what is drawn of it is a guess. */
const isWrong = (outline: EvaluatedOutline): boolean => Boolean(outline.wire?.conflicts.length);

/** What was asked last: an open outline's area, two places measured, a face picked; else what is left to cut. */
function Last({ job, unit }: { job: Job; unit: LengthUnit }) {
  const outline = useOpenOutline();
  const measured = useBench((s) => s.measured);
  const picked = useBench((s) => s.picked);
  const { evaluation, volume } = useShown();
  const area = unitOf[unit].area.name;
  const figure = (label: string, value: string, of: string) => (
    <Figure label={label} id="readout-last" unit={of}>
      {value}
    </Figure>
  );
  if (outline) {
    if (isWrong(outline)) return figure("The outline contradicts itself", "—", area);
    if (!outline.region.length) return figure("The outline is open", "—", area);
    return figure("Area of the outline", areaFigure(outline.area, unit), area);
  }
  if (measured.length === 2)
    return figure("Measured", lengthFigure(distance(measured[0].point, measured[1].point), unit), unit);
  if (picked?.row) {
    const number = job.rows.findIndex((r) => r.id === picked.row) + 1;
    return figure(`Picked: ${picked.role} of row ${number}`, areaFigure(picked.area, unit), area);
  }
  const stock = evaluation?.stock?.volume;
  const left = stock === undefined || volume === undefined ? "—" : bulkFigure(stock - volume, unit);
  return figure("Left to cut", left, unitOf[unit].bulk.name);
}
