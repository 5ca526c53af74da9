import { evaluateCard, evaluateJob, inch, jobOf, mm } from '../../../tests/helpers/card';
import { numberScope } from '../engine/numbers';
import { balloonLimits } from './tolerance';
import { readBalloonLine } from '../callout';

const states = async (text: string) => Object.fromEntries((await evaluateCard(text)).ledger.map((l) => [l.number, l.state]));

describe('the ledger', () => {
  it('knows what drives, what is proved and what nobody uses', async () => {
    const s = await states(inch('#1 4.000 ±.005', '#2 2.500 ±.005', '#3 .750', '#4 ⌀.281 ±.003', '#5 2X ⌀.281', '#6 .375 DEEP', '#7 9.99', '#8 R.25', '#9 2X 3/8-16 UNC-2B', 'LEAVE BLOCK #1 X #2 X #3 R#8', 'CUT 2X ⌀#4 THRU AT -1.2,.8 1.2,.8', 'CUT POCKET 1 X 1 R.2 DEEP #6', 'CUT 2X 3/8-16 UNC DEEP .4 DRILL DEEP .6 AT -1,-.8 1,-.8'));
    expect(s).toEqual({ 1: 'proved', 2: 'proved', 3: 'proved', 4: 'proved', 5: 'unused', 6: 'proved', 7: 'unused', 8: 'proved', 9: 'proved' });
  });
  it('measures the solid and not the number: a diameter used as a radius is off', async () => {
    const e = await evaluateCard(mm('#1 ⌀40 ±0.1', 'LEAVE ROUND ⌀#1*2 X 10'));
    expect(e.ledger[0]).toMatchObject({ state: 'off', nominal: 40, by: expect.stringContaining('row 1') });
    expect(e.ledger[0].measured).toBeCloseTo(80, 9);
    expect((await evaluateCard(mm('#1 ⌀40 ±0.1', 'LEAVE ROUND ⌀#1 X 10'))).ledger[0].state).toBe('proved');
  });
  it('holds a value just inside its limits and drops one just outside', async () => {
    const at = async (d: string) => (await states(mm('#1 ⌀40 ±0.1', `LEAVE ROUND ⌀#1${d} X 10`)))[1];
    expect(await at('+0.1')).toBe('proved');
    expect(await at('+0.101')).toBe('off');
    expect(await at('-0.1')).toBe('proved');
  });
  it('counts the copies that are really there', async () => {
    expect(await states(mm('#1 6X ⌀5 ±0.1', 'LEAVE ROUND ⌀60 X 10', 'CUT 5X ⌀#1 THRU ON BC 40'))).toEqual({ 1: 'off' });
    expect(await states(mm('#1 6X ⌀5 ±0.1', 'LEAVE ROUND ⌀60 X 10', 'CUT 6X ⌀#1 THRU ON BC 40'))).toEqual({ 1: 'proved' });
    expect(await states(mm('#1 6X M4', 'LEAVE ROUND ⌀60 X 20', 'CUT 5X M4 DEEP 8 ON BC 40'))).toEqual({ 1: 'off' });
    expect(await states(mm('#1 6X', 'LEAVE ROUND ⌀60 X 20', 'CUT #1X ⌀4 DEEP 8 ON BC 40'))).toEqual({ 1: 'proved' });
  });
  it('measures bolt circles, angles, grooves, offsets and depths', async () => {
    expect(await states(mm('#1 ⌀42 ±0.1', '#2 30° ±1', '#3 90°', '#4 ⌀30', '#5 ⌀24', '#6 2.5 DEEP', '#7 6 ±0.1', '#8 15 ±0.05', '#9 ⌀8.4',
      'LEAVE ROUND ⌀60 X 20', 'CUT 5X ⌀4 THRU CSK ⌀#9 X #3 ON BC #1 FROM #2', 'CUT GROOVE OD #4 ID #5 DEEP #6', 'CUT POCKET #7 X 4 R1 DEEP 3 AT 0,-#8/3'))).toEqual({ 1: 'proved', 2: 'proved', 3: 'proved', 4: 'proved', 5: 'proved', 6: 'proved', 7: 'proved', 8: 'off', 9: 'proved' });
  });
  it('lets a reference dimension be proved and never drive', async () => {
    expect(await states(mm('#1 20 REF', '#2 33 REF', 'LEAVE BLOCK 40 X 30 X 20'))).toEqual({ 1: 'proved', 2: 'unused' });
    const e = await evaluateCard(mm('#1 20 REF', 'LEAVE BLOCK 40 X 30 X #1'));
    expect(e.solved.rows[0].message).toMatch(/never drives/);
  });
  it('follows a balloon through another', async () => {
    expect(await states(mm('#1 40', '#2 #1/2', 'LEAVE BLOCK 40 X 30 X #2'))).toMatchObject({ 2: 'proved' });
    const e = await evaluateCard(mm('#1 40', '#2 #1/2', 'LEAVE BLOCK 40 X 30 X #2'));
    expect(e.ledger[0].rows).toEqual([1]);
  });
  it('proves a depth by a depth alone, and claims nothing of a cosmetic thread', async () => {
    // Two holes 8 apart and 6 deep: the 8 between their axes is no proof of a depth of 8.
    expect(await states(mm('#1 8 ±0.5', '#2 8 DEEP ±0.5', 'LEAVE BLOCK 60 X 40 X 30', 'CUT 2X ⌀5 DEEP #2-2 FLAT AT -4,0 4,0'))).toMatchObject({ 2: 'off' });
    expect(await states(mm('#2 8 DEEP ±0.5', 'LEAVE BLOCK 60 X 40 X 30', 'CUT 2X ⌀5 DEEP #2 FLAT AT -4,0 4,0'))).toEqual({ 2: 'proved' });
    expect(await states(mm('#2 8 DEEP', 'LEAVE BLOCK 60 X 40 X 30', 'CUT M5 DEEP #2 DRILL DEEP 12'))).toEqual({ 2: 'drives' });
  });
  it('calls a balloon of a failed row driving, not proved', async () => {
    expect(await states(mm('#1 4', 'LEAVE BLOCK 40 X 30 X 20', 'CUT ⌀#1 THRU ON FLOOR OF 9'))).toEqual({ 1: 'drives' });
  });
});

