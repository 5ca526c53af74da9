"use client";
import { App } from "antd";
import { usersOf, type Row } from "@/core/job";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

/** What can be done with a row of the card, and by which keys while the row itself has the keyboard. */
export function useRowActions(row: Row, number: number) {
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const { message } = App.useApp();
  const rows = () => useJob.getState().job!.rows;
  const remove = () => {
    const before = useJob.getState().job!;
    const used = usersOf(before, row.id);
    edit([{ edit: "deleteRow", id: row.id }], "delete row");
    const next = before.rows[number]?.id ?? before.rows[number - 2]?.id ?? null;
    set({ openRow: null, selected: null, focusRow: next });
    if (used.length) void message.warning(`row ${number} was used by ${used.join(", ")}: undo brings it back`, 5);
  };
  const duplicate = () => {
    const id = freshId();
    edit([{ edit: "addRows", rows: [{ ...structuredClone(row), id }], at: number }], "duplicate row");
    set({ selected: id, focusRow: id });
  };
  const move = (by: number) => {
    edit([{ edit: "moveRow", id: row.id, to: Math.max(0, number - 1 + by) }], "move row");
    set({ focusRow: row.id });
  };
  const go = (by: number) => {
    const next = rows()[number - 1 + by];
    if (next) set({ focusRow: next.id, selected: next.id });
  };
  const open = () => set({ openRow: row.id, selected: row.id });
  const toggle = () => {
    const isOpen = useBench.getState().openRow === row.id;
    set({ openRow: isOpen ? null : row.id, selected: row.id });
  };
  const keys: Record<string, () => void> = {
    ArrowUp: () => go(-1),
    ArrowDown: () => go(1),
    "Alt ArrowUp": () => move(-1),
    "Alt ArrowDown": () => move(1),
    Enter: toggle,
    " ": toggle,
    Delete: remove,
  };
  return { remove, duplicate, move, open, toggle, keys };
}
