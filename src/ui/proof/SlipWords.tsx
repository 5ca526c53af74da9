"use client";
import type { Job } from "@/core/job";
import { slipWords, type Slip as SlipOfOne } from "@/core/mismatch";

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
