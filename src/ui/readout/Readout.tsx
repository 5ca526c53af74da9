"use client";
import { sub } from "@/core/geometry/vec";
import type { Job } from "@/core/job";
import { type LengthUnit, otherUnit, showMass, unitOf } from "@/core/number";
import { useBench } from "../store/benchStore";
import css from "./Readout.module.css";
import { Bare } from "../fields/Bare";
import { useShallow } from "zustand/react/shallow";
import { usePointer } from "../store/pointer";
import { useSetups } from "../store/setupsStore";

/** The strip under the stage, in the manner of a machine's digital readout. A tap switches inch and millimetre. */
export function Readout({ job }: { job: Job }) {
  const { evaluated, picked, measured, unitShown, set, picture, showRow, openOutline, step } = useBench(
    useShallow((s) => ({
      evaluated: s.evaluated,
      picked: s.picked,
      measured: s.measured,
      unitShown: s.unitShown,
      set: s.set,
      picture: s.picture,
      showRow: s.showRow,
      openOutline: s.openOutline,
      step: s.step,
    })),
  );
  const pointer = usePointer((s) => s.at);
  const unit = unitShown ?? job.unit;
  const e = evaluated?.evaluation;
  // On a lathe X is read as a diameter about the axis.
  const onLathe = useSetups((s) => s.bodies.length > 0 && s.machine === "lathe") && step === "hold";
  const read = picked?.point ?? pointer;
  const at = read && onLathe ? { ...read, x: 2 * Math.hypot(read.x, read.y), y: 0 } : read;
  const box = e?.part?.box ?? picture?.measure.box;
  // With nothing pointed at, the strip says how large the part is.
  const size = box && sub(box.max, box.min);
  // Where nothing stands yet, nothing is what it measures.
  const len = (mm: number | undefined) => showReadout(mm ?? 0, unit);
  // Until all of it is worked out, the figures are those of the part as it stands on the stage.
  const volume = showRow && picture ? picture.measure.volume : (e?.part?.volume ?? picture?.measure.volume);
  const mass = volume === undefined || e?.density == null ? null : (volume * e.density) / 1000;
  const left = e?.stock && volume !== undefined ? e.stock.volume - volume : null;
  // While an outline is open its own figures stand here.
  const outline = openOutline !== null && step === "shape" ? e?.outlines.find((o) => o.id === openOutline) : undefined;
  const last = outline
    ? {
        lab: outline.region.length ? "Area of the outline" : "The outline is open",
        value: outline.region.length ? area(outline.area, unit) : "—",
        unit: unitOf[unit].area.name,
      }
    : measured.length === 2
      ? {
          lab: "Measured",
          value: len(
            Math.hypot(
              measured[0].point.x - measured[1].point.x,
              measured[0].point.y - measured[1].point.y,
              measured[0].point.z - measured[1].point.z,
            ),
          ),
          unit,
        }
      : picked?.row
        ? {
            lab: `Picked: ${picked.role} of row ${job.rows.findIndex((r) => r.id === picked.row) + 1}`,
            value: area(picked.area, unit),
            unit: unitOf[unit].area.name,
          }
        : { lab: "Left to cut", value: left === null ? "—" : vol(left, unit), unit: unitOf[unit].bulk.name };
  return (
    <section className={css.dro} aria-label="Readout">
      {(["x", "y", "z"] as const).map((k) => (
        <Bare key={k} onClick={() => set({ unitShown: otherUnit(unit) })} title="tap: inch or millimetre">
          <span className="lab">{at || !size ? (onLathe && k === "x" ? "x ⌀" : k) : `size ${k}`}</span>
          <span className={css.big}>
            {len((at ?? size)?.[k])}
            {k === "z" && <small>{unit}</small>}
          </span>
        </Bare>
      ))}
      <div>
        <span className="lab">Volume</span>
        <span className={css.fig} data-testid="volume">
          {vol(volume ?? 0, unit)} <small>{unitOf[unit].bulk.name}</small>
        </span>
      </div>
      {outline ? (
        <div>
          <span className="lab">Perimeter</span>
          <span className={css.fig} data-testid="perimeter">
            {len(outline.perimeter)} <small>{unit}</small>
          </span>
        </div>
      ) : (
        <div>
          <span className="lab">Mass</span>
          <span className={css.fig} data-testid="mass">
            {mass === null ? "—" : showMass(mass, unit).text} <small>{unitOf[unit].mass.name}</small>
          </span>
        </div>
      )}
      <div>
        <span className="lab">{last.lab}</span>
        <span className={css.fig} data-testid="readout-last">
          {last.value} <small>{last.unit}</small>
        </span>
      </div>
    </section>
  );
}

/** As a machine shows it: a leading zero, four decimals of an inch or three of a millimetre. */
const showReadout = (mm: number, unit: LengthUnit) => {
  const t = (mm / unitOf[unit].mm).toFixed(unitOf[unit].places.exact);
  return /^-0\.0+$/.test(t) ? t.slice(1) : t;
};
const vol = (mm3: number, unit: LengthUnit) => (mm3 / unitOf[unit].bulk.mm3).toFixed(unitOf[unit].bulk.places);
const area = (mm2: number, unit: LengthUnit) => (mm2 / unitOf[unit].area.mm2).toFixed(unitOf[unit].places.shown);
