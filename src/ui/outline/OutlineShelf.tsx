'use client';
import { App } from 'antd';
import { useRef } from 'react';
import { readDxfOutlines } from '@/io/dxfOutlines';
import { freshId } from '../bench/actions';
import { useBench } from '../store/benchStore';
import { useJob } from '../store/jobStore';
import box from '../common/NumberBox.module.css';
import css from './Outline.module.css';

const freeName = (names: string[], wanted: string): string => {
  for (let i = 1; ; i++) { const n = i === 1 ? wanted : `${wanted} ${i}`; if (!names.some((x) => x.toLowerCase() === n.toLowerCase())) return n; }
};

/** The job's outlines in a row under the route card; one opens in its editor. */
export function OutlineShelf() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { evaluated, set } = useBench();
  const file = useRef<HTMLInputElement>(null);
  const { message } = App.useApp();
  const open = (id: string) => set({ openOutline: id, outlineDraft: null, view: 'top' });
  const start = () => {
    const id = freshId();
    edit([{ edit: 'addOutlines', outlines: [{ id, name: freeName(job.outlines.map((o) => o.name), 'outline'), items: [] }] }], 'outline');
    open(id);
  };
  const read = async (f: File) => {
    if (f.size > 20_000_000) return void message.error(`${f.name} is too large: at most 20 MB`, 6);
    const r = readDxfOutlines(await f.text(), job.unit);
    const names = job.outlines.map((o) => o.name);
    const outlines = r.outlines.map((o) => { const name = freeName(names, o.name); names.push(name); return { id: freshId(), name, items: o.items }; });
    if (outlines.length) edit([{ edit: 'addOutlines', outlines }], 'outlines from DXF');
    if (r.problems.length) void message.warning(`${outlines.length} outline${outlines.length === 1 ? '' : 's'} read; ${r.problems.slice(0, 3).join('; ')}`, 9);
  };
  return (
    <div className={css.shelf} aria-label="Outlines" role="group">
      <span className="lab">outlines</span>
      {job.outlines.map((o) => {
        const e = evaluated?.evaluation.outlines.find((x) => x.id === o.id);
        const bad = e && (e.problems.length > 0 || e.wire?.conflict);
        return <button key={o.id} className="btn small" onClick={() => open(o.id)} title={e?.wire?.free.join('; ')}>{o.name}{bad ? <span className="red"> ✗</span> : e?.wire?.freedom ? <small> {e.wire.freedom} free</small> : ''}</button>;
      })}
      <button className="btn small" onClick={start}>+ outline</button>
      <button className="btn small" onClick={() => file.current?.click()} title="closed and open chains of a DXF, one outline a layer">read DXF</button>
      <input ref={file} type="file" hidden accept=".dxf" aria-label="DXF with outlines" onChange={(e) => { const f = e.target.files?.[0]; e.target.value = ''; if (f) void read(f); }} />
    </div>
  );
}

/** Which outline a row is made from. */
export function OutlineBox({ label, value, choose }: { label: string; value: string; choose: (name: string) => void }) {
  const job = useJob((s) => s.job)!;
  const there = job.outlines.some((o) => o.name.toLowerCase() === value.toLowerCase());
  return (
    <div className={box.field}>
      <label>{label}
        <select className="box" value={there ? job.outlines.find((o) => o.name.toLowerCase() === value.toLowerCase())!.name : ''} onChange={(e) => choose(e.target.value)}>
          {!there && <option value="" disabled>{value} (gone)</option>}
          {job.outlines.map((o) => <option key={o.id}>{o.name}</option>)}
        </select>
      </label>
    </div>
  );
}
