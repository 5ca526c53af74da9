"use client";
import { Checkbox } from "antd";
import { writeRow } from "@/core/callout";
import { rowNames, type Job, type Row } from "@/core/job";
import { kindOf, type EdgeText } from "@/core/rows";
import type { SetBody } from "./editors";
import { EdgesBox } from "./planeFields";
import css from "./Card.module.css";

interface Offered {
  key: string;
  label: string;
  title?: string;
  edge: EdgeText;
}

const ofSolid: Offered[] = [
  { key: "outerTop", label: "outer top", edge: { edge: "outerTop" } },
  { key: "outerBottom", label: "outer bottom", edge: { edge: "outerBottom" } },
  { key: "vertical", label: "upright corners", edge: { edge: "vertical" } },
  { key: "allSharp", label: "all sharp", edge: { edge: "allSharp" } },
];

/** The edges that the cuts before this row have. */
function ofRowsBefore(job: Job, number: number): Offered[] {
  const names = rowNames(job.rows);
  const cuts = job.rows.slice(0, number - 1).filter((r) => kindOf(r.body).verb === "cut" && "plane" in r.body);
  return cuts.flatMap((r) =>
    (["mouthOf", "floorOf"] as const).map((of) => ({
      key: `${of}${r.id}`,
      label: `${of === "mouthOf" ? "mouth" : "floor"} of ${names.numberOf(r.id)}`,
      title: writeRow(r, names),
      edge: { edge: of, row: r.id },
    })),
  );
}

const keyOf = (e: EdgeText) => `${e.edge}${"row" in e ? e.row : ""}`;

/** Edges by meaning, as boxes to tick. */
export function EdgesEditor({ job, row, number, setBody }: { job: Job; row: Row; number: number; setBody: SetBody }) {
  const edges = (row.body as { edges: EdgeText[] }).edges;
  const has = (key: string) => edges.some((e) => keyOf(e) === key);
  const turn = (o: Offered, on: boolean) =>
    setBody({ edges: on ? [...edges, o.edge] : edges.filter((e) => keyOf(e) !== o.key) });
  return (
    <fieldset className={css.edges}>
      <legend>Edges</legend>
      {[...ofSolid, ...ofRowsBefore(job, number)].map((o) => (
        <Checkbox
          key={o.key}
          title={o.title}
          checked={has(o.key)}
          disabled={has(o.key) && edges.length === 1}
          onChange={(e) => turn(o, e.target.checked)}
        >
          {o.label}
        </Checkbox>
      ))}
      <EdgesBox job={job} row={row} number={number} setBody={setBody} />
    </fieldset>
  );
}
