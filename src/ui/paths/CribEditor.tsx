"use client";
import { Button } from "antd";
import { lengthText, toInside } from "@/core/number";
import { evaluateNumber } from "@/core/number";
import { numberScope } from "@/core/engine/numbers";
import { cribFor, type Cutter } from "@/core/tables";
import { useState } from "react";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./PathsCard.module.css";
import { Bare } from "../fields/Bare";
import { TextField } from "../fields/TextField";

/** The crib: the cutters there are, with their reach beside a wall. The rules hold every corner against it. */
export function CribEditor() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [open, setOpen] = useState(false);
  const crib: readonly Cutter[] = job.crib ?? cribFor(job.unit);
  const put = (next: Cutter[]) => edit([{ edit: "setHead", head: { crib: next } }], "crib");
  const scope = numberScope(job);
  const cell = (i: number, key: "diameter" | "reach" | "feed") => (
    <CribCell
      key={key}
      label={`${key} of ${crib[i].name}`}
      value={lengthText(crib[i][key], job.unit)}
      parse={(t) => {
        const r = evaluateNumber(t, "length", scope);
        return r.ok ? r.value.value : null;
      }}
      commit={(mm) => put(crib.map((c, k) => (k === i ? { ...c, [key]: mm } : c)))}
    />
  );
  return (
    <Section
      title="Crib"
      aside={
        <Button size="small" onClick={() => setOpen(!open)}>
          {open ? "close" : `${crib.length} cutters`}
        </Button>
      }
    >
      {open && (
        <>
          <table className={css.crib}>
            <thead>
              <tr>
                <th>name</th>
                <th>⌀</th>
                <th>reach</th>
                <th>feed / min</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {crib.map((c, i) => (
                <tr key={i}>
                  <td>
                    <TextField
                      aria-label={`name of cutter ${i + 1}`}
                      value={c.name}
                      maxLength={60}
                      commit={(n) => n && put(crib.map((x, k) => (k === i ? { ...x, name: n } : x)))}
                    />
                  </td>
                  <td>{cell(i, "diameter")}</td>
                  <td>{cell(i, "reach")}</td>
                  <td>{cell(i, "feed")}</td>
                  <td>
                    <Bare
                      className="faint"
                      aria-label={`take away ${c.name}`}
                      onClick={() => put(crib.filter((_, k) => k !== i))}
                    >
                      ×
                    </Bare>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button
            size="small"
            style={{ marginTop: 6 }}
            onClick={() =>
              put([
                ...crib,
                {
                  name: `cutter ${crib.length + 1}`,
                  diameter: toInside({ in: 0.25, mm: 6 }[job.unit], "length", job.unit),
                  reach: toInside({ in: 0.75, mm: 20 }[job.unit], "length", job.unit),
                  feed: 400,
                },
              ])
            }
          >
            one more cutter
          </Button>
        </>
      )}
    </Section>
  );
}

function CribCell({
  value,
  label,
  parse,
  commit,
}: {
  value: string;
  label: string;
  parse: (t: string) => number | null;
  commit: (mm: number) => void;
}) {
  return (
    <TextField
      aria-label={label}
      value={value}
      maxLength={40}
      problem={(text) => (parse(text) === null ? "no number" : null)}
      commit={(text) => commit(parse(text)!)}
    />
  );
}
