"use client";
import { Button } from "antd";
import { useMemo } from "react";
import type { LengthUnit } from "@/core/number";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { switchedCorners, treatsCorners } from "@/core/outline/items";
import { tieDown } from "@/core/outline/wire";
import { outlineDxf, outlineDxfNewer } from "@/io/dxfOutlines";
import { outlineSvg } from "@/io/svg";
import { shownOutline } from "../stage/wireframe";
import { saveBlob } from "../common/saveBlob";
import css from "./Outline.module.css";
import type { OpenOutline } from "./useOutline";

/** What is done to the outline as a whole. */
export function Tools({ open }: { open: OpenOutline }) {
  const { outline, drawn, scope, put } = open;
  const wire = drawn?.wire;
  const mendable = useMendable(open);
  const rounds = outline.items.filter(treatsCorners);
  const on = rounds.some((r) => !r.off);
  return (
    <div className={css.tools}>
      {wire && wire.freedom > 0 && !wire.conflicts.length && (
        <Button
          size="small"
          onClick={() => put([...outline.items, ...tieDown(outline.items, scope)], "tie down")}
          title="proposes a dimension for everything that is free; they have no source until somebody vouches for them"
        >
          tie down what is left
        </Button>
      )}
      {mendable && (
        <Button
          size="small"
          onClick={() => put([...outline.items, { item: "mend" }], "mend")}
          title="joins ends that nearly meet, drops what is doubled or has no length, parts what crosses itself"
        >
          mend
        </Button>
      )}
      {rounds.length > 0 && (
        <Button size="small" onClick={() => put(switchedCorners(outline.items, !on), "corners")}>
          corners {on ? "off" : "on"}
        </Button>
      )}
      <Files open={open} />
      <Button size="small" onClick={open.remove}>
        delete
      </Button>
    </div>
  );
}

/** Whether mending would take away any of what is wrong. */
function useMendable({ outline, job, scope, shapes, drawn }: OpenOutline): boolean {
  const wrong = drawn?.defects.length ?? 0;
  return useMemo(() => {
    if (!wrong) return false;
    const items = [...outline.items, { item: "mend" as const }];
    const e = shownOutline(job, outline.id, { ...outline, items }, scope, shapes);
    return Boolean(e && e.problems.length === 0 && e.defects.length < wrong);
  }, [outline, job, scope, shapes, wrong]);
}

interface FileKind {
  label: string;
  title?: string;
  ending: string;
  type: string;
  write(e: EvaluatedOutline, unit: LengthUnit): string;
}
const files: FileKind[] = [
  {
    label: "save DXF",
    title: "R12: lines, arcs and circles, which every reader takes",
    ending: "dxf",
    type: "image/vnd.dxf",
    write: (e, unit) => outlineDxf([e], unit),
  },
  {
    label: "as polylines",
    title: "2007: each chain one polyline, arcs as bulges",
    ending: "dxf",
    type: "image/vnd.dxf",
    write: (e, unit) => outlineDxfNewer([e], unit),
  },
  { label: "save SVG", ending: "svg", type: "image/svg+xml", write: (e) => outlineSvg(e) },
];

function Files({ open: { drawn, job, outline } }: { open: OpenOutline }) {
  const isEmpty = !drawn || (!drawn.region.length && !drawn.open.length);
  const name = outline.name.replace(/[^\w-]+/g, "-").toLowerCase();
  const save = (f: FileKind) =>
    saveBlob(new Blob([f.write(drawn!, job.unit)], { type: f.type }), `${name}.${f.ending}`);
  return files.map((f) => (
    <Button key={f.label} size="small" disabled={isEmpty} title={f.title} onClick={() => save(f)}>
      {f.label}
    </Button>
  ));
}
