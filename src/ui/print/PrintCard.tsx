"use client";
import { App, Button } from "antd";
import { saveBlob } from "../common/saveBlob";
import Papa from "papaparse";
import { useState } from "react";
import { ledgerCsv, readLedgerCsv, type CsvProblem } from "@/io/ledgerCsv";
import { useBench } from "../store/benchStore";
import { Body, Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import { CheckValues } from "./CheckValues";
import { LedgerTable } from "./LedgerTable";
import { NamedValues } from "./NamedValues";
import { QuickBalloon } from "./QuickBalloon";
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
  const [unread, setUnread] = useState<{ read: number; problems: CsvProblem[] } | null>(null);
  const { message } = App.useApp();
  /** A whole sheet pasted: one dimension a line. What cannot be read is listed. */
  const pasteSheet = (pasted: string) => {
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
    const refused = balloons.length ? edit([{ edit: "addBalloons", balloons }], "balloons") : null;
    if (refused !== null) return void message.error(refused, 6);
    setUnread({ read: balloons.length, problems });
    if (!problems.length) void message.success(`${balloons.length} balloon${balloons.length === 1 ? "" : "s"} read`, 3);
  };
  return (
    <Body>
      <TitleData />
      <Section title="Ledger" aside={<LedgerFiles take={take} />}>
        <QuickBalloon pasteSheet={pasteSheet} />
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
        <LedgerTable />
      </Section>
      <CheckValues />
      <NamedValues />
    </Body>
  );
}

/** The largest table that is read, bytes. */
const MOST_CSV = 2_000_000;

/** The ledger as a table file, out and in. */
function LedgerFiles({ take }: { take: (csv: string) => void }) {
  const { message } = App.useApp();
  const tooLarge = (f: File) =>
    message.error(`${f.name} has ${(f.size / 1e6).toFixed(1)} MB: at most ${MOST_CSV / 1e6} MB are read`, 6);
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
        pick={(f) => void (f.size > MOST_CSV ? tooLarge(f) : f.text().then(take))}
      >
        read CSV
      </FilePick>
      <Button size="small" disabled={!job.balloons.length} onClick={save}>
        save CSV
      </Button>
    </span>
  );
}
