"use client";
import { useEffect, useRef, useState, type ChangeEvent, type KeyboardEvent } from "react";

interface Options {
  /** What is wrong with a text; such a one stays as it was typed and is not taken. */
  problem?: (text: string) => string | null;
  /** Told what stands there while it is typed, and null when that is over. */
  typing?: (text: string | null) => void;
}

/**
 * Text that is typed before it is meant: taken on Enter and when the field is left, taken back with Escape.
 * @param commit takes a text that is right and another than before
 */
export function useDraft(value: string, commit: (text: string) => void, { problem, typing }: Options = {}) {
  const [draft, setDraft] = useState<string | null>(null);
  const leaving = useRef(false);
  const shown = draft ?? value;
  const wrong = draft === null ? null : (problem?.(draft) ?? null);
  const done = () => {
    // Left with Escape: what was typed is given up, though this render still holds it.
    if (leaving.current) return void (leaving.current = false);
    typing?.(null);
    if (draft === null || wrong !== null) return;
    setDraft(null);
    if (draft.trim() !== value) commit(draft.trim());
  };
  const last = useRef(done);
  useEffect(() => {
    last.current = done;
  });
  const isDraft = draft !== null;
  useEffect(() => {
    if (!isDraft) return;
    // A page that goes takes its fields with it: what was typed is taken before what waits is sent.
    const take = () => last.current();
    window.addEventListener("pagehide", take, { capture: true });
    return () => window.removeEventListener("pagehide", take, { capture: true });
  }, [isDraft]);
  /** Puts a text into the field as if it were typed. */
  const type = (text: string) => {
    setDraft(text);
    typing?.(text);
  };
  const onChange = (e: ChangeEvent<HTMLInputElement>) => type(e.target.value);
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    // The field keeps the keyboard: nothing falls to the page.
    if (e.key === "Enter") done();
    if (e.key !== "Escape" || draft === null) return;
    e.stopPropagation();
    leaving.current = true;
    typing?.(null);
    setDraft(null);
    e.currentTarget.blur();
  };
  /** What was typed is given up: something else was chosen. */
  const drop = () => setDraft(null);
  return {
    shown,
    wrong,
    drafting: draft !== null,
    type,
    drop,
    bind: { value: shown, onChange, onBlur: done, onKeyDown },
  };
}
