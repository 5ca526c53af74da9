"use client";
import { CaretDownOutlined, CaretRightOutlined } from "@ant-design/icons";
import { switchedRun, type GroupRun } from "@/core/job";
import { Bare } from "../fields/Bare";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./Card.module.css";

/** The line over rows of one group: folds them to itself, says what is in them, switches them off together. */
export function GroupLine({ run }: { run: GroupRun }) {
  const rows = useJob((s) => s.job!.rows);
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const folded = useBench((s) => s.folded);
  const solved = useBench((s) => s.evaluated?.evaluation.solved.rows);
  const remarks = useBench((s) => s.evaluated?.evaluation.findings);
  const own = rows.slice(run.from - 1, run.to);
  const ids = new Set(own.map((r) => r.id));
  const isFolded = folded.includes(run.name);
  const isOn = own.some((r) => !r.off);
  const failed = solved?.filter((r) => ids.has(r.row.id) && !r.row.off && r.state === "failed").length ?? 0;
  const found = remarks?.filter((f) => f.rowId && ids.has(f.rowId)).length ?? 0;
  const fold = () =>
    set({
      folded: isFolded ? folded.filter((name) => name !== run.name) : [...folded, run.name],
      // What is folded away is not at hand any more.
      ...(isFolded ? {} : { openRow: null, selected: null }),
    });
  const said = [
    run.from === run.to ? `row ${run.from}` : `rows ${run.from}–${run.to}`,
    ...(isOn ? [] : ["off"]),
    ...(found ? [`${found} remark${found > 1 ? "s" : ""}`] : []),
  ];
  return (
    <div className={css.group} role="listitem" data-group={run.name}>
      <Bare onClick={fold} aria-expanded={!isFolded} className={css.groupName}>
        {isFolded ? <CaretRightOutlined aria-hidden="true" /> : <CaretDownOutlined aria-hidden="true" />} {run.name}
      </Bare>
      <span className="soft">{said.join(" · ")}</span>
      {failed > 0 && <b className="red">{failed} cannot be made</b>}
      <Bare
        className={css.edgesSwitch}
        aria-label={`${run.name}: rows ${run.from} to ${run.to} ${isOn ? "off" : "on"}`}
        onClick={() => edit(switchedRun(rows, run), isOn ? "group off" : "group on")}
      >
        {isOn ? "off" : "on"}
      </Bare>
    </div>
  );
}
