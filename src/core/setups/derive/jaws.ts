import { problems } from "../problems";
import { fail, ok, type Result } from "../../base/result";
import { lengthText, saidLength, toNumberText, unitOf } from "../../number";
import { cribFor, type JawBlank } from "../../tables";
import { practiceOf, type Work } from "../setup";
import { lowestBeside } from "./cutterRoom";
import {
  baseOf,
  dropLines,
  freeName,
  gripOf,
  heldBy,
  nestLines,
  Writer,
  type Base,
  type DerivedFixture,
  type DeriveFrom,
  type FixtureWishes,
  type Shoulders,
} from "./common";

/** The shop's blanks in the figures the job is drawn in. */
const blanksOf = ({ part, shop }: Work): JawBlank[] =>
  shop.jawBlanks.filter((b) => b.unit === unitOf[part.job.unit].figures);

interface Wanted {
  long: number;
  wide: number;
  grip: number;
  spacer: number;
  shoulders: Shoulders;
}

/** The smallest usual blank that has a wall round the piece and a floor under it. */
function blankFor(work: Work, { long, wide, grip, spacer, shoulders }: Wanted): JawBlank | null {
  const { wall, floor } = practiceOf(work);
  // A piece that no shoulder stops may stand out of the jaws at that end.
  const ends = { both: 2, left: 1, right: 1, none: 0 }[shoulders];
  const fits = (b: JawBlank) =>
    (ends === 0 || b.length >= long + ends * wall) &&
    2 * b.thickness + spacer >= wide + 2 * wall &&
    b.height >= grip + floor;
  return blanksOf(work).find(fits) ?? null;
}

/**
 * A pair of soft jaws for a setup, as the lines of a part: one blank with the gap its spacer leaves, and the nest of the
 * piece as the setup before left it. Its outline follows the piece.
 */
export function deriveJaws(from: DeriveFrom, op: number, wishes: FixtureWishes): Result<DerivedFixture> {
  const base = baseOf(from, op);
  if (!base.ok) return base;
  const { document, work } = from;
  const w = new Writer(document.unit);
  const under = jawsUnder(base.value, work, wishes);
  const grip = gripOf(base.value, wishes.grip, work, under);
  if (!grip.ok) return grip;
  const { floor, spacer: usualSpacer } = practiceOf(work);
  const spacer = wishes.spacer ?? usualSpacer;
  const across = wishes.across ?? (base.value.wide <= base.value.long ? "y" : "x");
  const [long, wide] = across === "y" ? [base.value.long, base.value.wide] : [base.value.wide, base.value.long];
  const shoulders = wishes.shoulders ?? "both";
  if (spacer <= 0 || spacer >= wide) return fail(problems.spacerTooWide(), { path: "spacer" });
  const more = roundNest(work, wishes);
  const blank = wishes.blank
    ? blanksOf(work).find((b) => b.name === wishes.blank)
    : blankFor(work, { long: long + more, wide: wide + more, grip: grip.value, spacer, shoulders });
  if (!blank)
    return fail(problems.noJawBlank(saidLength(long + more), saidLength(wide + more)), {
      path: "blank",
      expected: blanksOf(work)
        .map((b) => b.name)
        .join(", "),
    });
  const name = freeName(document, wishes.name ?? "soft jaws");
  const nest = nestLines(w, "nest", base.value, work, { ...wishes, grip: grip.value });
  if (!nest.ok) return nest;
  const own = w.quoted(work.part.name);
  // What is drilled through in this setup drops into the jaw under it.
  const drilled = new Set(base.value.standing.piece.rows.map((r) => r.number));
  const drops = dropLines(w, base.value, work, `DEEP ${w.n(grip.value + floor / 2)}`, drilled);
  const screws = `LINE 2 BY ${w.n(blank.screwPitch)}`;
  const screwAt = (x: number) => `AT ${w.n(x)},${w.n(blank.height * SCREW_HEIGHT)}`;
  const half = blank.screwPitch / 2;
  const lines = [
    `PART ${w.quoted(name)} JAWS`,
    ...nest.value,
    ...drops.outlines,
    `LEAVE "pair": BLOCK ${w.n(blank.length)} X ${w.n(2 * blank.thickness + spacer)} X ${w.n(blank.height)}`,
    `CUT "gap": POCKET ${w.n(blank.length + 10)} X ${w.n(spacer)} THRU`,
    `CUT "nest": POCKET "nest" DEEP ${w.n(grip.value)}`,
    ...openEnds(w, shoulders, (blank.length - long) / 2, grip.value),
    ...drops.cuts,
    `CUT "screws front": 2X ⌀${w.n(blank.screw)} DEEP ${w.n(blank.thickness)} FLAT ${screws} ${screwAt(-half)} ON FRONT`,
    `CUT "screws back": 2X ⌀${w.n(blank.screw)} DEEP ${w.n(blank.thickness)} FLAT ${screws} ${screwAt(-half)} ON BACK`,
    `PLACE ${own} IN ${w.quoted(name)} AT 0,0,${w.n(blank.height - grip.value)} UP ${base.value.up.toUpperCase()}${across === "x" ? " TURN 90" : ""} MIDDLE AFTER SETUP ${base.value.after}`,
  ];
  const hold = {
    fixture: "jaws" as const,
    part: name,
    across,
    grip: toNumberText(lengthText(grip.value, document.unit)),
  };
  return ok({ name, lines, setups: heldBy(document.setups, op, hold) });
}
/** What a nest is larger than its piece, where more is wished than is usual. */
function roundNest(work: Work, { clearance, relief }: FixtureWishes): number {
  const usual = practiceOf(work);
  return 2 * (clearance ?? usual.clearance) + Math.max(0, (relief ?? usual.relief) - usual.relief);
}

/** How far an end that is open reaches over the piece, mm: nothing of its wall is left. */
const OVER = 1;

/** The ends of the jaws that have no shoulder, milled down to the floor of the nest. */
function openEnds(w: Writer, shoulders: Shoulders, wall: number, grip: number): string[] {
  const isStopped = (end: "left" | "right") => shoulders === "both" || shoulders === end;
  return (["left", "right"] as const).flatMap((end) =>
    isStopped(end) || wall <= 0
      ? []
      : [`CUT "open ${end}": STEP ${end.toUpperCase()} ${w.n(wall + OVER)} DEEP ${w.n(grip)}`],
  );
}

/** How high jaws may stand where rows cut beside the piece, in whatever direction: a little below the lowest. */
function jawsUnder(base: Base, work: Work, wishes: FixtureWishes): number {
  const { unit, crib } = work.part.job;
  const practice = practiceOf(work);
  const cutter = Math.min(...(crib ?? cribFor(unit)).map((c) => c.diameter));
  const low = lowestBeside(base, work, base.height / 2, wishes.clearance ?? practice.clearance, cutter);
  return low - Math.min(practice.roomBelow, low / 2);
}

/** Where the screws of a jaw sit, as a share of its height over its underside: below every nest. */
const SCREW_HEIGHT = 0.4;
