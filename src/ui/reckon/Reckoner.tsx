"use client";
import { App, Button, Input } from "antd";
import { useState, type DragEvent } from "react";
import type { Job } from "@/core/job";
import { decimalText, dmsText, evaluateNumber, toNumberText, unitOf, byFigures } from "@/core/number";
import { numberScope } from "@/core/engine/numbers";
import { operand, reckonings, type Given, type Reckoning } from "@/core/reckon";
import { NumberBox } from "../common/NumberBox";
import { putIntoLastField } from "../common/lastField";
import { fieldsClass } from "../common/Section";
import { useBench } from "../store/benchStore";
import css from "./Reckoner.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";
import { useShallow } from "zustand/react/shallow";

/**
 * The drawer with the arithmetic a shop does by hand. Results are dragged into a field, or put into the one used
 * last; they keep the balloons they are made of.
 */
export function Reckoner({ job }: { job: Job }) {
  const { reckoner, set } = useBench(useShallow((s) => ({ reckoner: s.reckoner, set: s.set })));
  const [id, setId] = useState(reckonings[0].id);
  const [typed, setTyped] = useState<Record<string, Record<string, string>>>({});
  if (!reckoner) return null;
  const r = reckonings.find((x) => x.id === id)!;
  const values = {
    ...Object.fromEntries(r.asks.map((a) => [a.key, byFigures(job.unit, a.start)])),
    ...(r.words ? { [r.words.key]: byFigures(job.unit, r.words.start) } : {}),
    ...typed[id],
  };
  const put = (key: string, text: string) => setTyped((t) => ({ ...t, [id]: { ...t[id], [key]: text } }));
  return (
    <aside className={css.drawer} aria-label="Reckoner">
      <header>
        <Choice
          label="What to reckon"
          value={id}
          choose={setId}
          options={reckonings.map((x) => ({ value: x.id, label: x.title }))}
        />
        <Bare aria-label="Close the reckoner" onClick={() => set({ reckoner: false })}>
          ×
        </Bare>
      </header>
      <div className={fieldsClass}>
        {r.asks.map((a) => (
          <NumberBox
            key={`${id}${a.key}`}
            own
            job={job}
            label={a.label}
            value={toNumberText(values[a.key])}
            quantity={a.quantity}
            commit={(t) => put(a.key, t ?? "?")}
          />
        ))}
        {r.words && (
          <label>
            <span className="lab">{r.words.label}</span>
            <Input
              size="small"
              value={values[r.words.key]}
              maxLength={40}
              spellCheck={false}
              onChange={(e) => put(r.words!.key, e.target.value)}
            />
          </label>
        )}
      </div>
      <Results job={job} r={r} values={values} />
      <p className={css.source}>{r.source}</p>
    </aside>
  );
}

interface ResultsProps {
  job: Job;
  r: Reckoning;
  values: Record<string, string>;
}

/** What the reckoning asks first that is no number yet. */
function wrongIn({ job, r, values }: ResultsProps): string | null {
  for (const ask of r.asks) {
    const v = evaluateNumber(values[ask.key], ask.quantity, numberScope(job));
    if (!v.ok) return `${ask.label}: ${v.problems[0].message}`;
  }
  return null;
}

function Results({ job, r, values }: ResultsProps) {
  const wrong = wrongIn({ job, r, values });
  if (wrong !== null) return <p className="red">{wrong}</p>;
  const operands = Object.entries(values).map(([k, v]) => [k, k === r.words?.key ? v : operand(v)]);
  const given = r.gives(Object.fromEntries(operands), numberScope(job));
  if (!given.ok) {
    const { message, expected } = given.problems[0];
    return <p className="red">{expected ? `${message}; expected: ${expected}` : message}</p>;
  }
  return (
    <ul className={css.results}>
      {given.value.map((g, i) => (
        <ResultLine key={i} job={job} given={g} />
      ))}
    </ul>
  );
}

/** One result: it is dragged, or pressed, into a number field. */
function ResultLine({ job, given }: { job: Job; given: Given }) {
  const { message } = App.useApp();
  const text = toNumberText(given.text);
  const v = evaluateNumber(text, given.quantity, numberScope(job));
  const use = () => {
    if (!putIntoLastField(text)) void message.info("click into a number field first, then press the result", 3);
  };
  const drag = (e: DragEvent) => {
    e.dataTransfer.setData("text/plain", text);
    e.dataTransfer.effectAllowed = "copy";
  };
  return (
    <li draggable={v.ok} onDragStart={drag}>
      <span>{given.label}</span>
      <b className="num" title={text}>
        {v.ok ? (given.shown ?? show(given, v.value.typed, v.value.value, job)) : "—"}
      </b>
      {v.ok ? (
        <Button
          size="small"
          onMouseDown={(e) => e.preventDefault()}
          onClick={use}
          title="into the number field used last; or drag it there"
          aria-label={`use ${given.label}`}
        >
          use
        </Button>
      ) : (
        <small className="red">{v.problems[0].message}</small>
      )}
    </li>
  );
}

function show({ quantity }: Given, typed: number, inside: number, job: Job): string {
  switch (quantity) {
    case "angle":
    case "includedAngle":
      return `${typed.toFixed(4)}°  ${dmsText(typed)}`;
    case "plain":
    case "count":
      return String(Number(typed.toPrecision(7)));
    default:
      return decimalText(inside, {
        unit: job.unit,
        decimals: unitOf[job.unit].places.exact,
        leadingZero: unitOf[job.unit].leadingZero || job.title.leadingZero === true,
      });
  }
}
