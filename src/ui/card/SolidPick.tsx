"use client";
import { readRowLine } from "@/core/callout";
import { rowNames } from "@/core/job";
import { freshId } from "../bench/actions";
import { useStepFile } from "../common/useStepFile";
import { FilePick } from "../fields/FilePick";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./PlaneShelf.module.css";

/** Solids that come as STEP files: each is kept with the job and stands in the list as a row, to be cut further. */
export function SolidPick() {
  const solids = useJob((s) => s.job!.solids);
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const { isBusy, read: readFile, say } = useStepFile();
  const keep = async (f: File) => {
    const file = await readFile(f);
    if (!file) return;
    const { rows, solids: kept = [], stock } = useJob.getState().job!;
    const keeping = { edit: "setSolids" as const, solids: [...kept, file] };
    // A row, or the stock, that waits for this very file gets it; else the file stands as a row of its own.
    const named = [...rows.map((r) => r.body), ...(stock ? [stock] : [])];
    const isWaitedFor = named.some((n) => "file" in n && String(n.file).toLowerCase() === file.name.toLowerCase());
    const id = freshId();
    const read = readRowLine(`LEAVE SOLID "${file.name}"`, rowNames(rows), id);
    if (!read.ok) return say(read.error.message);
    const adding = isWaitedFor ? [] : [{ edit: "addRows" as const, rows: [read.row], at: rows.length }];
    const why = edit([keeping, ...adding], "solid from a STEP file");
    if (why) say(why);
    else if (!isWaitedFor) set({ selected: id, showRow: null });
  };
  return (
    <>
      <span className="lab">solids</span>
      <FilePick label="a STEP file" accept=".step,.stp" size="small" disabled={isBusy} pick={(f) => void keep(f)}>
        {isBusy ? "reading …" : "read STEP"}
      </FilePick>
      {solids?.length ? <small className={css.files}>{solids.map((s) => s.name).join(", ")}</small> : null}
    </>
  );
}
