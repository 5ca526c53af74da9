import { holdingRules } from "../findings/holding";
import { showArea } from "../number";
import { sectionAt } from "../engine/shadow";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { boxInFrame, dot, sideNormal } from "../geometry/vec";
import { formOf } from "../job/stockForms";
import { loopBox } from "../outline";
import type { Holding } from "../job/holdings";
import { changed, say, typed, type CheckContext, type Found } from "./finding";
import type { Lying } from "./lying";
import type { StandingSetup, Work } from "./setup";

/** The grip of jaws, and how it stands to the piece. */
export function gripFindings(
  c: CheckContext,
  standing: StandingSetup,
  grip: number,
  area: number | null,
  withGrip: (text: ReturnType<typeof typed>) => Partial<StandingSetup["setup"]>,
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
        place: null,
        text: `a grip of ${say(c, grip)} is as deep as the piece is high, ${say(c, whole)}`,
        source: "geometry: piece and grip",
        fix: fix(whole / (1 + heightOverGrip.value)),
      },
    ];
  const need = Math.max(gripLeast.value, above / heightOverGrip.value);
  if (grip < gripLeast.value - CONTACT || above / grip > heightOverGrip.value + CONTACT)
    found.push({
      rule: holdingRules.tooShallow,
      severity: grip < gripLeast.value - CONTACT ? "stop" : "caution",
      value: grip,
      limit: need,
      place: null,
      text: `grip of ${say(c, grip)} holds ${say(c, above)} above the jaws. A qualified person judges clamping at the machine`,
      source: grip < gripLeast.value ? gripLeast.source : heightOverGrip.source,
      fix: fix(Math.ceil(Math.max(gripLeast.value, whole / (1 + heightOverGrip.value)) * 20 + 1) / 20),
    });
  if (area !== null && area < gripAreaLeast.value)
    found.push({
      rule: "grip-area",
      severity: area < CONTACT ? "stop" : "caution",
      value: area,
      limit: gripAreaLeast.value,
      place: null,
      text:
        area < CONTACT
          ? "nothing flat stands opposite itself where the jaws close: they would hold on points or edges"
          : `${showArea(area, c.unit)} of truly opposite flats are held`,
      source: gripAreaLeast.source,
    });
  return found;
}

/** Stations of a plate: far enough apart, and each the same way round. */
export function stationFindings(
  c: CheckContext,
  stations: Lying[],
  part: string,
  largest: number,
): (Found & { rule: string })[] {
  const found: (Found & { rule: string })[] = [];
  for (let i = 0; i < stations.length; i++)
    for (let k = i + 1; k < stations.length; k++) {
      const [a, b] = [stations[i].box, stations[k].box];
      const gap = Math.max(b.min.x - a.max.x, a.min.x - b.max.x, b.min.y - a.max.y, a.min.y - b.max.y);
      if (gap < largest - CONTACT)
        found.push({
          rule: "stations-apart",
          severity: gap < 0 ? "stop" : "caution",
          value: gap,
          limit: largest,
          place: null,
          part,
          text:
            gap < 0
              ? `stations ${i + 1} and ${k + 1} of "${part}" lie over each other`
              : `${say(c, gap)} between stations ${i + 1} and ${k + 1}: the largest cutter is ⌀${say(c, largest)}`,
          source: "geometry: pieces and cutters",
        });
    }
  return found;
}

/** Jaws that close on faces as they come from the saw hold what is not square. */
export function sawnFindings(
  c: CheckContext,
  { frame, box, piece }: StandingSetup,
  across: "x" | "y",
  grip: number,
  { kernel, part }: Work,
): (Found & { rule: string })[] {
  const stock = part.evaluation.stock?.placed;
  // What is gripped: the piece as it is half way up the grip.
  const held = stock && sectionAt(kernel, piece.before, frame, -(box.min.z + grip / 2));
  if (!stock || !held?.ok || !held.value.length) return [];
  const extent = loopBox(held.value.flat());
  const { sawn } = formOf(stock);
  const way = frame[across];
  const gripped = sawn.filter((side) => {
    const n = sideNormal(side);
    if (Math.abs(dot(n, way)) < PARALLEL) return false;
    const at = boxInFrame(frame, stock.box);
    const end = dot(n, way) > 0 ? "max" : "min";
    return Math.abs(at[end][across] - extent[end][across]) < CONTACT;
  });
  if (!gripped.length) return [];
  return [
    {
      rule: "sawn-grip",
      severity: "note",
      value: gripped.length,
      limit: 0,
      place: null,
      text: `the jaws close on the ${gripped.join(" and the ")} as the saw left it: face it first, or hold it the other way`,
      source: c.limits.sawnAllowance.source,
    },
  ];
}

/** Every station of a plate has its piece the same way round: one datum serves them all. */
export function datumFindings(stations: Lying[], part: string): (Found & { rule: string })[] {
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
      place: null,
      part,
      text: `${turned.length} of the ${stations.length} stations of "${part}" have the piece another way round: their datum is another one`,
      source: "geometry: stations",
    },
  ];
}

/** A nest is as deep as the grip of its setup says. */
export function nestDepthFindings(
  c: CheckContext,
  { setup }: StandingSetup,
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
        place: null,
        part: hold.part,
        text: `the piece stands ${say(c, depth)} deep in "${hold.part}", and the grip says ${say(c, grip)}`,
        source: "geometry: piece and holder",
        ...(depth > CONTACT
          ? { fix: { label: `grip ${text}`, edits: [changed(c, setup.op, { hold: { ...hold, grip: text } })] } }
          : {}),
      },
    ];
  });
}
