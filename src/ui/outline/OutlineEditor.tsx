"use client";
import { Button, Input, type InputRef } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { rowNames, type Job } from "@/core/job";
import type { PartShapes } from "@/core/outline/evaluateOutline";
import { namedIn, readOutlineLine, writeOutlineItem, type RowNames } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import { type NumberScope, showArea, showLength, unitOf } from "@/core/number";
import { outlineForms, type OutlineItem, type OutlineText } from "@/core/outline/items";
import { conflictWords, tieDown } from "@/core/outline/wire";
import { outlineDxf, outlineDxfNewer } from "@/io/dxfOutlines";
import { outlineSvg } from "@/io/svg";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { shownOutline } from "../stage/wireframe";
import css from "./Outline.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";
import { TextField } from "../fields/TextField";
import { useDraft } from "../fields/useDraft";

const isStep = (i: OutlineItem) => i.item === "line" || i.item === "arc";
const treats = (i: OutlineItem): i is Extract<OutlineItem, { item: "corners" | "fullRound" }> =>
  i.item === "corners" || i.item === "fullRound";

/** Whether mending would take away any of what is wrong. */
function mended(
  outline: OutlineText,
  job: Job,
  scope: NumberScope,
  shapes: PartShapes | undefined,
  now: number,
): boolean {
  const e = shownOutline(job, outline.id, { ...outline, items: [...outline.items, { item: "mend" }] }, scope, shapes);
  return Boolean(e && e.problems.length === 0 && e.defects.length < now);
}

/**
 * One outline as its lines: a step, relation, dimension or shape each. The picture follows what is typed; what is
 * free, and what contradicts, is said in words.
 */
