import { holdingRules } from "../findings/holding";
import { problems } from "./problems";
import { fail, ok, type Problem, type Result } from "../base/result";
import { valueOf } from "../engine/numbers";
import { CONTACT } from "../geometry/tolerance";
import { cross, dot } from "../geometry/vec";
import type { Holding } from "../job/holdings";
import type { Setup } from "../job/schema";
import type { NumberText } from "../number";
import { cribFor } from "../tables";
import { planPaths, type PathPlan } from "../paths/plan";
import type { EvaluatedPart } from "../evaluate/parts";
import { boredRadius, chuckFindings } from "./chuckChecks";
import type { Fix } from "../findings/finding";
import { changed, typed, type CheckContext, type Found, type SetupFinding } from "./finding";
import { clampFindings, clampScrews } from "./clampChecks";
import { cutterFindings, nestFindings, roomOf, standsFindings, type Held } from "./fixtureChecks";
import { saidOnce, stockFirst } from "./saidOnce";
import { chipFindings } from "./chipChecks";
import { screwFindings } from "./screwChecks";
import { nestDeeper } from "./fixes/holderFixes";
import { axisOfBox, chuckGrip, gripArea, type Band } from "./grip";
import {
  acrossFix,
  datumFindings,
  gripFindings,
  gripNeeded,
  gripWanted,
  nestDepthFindings,
  sawnFindings,
  stationFindings,
} from "./gripChecks";
import { holderNamed, seenFromPiece, type Lying } from "./lying";
import type { Reach } from "./reach";
import { directionOf, seenIn } from "./routing";
import type { StandingSetup, Work } from "./setup";
import { sweptOver, throughSeen } from "./tools";
import { allStations, stationsFor } from "./stations";

/** How a setup holds its piece, in figures. Lengths mm, areas mm². */
export interface HoldFigures {
  kind: Holding["fixture"];
  part: string | null;
  grip: number | null;
  gripArea: number | null;
  /** What stands above the jaws, out of the chuck, or over the plate. */
  above: number | null;
  /** The gripped diameter of a round. */
  diameter: number | null;
}
export interface EvaluatedSetup {
  setup: Setup;
  standing: StandingSetup | null;
  problem: Problem | null;
  hold: HoldFigures | null;
  /** How the piece lies in what holds it, station by station; empty without a part that holds. */
  lying: Lying[];
  /** Pieces at the other stations of what holds it. */
  beside: Lying[];
  /** The least room between the piece and what holds it; null where no part holds it, or it does not go in. */
  room: number | null;
  plans: PathPlan[];
  findings: SetupFinding[];
}

export const refused = (setup: Setup, problem: Problem): SetupFinding => ({
  rule: "setup-refused",
  setup: setup.op,
  row: null,
  rowId: null,
  severity: "stop",
  value: 0,
  limit: 0,
  place: null,
  text: `setup ${setup.op}: ${problem.message}${problem.expected ? ` (expected: ${problem.expected})` : ""}`,
  source: "geometry",
});

/** How far a pair of jaws reaches along itself, in the coordinates of what it grips. */
function jawsAlong({ up, across }: Band, { frame, holderBox }: Lying): { from: number; to: number } {
  const along = cross(up, across);
  const ends = (["min", "max"] as const).flatMap((x) =>
    (["min", "max"] as const).map((y) => {
      const corner = seenFromPiece({ frame }, { x: holderBox[x].x, y: holderBox[y].y, z: 0 });
      return dot(corner, along);
    }),
  );
  return { from: Math.min(...ends), to: Math.max(...ends) };
}

/** How deep a piece may be gripped to hold more of it, as shares of its height. */
const DEEPER = [0.1, 0.2, 0.3, 0.4, 0.5];

/** One setup: how it holds, and its checks. */
export class Checking {
  private readonly crib;
  private readonly plans: PathPlan[];
  constructor(
    private readonly work: Work,
    private readonly parts: EvaluatedPart[],
    private readonly c: CheckContext,
    private readonly standing: StandingSetup,
    private readonly reach: Reach,
    private readonly elsewhere: (rowId: string) => Fix | null,
  ) {
    const { job, evaluation } = work.part;
    this.crib = job.crib ?? cribFor(job.unit);
    const plans = planPaths(job, evaluation.solved.rows, evaluation.stock?.placed.box);
    const own = new Set(standing.piece.rows.map((r) => r.row.id));
    this.plans = plans.filter((p) => own.has(p.rowId) && dot(p.frame.normal, standing.frame.normal) > 0.999);
  }

