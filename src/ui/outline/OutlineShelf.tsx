"use client";
import { App, Button } from "antd";
import { useState } from "react";
import type { Evaluation } from "@/core/evaluate";
import type { Job } from "@/core/job";
import type { OutlineItem } from "@/core/outline/items";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { DrawingDialog } from "./DrawingDialog";
import css from "./Outline.module.css";
import { FilePick } from "../fields/FilePick";

/** Largest drawing that is read, bytes. */
const MOST_DRAWING = 20_000_000;

const freeName = (names: string[], wanted: string): string => {
  for (let i = 1; ; i++) {
    const n = i === 1 ? wanted : `${wanted} ${i}`;
    if (!names.some((x) => x.toLowerCase() === n.toLowerCase())) return n;
  }
};

const openOutline = (id: string) => useBench.getState().set({ openOutline: id, outlineDraft: null, view: "top" });

/** The job's outlines in a row under the route card; one opens in its editor. */
export function OutlineShelf() {
  const outlines = useJob((s) => s.job!.outlines);
  const edit = useJob((s) => s.edit);
  const start = () => {
    const id = freshId();
    const names = outlines.map((o) => o.name);
    edit([{ edit: "addOutlines", outlines: [{ id, name: freeName(names, "outline"), items: [] }] }], "outline");
    openOutline(id);
  };
  return (
    <div className={css.shelf} aria-label="Outlines" role="group">
      <span className="lab">outlines</span>
      {outlines.map((o) => (
        <OutlineButton key={o.id} outline={o} />
      ))}
      <Button size="small" onClick={start}>
        + outline
      </Button>
      <DrawingPick />
    </div>
  );
}

function OutlineButton({ outline }: { outline: Job["outlines"][number] }) {
  const found = useBench((s) => s.evaluated?.evaluation.outlines.find((o) => o.id === outline.id));
  return (
    <Button size="small" onClick={() => openOutline(outline.id)} title={found?.wire?.free.join("; ")}>
      {outline.name}
      {found && <OutlineState found={found} />}
    </Button>
  );
}

/** What is wrong with an outline, or how much of it is not held yet. */
function OutlineState({ found: { problems, wire } }: { found: Evaluation["outlines"][number] }) {
  if (problems.length > 0 || wire?.conflicts.length) return <span className="red"> ✗</span>;
  return wire?.freedom ? <small> {wire.freedom} free</small> : null;
}

/** Outlines out of a drawing file: it is chosen, looked at, and what is wanted of it brought in. */
function DrawingPick() {
  const edit = useJob((s) => s.edit);
  const { message } = App.useApp();
  const [drawing, setDrawing] = useState<{ name: string; text: string } | null>(null);
  const read = async (f: File) => {
    if (f.size > MOST_DRAWING) return void message.error(`${f.name} is too large: at most ${MOST_DRAWING / 1e6} MB`, 6);
    setDrawing({ name: f.name, text: await f.text() });
  };
  const bring = (found: { name: string; items: OutlineItem[] }[]) => {
    const names = useJob.getState().job!.outlines.map((o) => o.name);
    const outlines = found.map((o) => {
      const name = freeName(names, o.name);
      names.push(name);
      return { id: freshId(), name, items: o.items };
    });
    const why = edit([{ edit: "addOutlines", outlines }], `outlines of ${drawing!.name}`);
    if (why) return void message.error(why, 6);
    setDrawing(null);
    if (outlines.length === 1) openOutline(outlines[0].id);
  };
  return (
    <>
      <FilePick
        size="small"
        label="Drawing with outlines"
        accept=".dxf,.svg"
        title="chains of lines and arcs out of a drawing file"
        pick={(f) => void read(f)}
      >
        read DXF or SVG
      </FilePick>
      {drawing && <DrawingDialog key={drawing.name} drawing={drawing} bring={bring} cancel={() => setDrawing(null)} />}
    </>
  );
}
