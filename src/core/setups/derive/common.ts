import { problems } from "../problems";
import { fail, ok, type Result } from "../../base/result";
import { boxOfState } from "../../engine/piece";
import { dot, oppositeSide, type Side } from "../../geometry/vec";
import type { PartItem } from "../../outline/fromPart";
import { shapeOfPart } from "../../engine/partShapes";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import type { JobDocument, Setup } from "../../job/schema";
import { inCallout, lengthText, saidLength, unitOf, type LengthUnit } from "../../number";
import { partName } from "../../job/parts";
import type { EvaluatedPart } from "../../evaluate/parts";
import { cribFor, type ReliefPlacement } from "../../tables";
import { onlyOuter, squareCorners } from "../corners";
import { shadowOfBand } from "../../engine/shadow";
import { practiceOf, type StandingSetup, type Work } from "../setup";

/** The ends of a nest of jaws that have a shoulder to stop the piece. */
export const shoulderChoices = ["both", "left", "right", "none"] as const;
export type Shoulders = (typeof shoulderChoices)[number];

/** What an assistant asks, each with what it proposes where nothing is said. Lengths mm. */
export interface FixtureWishes {
  name?: string;
  grip?: number;
  clearance?: number;
  relief?: number;
  placement?: ReliefPlacement;
  spacer?: number;
  /** Where a nest of jaws has a shoulder along them; at both ends where nothing is said. */
  shoulders?: Shoulders;
  across?: "x" | "y";
  blank?: string;
  stations?: { x: number; y: number };
  pitch?: { x: number; y: number };
  /** Thread of the clamp screws beside the stations of a plate; none where nothing is said. */
  clamps?: string;
  /** Op numbers that the stations of a plate serve, one after another. */
  serves?: number[];
}

/** A part an assistant writes: its lines of a card, and the setups that it holds. */
export interface DerivedFixture {
  name: string;
  lines: string[];
  setups: Setup[];
}

/** What the assistants write from. */
export interface DeriveFrom {
  document: JobDocument;
  parts: EvaluatedPart[];
  work: Work;
  standing: StandingSetup[];
}

/** A setup with what it stands on: the side that looks down, and the setup that left it so (0: the stock). */
export interface Base {
  standing: StandingSetup;
  up: Side;
  down: Side;
  after: number;
  piece: string;
  height: number;
  wide: number;
  long: number;
}

/** The setup an op number names, standing on a side. */
export function baseOf({ document, standing }: DeriveFrom, op: number): Result<Base> {
  const found = standing.find((s) => s.setup.op === op);
  if (!found)
    return fail(problems.noSetup(op), {
      expected: standing.length ? `one of ${standing.map((s) => s.setup.op).join(", ")}` : "a SETUP line",
    });
  return baseOn(found, document.setups);
}

/** What a piece stands on in a setup, one of these. */
export function baseOn(standing: StandingSetup, setups: Setup[]): Result<Base> {
  const { op, up } = standing.setup;
  if (typeof up !== "string") return fail(problems.setupAtAngle(op));
  const at = setups.findIndex((s) => s.op === op);
  const { box } = standing;
  return ok({
    standing,
    up,
    down: oppositeSide[up],
    after: at > 0 ? setups[at - 1].op : 0,
    piece: standing.piece.before,
    height: box.max.z - box.min.z,
    long: box.max.x - box.min.x,
    wide: box.max.y - box.min.y,
  });
}

/** Lengths as a card has them, and texts in quotes. */
export class Writer {
  constructor(readonly unit: LengthUnit) {}
  n(mm: number): string {
    return inCallout(lengthText(mm, this.unit, unitOf[this.unit].places.fine));
  }
  quoted(text: string): string {
    return `"${text.replace(/"/g, "”")}"`;
  }
}

