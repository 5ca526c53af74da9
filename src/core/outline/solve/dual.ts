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
    return new Dual(
      this.value * k,
      this.by.map((d) => d * k),
    );
  }
  /** A constant added. */
  shifted(k: number): Dual {
    return new Dual(this.value + k, this.by);
  }
}

/** A function of two numbers by the chain rule: its value, and how it goes with each. */
function chained(value: number, a: Dual, withA: number, b: Dual, withB: number): Dual {
  const n = Math.max(a.by.length, b.by.length);
  if (n === 0) return new Dual(value);
  const by = new Array<number>(n);
  for (let i = 0; i < n; i++) by[i] = (a.by[i] ?? 0) * withA + (b.by[i] ?? 0) * withB;
  return new Dual(value, by);
}

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
    if (!this.vars) return new Dual(this.v[i]);
    const by = new Array<number>(this.vars.length).fill(0);
    by[this.vars.indexOf(i)] = 1;
    return new Dual(this.v[i], by);
  }
}
