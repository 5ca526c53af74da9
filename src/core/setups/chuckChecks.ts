import { valueOf } from "../engine/numbers";
import type { SolidKernel } from "../engine/kernel";
import { CONTACT } from "../geometry/tolerance";
import type { Holding } from "../job/schema";
import { changed, say, typed, type CheckContext, type Found } from "./finding";
import { axisOfBox, type RoundGrip } from "./grip";
import type { StandingSetup, Work } from "./setup";

type Chuck = Extract<Holding, { fixture: "chuck" | "index" }>;

/** What a chuck holds: a true round, long enough, not too far out of it, and thick enough for its pressure. */
export function chuckFindings(
  c: CheckContext,
  standing: StandingSetup,
  work: Work,
  hold: Chuck,
  grip: number,
  round: RoundGrip | null,
  bored: number | null,
): (Found & { rule: string })[] {
  const { box } = standing;
  const whole = box.max.z - box.min.z;
  const found: (Found & { rule: string })[] = [];
  const own = { place: null };
  const { overhangTailstock, overhangSteady, ringWall, jawStroke } = c.limits;
  if (grip >= whole - CONTACT)
    return [
      {
        ...own,
        rule: "grip-refused",
        severity: "stop",
        value: grip,
        limit: whole,
        text: `a grip of ${say(c, grip)} is as long as the piece, ${say(c, whole)}`,
        source: "geometry: piece and grip",
        fix: {
          label: `grip ${typed(c, whole / 3)}`,
          edits: [changed(c, standing.setup.op, { hold: { ...hold, grip: typed(c, whole / 3) } })],
        },
      },
    ];
  if (!round)
    return [
      {
        ...own,
        rule: "grip-area",
        severity: "stop",
        value: 0,
        limit: c.limits.gripAreaLeast.value,
        text: "nothing round about the chuck's axis stands where it grips",
        source: "geometry: piece and chuck",
      },
    ];
  const overhang = (whole - grip) / (2 * round.radius);
  if (overhang > overhangTailstock.value + CONTACT)
    found.push({
      ...own,
      rule: "overhang",
      severity: overhang > overhangSteady.value ? "stop" : "caution",
      value: overhang,
      limit: overhang > overhangSteady.value ? overhangSteady.value : overhangTailstock.value,
      text: `${overhang.toFixed(1)} diameters out of the chuck: ${overhang > overhangSteady.value ? "a steady rest" : "a tail centre"}`,
      source: overhangTailstock.source,
    });
  const wall = ringWallOf(work, standing, round.radius);
  if (wall !== null && wall < ringWall.value * 2 * round.radius - CONTACT)
    found.push({
      ...own,
      rule: "thin-ring",
      severity: "caution",
      value: wall,
      limit: ringWall.value * 2 * round.radius,
      text: `a ring of ${say(c, wall)} on ⌀${say(c, 2 * round.radius)} gives under a chuck's pressure: soft jaws or a mandrel`,
      source: ringWall.source,
    });
  if (bored !== null && Math.abs(bored - round.radius) > jawStroke.value + CONTACT)
    found.push({
      ...own,
      rule: "jaw-stroke",
      severity: "stop",
      value: Math.abs(bored - round.radius),
      limit: jawStroke.value,
      part: (hold as { bored: string }).bored,
      text: `jaws bored to ⌀${say(c, 2 * bored)} for a piece of ⌀${say(c, 2 * round.radius)}`,
      source: jawStroke.source,
    });
  if (hold.fixture === "chuck" && hold.stop !== undefined) {
    const stop = valueOf(hold.stop, "length", work.scope);
    if (stop.ok && Math.abs(stop.value.value - grip) > CONTACT)
      found.push({
        ...own,
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
      });
  }
  return found;
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