  evaluated(): EvaluatedSetup {
    const { standing, plans } = this;
    const { setup } = standing;
    const held = this.holding(setup.hold);
    const base = { setup, standing, problem: null, plans };
    const unseen = [...this.unreachable(), ...this.notTaken()];
    if (!held.ok)
      return {
        ...base,
        hold: null,
        lying: [],
        beside: [],
        room: null,
        findings: this.own([refused(setup, held.problems[0]), ...unseen]),
      };
    const { figures, lying, found } = held.value;
    const rooms = lying.map(roomOf);
    const isTold = rooms.length > 0 && rooms.every((r) => r !== null);
    const room = isTold ? Math.min(...rooms.filter((r) => r !== null)) : null;
    return {
      ...base,
      hold: figures,
      lying,
      beside: this.beside(lying),
      room,
      findings: this.own([...found, ...unseen]),
    };
  }

  /** Rows that could not be taken off the piece as it stands here: its volume is without them. */
  private notTaken(): (Found & { rule: string })[] {
    return this.standing.piece.missed.map(({ row, why }) => ({
      rule: "row-not-taken",
      severity: "caution",
      row: row.number,
      rowId: row.row.id,
      value: 0,
      limit: 0,
      place: row.planes?.start?.origin ?? null,
      text: `row ${row.number} could not be taken off the piece as it stands in this setup: what follows is without it (${why})`,
      source: "geometry: piece and cut",
    }));
  }

  private own(found: (Found & { rule: string })[]): SetupFinding[] {
    const { op } = this.standing.setup;
    const said = found.map(({ fix, ...f }): SetupFinding => ({
      row: null,
      rowId: null,
      ...f,
      ...(fix ? { fix } : {}),
      setup: op,
    }));
    // A cause of nothing is not said here: the workpiece tells it on its own card.
    return saidOnce(said.length ? [...stockFirst(this.work.part.evaluation.findings, op), ...said] : said);
  }

  /** Rows of this setup of which nothing at all is seen from its side. */
  private unreachable(): (Found & { rule: string })[] {
    return this.standing.piece.rows.flatMap((row) => {
      const copies = this.reach.copiesOf(row);
      const unseen = copies.filter((c) => c.faces.length && !seenIn(this.standing, c.faces, this.reach).size);
      const [first] = unseen;
      if (!first) return [];
      const isAll = unseen.length === copies.filter((c) => c.faces.length).length;
      // Copies that look several ways are cut in several setups: each of them is seen in one.
      if (!isAll && this.isCutElsewhere(row.row.id)) return [];
      const why = this.reach.seen(first.faces, directionOf(this.standing)).why.get(first.faces[0]);
      const what = isAll ? `row ${row.number}` : `${unseen.length} of the ${copies.length} copies of row ${row.number}`;
      return [
        {
          rule: "row-unreachable",
          severity: "stop" as const,
          row: row.number,
          rowId: row.row.id,
          value: 0,
          limit: unseen.length,
          place: first.place,
          text: `${what} cannot be cut in setup ${this.standing.setup.op}: ${why === "in the way" ? "something of the part is in the way" : "it looks away from the cutter"}`,
          source: "geometry: from where the row is seen",
          fix: isAll ? this.elsewhere(row.row.id) : null,
        },
      ];
    });
  }

  private isCutElsewhere(rowId: string): boolean {
    const { setups = [] } = this.work.part.job;
    return setups.some((s) => s.op !== this.standing.setup.op && (s.rows === undefined || s.rows.includes(rowId)));
  }

  private length(text: NumberText, what: string): Result<number> {
    const r = valueOf(text, "length", this.work.scope);
    if (!r.ok)
      return fail(problems.figureFault(what, r.problems[0].message), { path: what, expected: r.problems[0].expected });
    return r.value.value > CONTACT ? ok(r.value.value) : fail(problems.figureIsNothing(what), { path: what });
  }

  private holding(
    hold: Holding | null,
  ): Result<{ figures: HoldFigures | null; lying: Lying[]; found: (Found & { rule: string })[] }> {
    if (!hold) return ok({ figures: null, lying: [], found: [] });
    switch (hold.fixture) {
      case "vise":
        return this.inVise(hold);
      case "jaws":
        return this.inJaws(hold);
      case "plate":
        return this.onPlate(hold);
      case "chuck":
      case "index":
        return this.inChuck(hold);
    }
  }

