'use client';
import { useState } from 'react';
import type { Print } from '@/core/job';
import { sides, type Side } from '@/core/geometry/vec';
import { toNumberText } from '@/core/number';
import { valueOf, numberScope } from '@/core/engine/numbers';
import { NumberBox } from '../common/NumberBox';
import { ChoiceBox } from '../card/editors';
import { useJob } from '../store/jobStore';
import css from './PrintTable.module.css';

/** Two picked points, their distance, and what the first one is on the part: that lays the picture over a view. */
export function Calibration({ print, points, done }: { print: Print; points: { x: number; y: number }[]; done: (p: Print) => void }) {
  const job = useJob((s) => s.job)!;
  const old = print.calibration;
  const [view, setView] = useState<Side>(old?.view ?? 'top');
  const [distance, setDistance] = useState(old?.distance ?? toNumberText('?'));
  const [place, setPlace] = useState(old?.place ?? { x: toNumberText('?'), y: toNumberText('?') });
  const [a, b] = points.length === 2 ? points : old && points.length === 0 ? [old.a, old.b] : [];
  const direction = a && b && Math.abs(b.y - a.y) > Math.abs(b.x - a.x) ? 'y' : 'x';
  const scope = numberScope(job);
  const good = a && b && valueOf(distance, 'length', scope).ok && valueOf(place.x, 'coordinate', scope).ok && valueOf(place.y, 'coordinate', scope).ok;
  return (
    <div className={css.calibration}>
      <p>{!a ? 'pick point a on the print' : !b ? 'pick point b, along x or y from it' : `a and b lie along ${direction}`}</p>
      <ChoiceBox label="View" value={view} options={sides.map((s) => ({ value: s, label: s }))} choose={(o) => setView(o.value)} />
      <NumberBox own job={job} label="a to b" value={distance} quantity="length" commit={(t) => t && setDistance(t)} />
      <NumberBox own job={job} label="a is at x" value={place.x} quantity="coordinate" commit={(t) => t && setPlace({ ...place, x: t })} />
      <NumberBox own job={job} label="a is at y" value={place.y} quantity="coordinate" commit={(t) => t && setPlace({ ...place, y: t })} />
      <button className="btn main" disabled={!good} onClick={() => done({ ...print, calibration: { view, a: a!, b: b!, distance, direction, place } })}>calibrate</button>
    </div>
  );
}
