"use client";
import { Button, Checkbox, Input } from "antd";
import { useEffect, useRef } from "react";
import { writeBalloonText } from "@/core/callout";
import { balloonKinds, generalClasses, type Balloon, type Tolerance } from "@/core/job";
import { toNumberText } from "@/core/number";
import { findThread } from "@/core/tables";
import { NumberBox } from "../common/NumberBox";
import { fieldsClass } from "../common/Section";
import { ChoiceBox, ThreadBox } from "../card/editors";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { limitsText } from "../proof/figures";
import { StateMark } from "../proof/StateMark";
import css from "./PrintCard.module.css";
import { Bare } from "../fields/Bare";
import { TextField } from "../fields/TextField";
import { useDraft } from "../fields/useDraft";

const q = toNumberText("?");
const toleranceKinds: { value: Tolerance["kind"]; label: string; make: (b: Balloon) => Tolerance }[] = [
  { value: "default", label: "as the title block says", make: () => ({ kind: "default" }) },
  { value: "plusMinus", label: "±", make: () => ({ kind: "plusMinus", value: q }) },
  { value: "sided", label: "+ and −", make: () => ({ kind: "sided", plus: q, minus: q }) },
  { value: "limits", label: "two limits", make: (b) => ({ kind: "limits", high: b.value ?? q, low: q }) },
  { value: "max", label: "largest only (MAX)", make: () => ({ kind: "max" }) },
  { value: "min", label: "smallest only (MIN)", make: () => ({ kind: "min" }) },
  { value: "fit", label: "fit, ISO 286", make: () => ({ kind: "fit", fit: "H7" }) },
  { value: "general", label: "general class, ISO 2768", make: () => ({ kind: "general", class: "m" }) },
];

