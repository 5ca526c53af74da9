"use client";
import { isAboutHolding } from "@/core/findings/holding";
import { showBulk, showLight } from "@/core/number";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { CalloutLine } from "../callout/CalloutLine";
import { OutlineEditor } from "../outline/OutlineEditor";
import { OutlineShelf } from "../outline/OutlineShelf";
import { PlaneShelf } from "./PlaneShelf";
import { RouteCard } from "./RouteCard";
import { JobRemarks } from "./RedPencil";
import css from "./Card.module.css";
import { useShallow } from "zustand/react/shallow";

/** The Shape step: the callout line over the route card, and the sum under it. */
export function ShapeCard() {
  const job = useJob((s) => s.job)!;
  const { evaluated, selected, openOutline } = useBench(
    useShallow((s) => ({ evaluated: s.evaluated, selected: s.selected, openOutline: s.openOutline })),
  );
  const outline = job.outlines.find((o) => o.id === openOutline);
  const e = evaluated?.evaluation;
  const row = e?.solved.rows.find((r) => r.row.id === selected);
  const vol = (mm3: number) => showBulk(mm3, job.unit);
  const left = e?.stock && e.part ? e.stock.volume - e.part.volume : null;
  const mass = e?.stock?.chipMass ?? null;
  return (
    <>
      {outline ? (
        <OutlineEditor key={outline.id} outline={outline} />
      ) : (
        <>
          <CalloutLine />
          <RouteCard />
          <JobRemarks rules={(r) => !isAboutHolding(r)} />
          <OutlineShelf />
          <PlaneShelf />
        </>
      )}
      <footer className={css.sum}>
        <span>
          {row && row.state === "ok" ? (
            <>
              row {row.number} {row.removed >= 0 ? "takes" : "leaves"} <b>{vol(Math.abs(row.removed))}</b>
            </>
          ) : (
            "pick a row or a face"
          )}
        </span>
        <span>
          {left === null ? (
            job.stock ? (
              ""
            ) : (
              "no stock chosen"
            )
          ) : (
            <>
              left to cut <b>{vol(left)}</b>
              {mass !== null && ` · ${showLight(mass, job.unit)}`}
            </>
          )}
        </span>
      </footer>
    </>
  );
}
