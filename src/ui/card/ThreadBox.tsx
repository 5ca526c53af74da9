"use client";
import { Input } from "antd";
import { threadMeant } from "@/core/balloons/threads";
import type { Balloon } from "@/core/job";
import { findThread, readThread, threadSaid, type Thread } from "@/core/tables";
import { useDraft } from "../fields/useDraft";
import box from "../common/NumberBox.module.css";

/** What a typed thread is: by its designation, or by the balloon that prints it; `whole` is what is kept of it, null for no thread. */
function threadTyped(typed: string, balloons: readonly Balloon[]) {
  const meant = threadMeant(typed, balloons);
  const cites = meant.ok && meant.value !== typed;
  const read = meant.ok ? readThread(meant.value) : null;
  const thread = read && (cites || read.length === typed.length) ? findThread(read.designation) : null;
  return { meant, thread, whole: !thread ? null : cites ? typed : read!.designation };
}

/** Its drill and the limits of its class; for what has neither, that. */
function wordsOf(t: Thread): string {
  const { drill, crest } = threadSaid(t);
  return [drill ?? (t.external ? null : "no table drill"), crest].filter(Boolean).join(", ");
}

/** A thread by its designation; the table's drill stands under it. */
export function ThreadBox({
  value,
  commit,
  balloons,
}: {
  value: string;
  commit: (v: string) => void;
  balloons: readonly Balloon[];
}) {
  const read = (text: string) => threadTyped(text.trim(), balloons);
  const { shown, bind } = useDraft(value, (text) => commit(read(text).whole!), {
    problem: (text) => (read(text).whole === null ? "no thread" : null),
  });
  const { meant, thread: t } = read(shown);
  return (
    <div className={box.field}>
      <label>
        Thread
        <div className={`${box.box} ${t ? "" : box.question}`}>
          <Input variant="borderless" size="small" spellCheck={false} maxLength={40} {...bind} />
        </div>
      </label>
      <small className={t ? undefined : "red"}>
        {!meant.ok ? meant.problems[0].message : t ? wordsOf(t) : `as 8-32 UNC-2B or M5`}
      </small>
    </div>
  );
}
