"use client";
import type { ReactNode } from "react";
import type { Job, Row } from "@/core/job";
import { kindOf, quantityAt, type Field } from "@/core/rows";
import { deriveSources, numberScope, reportNumbers } from "@/core/engine/numbers";
import { getPath } from "@/core/grammar/grammar";
import { NumberBox } from "../common/NumberBox";
import { OutlineBox } from "../outline/OutlineBox";
import { CopyEditor } from "./CopyEditor";
import { EdgesEditor } from "./EdgesEditor";
import { PlaceEditor, PlaneEditor, type SetBody, type SetNumber } from "./editors";
import { ChoiceBox } from "../fields/ChoiceBox";
import { PatternEditor } from "./PatternEditor";
import { PlaneBox, RowBox, RowsBox } from "./planeFields";
import { ThreadBox } from "./ThreadBox";

interface Editing {
  job: Job;
  row: Row;
  number: number;
  setBody: SetBody;
  setNumber: SetNumber;
}

type Drawing = { [K in Field["field"]]: (field: Extract<Field, { field: K }>, editing: Editing) => ReactNode };

const text = (row: Row, path: string) => String(getPath(row.body, path));

/** How each sort of field is edited. */
const drawn: Drawing = {
  number: (f, editing) => <RowNumber field={f} {...editing} />,
  choice: (f, { row, setBody }) => (
    <ChoiceBox
      label={f.label}
      value={f.chosen ? f.chosen(row.body) : chosen(row.body, f.path)}
      options={f.options}
      choose={(o) => setBody(o.set)}
    />
  ),
  thread: (f, { job, row, setBody }) => (
    <ThreadBox value={text(row, f.path)} commit={(v) => setBody({ [f.path]: v })} balloons={job.balloons} />
  ),
  outline: (f, { row, setBody }) => (
    <OutlineBox label={f.label} value={text(row, f.path)} choose={(v) => setBody({ [f.path]: v })} />
  ),
  place: (_, { job, row, setBody }) => <PlaceEditor job={job} body={row.body} setBody={setBody} />,
  pattern: (_, { job, row, setBody, setNumber }) => (
    <PatternEditor job={job} body={row.body} setBody={setBody} setNumber={setNumber} />
  ),
  plane: (f, editing) => {
    if (!f.path) return <PlaneEditor {...editing} />;
    const there = getPath(editing.row.body, f.path) !== undefined;
    return there && <PlaneBox {...editing} path={f.path} label={f.label ?? "Plane"} />;
  },
  standing: (_, editing) => <PlaneBox {...editing} path="plane" label="Stands on" />,
  row: (f, editing) => <RowBox {...editing} path={f.path} label={f.label} />,
  rows: (f, editing) => <RowsBox {...editing} path={f.path} label={f.label} />,
  copy: (_, { job, row }) => <CopyEditor job={job} row={row} />,
  edges: (_, editing) => <EdgesEditor {...editing} />,
};

function draw<K extends Field["field"]>(field: Extract<Field, { field: K }>, editing: Editing): ReactNode {
  return drawn[field.field as K](field, editing);
}

/** A row's numbers and choices, in the order a print gives them. */
export function RowFields(editing: Editing) {
  const { body } = editing.row;
  const { fields, idle } = kindOf(body);
  const unused = idle?.(body) ?? [];
  const used = fields.filter((f) => !unused.includes(f.field));
  return used.map((field, i) => (
    <RowField key={"path" in field ? field.path : field.field} field={field} {...editing} first={i === 0} />
  ));
}

const RowField = ({ field, first, ...editing }: Editing & { field: Field; first: boolean }) =>
  field.field === "number" ? <RowNumber field={field} first={first} {...editing} /> : draw(field, editing);

interface RowNumberProps extends Editing {
  field: Extract<Field, { field: "number" }>;
  first?: boolean;
}

/** A number that the row has, or may have. */
function RowNumber({ field, first, job, row, setNumber }: RowNumberProps) {
  const text = getPath(row.body, field.path);
  const quantity = quantityAt(row.body, field.path);
  if (quantity === undefined || (text === undefined && !(field.optional && parentThere(row.body, field.path))))
    return null;
  return (
    <NumberBox
      job={job}
      printedBy={printersOf(row, field.path, job)}
      label={field.label}
      value={text}
      quantity={quantity}
      optional={field.optional}
      commit={setNumber(field.path)}
      autoFocus={first}
    />
  );
}

/** Balloons that a number of a row comes from, cited or not. */
function printersOf(row: Row, path: string, job: Job): number[] {
  const scope = numberScope(job);
  const numbers = deriveSources(row.body, reportNumbers(row.body, scope), job, scope);
  return numbers.find((n) => n.path === path)?.value?.cites ?? [];
}

/** A choice's value as text: `true` of a flag, `yes` of something that is there. */
function chosen(body: unknown, path: string): string {
  const value = getPath(body, path);
  if (value === undefined) return "";
  return typeof value === "object" ? "yes" : String(value);
}

const parentThere = (body: unknown, path: string) =>
  !path.includes(".") || getPath(body, path.slice(0, path.lastIndexOf("."))) !== undefined;
