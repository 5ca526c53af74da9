"use client";
import { writeBalloonText } from "@/core/callout";
import type { Job } from "@/core/job";
import { toNumberText, type NumberText, type Quantity } from "@/core/number";
import { useBench } from "../store/benchStore";
import { Bare } from "../fields/Bare";
import { balloonOf } from "./numberOffers";
import type { SourceState } from "./numberState";
import css from "./NumberBox.module.css";

interface Props {
  state: SourceState;
  job: Job;
  quantity: Quantity;
  /** The text as it stands in the field. */
  shown: string;
  /** What an empty optional number means, where it is not none. */
  blank?: string;
  commit: (text: NumberText) => void;
}

/** What stands under a number: where it comes from, or what is asked about it. */
export function SourceLine({ state, job, quantity, shown, blank, commit }: Props) {
  switch (state.kind) {
    case "problem":
      return state.text;
    case "none":
      return blank ?? "none";
    case "missing":
      return "? no value yet";
    case "balloons":
      return <Cited job={job} numbers={state.numbers} />;
    case "standard":
      return <span title={state.cited}>{state.cited}</span>;
    case "printed":
      return "";
    case "own":
      return "own choice";
    case "unsourced":
      return <Unsourced {...{ job, quantity, commit }} typed={state.typed} shown={shown} />;
  }
}

const MOST_CITED = 3;

function Cited({ job, numbers }: { job: Job; numbers: number[] }) {
  const only = numbers.length === 1 ? job.balloons.find((b) => b.number === numbers[0]) : undefined;
  return (
    <>
      {numbers.slice(0, MOST_CITED).map((n) => (
        <b key={n}>{n}</b>
      ))}
      {only && writeBalloonText({ ...only, note: undefined })}
    </>
  );
}

/** A bare number is asked where it comes from: the balloon with its figure, or the shop's own choice. */
function Unsourced({ job, quantity, typed, shown, commit }: Omit<Props, "state" | "blank"> & { typed: number }) {
  const ledger = useBench((s) => s.evaluated?.evaluation.ledger);
  const unused = ledger?.filter((l) => l.state === "unused" && l.elsewhere === undefined).map((l) => l.number) ?? [];
  const balloon = balloonOf(typed, job, quantity, unused);
  return (
    <>
      {balloon ? (
        <Bare
          className={css.link}
          onClick={() => commit(toNumberText(`#${balloon.number}`))}
          title="link this number to the balloon"
        >
          = #{balloon.number}?
        </Bare>
      ) : (
        "? no source"
      )}{" "}
      <Bare
        className={css.link}
        onClick={() => commit(toNumberText(`${shown.trim()}!`))}
        title="vouch for this number as the shop's own choice"
      >
        own choice
      </Bare>
    </>
  );
}