/** One balloon of the ledger; it opens in place. */
export function BalloonRow({
  balloon: b,
  index,
  open,
  toggle,
}: {
  balloon: Balloon;
  index: number;
  open: boolean;
  toggle: () => void;
}) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const entry = useBench((s) => s.evaluated?.evaluation.ledger.find((l) => l.number === b.number));
  const put = (change: Partial<Balloon>) => {
    const next = { ...b, ...change };
    for (const k of Object.keys(next) as (keyof Balloon)[]) if (next[k] === undefined) delete next[k];
    edit([{ edit: "setBalloon", number: b.number, balloon: next }], "balloon");
  };
  const setTolerance = (t: Tolerance) =>
    put({
      tolerance: t,
      ...(t.kind === "limits"
        ? { value: undefined }
        : b.tolerance.kind === "limits"
          ? { value: b.tolerance.high }
          : {}),
      ...(t.kind === "default" ? {} : { basic: undefined }),
    });
  const setKind = (kind: Balloon["kind"]) =>
    put({
      kind,
      ...(kind === "thread" || kind === "count" ? { tolerance: { kind: "default" as const } } : {}),
      value:
        b.tolerance.kind === "limits" && kind !== "thread" && kind !== "count"
          ? undefined
          : kind === "thread" || kind === "count"
            ? undefined
            : (b.value ?? q),
      thread: kind === "thread" ? (b.thread ?? { in: "8-32 UNC-2B", mm: "M5" }[job.unit]) : undefined,
      angle: kind === "chamfer" ? (b.angle ?? toNumberText("45")) : undefined,
      count: kind === "count" ? (b.count ?? toNumberText("1")) : b.count,
    });
  const users = entry?.rows ?? [];
  const looked = useBench((s) => s.balloon === b.number);
  const mine = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (looked) mine.current?.scrollIntoView({ block: "nearest" });
  }, [looked]);
  const t = b.tolerance;
  const move = (by: number) => edit([{ edit: "moveBalloon", number: b.number, to: index + by }], "move balloon");
  const quantity = b.kind === "angle" ? "angle" : "coordinate";
  return (
    <div
      role="listitem"
      className={`${css.row} ${open ? css.open : ""} ${looked ? css.looked : ""}`}
      data-balloon={b.number}
      ref={mine}
    >
      <Bare className={css.line} onClick={toggle} aria-expanded={open}>
        <b className={css.balloon}>{b.number}</b>
        <span className={css.text}>
          {writeBalloonText({ ...b, note: undefined })}
          {b.note && <i> {b.note}</i>}
        </span>
        {entry && <StateMark state={entry.state} />}
      </Bare>
      {open && (
        <div className={css.editor}>
          <div className={fieldsClass}>
            <ChoiceBox
              label="Kind"
              value={b.kind}
              options={balloonKinds.map((k) => ({ value: k, label: k }))}
              choose={(o) => setKind(o.value)}
            />
            {b.kind === "thread" ? (
              <ThreadBox balloons={[]} value={b.thread ?? ""} commit={(v) => findThread(v) && put({ thread: v })} />
            ) : (
              b.kind !== "count" &&
              t.kind !== "limits" && (
                <NumberBox
                  printed
                  job={{ ...job, balloons: job.balloons.filter((x) => x.number !== b.number) }}
                  label="As printed"
                  value={b.value}
                  quantity={quantity}
                  commit={(t) => put({ value: t ?? q })}
                />
              )
            )}
            {b.kind === "chamfer" && (
              <NumberBox
                printed
                job={job}
                label="Angle"
                value={b.angle}
                quantity="angle"
                commit={(t) => put({ angle: t ?? toNumberText("45") })}
              />
            )}
            <NumberBox
              printed
              job={job}
              label="Count"
              value={b.count}
              quantity="count"
              optional={b.kind !== "count"}
              commit={(t) => put({ count: t })}
            />
            {b.kind !== "thread" && b.kind !== "count" && (
              <ChoiceBox
                label="Tolerance"
                value={t.kind}
                options={toleranceKinds}
                choose={(o) => setTolerance(o.make(b))}
              />
            )}
            {t.kind === "plusMinus" && (
              <NumberBox
                printed
                job={job}
                label="±"
                value={t.value}
                quantity={quantity}
                commit={(v) => setTolerance({ kind: "plusMinus", value: v ?? q })}
              />
            )}
            {t.kind === "sided" &&
              (["plus", "minus"] as const).map((k) => (
                <NumberBox
                  printed
                  key={k}
                  job={job}
                  label={k === "plus" ? "+" : "−"}
                  value={t[k]}
                  quantity={quantity}
                  commit={(v) => setTolerance({ ...t, [k]: v ?? q })}
                />
              ))}
            {t.kind === "limits" &&
              (["high", "low"] as const).map((k) => (
                <NumberBox
                  printed
                  key={k}
                  job={job}
                  label={k === "high" ? "Largest" : "Smallest"}
                  value={t[k]}
                  quantity={quantity}
                  commit={(v) => setTolerance({ ...t, [k]: v ?? q })}
                />
              ))}
            {t.kind === "fit" && <FitBox value={t.fit} commit={(fit) => setTolerance({ kind: "fit", fit })} />}
            {t.kind === "general" && (
              <ChoiceBox
                label="Class"
                value={t.class}
                options={generalClasses.map((c) => ({ value: c, label: `ISO 2768-${c}` }))}
                choose={(o) => setTolerance({ kind: "general", class: o.value })}
              />
            )}
            {b.kind === "angle" && (
              <NumberBox
                printed
                job={job}
                label="Shorter leg"
                value={b.leg}
                quantity="length"
                optional
                commit={(v) => put({ leg: v })}
              />
            )}
            <label>
              <span className="lab">Zone</span>
              <TextField
                value={b.zone ?? ""}
                maxLength={10}
                problem={(z) => (/^[A-Z0-9-]*$/i.test(z.trim()) ? null : "letters, figures and - only")}
                commit={(z) => put({ zone: z.toUpperCase() || undefined })}
              />
            </label>
            <label>
              <span className="lab">Note</span>
              <TextField value={b.note ?? ""} maxLength={500} commit={(note) => put({ note: note || undefined })} />
            </label>
          </div>
          <div className={css.actions}>
            <Checkbox
              checked={Boolean(b.reference)}
              onChange={(e) => put({ reference: e.target.checked ? true : undefined })}
            >
              reference
            </Checkbox>
            {b.kind !== "thread" && b.kind !== "count" && (
              <Checkbox
                checked={Boolean(b.basic)}
                onChange={(e) =>
                  put(
                    e.target.checked
                      ? {
                          basic: true,
                          tolerance: { kind: "default" },
                          middle: undefined,
                          ...(t.kind === "limits" ? { value: t.high } : {}),
                        }
                      : { basic: undefined },
                  )
                }
              >
                basic
              </Checkbox>
            )}
            {b.kind !== "thread" && b.kind !== "count" && !b.basic && t.kind !== "limits" && (
              <Checkbox
                title="the model is made to the middle of the limits instead of the nominal"
                checked={Boolean(b.middle)}
                onChange={(e) => put({ middle: e.target.checked ? true : undefined })}
              >
                model the middle
              </Checkbox>
            )}
            <span className="soft">
              {entry ? limitsText(b, entry, job) : ""}
              {entry?.problem ? <b className="red">{entry.problem}</b> : ""}{" "}
              {users.length ? `drives row ${users.join(", ")}` : "nothing uses it yet"}
            </span>
            <Button size="small" onClick={() => move(-1)} disabled={index === 0} aria-label="Move up">
              ↑
            </Button>
            <Button
              size="small"
              onClick={() => move(1)}
              disabled={index === job.balloons.length - 1}
              aria-label="Move down"
            >
              ↓
            </Button>
            <Button size="small" onClick={() => edit([{ edit: "deleteBalloon", number: b.number }], "delete balloon")}>
              delete
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}

/** A tolerance zone such as H7; wrong text stays as it was typed and says what is wrong. */
function FitBox({ value, commit }: { value: string; commit: (fit: string) => void }) {
  const isFit = (text: string) => /^(?:[A-Z]{1,2}|[a-z]{1,2})(?:01|1[0-8]|[0-9])$/.test(text.trim());
  const { shown, bind } = useDraft(value, commit, { problem: (text) => (isFit(text) ? null : "no fit") });
  const good = isFit(shown);
  return (
    <div>
      <label>
        <span className="lab">Fit</span>
        <Input
          size="small"
          maxLength={4}
          spellCheck={false}
          aria-invalid={!good}
          status={good ? "" : "error"}
          {...bind}
        />
      </label>
      <small className={good ? undefined : "red"}>
        {good ? (/^[A-Z]/.test(shown) ? "a hole" : "a shaft") : "as H7 or g6"}
      </small>
    </div>
  );
}
