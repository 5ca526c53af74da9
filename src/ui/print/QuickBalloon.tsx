"use client";
import { byFigures } from "@/core/number";
import { Button, Input } from "antd";
import { useState, type ClipboardEvent, type FormEvent } from "react";
import { balloonLimits } from "@/core/balloons/tolerance";
import { namedIn, readLedgerLine, writeBalloonText } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import type { Balloon, Job } from "@/core/job";
import { useJob } from "../store/jobStore";
import css from "./PrintCard.module.css";

/** Dimensions as prints of that unit have them. */
const printed = {
  in: "D2.185 +-.005, R.19 MAX, 45 DEG, .375 DEEP, 6X 8-32 UNC-2B, 1.255 / 1.245, (4.5) for a reference, or a whole callout: 8X ⌀.266 THRU ⌴ ⌀.422 ↧ .25",
  mm: "D55 +-.1, R5 MAX, 45 DEG, 9.5 DEEP, 6X M4-6H, 20 H7, 31.9 / 31.6, (114) for a reference, or a whole callout: 8X ⌀6.6 THRU ⌴ ⌀11 ↧ 6.4",
};
/** `#12 ⌀2.185`, `12: ⌀2.185`: the number a line gives itself. */
const numberedLine = /^#?(\d{1,4})(?:\s*[:.)]\s+|(?<=#\d{1,4})\s+)(.*)$/;

/** What a line of the ledger says so far: its balloons, from the number it gives itself or the next free one. */
function readLine(line: string, job: Job) {
  const numbers = new Set(job.balloons.map((b) => b.number));
  const own = numberedLine.exec(line.trim());
  const number = own ? Number(own[1]) : Math.max(0, ...numbers) + 1;
  const text = own ? own[2] : line;
  const read = text.trim() ? readLedgerLine(text, number, numbers, namedIn(job), job.unit) : null;
  const taken = read?.ok ? read.balloons.find((b) => numbers.has(b.number)) : undefined;
  return { number, read, taken, balloons: read?.ok && !taken ? read.balloons : null };
}

/** The next dimensions of the ledger, typed as they are printed: one, or all of a callout at once. */
export function QuickBalloon({ pasteSheet }: { pasteSheet: (lines: string) => void }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [line, setLine] = useState("");
  const said = readLine(line, job);
  const add = (e: FormEvent) => {
    e.preventDefault();
    if (!said.balloons) return;
    edit([{ edit: "addBalloons", balloons: said.balloons }], said.balloons.length > 1 ? "balloons" : "balloon");
    setLine("");
  };
  /** A whole sheet pasted: one dimension a line. */
  const paste = (e: ClipboardEvent) => {
    const pasted = e.clipboardData.getData("text");
    if (!/\n/.test(pasted.trim())) return;
    e.preventDefault();
    pasteSheet(pasted);
  };
  return (
    <>
      <form className={`${css.quick} ${said.read && !said.read.ok ? css.bad : ""}`} onSubmit={add}>
        <b className={css.balloon}>{said.number}</b>
        <Input
          variant="borderless"
          value={line}
          onChange={(e) => setLine(e.target.value)}
          onPaste={paste}
          id="ledger-line"
          aria-label="Next balloon"
          placeholder={byFigures(job.unit, { in: "⌀2.185 ±.005", mm: "⌀42 H7" })}
          spellCheck={false}
          autoComplete="off"
          maxLength={300}
        />
        <Button htmlType="submit" size="small" disabled={!said.balloons}>
          add
        </Button>
      </form>
      <p className={css.says}>
        <LineSays {...said} job={job} />
      </p>
    </>
  );
}

/** Under the line: how to type it, what is wrong with it, or what Enter makes of it. */
function LineSays({ read, taken, balloons, job }: ReturnType<typeof readLine> & { job: Job }) {
  if (!read) return `type it as printed: ${byFigures(job.unit, printed)}`;
  if (taken) return <span className="red">{`balloon #${taken.number} is there already`}</span>;
  if (balloons) return <Becomes balloons={balloons} job={job} />;
  if (read.ok) return null;
  const { column, message, expected } = read.error;
  return <span className="red">{`at character ${column}: ${message}; expected: ${expected}`}</span>;
}

/** What a line becomes, before Enter: its one balloon in words, or each of several with its number. */
function Becomes({ balloons, job }: { balloons: Balloon[]; job: Job }) {
  const [b, ...more] = balloons;
  if (more.length)
    return (
      <>
        {balloons.map((x) => (
          <span key={x.number} className={css.becomes}>
            <b className={css.balloon}>{x.number}</b> {writeBalloonText(x)}{" "}
          </span>
        ))}
        ; Enter adds them
      </>
    );
  const limits = balloonLimits(b, job, numberScope({ ...job, balloons: [...job.balloons, b] }));
  const times = b.count && b.kind !== "count" ? ` times ${b.count}` : "";
  return (
    <>
      {b.reference ? "reference " : ""}
      {b.basic ? "basic " : ""}
      {b.kind}
      {times}
      {limits.ok ? `; ${limits.value.by}` : <span className="red">; {limits.problems[0].message}</span>}
      {b.note ? `; “${b.note}”` : ""}; Enter adds it
    </>
  );
}
