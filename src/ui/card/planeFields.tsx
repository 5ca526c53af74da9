"use client";
import { rowNames, type Job, type Row } from "@/core/job";
import { edgesText, namedIn, readEdgesText, readPlaneText, readRowsText, rowsText } from "@/core/callout";
import { wallsOf } from "@/core/engine/rowShape";
import { getPath } from "@/core/grammar/grammar";
import { kindOf, writePlane, type EdgeText, type PlaneRef } from "@/core/rows";
import { WordsBox } from "../fields/WordsBox";
import { useBench } from "../store/benchStore";

type SetBody = (changes: Record<string, unknown>) => void;
interface Props {
  job: Job;
  row: Row;
  number: number;
  setBody: SetBody;
}

/** Flats that are offered by number; of more sides one types it. */
const MOST_FLATS = 12;

/** The planes a row may name: the sides, what the rows before it give, and those with names of their own. */
function usePlaneOptions(job: Job, number: number): string[] {
  const solved = useBench((s) => s.evaluated?.evaluation.solved.rows);
  const ofRow = (r: Row, n: number): string[] => {
    const { verb } = kindOf(r.body);
    if (verb !== "leave") return verb === "cut" && "plane" in r.body ? [`FLOOR OF ${n}`] : [];
    const shape = solved?.find((s) => s.row.id === r.id)?.planes?.shape;
    const flats = shape ? Math.min(MOST_FLATS, wallsOf(shape).length) : 0;
    return [
      ...["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT"].map((s) => `${s} OF ${n}`),
      ...Array.from({ length: flats }, (_, k) => `SIDE ${k + 1} OF ${n}`),
    ];
  };
  return [
    "TOP",
    "BOTTOM",
    "FRONT",
    "BACK",
    "LEFT",
    "RIGHT",
    ...(job.planes ?? []).map((p) => `PLANE "${p.name}"`),
    ...job.rows.slice(0, number - 1).flatMap((r, i) => ofRow(r, i + 1)),
  ];
}

/** A plane by its meaning: typed, chosen, or picked on the stage. */
export function PlaneBox({ job, row, number, setBody, path, label }: Props & { path: string; label: string }) {
  const names = rowNames(job.rows);
  const plane = getPath(row.body, path) as PlaneRef | undefined;
  const options = usePlaneOptions(job, number);
  const set = useBench((s) => s.set);
  const picking = useBench((s) => s.planePick?.row === row.id && s.planePick.path === path);
  const kept = plane?.start === undefined ? {} : { start: plane.start };
  return (
    <WordsBox
      label={label}
      value={plane ? writePlane(plane, names) : ""}
      placeholder="Z0"
      options={options}
      read={(text) => readPlaneText(text, names)}
      commit={(p) => setBody({ [path]: { ...p, ...kept } })}
      pick={{
        label: picking ? "pick a flat on the stage, or press again to give up" : "pick it on the stage",
        on: picking,
        start: () => set({ planePick: picking ? null : { row: row.id, path } }),
      }}
    />
  );
}

/** Edges in the card's words; a single one is picked on the stage. */
export function EdgesBox({ job, row, setBody }: Props) {
  const names = rowNames(job.rows);
  const { edges } = row.body as { edges: EdgeText[] };
  const set = useBench((s) => s.set);
  const picking = useBench((s) => s.edgePick === row.id);
  return (
    <WordsBox
      wide
      label="Edges, as the card writes them"
      value={edgesText(edges, names)}
      read={(text) => readEdgesText(text, names, namedIn(job))}
      commit={(list) => setBody({ edges: list })}
      pick={{
        label: picking ? "pick near an edge, or press again to give up" : "add the edge that is picked on the stage",
        on: picking,
        start: () => set({ edgePick: picking ? null : row.id }),
      }}
    />
  );
}

/** The rows a repeat or a mirror takes. */
export function RowsBox({ job, row, setBody, path, label }: Props & { path: string; label: string }) {
  const names = rowNames(job.rows);
  return (
    <WordsBox
      label={label}
      value={rowsText(getPath(row.body, path) as string[], names)}
      read={(text) => readRowsText(text, names)}
      commit={(rows) => setBody({ [path]: rows })}
    />
  );
}

/** Another row by its number: the shaft a thread is on. */
export function RowBox({ job, row, number, setBody, path, label }: Props & { path: string; label: string }) {
  const names = rowNames(job.rows);
  const id = getPath(row.body, path) as string | undefined;
  const left = job.rows.slice(0, number - 1).flatMap((r, i) => (kindOf(r.body).verb === "leave" ? [`${i + 1}`] : []));
  return (
    <WordsBox
      label={label}
      value={id === undefined ? "" : String(names.numberOf(id))}
      placeholder="row"
      options={left}
      read={(text) => readRowsText(text, names)}
      commit={([first]) => setBody({ [path]: first })}
    />
  );
}
