"use client";
import { Empty } from "antd";
import { minutesByCutter } from "@/core/paths/minutes";
import type { PathPlan } from "@/core/paths/plan";
import { Bars } from "../charts/Bars";
import { Body, Section } from "../common/Section";
import { FileButton } from "../release/FileButton";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { CribEditor } from "./CribEditor";
import css from "./PathsCard.module.css";
import { PathsTable } from "./PathsTable";
import { noWords, WordsFile } from "./WordsFile";

const NO_PATHS = "Pockets, holes and the outer outline get their paths here, as soon as the card has such rows.";
const CAUTION =
  "Lengths and times are estimates for planning. Speeds, feeds and stick-out follow the tool maker’s ratings; the words are a plan, not a proven program: check them against the machine builder’s manual and prove them out.";

/** The Paths step: the wireframe of every pocket, hole and of the outline, with what cuts it and how long that takes. */
export function PathsCard() {
  const hasRows = useJob((s) => s.job!.rows.length > 0);
  const planned = useBench((s) => s.planned);
  const plans = planned?.plans ?? [];
  const total = plans.reduce((sum, p) => sum + p.minutes, 0);
  return (
    <>
      <Body>
        {planned && hasRows && <WordsFile file={planned.file} />}
        {plans.length === 0 ? (
          <Empty className={css.none} image={Empty.PRESENTED_IMAGE_SIMPLE} description={NO_PATHS} />
        ) : (
          <>
            <PathsTable plans={plans} />
            <Minutes plans={plans} />
          </>
        )}
        <CribEditor />
        <Section title="Caution">
          <p className="soft" style={{ margin: 0 }}>
            {CAUTION}
          </p>
        </Section>
      </Body>
      <footer className={css.foot}>
        <span>
          {plans.length} path{plans.length === 1 ? "" : "s"}, <b>{total.toFixed(1)} min</b>
        </span>
        <FileButton kind="dxf" label="DXF" title="chains, drill points and rest, in layers" />
        <FileButton
          kind="nc"
          label="RS-274 words"
          title="plain machine text, cut from above"
          not={noWords(planned?.file)}
        />
      </footer>
    </>
  );
}

function Minutes({ plans }: { plans: PathPlan[] }) {
  const bar = (name: string, minutes: number) => ({ name, value: minutes, shown: minutes.toFixed(1) });
  return (
    <div className={css.charts}>
      <Bars title="Minutes by cutter" bars={minutesByCutter(plans).map((m) => bar(m.name, m.minutes))} />
      <Bars title="Minutes by row" bars={plans.map((p) => bar(`row ${p.row}`, p.minutes))} />
    </div>
  );
}