describe('tolerances', () => {
  const limits = (text: string, title = {}) => {
    const r = readBalloonLine(text, 1);
    if (!r.ok) throw new Error(r.error.message);
    const l = balloonLimits(r.balloon, { unit: 'mm', title }, numberScope({ unit: 'mm', balloons: [] }));
    return l.ok && [l.value.nominal, l.value.low, l.value.high].map((n) => Number(n.toFixed(6)));
  };
  it('reads ± and one-sided ones', () => {
    expect(limits('10 ±0.1')).toEqual([10, 9.9, 10.1]);
    expect(limits('20 +0.021 -0')).toEqual([20, 20, 20.021]);
  });
  it('goes by the number of decimals, as the title block says', () => {
    expect(limits('10.0', { tolerances: [null, '0.3', '0.1', null, null] })).toEqual([10, 9.7, 10.3]);
    expect(limits('10.00', { tolerances: [null, '0.3', '0.1', null, null] })).toEqual([10, 9.9, 10.1]);
    expect(limits('10.0')).toEqual([10, 9.95, 10.05]);
  });
});

describe('check values', () => {
  const agrees = async (check: string, ...lines: string[]) => (await evaluateCard(mm(...(lines.length ? lines : ['LEAVE BLOCK 40 X 30 X 20']), check))).checks[0].agrees;
  it('agree when the model rounds to what is printed', async () => {
    expect(await agrees('CHECK VOLUME 24000')).toBe(true);
    expect(await agrees('CHECK VOLUME 24100')).toBe(false);
    expect(await agrees('CHECK MASS 188.9 g')).toBe(true);
    expect(await agrees('CHECK MASS 188.7 g')).toBe(false);
    expect(await agrees('CHECK MASS .189 kg')).toBe(true);
    expect(await agrees('CHECK MASS .4164 lb')).toBe(true);
    expect(await agrees('CHECK AREA TOP 1200')).toBe(true);
    expect(await agrees('CHECK AREA LEFT 600')).toBe(true);
    expect(await agrees('CHECK AREA LEFT 601')).toBe(false);
    expect(await agrees('CHECK SIZE X 40')).toBe(true);
    expect(await agrees('CHECK SIZE X 40.2')).toBe(false);
    expect(await agrees('CHECK SIZE X 40.2 ±0.3')).toBe(true);
  });
  it('stand in the unit of the job', async () => {
    const e = await evaluateCard(inch('LEAVE BLOCK 2 X 1 X .5', 'CHECK VOLUME 1', 'CHECK AREA FRONT 1', 'CHECK SIZE Z .5'));
    expect(e.checks.map((c) => c.agrees)).toEqual([true, true, true]);
    expect(e.checks[0].expected).toBeCloseTo(16387.064, 6);
  });
  it('are off where there is no part', async () => {
    const e = await evaluateJob(jobOf('UNIT mm\nCHECK SIZE X 4'));
    expect(e.checks[0]).toMatchObject({ agrees: false, actual: null });
  });
});
