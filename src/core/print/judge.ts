import type { SolvedRow } from "../engine/solve";
import type { Balloon } from "../job/schema";
import type { Dimension, Dimensions } from "./dimension";
import type { Draft } from "./ledger";
import { inside, type Limits } from "./limits";
import { CONTACT } from "../geometry/tolerance";

/** What a kind of balloon can be on the solid. */
const families: Record<Balloon["kind"], Dimension["family"][]> = {
  linear: ["distance", "depth", "leg", "diameter", "radius", "boltCircle"],
  diameter: ["diameter", "boltCircle"],
  radius: ["radius"],
  angle: ["angle"],
  depth: ["depth"],
  chamfer: ["leg", "distance"],
  count: [],
  thread: [],
};
/**
 * Families that are a size by themselves: where such a one is a multiple of the print's, the print's is used
 * wrongly.
 */
const sizes: Dimension["family"][] = ["diameter", "radius", "angle", "depth", "leg"];

const SLOPE = 2e-3;
const near = (a: number, b: number) => Math.abs(a - b) < SLOPE;

/** What became of a balloon in one number that it alone makes. */
type Verdict = { is: "agrees"; by: Dimension } | { is: "half" } | { is: "off"; by: Dimension } | { is: "silent" };

/**
 * Judges a dimension by the solid: for every number that it alone makes, a measurement that is this dimension has to
 * agree.
 * One that is and does not is off; where nothing is, the balloon drives and says why it could not be measured.
 */
export function judge(
  b: Balloon,
  own: Omit<Draft, "state">,
  limits: Limits,
  rows: SolvedRow[],
  finder: Dimensions,
): Draft {
  const all = finder.of(b).filter((d) => families[b.kind].includes(d.family));
  const mine = all.filter((d) => near(d.slope, 1) && d.alone());
  const verdicts = finder
    .uses(b, rows)
    .map((u) =>
      verdict(
        b,
        (d) => (u.row === null || d.rows.includes(u.row)) && (u.ids === null || d.of.some((o) => u.ids!.has(o.id))),
        mine,
        all,
        limits,
      ),
    );
  const off = verdicts.flatMap((v) => (v.is === "off" ? [v.by] : []));
  if (off.length) return told(own, "off", nearest(off, limits), limits);
  // A number is made from it, and nothing that number sizes is on the solid, or is the dimension or half of it.
  const unlike = verdicts.some((v) => v.is === "silent");
  const agreeing = mine.filter((d) => inside(d.value, limits));
  if (mine.length && !agreeing.length && !unlike) return told(own, "off", nearest(mine, limits), limits);
  if (agreeing.length && !unlike) return told(own, "proved", plainest(agreeing), limits);
  return { ...own, state: "drives", by: whyNot(all, unlike) };
}

function verdict(
  b: Balloon,
  touches: (d: Dimension) => boolean,
  mine: Dimension[],
  all: Dimension[],
  limits: Limits,
): Verdict {
  const here = mine.filter(touches);
  const agreeing = here.filter((d) => inside(d.value, limits));
  if (agreeing.length) return { is: "agrees", by: plainest(agreeing) };
  const half = { nominal: limits.nominal / 2, low: limits.low / 2, high: limits.high / 2 };
  const others = all.filter(touches);
  // Half of a size that is there is its middle; half of a place is another place.
  const sized = mine.some((d) => d.family === "distance" && !d.centred && d.of.length === 2 && inside(d.value, limits));
  if (
    sized &&
    others.some(
      (d) => d.centred && d.family === "distance" && near(Math.abs(d.slope), 0.5) && inside(d.value, half) && d.alone(),
    )
  )
    return { is: "half" };
  if (here.length) return { is: "off", by: nearest(here, limits) };
  const wrong =
    b.kind === "linear" ? [] : others.filter((d) => sizes.includes(d.family) && d.of.length === 1 && d.alone());
  if (wrong.length) return { is: "off", by: nearest(wrong, limits) };
  return { is: "silent" };
}

const nearest = (list: Dimension[], l: Limits): Dimension =>
  list.reduce((x, y) => (Math.abs(y.value - l.nominal) < Math.abs(x.value - l.nominal) ? y : x));
/** The one that takes the fewest faces and rows. */
const plainest = (list: Dimension[]): Dimension => list.reduce((x, y) => (cost(y) < cost(x) ? y : x));
const cost = (d: Dimension): number => d.of.length + 4 * d.rows.length + (d.of.some((o) => !o.whole) ? 2 : 0);

function told(own: Omit<Draft, "state">, state: "proved" | "off", d: Dimension, l: Limits): Draft {
  // A fit such as f7 leaves the nominal outside its own limits.
  const atNominal =
    state === "off" && (l.nominal < l.low || l.nominal > l.high) && Math.abs(d.value - l.nominal) < CONTACT;
  return {
    ...own,
    state,
    measured: d.value,
    by: `${d.words}, ${d.rowWords}${atNominal ? ", at the nominal: outside its limits; MID models their middle" : ""}`,
    on: d.rows,
  };
}

function whyNot(all: Dimension[], unlike: boolean): string {
  const pick = "pick on the stage what it measures";
  if (unlike) return `a number made from it leaves nothing on the solid that is this dimension; ${pick}`;
  if (!all.length) return `nothing on the solid to measure it on: what it sizes is gone or cut away; ${pick}`;
  return all.some((d) => d.alone())
    ? `only a part of it can be measured; ${pick}`
    : `it is measured only together with other dimensions; ${pick}`;
}
