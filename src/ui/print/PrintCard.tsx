"use client";
import { App, Button, Input } from "antd";
import { saveBlob } from "../common/saveBlob";
import Papa from "papaparse";
import { useState } from "react";
import { namedIn, readBalloonLine } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import { balloonLimits } from "@/core/balloons/tolerance";
import { ledgerCsv, readLedgerCsv, type CsvProblem } from "@/io/ledgerCsv";
import { useBench } from "../store/benchStore";
import { Body, Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import { BalloonRow } from "./BalloonRow";
import { CheckValues } from "./CheckValues";
import { NamedValues } from "./NamedValues";
import { TitleData } from "./TitleData";
import css from "./PrintCard.module.css";
import { Bare } from "../fields/Bare";
import { FilePick } from "../fields/FilePick";

/**
 * The Print step's card: title data, named values, the balloon ledger with quick entry and CSV, and the check
 * values.
 */
export function PrintCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const looked = useBench((s) => s.balloon);
  const setBench = useBench((s) => s.set);
  const [line, setLine] = useState("");
  const [open, setOpen] = useState<number | null>(null);
  const [unread, setUnread] = useState<{ read: number; problems: CsvProblem[] } | null>(null);
  const { message } = App.useApp();
  const next = Math.max(0, ...job.balloons.map((b) => b.number)) + 1;
  const numbered = /^#?(\d{1,4})(?:\s*[:.)]\s+|(?<=#\d{1,4})\s+)(.*)$/.exec(line.trim());
  const number = numbered ? Number(numbered[1]) : next;
  const text = numbered ? numbered[2] : line;
  const read = text.trim() ? readBalloonLine(text, number, namedIn(job)) : null;
  const taken = job.balloons.some((b) => b.number === number);
  const limits = read?.ok
    ? balloonLimits(read.balloon, job, numberScope({ ...job, balloons: [...job.balloons, read.balloon] }))
    : null;
  const add = () => {
    if (!read?.ok || taken) return;
    edit([{ edit: "addBalloons", balloons: [read.balloon] }], "balloon");
    setLine("");
  };
  /** A whole sheet pasted: one dimension a line. What cannot be read stays in the line to be mended. */
  const paste = (e: React.ClipboardEvent) => {
    const pasted = e.clipboardData.getData("text");
    if (!/\n/.test(pasted.trim())) return;
    e.preventDefault();
    const lines = pasted
      .split(/\r?\n/)
      .filter((l) => l.trim())
      .map((l) => {
        const n = /^\s*#(\d{1,4})\s+(.*)$/.exec(l);
        return n ? [n[1], n[2]] : ["", l.trim()];
      });
    take(Papa.unparse([["number", "dimension"], ...lines]));
  };
  const take = (csv: string) => {
    const { balloons, problems } = readLedgerCsv(csv, job);
    if (balloons.length) edit([{ edit: "addBalloons", balloons }], "balloons");
    setUnread({ read: balloons.length, problems });
    if (!problems.length) void message.success(`${balloons.length} balloon${balloons.length === 1 ? "" : "s"} read`, 3);
  };
  return (
    <Body>
      <TitleData />
      <Section title="Ledger" aside={<LedgerFiles take={take} />}>
        <form
          className={`${css.quick} ${read && !read.ok ? css.bad : ""}`}
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <b className={css.balloon}>{number}</b>
          <Input
            variant="borderless"
            value={line}
            onChange={(e) => setLine(e.target.value)}
            onPaste={paste}
            id="ledger-line"
            aria-label="Next balloon"
            placeholder={{ in: "⌀2.185 ±.005", mm: "⌀42 H7" }[job.unit]}
            spellCheck={false}
            autoComplete="off"
            maxLength={300}
          />
          <Button htmlType="submit" size="small" disabled={!read?.ok || taken}>
            add
          </Button>
        </form>
        <p className={css.says}>
          {!line.trim() ? (
            "type it as printed: D2.185 +-.005, R.19 MAX, 45 DEG, .375 DEEP, 6X 8-32 UNC-2B, 20 H7, 1.255 / 1.245, (4.5) for a reference"
          ) : taken ? (
            <span className="red">balloon #{number} is there already</span>
          ) : read?.ok ? (
            <>
              {read.balloon.reference ? "reference " : ""}
              {read.balloon.basic ? "basic " : ""}
              {read.balloon.kind}
              {read.balloon.count && read.balloon.kind !== "count" ? ` times ${read.balloon.count}` : ""}
              {limits?.ok ? (
                `; ${limits.value.by}`
              ) : limits ? (
                <span className="red">; {limits.problems[0].message}</span>
              ) : (
                ""
              )}
              ; Enter adds it
            </>
          ) : (
            <span className="red">
              at character {read!.error.column}: {read!.error.message}; expected: {read!.error.expected}
            </span>
          )}
        </p>
        {unread && unread.problems.length > 0 && (
          <div className={css.unread} role="alert">
            <b>
              {unread.read} read, {unread.problems.length} not:
            </b>{" "}
            <Bare className="faint" aria-label="Close the list" onClick={() => setUnread(null)}>
              ×
            </Bare>
            <div>
              {unread.problems.slice(0, 40).map((p, i) => (
                <p key={i}>
                  line {p.line}: {p.message}; expected: {p.expected}
                </p>
              ))}
            </div>
          </div>
        )}
        <div role="list" aria-label="Balloons">
          {job.balloons.map((b, i) => (
            <BalloonRow
              key={b.number}
              balloon={b}
              index={i}
              open={open === b.number}
              toggle={() => {
                setOpen(open === b.number ? null : b.number);
                setBench({ balloon: looked === b.number && open === b.number ? null : b.number });
              }}
            />
          ))}
        </div>
      </Section>
      <CheckValues />
      <NamedValues />
    </Body>
  );
}

/** The ledger as a table file, out and in. */
function LedgerFiles({ take }: { take: (csv: string) => void }) {
  const job = useJob((s) => s.job)!;
  const ledger = useBench((s) => s.evaluated?.evaluation.ledger);
  const save = () => {
    const name = job.name.replace(/[^\w-]+/g, "-").toLowerCase();
    saveBlob(new Blob(["\uFEFF", ledgerCsv(job, ledger ?? [])], { type: "text/csv" }), `${name}-ledger.csv`);
  };
  return (
    <span className={css.files}>
      {job.balloons.length} balloon{job.balloons.length === 1 ? "" : "s"}
      <FilePick
        size="small"
        label="Ledger as CSV"
        accept=".csv,text/csv,text/plain"
        pick={(f) => void (f.size > 2_000_000 ? Promise.resolve("") : f.text()).then(take)}
      >
        read CSV
      </FilePick>
      <Button size="small" disabled={!job.balloons.length} onClick={save}>
        save CSV
      </Button>
    </span>
  );
}
