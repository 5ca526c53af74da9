"use client";
import { lengthText, toInside } from "@/core/number";
import { evaluateNumber } from "@/core/number";
import { numberScope } from "@/core/engine/numbers";
import { cribFor, type Cutter } from "@/core/tables";
import { useState } from "react";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./PathsCard.module.css";

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
        <button className="btn small" onClick={() => setOpen(!open)}>
          {open ? "close" : `${crib.length} cutters`}
        </button>
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
                    <input
                      aria-label={`name of cutter ${i + 1}`}
                      defaultValue={c.name}
                      key={c.name}
                      maxLength={60}
                      onBlur={(e) => {
                        const n = e.target.value.trim();
                        if (n && n !== c.name) put(crib.map((x, k) => (k === i ? { ...x, name: n } : x)));
                      }}
                    />
                  </td>
                  <td>{cell(i, "diameter")}</td>
                  <td>{cell(i, "reach")}</td>
                  <td>{cell(i, "feed")}</td>
                  <td>
                    <button
                      className="plain faint"
                      aria-label={`take away ${c.name}`}
                      onClick={() => put(crib.filter((_, k) => k !== i))}
                    >
                      ×
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <button
            className="btn small"
            style={{ marginTop: 6 }}
            onClick={() =>
              put([
                ...crib,
                {
                  name: `cutter ${crib.length + 1}`,
                  diameter: toInside(job.unit === "in" ? 0.25 : 6, "length", job.unit),
                  reach: toInside(job.unit === "in" ? 0.75 : 20, "length", job.unit),
                  feed: 400,
                },
              ])
            }
          >
            one more cutter
          </button>
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
  const [draft, setDraft] = useState<string | null>(null);
  const bad = draft !== null && parse(draft) === null;
  return (
    <input
      aria-label={label}
      aria-invalid={bad}
      value={draft ?? value}
      maxLength={40}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={() => {
        if (draft !== null && !bad && draft !== value) commit(parse(draft)!);
        if (!bad) setDraft(null);
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") {
          setDraft(null);
        }
      }}
    />
  );
}
