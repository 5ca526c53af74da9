"use client";
import { useEffect, useRef, useState } from "react";
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
      thread: kind === "thread" ? (b.thread ?? (job.unit === "in" ? "10-32 UNF-2B" : "M5")) : undefined,
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
      <button className={css.line} onClick={toggle} aria-expanded={open}>
        <b className={css.balloon}>{b.number}</b>
        <span className={css.text}>
          {writeBalloonText({ ...b, note: undefined })}
          {b.note && <i> {b.note}</i>}
        </span>
        {entry && <StateMark state={entry.state} />}
      </button>
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
              <input
                className="box"
                defaultValue={b.zone ?? ""}
                key={b.zone ?? ""}
                maxLength={10}
                onBlur={(e) => {
                  const z = e.target.value.trim().toUpperCase();
                  if (z !== (b.zone ?? "") && /^[A-Z0-9-]*$/.test(z)) put({ zone: z || undefined });
                  else e.target.value = b.zone ?? "";
                }}
              />
            </label>
            <label>
              <span className="lab">Note</span>
              <input
                className="box"
                style={{ fontFamily: "var(--text)" }}
                defaultValue={b.note ?? ""}
                key={b.note ?? ""}
                maxLength={500}
                onBlur={(e) =>
                  e.target.value.trim() !== (b.note ?? "") && put({ note: e.target.value.trim() || undefined })
                }
              />
            </label>
          </div>
          <div className={css.actions}>
            <label>
              <input
                type="checkbox"
                checked={Boolean(b.reference)}
                onChange={(e) => put({ reference: e.target.checked ? true : undefined })}
              />{" "}
              reference
            </label>
            {b.kind !== "thread" && b.kind !== "count" && (
              <label>
                <input
                  type="checkbox"
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
                />{" "}
                basic
              </label>
            )}
            {b.kind !== "thread" && b.kind !== "count" && !b.basic && t.kind !== "limits" && (
              <label title="the model is made to the middle of the limits instead of the nominal">
                <input
                  type="checkbox"
                  checked={Boolean(b.middle)}
                  onChange={(e) => put({ middle: e.target.checked ? true : undefined })}
                />{" "}
                model the middle
              </label>
            )}
            <span className="soft">
              {entry ? limitsText(b, entry, job) : ""}
              {entry?.problem ? <b className="red">{entry.problem}</b> : ""}{" "}
              {users.length ? `drives row ${users.join(", ")}` : "nothing uses it yet"}
            </span>
            <button className="btn small" onClick={() => move(-1)} disabled={index === 0} aria-label="Move up">
              ↑
            </button>
            <button
              className="btn small"
              onClick={() => move(1)}
              disabled={index === job.balloons.length - 1}
              aria-label="Move down"
            >
              ↓
            </button>
            <button
              className="btn small"
              onClick={() => edit([{ edit: "deleteBalloon", number: b.number }], "delete balloon")}
            >
              delete
            </button>
          </div>
        </div>
      )}
    </div>
  );
}

/** A tolerance zone such as H7; wrong text stays as it was typed and says what is wrong. */
function FitBox({ value, commit }: { value: string; commit: (fit: string) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const shown = draft ?? value;
  const good = /^(?:[A-Z]{1,2}|[a-z]{1,2})(?:01|1[0-8]|[0-9])$/.test(shown.trim());
  return (
    <div>
      <label>
        <span className="lab">Fit</span>
        <input
          className="box"
          value={shown}
          maxLength={4}
          spellCheck={false}
          aria-invalid={!good}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={() => {
            if (draft !== null && good && draft.trim() !== value) commit(draft.trim());
            if (good) setDraft(null);
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter") e.currentTarget.blur();
          }}
        />
      </label>
      <small className={good ? undefined : "red"}>
        {good ? (/^[A-Z]/.test(shown) ? "a hole" : "a shaft") : "as H7 or g6"}
      </small>
    </div>
  );
}