export function OutlineEditor({ outline }: { outline: OutlineText }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const draft = useBench((s) => s.outlineDraft);
  const [line, setLine] = useState("");
  const [problem, setProblem] = useState("");
  const spot = useBench((s) => s.outlineSpot);
  const entry = useRef<InputRef>(null);
  const scope = useMemo(() => numberScope(job), [job]);
  const named = useMemo(() => namedIn(job), [job]);
  const names = useMemo(() => rowNames(job.rows), [job.rows]);
  const read = line.trim() ? readOutlineLine(line, names, named) : null;
  const shapes = useBench((s) => s.evaluated?.evaluation.solved.shapes);
  const e = useMemo(() => shownOutline(job, outline.id, draft, scope, shapes), [job, outline.id, draft, scope, shapes]);
  const wrongs = e?.defects.length ?? 0;
  const mendable = useMemo(
    () => wrongs > 0 && mended(outline, job, scope, shapes, wrongs),
    [outline, job, scope, shapes, wrongs],
  );
  useEffect(() => {
    entry.current?.focus();
  }, []);
  // A place picked on the stage goes into the line: as a new step, or where a place is being typed.
  useEffect(() => {
    if (!spot) return;
    setLine((l) =>
      l.trim() === ""
        ? `${outline.items.length ? "LINE TO" : "START"} ${spot.text}`
        : `${l.replace(/\s*-?[\d.]+,-?[\d.]+\s*$/, "").trimEnd()} ${spot.text}`,
    );
    set({ outlineSpot: null });
    entry.current?.focus();
  }, [spot]);
  // The picture follows the line that is being typed.
  useEffect(() => {
    set({ outlineDraft: read?.ok ? { ...outline, items: [...outline.items, read.item] } : null });
    return () => set({ outlineDraft: null });
  }, [line, outline]);
  const put = (items: OutlineItem[], label = "outline") =>
    setProblem(edit([{ edit: "setOutline", id: outline.id, outline: { ...outline, items } }], label) ?? "");
  const add = () => {
    if (!read?.ok) return;
    put([...outline.items, read.item]);
    setLine("");
  };
  const close = () => set({ openOutline: null, outlineDraft: null, outlineSpot: null });
  const wire = e?.wire;
  const conflicts = wire?.conflicts ?? [];
  const rounds = outline.items.filter(treats);
  const len = (mm: number) => showLength(mm, job.unit, unitOf[job.unit].places.exact);
  const area = (mm2: number) => showArea(mm2, job.unit);
  let step = 0;
  const save = (kind: "dxf" | "newer" | "svg") => {
    if (!e) return;
    const url = URL.createObjectURL(
      kind === "svg"
        ? new Blob([outlineSvg(e)], { type: "image/svg+xml" })
        : new Blob([(kind === "newer" ? outlineDxfNewer : outlineDxf)([e], job.unit)], { type: "image/vnd.dxf" }),
    );
    Object.assign(document.createElement("a"), {
      href: url,
      download: `${outline.name.replace(/[^\w-]+/g, "-").toLowerCase()}.${kind === "svg" ? "svg" : "dxf"}`,
    }).click();
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
  };
  return (
    <section className={css.editor} aria-label="Outline">
      <header>
        <span className="lab">outline</span>
        <TextField
          aria-label="Name of the outline"
          value={outline.name}
          maxLength={120}
          commit={(name) => {
            if (name)
              setProblem(
                edit([{ edit: "setOutline", id: outline.id, outline: { ...outline, name } }], "outline") ?? "",
              );
          }}
        />
        <Button size="small" onClick={close}>
          back to the route card
        </Button>
      </header>
      <p className={css.state} data-testid="outline-state">
        {conflicts.length
          ? conflicts.map((c) => (
              <span className="red" key={c.words}>
                ✗ {conflictWords(c)}
              </span>
            ))
          : wire && wire.segments.length
            ? wire.freedom
              ? `${wire.freedom} free, in pencil: ${wire.free.slice(0, 4).join("; ")}${wire.free.length > 4 ? " …" : ""}`
              : "fully located, in ink"
            : e?.region.length
              ? "fully located, in ink"
              : "nothing yet: START 0,0 then LINE TO X 40, or CIRCLE ⌀20"}
      </p>
      <ol className={css.lines} aria-label="Lines of the outline">
        {outline.items.map((it, i) => {
          const n = isStep(it) ? ++step : 0;
          const said = e?.problems.find((p) => p.item === i);
          return (
            <ItemLine
              key={`${i}:${writeOutlineItem(it, names)}`}
              item={it}
              label={n ? `${n}` : ""}
              wrong={said ? `${said.message}${said.expected ? `; expected: ${said.expected}` : ""}` : ""}
              clash={conflicts.some((c) => c.items.includes(i))}
              droppable={conflicts.some((c) => c.drop.includes(i))}
              repeats={wire?.redundant.includes(i) ?? false}
              names={names}
              named={named}
              change={(next) => put(outline.items.map((x, k) => (k === i ? next : x)))}
              remove={() =>
                put(
                  outline.items.filter((_, k) => k !== i),
                  "drop",
                )
              }
              typing={(next) =>
                set({
                  outlineDraft: next ? { ...outline, items: outline.items.map((x, k) => (k === i ? next : x)) } : null,
                })
              }
            />
          );
        })}
      </ol>
      <form
        className={`${css.entry} ${read && !read.ok ? css.bad : ""}`}
        onSubmit={(ev) => {
          ev.preventDefault();
          add();
        }}
      >
        <Input
          variant="borderless"
          ref={entry}
          aria-label="Next line of the outline"
          value={line}
          onChange={(ev) => setLine(ev.target.value)}
          placeholder={outline.items.length ? "LINE TO Y 30" : "START 0,0"}
          spellCheck={false}
          autoComplete="off"
          maxLength={400}
        />
        <Button htmlType="submit" size="small" disabled={!read?.ok}>
          add
        </Button>
      </form>
      <p className={css.says}>
        {problem ? (
          <span className="red">{problem}</span>
        ) : !read ? (
          <Choice
            label="Lines to start from"
            placeholder="type a line, pick a place on the stage, or start from an example …"
            value={null}
            choose={(text) => {
              setLine(text);
              entry.current?.focus();
            }}
            options={outlineForms.map((g) => ({
              label: g.group,
              options: g.lines.map((l) => ({ value: l.text, label: `${l.text}${l.what && ` — ${l.what}`}` })),
            }))}
          />
        ) : read.ok ? (
          "Enter adds it"
        ) : (
          <span className="red">
            at character {read.error.column}: {read.error.message}; expected: {read.error.expected}
          </span>
        )}
      </p>
      <div className={css.tools}>
        {wire && wire.freedom > 0 && !conflicts.length && (
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
          <Button
            size="small"
            onClick={() => {
              const off = rounds.some((r) => !r.off);
              put(
                outline.items.map((it) => {
                  if (!treats(it)) return it;
                  const { off: _, ...rest } = it;
                  return off ? { ...rest, off: true as const } : rest;
                }),
                "corners",
              );
            }}
          >
            corners {rounds.some((r) => !r.off) ? "off" : "on"}
          </Button>
        )}
        <Button
          size="small"
          disabled={!e || (!e.region.length && !e.open.length)}
          onClick={() => save("dxf")}
          title="R12: lines, arcs and circles, which every reader takes"
        >
          save DXF
        </Button>
        <Button
          size="small"
          disabled={!e || (!e.region.length && !e.open.length)}
          onClick={() => save("newer")}
          title="2007: each chain one polyline, arcs as bulges"
        >
          as polylines
        </Button>
        <Button size="small" disabled={!e || (!e.region.length && !e.open.length)} onClick={() => save("svg")}>
          save SVG
        </Button>
        <Button
          size="small"
          onClick={() => {
            const why = edit([{ edit: "deleteOutline", id: outline.id }], "delete outline");
            if (why) setProblem(why);
            else close();
          }}
        >
          delete
        </Button>
      </div>
      {e?.box && (
        <dl className={css.figures}>
          <dt>area</dt>
          <dd className="num">{e.region.length ? area(e.area) : "open"}</dd>
          <dt>perimeter</dt>
          <dd className="num">{len(e.perimeter)}</dd>
          <dt>box</dt>
          <dd className="num">
            {len(e.box.max.x - e.box.min.x)} × {len(e.box.max.y - e.box.min.y)}
          </dd>
          <dt>centroid</dt>
          <dd className="num">{e.centroid ? `${len(e.centroid.x)}, ${len(e.centroid.y)}` : "—"}</dd>
        </dl>
      )}
      {e && e.defects.length > 0 && (
        <ul className={css.wrong} aria-label="What is wrong with the outline">
          {e.defects.slice(0, 6).map((d) => (
            <li key={d.words} className={d.kind === "open-end" ? undefined : "red"}>
              {d.words}
            </li>
          ))}
          {e.defects.length > 6 && <li>… {e.defects.length - 6} more</li>}
        </ul>
      )}
    </section>
  );
}

