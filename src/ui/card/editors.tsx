"use client";
import { Button, Checkbox, Input } from "antd";
import { useId } from "react";
import { rowNames, type Balloon, type Job, type Row } from "@/core/job";
import { threadMeant } from "@/core/balloons/threads";
import { kindOf, type EdgeText, type Pattern, type PlaneRef, type RowBody } from "@/core/rows";
import { toNumberText, type NumberText } from "@/core/number";
import { findThread, readThread } from "@/core/tables";
import { writeRow } from "@/core/callout";
import { NumberBox } from "../common/NumberBox";
import { PlaneAxes } from "./PlaneAxes";
import { OutlineBox } from "../outline/OutlineShelf";
import { EdgesBox, PlaneBox } from "./planeFields";
import css from "./Card.module.css";
import box from "../common/NumberBox.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";
import { useDraft } from "../fields/useDraft";

type SetBody = (changes: Record<string, unknown>) => void;
type SetNumber = (path: string) => (text: NumberText | undefined) => void;

export function ChoiceBox<T extends { value: string; label: string }>({
  label,
  value,
  options,
  choose,
}: {
  label: string;
  value: string;
  options: T[];
  choose: (o: T) => void;
}) {
  const id = useId();
  return (
    <div className={box.field}>
      <label htmlFor={id}>{label}</label>
      <Choice
        id={id}
        value={value}
        choose={(v) => choose(options.find((o) => o.value === v)!)}
        options={options.map((o) => ({ value: o.value, label: o.label }))}
      />
    </div>
  );
}

/** What a typed thread is: by its designation, or by the balloon that prints it; `whole` is what is kept of it, null for no thread. */
function threadTyped(typed: string, balloons: readonly Balloon[]) {
  const meant = threadMeant(typed, balloons);
  const cites = meant.ok && meant.value !== typed;
  const read = meant.ok ? readThread(meant.value) : null;
  const thread = read && (cites || read.length === typed.length) ? findThread(read.designation) : null;
  return { meant, thread, whole: !thread ? null : cites ? typed : read!.designation };
}

/** A thread by its designation; the table's drill stands under it. */
export function ThreadBox({
  value,
  commit,
  balloons,
}: {
  value: string;
  commit: (v: string) => void;
  balloons: readonly Balloon[];
}) {
  const read = (text: string) => threadTyped(text.trim(), balloons);
  const { shown, bind } = useDraft(value, (text) => commit(read(text).whole!), {
    problem: (text) => (read(text).whole === null ? "no thread" : null),
  });
  const { meant, thread: t } = read(shown);
  return (
    <div className={box.field}>
      <label>
        Thread
        <div className={`${box.box} ${t ? "" : box.question}`}>
          <Input variant="borderless" size="small" spellCheck={false} maxLength={40} {...bind} />
        </div>
      </label>
      <small className={t ? undefined : "red"}>
        {!meant.ok
          ? meant.problems[0].message
          : t?.size
            ? `drill ${t.size.drillName}`
            : t
              ? "no table drill"
              : `as 8-32 UNC-2B or M5`}
      </small>
    </div>
  );
}

const zero = { x: toNumberText("0"), y: toNumberText("0") };

/** Where a leave row stands. */
export function PlaceEditor({ job, body, setBody }: { job: Job; body: RowBody; setBody: SetBody }) {
  const b = body as { at?: { x: NumberText; y: NumberText; z?: NumberText } };
  const set = (k: "x" | "y" | "z") => (t: NumberText | undefined) => {
    const at = { ...zero, ...b.at, ...(t === undefined ? {} : { [k]: t }) };
    if (t === undefined && k === "z") delete (at as { z?: NumberText }).z;
    setBody({ at });
  };
  return (
    <>
      <NumberBox
        job={job}
        label="At x"
        value={b.at?.x}
        quantity="coordinate"
        optional
        commit={(t) => (t === undefined ? setBody({ at: undefined }) : set("x")(t))}
      />
      <NumberBox
        job={job}
        label="At y"
        value={b.at?.y}
        quantity="coordinate"
        optional
        commit={(t) => (t === undefined ? setBody({ at: undefined }) : set("y")(t))}
      />
      <NumberBox job={job} label="At z" value={b.at?.z} quantity="coordinate" optional commit={set("z")} />
    </>
  );
}

