"use client";
import { useBench } from "../store/benchStore";
import dayjs from "dayjs";
import type { Balloon } from "@/core/job";
import type { LedgerEntry } from "@/core/print/ledger";
import { useJob } from "../store/jobStore";

/** Steps the stage back or forth through the rows; past the last one it shows the finished part. */
export function stepRow(by: -1 | 1): void {
  const { showRow, set } = useBench.getState();
  const rows = useJob.getState().job?.rows ?? [];
  if (!rows.length) return;
  const at = showRow ? rows.findIndex((r) => r.id === showRow) : rows.length;
  const next = at + by;
  if (next < 0) return;
  if (next >= rows.length) set({ showRow: null, selected: null });
  else set({ showRow: rows[next].id, selected: rows[next].id });
}

/** A short id for a row made here. */
export const freshId = (): string =>
  `r${crypto.getRandomValues(new Uint32Array(2)).reduce((s, n) => s + n.toString(36), "")}`;

/** Says on what a balloon is measured, or lets the measurement be found by itself again. */
export function setMeasure(number: number, measure: Balloon["measure"] | null): void {
  const { job, edit } = useJob.getState();
  const b = job?.balloons.find((x) => x.number === number);
  useBench.getState().set({ picking: null, picked: null });
  if (!b) return;
  const { measure: _, ...rest } = b;
  edit([{ edit: "setBalloon", number, balloon: measure ? { ...rest, measure } : rest }], "measurement");
}

/**
 * Records every balloon that is proved now, on what and when. A record whose ground changes later makes the balloon
 * stale.
 */
export function recordProofs(ledger: LedgerEntry[]): void {
  const { job, edit } = useJob.getState();
  if (!job) return;
  const on = dayjs().format("YYYY-MM-DD HH:mm");
  const kept = job.proofs.filter(
    (p) =>
      job.balloons.some((b) => b.number === p.number) &&
      !ledger.some((l) => l.number === p.number && (l.state === "proved" || l.state === "stale")),
  );
  edit(
    [
      {
        edit: "setProofs",
        proofs: [
          ...kept,
          ...ledger
            .filter((l) => l.state === "proved" || l.state === "stale")
            .map((l) => ({
              number: l.number,
              measured: l.measured,
              by: l.by,
              basis: l.basis,
              on,
              revision: job.revision,
            })),
        ],
      },
    ],
    "record of proof",
  );
}
