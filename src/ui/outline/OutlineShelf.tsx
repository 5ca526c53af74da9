"use client";
import { App, Button } from "antd";
import { useId, useState } from "react";
import type { OutlineItem } from "@/core/outline/items";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import box from "../common/NumberBox.module.css";
import { DrawingDialog } from "./DrawingDialog";
import css from "./Outline.module.css";
import { Choice, asWritten } from "../fields/Choice";
import { FilePick } from "../fields/FilePick";
import { useShallow } from "zustand/react/shallow";

const freeName = (names: string[], wanted: string): string => {
  for (let i = 1; ; i++) {
    const n = i === 1 ? wanted : `${wanted} ${i}`;
    if (!names.some((x) => x.toLowerCase() === n.toLowerCase())) return n;
  }
};

/** The job's outlines in a row under the route card; one opens in its editor. */
export function OutlineShelf() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { evaluated, set } = useBench(useShallow((s) => ({ evaluated: s.evaluated, set: s.set })));
  const { message } = App.useApp();
  const [drawing, setDrawing] = useState<{ name: string; text: string } | null>(null);
  const open = (id: string) => set({ openOutline: id, outlineDraft: null, view: "top" });
  const start = () => {
    const id = freshId();
    edit(
      [
        {
          edit: "addOutlines",
          outlines: [
            {
              id,
              name: freeName(
                job.outlines.map((o) => o.name),
                "outline",
              ),
              items: [],
            },
          ],
        },
      ],
      "outline",
    );
    open(id);
  };
  const read = async (f: File) => {
    if (f.size > 20_000_000) return void message.error(`${f.name} is too large: at most 20 MB`, 6);
    setDrawing({ name: f.name, text: await f.text() });
  };
  const bring = (found: { name: string; items: OutlineItem[] }[]) => {
    const names = job.outlines.map((o) => o.name);
    const outlines = found.map((o) => {
      const name = freeName(names, o.name);
      names.push(name);
      return { id: freshId(), name, items: o.items };
    });
    const why = edit([{ edit: "addOutlines", outlines }], `outlines of ${drawing!.name}`);
    if (why) return void message.error(why, 6);
    setDrawing(null);
    if (outlines.length === 1) open(outlines[0].id);
  };
  return (
    <div className={css.shelf} aria-label="Outlines" role="group">
      <span className="lab">outlines</span>
      {job.outlines.map((o) => {
        const e = evaluated?.evaluation.outlines.find((x) => x.id === o.id);
        const bad = e && (e.problems.length > 0 || e.wire?.conflicts.length);
        return (
          <Button key={o.id} size="small" onClick={() => open(o.id)} title={e?.wire?.free.join("; ")}>
            {o.name}
            {bad ? <span className="red"> ✗</span> : e?.wire?.freedom ? <small> {e.wire.freedom} free</small> : ""}
          </Button>
        );
      })}
      <Button size="small" onClick={start}>
        + outline
      </Button>
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
    </div>
  );
}

/** Which outline a row is made from. */
export function OutlineBox({ label, value, choose }: { label: string; value: string; choose: (name: string) => void }) {
  const job = useJob((s) => s.job)!;
  const id = useId();
  const there = job.outlines.some((o) => o.name.toLowerCase() === value.toLowerCase());
  return (
    <div className={box.field}>
      <label htmlFor={id}>{label}</label>
      <Choice
        id={id}
        placeholder={`${value} (gone)`}
        value={there ? job.outlines.find((o) => o.name.toLowerCase() === value.toLowerCase())!.name : null}
        choose={choose}
        options={asWritten(job.outlines.map((o) => o.name))}
      />
    </div>
  );
}
