/** Small parts made by chance, each written in two ways that make the same solid: all that is printed is true of both. */
export interface SmallPart {
  balloons: string[];
  lines: string[];
  /** The same part: other places for patterns, outlines for rows, another order, another datum. */
  twin: string[];
}
type Random = () => number;

/** A stream of numbers from 0 to 1 that a seed decides (mulberry32, public domain). */
export function seeded(seed: number): Random {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A plate with features in places of their own; balloons are numbered as they come. */
export function smallPart(seed: number): SmallPart {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const balloons: string[] = [];
  const put = (text: string): string => {
    balloons.push(`#${balloons.length + 1} ${text}`);
    return `#${balloons.length}`;
  };
  const [l, w, h] = [put(`${whole(110, 130)}`), put(`${whole(80, 95)}`), put(`${whole(18, 30)}`)];
  const r = put(`4X R${whole(4, 7)}`);
  const lines = [`LEAVE BLOCK ${l} X ${w} X ${h} R${r}`];
  const twin = ['OUTLINE "plate"', `RECTANGLE ${l} X ${w} R${r}`, "END", `LEAVE PRISM "plate" X ${h}`];
  const features = [pocket, hole, bored, threads, slot, turned, ring, boss].filter(() => random() < 0.6);
  const places = [-36, -12, 12, 36].flatMap((x) => [-20, 20].map((y): [number, number] => [x, y]));
  const made = features.map((f, i) => f(places[i], whole, put, lines.length + i));
  // The second way has them in another order; what stands higher than the plate is last in both.
  const [own, other] = [made.map((m) => m.rows), made.map((m) => m.twin)];
  const isBoss = features[features.length - 1] === boss;
  const inTurn = isBoss ? [...other.slice(0, -1).reverse(), other[other.length - 1]] : [...other].reverse();
  return { balloons, lines: [...lines, ...own.flat()], twin: [...twin, ...inTurn.flat()] };
}

type Whole = (from: number, to: number) => number;
type Put = (text: string) => string;
type Feature = (at: [number, number], whole: Whole, put: Put, row: number) => { rows: string[]; twin: string[] };

const pocket: Feature = ([x, y], whole, put) => {
  const [a, b, d, r] = [
    put(`${whole(18, 24)}`),
    put(`${whole(12, 16)}`),
    put(`${whole(4, 9)} DEEP`),
    put(`4X R${whole(2, 4)}`),
  ];
  return {
    rows: [`CUT POCKET ${a} X ${b} R${r} DEEP ${d} AT ${x},${y}`],
    twin: [
      `OUTLINE "well ${x}"`,
      `RECTANGLE ${a} X ${b} R${r} AT ${x},${y}`,
      "END",
      `CUT POCKET "well ${x}" DEEP ${d}`,
    ],
  };
};
const hole: Feature = ([x, y], whole, put) => {
  const n = 2 * whole(2, 3);
  const [d, c] = [put(`${n}X ⌀${whole(2, 3)}`), put(`⌀${whole(14, 18)}`)];
  const places = Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n;
    return `(${x}+${c}/2*${Math.cos(a).toFixed(12)}),(${y}+${c}/2*${Math.sin(a).toFixed(12)})`;
  });
  return {
    rows: [`CUT ${n}X ${d} THRU ON BC ${c} AT ${x},${y}`],
    twin: [`CUT ${n}X ${d} THRU AT ${places.join(" ")}`],
  };
};
const bored: Feature = ([x, y], whole, put) => {
  const [d, c, e] = [put(`⌀${whole(5, 7)}`), put(`⌀${whole(10, 13)}`), put(`${whole(3, 6)} DEEP`)];
  return {
    rows: [`CUT ${d} THRU CBORE ${c} DEEP ${e} AT ${x},${y}`],
    twin: [`CUT ${d} THRU AT ${x},${y}`, `CUT POCKET ${c} DEEP ${e} AT ${x},${y}`],
  };
};
const threads: Feature = ([x, y], whole, put) => {
  const [, p, d] = [put("2X M5-6H"), put(`${whole(12, 16)}`), put(`${whole(8, 9)} DEEP`)];
  const row = `2X M5-6H DEEP ${d} DRILL DEEP 13!`;
  return {
    rows: [`CUT ${row} LINE 2 BY ${p} AT ${x}-${p}/2,${y}`],
    twin: [`CUT ${row} AT ${x}-${p}/2,${y} ${x}+${p}/2,${y}`],
  };
};
const slot: Feature = ([x, y], whole, put) => {
  const [c, w, d] = [put(`${whole(14, 18)} "C TO C"`), put(`${whole(4, 6)}`), put(`${whole(3, 6)} DEEP`)];
  return {
    rows: [`CUT SLOT CENTRES ${c} X ${w} DEEP ${d} AT ${x},${y}`],
    twin: [`CUT SLOT (${c}+${w}) X ${w} DEEP ${d} AT ${x},${y}`],
  };
};
const turned: Feature = ([x, y], whole, put) => {
  const [a, b, t] = [put(`${whole(16, 18)}`), put(`${whole(7, 9)}`), put(`${whole(20, 40)}.25°`)];
  return {
    rows: [`CUT POCKET ${a} X ${b} R1.5! DEEP 3! TURN ${t} AT ${x},${y}`],
    twin: [`CUT POCKET ${b} X ${a} R1.5! DEEP 3! TURN (${t}+90) AT ${x},${y}`],
  };
};
const ring: Feature = ([x, y], whole, put) => {
  const [o, i, d] = [put(`⌀${whole(14, 17)}`), put(`⌀${whole(8, 10)}`), put(`${whole(2, 3)} DEEP`)];
  return {
    rows: [`CUT GROOVE OD ${o} ID ${i} DEEP ${d} AT ${x},${y}`],
    twin: [
      `OUTLINE "ring ${x}"`,
      `CIRCLE ${o} AT ${x},${y}`,
      `CUTOUT "core ${x}"`,
      "END",
      `OUTLINE "core ${x}"`,
      `CIRCLE ${i} AT ${x},${y}`,
      "END",
      `CUT POCKET "ring ${x}" DEEP ${d}`,
    ],
  };
};
const boss: Feature = ([x, y], whole, put) => {
  const [d, h] = [put(`⌀${whole(9, 13)}`), put(`${whole(4, 8)}`)];
  return {
    rows: [`LEAVE ROUND ${d} X ${h} ON TOP OF 1 AT ${x},${y}`],
    twin: [`OUTLINE "boss ${x}"`, `CIRCLE ${d} AT ${x},${y}`, "END", `LEAVE PRISM "boss ${x}" X ${h} ON TOP OF 1`],
  };
};
