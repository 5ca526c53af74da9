"use client";
import { showArea, showLength, showVolume } from "@/core/number";
import { minutesByCutter } from "@/core/paths/minutes";
import { cribFor, type Cutter } from "@/core/tables";
import { Body, Section } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { FileButton } from "../release/FileButton";
import { CribEditor } from "./CribEditor";
import { WordsFile } from "./WordsFile";
import css from "./PathsCard.module.css";
import { Bars } from "../charts/Bars";
import { Choice } from "../fields/Choice";
import { useShallow } from "zustand/react/shallow";

/**
 * The Paths step: the wireframe of every pocket, hole and of the outline, with its cutter, what that leaves, length
 * and time.
 */
export function PathsCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { planned, selected, set } = useBench(
    useShallow((s) => ({ planned: s.planned, selected: s.selected, set: s.set })),
  );
  const plans = planned?.plans ?? [];
  const crib: readonly Cutter[] = job.crib ?? cribFor(job.unit);
  const len = (mm: number) => showLength(mm, job.unit);
  const area = (mm2: number) => showArea(mm2, job.unit);
  const volume = (mm3: number) => showVolume(mm3, job.unit);
  const choose = (row: string, cutter: string) => {
    const rest = (job.cutters ?? []).filter((c) => c.row !== row);
    edit([{ edit: "setHead", head: { cutters: cutter ? [...rest, { row, cutter }] : rest } }], "cutter");
  };
  const total = plans.reduce((s, p) => s + p.minutes, 0);
  return (
    <>
      <div className={css.head}>
        <span>row</span>
        <span>path</span>
        <span>cutter</span>
        <span>length</span>
        <span>min</span>
      </div>
      <Body>
        {planned && job.rows.length > 0 && <WordsFile file={planned.file} />}
        {plans.length === 0 && (
          <p className={css.none}>
            Pockets, holes and the outer outline get their paths here, as soon as the card has such rows.
          </p>
        )}
        {plans.map((p) => (
          <div
            key={p.rowId}
            className={`${css.plan} ${selected === p.rowId ? css.on : ""}`}
            onClick={() => set({ selected: selected === p.rowId ? null : p.rowId })}
            data-path={p.kind}
          >
            <span className="num">{p.row}</span>
            <span>
              {p.kind === "drill"
                ? `drill ${p.points.length} × ${len(p.depth)} deep`
                : p.kind === "face"
                  ? `face, ${p.depth < 1e-6 ? "the stock over its plane" : `${len(p.depth)} below its plane`}, ${p.levels.length} level${p.levels.length === 1 ? "" : "s"}`
                  : `${p.kind}, ${len(p.depth)} deep, ${p.levels.length} level${p.levels.length === 1 ? "" : "s"}`}
              {p.problem && <em className="red">{p.problem}</em>}
              {p.unplanned.length > 0 && <em className="red">not planned: {p.unplanned.join(", ")}</em>}
              {p.rest.area > 1e-9 && (
                <em className="red">
                  rest: {area(p.rest.area)} a slice, {volume(p.rest.area * p.depth)} in {p.rest.loops.length} corner
                  {p.rest.loops.length === 1 ? "" : "s"}
                </em>
              )}
            </span>
            <span onClick={(e) => e.stopPropagation()}>
              {p.kind === "drill" ? (
                <span className="num">{p.drill ?? "—"}</span>
              ) : (
                <Choice
                  className={css.cutter}
                  label={`cutter for row ${p.row}`}
                  value={(job.cutters ?? []).find((c) => c.row === p.rowId)?.cutter ?? ""}
                  choose={(name) => choose(p.rowId, name)}
                  options={[
                    {
                      value: "",
                      label:
                        p.cutter && !(job.cutters ?? []).some((c) => c.row === p.rowId)
                          ? `${p.cutter.name} (proposed)`
                          : "propose",
                    },
                    ...crib.map((c) => ({ value: c.name, label: `${c.name}, reach ${len(c.reach)}` })),
                  ]}
                />
              )}
            </span>
            <span className="num">{len(p.length)}</span>
            <span className="num">{p.minutes.toFixed(1)}</span>
          </div>
        ))}
        {plans.length > 0 && (
          <div className={css.charts}>
            <Bars
              title="Minutes by cutter"
              bars={minutesByCutter(plans).map((m) => ({
                name: m.name,
                value: m.minutes,
                shown: m.minutes.toFixed(1),
              }))}
            />
            <Bars
              title="Minutes by row"
              bars={plans.map((p) => ({ name: `row ${p.row}`, value: p.minutes, shown: p.minutes.toFixed(1) }))}
            />
          </div>
        )}
        <CribEditor />
        <Section title="Caution">
          <p className="soft" style={{ margin: 0 }}>
            Lengths and times are estimates for planning. Speeds, feeds and stick-out follow the tool maker’s ratings;
            the words are a plan, not a proven program: check them against the machine builder’s manual and prove them
            out.
          </p>
        </Section>
      </Body>
      <footer className={css.foot}>
        <span>
          {plans.length} path{plans.length === 1 ? "" : "s"}, <b>{total.toFixed(1)} min</b>
        </span>
        <FileButton kind="dxf" label="DXF" title="chains, drill points and rest, in layers" />
        <FileButton kind="nc" label="RS-274 words" title="plain machine text, cut from above" />
      </footer>
    </>
  );
}
