"use client";
import { Button } from "antd";
import { useMemo } from "react";
import { numberScope } from "@/core/engine/numbers";
import { formOf, stockForms, type Stock } from "@/core/job";
import { toNumberText, type NumberText, unitOf } from "@/core/number";
import { proposeStock } from "@/core/stock/stock";
import { stockSizes } from "@/core/tables";
import { ChoiceBox } from "../fields/ChoiceBox";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { Choice, asWritten } from "../fields/Choice";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./StockCard.module.css";

const open = toNumberText("?");

/** The stock's form and size, with the usual sizes beside them. */
export function StockSize() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const e = useBench((s) => s.evaluated?.evaluation);
  const { stock } = job;
  const put = (s: Stock | null) => edit([{ edit: "setStock", stock: s }], "stock");
  const part = e?.part?.box;
  const isRound = e?.solved.rows.some((r) => r.state === "ok" && r.feature?.is === "body" && r.feature.round) ?? false;
  const proposed = useMemo(
    () => (part ? proposeStock(part, job.unit, numberScope(job), isRound) : null),
    [part, job, isRound],
  );
  const blank = (shape: Stock["shape"]): Stock =>
    ({ shape, ...Object.fromEntries(formOf({ shape }).fields.map((f) => [f.key, open])) }) as Stock;
  const shapes = [
    { value: "none", label: "none yet", stock: null },
    ...stockForms.map((f) => ({ value: f.shape, label: f.label, stock: proposed?.[f.shape] ?? blank(f.shape) })),
  ];
  const aside = proposed && (
    <Button size="small" onClick={() => put(proposed[stock?.shape ?? "plate"])}>
      smallest usual size
    </Button>
  );
  return (
    <Section title="Stock" aside={aside}>
      <div className={fieldsClass}>
        <ChoiceBox label="Form" value={stock?.shape ?? "none"} options={shapes} choose={(o) => put(o.stock)} />
        {stock && <Sizes stock={stock} put={put} />}
      </div>
      {e?.stockProblem && <p className="red">{e.stockProblem.message}</p>}
    </Section>
  );
}

/** The sizes of a form of stock, in the order they are typed, with the list of usual ones where there is one. */
function Sizes({ stock, put }: { stock: Stock; put: (s: Stock) => void }) {
  const job = useJob((s) => s.job)!;
  const usualSizes = stockSizes.rows.find((r) => r.unit === unitOf[job.unit].figures)!;
  const values: Record<string, unknown> = { ...stock };
  return formOf(stock).fields.map(({ key, label, usual }) => {
    const set = (t: NumberText | undefined) => put({ ...stock, [key]: t ?? open });
    return (
      <div key={key}>
        <NumberBox own job={job} label={label} value={values[key] as NumberText} quantity="length" commit={set} />
        {usual && (
          <Choice
            className={css.sizes}
            label={`usual sizes for ${key}`}
            placeholder="usual sizes"
            value={null}
            choose={(size) => set(toNumberText(size))}
            options={asWritten(usualSizes[usual])}
          />
        )}
      </div>
    );
  });
}
