"use client";
import { Button } from "antd";
import { useMemo } from "react";
import { numberScope } from "@/core/engine/numbers";
import { formOf, stockForms, type Job, type Stock } from "@/core/job";
import { toNumberText, type NumberText, unitOf } from "@/core/number";
import { proposeStock } from "@/core/stock/stock";
import { stockSizes } from "@/core/tables";
import { useStepFile } from "../common/useStepFile";
import { ChoiceBox } from "../fields/ChoiceBox";
import { FilePick } from "../fields/FilePick";
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
  const shapes = [
    { value: "none", label: "none yet", stock: null },
    ...stockForms.map((f) => ({ value: f.shape, label: f.label, stock: proposed?.[f.shape] ?? blank(f.shape, job) })),
  ];
  const smallest = proposed?.[stock?.shape ?? "plate"];
  const aside = smallest && (
    <Button size="small" onClick={() => put(smallest)}>
      smallest usual size
    </Button>
  );
  return (
    <Section title="Stock" aside={aside}>
      <div className={fieldsClass}>
        <ChoiceBox label="Form" value={stock?.shape ?? "none"} options={shapes} choose={(o) => put(o.stock)} />
        {stock && <Sizes stock={stock} put={put} />}
        {stock?.shape === "solid" && <StockFile job={job} stock={stock} put={put} />}
      </div>
      {e?.stockProblem && <p className="red">{e.stockProblem.message}</p>}
    </Section>
  );
}

/** A form of stock before anything is said of its size. */
function blank(shape: Stock["shape"], job: Job): Stock {
  if (shape === "solid") return { shape, file: job.solids?.[0]?.name ?? "solid.step" };
  return { shape, ...Object.fromEntries(formOf({ shape }).fields.map((f) => [f.key, open])) } as Stock;
}

interface StockFileProps {
  job: Job;
  stock: Extract<Stock, { shape: "solid" }>;
  put: (s: Stock) => void;
}

/** Which of the job's files the stock is, or another one read in. */
function StockFile({ job, stock, put }: StockFileProps) {
  const edit = useJob((s) => s.edit);
  const { isBusy, read, say } = useStepFile();
  const names = (job.solids ?? []).map((s) => s.name);
  const bring = async (f: File) => {
    const file = await read(f);
    if (!file) return;
    const solids = [...(useJob.getState().job!.solids ?? []), file];
    const set = { edit: "setStock" as const, stock: { ...stock, file: file.name } };
    const why = edit([{ edit: "setSolids", solids }, set], "stock from a STEP file");
    if (why) say(why);
  };
  return (
    <>
      <ChoiceBox
        label="File"
        value={names.includes(stock.file) ? stock.file : ""}
        options={names.map((name) => ({ value: name, label: name }))}
        choose={(o) => put({ ...stock, file: o.value })}
      />
      <FilePick
        label="a STEP file of the stock"
        accept=".step,.stp"
        size="small"
        disabled={isBusy}
        pick={(f) => void bring(f)}
      >
        {isBusy ? "reading …" : "read STEP"}
      </FilePick>
    </>
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
