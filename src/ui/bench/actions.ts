'use client';
import { useBench } from '../store/benchStore';
import { useJob } from '../store/jobStore';

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
export const freshId = (): string => `r${crypto.getRandomValues(new Uint32Array(2)).reduce((s, n) => s + n.toString(36), '')}`;
