import type { Setup } from "@/core/job";
import { useJob } from "../store/jobStore";
import { useSetups } from "../store/setupsStore";

const OP_STEP = 10;
export const emptySetup: Setup = { op: OP_STEP, machine: "mill", up: "top", hold: null };

export const nextOp = (setups: Setup[]): number => Math.max(0, ...setups.map((s) => s.op)) + OP_STEP;

/** Puts other setups in the place of the job's; says why not, or null. */
export const setSetups = (setups: Setup[], label: string): string | null =>
  useJob.getState().edit([{ edit: "setSetups", setups }], label);

/** Changes one setup; one that is not there yet is made. */
export function changeSetup(setup: Setup, change: Partial<Setup>): void {
  const { setups } = useJob.getState().document!;
  const next = { ...setup, ...change };
  for (const key of ["rows", "datum"] as const) if (next[key] === undefined) delete next[key];
  const isThere = setups.some((s) => s.op === setup.op);
  setSetups(isThere ? setups.map((s) => (s.op === setup.op ? next : s)) : [...setups, next], "setup");
}

/** The setups the engine proposes, each kept as it is held where one stands the same way already. */
export function setupsProposed(): Setup[] {
  const { document } = useJob.getState();
  const rows = document!.parts[0].rows;
  const proposed = useSetups.getState().view?.proposed ?? [];
  return proposed.map((p): Setup => {
    const same = document!.setups.find((s) => JSON.stringify(s.up) === JSON.stringify(p.up));
    return {
      machine: p.machine,
      hold: null,
      ...(same ? { ...(same.datum ? { datum: same.datum } : {}), hold: same.hold, machine: same.machine } : {}),
      op: p.op,
      up: p.up,
      rows: p.rows.map((n) => rows[n - 1].id),
    };
  });
}

/** Takes a row out of one setup and puts it into another, in the order of the card. */
export function moveRow(row: string, from: number, to: number): void {
  if (from === to) return;
  const { document } = useJob.getState();
  const order = document!.parts[0].rows.map((r) => r.id);
  const sorted = (ids: string[]) => [...new Set(ids)].sort((a, b) => order.indexOf(a) - order.indexOf(b));
  setSetups(
    document!.setups.map((s) => {
      if (s.op === from) return { ...s, rows: (s.rows ?? []).filter((id) => id !== row) };
      return s.op === to ? { ...s, rows: sorted([...(s.rows ?? []), row]) } : s;
    }),
    "row to another setup",
  );
}

/** Takes a setup away. */
export function deleteSetup(op: number): void {
  const { document } = useJob.getState();
  setSetups(
    document!.setups.filter((s) => s.op !== op),
    "delete setup",
  );
  useSetups.getState().set({ open: null });
}
