"use client";
import { byFigures } from "@/core/number";
import { Input, type InputRef } from "antd";
import { useRef, type KeyboardEvent } from "react";
import type { ReadCallout } from "@/core/callout";
import { useJob } from "../store/jobStore";
import { CalloutSays } from "./CalloutSays";
import { isUnfinished, useCallout } from "./useCallout";
import css from "./CalloutLine.module.css";

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
  const line = useCallout(job);
  const input = useRef<InputRef>(null);
  const { text, read } = line;
  const put = (next: string) => {
    line.setText(next);
    input.current?.focus();
  };
  const onKeyDown = (e: KeyboardEvent) => {
    // The key that leads here is not the first sign of a callout.
    if (e.key === "/" && text === "") e.preventDefault();
    const instead = read && !read.ok ? read.error.instead : undefined;
    if (e.key !== "Tab" || e.shiftKey || !instead) return;
    e.preventDefault();
    line.setText(instead);
  };
  const isWrong = Boolean(read && !read.ok && !isUnfinished(read, text));
  return (
    <form
      className={`${css.line} ${isWrong ? css.bad : ""}`}
      onSubmit={(e) => {
        e.preventDefault();
        line.enter();
      }}
    >
      <div className={css.typed}>
        <Mirror text={text} read={read} />
        <Input
          variant="borderless"
          id="callout-line"
          ref={input}
          value={text}
          onChange={(e) => line.setText(e.target.value)}
          onKeyDown={onKeyDown}
          spellCheck={false}
          autoComplete="off"
          maxLength={2000}
          aria-label="Callout line"
          aria-invalid={isWrong}
          aria-describedby="callout-says"
          placeholder={byFigures(job.unit, job.rows.length ? nextRow : firstRow)}
        />
        <kbd>/</kbd>
      </div>
      <em id="callout-says" aria-live="polite">
        <CalloutSays job={job} line={line} put={put} />
      </em>
    </form>
  );
}

/** How many of the things that may follow are named. */
const NAMED = 4;

/** What stands behind the typed text: what is wrong underlined, what comes next in pencil. */
function Mirror({ text, read }: { text: string; read: ReadCallout | null }) {
  const wrong = read && !read.ok ? read : null;
  const unfinished = wrong !== null && isUnfinished(wrong, text);
  return (
    <div className={css.mirror} aria-hidden="true">
      {wrong && !unfinished ? text.slice(0, wrong.at) : text}
      {wrong && !unfinished && <u>{text.slice(wrong.at) || " "}</u>}
      {wrong && unfinished && text.trim() && <s> {wrong.error.expected.split(", ").slice(0, NAMED).join(" … ")}</s>}
    </div>
  );
}
