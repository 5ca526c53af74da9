"use client";
import { App, Button, Input } from "antd";
import { useState } from "react";
import type { Job } from "@/core/job";
import { decimalText, dmsText, evaluateNumber, toNumberText, type NumberText, unitOf } from "@/core/number";
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
    ...Object.fromEntries(r.asks.map((a) => [a.key, a.start[job.unit]])),
    ...(r.words ? { [r.words.key]: r.words.start[job.unit] } : {}),
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

function Results({ job, r, values }: { job: Job; r: Reckoning; values: Record<string, string> }) {
  const { message } = App.useApp();
  const scope = numberScope(job);
  const wrong = r.asks.map((a) => ({ a, v: evaluateNumber(values[a.key], a.quantity, scope) })).find(({ v }) => !v.ok);
  if (wrong && !wrong.v.ok)
    return (
      <p className="red">
        {wrong.a.label}: {wrong.v.problems[0].message}
      </p>
    );
  const given = r.gives(
    Object.fromEntries(Object.entries(values).map(([k, v]) => [k, k === r.words?.key ? v : operand(v)])),
    scope,
  );
  if (!given.ok)
    return (
      <p className="red">
        {given.problems[0].message}
        {given.problems[0].expected ? `; expected: ${given.problems[0].expected}` : ""}
      </p>
    );
  const use = (text: NumberText) => {
    if (!putIntoLastField(text)) void message.info("click into a number field first, then press the result", 3);
  };
  return (
    <ul className={css.results}>
      {given.value.map((g, i) => {
        const text = toNumberText(g.text);
        const v = evaluateNumber(text, g.quantity, scope);
        return (
          <li
            key={i}
            draggable={v.ok}
            onDragStart={(e) => {
              e.dataTransfer.setData("text/plain", text);
              e.dataTransfer.effectAllowed = "copy";
            }}
          >
            <span>{g.label}</span>
            <b className="num" title={text}>
              {v.ok ? (g.shown ?? show(g, v.value.typed, v.value.value, job)) : "—"}
            </b>
            {v.ok ? (
              <Button
                size="small"
                onMouseDown={(e) => e.preventDefault()}
                onClick={() => use(text)}
                title="into the number field used last; or drag it there"
                aria-label={`use ${g.label}`}
              >
                use
              </Button>
            ) : (
              <small className="red">{v.problems[0].message}</small>
            )}
          </li>
        );
      })}
    </ul>
  );
}

const show = (g: Given, typed: number, inside: number, job: Job): string =>
  g.quantity === "angle" || g.quantity === "includedAngle"
    ? `${typed.toFixed(4)}°  ${dmsText(typed)}`
    : g.quantity === "plain" || g.quantity === "count"
      ? String(Number(typed.toPrecision(7)))
      : decimalText(inside, {
          unit: job.unit,
          decimals: unitOf[job.unit].places.exact,
          leadingZero: unitOf[job.unit].leadingZero || job.title.leadingZero === true,
        });
