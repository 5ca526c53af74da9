"use client";
import { useShallow } from "zustand/react/shallow";
import { useLight } from "../common/light";
import { Bare } from "../fields/Bare";
import { goOn, stopEngine } from "../engine/useEngine";
import { useLongBusy } from "../common/useLongBusy";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./Bench.module.css";

const saveWords = {
  saved: "saved",
  saving: "saving …",
  away: "server away, kept here",
  conflict: "changed elsewhere",
  refused: "not saved",
};

/** What is always at hand, and how the job stands: saved, computing, stopped. */
export function HeadTools() {
  const { save, message } = useJob(useShallow((s) => ({ save: s.save, message: s.message })));
  const engineProblem = useBench((s) => s.engineProblem);
  const isKept = save === "saved" || save === "saving";
  return (
    <div className={css.tools}>
      <div>
        <History />
        <ReckonerSwitch />
        <LightSwitch />
      </div>
      <div role="status" title={message || engineProblem} className={isKept ? undefined : "red"}>
        <StandingWords />
      </div>
    </div>
  );
}

function History() {
  const { undo, redo, past, future } = useJob(
    useShallow((s) => ({ undo: s.undo, redo: s.redo, past: s.past, future: s.future })),
  );
  return (
    <>
      <Bare
        disabled={!past.length}
        onClick={undo}
        title={`undo ${past[past.length - 1]?.label ?? ""} (Ctrl Z)`}
        aria-label="Undo"
      >
        undo
      </Bare>
      <Bare
        disabled={!future.length}
        onClick={redo}
        title={`redo ${future[0]?.label ?? ""} (Ctrl Shift Z)`}
        aria-label="Redo"
      >
        redo
      </Bare>
    </>
  );
}

function ReckonerSwitch() {
  const { reckoner, set } = useBench(useShallow((s) => ({ reckoner: s.reckoner, set: s.set })));
  return (
    <Bare
      onClick={() => set({ reckoner: !reckoner })}
      aria-pressed={reckoner}
      title="the arithmetic of the shop: key ="
    >
      reckon
    </Bare>
  );
}

function LightSwitch() {
  const { light, turn } = useLight();
  return (
    <Bare onClick={turn} title="paper or dark">
      {light === "dark" ? "paper" : "dark"}
    </Bare>
  );
}

/** Milliseconds after which it is said that something is being computed. */
const NOTICED = 400;

function StandingWords() {
  const save = useJob((s) => s.save);
  const { atRow, engineProblem, checking } = useBench(
    useShallow((s) => ({ atRow: s.atRow, engineProblem: s.engineProblem, checking: s.checking })),
  );
  const isLong = useLongBusy(NOTICED);
  if (isLong)
    return (
      <>
        {atRow ? `row ${atRow.row} of ${atRow.of}` : "computing …"} <Bare onClick={stopEngine}>stop</Bare>
      </>
    );
  if (engineProblem)
    return (
      <>
        <span className="red">{engineProblem.split(";")[0]}</span> <Bare onClick={goOn}>go on</Bare>
      </>
    );
  return checking ? "as last computed; being checked" : saveWords[save];
}