interface LineProps {
  item: OutlineItem;
  label: string;
  wrong: string;
  clash: boolean;
  droppable: boolean;
  repeats: boolean;
  names: RowNames;
  named: ReadonlySet<string>;
  change: (i: OutlineItem) => void;
  remove: () => void;
  typing: (i: OutlineItem | null) => void;
}

/** One line; wrong text stays as it was typed. */
function ItemLine({ item, label, wrong, clash, droppable, repeats, names, named, change, remove, typing }: LineProps) {
  const text = writeOutlineItem(item, names);
  const readLine = (line: string) => readOutlineLine(line, names, named);
  const { shown, drafting, bind } = useDraft(
    text,
    (line) => {
      const r = readLine(line);
      if (r.ok) change(r.item);
    },
    {
      problem: (line) => (readLine(line).ok ? null : "no line of an outline"),
      typing: (line) => {
        const r = line === null ? null : readLine(line);
        typing(r?.ok ? r.item : null);
      },
    },
  );
  const read = drafting ? readLine(shown) : null;
  return (
    <li className={clash ? css.clash : undefined} data-clash={clash}>
      <b>{label}</b>
      <Input
        variant="borderless"
        size="small"
        spellCheck={false}
        maxLength={400}
        aria-label={`line ${label || text}`}
        aria-invalid={Boolean(read && !read.ok) || wrong !== ""}
        {...bind}
      />
      {droppable ? (
        <Button size="small" aria-label={`drop line ${label || text}`} onClick={remove}>
          drop
        </Button>
      ) : (
        <Bare className="faint" aria-label={`drop line ${label || text}`} onClick={remove}>
          ×
        </Bare>
      )}
      {(wrong || (read && !read.ok) || repeats) && (
        <small className={repeats && !wrong && (!read || read.ok) ? undefined : "red"}>
          {read && !read.ok
            ? `at character ${read.error.column}: ${read.error.message}; expected: ${read.error.expected}`
            : wrong || "says again what the others say"}
        </small>
      )}
    </li>
  );
}
