"use client";
import { Button, Input, type InputRef } from "antd";
import { useMemo, useRef, useState } from "react";
import { readCallout, withBalloons, type ReadCallout } from "@/core/callout";
import { numberScope, reportNumbers } from "@/core/engine/numbers";
import { kindOf } from "@/core/rows";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./CalloutLine.module.css";
import { RowWords } from "./RowWords";
import { Starters } from "./Starters";
import { useGhost } from "./useGhost";

/** What stands in the empty line, in figures of the job's unit. */
const firstRow = { in: "LEAVE BLOCK 4 X 2.5 X .75", mm: "LEAVE BLOCK 100 X 64 X 19" };
const nextRow = { in: "4X 8-32 UNC-2B DEEP .3 ON BC 1.72 FROM 45", mm: "4X M5 DEEP 8 ON BC 44 FROM 45" };

/**
 * Type what the print says; see the ghost on the stage; press Enter.
 * Until the text is whole it says what comes next, at the character where it stands; where it is not understood, what
 * to type instead, which Tab takes.
 */
export function CalloutLine() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const selected = useBench((s) => s.selected);
  const set = useBench((s) => s.set);
  const [text, setText] = useState("");
  const [where, setWhere] = useState<"last" | "after" | "before">("last");
  const input = useRef<InputRef>(null);
  const typed = text.trim();
  const read = useMemo(() => (typed ? readCallout(text, job, "ghost") : null), [text, typed, job]);
  const row = read?.ok ? read.row : null;
  const numbers = useMemo(() => (row ? reportNumbers(row.body, numberScope(job)) : []), [row, job]);
  const badNumber = numbers.find((n) => n.problem);
  const chosen = selected ? job.rows.findIndex((r) => r.id === selected) + 1 : 0;
  const at = !chosen || where === "last" ? job.rows.length : chosen - (where === "before" ? 1 : 0);
  useGhost(badNumber ? null : row, job, at);

  const put = (next: string) => {
    setText(next);
    input.current?.focus();
  };
  const enter = (keepBalloons = false) => {
    if (!read?.ok) return;
    const said = [read.row, ...read.more];
    const made = keepBalloons ? withBalloons(said, read.toleranced, job) : { rows: said, balloons: [] };
    const id = freshId();
    const balloons = made.balloons.length ? [{ edit: "addBalloons" as const, balloons: made.balloons }] : [];
    const own = made.rows.map((r, i) => ({ ...r, id: i ? freshId() : id }));
    const rows = [{ edit: "addRows" as const, rows: own, at }];
    if (edit([...balloons, ...rows], kindOf(read.row.body).label)) return;
    setText("");
    setWhere("last");
    set({ ghost: null, selected: id, showRow: null });
  };
  const it = read?.ok && read.more.length > 0 ? "them" : "it";
  const unfinished = read && !read.ok && read.at >= text.trimEnd().length;
  const isWrong = Boolean(read && !read.ok && !unfinished);
  return (
    <form
      className={`${css.line} ${isWrong ? css.bad : ""}`}
      onSubmit={(e) => {
        e.preventDefault();
        enter();
      }}
    >
      <div className={css.typed}>
        <Mirror text={text} read={read} />
        <Input
          variant="borderless"
          id="callout-line"
          ref={input}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            // The key that leads here is not the first sign of a callout.
            if (e.key === "/" && text === "") e.preventDefault();
            const instead = read && !read.ok ? read.error.instead : undefined;
            if (e.key === "Tab" && !e.shiftKey && instead) {
              e.preventDefault();
              setText(instead);
            }
          }}
          spellCheck={false}
          autoComplete="off"
          maxLength={2000}
          aria-label="Callout line"
          aria-invalid={isWrong}
          aria-describedby="callout-says"
          placeholder={(job.rows.length ? nextRow : firstRow)[job.unit]}
        />
        <kbd>/</kbd>
      </div>
      <em id="callout-says" aria-live="polite">
        {!read && <Starters put={put} unit={job.unit} first={job.rows.length === 0} />}
        {read && !read.ok && <Wrong read={read} unfinished={Boolean(unfinished)} put={put} />}
        {read?.ok && badNumber && (
          <span className="red">
            {badNumber.label.toLowerCase()}: {badNumber.problem!.message}
            {badNumber.problem!.expected ? `; expected: ${badNumber.problem!.expected}` : ""}. Enter puts it on the card
            all the same
          </span>
        )}
        {read?.ok && !badNumber && (
          <>
            {read.as ? <b>{read.as}</b> : <RowWords row={read.row} numbers={numbers} job={job} />}
            {read.more.length > 0 && ` (${read.more.length + 1} rows)`}
            {chosen && where !== "last" ? `; Enter puts ${it} ${where} row ${chosen} ` : `; Enter puts ${it} last `}
            {chosen > 0 &&
              (["last", "after", "before"] as const)
                .filter((w) => w !== where && !(w === "after" && chosen === job.rows.length))
                .map((w) => (
                  <Button key={w} size="small" onClick={() => setWhere(w)}>
                    {w === "last" ? "put it last" : `${w} row ${chosen}`}
                  </Button>
                ))}
            {read.toleranced.length > 0 && (
              <Button size="small" onClick={() => enter(true)}>
                keep {read.toleranced.map((t) => `${t.text} ${t.tolerance}`).join(", ")} in the ledger
              </Button>
            )}
          </>
        )}
      </em>
    </form>
  );
}

/** How many of the things that may follow are named. */
const NAMED = 4;

/** What stands behind the typed text: what is wrong underlined, what comes next in pencil. */
function Mirror({ text, read }: { text: string; read: ReadCallout | null }) {
  const wrong = read && !read.ok ? read : null;
  const unfinished = wrong !== null && wrong.at >= text.trimEnd().length;
  return (
    <div className={css.mirror} aria-hidden="true">
      {wrong && !unfinished ? text.slice(0, wrong.at) : text}
      {wrong && !unfinished && <u>{text.slice(wrong.at) || " "}</u>}
      {wrong && unfinished && text.trim() && <s> {wrong.error.expected.split(", ").slice(0, NAMED).join(" … ")}</s>}
    </div>
  );
}

/** What is wrong with the text, or what comes next in it; and what could be typed instead. */
function Wrong({
  read: { error },
  unfinished,
  put,
}: {
  read: Extract<ReadCallout, { ok: false }>;
  unfinished: boolean;
  put: (text: string) => void;
}) {
  return (
    <>
      <span className={unfinished ? undefined : "red"}>
        {unfinished ? `next: ${error.expected.toLowerCase()}` : `${error.message}; expected: ${error.expected}`}
      </span>
      {error.instead && (
        <>
          . Type{" "}
          <Button size="small" onClick={() => put(error.instead!)} title="Tab takes it">
            {error.instead}
          </Button>{" "}
          instead (Tab)
        </>
      )}
    </>
  );
}
