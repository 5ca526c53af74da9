import { problems } from "../problems";
import { fail, ok, type Result } from "../../base/result";
import { lengthText, toNumberText } from "../../number";
import { practiceOf } from "../setup";
import { axisOfBox, chuckGrip } from "../grip";
import {
  baseOf,
  freeName,
  gripOf,
  heldBy,
  nestLines,
  Writer,
  type DerivedFixture,
  type DeriveFrom,
  type FixtureWishes,
} from "./common";

/** Three soft jaws bored for the piece, closed on it, as the lines of a part: a round in one piece with its three gaps. */
export function deriveChuckJaws(from: DeriveFrom, op: number, wishes: FixtureWishes): Result<DerivedFixture> {
  const base = baseOf(from, op);
  if (!base.ok) return base;
  const { document, work } = from;
  const w = new Writer(document.unit);
  const grip = gripOf(base.value, wishes.grip, work);
  if (!grip.ok) return grip;
  const { standing, piece } = base.value;
  const axis = axisOfBox(standing.frame, standing.box);
  const round = chuckGrip(work.kernel, piece, axis, standing.box.min.z, standing.box.min.z + grip.value);
  if (!round) return fail(problems.nothingRoundToGrip());
  const { chuckOver, chuckGap, chuckFloor, chuckClearance, sizeStep } = practiceOf(work);
  const name = freeName(document, wishes.name ?? "bored jaws");
  const clearance = wishes.clearance ?? chuckClearance;
  const nest = nestLines(w, "bore", base.value, work, { ...wishes, clearance, grip: grip.value });
  if (!nest.ok) return nest;
  const body = Math.ceil((2 * round.radius + chuckOver) / sizeStep) * sizeStep;
  const high = Math.ceil((grip.value + chuckFloor) / sizeStep) * sizeStep;
  const gap = wishes.spacer ?? chuckGap;
  const lines = [
    `PART ${w.quoted(name)} CHUCKJAWS`,
    ...nest.value,
    `LEAVE "jaws": ROUND ⌀${w.n(body)} X ${w.n(high)}`,
    `CUT "bore": POCKET "bore" DEEP ${w.n(grip.value)}`,
    `CUT "gap": POCKET ${w.n(body)} X ${w.n(gap)} THRU AT ${w.n(body / 2)},0`,
    `REPEAT 3 3X AROUND Z`,
    `PLACE ${w.quoted(work.part.name)} IN ${w.quoted(name)} AT 0,0,${w.n(high - grip.value)} UP ${base.value.up.toUpperCase()} MIDDLE AFTER SETUP ${base.value.after}`,
  ];
  const text = toNumberText(lengthText(grip.value, document.unit));
  const hold = { fixture: "chuck" as const, grip: text, bored: name, stop: text };
  return ok({ name, lines, setups: heldBy(document.setups, op, hold) });
}
