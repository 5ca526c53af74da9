"use client";
import { Button } from "antd";
import { useEffect, useRef } from "react";
import { writeBalloonText } from "@/core/callout";
import type { Side } from "@/core/geometry/vec";
import { completeness } from "@/core/evaluate/complete";
import { inBands } from "@/core/print/band";
import { Bars } from "../charts/Bars";
import { Body, Section } from "../common/Section";
import { recordProofs, setMeasure } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { checkFigure, checkName, limitsText, measuredFigure } from "./figures";
import { MismatchFinder } from "./MismatchFinder";
import { StateMark } from "./StateMark";
import css from "./Proof.module.css";
import { Bare } from "../fields/Bare";
import { useShallow } from "zustand/react/shallow";

/**
 * The Proof step: every balloon against what was measured on the solid, the check values and the finder behind them,
 * the print over the view.
 */
export function ProofCard() {
  const job = useJob((s) => s.job)!;
  const { evaluated, set, balloon, picking } = useBench(
    useShallow((s) => ({ evaluated: s.evaluated, set: s.set, balloon: s.balloon, picking: s.picking })),
  );
  const e = evaluated?.evaluation;
  const complete = e && completeness(job, e);
  const laid = job.prints.flatMap((p) => p.regions.map((region) => ({ p, region })));
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (balloon !== null)
      list.current?.querySelector(`[data-balloon="${balloon}"]`)?.scrollIntoView({ block: "nearest" });
  }, [balloon]);
  const recorded =
    e?.ledger.filter((l) => job.proofs.some((p) => p.number === l.number && p.basis === l.basis)).length ?? 0;
  const last = job.proofs.reduce((t, p) => (p.on > t ? p.on : t), "");
  const look = (side: Side) =>
    set(
      ["front", "top", "right"].includes(side)
        ? { view: side as "top" }
        : { view: "section", section: { side, at: 0.02 } },
    );
  return (
    <Body>
      <Section
        title="Complete?"
        aside={
          e &&
          job.balloons.length > 0 && (
            <Button
              size="small"
              onClick={() => recordProofs(e.ledger)}
              disabled={!complete?.proved && !complete?.stale}
              title="keep what is proved now, on what and when"
            >
              record the proof
            </Button>
          )
        }
      >
        <p className={css.complete} data-testid="complete">
          {complete?.text ?? "…"}
        </p>
        {job.proofs.length > 0 && (
          <p className="soft" style={{ margin: "3px 0 0" }}>
            {recorded} on record as they are now{complete?.stale ? `, ${complete.stale} changed since` : ""}; last
            recorded {last}
          </p>
        )}
      </Section>
      <Section title="Check values">
        {!e?.checks.length && (
          <p className="soft" style={{ margin: 0 }}>
            The print gives none yet: add them on the Print step.
          </p>
        )}
        {e?.checks.map((c, i) => (
          <div key={i} className={css.check} data-check={c.kind} data-agrees={c.agrees}>
            <span>{checkName(c)}</span>
            <span className="num">{checkFigure(c, c.expected, job)}</span>
            <span className="num">{checkFigure(c, c.actual, job)}</span>
            <span className={c.agrees ? undefined : "red"}>
              {c.problem ??
                (c.agrees
                  ? "✓ agrees"
                  : c.actual === null
                    ? "…"
                    : `✗ off by ${checkFigure(c, c.actual - c.expected!, job)}`)}
            </span>
          </div>
        ))}
      </Section>
      <MismatchFinder />
      <Bars
        title="Where it lies between its limits, middle to middle"
        ends={[-1.5, 1.5]}
        bars={inBands(e?.ledger ?? [])
          .filter((b) => Math.abs(b.share) > 1e-6)
          .map((b) => ({
            name: `${b.balloon}`,
            value: Math.max(-1.5, Math.min(1.5, b.share)),
            shown: `${Math.round(100 * b.share)} %`,
            wrong: !b.inside,
          }))}
      />
      <Section title="Ledger against the model" aside="printed · measured on the solid">
        {job.balloons.length === 0 && (
          <p className="soft" style={{ margin: 0 }}>
            No balloons yet: the ledger is filled on the Print step.
          </p>
        )}
        <div ref={list}>
          {job.balloons.map((b) => {
            const l = e?.ledger.find((x) => x.number === b.number);
            const open = balloon === b.number;
            return (
              <div key={b.number} className={`${css.entry} ${open ? css.open : ""}`} data-balloon={b.number}>
                <Bare
                  className={css.row}
                  aria-expanded={open}
                  onClick={() =>
                    set({
                      balloon: open ? null : b.number,
                      ...(l?.rows.length ? { selected: job.rows[l.rows[0] - 1]?.id ?? null } : {}),
                    })
                  }
                >
                  <b>{b.number}</b>
                  <span className="num">{writeBalloonText({ ...b, note: undefined, zone: undefined })}</span>
                  <span className="num">{l ? measuredFigure(b, l, job) : "…"}</span>
                  {l && <StateMark state={l.state} />}
                  {l?.by && (l.state !== "unused" || b.measure) && <small>{l.by}</small>}
                </Bare>
                {open && l && (
                  <div className={css.more}>
                    <p>
                      {[
                        limitsText(b, l, job),
                        l.rows.length ? `drives row ${l.rows.join(", ")}` : "nothing in the model is made from it",
                        l.state === "stale"
                          ? "changed since it was recorded; record the proof again when it is right"
                          : "",
                      ]
                        .filter(Boolean)
                        .join("; ")}
                    </p>
                    {b.kind !== "thread" && b.kind !== "count" && (
                      <Button
                        size="small"
                        aria-pressed={picking?.balloon === b.number}
                        onClick={() =>
                          set({
                            picking: { balloon: b.number, first: null },
                            measuring: false,
                            ...(useBench.getState().view === "section" ? { view: "pictorial" as const } : {}),
                          })
                        }
                      >
                        {b.measure ? "pick it anew" : "measure it on the stage"}
                      </Button>
                    )}
                    {b.measure && (
                      <Button size="small" onClick={() => setMeasure(b.number, null)}>
                        find it by itself
                      </Button>
                    )}
                    {b.place && (
                      <Button size="small" onClick={() => set({ step: "print" })}>
                        show on the print
                      </Button>
                    )}
                  </div>
                )}
              </div>
            );
          })}
        </div>
      </Section>
      <Section title="Print over the part">
        {laid.length ? (
          <>
            <p className="soft" style={{ margin: "0 0 6px" }}>
              Hold b to blink it over the view; over the stage it is made stronger, or wiped across.
            </p>
            <div className={css.lay}>
              {laid.map(({ p, region }, i) => (
                <Button key={i} size="small" onClick={() => look(region.view)}>
                  {p.name}: {region.view} view
                </Button>
              ))}
            </div>
          </>
        ) : (
          <p className="soft" style={{ margin: 0 }}>
            No print is calibrated yet: on the Print step, pick two points and give their distance.
          </p>
        )}
      </Section>
    </Body>
  );
}
