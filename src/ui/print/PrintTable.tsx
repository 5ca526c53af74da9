'use client';
import { App } from 'antd';
import { useRef, useState } from 'react';
import type { Print } from '@/core/job';
import { writeBalloonText } from '@/core/callout';
import { api, Refused } from '../store/api';
import { freshId } from '../bench/actions';
import { useJob } from '../store/jobStore';
import { Calibration } from './Calibration';
import css from './PrintTable.module.css';

const MAX = 20_000_000;
type Doing = { place: number } | { calibrate: { x: number; y: number }[] } | null;

/** The print on the table: upload, zoom, balloons pinned to their dimension, calibration to a view. */
export function PrintTable() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const [zoom, setZoom] = useState(1);
  const [doing, setDoing] = useState<Doing>(null);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const { message } = App.useApp();
  const print = job.prints.find((p) => p.id === chosen) ?? job.prints[0];
  const put = (prints: Print[]) => edit([{ edit: 'setPrints', prints }], 'print');

  const upload = async (f: File) => {
    if (f.size > MAX) return void message.error(`${f.name} has ${(f.size / 1e6).toFixed(1)} MB; at most ${MAX / 1e6} MB are kept`, 6);
    setBusy(true);
    try {
      const kept = await api.attach(f);
      const p: Print = { id: freshId(), name: f.name.slice(0, 120) || 'print', attachment: kept.hash, mediaType: kept.mediaType };
      put([...useJob.getState().job!.prints, p]);
      setChosen(p.id);
    } catch (e) {
      void message.error(e instanceof Refused ? `${f.name}: ${e.message}` : 'the server does not answer; the print was not kept', 6);
    } finally {
      setBusy(false);
    }
  };
  const place = (e: React.MouseEvent<HTMLDivElement>) => {
    if (!print || !doing) return;
    const r = e.currentTarget.getBoundingClientRect();
    // Units of the picture's width, y down: the same for any zoom.
    const p = { x: (e.clientX - r.left) / r.width, y: (e.clientY - r.top) / r.width };
    if ('place' in doing) {
      const b = job.balloons.find((x) => x.number === doing.place);
      if (b) edit([{ edit: 'setBalloon', number: b.number, balloon: { ...b, place: { print: print.id, ...p } } }], 'pin balloon');
      const next = job.balloons.find((x) => !x.place && x.number !== doing.place);
      setDoing(next ? { place: next.number } : null);
    } else setDoing({ calibrate: doing.calibrate.length >= 2 ? [p] : [...doing.calibrate, p] });
  };
  const unpinned = job.balloons.filter((b) => !b.place);
  return (
    <section className={css.table} aria-label="Print" onDragOver={(e) => e.preventDefault()} onDrop={(e) => { e.preventDefault(); const f = e.dataTransfer.files[0]; if (f) void upload(f); }}>
      <div className={css.bar}>
        {job.prints.map((p) => <button key={p.id} className={css.tab} aria-pressed={p.id === print?.id} onClick={() => { setChosen(p.id); setDoing(null); }}>{p.name}</button>)}
        <button className="btn small" disabled={busy} onClick={() => file.current?.click()}>{busy ? 'keeping …' : 'add a print'}</button>
        <input ref={file} type="file" hidden accept="image/png,image/jpeg" aria-label="Picture of a print" onChange={(e) => { const f = e.target.files?.[0]; e.target.value = ''; if (f) void upload(f); }} />
        {print && (
          <span className={css.tail}>
            <button className="btn small" onClick={() => setZoom(Math.max(0.5, zoom / 1.25))} aria-label="Smaller">−</button><span className="num">{Math.round(zoom * 100)} %</span><button className="btn small" onClick={() => setZoom(Math.min(6, zoom * 1.25))} aria-label="Larger">+</button>
            <button className="btn small" aria-pressed={Boolean(doing && 'place' in doing)} disabled={!job.balloons.length} onClick={() => setDoing(doing && 'place' in doing ? null : { place: (unpinned[0] ?? job.balloons[0]).number })}>pin balloons</button>
            <button className="btn small" aria-pressed={Boolean(doing && 'calibrate' in doing)} onClick={() => setDoing(doing && 'calibrate' in doing ? null : { calibrate: [] })}>{print.calibration ? `calibrated: ${print.calibration.view}` : 'calibrate'}</button>
            <button className="btn small" onClick={() => put(job.prints.filter((p) => p.id !== print.id))}>take off</button>
          </span>
        )}
      </div>
      {doing && 'place' in doing && (
        <p className={css.say}>click where balloon <select value={doing.place} aria-label="Balloon to pin" onChange={(e) => setDoing({ place: Number(e.target.value) })}>{job.balloons.map((b) => <option key={b.number} value={b.number}>{b.number}: {writeBalloonText({ ...b, note: undefined })}</option>)}</select> stands on the print</p>
      )}
      {doing && 'calibrate' in doing && print && <Calibration print={print} points={doing.calibrate} done={(p) => { put(job.prints.map((x) => (x.id === p.id ? p : x))); setDoing(null); }} />}
      <div className={css.sheet}>
        {print ? (
          <div className={`${css.picture} ${doing ? css.aim : ''}`} style={{ width: `${zoom * 100}%` }} onClick={place} data-testid="print-picture">
            <img src={`/api/attachments/${print.attachment}`} alt={`print: ${print.name}`} draggable={false} />
            {job.balloons.map((b) => b.place?.print === print.id && <button key={b.number} className={css.pin} style={{ left: `${b.place.x * 100}%`, top: `calc(${b.place.y} * var(--w))` }} title={writeBalloonText(b)} onClick={(e) => { if (!doing) { e.stopPropagation(); document.querySelector<HTMLElement>(`[data-balloon="${b.number}"] button`)?.click(); } }}>{b.number}</button>)}
            {doing && 'calibrate' in doing && doing.calibrate.map((p, i) => <span key={i} className={css.cross} style={{ left: `${p.x * 100}%`, top: `calc(${p.y} * var(--w))` }}>{'ab'[i]}</span>)}
          </div>
        ) : <p className={css.none}>No print yet. Add a picture of it (PNG or JPEG), or drop one here. The ledger on the left works without it too.</p>}
      </div>
    </section>
  );
}
