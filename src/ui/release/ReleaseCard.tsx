'use client';
import { useState } from 'react';
import { Body, Figure, Section, fieldsClass } from '../common/Section';
import { useBench } from '../store/benchStore';
import { useJob } from '../store/jobStore';
import { FileButton } from './FileButton';

const today = () => new Date().toISOString().slice(0, 10);

/** The Release step: the setup sheet, the part as files, the state of the record, and who signs it off. */
export function ReleaseCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const e = useBench((s) => s.evaluated?.evaluation);
  const [by, setBy] = useState('');
  const open = e?.findings.filter((f) => !f.waived) ?? [];
  const count = (s: string) => open.filter((f) => f.severity === s).length;
  const failed = e?.solved.rows.filter((r) => r.state === 'failed').length ?? 0;
  const proved = e?.ledger.filter((l) => l.state === 'proved').length ?? 0;
  const off = (e?.ledger.filter((l) => l.state === 'off').length ?? 0) + (e?.checks.filter((c) => !c.agrees).length ?? 0);
  const signed = job.signOff;
  const current = signed && signed.revision === job.revision;
  return (
    <Body>
      <Section title="Record" aside={current ? `released by ${signed.by}` : 'draft'}>
        <div className={fieldsClass}>
          <Figure label="Stops" red={count('stop') > 0}>{count('stop')}</Figure><Figure label="Cautions">{count('caution')}</Figure><Figure label="Notes">{count('note')}</Figure>
          <Figure label="Rows failed" red={failed > 0}>{failed}</Figure><Figure label="Balloons proved">{proved} / {job.balloons.length}</Figure><Figure label="Off" red={off > 0}>{off}</Figure>
        </div>
        {job.waivers.length > 0 && <ul style={{ margin: '8px 0 0', paddingLeft: 16, fontSize: 13 }}>{job.waivers.map((w, i) => <li key={i}>{w.rule.replace(/-/g, ' ')} waived: {w.reason}</li>)}</ul>}
      </Section>
      <Section title="Sheet"><FileButton kind="pdf" label="Setup sheet, PDF" main /> <span className="soft" style={{ fontSize: 13 }}>picture, stock, rows, cutters, remarks, cautions</span></Section>
      <Section title="The part">
        <div style={{ display: 'flex', gap: 8 }}><FileButton kind="step" label="STEP" title="solid, ISO 10303-21" /><FileButton kind="stl" label="STL" title="triangles" /><FileButton kind="svg" label="SVG" title="top view as a drawing" /></div>
      </Section>
      <Section title="Paths"><div style={{ display: 'flex', gap: 8 }}><FileButton kind="dxf" label="DXF" /><FileButton kind="nc" label="RS-274 words" /></div></Section>
      <Section title="The job"><div style={{ display: 'flex', gap: 8 }}><FileButton kind="json" label="JSON" title="the whole document; schema at /api/schema" /><FileButton kind="card" label="Card" title="plain text" /></div></Section>
      <Section title="Sign-off" aside={`revision ${job.revision || '—'}`}>
        {signed && <p style={{ margin: '0 0 6px' }}>{signed.by}, {signed.on}, revision {signed.revision}{current ? '' : ' (an earlier revision)'} <button className="btn small" onClick={() => edit([{ edit: 'setHead', head: { signOff: undefined } }], 'take back sign-off')}>take back</button></p>}
        {!current && (
          <form style={{ display: 'flex', gap: 8 }} onSubmit={(ev) => { ev.preventDefault(); if (by.trim()) edit([{ edit: 'setHead', head: { signOff: { by: by.trim(), on: today(), revision: job.revision } } }], 'sign off'); }}>
            <input className="box" placeholder="name" aria-label="Who signs off" value={by} maxLength={120} onChange={(ev) => setBy(ev.target.value)} /><button className="btn" disabled={!by.trim()}>sign off</button>
          </form>
        )}
        {(count('stop') > 0 || failed > 0 || off > 0) && <p className="red" style={{ margin: '6px 0 0', fontStyle: 'italic' }}>There are still stops, failed rows or values that are off.</p>}
      </Section>
      <Section title="Caution"><p className="soft" style={{ margin: 0 }}>Sgorbia plans. The machine builder’s manual, the tool maker’s ratings, shop rules and a qualified person at the machine come first.</p></Section>
    </Body>
  );
}
