"use client";
import type { Job, Row } from "@/core/job";
import { kindOf, type PlaneRef, type RowBody } from "@/core/rows";
import { toNumberText, type NumberText } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { PlaneAxes } from "./PlaneAxes";
import { PlaneBox } from "./planeFields";

/** Changes some of a row's values, each by its path. */
export type SetBody = (changes: Record<string, unknown>) => void;
/** What a number field of a row is taken by. */
export type SetNumber = (path: string) => (text: NumberText | undefined) => void;

/** A place at 0,0, as typed. */
export const origin = { x: toNumberText("0"), y: toNumberText("0") };

/** Where a leave row stands. */
export function PlaceEditor({ job, body, setBody }: { job: Job; body: RowBody; setBody: SetBody }) {
  const b = body as { at?: { x: NumberText; y: NumberText; z?: NumberText } };
  const set = (k: "x" | "y" | "z") => (t: NumberText | undefined) => {
    const at = { ...origin, ...b.at, ...(t === undefined ? {} : { [k]: t }) };
    if (t === undefined && k === "z") delete (at as { z?: NumberText }).z;
    setBody({ at });
  };
  return (
    <>
      <NumberBox
        job={job}
        label="At x"
        value={b.at?.x}
        quantity="coordinate"
        optional
        commit={(t) => (t === undefined ? setBody({ at: undefined }) : set("x")(t))}
      />
      <NumberBox
        job={job}
        label="At y"
        value={b.at?.y}
        quantity="coordinate"
        optional
        commit={(t) => (t === undefined ? setBody({ at: undefined }) : set("y")(t))}
      />
      <NumberBox job={job} label="At z" value={b.at?.z} quantity="coordinate" optional commit={set("z")} />
    </>
  );
}

/** The plane a row starts on, by its meaning, and how far below it. */
export function PlaneEditor({
  job,
  row,
  number,
  setBody,
  setNumber,
}: {
  job: Job;
  row: Row;
  number: number;
  setBody: SetBody;
  setNumber: SetNumber;
}) {
  const plane = (row.body as { plane: PlaneRef }).plane;
  return (
    <>
      <PlaneBox job={job} row={row} number={number} setBody={setBody} path="plane" label="On plane" />
      {kindOf(row.body).verb === "cut" && (
        <NumberBox
          job={job}
          label="Start below"
          value={plane.start}
          quantity="offset"
          optional={!kindOf(row.body).traits?.startNeeded}
          commit={setNumber("plane.start")}
        />
      )}
      <PlaneAxes rowId={row.id} plane={plane} />
    </>
  );
}
