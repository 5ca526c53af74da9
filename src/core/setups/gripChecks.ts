import { holdingRules } from "../findings/holding";
import { showArea } from "../number";
import { sectionAt } from "../engine/shadow";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { boxInFrame, dot, sideNormal, v2, type Box, type Side } from "../geometry/vec";
import { formOf } from "../job/stockForms";
import { loopBox } from "../outline";
import type { Holding } from "../job/holdings";
import { changed, say, typed, type CheckContext, type Found } from "./finding";
import type { Fix } from "../findings/finding";
import type { EvaluatedPart } from "../evaluate/parts";
import { stationMoved, turnedAlike } from "./fixes/holderFixes";
import { onTop, seenFromPiece, type Lying } from "./lying";
import { middleOf, type StandingSetup, type Work } from "./setup";

/**
 * The grip of jaws, and how it stands to the piece.
 * @param better another way to grip it, with more area
 */
export function gripFindings(
  c: CheckContext,
  standing: StandingSetup,
  grip: number,
  area: number | null,
  withGrip: (text: ReturnType<typeof typed>) => Partial<StandingSetup["setup"]>,
  better: () => Fix | null,
): (Found & { rule: string })[] {
  const whole = standing.box.max.z - standing.box.min.z;
  const above = whole - grip;
  const found: (Found & { rule: string })[] = [];
  const { gripLeast, heightOverGrip, gripAreaLeast } = c.limits;
  const fix = (to: number) => {
    const text = typed(c, to);
    return { label: `grip ${text}`, edits: [changed(c, standing.setup.op, withGrip(text))] };
  };
  if (grip >= whole - CONTACT)
    return [
      {
        rule: holdingRules.refused,
        severity: "stop",
        value: grip,
        limit: whole,
        place: middleOf(standing),
        text: `a grip of ${say(c, grip)} is as deep as the piece is high, ${say(c, whole)}`,
        source: "geometry: piece and grip",
        fix: fix(whole / (1 + heightOverGrip.value)),
      },
    ];
  const need = Math.max(gripLeast.value, above / heightOverGrip.value);
  const isSmall = area !== null && area < gripAreaLeast.value;
  // One grip is offered: what holds enough area is deep enough too.
  const enough = isSmall ? better() : null;
  if (grip < gripLeast.value - CONTACT || above / grip > heightOverGrip.value + CONTACT)
    found.push({
      rule: holdingRules.tooShallow,
      severity: grip < gripLeast.value - CONTACT ? "stop" : "caution",
      value: grip,
      limit: need,
      place: middleOf(standing, grip),
      text: `grip of ${say(c, grip)} holds ${say(c, above)} above the jaws. A qualified person judges clamping at the machine`,
      source: grip < gripLeast.value ? gripLeast.source : heightOverGrip.source,
      fix: enough ? null : fix(gripWanted(c, whole)),
    });
  if (isSmall)
    found.push({
      rule: holdingRules.tooLittle,
      severity: area < CONTACT ? "stop" : "caution",
      value: area,
      limit: gripAreaLeast.value,
      place: middleOf(standing, grip / 2),
      text:
        area < CONTACT
          ? "nothing flat stands opposite itself where the jaws close: they would hold on points or edges"
          : `${showArea(area, c.unit)} of truly opposite flats are held`,
      source: gripAreaLeast.source,
      fix: enough,
    });
  return found;
}

/** The least grip that is deep enough for a piece so high, mm. */
export const gripNeeded = ({ limits: { gripLeast, heightOverGrip } }: CheckContext, whole: number): number =>
  Math.max(gripLeast.value, whole / (1 + heightOverGrip.value));
/** The same as it is offered: rounded up to a twentieth. */
export const gripWanted = (c: CheckContext, whole: number): number => Math.ceil(gripNeeded(c, whole) * 20 + 1) / 20;

/** Stations of a plate: far enough apart, and each the same way round. */
export function stationFindings(
  c: CheckContext,
  stations: Lying[],
  { holder, work }: { holder: EvaluatedPart; work: Work },
  largest: number,
): (Found & { rule: string })[] {
  const found: (Found & { rule: string })[] = [];
  for (let i = 0; i < stations.length; i++)
    for (let k = i + 1; k < stations.length; k++) {
      const [a, b] = [stations[i].box, stations[k].box];
      const gaps = { x: gapAlong("x", a, b), y: gapAlong("y", a, b) };
      const axis = gaps.x >= gaps.y ? "x" : "y";
      const gap = gaps[axis];
      const away = a.min[axis] + a.max[axis] <= b.min[axis] + b.max[axis] ? 1 : -1;
      if (gap < largest - CONTACT)
        found.push({
          rule: "stations-apart",
          severity: gap < 0 ? "stop" : "caution",
          value: gap,
          limit: largest,
          place: seenFromPiece(stations[k], onTop(stations[k], v2(b.min.x, b.min.y))),
          part: holder.name,
          text:
            gap < 0
              ? `stations ${i + 1} and ${k + 1} of "${holder.name}" lie over each other`
              : `${say(c, gap)} between stations ${i + 1} and ${k + 1}: the largest cutter is ⌀${say(c, largest)}`,
          source: "geometry: pieces and cutters",
          fix: stationMoved(c, { holder, work }, stations[k].placement, { [axis]: away * (largest - gap) }),
        });
    }
  return found;
}

