"use client";
import { Button, Input } from "antd";
import { useState, type FormEvent } from "react";
import { isFreeName } from "@/core/callout";
import type { Job } from "@/core/job";
import { toNumberText, type LengthUnit, byFigures } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./PrintCard.module.css";
import { Bare } from "../fields/Bare";

type Named = Job["names"];

/** What a typed line names: its name and number, or what is wrong with it. */
function readNamed(line: string, names: Named): { name: string; value: string } | { problem: string } {
  const [, name, value] = /^\s*([A-Za-z_][A-Za-z0-9_]*)\s*=\s*(.+)$/.exec(line) ?? [];
  if (name === undefined) return { problem: "a name, =, and a number" };
  if (names.some((n) => n.name.toLowerCase() === name.toLowerCase())) return { problem: `${name} is there already` };
  if (!isFreeName(name)) return { problem: `${name} is a word of the card; take another` };
  return { name, value };
}

/** Values with a name of their own, usable wherever a number stands: `wall = 3`. */
export function NamedValues() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { names } = job;
  const put = (next: Named) => edit([{ edit: "setNames", names: next }], "named value");
  return (
    <Section title="Named values" aside={`${names.length}`}>
      {names.map((n, i) => (
        <div key={n.name} className={css.named}>
          <b>{n.name}</b>
          <NumberBox
            job={{ ...job, names: names.filter((x) => x !== n) }}
            label={n.note ?? "value"}
            value={n.value}
            quantity="plain"
            commit={(t) => put(names.map((x, k) => (k === i ? { ...x, value: t ?? toNumberText("?") } : x)))}
          />
          <Bare
            className="faint"
            aria-label={`take away ${n.name}`}
            onClick={() => put(names.filter((_, k) => k !== i))}
          >
            ×
          </Bare>
        </div>
      ))}
      <NewNamed names={names} unit={job.unit} add={(named) => put([...names, named])} />
    </Section>
  );
}

interface NewProps {
  names: Named;
  unit: LengthUnit;
  add: (named: Named[number]) => void;
}

function NewNamed({ names, unit, add }: NewProps) {
  const [line, setLine] = useState("");
  const read = line.trim() ? readNamed(line, names) : null;
  const problem = read && "problem" in read ? read.problem : "";
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (!read || "problem" in read) return;
    add({ name: read.name, value: toNumberText(read.value) });
    setLine("");
  };
  return (
    <>
      <form className={`${css.quick} ${problem ? css.bad : ""}`} onSubmit={submit}>
        <Input
          size="small"
          value={line}
          onChange={(e) => setLine(e.target.value)}
          aria-label="New named value"
          placeholder={byFigures(unit, { in: "wall = .125", mm: "wall = 3" })}
          spellCheck={false}
          autoComplete="off"
          maxLength={260}
        />
        <Button htmlType="submit" size="small" disabled={!read || problem !== ""}>
          name it
        </Button>
      </form>
      <p className={css.says}>
        {problem ? <span className="red">{problem}</span> : "a name stands wherever a number may: wall*2"}
      </p>
    </>
  );
}
