import { INCH, type LengthUnit } from '@/core/number';
import type { Loop } from '@/core/outline';
import { endOf, startOf } from '@/core/outline';
import type { PathPlan } from '@/core/paths/plan';

const CLEARANCE = 3;
const PLUNGE_SHARE = 0.3;

/**
 * Paths cut from above as plain RS-274 words (NIST IR 6556): G17 G20/G21 G90, arcs by centre (I J).
 * X and Y are the job's own; Z0 is the plane of the highest path. Other planes are named in a remark and left out.
 */
export function pathsNc(plans: PathPlan[], unit: LengthUnit, jobName: string): string {
  const k = unit === 'in' ? 1 / INCH : 1;
  const digits = unit === 'in' ? 4 : 3;
  const n = (mm: number) => {
    const t = (mm * k).toFixed(digits).replace(/\.?0+$/, '');
    return t === '-0' || t === '' ? '0' : t.includes('.') ? t : `${t}.`;
  };
  const remark = (t: string) => `(${t.toUpperCase().replace(/[()]/g, ' ').replace(/[^\x20-\x7e]/g, (c) => (c === '⌀' ? 'DIA ' : c === '×' ? 'X' : ' '))})`;
  const above = plans.filter((p) => p.frame.normal.z > 0.999 && (p.chains.length || p.points.length));
  const zero = Math.max(...above.map((p) => p.frame.origin.z), -Infinity);
  const out = ['%', remark(jobName), remark('a plan, not a proven program: check against the machine manual and prove it out'), `G17 ${unit === 'in' ? 'G20' : 'G21'} G40 G49 G80 G90 G94`];
  for (const p of plans.filter((q) => !above.includes(q))) out.push(remark(`${p.title}: another setup or nothing to cut, left out`));
  let tool = 0;
  for (const p of above) {
    tool++;
    const z = (depth: number) => n(p.frame.origin.z - zero - depth);
    const safe = n(p.frame.origin.z - zero + CLEARANCE);
    out.push(remark(`${p.title} ${p.cutter?.name ?? p.drill ?? ''}`), `T${tool} M6`, `G0 Z${n(25)}`);
    if (p.kind === 'drill') {
      for (const q of p.points) out.push(`G0 X${n(q.x)} Y${n(q.y)}`, `Z${safe}`, `G1 Z${z(p.depth)} F${n(120)}`, `G0 Z${safe}`);
      out.push(`G0 Z${n(25)}`);
      continue;
    }
    const feed = p.cutter!.feed;
    for (const depth of p.levels) for (const loop of [...p.clearing].reverse().concat(p.chains)) out.push(...chain(loop, z(depth), safe, feed));
    out.push(`G0 Z${n(25)}`);
  }
  out.push('M5', 'M30', '%');
  return out.join('\n') + '\n';

  function chain(loop: Loop, z: string, safe: string, feed: number): string[] {
    const first = startOf(loop[0]);
    const words = [`G0 X${n(first.x)} Y${n(first.y)}`, `Z${safe}`, `G1 Z${z} F${n(feed * PLUNGE_SHARE)}`];
    loop.forEach((s, i) => {
      const f = i === 0 ? ` F${n(feed)}` : '';
      const e = endOf(s);
      if (s.kind === 'line') words.push(`G1 X${n(e.x)} Y${n(e.y)}${f}`);
      else {
        const from = startOf(s);
        words.push(`${s.sweep > 0 ? 'G3' : 'G2'} X${n(e.x)} Y${n(e.y)} I${n(s.centre.x - from.x)} J${n(s.centre.y - from.y)}${f}`);
      }
    });
    words.push(`G0 Z${safe}`);
    return words;
  }
}
