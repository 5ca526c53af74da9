import { holdingRules } from "../findings/holding";
import { valueOf } from "../engine/numbers";
import type { SolidKernel } from "../engine/kernel";
import { CONTACT } from "../geometry/tolerance";
import type { Holding } from "../job/holdings";
import { changed, say, typed, type CheckContext, type Found } from "./finding";
import { axisOfBox, type RoundGrip } from "./grip";
import type { Fix } from "../findings/finding";
import type { EvaluatedPart } from "../evaluate/parts";
import { unitOf } from "../number";
import { extentAlong, resized } from "./fixes/growing";
import { middleOf, type StandingSetup, type Work } from "./setup";

type Chuck = Extract<Holding, { fixture: "chuck" | "index" }>;

type Rule = Found & { rule: string };
/** A setup in a chuck, with what is gripped. */
interface Chucked {
  c: CheckContext;
  standing: StandingSetup;
  hold: Chuck;
  grip: number;
  round: RoundGrip;
}

/** What a chuck holds: a true round, long enough, not too far out of it, and thick enough for its pressure. */
export function chuckFindings(
  c: CheckContext,
  standing: StandingSetup,
  work: Work,
  hold: Chuck,
  grip: number,
  round: RoundGrip | null,
  bored: number | null,
  jaws: EvaluatedPart | null,
): Rule[] {
  const whole = standing.box.max.z - standing.box.min.z;
  if (grip >= whole - CONTACT) return [tooLong(c, standing, hold, grip, whole)];
  if (!round)
    return [
      {
        place: middleOf(standing, grip / 2),
        rule: "grip-area",
        severity: "stop",
        value: 0,
        limit: c.limits.gripAreaLeast.value,
        text: "nothing round, and no three flats even about the chuck's axis, stand where it grips",
        source: "geometry: piece and chuck",
      },
    ];
  const chucked: Chucked = { c, standing, hold, grip, round };
  return [
    ...overhang(chucked, whole),
    ...thinRing(chucked, ringWallOf(work, standing, round.radius)),
    ...stroke(chucked, bored, jaws),
    ...stopDepth(chucked, work),
  ];
}

function tooLong(c: CheckContext, standing: StandingSetup, hold: Chuck, grip: number, whole: number): Rule {
  const third = typed(c, whole / 3);
  return {
    place: middleOf(standing),
    rule: holdingRules.refused,
    severity: "stop",
    value: grip,
    limit: whole,
    text: `a grip of ${say(c, grip)} is as long as the piece, ${say(c, whole)}`,
    source: "geometry: piece and grip",
    fix: { label: `grip ${third}`, edits: [changed(c, standing.setup.op, { hold: { ...hold, grip: third } })] },
  };
}

function overhang({ c, standing, hold, grip, round }: Chucked, whole: number): Rule[] {
  const out = whole - grip;
  const { overhangTailstock: tail, overhangSteady: steady } = c.limits;
  const ratio = out / (2 * round.radius);
  if (ratio <= tail.value + CONTACT) return [];
  const isFar = ratio > steady.value;
  return [
    {
      place: middleOf(standing, whole),
      rule: "overhang",
      severity: isFar ? "stop" : "caution",
      value: ratio,
      limit: isFar ? steady.value : tail.value,
      text: `${ratio.toFixed(1)} diameters out of the chuck: ${isFar ? "a steady rest" : "a tail centre"}`,
      source: tail.source,
      fix: gripLonger(c, standing, hold, whole - tail.value * 2 * round.radius, whole),
    },
  ];
}

/** A longer grip, where more than half of the piece would not be in the chuck then. */
function gripLonger(c: CheckContext, { setup }: StandingSetup, hold: Chuck, grip: number, whole: number): Fix | null {
  if (grip > whole / 2) return null;
  const step = unitOf[c.unit].step;
  const text = typed(c, Math.ceil(grip / step) * step);
  const stop = hold.fixture === "chuck" && hold.stop !== undefined ? { stop: text } : {};
  return { label: `grip ${text}`, edits: [changed(c, setup.op, { hold: { ...hold, grip: text, ...stop } })] };
}

