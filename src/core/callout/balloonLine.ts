import type { Balloon } from '../job/schema';
import { inCallout } from '../number';
import { readThread } from '../tables';
import type { Reader } from './reader';

/** What stands after `#4`: `⌀1.950 ±.005`, `6X 10-32 UNF-2B`, `R.175`, `.375 DEEP`, `45°`, `.03 X 45°`, `6X`. */
export function readBalloon(r: Reader, number: number): Balloon {
  const b: Balloon = { number, kind: 'linear', tolerance: { kind: 'byDecimals' } };
  const start = r.pos;
  if (r.seesNumber() && !thread(r)) {
    const first = r.number('count');
    if (r.take('X') && (r.done || r.sees('⌀') || r.sees('R') || r.sees('DEEP') || r.seesNumber() || thread(r))) {
      b.count = first;
      if (r.done) return { ...b, kind: 'count' };
      // `.03 X 45°` is a chamfer, `6X 1.25` a count: the sign after the second number tells.
      const save = r.pos;
      if (r.seesNumber() && !thread(r)) {
        const second = r.number('angle');
        if (r.take('°')) {
          delete b.count;
          b.kind = 'chamfer';
          b.value = first;
          b.angle = second;
          return rest(r, b);
        }
        r.pos = save;
      }
    } else r.pos = start;
  }
  const t = thread(r);
  if (t) {
    r.pos += t.length;
    b.kind = 'thread';
    b.thread = t.designation;
    return rest(r, b);
  }
  if (r.take('⌀')) b.kind = 'diameter';
  else if (r.take('R')) b.kind = 'radius';
  else if (r.take('DEEP')) b.kind = 'depth';
  b.value = r.number('value', 'a dimension');
  if (r.take('°')) b.kind = 'angle';
  return rest(r, b);
}

const thread = (r: Reader) => {
  r.skip();
  return readThread(r.text.slice(r.pos));
};

function rest(r: Reader, b: Balloon): Balloon {
  while (!r.done) {
    if (r.take('DEEP')) b.kind = 'depth';
    else if (r.take('±')) b.tolerance = { kind: 'plusMinus', value: r.number('tolerance', 'a tolerance') };
    else if (/^\+/.test(r.text.slice(r.pos))) {
      r.pos++;
      const plus = r.number('tolerance', 'a tolerance');
      r.skip();
      if (r.text[r.pos] !== '-') r.fail('- and the lower tolerance');
      r.pos++;
      b.tolerance = { kind: 'sided', plus, minus: r.number('tolerance', 'a tolerance') };
    } else if (r.take('REF')) b.reference = true;
    else if (r.text[r.pos] === '"') b.note = r.quoted();
    else r.fail('±, DEEP, REF or a note in quotes');
  }
  return b;
}

/** A balloon as the card writes it, without its number. */
export function writeBalloonText(b: Balloon): string {
  const count = b.count === undefined ? '' : `${inCallout(b.count)}X`;
  const value = b.value === undefined ? '' : inCallout(b.value);
  const body =
    b.kind === 'count' ? '' : b.kind === 'thread' ? (b.thread ?? '') : b.kind === 'diameter' ? `⌀${value}` : b.kind === 'radius' ? `R${value}`
    : b.kind === 'angle' ? `${value}°` : b.kind === 'depth' ? `${value} DEEP` : b.kind === 'chamfer' ? `${value} X ${inCallout(b.angle ?? '45')}°` : value;
  const t = b.tolerance;
  const tolerance = t.kind === 'plusMinus' ? `±${inCallout(t.value)}` : t.kind === 'sided' ? `+${inCallout(t.plus)} -${inCallout(t.minus)}` : '';
  return [count, body, tolerance, b.reference ? 'REF' : '', b.note ? `"${b.note.replace(/"/g, '”')}"` : ''].filter(Boolean).join(' ');
}
