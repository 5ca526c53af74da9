"use client";
import { Button } from "antd";
import { besideWords, isNoSlip, slipWords, type Explanation, type Mismatch } from "@/core/mismatch";
import { jobOf } from "@/core/job";
import { Section } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { checkFigure, checkName } from "./figures";
import { Slip } from "./SlipWords";
import { useFinder, type Finder } from "./useFinder";
import css from "./Proof.module.css";

/**
 * Looks for the one slip that explains a check value the model misses. A slip is tried with one press and put back
 * with another.
 */
export function MismatchFinder() {
  const trial = useJob((s) => s.trial);
  const isOff = useBench((s) => s.evaluated?.evaluation.checks.some((c) => !c.agrees && c.expected !== null));
  const finder = useFinder();
  const { found, progress, problem } = finder;
  if (!isOff && !trial) return null;
  return (
    <Section
      title="What single slip would explain it?"
      aside={progress ? <Searching {...finder} progress={progress} /> : !trial && <Look {...finder} />}
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
      {trial && <Trying tried={finder.tried} />}
      {!found && !progress && !trial && (
        <p className="soft" style={{ margin: 0 }}>
          One number read wrongly, one hole too few, a row twice, the wrong density: each is tried on the solid, and
          those that fit are listed.
        </p>
      )}
      {!trial && found?.map((m) => <Explained key={m.index} mismatch={m} finder={finder} />)}
    </Section>
  );
}

const Searching = ({ progress, stop }: Finder & { progress: NonNullable<Finder["progress"]> }) => (
  <>
    <span className="num">
      {progress.done} of {progress.of}
    </span>{" "}
    <Button size="small" onClick={stop}>
      stop
    </Button>
  </>
);

const Look = ({ found, look }: Finder) => (
  <Button size="small" type="primary" onClick={look}>
    {found ? "look again" : "look for the slip"}
  </Button>
);

/** The slip that is being tried: to be kept or put back. */
function Trying({ tried }: { tried: Explanation | null }) {
  const trial = useJob((s) => s.trial)!;
  const endTrial = useJob((s) => s.endTrial);
  return (
    <div className={css.trying} data-testid="trying">
      <p>tried: {tried ? <Slip job={jobOf(trial.before)} x={tried} /> : slipWords[trial.kind]}</p>
      <Button size="small" type="primary" onClick={() => endTrial("keep")}>
        keep it
      </Button>{" "}
      <Button size="small" onClick={() => endTrial("back")}>
        put it back
      </Button>
    </div>
  );
}

/** A check value that is missed, and the slips that would explain it. */
function Explained({ mismatch, finder }: { mismatch: Mismatch; finder: Finder }) {
  const job = useJob((s) => s.job)!;
  const { check, explanations, tried, besides, left } = mismatch;
  const noSlip = besides.filter(isNoSlip);
  const others = besides.filter((b) => !isNoSlip(b));
  return (
    <div data-mismatch={check.kind}>
      <p className={css.missed}>
        {checkName(check)}: {checkFigure(check, check.expected, job)} printed, {checkFigure(check, check.actual, job)}{" "}
        in the model
      </p>
      {noSlip.length > 0 && <p style={{ margin: 0 }}>It may be no slip: {noSlip.map(besideWords).join("; ")}.</p>}
      {!explanations.some((x) => x.agrees) && !finder.progress && (
        <p className="soft" style={{ margin: 0 }}>
          No slip explains it: {tried.readings} readings of {tried.numbers} numbers, {tried.rows} rows and counts and{" "}
          {tried.pairs} pairs were tried{explanations.length > 0 && "; those below only come near"}. The print may err.
          {others.length > 0 && " What else it may hang on: "}
          {others.map(besideWords).join("; ")}
        </p>
      )}
      {left > 0 && !finder.progress && (
        <p className="soft" style={{ margin: 0 }}>
          The time for one search was out: {left} of its trials not made.
        </p>
      )}
      {explanations.map((x) => (
        <Offered key={x.rank} x={x} check={check} finder={finder} />
      ))}
    </div>
  );
}

function Offered({ x, check, finder }: { x: Explanation; check: Mismatch["check"]; finder: Finder }) {
  const job = useJob((s) => s.job)!;
  const others = x.alsoMends ? `; mends ${x.alsoMends} other${x.alsoMends > 1 ? "s" : ""} too` : "";
  return (
    <div className={css.slip} data-rank={x.rank} data-agrees={x.agrees}>
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
          {x.agrees ? "gives" : "comes near:"} {checkFigure(check, x.value, job)}
          {others}
        </small>
      </span>
      <Button
        size="small"
        disabled={finder.progress !== null}
        onClick={() => finder.attempt(x)}
        aria-label={`try slip ${x.rank}`}
      >
        try
      </Button>
    </div>
  );
}
