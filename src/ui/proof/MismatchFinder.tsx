"use client";
import type { Beside } from "@/core/mismatch/besides";
import { Button } from "antd";
import { useEffect, useRef, useState } from "react";
import { slipWords, type Explanation, type Mismatch, type Slip as SlipOfOne } from "@/core/mismatch";
import { jobOf, type Job } from "@/core/job";
import { Section } from "../common/Section";
import { explainNow } from "../engine/useEngine";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { checkFigure, checkName } from "./figures";
import css from "./Proof.module.css";
import { useShallow } from "zustand/react/shallow";

/**
 * Looks for the one slip that explains a check value the model misses. A slip is tried with one press and put back
 * with another.
 */
export function MismatchFinder() {
  const job = useJob((s) => s.job)!;
  const trial = useJob((s) => s.trial);
  const tryOut = useJob((s) => s.tryOut);
  const endTrial = useJob((s) => s.endTrial);
  const { evaluated, set } = useBench(useShallow((s) => ({ evaluated: s.evaluated, set: s.set })));
  const [found, setFound] = useState<{ job: Job; list: Mismatch[] } | null>(null);
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const [problem, setProblem] = useState("");
  const [tried, setTried] = useState<Explanation | null>(null);
  const running = useRef<{ stop: () => void } | null>(null);
  const off = evaluated?.evaluation.checks.filter((c) => !c.agrees && c.expected !== null) ?? [];
  useEffect(() => () => running.current?.stop(), []);
  const stale = found !== null && found.job !== job && !trial;
  if (!off.length && !trial) return null;

  const look = () => {
    setProblem("");
    setProgress({ done: 0, of: 1 });
    setFound(null);
    // What is told on the way comes by another channel than the answer, and may come after it.
    let over = false;
    const run = explainNow(
      (done, of) => over || setProgress({ done, of }),
      (list) => over || (running.current === run && setFound({ job, list })),
    );
    running.current = run;
    void run.found.catch(() => {}).finally(() => (over = true));
    run.found.then(
      (list) => {
        setProgress(null);
        if (list) setFound({ job, list });
      },
      (e) => {
        setProgress(null);
        setProblem(e instanceof Error ? e.message : "the engine stopped");
      },
    );
  };
  const attempt = (x: Explanation) => {
    const why = tryOut(x.edits, x.kind);
    if (why) return setProblem(why);
    setTried(x);
    if (x.row !== null) set({ selected: job.rows[x.row - 1]?.id ?? null });
  };
  return (
    <Section
      title="What single slip would explain it?"
      aside={
        progress ? (
          <>
            <span className="num">
              {progress.done} of {progress.of}
            </span>{" "}
            <Button
              size="small"
              onClick={() => {
                running.current?.stop();
                setProgress(null);
              }}
            >
              stop
            </Button>
          </>
        ) : (
          !trial && (
            <Button size="small" type="primary" onClick={look}>
              {found && !stale ? "look again" : "look for the slip"}
            </Button>
          )
        )
      }
    >
      {problem && (
        <p className="red" style={{ margin: 0 }}>
          {problem}
        </p>
      )}
      {progress && (
        <div className={css.bar} role="progressbar" aria-valuenow={progress.done} aria-valuemax={progress.of}>
          <i style={{ width: `${(100 * progress.done) / Math.max(1, progress.of)}%` }} />
        </div>
      )}
      {trial && (
        <div className={css.trying} data-testid="trying">
          <p>tried: {tried ? <Slip job={jobOf(trial.before)} x={tried} /> : slipWords[trial.kind]}</p>
          <Button size="small" type="primary" onClick={() => endTrial("keep")}>
            keep it
          </Button>{" "}
          <Button size="small" onClick={() => endTrial("back")}>
            put it back
          </Button>
        </div>
      )}
      {!found && !progress && !trial && (
        <p className="soft" style={{ margin: 0 }}>
          One number read wrongly, one hole too few, a row twice, the wrong density: each is tried on the solid, and
          those that fit are listed.
        </p>
      )}
      {found &&
        !stale &&
        !trial &&
        found.list.map((m) => (
          <div key={m.index} data-mismatch={m.check.kind}>
            <p className={css.missed}>
              {checkName(m.check)}: {checkFigure(m.check, m.check.expected, job)} printed,{" "}
              {checkFigure(m.check, m.check.actual, job)} in the model
            </p>
            {m.explanations.length === 0 && !progress && (
              <p className="soft" style={{ margin: 0 }}>
                No slip explains it: {m.tried.readings} readings of {m.tried.numbers} numbers, {m.tried.rows} rows and
                counts and {m.tried.pairs} pairs were tried. The print may err.
                {m.besides.length > 0 && " What else it may hang on: "}
                {m.besides.map(besideWords).join("; ")}
              </p>
            )}
            {m.explanations.map((x) => (
              <div key={x.rank} className={css.slip} data-rank={x.rank} data-agrees={x.agrees}>
                <b>{x.rank}</b>
                <span>
                  {x.second && <b>two slips: </b>}
                  <Slip job={job} x={x} />
                  {x.second && (
                    <>
                      ; and <Slip job={job} x={x.second} />
                    </>
                  )}
                  <small>
                    {x.agrees ? "gives" : "comes near:"} {checkFigure(m.check, x.value, job)}
                    {x.alsoMends ? `; mends ${x.alsoMends} other${x.alsoMends > 1 ? "s" : ""} too` : ""}
                  </small>
                </span>
                <Button
                  size="small"
                  disabled={progress !== null}
                  onClick={() => attempt(x)}
                  aria-label={`try slip ${x.rank}`}
                >
                  try
                </Button>
              </div>
            ))}
          </div>
        ))}
    </Section>
  );
}

/** A slip in words: what it is, where it stands, from what to what. */
function Slip({ job, x }: { job: Job; x: SlipOfOne }) {
  const where =
    x.balloon !== undefined
      ? `balloon ${x.balloon}`
      : x.row === null
        ? job.material.name || "material"
        : `row ${x.row}`;
  const field =
    x.balloon !== undefined || x.field === "row"
      ? ""
      : ` ${x.field.replace(/^(shape|pattern)\./, "").replace(/\./g, " ")}`;
  return (
    <>
      {slipWords[x.kind]}: {where}
      {field}, <span className="num">{x.from}</span> for <span className="num">{x.to}</span>
    </>
  );
}

const besideOf: Record<Beside["kind"], string> = {
  undriven: "no balloon drives it",
  "tap drilling": "threads drawn at their drill",
  "edge breaks": "broken edges",
};
/** What a figure may hang on besides, with its share of the difference. */
const besideWords = ({ kind, row, share }: Beside): string =>
  `${row === null ? "" : `row ${row}: `}${besideOf[kind]} (${Math.round(share * 100)} % of the difference)`;