function thinRing({ c, standing, grip, round }: Chucked, wall: number | null): Rule[] {
  const least = c.limits.ringWall.value * 2 * round.radius;
  if (wall === null || wall >= least - CONTACT) return [];
  return [
    {
      place: middleOf(standing, grip / 2),
      rule: "thin-ring",
      severity: "caution",
      value: wall,
      limit: least,
      text: `a ring of ${say(c, wall)} on ⌀${say(c, 2 * round.radius)} gives under a chuck's pressure: soft jaws or a mandrel`,
      source: c.limits.ringWall.source,
    },
  ];
}

function stroke({ c, standing, hold, grip, round }: Chucked, bored: number | null, jaws: EvaluatedPart | null): Rule[] {
  const { jawStroke } = c.limits;
  const off = bored === null ? 0 : Math.abs(bored - round.radius);
  if (bored === null || hold.fixture !== "chuck" || off <= jawStroke.value + CONTACT) return [];
  return [
    {
      place: middleOf(standing, grip / 2),
      rule: "jaw-stroke",
      severity: "stop",
      value: off,
      limit: jawStroke.value,
      part: hold.bored,
      text: `jaws bored to ⌀${say(c, 2 * bored)} for a piece of ⌀${say(c, 2 * round.radius)}`,
      source: jawStroke.source,
      fix: jaws && boredTo(c, jaws, 2 * (round.radius + c.practice.chuckClearance - bored)),
    },
  ];
}

/** Jaws bored larger by the number that sizes their bore. */
function boredTo(c: CheckContext, jaws: EvaluatedPart, by: number): Fix | null {
  for (const { row, recipe } of jaws.evaluation.solved.rows) {
    const edit = recipe?.op === "cut" ? resized(jaws, row.id, extentAlong("x"), by) : null;
    const label = `bore ${say(c, Math.abs(by))} ${by > 0 ? "larger" : "smaller"}`;
    if (edit) return { label, edits: [{ edit: "ofPart", part: jaws.id, edits: [edit] }] };
  }
  return null;
}

function stopDepth({ c, standing, hold, grip }: Chucked, work: Work): Rule[] {
  if (hold.fixture !== "chuck" || hold.stop === undefined) return [];
  const stop = valueOf(hold.stop, "length", work.scope);
  if (!stop.ok || Math.abs(stop.value.value - grip) <= CONTACT) return [];
  return [
    {
      place: middleOf(standing),
      rule: "chuck-stop",
      severity: "caution",
      value: stop.value.value,
      limit: grip,
      text: `the stop stands ${say(c, stop.value.value)} deep and the grip is ${say(c, grip)}`,
      source: "geometry: stop and grip",
      fix: {
        label: `grip ${hold.stop}`,
        edits: [changed(c, standing.setup.op, { hold: { ...hold, grip: hold.stop } })],
      },
    },
  ];
}

/** The thinnest ring where it is gripped: from the largest bore about the axis to the gripped round. */
function ringWallOf(work: Work, standing: StandingSetup, radius: number): number | null {
  const axis = axisOfBox(standing.frame, standing.box);
  const bores = work.kernel.faces(standing.piece.before).flatMap((f) => {
    if (f.surface !== "cylinder" || !f.hollow || !f.axis) return [];
    const d = f.axis.direction;
    const along = Math.abs(d.x * axis.normal.x + d.y * axis.normal.y + d.z * axis.normal.z);
    const off = {
      x: f.axis.origin.x - axis.origin.x,
      y: f.axis.origin.y - axis.origin.y,
      z: f.axis.origin.z - axis.origin.z,
    };
    const up = off.x * axis.normal.x + off.y * axis.normal.y + off.z * axis.normal.z;
    const away = Math.sqrt(Math.max(0, off.x ** 2 + off.y ** 2 + off.z ** 2 - up ** 2));
    return along > 0.999 && away < CONTACT ? [f.radius!] : [];
  });
  const inside = bores.filter((r) => r < radius);
  return inside.length ? radius - Math.max(...inside) : null;
}

/** The radius chuck jaws are bored to: of the smallest hollow round about their axis that is no smaller than a screw. */
export function boredRadius(kernel: SolidKernel, key: string): number | null {
  const rounds = kernel
    .faces(key)
    .flatMap((f) =>
      f.surface === "cylinder" && f.hollow && f.axis && Math.hypot(f.axis.origin.x, f.axis.origin.y) < CONTACT
        ? [f.radius!]
        : [],
    );
  return rounds.length ? Math.max(...rounds) : null;
}
