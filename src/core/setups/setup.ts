import { problems } from "./problems";
import { boxOfState, pieceStates, upFrame, type PieceInput, type PieceState } from "../engine/piece";
import type { SolidKernel } from "../engine/kernel";
import { prepare, type Prepared } from "../engine/prepare";
import type { EvaluatedPart } from "../evaluate/parts";
import { fail, ok, type Result } from "../base/result";
import { add, fromFrame, scale, toFrame, v2, type Box, type Frame, type Vec3 } from "../geometry/vec";
import type { Datum, JobDocument, Setup } from "../job/schema";
import type { SolvedRow } from "../engine/solve";
import { byFigures } from "../number";
import type { FixturePractice, Shop } from "../tables";

/** What every setup is worked out from: the workpiece as it is finished, and the other parts. */
export interface SetupsInput {
  document: JobDocument;
  parts: EvaluatedPart[];
  kernel: SolidKernel;
  shop: Shop;
}

/** The workpiece of a job as its setups see it. */
export interface Work extends PieceInput {
  prepared: Prepared;
  part: EvaluatedPart;
  shop: Shop;
}

/** What fixtures are proposed with, in the figures the job is drawn in. */
export const practiceOf = ({ part, shop }: Pick<Work, "part" | "shop">): FixturePractice =>
  byFigures(part.job.unit, shop.fixtures);

/** A setup with the piece standing in it. Lengths mm, in the job's own coordinates where nothing else is said. */
export interface StandingSetup {
  setup: Setup;
  /** Normal up, origin on the datum: the setup's own X Y Z. */
  frame: Frame;
  /** Where the datum is, in words. */
  datumWords: string;
  piece: PieceState;
  /** The piece at its start, and the finished part, in the setup's coordinates. */
  box: Box;
  finished: Box;
  /** Volumes at its start and its end, mm³. */
  before: number;
  after: number;
}

/** The middle of a piece as it stands in a setup, so high over its underside: where the stage points. */
export function middleOf({ frame, box }: Pick<StandingSetup, "frame" | "box">, high = 0): Vec3 {
  const at = v2((box.min.x + box.max.x) / 2, (box.min.y + box.max.y) / 2);
  return fromFrame(frame, at, -(box.min.z + high));
}

/** @returns the workpiece to be set up, or why there is none */
export function workOf({ parts, kernel, shop }: Pick<SetupsInput, "parts" | "kernel" | "shop">): Result<Work> {
  const [part] = parts;
  const { solved } = part.evaluation;
  if (solved.finalKey === null) return fail(problems.noPartToSetUp());
  const prepared = prepare(part.job);
  const nameOf = (id: string) => `row ${solved.rows.find((r) => r.row.id === id)?.number ?? "?"}`;
  const { rows, finalKey } = solved;
  return ok({ kernel, job: part.job, scope: prepared.scope, rows, finalKey, nameOf, prepared, part, shop });
}

/** Every setup of a job with its piece, in order; a setup that cannot stand says why. */
export function standingSetups(work: Work): Result<{ setup: Setup; standing: Result<StandingSetup> }[]> {
  const states = pieceStates(work);
  if (!states.ok) return states;
  const setups = work.job.setups ?? [];
  return ok(
    setups.map((setup) => ({
      setup,
      standing: standingOf(
        work,
        setup,
        states.value.find((s) => s.op === setup.op)!,
      ),
    })),
  );
}

function standingOf(work: Work, setup: Setup, piece: PieceState): Result<StandingSetup> {
  const up = upFrame(setup.up, work);
  if (!up.ok) return up;
  const { kernel } = work;
  const datum = placeDatum(work, setup.datum ?? { at: "centre" }, up.value, piece);
  if (!datum.ok) return datum;
  const frame: Frame = { ...up.value, origin: datum.value.at };
  return ok({
    setup,
    frame,
    datumWords: datum.value.words,
    piece,
    box: boxOfState(kernel, piece.before, frame),
    finished: boxOfState(kernel, work.finalKey, frame),
    before: kernel.measure(piece.before).volume,
    after: kernel.measure(piece.after).volume,
  });
}

/** X0 Y0 Z0 of a setup in the job's coordinates. Without a word about it Z0 is the top of what the datum is of. */
function placeDatum(work: Work, datum: Datum, up: Frame, piece: PieceState): Result<{ at: Vec3; words: string }> {
  const { kernel } = work;
  const ofStock = "of" in datum && datum.of === "stock";
  const box = boxOfState(kernel, ofStock ? piece.before : work.finalKey, up);
  const middle = { x: (box.min.x + box.max.x) / 2, y: (box.min.y + box.max.y) / 2 };
  const at = (x: number, y: number, z: number): Vec3 =>
    add(up.origin, add(add(scale(up.x, x), scale(up.y, y)), scale(up.normal, z)));
  const what = ofStock ? "the piece as it comes" : "the finished part";
  const top = `Z0 the top of ${what}`;
  switch (datum.at) {
    case "centre":
      return ok({ at: at(middle.x, middle.y, box.max.z), words: `X0 Y0 the middle of ${what}, ${top}` });
    case "corner": {
      const x = datum.x === "left" ? box.min.x : box.max.x;
      const y = datum.y === "front" ? box.min.y : box.max.y;
      return ok({ at: at(x, y, box.max.z), words: `X0 Y0 the ${datum.x} ${datum.y} corner of ${what}, ${top}` });
    }
    case "axis": {
      const row = work.rows.find((r) => r.row.id === datum.row);
      const spot = axisSpot(row);
      if (!spot) return fail(problems.noAxisToSetTo(work.nameOf(datum.row)));
      const p = toFrame(up, spot);
      return ok({ at: at(p.x, p.y, box.max.z), words: `X0 Y0 the axis of ${work.nameOf(datum.row)}, ${top}` });
    }
    case "jaw": {
      const stands = boxOfState(kernel, piece.before, up);
      return ok({
        at: at(stands.min.x, stands.max.y, stands.min.z),
        words: "X0 at the stop, Y0 at the fixed jaw, Z0 the underside of the piece",
      });
    }
    case "chuck": {
      const stands = boxOfState(kernel, piece.before, up);
      const axis = { x: (stands.min.x + stands.max.x) / 2, y: (stands.min.y + stands.max.y) / 2 };
      return ok({ at: at(axis.x, axis.y, stands.min.z), words: "X0 Y0 the axis of the chuck, Z0 its stop" });
    }
  }
}

/** A point on the axis of a row: of its first place. */
function axisSpot(row: SolvedRow | undefined): Vec3 | null {
  const shape = row?.planes?.shape;
  if (!shape) return null;
  const { frame, places } = shape;
  return add(frame.origin, add(scale(frame.x, places[0].x), scale(frame.y, places[0].y)));
}