const q = toNumberText("?");
const patterns: { value: Pattern["kind"]; label: string; make: Pattern }[] = [
  { value: "single", label: "one, at 0,0", make: { kind: "single" } },
  { value: "points", label: "at points", make: { kind: "points", points: [{ ...zero }] } },
  {
    value: "grid",
    label: "on a grid",
    make: { kind: "grid", nx: toNumberText("2"), ny: toNumberText("2"), dx: q, dy: q },
  },
  { value: "line", label: "in a line", make: { kind: "line", n: toNumberText("2"), by: q } },
  { value: "outline", label: "at an outline’s rounds", make: { kind: "outline", outline: "?", of: "rounds" } },
  { value: "boltCircle", label: "on a bolt circle", make: { kind: "boltCircle", diameter: q } },
];

/** Where the copies of a cut stand. */
export function PatternEditor({
  job,
  body,
  setBody,
  setNumber,
}: {
  job: Job;
  body: RowBody;
  setBody: SetBody;
  setNumber: SetNumber;
}) {
  const row = body as RowBody & { pattern: Pattern; count?: NumberText };
  const p = row.pattern;
  const counted = Boolean(kindOf(body).traits?.counted);
  const choose = (make: Pattern) =>
    setBody({
      pattern: make,
      ...(make.kind === "boltCircle"
        ? row.count === undefined
          ? { count: toNumberText("4") }
          : {}
        : { count: undefined }),
    });
  const n = (
    path: string,
    label: string,
    value: NumberText | undefined,
    quantity: "length" | "coordinate" | "count" | "angle",
    optional = false,
  ) => (
    <NumberBox
      key={path}
      job={job}
      label={label}
      value={value}
      quantity={quantity}
      optional={optional}
      commit={setNumber(`pattern.${path}`)}
    />
  );
  const middle = (label: string) => {
    const at = "at" in p ? p.at : undefined;
    const set = (k: "x" | "y") => (t: NumberText | undefined) =>
      setBody({ "pattern.at": t === undefined ? undefined : { ...zero, ...at, [k]: t } });
    return (
      <>
        <NumberBox job={job} label={`${label} x`} value={at?.x} quantity="coordinate" optional commit={set("x")} />
        <NumberBox job={job} label={`${label} y`} value={at?.y} quantity="coordinate" optional commit={set("y")} />
      </>
    );
  };
  return (
    <>
      <ChoiceBox
        label="Places"
        value={p.kind}
        options={patterns.filter((o) => counted || o.value !== "boltCircle")}
        choose={(o) => choose(o.make)}
      />
      {p.kind === "points" &&
        p.points.map((pt, i) => (
          <div key={i} className={css.pair}>
            {n(`points.${i}.x`, `x ${i + 1}`, pt.x, "coordinate")}
            {n(`points.${i}.y`, `y ${i + 1}`, pt.y, "coordinate")}
            {p.points.length > 1 && (
              <Bare
                className={css.tiny}
                aria-label={`take away point ${i + 1}`}
                onClick={() =>
                  setBody({ pattern: { ...p, points: p.points.filter((_, k) => k !== i) }, count: undefined })
                }
              >
                ×
              </Bare>
            )}
          </div>
        ))}
      {p.kind === "points" && (
        <div className={box.field}>
          <Button
            size="small"
            style={{ marginTop: 14 }}
            onClick={() => setBody({ pattern: { ...p, points: [...p.points, { x: q, y: q }] }, count: undefined })}
          >
            one more point
          </Button>
        </div>
      )}
      {p.kind === "grid" && (
        <>
          {n("nx", "Along x", p.nx, "count")}
          {n("ny", "Along y", p.ny, "count")}
          {n("dx", "Spacing x", p.dx, "coordinate")}
          {n("dy", "Spacing y", p.dy, "coordinate")}
          {middle("Middle")}
        </>
      )}
      {p.kind === "line" && (
        <>
          {n("n", "How many", p.n, "count")}
          {n("by", "Spacing", p.by, "coordinate")}
          {n("turn", "Direction", p.turn, "angle", true)}
          {middle("First")}
        </>
      )}
      {p.kind === "outline" && (
        <>
          <OutlineBox
            label="Outline"
            value={p.outline}
            choose={(outline) => setBody({ pattern: { ...p, outline }, count: undefined })}
          />
          <ChoiceBox
            label="At its"
            value={p.of}
            options={[
              { value: "rounds", label: "rounds" },
              { value: "circles", label: "circles" },
              { value: "corners", label: "corners" },
            ]}
            choose={(o) => setBody({ "pattern.of": o.value, count: undefined })}
          />
        </>
      )}
      {p.kind === "boltCircle" && (
        <>
          {n("diameter", "Bolt circle ⌀", p.diameter, "length")}
          {n("from", "First hole at", p.from, "angle", true)}
          {middle("Middle")}
        </>
      )}
    </>
  );
}

