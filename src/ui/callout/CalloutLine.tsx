"use client";
import { Input, type InputRef } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { namedIn, readRowLine } from "@/core/callout";
import { rowNames, type Balloon, type Row } from "@/core/job";
import { threadMeant } from "@/core/balloons/threads";
import { kindOf, rowKinds } from "@/core/rows";
import { showLength } from "@/core/number";
import { numberScope, reportNumbers } from "@/core/engine/numbers";
import { findThread } from "@/core/tables";
import { ghostOf } from "../engine/useEngine";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./CalloutLine.module.css";
import { Choice } from "../fields/Choice";
import { useShallow } from "zustand/react/shallow";

/**
 * Type what the print says; see the ghost on the stage; press Enter.
 * Until the text is whole it says what comes next, at the character where it stands.
 */
export function CalloutLine() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { selected, set } = useBench(useShallow((s) => ({ selected: s.selected, set: s.set })));
  const [text, setText] = useState("");
  const input = useRef<InputRef>(null);
  const names = useMemo(() => rowNames(job.rows), [job.rows]);
  const typed = text.trim();
  // The verb may be left out: what cannot be a leave row is a cut.
  const line = useMemo(() => {
    if (!typed) return null;
    if (/^(leave|cut|off)\b/i.test(typed)) return { read: readRowLine(text, names, "ghost", namedIn(job)), shift: 0 };
    const prefix = job.rows.length === 0 ? "LEAVE " : "CUT ";
    return { read: readRowLine(prefix + text, names, "ghost", namedIn(job)), shift: prefix.length };
  }, [text, typed, names, job]);
  const row = line?.read.ok ? line.read.row : null;
  const error = line && !line.read.ok ? line.read.error : null;
  const column = error ? Math.max(0, error.column - 1 - line!.shift) : 0;
  const numbers = useMemo(() => (row ? reportNumbers(row.body, numberScope(job)) : []), [row, job]);
  const badNumber = numbers.find((n) => n.problem);
  const at = selected ? job.rows.findIndex((r) => r.id === selected) + 1 || job.rows.length : job.rows.length;

  useEffect(() => {
    if (!row || badNumber) {
      if (useBench.getState().ghost) set({ ghost: null });
      return;
    }
    let live = true;
    const t = setTimeout(() => {
      ghostOf(row, at).then(
        (g) => {
          if (live) set({ ghost: g });
        },
        () => {},
      );
    }, 40);
    return () => {
      live = false;
      clearTimeout(t);
    };
  }, [row, badNumber, job, at, set]);
  useEffect(() => () => set({ ghost: null }), [set]);

  const enter = () => {
    if (!row) return;
    const id = freshId();
    const problem = edit([{ edit: "addRows", rows: [{ ...row, id }], at }], kindOf(row.body).label);
    if (problem) return;
    setText("");
    set({ ghost: null, selected: id, showRow: null });
  };
  const unfinished = error && column >= text.trimEnd().length;
  return (
    <form
      className={`${css.line} ${error && !unfinished ? css.bad : ""}`}
      onSubmit={(e) => {
        e.preventDefault();
        enter();
      }}
    >
      <div className={css.typed}>
        <div className={css.mirror} aria-hidden="true">
          {error && !unfinished ? (
            <>
              {text.slice(0, column)}
              <u>{text.slice(column) || " "}</u>
            </>
          ) : (
            text
          )}
          {unfinished && typed && <s> {short(error.expected)}</s>}
        </div>
        <Input
          variant="borderless"
          id="callout-line"
          ref={input}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            // The key that leads here is not the first sign of a callout.
            if (e.key === "/" && text === "") e.preventDefault();
          }}
          spellCheck={false}
          autoComplete="off"
          maxLength={2000}
          aria-label="Callout line"
          aria-invalid={Boolean(error && !unfinished)}
          aria-describedby="callout-says"
          placeholder={job.rows.length ? "4X 8-32 UNC-2B DEEP .3 ON BC 1.72 FROM 45" : "LEAVE BLOCK 4 X 2.5 X .75"}
        />
        <kbd>/</kbd>
      </div>
      <em id="callout-says" aria-live="polite">
        {!typed ? (
          <Starters
            put={(t) => {
              setText(t);
              input.current?.focus();
            }}
            unit={job.unit}
            first={job.rows.length === 0}
          />
        ) : error ? (
          <span className={unfinished ? undefined : "red"}>
            {unfinished ? `next: ${error.expected.toLowerCase()}` : `${error.message}; expected: ${error.expected}`}
          </span>
        ) : badNumber ? (
          <span className="red">
            {badNumber.label.toLowerCase()}: {badNumber.problem!.message}
            {badNumber.problem!.expected ? `; expected: ${badNumber.problem!.expected}` : ""}. Enter puts it on the card
            all the same
          </span>
        ) : (
          <>
            {says(row!, numbers, job.unit, job.balloons)}; Enter puts it{" "}
            {at >= job.rows.length ? "last" : `after row ${at}`}
          </>
        )}
      </em>
    </form>
  );
}

const short = (expected: string) => expected.split(", ").slice(0, 4).join(" … ");

/** What was read, in words, with the table's drill where there is one. */
function says(
  row: Row,
  numbers: ReturnType<typeof reportNumbers>,
  unit: "in" | "mm",
  balloons: readonly Balloon[],
): string {
  const meant = "thread" in row.body ? threadMeant(row.body.thread, balloons) : null;
  const thread = meant?.ok ? findThread(meant.value) : null;
  const unsaid = kindOf(row.body).unsaid?.(row.body);
  const size = numbers
    .filter((n) => n.quantity === "length")
    .slice(0, 3)
    .map((n) => `${n.label.toLowerCase()} ${showLength(n.value!.value, unit)}`)
    .join(", ");
  return `${kindOf(row.body).label}${thread?.size ? `, drill ${thread.size.drillName} ⌀${showLength(thread.size.tapDrill, thread.system === "metric" ? "mm" : "in")}` : ""}${size ? `: ${size}` : ""}${unsaid ? `, with a ${unsaid}` : ""}`;
}

/** One line to start from for every kind of row, for those who do not know the grammar yet. */
function Starters({ put, unit, first }: { put: (t: string) => void; unit: "in" | "mm"; first: boolean }) {
  const kinds = rowKinds.filter((k) => !first || k.verb === "leave");
  return (
    <Choice
      className={css.starters}
      label="Start from an example"
      placeholder="type what the print says, or start from an example …"
      value={null}
      choose={(kind) => put(rowKinds.find((k) => k.kind === kind)!.example[unit])}
      options={kinds.map((k) => ({
        value: k.kind,
        label: `${k.verb} · ${k.label}: ${k.example[unit].replace(/^(LEAVE|CUT) /, "")}`,
      }))}
    />
  );
}
