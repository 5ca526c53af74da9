"use client";
import { Input } from "antd";
import { useId, useRef, useState } from "react";
import type { Job } from "@/core/job";
import { evaluateNumber, showLength, toNumberText, type NumberText, type Quantity } from "@/core/number";
import { numberScope } from "@/core/engine/numbers";
import { writeBalloonText } from "@/core/callout";
import { useBench } from "../store/benchStore";
import { rememberField } from "./lastField";
import css from "./NumberBox.module.css";
import { Bare } from "../fields/Bare";

interface Props {
  job: Job;
  label: string;
  value: NumberText | undefined;
  quantity: Quantity;
  /** An empty optional number is taken away; an empty needed one becomes a question. */
  optional?: boolean;
  commit: (text: NumberText | undefined) => void;
  autoFocus?: boolean;
  /** A number that is the shop's own by nature (stock, grip): nobody asks where it comes from. */
  own?: boolean;
  /** A number that stands on the print itself. */
  printed?: boolean;
  /** What an empty optional number means, where it is not none. */
  blank?: string;
}

/**
 * A number: the text as typed, its value, and where it comes from. Wrong text stays as it was typed and says what is
 * wrong.
 */
export function NumberBox({ job, label, value, quantity, optional, commit, autoFocus, own, printed, blank }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const leaving = useRef(false);
  const id = useId();
  const shown = draft ?? (value === undefined || value === "?" ? "" : value);
  const empty = shown.trim() === "";
  const result = empty ? null : evaluateNumber(shown, quantity, numberScope(job));
  const problem = result && !result.ok ? result.problems[0] : null;
  const source = result?.ok ? result.value.source : null;
  const question = empty ? !optional : problem !== null || (source === "unsourced" && !own && !printed);
  const done = () => {
    // Left with Escape: what was typed is given up, though this render still holds it.
    if (leaving.current) return void (leaving.current = false);
    if (draft === null) return;
    const next = draft.trim() === "" ? (optional ? undefined : toNumberText("?")) : toNumberText(draft);
    setDraft(null);
    if (next !== value) commit(next);
  };
  const plain = result?.ok && /^-?\d*\.?\d+(?:!|\{[^{}]*\})?$/.test(shown.trim());
  const unit =
    quantity === "count" || quantity === "plain"
      ? ""
      : quantity === "angle" || quantity === "includedAngle"
        ? "°"
        : job.unit;
  const resolved = result?.ok
    ? quantity === "count" || quantity === "plain"
      ? String(Number(result.value.typed.toPrecision(8)))
      : unit === "°"
        ? `${Number(result.value.typed.toFixed(4))}°`
        : showLength(result.value.value, job.unit, undefined, job.title.leadingZero)
    : "";
  const cited = result?.ok ? result.value.cites : [];
  const equal =
    result?.ok && source === "unsourced" && !printed && !own
      ? job.balloons.filter(
          (b) =>
            !b.reference &&
            b.value !== undefined &&
            kindFits(b.kind, quantity) &&
            matches(b.value, result.value.typed, job),
        )
      : [];
  // One that nothing uses yet is the likeliest to be meant.
  const unused =
    useBench
      .getState()
      .evaluated?.evaluation.ledger.filter((l) => l.state === "unused")
      .map((l) => l.number) ?? [];
  const sameBalloon = equal.find((b) => unused.includes(b.number)) ?? equal[0];
  const offers = draft === null ? [] : completions(draft, job, quantity);
  const choose = (o: Offer) => {
    setDraft(o.whole);
    setAt(0);
  };
  return (
    <div className={css.field}>
      <label htmlFor={id}>{label}</label>
      <div className={`${css.box} ${question ? css.question : ""} ${problem ? css.wrong : ""}`}>
        <Input
          variant="borderless"
          size="small"
          id={id}
          value={shown}
          spellCheck={false}
          autoComplete="off"
          data-draft={draft !== null ? "yes" : "no"}
          autoFocus={autoFocus}
          aria-invalid={problem !== null}
          aria-describedby={`${id}-s`}
          maxLength={200}
          role="combobox"
          aria-expanded={offers.length > 0}
          aria-controls={`${id}-o`}
          aria-autocomplete="list"
          onChange={(e) => {
            setDraft(e.target.value);
            setAt(0);
          }}
          onBlur={done}
          onFocus={() => rememberField((text) => commit(toNumberText(text)))}
          onDragOver={(e) => {
            if (e.dataTransfer.types.includes("text/plain")) e.preventDefault();
          }}
          onDrop={(e) => {
            const text = e.dataTransfer.getData("text/plain").trim();
            if (text) {
              e.preventDefault();
              setDraft(null);
              commit(toNumberText(text));
            }
          }}
          onKeyDown={(e) => {
            if (offers.length && (e.key === "ArrowDown" || e.key === "ArrowUp")) {
              e.preventDefault();
              return setAt((at + (e.key === "ArrowDown" ? 1 : offers.length - 1)) % offers.length);
            }
            if (offers.length && (e.key === "Enter" || e.key === "Tab") && !offers.some((o) => o.whole === draft)) {
              e.preventDefault();
              return choose(offers[Math.min(at, offers.length - 1)]);
            }
            if (e.key === "Enter") {
              e.preventDefault();
              done();
            }
            if (e.key === "Escape") {
              e.stopPropagation();
              leaving.current = true;
              setDraft(null);
              e.currentTarget.blur();
            }
          }}
        />
        <i>{problem ? "?" : plain || empty ? unit : resolved}</i>
      </div>
      {offers.length > 0 && (
        <ul id={`${id}-o`} role="listbox" className={css.offers} aria-label="balloons and named values">
          {offers.map((o, i) => (
            <li
              key={o.whole}
              role="option"
              aria-selected={i === at}
              onMouseDown={(e) => {
                e.preventDefault();
                choose(o);
              }}
            >
              <b>{o.short}</b> {o.text}
            </li>
          ))}
        </ul>
      )}
      <small id={`${id}-s`} className={question ? "red" : undefined}>
        {problem ? (
          <>{problem.message}</>
        ) : empty ? (
          optional ? (
            (blank ?? "none")
          ) : (
            "? no value yet"
          )
        ) : source === "print" ? (
          <>
            {cited.slice(0, 3).map((n) => (
              <b key={n}>{n}</b>
            ))}
            {balloonText(job, cited)}
          </>
        ) : source === "standard" ? (
          <span title={result?.ok ? result.value.cited : ""}>{result?.ok ? result.value.cited : ""}</span>
        ) : printed ? (
          ""
        ) : source === "shop" || own ? (
          "own choice"
        ) : (
          <>
            {sameBalloon ? (
              <Bare
                className={css.link}
                onClick={() => commit(toNumberText(`#${sameBalloon.number}`))}
                title="link this number to the balloon"
              >
                = #{sameBalloon.number}?
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
        )}
      </small>
    </div>
  );
}

interface Offer {
  whole: string;
  short: string;
  text: string;
}
/** Balloons while `#` is typed, named values while a word is. */
function completions(draft: string, job: Job, quantity: Quantity): Offer[] {
  const hash = /#(\d*)$/.exec(draft);
  if (hash) {
    const head = draft.slice(0, hash.index);
    return job.balloons
      .filter(
        (b) =>
          !b.reference &&
          b.kind !== "thread" &&
          (head.trim() !== "" || kindFits(b.kind, quantity)) &&
          String(b.number).startsWith(hash[1]),
      )
      .slice(0, 8)
      .map((b) => ({
        whole: `${head}#${b.number}`,
        short: String(b.number),
        text: writeBalloonText({ ...b, note: undefined, zone: undefined }),
      }));
  }
  const word = /(?<![\w#.])([A-Za-z_]\w*)$/.exec(draft);
  if (!word) return [];
  const head = draft.slice(0, word.index);
  return job.names
    .filter((n) => n.name.toLowerCase().startsWith(word[1].toLowerCase()))
    .slice(0, 8)
    .map((n) => ({ whole: head + n.name, short: n.name, text: n.value }));
}

const balloonText = (job: Job, cited: number[]) => {
  const b = cited.length === 1 ? job.balloons.find((x) => x.number === cited[0]) : undefined;
  return b ? writeBalloonText({ ...b, note: undefined }) : "";
};
const matches = (text: NumberText, typed: number, job: Job): boolean => {
  const r = evaluateNumber(text, "plain", numberScope(job));
  return r.ok && Math.abs(r.value.typed - typed) < 1e-9;
};
const kindFits = (kind: string, q: Quantity): boolean =>
  q === "angle" || q === "includedAngle"
    ? kind === "angle"
    : q === "count"
      ? kind === "count"
      : kind !== "angle" && kind !== "count" && kind !== "thread";
