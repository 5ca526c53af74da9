"use client";
import { Button } from "antd";
import { useState } from "react";
import { readRowsText, rowsText } from "@/core/callout";
import { holdingKindOf, rowNames, type Holding, type Job, type JobDocument, type Setup } from "@/core/job";
import { showArea, showLength, toNumberText } from "@/core/number";
import type { Finding } from "@/core/findings";
import { withOneGrip } from "@/core/findings/holding";
import type { FixtureKind, SetupView } from "@/core/setups";
import { NumberBox } from "../common/NumberBox";
import { fieldsClass } from "../common/Section";
import { ChoiceBox } from "../fields/ChoiceBox";
import { Remark } from "../card/RedPencil";
import { WordsBox } from "../fields/WordsBox";
import { useSetups } from "../store/setupsStore";
import { Assistant } from "./Assistant";
import css from "./HoldCard.module.css";
import { SetupFiles } from "./SetupFiles";
import { changeSetup, deleteSetup } from "./setupEdits";
import { datumOptions, datumValue, holdOptions, holdValue, machines, upOptions, upValue } from "./setupWords";
import { fixtures } from "./wishes";

interface Props {
  setup: Setup;
  job: Job;
  document: JobDocument;
  view: SetupView | null;
  /** What the workpiece's own remarks say of how it is held: of its first setup. */
  told: Finding[];
}

/** The setup that is open: what it is, what holds its piece, what that comes to, and the assistants that write what holds. */
export function SetupPanel({ setup, job, document, view, told }: Props) {
  const own = view?.findings ?? [];
  const remarks = [...withOneGrip(told, own), ...own];
  return (
    <div className={css.panel}>
      <SetupFields {...{ setup, job, document }} />
      {view && <Figures view={view} unit={job.unit} />}
      {view?.problem && <p className="red">{view.problem}</p>}
      {view?.datumWords && <p className="soft">{view.datumWords}</p>}
      <SetupTools {...{ setup, job, document }} isSeen={view !== null} />
      {remarks.length > 0 && (
        <div
          className={css.remarks}
          style={{ border: 0, padding: "7px 0 0" }}
          aria-label={`Remarks on setup ${setup.op}`}
        >
          {remarks.map((f, i) => (
            <Remark key={i} finding={f} wide />
          ))}
        </div>
      )}
    </div>
  );
}

type Held = Pick<Props, "setup" | "job" | "document">;

/** Machine, which way is up, datum, what holds it, and its rows. */
function SetupFields({ setup, job, document }: Held) {
  const put = (change: Partial<Setup>) => changeSetup(setup, change);
  const names = rowNames(job.rows);
  const up = upValue(setup.up);
  const ups = upOptions(document);
  const isListed = ups.some((o) => o.value === up);
  return (
    <div className={fieldsClass}>
      <ChoiceBox label="Machine" value={setup.machine} options={machines} choose={(o) => put({ machine: o.is })} />
      <ChoiceBox
        label="Up is"
        value={up}
        options={isListed ? ups : [...ups, { value: up, label: up, is: setup.up }]}
        choose={(o) => put({ up: o.is })}
      />
      <ChoiceBox
        label="X0 Y0 Z0"
        value={datumValue(setup.datum)}
        options={datumOptions}
        choose={(o) => put({ datum: o.value === "centre" ? undefined : o.is })}
      />
      <ChoiceBox
        label="Fixture"
        value={holdValue(setup.hold)}
        options={holdOptions(document)}
        choose={(o) => put({ hold: o.is })}
      />
      <HoldFields job={job} hold={setup.hold} put={(hold) => put({ hold })} />
      <WordsBox
        label="Rows"
        value={setup.rows ? rowsText(setup.rows, names) : ""}
        placeholder="all"
        options={[]}
        read={(text) => (text.trim() ? readRowsText(withCommas(text), names) : { ok: true, value: [] })}
        commit={(rows) => put({ rows: rows.length ? rows : undefined })}
      />
    </div>
  );
}

const fixtureKinds = Object.keys(fixtures) as FixtureKind[];

/** The assistants that write what holds the piece, the setup's files, and its end. */
function SetupTools({ setup, job, document, isSeen }: Held & { isSeen: boolean }) {
  const [asked, setAsked] = useState<FixtureKind | null>(null);
  const isBusy = useSetups((s) => s.busy);
  const isKept = document.setups.some((s) => s.op === setup.op);
  return (
    <div className={css.tools}>
      {fixtureKinds.map((kind) => (
        <Button key={kind} size="small" disabled={isBusy || !isSeen} onClick={() => setAsked(kind)}>
          {fixtures[kind].button}
        </Button>
      ))}
      <SetupFiles setup={setup} document={document} />
      {isKept && (
        <Button size="small" aria-label={`Delete setup ${setup.op}`} onClick={() => deleteSetup(setup.op)}>
          ×
        </Button>
      )}
      {asked && <Assistant kind={asked} {...{ setup, document, job }} done={() => setAsked(null)} />}
    </div>
  );
}

/** `1 3-6`: rows as a setup's line has them, with blanks between. */
const withCommas = (text: string): string => text.trim().replace(/(\d)\s+(?=\d)/g, "$1, ");

/** What a holding asks besides. */
function HoldFields({ job, hold, put }: { job: Job; hold: Holding | null; put: (h: Holding) => void }) {
  if (!hold || !("grip" in hold)) return null;
  return (
    <>
      {"across" in hold && (
        <ChoiceBox
          label="Jaws close along"
          value={hold.across}
          options={[
            { value: "y" as const, label: "y: front, back" },
            { value: "x" as const, label: "x: left, right" },
          ]}
          choose={(o) => put({ ...hold, across: o.value })}
        />
      )}
      <NumberBox
        own
        job={job}
        label="Grip depth"
        value={hold.grip}
        quantity="length"
        commit={(t) => put({ ...hold, grip: t ?? toNumberText("?") })}
      />
      {holdingKindOf(hold).optional.map((o) => (
        <NumberBox
          key={o.label}
          own
          job={job}
          label={o.label}
          value={o.of(hold)}
          quantity="length"
          optional
          commit={(t) => put(o.with(hold, t))}
        />
      ))}
    </>
  );
}

const cornersWords = (f: Finding): string => (f.severity === "stop" ? `${f.value} of ${f.limit}` : "not told");

/** What the setup comes to. */
function Figures({ view, unit }: { view: SetupView; unit: Job["unit"] }) {
  const { hold, height, room, findings } = view;
  const corners = findings.find((f) => f.rule === "relief-clears-corner");
  const rows: [string, string][] = [];
  if (room !== null) {
    rows.push(["goes in from above", findings.some((f) => f.rule === "goes-in-from-above") ? "no" : "✓"]);
    rows.push(["room round it", showLength(room, unit)]);
    rows.push(["relief clears", corners ? cornersWords(corners) : "every corner"]);
  }
  if (hold?.gripArea != null) rows.push(["grip area", showArea(hold.gripArea, unit)]);
  if (hold?.above != null && hold.grip) rows.push(["above : grip", `${(hold.above / hold.grip).toFixed(1)} : 1`]);
  if (hold?.diameter != null) rows.push(["gripped ⌀", showLength(hold.diameter, unit)]);
  if (height !== null) rows.push(["piece stands", showLength(height, unit)]);
  if (!rows.length) return null;
  return (
    <div className={css.figures}>
      {rows.map(([what, figure]) => (
        <div key={what}>
          <span>{what}</span>
          <b>{figure}</b>
        </div>
      ))}
    </div>
  );
}