/** A name no part of the job has yet. */
export function freeName(document: JobDocument, wanted: string): string {
  const taken = new Set(document.parts.map((p) => partName(document, p).toLowerCase()));
  for (let i = 1; ; i++) {
    const name = i === 1 ? wanted : `${wanted} ${i}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}

/** Where the stock round the part is milled off, the cutter passes over what holds: only what is under the part is held. */
function roomUnder({ standing: { box, finished, piece } }: Base, least: number): number {
  const isMilled = piece.rows.some((r) => r.placed?.step?.op === "leave");
  const isWider =
    box.max.x - box.min.x > finished.max.x - finished.min.x + CONTACT ||
    box.max.y - box.min.y > finished.max.y - finished.min.y + CONTACT;
  const room = finished.min.z - box.min.z;
  return isMilled && isWider && room > least ? room : Infinity;
}

/**
 * How deep a nest is where nothing is said: a share of the piece's height, and never all of it.
 * @param under the height something is cut down to beside the piece: what holds stays below it, where it can
 */
export function gripOf(base: Base, wished: number | undefined, work: Work, under = Infinity): Result<number> {
  const { gripLeast, gripShare, nestLeast, step } = practiceOf(work);
  const proposed = Math.max(gripLeast, Math.ceil((base.height * gripShare) / step) * step);
  const below = under > nestLeast ? under : Infinity;
  const grip = wished ?? Math.min(proposed, base.height / 2, roomUnder(base, nestLeast), below);
  if (!(grip > 0)) return fail(problems.nothingGripped(), { path: "grip" });
  return grip < base.height
    ? ok(grip)
    : fail(problems.gripAsDeepAsPiece(saidLength(grip), saidLength(base.height)), { path: "grip" });
}

/** The outline of a nest: what the piece covers that deep, square corners relieved, with room all round. */
export function nestLines(
  w: Writer,
  name: string,
  base: Base,
  work: Work,
  wishes: FixtureWishes & { grip: number },
): Result<string[]> {
  const practice = practiceOf(work);
  const clearance = wishes.clearance ?? practice.clearance;
  if (clearance < 0) return fail(problems.clearanceNegative(), { path: "clearance" });
  const own = work.part.name;
  const shadow = shadowOfBand(work.kernel, base.piece, lyingFrame(base, work), 0, wishes.grip);
  if (!shadow.ok) return shadow;
  const relief = wishes.relief ?? Math.max(practice.relief, smallestFor(work, wishes.grip));
  const isSquare = squareCorners(onlyOuter(shadow.value)).length > 0 && relief > 0;
  return ok([
    `OUTLINE ${w.quoted(name)}`,
    `SHADOW DEEP ${w.n(wishes.grip)} FROM ${base.down.toUpperCase()} FILLED OF ${w.quoted(own)} AFTER SETUP ${base.after}`,
    ...(isSquare ? [`RELIEF ${w.n(relief)} ${(wishes.placement ?? work.shop.relief).toUpperCase()} OUTSIDE`] : []),
    ...(clearance > 0 ? [`OFFSET ${w.n(clearance)}`] : []),
    "END",
  ]);
}

/** The diameter of the smallest cutter of the crib that reaches so deep: no smaller relief can be cut. */
function smallestFor({ part: { job } }: Work, depth: number): number {
  const reaching = (job.crib ?? cribFor(job.unit)).filter((c) => c.reach >= depth - CONTACT).map((c) => c.diameter);
  return reaching.length ? Math.min(...reaching) : 0;
}

/** The plane of a piece's underside, looked at from below. */
export function lyingFrame(base: Base, work: Work) {
  const { frame } = base.standing;
  const box = boxOfState(work.kernel, base.piece, frame);
  const down = { x: -frame.normal.x, y: -frame.normal.y, z: -frame.normal.z };
  const low = box.min.z;
  const origin = {
    x: frame.origin.x + frame.normal.x * low,
    y: frame.origin.y + frame.normal.y * low,
    z: frame.origin.z + frame.normal.z * low,
  };
  return { origin, normal: down, x: frame.x, y: { x: -frame.y.x, y: -frame.y.y, z: -frame.y.z } };
}

/** A row that goes through: its largest radius where holes come out, null where it is a window or a slot. */
interface Through {
  row: number;
  radius: number | null;
}

/** Rows of the finished piece that go through it along a setup's way, where the edges of their mouths tell where. */
const throughRows = (base: Base, work: Work): Through[] =>
  work.rows.flatMap((row): Through[] => {
    const step = row.placed?.step;
    if (row.state !== "ok" || !row.placed?.thru || step?.op !== "cut") return [];
    if (Math.abs(dot(step.frame.normal, base.standing.frame.normal)) < PARALLEL) return [];
    const mouth: PartItem = { item: "edges", edges: "mouthOf", row: row.row.id };
    const told = shapeOfPart(mouth, work.kernel, work.rows, work.nameOf);
    if (!told.ok || !told.value.length) return [];
    const { body } = step;
    if (body.body === "prism") return [{ row: row.number, radius: null }];
    if (body.body !== "revolved" || !told.value.some((l) => l.length === 1 && l[0].kind === "arc")) return [];
    return [{ row: row.number, radius: body.profile[body.profile.length - 1].r }];
  });

/**
 * Lines of what drops out under a piece's through holes, windows and slots, larger than those; where the mouths tell
 * nothing, nothing is proposed: that it is missing is remarked.
 * @param deep how deep they go, as a card says it
 */
export function dropLines(w: Writer, base: Base, work: Work, deep: string, rows?: ReadonlySet<number>): Nests {
  const { dropOver } = practiceOf(work);
  const told = throughRows(base, work).filter((h) => rows?.has(h.row) ?? true);
  const larger = (radius: number | null) => (radius === null && dropOver > 0 ? [`OFFSET ${w.n(dropOver / 2)}`] : []);
  return {
    outlines: told.flatMap(({ row, radius }) => [
      `OUTLINE "under ${row}"`,
      `EDGES MOUTH OF ${w.quoted(work.part.name)} ROW ${row}`,
      ...larger(radius),
      "END",
    ]),
    cuts: told.map(({ row, radius }) =>
      radius === null
        ? `CUT "drop ${row}": POCKET "under ${row}" ${deep}`
        : `CUT "drop holes ${row}": ⌀${w.n(2 * radius + dropOver)} ${deep} PLACES "under ${row}" CIRCLES`,
    ),
  };
}

/** Lines of outlines, and of the rows that cut them. */
export interface Nests {
  outlines: string[];
  cuts: string[];
}

/** The setups of a job with one held so. */
export const heldBy = (setups: Setup[], op: number, hold: Setup["hold"]): Setup[] =>
  setups.map((s) => (s.op === op ? { ...s, hold } : s));
