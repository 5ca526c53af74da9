"use client";
import { App } from "antd";
import { useState } from "react";
import { readRowLine } from "@/core/callout";
import { rowNames } from "@/core/job";
import { freshId } from "../bench/actions";
import { FilePick } from "../fields/FilePick";
import { api, Refused } from "../store/api";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./PlaneShelf.module.css";

const MAX = 20_000_000;

/** Solids that come as STEP files: each is kept with the job and stands in the list as a row, to be cut further. */
export function SolidPick() {
  const solids = useJob((s) => s.job!.solids);
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const { message } = App.useApp();
  const [isBusy, setBusy] = useState(false);
  const say = (text: string) => void message.error(text, 6);
  const keep = async (f: File) => {
    if (f.size > MAX) return say(`${f.name} has ${(f.size / 1e6).toFixed(1)} MB; at most ${MAX / 1e6} MB are kept`);
    setBusy(true);
    try {
      const { hash, mediaType } = await api.attach(f);
      if (mediaType !== "model/step") return say(`${f.name} is no STEP file`);
      const kept = useJob.getState().job!.solids ?? [];
      const file = { name: freeName(f.name, kept), attachment: hash };
      const keeping = { edit: "setSolids" as const, solids: [...kept, file] };
      // A row that waits for this very file gets it; else the file stands as a row of its own.
      const { rows } = useJob.getState().job!;
      const isWaitedFor = rows.some((r) => "file" in r.body && r.body.file.toLowerCase() === file.name.toLowerCase());
      const id = freshId();
      const read = readRowLine(`LEAVE SOLID "${file.name}"`, rowNames(rows), id);
      if (!read.ok) return say(read.error.message);
      const adding = isWaitedFor ? [] : [{ edit: "addRows" as const, rows: [read.row], at: rows.length }];
      const why = edit([keeping, ...adding], "solid from a STEP file");
      if (why) say(why);
      else if (!isWaitedFor) set({ selected: id, showRow: null });
    } catch (e) {
      say(e instanceof Refused ? `${f.name}: ${e.message}` : "the server does not answer; the file was not kept");
    } finally {
      setBusy(false);
    }
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

/** A name no other file of the job has: the same name is another file until it is looked into. */
function freeName(wanted: string, kept: { name: string }[]): string {
  const plain = wanted.replace(/"/g, "”").slice(0, 110) || "solid.step";
  const taken = new Set(kept.map((s) => s.name.toLowerCase()));
  for (let i = 1; ; i++) {
    const name = i === 1 ? plain : plain.replace(/(\.\w+)?$/, (end) => ` ${i}${end}`);
    if (!taken.has(name.toLowerCase())) return name;
  }
}