  /** The band of the piece that stands in jaws. */
  private band(across: "x" | "y", grip: number) {
    const { frame, box } = this.standing;
    const zero = dot(frame.origin, frame.normal);
    return { up: frame.normal, across: frame[across], low: zero + box.min.z, high: zero + box.min.z + grip };
  }

  private inVise(hold: Extract<Holding, { fixture: "vise" }>) {
    const grip = this.length(hold.grip, "grip");
    if (!grip.ok) return grip;
    const { standing, work, c } = this;
    const area = gripArea(work.kernel, standing.piece.before, this.band(hold.across, grip.value), false);
    const all = gripFindings(
      c,
      standing,
      grip.value,
      area,
      (text) => ({ hold: { ...hold, grip: text } }),
      () => this.betterGrip(hold, grip.value, null),
    );
    // Of the first setup's vise the workpiece's own remarks tell how deep it grips.
    const isTold = work.part.job.hold !== null && c.setups[0] === standing.setup;
    const sawn = sawnFindings(c, standing, hold, grip.value, work);
    const found = [...(isTold ? all.filter((f) => f.rule === holdingRules.tooLittle) : all), ...sawn];
    return ok({ figures: this.figures(hold, null, grip.value, area), lying: [], found });
  }

  private stations(lying: Lying[], holder: EvaluatedPart, largest: number) {
    const all = allStations(this.parts, this.work, holder.name);
    return [...datumFindings(lying, holder), ...stationFindings(this.c, all, { holder, work: this.work }, largest)];
  }

  /**
   * A way to grip the piece that holds enough of it: the other way round, or deeper.
   * @param lying how it lies in jaws that are cut to it, which are cut for one way
   */
  private betterGrip(hold: Extract<Holding, { across: "x" | "y" }>, grip: number, lying: Lying | null): Fix | null {
    const { standing, work, c } = this;
    const { setup, box, piece } = standing;
    const follows = lying !== null;
    const bandOf = (across: "x" | "y", deep: number): Band => {
      const plain = this.band(across, deep);
      return lying ? { ...plain, along: jawsAlong(plain, lying) } : plain;
    };
    const isEnough = (across: "x" | "y", deep: number) =>
      gripArea(work.kernel, piece.before, bandOf(across, deep), follows) >= c.limits.gripAreaLeast.value;
    const other = hold.across === "x" ? "y" : "x";
    const whole = box.max.z - box.min.z;
    const need = gripNeeded(c, whole) - CONTACT;
    if (!lying && grip >= need && isEnough(other, grip))
      return acrossFix(c, standing, { ...hold, across: other }, other);
    const depths = [...DEEPER.map((share) => share * whole), gripWanted(c, whole)].sort((a, b) => a - b);
    const isDeeper = (deep: number) => deep > grip && deep >= need && deep < whole;
    const deeper = depths.find((deep) => isDeeper(deep) && isEnough(hold.across, deep));
    if (deeper === undefined) return null;
    const text = typed(c, deeper);
    const gripped = { ...hold, grip: text };
    if (!lying) return { label: `grip ${text}`, edits: [changed(c, setup.op, { hold: gripped })] };
    const held = "part" in hold ? this.heldIn(lying, hold.part) : null;
    return held && nestDeeper(c, held, deeper, gripped);
  }

  private figures(hold: Holding, part: string | null, grip: number | null, area: number | null): HoldFigures {
    const { box } = this.standing;
    const above = grip === null ? null : box.max.z - box.min.z - grip;
    return { kind: hold.fixture, part, grip, gripArea: area, above, diameter: null };
  }

  private inJaws(hold: Extract<Holding, { fixture: "jaws" }>) {
    const grip = this.length(hold.grip, "grip");
    if (!grip.ok) return grip;
    const { lying, missing } = this.laidIn(hold.part);
    const { standing, work, c } = this;
    const plain = this.band(hold.across, grip.value);
    const band = lying.length ? { ...plain, along: jawsAlong(plain, lying[0]) } : plain;
    const area = gripArea(work.kernel, standing.piece.before, band, true);
    const found = [
      ...gripFindings(
        c,
        standing,
        grip.value,
        area,
        (text) => ({ hold: { ...hold, grip: text } }),
        () => (lying.length ? this.betterGrip(hold, grip.value, lying[0]) : null),
      ),
      ...sawnFindings(c, standing, hold, grip.value, work),
      ...nestDepthFindings(c, standing, hold, grip.value, lying),
      ...lying.flatMap((l) => this.fixture(l, hold.part)),
      ...missing,
    ];
    return ok({ figures: this.figures(hold, hold.part, grip.value, area), lying, found });
  }

