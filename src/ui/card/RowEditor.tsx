"use client";
import { Button } from "antd";
import { groupedName, groupOf, ownName, usersOf, type Row } from "@/core/job";
import { kindOf } from "@/core/rows";
import type { NumberText } from "@/core/number";
import { setPath } from "@/core/grammar/grammar";
import { useJob } from "../store/jobStore";
import { useBench } from "../store/benchStore";
import { RowFields } from "./RowFields";
import css from "./Card.module.css";
import { TextField } from "../fields/TextField";

interface Props {
  row: Row;
  number: number;
  duplicate(): void;
  remove(): void;
  move(by: number): void;
}

/**
 * A row opened in place: its numbers in the order a print gives them, its choices, and what can be done with the
 * row.
 */
export function RowEditor({ row, number, ...actions }: Props) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { label } = kindOf(row.body);
  const setNumber = (path: string) => (text: NumberText | undefined) =>
    edit([{ edit: "setNumber", id: row.id, path, text }], label);
  const setBody = (changes: Record<string, unknown>) => {
    const body = structuredClone(row.body);
    for (const [path, value] of Object.entries(changes)) setPath(body, path, value);
    edit([{ edit: "setRow", id: row.id, body }], label);
  };
  return (
    <div className={css.editor}>
      <div className={css.fields}>
        <RowFields {...{ job, row, number, setBody, setNumber }} />
      </div>
      <UsedBy id={row.id} />
      <div className={css.actions}>
        <RowNames row={row} />
        <RowActions row={row} {...actions} />
      </div>
    </div>
  );
}

/** The row's own name, and the group it stands in. */
function RowNames({ row }: { row: Row }) {
  const edit = useJob((s) => s.edit);
  const name = (whole: string) => edit([{ edit: "nameRow", id: row.id, name: whole }], "name");
  const own = ownName(row);
  const group = groupOf(row) ?? "";
  return (
    <>
      <label className={css.name}>
        <span className="sr">Name of the row</span>
        <TextField value={own} placeholder="name" maxLength={100} commit={(t) => name(groupedName(group, t))} />
      </label>
      <label className={css.name}>
        <span className="sr">Group of the row</span>
        <TextField value={group} placeholder="group" maxLength={60} commit={(t) => name(groupedName(t, own))} />
      </label>
    </>
  );
}

function RowActions({ row, duplicate, remove, move }: Omit<Props, "number">) {
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const turning = row.off ? "switch on" : "switch off";
  return (
    <>
      <Button size="small" onClick={() => edit([{ edit: "switchRow", id: row.id, off: !row.off }], turning)}>
        {turning}
      </Button>
      <Button size="small" onClick={duplicate}>
        duplicate
      </Button>
      <Button size="small" onClick={() => move(-1)} aria-label="Move up" title="Alt ↑">
        ↑
      </Button>
      <Button size="small" onClick={() => move(1)} aria-label="Move down" title="Alt ↓">
        ↓
      </Button>
      <Button size="small" onClick={remove}>
        delete
      </Button>
      <Button size="small" onClick={() => set({ openRow: null, focusRow: row.id })}>
        close
      </Button>
    </>
  );
}

/** What stands on this row. */
function UsedBy({ id }: { id: string }) {
  const job = useJob((s) => s.job)!;
  const users = usersOf(job, id);
  return users.length ? <p className="soft">used by {users.join(", ")}</p> : null;
}
