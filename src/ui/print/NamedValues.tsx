"use client";
import { Button, Input } from "antd";
import { useState } from "react";
import { isFreeName } from "@/core/callout";
import { toNumberText } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./PrintCard.module.css";
import { Bare } from "../fields/Bare";

/** Values with a name of their own, usable wherever a number stands: `wall = 3`. */
export function NamedValues() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [line, setLine] = useState("");
  const typed = /^\s*([A-Za-z_][A-Za-z0-9_]*)\s*=\s*(.+)$/.exec(line);
  const taken = typed && job.names.some((n) => n.name.toLowerCase() === typed[1].toLowerCase());
  const problem = !line.trim()
    ? ""
    : !typed
      ? "a name, =, and a number"
      : taken
        ? `${typed[1]} is there already`
        : !isFreeName(typed[1])
          ? `${typed[1]} is a word of the card; take another`
          : "";
  const put = (names: typeof job.names) => edit([{ edit: "setNames", names }], "named value");
  return (
    <Section title="Named values" aside={`${job.names.length}`}>
      {job.names.map((n, i) => (
        <div key={n.name} className={css.named}>
          <b>{n.name}</b>
          <NumberBox
            job={{ ...job, names: job.names.filter((x) => x !== n) }}
            label={n.note ?? "value"}
            value={n.value}
            quantity="plain"
            commit={(t) => put(job.names.map((x, k) => (k === i ? { ...x, value: t ?? toNumberText("?") } : x)))}
          />
          <Bare
            className="faint"
            aria-label={`take away ${n.name}`}
            onClick={() => put(job.names.filter((_, k) => k !== i))}
          >
            ×
          </Bare>
        </div>
      ))}
      <form
        className={`${css.quick} ${problem ? css.bad : ""}`}
        onSubmit={(e) => {
          e.preventDefault();
          if (!typed || problem) return;
          put([...job.names, { name: typed[1], value: toNumberText(typed[2]) }]);
          setLine("");
        }}
      >
        <Input
          size="small"
          value={line}
          onChange={(e) => setLine(e.target.value)}
          aria-label="New named value"
          placeholder={{ in: "wall = .125", mm: "wall = 3" }[job.unit]}
          spellCheck={false}
          autoComplete="off"
          maxLength={260}
        />
        <Button htmlType="submit" size="small" disabled={!typed || Boolean(problem)}>
          name it
        </Button>
      </form>
      <p className={css.says}>
        {problem ? <span className="red">{problem}</span> : "a name stands wherever a number may: wall*2"}
      </p>
    </Section>
  );
}