/** How far two boxes stand apart along an axis; less than nothing where they lap. */
const gapAlong = (axis: "x" | "y", a: Box, b: Box): number =>
  Math.max(b.min[axis] - a.max[axis], a.min[axis] - b.max[axis]);

/** Jaws that close on faces as they come from the saw hold what is not square. */
export function sawnFindings(
  c: CheckContext,
  standing: StandingSetup,
  hold: Extract<Holding, { across: "x" | "y" }>,
  grip: number,
  work: Work,
): (Found & { rule: string })[] {
  const { across } = hold;
  const gripped = sawnAcross(standing, across, grip, work);
  if (!gripped.length) return [];
  const other = across === "x" ? "y" : "x";
  const isBetter = !sawnAcross(standing, other, grip, work).length;
  const turned = { ...hold, across: other } as Holding;
  return [
    {
      rule: "sawn-grip",
      severity: "note",
      value: gripped.length,
      limit: 0,
      place: middleOf(standing, grip / 2),
      text: `the jaws close on the ${gripped.join(" and the ")} as the saw left it: face it first, or hold it the other way`,
      source: c.limits.sawnAllowance.source,
      fix: isBetter ? acrossFix(c, standing, turned, other) : null,
    },
  ];
}

/** Jaws that close the other way. */
export const acrossFix = (c: CheckContext, { setup }: StandingSetup, hold: Holding, across: "x" | "y"): Fix => ({
  label: `close along ${across.toUpperCase()}`,
  edits: [changed(c, setup.op, { hold })],
});

/** The sides that jaws closing along an axis lie on as they come from the saw. */
function sawnAcross(
  { frame, box, piece }: StandingSetup,
  across: "x" | "y",
  grip: number,
  { kernel, part }: Work,
): Side[] {
  const stock = part.evaluation.stock?.placed;
  // What is gripped: the piece as it is half way up the grip.
  const held = stock && sectionAt(kernel, piece.before, frame, -(box.min.z + grip / 2));
  if (!stock || !held?.ok || !held.value.length) return [];
  const extent = loopBox(held.value.flat());
  const { sawn } = formOf(stock);
  const way = frame[across];
  return sawn.filter((side) => {
    const n = sideNormal(side);
    if (Math.abs(dot(n, way)) < PARALLEL) return false;
    const at = boxInFrame(frame, stock.box);
    const end = dot(n, way) > 0 ? "max" : "min";
    return Math.abs(at[end][across] - extent[end][across]) < CONTACT;
  });
}

/** Every station of a plate has its piece the same way round: one datum serves them all. */
export function datumFindings(stations: Lying[], holder: EvaluatedPart): (Found & { rule: string })[] {
  const [first, ...more] = stations;
  const turned = more.filter(
    (s) => s.placement.setup === first.placement.setup && dot(s.frame.x, first.frame.x) < PARALLEL,
  );
  if (!turned.length) return [];
  return [
    {
      rule: "datum-same",
      severity: "caution",
      value: turned.length,
      limit: 0,
      place: seenFromPiece(turned[0], onTop(turned[0])),
      part: holder.name,
      text: `${turned.length} of the ${stations.length} stations of "${holder.name}" have the piece another way round: their datum is another one`,
      source: "geometry: stations",
      fix: turnedAlike(
        { holder },
        first.placement,
        turned.map((s) => s.placement),
      ),
    },
  ];
}

/** A nest is as deep as the grip of its setup says. */
export function nestDepthFindings(
  c: CheckContext,
  standing: StandingSetup,
  hold: Extract<Holding, { fixture: "jaws" }>,
  grip: number,
  stations: Lying[],
): (Found & { rule: string })[] {
  return stations.flatMap(({ box, holderBox }): (Found & { rule: string })[] => {
    const depth = holderBox.max.z - box.min.z;
    if (Math.abs(depth - grip) <= CONTACT) return [];
    const text = typed(c, depth);
    return [
      {
        rule: "nest-depth",
        severity: "caution",
        value: depth,
        limit: grip,
        place: middleOf(standing),
        part: hold.part,
        text: `the piece stands ${say(c, depth)} deep in "${hold.part}", and the grip says ${say(c, grip)}`,
        source: "geometry: piece and holder",
        ...(depth > CONTACT
          ? {
              fix: { label: `grip ${text}`, edits: [changed(c, standing.setup.op, { hold: { ...hold, grip: text } })] },
            }
          : {}),
      },
    ];
  });
}
