"use client";
import { Button } from "antd";
import { Fragment, type ReactNode } from "react";
import type { Job } from "@/core/job";
import { toNumberText, type NumberText } from "@/core/number";
import { kindOf, spotKinds, type Pattern, type RowBody } from "@/core/rows";
import { NumberBox } from "../common/NumberBox";
import { Bare } from "../fields/Bare";
import { OutlineBox } from "../outline/OutlineBox";
import { origin, type SetBody, type SetNumber } from "./editors";
import { ChoiceBox } from "../fields/ChoiceBox";
import css from "./Card.module.css";
import box from "../common/NumberBox.module.css";

interface Editing {
  job: Job;
  setBody: SetBody;
  setNumber: SetNumber;
}

type Of<K extends Pattern["kind"]> = Extract<Pattern, { kind: K }>;

interface Choice<K extends Pattern["kind"]> {
  label: string;
  make: Of<K>;
  /** Only rows that say how many may stand so. */
  counted?: boolean;
  fields?: (pattern: Of<K>, editing: Editing) => ReactNode;
}

const unknown = toNumberText("?");
const two = toNumberText("2");

/** Every way copies may stand: its words, what it starts as, and its numbers. */
const choices: { [K in Pattern["kind"]]: Choice<K> } = {
  single: { label: "one, at 0,0", make: { kind: "single" } },
  points: {
    label: "at points",
    make: { kind: "points", points: [{ ...origin }] },
    fields: (pattern, editing) => <Points pattern={pattern} {...editing} />,
  },
  grid: {
    label: "on a grid",
    make: { kind: "grid", nx: two, ny: two, dx: unknown, dy: unknown },
    fields: (p, editing) => (
      <>
        <PatternNumber {...editing} path="nx" label="Along x" value={p.nx} quantity="count" />
        <PatternNumber {...editing} path="ny" label="Along y" value={p.ny} quantity="count" />
        <PatternNumber {...editing} path="dx" label="Spacing x" value={p.dx} quantity="coordinate" />
        <PatternNumber {...editing} path="dy" label="Spacing y" value={p.dy} quantity="coordinate" />
        <Middle {...editing} label="Middle" at={p.at} />
      </>
    ),
  },
  line: {
    label: "in a line",
    make: { kind: "line", n: two, by: unknown },
    fields: (p, editing) => (
      <>
        <PatternNumber {...editing} path="n" label="How many" value={p.n} quantity="count" />
        <PatternNumber {...editing} path="by" label="Spacing" value={p.by} quantity="coordinate" />
        <PatternNumber {...editing} path="turn" label="Direction" value={p.turn} quantity="angle" optional />
        <Middle {...editing} label="First" at={p.at} />
      </>
    ),
  },
  outline: {
    label: "at an outline’s rounds",
    make: { kind: "outline", outline: "?", of: "rounds" },
    fields: (pattern, { setBody }) => <OutlinePlaces pattern={pattern} setBody={setBody} />,
  },
  boltCircle: {
    label: "on a bolt circle",
    make: { kind: "boltCircle", diameter: unknown },
    counted: true,
    fields: (p, editing) => (
      <>
        <PatternNumber {...editing} path="diameter" label="Bolt circle ⌀" value={p.diameter} quantity="length" />
        <PatternNumber {...editing} path="from" label="First hole at" value={p.from} quantity="angle" optional />
        <Middle {...editing} label="Middle" at={p.at} />
      </>
    ),
  },
};

/** The numbers of the way these copies stand. */
function fieldsOf<K extends Pattern["kind"]>(pattern: Of<K>, editing: Editing): ReactNode {
  const choice: Choice<K> = choices[pattern.kind as K];
  return choice.fields?.(pattern, editing);
}

/** Where the copies of a cut stand. */
export function PatternEditor({ job, body, setBody, setNumber }: Editing & { body: RowBody }) {
  const row = body as RowBody & { pattern: Pattern; count?: NumberText };
  const counted = Boolean(kindOf(body).traits?.counted);
  const options = Object.entries(choices)
    .filter(([, choice]) => counted || !choice.counted)
    .map(([value, { label, make }]) => ({ value, label, make }));
  const count = (make: Pattern) => (choices[make.kind].counted ? (row.count ?? toNumberText("4")) : undefined);
  return (
    <>
      <ChoiceBox
        label="Places"
        value={row.pattern.kind}
        options={options}
        choose={({ make }) => setBody({ pattern: make, count: count(make) })}
      />
      <Fragment key={row.pattern.kind}>{fieldsOf(row.pattern, { job, setBody, setNumber })}</Fragment>
    </>
  );
}

interface NumberProps extends Editing {
  path: string;
  label: string;
  value: NumberText | undefined;
  quantity: "length" | "coordinate" | "count" | "angle";
  optional?: boolean;
}

const PatternNumber = ({ job, setNumber, path, ...rest }: NumberProps) => (
  <NumberBox job={job} commit={setNumber(`pattern.${path}`)} {...rest} />
);

type Place = { x: NumberText; y: NumberText };

/** Where the middle or the first of them stands; without it, at 0,0. */
function Middle({ job, setBody, label, at }: Editing & { label: string; at?: Place }) {
  const set = (axis: "x" | "y") => (text: NumberText | undefined) =>
    setBody({ "pattern.at": text === undefined ? undefined : { ...origin, ...at, [axis]: text } });
  return (
    <>
      <NumberBox job={job} label={`${label} x`} value={at?.x} quantity="coordinate" optional commit={set("x")} />
      <NumberBox job={job} label={`${label} y`} value={at?.y} quantity="coordinate" optional commit={set("y")} />
    </>
  );
}

function Points({ pattern, ...editing }: Editing & { pattern: Of<"points"> }) {
  const put = (points: Place[]) => editing.setBody({ pattern: { ...pattern, points }, count: undefined });
  return (
    <>
      {pattern.points.map((place, i) => (
        <div key={i} className={css.pair}>
          <PatternNumber
            {...editing}
            path={`points.${i}.x`}
            label={`x ${i + 1}`}
            value={place.x}
            quantity="coordinate"
          />
          <PatternNumber
            {...editing}
            path={`points.${i}.y`}
            label={`y ${i + 1}`}
            value={place.y}
            quantity="coordinate"
          />
          {pattern.points.length > 1 && (
            <Bare
              className={css.tiny}
              aria-label={`take away point ${i + 1}`}
              onClick={() => put(pattern.points.filter((_, k) => k !== i))}
            >
              ×
            </Bare>
          )}
        </div>
      ))}
      <div className={box.field}>
        <Button
          size="small"
          style={{ marginTop: 14 }}
          onClick={() => put([...pattern.points, { x: unknown, y: unknown }])}
        >
          one more point
        </Button>
      </div>
    </>
  );
}

const placesOfOutline = spotKinds.map((of) => ({ value: of, label: of }));

const OutlinePlaces = ({ pattern, setBody }: { pattern: Of<"outline">; setBody: SetBody }) => (
  <>
    <OutlineBox
      label="Outline"
      value={pattern.outline}
      choose={(outline) => setBody({ pattern: { ...pattern, outline }, count: undefined })}
    />
    <ChoiceBox
      label="At its"
      value={pattern.of}
      options={placesOfOutline}
      choose={(o) => setBody({ "pattern.of": o.value, count: undefined })}
    />
  </>
);
