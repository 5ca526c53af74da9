import { COINCIDENT } from "../../geometry/tolerance";

const none: readonly number[] = [];

/**
 * A number with its derivatives by an equation's own unknowns, in their order: forward differentiation, exact to the
 * last digit. @source L. B. Rall, Automatic Differentiation, 1981, from memory
 */
export class Dual {
  constructor(
    readonly value: number,
    readonly by: readonly number[] = none,
  ) {}
  plus(o: Dual): Dual {
    return chained(this.value + o.value, this, 1, o, 1);
  }
  minus(o: Dual): Dual {
    return chained(this.value - o.value, this, 1, o, -1);
  }
  times(o: Dual): Dual {
    return chained(this.value * o.value, this, o.value, o, this.value);
  }
  over(o: Dual): Dual {
    return chained(this.value / o.value, this, 1 / o.value, o, -this.value / o.value ** 2);
  }
  scaled(k: number): Dual {
    return chained(this.value * k, this, k, zero, 0);
  }
  /** A constant added. */
  shifted(k: number): Dual {
    return new Dual(this.value + k, this.by);
  }
}

/** A function of two numbers by the chain rule: its value, and how it goes with each. */
function chained(value: number, a: Dual, withA: number, b: Dual, withB: number): Dual {
  const [p, q] = [a.by, b.by];
  const by: number[] = [];
  if (q.length === 0) for (const d of p) by.push(d * withA);
  else if (p.length === 0) for (const d of q) by.push(d * withB);
  else for (let i = 0; i < p.length; i++) by.push(p[i] * withA + q[i] * withB);
  return by.length ? new Dual(value, by) : new Dual(value);
}
const zero = new Dual(0);

/** √(x² + y²); of two in one place nothing is known but that it is no length. */
export function hypot(x: Dual, y: Dual): Dual {
  const l = Math.hypot(x.value, y.value);
  return l === 0 ? new Dual(0) : chained(l, x, x.value / l, y, y.value / l);
}

/** Angle of the direction x, y, radians. */
export function atan2(y: Dual, x: Dual): Dual {
  const square = x.value ** 2 + y.value ** 2;
  const angle = Math.atan2(y.value, x.value);
  return square === 0 ? new Dual(angle) : chained(angle, y, x.value / square, x, -y.value / square);
}

export const least = (a: Dual, b: Dual): Dual => (b.value < a.value ? b : a);
/** The same, and never zero: what is divided by. */
export const notZero = (a: Dual): Dual => (a.value === 0 ? new Dual(COINCIDENT) : a);

/** The unknowns of an outline as an equation looks at them; without `vars` their derivatives are left out. */
export class Unknowns {
  constructor(
    private readonly v: Float64Array,
    private readonly vars: readonly number[] | null = null,
  ) {}
  at(i: number): Dual {
    return this.vars ? new Dual(this.v[i], basis(this.vars.length)[this.vars.indexOf(i)]) : new Dual(this.v[i]);
  }
}

const bases: (readonly number[])[][] = [];
/** The derivatives of n unknowns by themselves; made once for every n. */
const basis = (n: number): (readonly number[])[] =>
  (bases[n] ??= Array.from({ length: n }, (_, k) => Array.from({ length: n }, (_, i) => (i === k ? 1 : 0))));