/** The plane a row starts on, by its meaning, and how far below it. */
export function PlaneEditor({
  job,
  row,
  number,
  setBody,
  setNumber,
}: {
  job: Job;
  row: Row;
  number: number;
  setBody: SetBody;
  setNumber: SetNumber;
}) {
  const plane = (row.body as { plane: PlaneRef }).plane;
  return (
    <>
      <PlaneBox job={job} row={row} number={number} setBody={setBody} path="plane" label="On plane" />
      {kindOf(row.body).verb === "cut" && (
        <NumberBox
          job={job}
          label="Start below"
          value={plane.start}
          quantity="offset"
          optional={!kindOf(row.body).traits?.startNeeded}
          commit={setNumber("plane.start")}
        />
      )}
      <PlaneAxes rowId={row.id} plane={plane} />
    </>
  );
}

/** Edges by meaning, as boxes to tick. */
export function EdgesEditor({ job, row, number, setBody }: { job: Job; row: Row; number: number; setBody: SetBody }) {
  const edges = (row.body as { edges: EdgeText[] }).edges;
  const earlier = job.rows.slice(0, number - 1).filter((r) => kindOf(r.body).verb === "cut" && "plane" in r.body);
  const names = rowNames(job.rows);
  const all: { key: string; label: string; title?: string; edge: EdgeText }[] = [
    { key: "outerTop", label: "outer top", edge: { edge: "outerTop" } },
    { key: "outerBottom", label: "outer bottom", edge: { edge: "outerBottom" } },
    { key: "vertical", label: "upright corners", edge: { edge: "vertical" } },
    { key: "allSharp", label: "all sharp", edge: { edge: "allSharp" } },
    ...earlier.flatMap((r) => [
      {
        key: `mouthOf${r.id}`,
        label: `mouth of ${names.numberOf(r.id)}`,
        title: writeRow(r, names),
        edge: { edge: "mouthOf", row: r.id } as EdgeText,
      },
      {
        key: `floorOf${r.id}`,
        label: `floor of ${names.numberOf(r.id)}`,
        title: writeRow(r, names),
        edge: { edge: "floorOf", row: r.id } as EdgeText,
      },
    ]),
  ];
  const keyOf = (e: EdgeText) => `${e.edge}${"row" in e ? e.row : ""}`;
  const has = (k: string) => edges.some((e) => keyOf(e) === k);
  return (
    <fieldset className={css.edges}>
      <legend>Edges</legend>
      {all.map((o) => (
        <Checkbox
          key={o.key}
          title={o.title}
          checked={has(o.key)}
          disabled={has(o.key) && edges.length === 1}
          onChange={(e) =>
            setBody({ edges: e.target.checked ? [...edges, o.edge] : edges.filter((x) => keyOf(x) !== o.key) })
          }
        >
          {o.label}
        </Checkbox>
      ))}
      <EdgesBox job={job} row={row} number={number} setBody={setBody} />
    </fieldset>
  );
}