  private onPlate(hold: Extract<Holding, { fixture: "plate" }>) {
    const { lying, missing } = this.laidIn(hold.part);
    const largest = Math.max(0, ...this.plans.map((p) => p.cutter?.diameter ?? 2 * p.drillRadius));
    const holder = holderNamed(this.parts, hold.part);
    const found = [
      ...(holder.ok ? this.stations(lying, holder.value.part, largest) : []),
      ...lying.flatMap((l) => this.fixture(l, hold.part)),
      ...missing,
    ];
    const [first] = lying;
    const depth = first ? first.holderBox.max.z - first.box.min.z : null;
    const figures = { ...this.figures(hold, hold.part, depth, null), grip: null };
    return ok({ figures, lying, found });
  }

  private inChuck(hold: Extract<Holding, { fixture: "chuck" | "index" }>) {
    const grip = this.length(hold.grip, "grip");
    if (!grip.ok) return grip;
    const { standing, work, c } = this;
    const axis = axisOfBox(standing.frame, standing.box);
    const round = chuckGrip(
      work.kernel,
      standing.piece.before,
      axis,
      standing.box.min.z,
      standing.box.min.z + grip.value,
    );
    const figures = {
      ...this.figures(hold, hold.fixture === "chuck" ? (hold.bored ?? null) : null, grip.value, round?.area ?? null),
      diameter: round && 2 * round.radius,
    };
    const jaws = hold.fixture === "chuck" ? hold.bored : undefined;
    const { lying, missing } = jaws ? this.laidIn(jaws) : { lying: [], missing: [] };
    const holder = (jaws && lying.length && this.heldIn(lying[0], jaws)?.holder) || null;
    const boredTo = lying.length ? boredRadius(work.kernel, lying[0].holder) : null;
    const found = [
      ...chuckFindings(c, standing, work, hold, grip.value, round, boredTo, holder),
      ...lying.flatMap((l) => this.fixture(l, jaws!)),
      ...missing,
    ];
    return ok({ figures, lying, found });
  }

  private beside(lying: Lying[]): Lying[] {
    const { hold } = this.standing.setup;
    if (!lying.length || hold?.fixture !== "plate") return [];
    // One of the stations that serve the setup is the piece itself; the others stand beside it.
    const all = allStations(this.parts, this.work, hold.part, this.standing.piece.before);
    return all.filter((l) => l.placement !== lying[0].placement);
  }

  /** How the piece lies in a part that holds it; where it has no place there, that is remarked and the rest is told. */
  private laidIn(part: string): { lying: Lying[]; missing: (Found & { rule: string })[] } {
    const stations = stationsFor(this.parts, this.work, this.standing, part);
    return stations.ok
      ? { lying: stations.value, missing: [] }
      : { lying: [], missing: [refused(this.standing.setup, stations.problems[0])] };
  }

  private heldIn(lying: Lying, part: string): Held | null {
    const { standing, crib, work } = this;
    const found = holderNamed(this.parts, part);
    if (!found.ok) return null;
    // Only one row of what is left stands for the stock round the part.
    const { rows } = standing.piece;
    const leave = rows.find((r) => r.placed?.step?.op === "leave");
    const one = rows.filter((r) => r.placed?.step?.op !== "leave" || r === leave);
    const through = allStations(this.parts, work, part).flatMap((l) => throughSeen(l, work.rows));
    const swept = sweptOver(lying, one, work.finalKey, Math.min(...crib.map((t) => t.diameter)));
    return { standing, lying, part, holder: found.value.part, work, crib, swept, through };
  }

  private fixture(lying: Lying, part: string): (Found & { rule: string })[] {
    const held = this.heldIn(lying, part);
    if (!held) return [];
    const screws = clampScrews(held.holder, this.c.practice);
    return [
      ...nestFindings(this.c, held),
      ...standsFindings(this.c, held),
      ...cutterFindings(this.c, held),
      ...chipFindings(this.c, held),
      ...screwFindings(this.c, held),
      ...clampFindings(this.c, held, screws),
    ];
  }
}
