"use client";
import type { Evaluation } from "@/core/evaluate";
import { releaseWords, type Job } from "@/core/job";
import { Body, Figure, Section, fieldsClass } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { marks } from "../card/RedPencil";
import { noWords } from "../paths/WordsFile";
import { FileButton } from "./FileButton";
import { SignOff } from "./SignOff";

/** The Release step: the setup sheet, the part as files, the state of the record, and who signs it off. */
export function ReleaseCard() {
  const job = useJob((s) => s.job)!;
  const evaluation = useBench((s) => s.evaluated?.evaluation);
  return (
    <Body>
      <Record job={job} evaluation={evaluation} />
      <Files />
      <SignOff />
      <StillSaid evaluation={evaluation} />
      <Section title="Caution">
        <p className="soft" style={{ margin: 0 }}>
          Sgorbia plans. The machine builder’s manual, the tool maker’s ratings, shop rules and a qualified person at
          the machine come first.
        </p>
      </Section>
    </Body>
  );
}

const openFindings = (evaluation: Evaluation | undefined) => evaluation?.findings.filter((f) => !f.waived) ?? [];

/** What is still open, what failed, what is proved and what is off. */
function Record({ job, evaluation }: { job: Job; evaluation: Evaluation | undefined }) {
  const open = openFindings(evaluation);
  const count = (severity: string) => open.filter((f) => f.severity === severity).length;
  const failed = evaluation?.solved.rows.filter((r) => r.state === "failed").length ?? 0;
  const balloons = (state: string) => evaluation?.ledger.filter((l) => l.state === state).length ?? 0;
  const off = balloons("off") + (evaluation?.checks.filter((c) => !c.agrees).length ?? 0);
  return (
    <Section title="Record" aside={releaseWords(job)}>
      <div className={fieldsClass}>
        <Figure label="Stops" red={count("stop") > 0}>
          {count("stop")}
        </Figure>
        <Figure label="Cautions">{count("caution")}</Figure>
        <Figure label="Notes">{count("note")}</Figure>
        <Figure label="Rows failed" red={failed > 0}>
          {failed}
        </Figure>
        <Figure label="Balloons proved">
          {balloons("proved")} / {job.balloons.length}
        </Figure>
        <Figure label="Off" red={off > 0}>
          {off}
        </Figure>
      </div>
      {job.waivers.length > 0 && (
        <ul style={{ margin: "8px 0 0", paddingLeft: 16, fontSize: 13 }}>
          {job.waivers.map((w, i) => (
            <li key={i}>{`${w.rule.replace(/-/g, " ")} waived: ${w.reason}`}</li>
          ))}
        </ul>
      )}
    </Section>
  );
}

function WordsButton() {
  const file = useBench((s) => s.planned?.file);
  return <FileButton kind="nc" label="RS-274 words" not={noWords(file)} />;
}

/** The job as files: its sheet, the part, its paths, and the document itself. */
const Files = () => (
  <>
    <Section title="Sheet">
      <FileButton kind="pdf" label="Setup sheet, PDF" main />{" "}
      <span className="soft" style={{ fontSize: 13 }}>
        picture, stock, rows, cutters, remarks, cautions
      </span>
    </Section>
    <Section title="The part">
      <div style={{ display: "flex", gap: 8 }}>
        <FileButton kind="step" label="STEP" title="solid, ISO 10303-21" />
        <FileButton kind="stl" label="STL" title="triangles" />
        <FileButton kind="svg" label="SVG" title="top view as a drawing" />
      </div>
    </Section>
    <Section title="Paths">
      <div style={{ display: "flex", gap: 8 }}>
        <FileButton kind="dxf" label="DXF" />
        <WordsButton />
      </div>
    </Section>
    <Section title="The job">
      <div style={{ display: "flex", gap: 8 }}>
        <FileButton kind="json" label="JSON" title="the whole document; schema at /api/schema" />
        <FileButton kind="card" label="Card" title="plain text" />
      </div>
    </Section>
  </>
);

/** Remarks shown where it is signed off. */
const SHOWN = 6;

function StillSaid({ evaluation }: { evaluation: Evaluation | undefined }) {
  const open = openFindings(evaluation);
  if (!open.length) return null;
  return (
    <Section title="Still said in red" aside={open.length > SHOWN ? `${SHOWN} of ${open.length}` : undefined}>
      <ul
        className="red"
        style={{ margin: 0, padding: 0, listStyle: "none", font: "italic 500 12.5px/17px var(--text)" }}
      >
        {open.slice(0, SHOWN).map((f, i) => (
          <li key={i}>
            {marks[f.severity]} {f.row === null ? "" : `row ${f.row}: `}
            {f.text}
          </li>
        ))}
      </ul>
    </Section>
  );
}
