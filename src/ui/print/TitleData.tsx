"use client";
import { Checkbox } from "antd";
import type { Job } from "@/core/job";
import { generalClasses } from "@/core/tables";
import { unitOf } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { ChoiceBox } from "../fields/ChoiceBox";
import { useJob } from "../store/jobStore";
import { TextField } from "../fields/TextField";

type Title = Job["title"];

interface Props {
  job: Job;
  put: (change: Partial<Title>) => void;
}

/** What the title block of the print says: drawing number, projection, default tolerances, edges, finish. */
export function TitleData() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const put = (change: Partial<Title>) => {
    const said = Object.entries({ ...job.title, ...change }).filter(([, v]) => v !== undefined && v !== "");
    edit([{ edit: "setHead", head: { title: Object.fromEntries(said) } }], "title data");
  };
  return (
    <Section title="Title block" aside={`unit ${unitOf[job.unit].word}`}>
      <div className={fieldsClass}>
        <TitleText job={job} put={put} of="drawing" label="Drawing" />
        <Projection job={job} put={put} />
        <TitleText job={job} put={put} of="finish" label="Finish" />
        <Tolerances job={job} put={put} />
        <NumberBox
          printed
          job={job}
          label="Break all edges"
          value={job.title.edgeBreak}
          quantity="length"
          optional
          commit={(edgeBreak) => put({ edgeBreak })}
        />
        <div style={{ gridColumn: "span 2" }}>
          <TitleText job={job} put={put} of="notes" label="Notes" most={4000} />
        </div>
        {unitOf[job.unit].fractions && <LeadingZero job={job} put={put} />}
      </div>
    </Section>
  );
}

interface TitleTextProps extends Props {
  of: "drawing" | "finish" | "notes";
  label: string;
  most?: number;
}

const TitleText = ({ job, put, of, label, most = 120 }: TitleTextProps) => (
  <label>
    <span className="lab">{label}</span>
    <TextField value={job.title[of] ?? ""} maxLength={most} commit={(text) => put({ [of]: text || undefined })} />
  </label>
);

const projections: { value: "" | NonNullable<Title["projection"]>; label: string }[] = [
  { value: "", label: "—" },
  { value: "third", label: "third angle" },
  { value: "first", label: "first angle" },
];

const Projection = ({ job, put }: Props) => (
  <ChoiceBox
    label="Projection"
    value={job.title.projection ?? ""}
    options={projections}
    choose={({ value }) => put({ projection: value || undefined })}
  />
);

const classes: { value: "" | NonNullable<Title["general"]>; label: string }[] = [
  { value: "", label: "none" },
  ...generalClasses.map((value) => ({ value, label: `ISO 2768-${value}` })),
];

/** The default tolerances: by decimals, by class, of angles and of fractions. */
function Tolerances({ job, put }: Props) {
  const { title } = job;
  const { fractions, toleranced } = unitOf[job.unit];
  return (
    <>
      {toleranced.map((decimals) => (
        <DecimalTolerance key={decimals} job={job} put={put} decimals={decimals} />
      ))}
      <ChoiceBox
        label="General class"
        value={title.general ?? ""}
        options={classes}
        choose={({ value }) => put({ general: value || undefined })}
      />
      <NumberBox
        printed
        job={job}
        label="Angles are ±"
        value={title.angleTolerance}
        quantity="angle"
        optional
        commit={(angleTolerance) => put({ angleTolerance })}
      />
      {fractions && (
        <NumberBox
          printed
          job={job}
          label="Fractions are ±"
          value={title.fractionTolerance}
          quantity="offset"
          optional
          commit={(fractionTolerance) => put({ fractionTolerance })}
        />
      )}
    </>
  );
}

/** Most decimals a default tolerance is kept for, and one. */
const DECIMALS = 5;

/** The tolerance of sizes with so many decimals. */
function DecimalTolerance({ job, put, decimals }: Props & { decimals: number }) {
  const { tolerances } = job.title;
  return (
    <NumberBox
      printed
      job={job}
      label={decimals ? `.${"0".repeat(decimals)} is ±` : "whole is ±"}
      value={tolerances?.[decimals] ?? undefined}
      quantity="offset"
      optional
      commit={(text) => {
        const list = Array.from({ length: DECIMALS }, (_, i) => (i === decimals ? text : tolerances?.[i]) ?? null);
        put({ tolerances: list.some(Boolean) ? list : undefined });
      }}
    />
  );
}

const LeadingZero = ({ job, put }: Props) => (
  <Checkbox
    style={{ fontSize: 13, alignSelf: "end" }}
    checked={Boolean(job.title.leadingZero)}
    onChange={(e) => put({ leadingZero: e.target.checked ? true : undefined })}
  >
    write 0.250
  </Checkbox>
);
