'use client';
import { writeBalloonText } from '@/core/callout';
import type { Job } from '@/core/job';
import type { LedgerEntry } from '@/core/print/ledger';
import type { CheckResult } from '@/core/print/checks';
import { INCH, showLength } from '@/core/number';
import { Body, Section } from '../common/Section';
import { useBench } from '../store/benchStore';
import { useJob } from '../store/jobStore';
import { StateMark } from './StateMark';
import css from './Proof.module.css';

/** The Proof step: every balloon against what was measured on the solid, the check values, the print over the view. */
export function ProofCard() {
  const job = useJob((s) => s.job)!;
  const { evaluated, set } = useBench();
  const e = evaluated?.evaluation;
  const count = (s: string) => e?.ledger.filter((l) => l.state === s).length ?? 0;
  const unsourced = e?.solved.rows.reduce((n, r) => n + (r.state === 'off' ? 0 : r.numbers.filter((x) => x.value?.source === 'unsourced').length), 0) ?? 0;
  const calibrated = job.prints.filter((p) => p.calibration);
  return (
    <Body>
      <Section title="Complete?"><p className={css.complete}>{count('proved')} of {job.balloons.length} balloons proved, {count('unused')} unused, {count('off')} off; {unsourced} number{unsourced === 1 ? '' : 's'} in the model {unsourced === 1 ? 'has' : 'have'} no source</p></Section>
      <Section title="Check values">
        {!e?.checks.length && <p className="soft" style={{ margin: 0 }}>The print gives none yet: add them on the Print step.</p>}
        {e?.checks.map((c, i) => (
          <div key={i} className={css.check} data-check={c.kind} data-agrees={c.agrees}>
            <span>{c.kind}{c.of ? ` ${c.of}` : ''}</span><span className="num">{figure(c, c.expected, job)}</span><span className="num">{figure(c, c.actual, job)}</span>
            <span className={c.agrees ? undefined : 'red'}>{c.problem ?? (c.agrees ? '✓ agrees' : `✗ off by ${figure(c, c.actual! - c.expected!, job)}`)}</span>
          </div>
        ))}
      </Section>
      <Section title="Ledger against the model" aside="printed · measured on the solid">
        {job.balloons.length === 0 && <p className="soft" style={{ margin: 0 }}>No balloons yet: the ledger is filled on the Print step.</p>}
        {job.balloons.map((b) => {
          const l = e?.ledger.find((x) => x.number === b.number);
          return (
            <button key={b.number} className={css.row} data-balloon={b.number} title={l?.by} onClick={() => l?.rows.length && set({ selected: job.rows[l.rows[0] - 1]?.id ?? null })}>
              <b>{b.number}</b><span className="num">{writeBalloonText({ ...b, note: undefined })}</span><span className="num">{l ? measured(b.kind, l, job) : '…'}</span>{l && <StateMark state={l.state} />}
              {l?.by && l.state !== 'unused' && <small>{l.by}</small>}
            </button>
          );
        })}
      </Section>
      <Section title="Print over the part">
        {calibrated.length ? <p className="soft" style={{ margin: 0 }}>{calibrated.map((p) => `${p.name} lies over the ${p.calibration!.view} view`).join('; ')}. Hold b to blink it, or set how strong it shows over the stage. {calibrated.map((p) => ['front', 'top', 'right'].includes(p.calibration!.view) && <button key={p.id} className="btn small" onClick={() => set({ view: p.calibration!.view as 'top' })}>{p.calibration!.view} view</button>)}</p>
          : <p className="soft" style={{ margin: 0 }}>No print is calibrated yet: on the Print step, pick two points and give their distance.</p>}
      </Section>
    </Body>
  );
}

function measured(kind: string, l: LedgerEntry, job: Job): string {
  if (l.measured === null) return l.problem ?? '—';
  if (kind === 'count' || kind === 'thread') return `${l.measured}X`;
  return kind === 'angle' ? `${((l.measured * 180) / Math.PI).toFixed(3)}°` : showLength(l.measured, job.unit, job.unit === 'in' ? 4 : 3);
}

function figure(c: CheckResult, value: number | null, job: Job): string {
  if (value === null) return '—';
  const k = job.unit === 'in' ? INCH : 1;
  if (c.kind === 'mass') return `${value.toFixed(2)} g`;
  if (c.kind === 'volume') return `${(value / k ** 3).toFixed(job.unit === 'in' ? 4 : 1)} ${job.unit}³`;
  if (c.kind === 'area') return `${(value / k ** 2).toFixed(job.unit === 'in' ? 3 : 1)} ${job.unit}²`;
  return `${(value / k).toFixed(job.unit === 'in' ? 4 : 3)} ${job.unit}`;
}
