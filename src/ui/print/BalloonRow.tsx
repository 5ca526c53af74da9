'use client';
import { writeBalloonText } from '@/core/callout';
import { balloonKinds, type Balloon, type Tolerance } from '@/core/job';
import { toNumberText, type NumberText } from '@/core/number';
import { findThread } from '@/core/tables';
import { NumberBox } from '../common/NumberBox';
import { fieldsClass } from '../common/Section';
import { ChoiceBox, ThreadBox } from '../card/editors';
import { useBench } from '../store/benchStore';
import { useJob } from '../store/jobStore';
import { StateMark } from '../proof/StateMark';
import css from './PrintCard.module.css';

const q = toNumberText('?');
const toleranceKinds: { value: Tolerance['kind']; label: string; make: Tolerance }[] = [
  { value: 'default', label: 'by decimals', make: { kind: 'default' } }, { value: 'plusMinus', label: '±', make: { kind: 'plusMinus', value: q } }, { value: 'sided', label: '+ and −', make: { kind: 'sided', plus: q, minus: q } },
];

/** One balloon of the ledger; it opens in place. */
export function BalloonRow({ balloon: b, index, open, toggle }: { balloon: Balloon; index: number; open: boolean; toggle: () => void }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const entry = useBench((s) => s.evaluated?.evaluation.ledger.find((l) => l.number === b.number));
  const put = (change: Partial<Balloon>) => {
    const next = { ...b, ...change };
    for (const k of Object.keys(next) as (keyof Balloon)[]) if (next[k] === undefined) delete next[k];
    edit([{ edit: 'setBalloon', number: b.number, balloon: next }], 'balloon');
  };
  const setKind = (kind: Balloon['kind']) => put({
    kind, value: kind === 'thread' || kind === 'count' ? undefined : (b.value ?? q), thread: kind === 'thread' ? (b.thread ?? (job.unit === 'in' ? '10-32 UNF-2B' : 'M5')) : undefined,
    angle: kind === 'chamfer' ? (b.angle ?? toNumberText('45')) : undefined, count: kind === 'count' ? (b.count ?? toNumberText('1')) : b.count,
  });
  const users = entry?.rows ?? [];
  const move = (by: number) => edit([{ edit: 'moveBalloon', number: b.number, to: index + by }], 'move balloon');
  const quantity = b.kind === 'angle' ? 'angle' : 'coordinate';
  return (
    <div role="listitem" className={`${css.row} ${open ? css.open : ''}`} data-balloon={b.number}>
      <button className={css.line} onClick={toggle} aria-expanded={open}>
        <b className={css.balloon}>{b.number}</b><span className={css.text}>{writeBalloonText({ ...b, note: undefined })}{b.note && <i> {b.note}</i>}</span>
        {entry && <StateMark state={entry.state} />}
      </button>
      {open && (
        <div className={css.editor}>
          <div className={fieldsClass}>
            <ChoiceBox label="Kind" value={b.kind} options={balloonKinds.map((k) => ({ value: k, label: k }))} choose={(o) => setKind(o.value)} />
            {b.kind === 'thread' ? <ThreadBox value={b.thread ?? ''} commit={(v) => findThread(v) && put({ thread: v })} />
              : b.kind !== 'count' && <NumberBox printed job={{ ...job, balloons: job.balloons.filter((x) => x.number !== b.number) }} label="As printed" value={b.value} quantity={quantity} commit={(t) => put({ value: t ?? q })} />}
            {b.kind === 'chamfer' && <NumberBox printed job={job} label="Angle" value={b.angle} quantity="angle" commit={(t) => put({ angle: t ?? toNumberText('45') })} />}
            <NumberBox printed job={job} label="Count" value={b.count} quantity="count" optional={b.kind !== 'count'} commit={(t) => put({ count: t })} />
            <ChoiceBox label="Tolerance" value={b.tolerance.kind} options={toleranceKinds} choose={(o) => put({ tolerance: o.make })} />
            {b.tolerance.kind === 'plusMinus' && <NumberBox printed job={job} label="±" value={b.tolerance.value} quantity={quantity} commit={(t) => put({ tolerance: { kind: 'plusMinus', value: t ?? q } })} />}
            {b.tolerance.kind === 'sided' && (['plus', 'minus'] as const).map((k) => <NumberBox printed key={k} job={job} label={k === 'plus' ? '+' : '−'} value={(b.tolerance as Record<'plus' | 'minus', NumberText>)[k]} quantity={quantity} commit={(t) => put({ tolerance: { ...(b.tolerance as Extract<Tolerance, { kind: 'sided' }>), [k]: t ?? q } })} />)}
            <label><span className="lab">Note</span><input className="box" style={{ fontFamily: 'var(--text)' }} defaultValue={b.note ?? ''} key={b.note ?? ''} maxLength={500} onBlur={(e) => e.target.value.trim() !== (b.note ?? '') && put({ note: e.target.value.trim() || undefined })} /></label>
          </div>
          <div className={css.actions}>
            <label><input type="checkbox" checked={Boolean(b.reference)} onChange={(e) => put({ reference: e.target.checked ? true : undefined })} /> reference</label>
            <span className="soft">{users.length ? `drives row ${users.join(', ')}` : 'nothing uses it yet'}</span>
            <button className="btn small" onClick={() => move(-1)} disabled={index === 0} aria-label="Move up">↑</button><button className="btn small" onClick={() => move(1)} disabled={index === job.balloons.length - 1} aria-label="Move down">↓</button>
            <button className="btn small" onClick={() => edit([{ edit: 'deleteBalloon', number: b.number }], 'delete balloon')}>delete</button>
          </div>
        </div>
      )}
    </div>
  );
}
