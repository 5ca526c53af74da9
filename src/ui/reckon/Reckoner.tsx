"use client";
import { Input } from "antd";
import { useState } from "react";
import type { Job } from "@/core/job";
import { evaluateNumber, toNumberText, byFigures } from "@/core/number";
import { numberScope } from "@/core/engine/numbers";
import { operand, reckonings, type Reckoning } from "@/core/reckon";
import { NumberBox } from "../common/NumberBox";
import { fieldsClass } from "../common/Section";
import { useBench } from "../store/benchStore";
import { ResultLine } from "./ResultLine";
import { Tables } from "./Tables";
import css from "./Reckoner.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";
import { useShallow } from "zustand/react/shallow";

/** What is chosen where a reckoning would be: the tables themselves. */
const TABLES = "tables";

/**
 * The drawer with the tables and the arithmetic a shop does by hand. Results are dragged into a field, or put into the
 * one used last; they keep the balloons they are made of, and the table they are from.
 */
export function Reckoner({ job }: { job: Job }) {
  const { reckoner, set } = useBench(useShallow((s) => ({ reckoner: s.reckoner, set: s.set })));
  const [id, setId] = useState(reckonings[0].id);
  const [typed, setTyped] = useState<Record<string, Record<string, string>>>({});
  if (!reckoner) return null;
  return (
    <aside className={css.drawer} aria-label="Reckoner">
      <header>
        <Choice
          label="What to reckon"
          value={id}
          choose={setId}
          options={[{ value: TABLES, label: "Tables" }, ...reckonings.map((x) => ({ value: x.id, label: x.title }))]}
        />
        <Bare aria-label="Close the reckoner" onClick={() => set({ reckoner: false })}>
          ×
        </Bare>
      </header>
      {id === TABLES ? (
        <Tables job={job} />
      ) : (
        <Reckoned
          key={id}
          job={job}
          r={reckonings.find((x) => x.id === id)!}
          typed={typed[id] ?? {}}
          put={(key, text) => setTyped((t) => ({ ...t, [id]: { ...t[id], [key]: text } }))}
        />
      )}
    </aside>
  );
}

/** One reckoning: what it asks, and what it gives. */
function Reckoned({
  job,
  r,
  typed,
  put,
}: {
  job: Job;
  r: Reckoning;
  typed: Record<string, string>;
  put: (key: string, text: string) => void;
}) {
  const values = {
    ...Object.fromEntries(r.asks.map((a) => [a.key, byFigures(job.unit, a.start)])),
    ...(r.words ? { [r.words.key]: byFigures(job.unit, r.words.start) } : {}),
    ...typed,
  };
  return (
    <>
      <div className={fieldsClass}>
        {r.asks.map((a) => (
          <NumberBox
            key={a.key}
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
    </>
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
