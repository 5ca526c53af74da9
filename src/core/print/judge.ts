import { keyOf } from "../base/key";
import type { SolvedRow } from "../engine/solve";
import type { Box } from "../geometry/vec";
import type { Balloon } from "../job/schema";
import { claimed, deciding, type Claim } from "./claims";
import type { Dimension, Dimensions } from "./dimension";
import type { Use } from "./dimension/moves";
import type { Draft } from "./ledger";
import { inside, type Limits } from "./limits";
import { CIRCLE_OF_HOLES, wordsOf, type Word } from "./words";
import { CONTACT } from "../geometry/tolerance";

/** What a kind of balloon can be on the solid. A number without a sign is a length or a diameter, never a radius. */
const families: Record<Balloon["kind"], Dimension["family"][]> = {
  linear: ["distance", "depth", "leg", "diameter", "boltCircle"],
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
type Verdict =
  { is: "agrees"; by: Dimension } | { is: "half"; by: Dimension } | { is: "off"; by: Dimension } | { is: "silent" };

/** All that answers to a balloon: every measurement of its kind, and those that are the dimension, as its words say. */
interface Answers {
  all: Dimension[];
  mine: Dimension[];
  limits: Limits;
  kind: Balloon["kind"];
}

/**
 * What a dimension claims by its value, its kind and its words: for every number that it alone makes, a measurement
 * that is this dimension has to agree. One that is and does not is false; where nothing is, it was not examined.
 * @param part the box of the finished part, which words such as OVER ALL are held to
 */
export function judge(
  b: Balloon,
  own: Omit<Draft, "state">,
  limits: Limits,
  rows: SolvedRow[],
  finder: Dimensions,
  part: Box,
): Draft {
  const all = finder.of(b).filter((d) => families[b.kind].includes(d.family) && isAsOften(b, d));
  const answering = all.filter((d) => near(d.slope, 1) && d.alone());
  const words = wordsOf(b);
  const known = words.filter((w) => w.means !== "unknown");
  const mine = answering.filter((d) => known.every((w) => means(w, d, part)));
  const answers: Answers = { all, mine, limits, kind: b.kind };
  const each = finder.uses(b, rows).map((use) => ({ use, verdict: verdict(use, answers) }));
  // A place that was worked out with it and says nothing is no claim of it, where another use is.
  const isAside = ({ use, verdict: v }: (typeof each)[number]) => v.is === "silent" && use.mixed;
  const verdicts = each.every(isAside) ? each : each.filter((x) => !isAside(x));
  const claims = [
    ...(verdicts.length
      ? verdicts.map(({ use, verdict: v }) => valueClaim(use, v, limits, finder))
      : [wholeClaim(answers, finder)]),
    ...words.flatMap((w) => wordClaim(w, answering, part, limits)),
  ];
  return told(
    own,
    claims,
    verdicts.map((v) => v.verdict),
    answers,
    finder,
  );
}

/** `4X ⌀5` is four holes; a circle they stand on is printed once, or says that it is one. */
const isAsOften = (b: Balloon, d: Dimension): boolean =>
  d.family !== "boltCircle" || b.count === undefined || wordsOf(b).some((w) => w.says === CIRCLE_OF_HOLES);

const means = (w: Word, d: Dimension, part: Box): boolean => w.means === "unknown" || w.means(d, part);

/** A claim that words make: false where what agrees with the value is another thing. */
function wordClaim(w: Word, answering: Dimension[], part: Box, limits: Limits): Claim[] {
  const claim = (state: Claim["state"], by: string): Claim[] => [{ of: "words", says: w.says, state, by, on: [] }];
  if (w.means === "unknown") return claim("unexamined", "the model does not know which face that is");
  const agreeing = answering.filter((d) => inside(d.value, limits));
  const meant = agreeing.find((d) => means(w, d, part));
  if (meant) return claim("true", meant.words);
  return agreeing.length
    ? claim("false", `what is so large is ${plainest(agreeing).words}`)
    : claim("unexamined", "nothing like it was found on the solid");
}

function valueClaim(use: Use, v: Verdict, limits: Limits, finder: Dimensions): Claim {
  const row = use.row === null ? null : finder.rowNumber(use.row);
  const says = row === null ? "its value" : `its value in row ${row}`;
  const base = { of: "value" as const, says };
  switch (v.is) {
    case "agrees":
      return { ...base, state: "true", by: `${v.by.words}, ${v.by.rowWords}`, on: finder.facesOf(v.by) };
    case "half":
      return { ...base, state: "true", by: `half of it, ${v.by.words}`, on: finder.facesOf(v.by) };
    case "off":
      return { ...base, state: "false", by: offWords(v.by, limits), on: finder.facesOf(v.by) };
    case "silent":
      return {
        ...base,
        state: "unexamined",
        by: "a number made from it leaves nothing on the solid that is this dimension",
        on: [],
      };
  }
}

/** The value where no number is made from the balloon alone: what answers to it anywhere. */
function wholeClaim({ all, mine, limits }: Answers, finder: Dimensions): Claim {
  const base = { of: "value" as const, says: "its value" };
  const agreeing = mine.filter((d) => inside(d.value, limits));
  if (agreeing.length) {
    const d = plainest(agreeing);
    return { ...base, state: "true", by: `${d.words}, ${d.rowWords}`, on: finder.facesOf(d) };
  }
  if (mine.length) {
    const d = nearest(mine, limits);
    return { ...base, state: "false", by: offWords(d, limits), on: finder.facesOf(d) };
  }
  return { ...base, state: "unexamined", by: whyNot(all), on: [] };
}

function verdict(use: Use, { all, mine, limits, kind }: Answers): Verdict {
  const touches = (d: Dimension) =>
    (use.row === null || d.rows.includes(use.row)) && (use.moved === null || d.answersTo(use.moved));
  const here = mine.filter(touches);
  const agreeing = here.filter((d) => inside(d.value, limits));
  if (agreeing.length) return { is: "agrees", by: plainest(agreeing) };
  const half = { nominal: limits.nominal / 2, low: limits.low / 2, high: limits.high / 2 };
  const others = all.filter(touches);
  // Half of a size that is there is its middle; half of a place is another place.
  const sized = mine.some((d) => d.family === "distance" && !d.centred && d.of.length === 2 && inside(d.value, limits));
  const middle =
    sized &&
    others.find(
      (d) => d.centred && d.family === "distance" && near(Math.abs(d.slope), 0.5) && inside(d.value, half) && d.alone(),
    );
  if (middle) return { is: "half", by: middle };
  if (use.relative) return { is: "silent" };
  const telling = here.filter((d) => !onlyAgree.has(d.between));
  if (telling.length) return { is: "off", by: nearest(telling, limits) };
  const wrong = others.filter((d) => (kind === "linear" ? isOwnWidth(d) : isOwnSize(d)) && d.alone());
  return wrong.length ? { is: "off", by: nearest(wrong, limits) } : { is: "silent" };
}

/** A size by itself, of one surface or of a depth below its mouth. */
const isOwnSize = ({ family, of, between }: Dimension): boolean =>
  sizes.includes(family) && (of.length === 1 || between === "mouth");

/** What is measured so is sometimes what a print means; where it does not agree it says nothing. */
const onlyAgree = new Set<Dimension["between"]>(["rounds", "overRounds", "overRound"]);

/** Between the two walls of one body, twice as wide as the number or half: a number that was meant to be its width. */
const isOwnWidth = ({ of, between, family, slope }: Dimension): boolean =>
  family === "distance" &&
  between === "flats" &&
  of.length === 2 &&
  of[0].row === of[1].row &&
  of[0].instance === of[1].instance &&
  of.every((o) => o.role === "wall") &&
  (near(Math.abs(slope), 2) || near(Math.abs(slope), 0.5));

const nearest = (list: Dimension[], l: Limits): Dimension =>
  list.reduce((x, y) => (Math.abs(y.value - l.nominal) < Math.abs(x.value - l.nominal) ? y : x));
/** The one that takes the fewest faces and rows. */
const plainest = (list: Dimension[]): Dimension => list.reduce((x, y) => (cost(y) < cost(x) ? y : x));
const cost = (d: Dimension): number => d.of.length + 4 * d.rows.length + (d.of.some((o) => !o.whole) ? 2 : 0);

function offWords(d: Dimension, l: Limits): string {
  // A fit such as f7 leaves the nominal outside its own limits.
  const atNominal = (l.nominal < l.low || l.nominal > l.high) && Math.abs(d.value - l.nominal) < CONTACT;
  return `${d.words}, ${d.rowWords}${atNominal ? ", at the nominal: outside its limits; MID models their middle" : ""}`;
}

/** The draft with its claims, and the measurement that stands for them. */
function told(own: Omit<Draft, "state">, claims: Claim[], verdicts: Verdict[], a: Answers, finder: Dimensions): Draft {
  const state = claimed(claims);
  const off = verdicts.flatMap((v) => (v.is === "off" ? [v.by] : []));
  const agreeing = a.mine.filter((d) => inside(d.value, a.limits));
  const d = off.length
    ? nearest(off, a.limits)
    : agreeing.length && state !== "drives"
      ? plainest(agreeing)
      : state === "off" && a.mine.length
        ? nearest(a.mine, a.limits)
        : null;
  const reason = deciding(claims);
  return {
    ...own,
    state,
    claims: once(claims),
    measured: d?.value ?? null,
    by: state === "proved" ? `${d!.words}, ${d!.rowWords}` : reasonWords(reason, state),
    on: d ? finder.rowsOfDimension(d) : [],
  };
}

const PICK = "pick on the stage what it measures";
const reasonWords = (c: Claim | undefined, state: string): string =>
  c === undefined ? "" : state === "drives" ? `${c.by}; ${PICK}` : c.of === "value" ? c.by : `${c.says}: ${c.by}`;

/** Claims that say the same are said once. */
const once = (claims: Claim[]): Claim[] => [
  ...new Map(claims.map((c) => [keyOf(null, [c.says, c.state, c.by]), c])).values(),
];

function whyNot(all: Dimension[]): string {
  if (!all.length) return "nothing on the solid to measure it on: what it sizes is gone or cut away";
  return all.some((d) => d.alone())
    ? "only a part of it can be measured"
    : "it is measured only together with other dimensions";
}
