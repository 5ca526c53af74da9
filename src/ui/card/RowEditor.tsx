"use client";
import { Button } from "antd";
import { groupedName, groupOf, ownName, usersOf, type Row } from "@/core/job";
import { kindOf, rowNumbers, type Field } from "@/core/rows";
import type { NumberText, Quantity } from "@/core/number";
import { getPath, setPath } from "@/core/grammar/grammar";
import { NumberBox } from "../common/NumberBox";
import { useJob } from "../store/jobStore";
import { useBench } from "../store/benchStore";
import { OutlineBox } from "../outline/OutlineShelf";
import { ChoiceBox, EdgesEditor, PatternEditor, PlaneEditor, PlaceEditor, ThreadBox } from "./editors";
import { PlaneBox, RowBox, RowsBox } from "./planeFields";
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
export function RowEditor({ row, number, duplicate, remove, move }: Props) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const kind = kindOf(row.body);
  const known = new Map(rowNumbers(row.body).map((n) => [n.path, n]));
  const setNumber = (path: string) => (text: NumberText | undefined) =>
    edit([{ edit: "setNumber", id: row.id, path, text }], kind.label);
  const setBody = (changes: Record<string, unknown>) => {
    const body = JSON.parse(JSON.stringify(row.body));
    for (const [k, v] of Object.entries(changes)) setPath(body, k, v);
    edit([{ edit: "setRow", id: row.id, body }], kind.label);
  };
  const named = (name: string) => edit([{ edit: "nameRow", id: row.id, name }], "name");
  const draw = (f: Field, i: number) => {
    switch (f.field) {
      case "number": {
        const n = known.get(f.path);
        if (!n && !(f.optional && parentThere(row.body, f.path))) return null;
        return (
          <NumberBox
            key={f.path}
            job={job}
            label={f.label}
            value={n?.text}
            quantity={n?.quantity ?? guess(f.path)}
            optional={f.optional}
            commit={setNumber(f.path)}
            autoFocus={i === 0}
          />
        );
      }
      case "choice":
        return (
          <ChoiceBox
            key={f.path}
            label={f.label}
            value={f.chosen ? f.chosen(row.body) : chosen(row.body, f.path)}
            options={f.options}
            choose={(o) => setBody(o.set)}
          />
        );
      case "thread":
        return (
          <ThreadBox
            key={f.path}
            value={String(getPath(row.body, f.path))}
            commit={(v) => setBody({ [f.path]: v })}
            balloons={job.balloons}
          />
        );
      case "outline":
        return (
          <OutlineBox
            key={f.path}
            label={f.label}
            value={String(getPath(row.body, f.path))}
            choose={(v) => setBody({ [f.path]: v })}
          />
        );
      case "place":
        return <PlaceEditor key="place" job={job} body={row.body} setBody={setBody} />;
      case "pattern":
        return <PatternEditor key="pattern" job={job} body={row.body} setBody={setBody} setNumber={setNumber} />;
      case "plane":
        if (f.path)
          return getPath(row.body, f.path) === undefined ? null : (
            <PlaneBox
              key={f.path}
              job={job}
              row={row}
              number={number}
              setBody={setBody}
              path={f.path}
              label={f.label ?? "Plane"}
            />
          );
        return <PlaneEditor key="plane" job={job} row={row} number={number} setBody={setBody} setNumber={setNumber} />;
      case "standing":
        return (
          <PlaneBox
            key="standing"
            job={job}
            row={row}
            number={number}
            setBody={setBody}
            path="plane"
            label="Stands on"
          />
        );
      case "row":
        return (
          <RowBox key={f.path} job={job} row={row} number={number} setBody={setBody} path={f.path} label={f.label} />
        );
      case "rows":
        return (
          <RowsBox key={f.path} job={job} row={row} number={number} setBody={setBody} path={f.path} label={f.label} />
        );
      case "edges":
        return <EdgesEditor key="edges" job={job} row={row} number={number} setBody={setBody} />;
    }
  };
  return (
    <div className={css.editor}>
      <div className={css.fields}>{kind.fields.map(draw)}</div>
      <UsedBy id={row.id} />
      <div className={css.actions}>
        <label className={css.name}>
          <span className="sr">Name of the row</span>
          <TextField
            value={ownName(row)}
            placeholder="name"
            maxLength={100}
            commit={(own) => named(groupedName(groupOf(row) ?? "", own))}
          />
        </label>
        <label className={css.name}>
          <span className="sr">Group of the row</span>
          <TextField
            value={groupOf(row) ?? ""}
            placeholder="group"
            maxLength={60}
            commit={(group) => named(groupedName(group, ownName(row)))}
          />
        </label>
        <Button
          size="small"
          onClick={() => edit([{ edit: "switchRow", id: row.id, off: !row.off }], row.off ? "switch on" : "switch off")}
        >
          {row.off ? "switch on" : "switch off"}
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
      </div>
    </div>
  );
}

/** What stands on this row. */
function UsedBy({ id }: { id: string }) {
  const job = useJob((s) => s.job)!;
  const users = usersOf(job, id);
  return users.length ? <p className="soft">used by {users.join(", ")}</p> : null;
}

/** A choice's value as text: `true` of a flag, `yes` of something that is there. */
function chosen(body: unknown, path: string): string {
  const v = getPath(body, path);
  return v === undefined ? "" : typeof v === "object" ? "yes" : String(v);
}
const parentThere = (body: unknown, path: string) =>
  !path.includes(".") || getPath(body, path.slice(0, path.lastIndexOf("."))) !== undefined;
const guess = (path: string): Quantity =>
  /turn|from|angle|point/i.test(path) ? "angle" : /count|sides/.test(path) ? "count" : "length";
