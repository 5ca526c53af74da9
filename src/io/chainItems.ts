import { INCH, type LengthUnit, type NumberText } from '@/core/number';
import { distance2, type Vec2 } from '@/core/geometry/vec';
import type { OutlineItem } from '@/core/outline/items';
import { reversed } from '@/core/outline/meet';
import { endOf, segmentLength, startOf, type Arc, type Segment } from '@/core/outline';

/** Ends this near to one another are joined, mm. */
export const JOIN = 1e-4;

/** A chain out of a file: its layer, its steps as an outline's lines, and where it is open. */
export interface ReadChain { layer: string; items: OutlineItem[]; closed: boolean; gap: { from: Vec2; to: Vec2; width: number } | null; length: number }
/** What a file of lines holds, before anything is chosen. Millimetres. */
export interface ReadFile {
  /** The unit the file says it is in; null where it says none. */
  said: LengthUnit | 'other' | null;
  layers: { name: string; elements: number }[];
  chains: ReadChain[];
  /** What is wrong or left out, with the line of the file where there is one. */
  problems: string[];
}

/** Segments of one layer as chains, joined where their ends meet. */
export function chainsOfLayer(layer: string, segments: Segment[], unit: LengthUnit): ReadChain[] {
  const n = (mm: number): NumberText => { const v = unit === 'in' ? mm / INCH : mm; return (Math.abs(v) < 5e-11 ? '0' : v.toFixed(10).replace(/\.?0+$/, '')) as NumberText; };
  const xy = (p: Vec2) => ({ x: n(p.x), y: n(p.y) });
  return chain(segments.filter((s) => segmentLength(s) > JOIN / 10)).map((c): ReadChain => {
    const from = startOf(c[0]), to = endOf(c[c.length - 1]), width = distance2(from, to), closed = width < JOIN;
    const base = { layer, closed, gap: closed ? null : { from, to, width }, length: c.reduce((sum, s) => sum + segmentLength(s), 0) };
    const only = wholeCircle(c);
    if (only) return { ...base, items: [{ item: 'circle', diameter: n(2 * only.radius), at: xy(only.centre) }] };
    const items: OutlineItem[] = [{ item: 'start', at: xy(from) }];
    c.forEach((s, j) => {
      const last = closed && j === c.length - 1;
      if (s.kind === 'line') items.push({ item: 'line', ...(last ? { close: true as const } : { to: xy(s.to) }) });
      else items.push({ item: 'arc', ...(last ? { close: true as const } : { to: xy(endOf(s)) }), centre: xy(s.centre), side: s.sweep > 0 ? 'ccw' : 'cw' });
    });
    return { ...base, items };
  });
}

/** The circle that a chain of arcs goes round once; null where it is anything else. */
function wholeCircle(c: Segment[]): Arc | null {
  const [first] = c;
  if (first.kind !== 'arc') return null;
  const same = c.every((s) => s.kind === 'arc' && distance2(s.centre, first.centre) < JOIN / 10 && Math.abs(s.radius - first.radius) < JOIN / 10);
  return same && Math.abs(Math.abs(c.reduce((sum, s) => sum + (s as Arc).sweep, 0)) - 2 * Math.PI) < 1e-6 ? first : null;
}

/** Joins segments end to end, turning them round where they must be. */
function chain(segments: Segment[]): Segment[][] {
  const left = [...segments], out: Segment[][] = [];
  while (left.length) {
    const c = [left.shift()!];
    for (let grown = true; grown; ) {
      grown = false;
      const tail = endOf(c[c.length - 1]), head = startOf(c[0]);
      if (distance2(tail, head) < JOIN) break;
      for (let i = 0; i < left.length && !grown; i++) {
        const s = left[i], take = (front: boolean, x: Segment) => { left.splice(i, 1); if (front) c.unshift(x); else c.push(x); grown = true; };
        if (distance2(startOf(s), tail) < JOIN) take(false, s);
        else if (distance2(endOf(s), tail) < JOIN) take(false, reversed(s));
        else if (distance2(endOf(s), head) < JOIN) take(true, s);
        else if (distance2(startOf(s), head) < JOIN) take(true, reversed(s));
      }
    }
    out.push(c);
  }
  return out;
}

/**
 * The chosen chains as outlines, one a chain, named by their layers.
 * @param mend gaps up to this width are closed by a `MEND` line, as typed; '' for none
 */
export function outlinesOfChains(chains: ReadChain[], mend: string): { name: string; items: OutlineItem[] }[] {
  const count = new Map<string, number>();
  return chains.map((c) => {
    const many = chains.filter((o) => o.layer === c.layer).length > 1, n = (count.get(c.layer) ?? 0) + 1;
    count.set(c.layer, n);
    const name = `${c.layer === '0' || c.layer === '' ? 'outline' : c.layer.toLowerCase()}${many ? ` ${n}` : ''}`;
    return { name, items: !c.closed && mend ? [...c.items, { item: 'mend' as const, gap: mend as NumberText }] : c.items };
  });
}

export const gapWords = (c: ReadChain): string => (c.gap ? `layer ${c.layer}: a chain is open from ${c.gap.from.x.toFixed(3)}, ${c.gap.from.y.toFixed(3)} to ${c.gap.to.x.toFixed(3)}, ${c.gap.to.y.toFixed(3)} mm` : '');
