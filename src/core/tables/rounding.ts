/** Rounded to so many decimals, a half away from nothing; what binary fractions leave over does not count. */
export function roundTo(value: number, decimals: number): number {
  const scale = 10 ** decimals;
  return (Math.sign(value) * Math.round(Math.abs(value) * scale + 1e-7)) / scale;
}

/** The R 40 series of preferred numbers, ISO 3: one decade. */
const R40 = [
  1, 1.06, 1.12, 1.18, 1.25, 1.32, 1.4, 1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.12, 2.24, 2.36, 2.5, 2.65, 2.8, 3, 3.15, 3.35,
  3.55, 3.75, 4, 4.25, 4.5, 4.75, 5, 5.3, 5.6, 6, 6.3, 6.7, 7.1, 7.5, 8, 8.5, 9, 9.5,
];
const term = (index: number): number =>
  R40[((index % R40.length) + R40.length) % R40.length] * 10 ** Math.floor(index / R40.length);

/** Where in the R 40 series the term stands that is nearest. */
function indexOf(value: number): number {
  const near = Math.round(R40.length * Math.log10(value));
  const off = (i: number) => Math.abs(term(i) - value);
  return [near - 1, near, near + 1].reduce((best, i) => (off(i) < off(best) ? i : best));
}

/**
 * The preferred number nearest to a value and so many steps of R 40 away, in whole units: a half goes to the even one,
 * as thread tolerances are printed (42.5 as 42, 37.5 as 38).
 */
export function preferredNumber(value: number, steps = 0): number {
  const t = term(indexOf(value) + steps);
  const floor = Math.floor(t + 1e-9);
  const isHalf = Math.abs(t - floor - 0.5) < 1e-9;
  return isHalf ? floor + (floor % 2) : Math.round(t);
}
