"use client";
import { Button, type TableProps } from "antd";
import { useState } from "react";
import { numberScope } from "@/core/engine/numbers";
import { evaluateNumber, lengthText } from "@/core/number";
import { cribFor, newCutter, type Cutter } from "@/core/tables";
import { Section } from "../common/Section";
import { Bare } from "../fields/Bare";
import { RuledTable } from "../fields/RuledTable";
import { TextField } from "../fields/TextField";
import { useJob } from "../store/jobStore";

/** The crib: the cutters there are, with their reach beside a wall. The rules hold every corner against it. */
export function CribEditor() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [open, setOpen] = useState(false);
  const crib: readonly Cutter[] = job.crib ?? cribFor(job.unit);
  const put = (next: Cutter[]) => edit([{ edit: "setHead", head: { crib: next } }], "crib");
  const change = (i: number, by: Partial<Cutter>) => put(crib.map((c, k) => (k === i ? { ...c, ...by } : c)));
  const aside = (
    <Button size="small" onClick={() => setOpen(!open)}>
      {open ? "close" : `${crib.length} cutters`}
    </Button>
  );
  return (
    <Section title="Crib" aside={aside}>
      {open && (
        <>
          <RuledTable
            label="Crib"
            columns={columnsOf(change, (i) => put(crib.filter((_, k) => k !== i)))}
            dataSource={crib.map((cutter, i) => ({ cutter, i }))}
            rowKey="i"
          />
          <Button
            size="small"
            style={{ marginTop: 6 }}
            onClick={() => put([...crib, newCutter(job.unit, crib.length + 1)])}
          >
            one more cutter
          </Button>
        </>
      )}
    </Section>
  );
}

interface Line {
  cutter: Cutter;
  i: number;
}
type Sized = "diameter" | "reach" | "feed";

function columnsOf(
  change: (i: number, by: Partial<Cutter>) => void,
  remove: (i: number) => void,
): TableProps<Line>["columns"] {
  const sized = (key: Sized, title: string) => ({
    title,
    width: 82,
    render: (_: unknown, { cutter, i }: Line) => (
      <Size of={cutter} what={key} commit={(mm) => change(i, { [key]: mm })} />
    ),
  });
  return [
    {
      title: "name",
      render: (_, { cutter, i }) => (
        <TextField
          aria-label={`name of cutter ${i + 1}`}
          value={cutter.name}
          maxLength={60}
          commit={(name) => name && change(i, { name })}
        />
      ),
    },
    sized("diameter", "⌀"),
    sized("reach", "reach"),
    sized("feed", "feed / min"),
    {
      title: <span className="sr">take away</span>,
      width: 24,
      render: (_, { cutter, i }) => (
        <Bare className="faint" aria-label={`take away ${cutter.name}`} onClick={() => remove(i)}>
          ×
        </Bare>
      ),
    },
  ];
}

/** One length of a cutter, typed as any number is. */
function Size({ of, what, commit }: { of: Cutter; what: Sized; commit: (mm: number) => void }) {
  const job = useJob((s) => s.job)!;
  const parse = (text: string): number | null => {
    const r = evaluateNumber(text, "length", numberScope(job));
    return r.ok ? r.value.value : null;
  };
  return (
    <TextField
      aria-label={`${what} of ${of.name}`}
      value={lengthText(of[what], job.unit)}
      maxLength={40}
      problem={(text) => (parse(text) === null ? "no number" : null)}
      commit={(text) => commit(parse(text)!)}
    />
  );
}
