"use client";
import type { Job } from "@/core/job";
import { slipWords, type Slip as SlipOfOne } from "@/core/mismatch";
import type { Beside } from "@/core/mismatch/besides";

/** A slip in words: what it is, where it stands, from what to what. */
export function Slip({ job, x }: { job: Job; x: SlipOfOne }) {
  const where =
    x.balloon !== undefined
      ? `balloon ${x.balloon}`
      : x.row === null
        ? job.material.name || "material"
        : `row ${x.row}`;
  const field =
    x.balloon !== undefined || x.field === "row"
      ? ""
      : ` ${x.field.replace(/^(shape|pattern)\./, "").replace(/\./g, " ")}`;
  return (
    <>
      {slipWords[x.kind]}: {where}
      {field}, <span className="num">{x.from}</span> for <span className="num">{x.to}</span>
    </>
  );
}

const besideOf: Record<Beside["kind"], string> = {
  undriven: "no balloon drives it",
  "tap drilling": "threads drawn at their drill",
  "edge breaks": "broken edges",
};
/** What a figure may hang on besides, with its share of the difference. */
export const besideWords = ({ kind, row, share }: Beside): string =>
  `${row === null ? "" : `row ${row}: `}${besideOf[kind]} (${Math.round(share * 100)} % of the difference)`;
