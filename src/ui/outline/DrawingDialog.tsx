'use client';
import { Modal } from 'antd';
import { useMemo, useState } from 'react';
import { useJob } from '../store/jobStore';
import { showLength } from '@/core/number';
import { readDxf } from '@/io/dxfOutlines';
import { readSvg } from '@/io/svgOutlines';
import { outlinesOfChains } from '@/io/chainItems';
import type { OutlineItem } from '@/core/outline/items';
import css from './Outline.module.css';

interface Props { drawing: { name: string; text: string }; bring: (outlines: { name: string; items: OutlineItem[] }[]) => void; cancel: () => void }

/** What a drawing file holds, before it is brought in: its unit, its layers, its open chains and gaps, and what is left out. */
export function DrawingDialog({ drawing, bring, cancel }: Props) {
  const unit = useJob((s) => s.job!.unit);
  const svg = /\.svg$/i.test(drawing.name);
  const [taken, setTaken] = useState<'said' | 'mm' | 'in'>('said');
  const [off, setOff] = useState<string[]>([]);
  const [mend, setMend] = useState('');
  const file = useMemo(() => (svg ? readSvg(drawing.text, unit) : readDxf(drawing.text, unit, taken === 'said' ? undefined : taken)), [drawing, svg, unit, taken]);
  const chosen = file.chains.filter((c) => !off.includes(c.layer)), open = chosen.filter((c) => !c.closed);
  const gap = Number(mend), wrongGap = mend.trim() !== '' && !(gap > 0);
  const closable = open.filter((c) => gap > 0 && c.gap!.width <= gap * (unit === 'in' ? 25.4 : 1)).length;
  const len = (mm: number) => showLength(mm, unit, unit === 'in' ? 4 : 3);
  const all = chosen.flatMap((c) => c.length).reduce((a, b) => a + b, 0);
  return (
    <Modal open title={`Chains of ${drawing.name}`} onCancel={cancel} okText={`bring in ${chosen.length} outline${chosen.length === 1 ? '' : 's'}`} okButtonProps={{ disabled: !chosen.length || wrongGap }} onOk={() => bring(outlinesOfChains(chosen, mend.trim()))} width={560}>
      <div className={css.drawing}>
        {!svg && (
          <label>Numbers of the drawing are{' '}
            <select className="box" value={taken} onChange={(e) => setTaken(e.target.value as 'said')}>
              <option value="said">{file.said === 'other' ? 'as the file says' : file.said ? `${file.said}, as the file says` : `${unit}, like the job: the file says nothing`}</option>
              <option value="mm">millimetres</option><option value="in">inches</option>
            </select>
          </label>
        )}
        {file.layers.length > 0 && (
          <fieldset>
            <legend>Layers</legend>
            {file.layers.map((l) => <label key={l.name}><input type="checkbox" checked={!off.includes(l.name)} onChange={(e) => setOff(e.target.checked ? off.filter((x) => x !== l.name) : [...off, l.name])} /> {l.name === '0' || l.name === '' ? 'without a name' : l.name} <small>{l.elements} element{l.elements === 1 ? '' : 's'}, {file.chains.filter((c) => c.layer === l.name).length} chain{file.chains.filter((c) => c.layer === l.name).length === 1 ? '' : 's'}</small></label>)}
          </fieldset>
        )}
        {chosen.length > 0 && <p>{chosen.length - open.length} closed, {open.length} open; {len(all)} {unit} in all.</p>}
        {open.length > 0 && (
          <>
            <ul aria-label="Open chains">{open.slice(0, 8).map((c, i) => <li key={i}>{c.layer}: open from <span className="num">{len(c.gap!.from.x)}, {len(c.gap!.from.y)}</span> to <span className="num">{len(c.gap!.to.x)}, {len(c.gap!.to.y)}</span>, {len(c.gap!.width)} {unit} apart</li>)}{open.length > 8 && <li>… {open.length - 8} more</li>}</ul>
            <label>Close gaps up to <input className="box num" aria-label="Close gaps up to" value={mend} size={6} maxLength={12} placeholder="none" onChange={(e) => setMend(e.target.value)} aria-invalid={wrongGap} /> {unit} {wrongGap ? <small className="red">a width such as {unit === 'in' ? '.002' : '.05'}</small> : closable ? <small>closes {closable}</small> : null}</label>
          </>
        )}
        {file.problems.filter((p) => !/a chain is open/.test(p)).map((p) => <p key={p} className="red">{p}</p>)}
      </div>
    </Modal>
  );
}
