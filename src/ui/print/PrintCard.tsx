'use client';
import { useState } from 'react';
import { readBalloonLine } from '@/core/callout';
import { Body, Section } from '../common/Section';
import { useJob } from '../store/jobStore';
import { BalloonRow } from './BalloonRow';
import { CheckValues } from './CheckValues';
import { TitleData } from './TitleData';
import css from './PrintCard.module.css';

/** The Print step's card: title data, the balloon ledger with quick entry, and the check values. */
export function PrintCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [line, setLine] = useState('');
  const [open, setOpen] = useState<number | null>(null);
  const next = Math.max(0, ...job.balloons.map((b) => b.number)) + 1;
  const numbered = /^#(\d{1,4})\s+(.*)$/.exec(line.trim());
  const number = numbered ? Number(numbered[1]) : next;
  const text = numbered ? numbered[2] : line;
  const read = text.trim() ? readBalloonLine(text, number) : null;
  const taken = job.balloons.some((b) => b.number === number);
  const add = () => {
    if (!read?.ok || taken) return;
    edit([{ edit: 'addBalloons', balloons: [read.balloon] }], 'balloon');
    setLine('');
  };
  return (
    <Body>
      <TitleData />
      <Section title="Ledger" aside={`${job.balloons.length} balloon${job.balloons.length === 1 ? '' : 's'}`}>
        <form className={`${css.quick} ${read && !read.ok ? css.bad : ''}`} onSubmit={(e) => { e.preventDefault(); add(); }}>
          <b className={css.balloon}>{number}</b>
          <input value={line} onChange={(e) => setLine(e.target.value)} aria-label="Next balloon" placeholder={job.unit === 'in' ? '⌀1.950 ±.005' : '⌀42 ±0.1'} spellCheck={false} autoComplete="off" maxLength={300} />
          <button className="btn small" disabled={!read?.ok || taken}>add</button>
        </form>
        <p className={css.says}>{!line.trim() ? 'type it as printed: DIA 1.95 +-.005, R.25, 45 DEG, .375 DEEP, 6X 10-32 UNF-2B, .03 X 45 DEG' : taken ? <span className="red">balloon #{number} is there already</span> : read?.ok ? `${read.balloon.kind}${read.balloon.count ? ` times ${read.balloon.count}` : ''}; Enter adds it` : <span className="red">at character {read!.error.column}: {read!.error.message}; expected: {read!.error.expected}</span>}</p>
        <div role="list" aria-label="Balloons">{job.balloons.map((b, i) => <BalloonRow key={b.number} balloon={b} index={i} open={open === b.number} toggle={() => setOpen(open === b.number ? null : b.number)} />)}</div>
      </Section>
      <CheckValues />
    </Body>
  );
}
