import { fail, ok, type Problem, type Result } from "../base/result";
import { valueOf } from "../engine/numbers";
import { pieceStates } from "../engine/piece";
import { CONTACT } from "../geometry/tolerance";
import { dot } from "../geometry/vec";
import type { Holding, Setup } from "../job/schema";
import { showLength, type NumberText } from "../number";
import { cribFor, defaultLimits } from "../tables";
import { planPaths, type PathPlan } from "../paths/plan";
import type { EvaluatedPart } from "../evaluate/parts";
import { boredRadius, chuckFindings } from "./chuckChecks";
import {
  cutterFindings,
  gripFindings,
  nestFindings,
  standsFindings,
  stationFindings,
  type Held,
} from "./fixtureChecks";
import type { CheckContext, Found, SetupFinding } from "./finding";
import { axisOfBox, gripArea, roundGrip } from "./grip";
import { holderNamed, lay, type Lying } from "./lying";
import { Reach } from "./reach";
import {
  accessOf,
  directionOf,
  directionsOf,
  markedBalloons,
  proposeRouting,
  unassignedRows,
  type Routing,
} from "./routing";
import { standingSetups, workOf, type SetupsInput, type StandingSetup, type Work } from "./setup";

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
  plans: PathPlan[];
  findings: SetupFinding[];
}
export interface EvaluatedSetups {
  setups: EvaluatedSetup[];
  routing: Routing | null;
  findings: SetupFinding[];
}

const nothing: EvaluatedSetups = { setups: [], routing: null, findings: [] };

/** Everything that follows from a job's setups: the piece in each, how it is held, what keeps it from being cut so. */
export function evaluateSetups(input: SetupsInput): EvaluatedSetups {
  const work = workOf(input);
  if (!work.ok) return nothing;
  const all = standingSetups(work.value);
  if (!all.ok) return nothing;
  const c: CheckContext = {
    unit: work.value.part.job.unit,
    limits: defaultLimits,
    setups: work.value.job.setups ?? [],
  };
  const routed = routingOf(
    work.value,
    all.value.flatMap((s) => (s.standing.ok ? [s.standing.value] : [])),
  );
  const setups = all.value.map(({ setup, standing }): EvaluatedSetup => {
    if (!standing.ok)
      return {
        setup,
        standing: null,
        problem: standing.problems[0],
        hold: null,
        lying: [],
        plans: [],
        findings: [refused(setup, standing.problems[0])],
      };
    return new Checking(work.value, input.parts, c, standing.value, routed.reach).evaluated();
  });
  return { setups, routing: routed.routing, findings: [...setups.flatMap((s) => s.findings), ...routed.findings(c)] };
}

const refused = (setup: Setup, problem: Problem): SetupFinding => ({
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

/** From where each row can be cut, what is proposed, and what of it the setups there leave undone. */
function routingOf(work: Work, setups: StandingSetup[]) {
  const reach = new Reach(work.kernel, work.finalKey);
  const directions = directionsOf(work);
  const access = accessOf(work, reach, directions);
  const routing: Routing = {
    access,
    unassigned: unassignedRows(access, setups, reach),
    proposed: proposeRouting(access, directions, reach),
    marked: markedBalloons(work.part, setups, work.rows),
  };
  const findings = (c: CheckContext): SetupFinding[] => {
    if (!c.setups.length) return [];
    const own = { setup: null, place: null, value: 0, limit: 0, source: "geometry: from where the row is seen" };
    return routing.unassigned.map((row): SetupFinding => {
      const a = access.find((x) => x.row === row)!;
      const isIn = setups.some((s) => s.piece.rows.some((r) => r.number === row));
      const from = [...new Set([...a.whole, ...a.some].map((d) => d.name))].slice(0, 4).join(", ") || "nowhere";
      return {
        ...own,
        rule: isIn ? "row-unreachable" : "row-in-no-setup",
        severity: isIn ? "stop" : "caution",
        row,
        rowId: a.rowId,
        text: isIn
          ? `row ${row} is not reached whole in its setups; it is seen from ${from}`
          : `row ${row} is in no setup; it is seen from ${from}`,
      };
    });
  };
  const marks = (c: CheckContext): SetupFinding[] =>
    routing.marked.map((m): SetupFinding => {
      const l = work.part.evaluation.ledger.find((e) => e.number === m.number)!;
      const width = l.low !== null && l.high !== null ? l.high - l.low : null;
      const cost = c.limits.turnOver;
      const isTight = width !== null && width < 2 * cost.value;
      const row = work.rows[m.rows[0] - 1];
      return {
        rule: "turn-over",
        setup: m.setups[m.setups.length - 1],
        row: row.number,
        rowId: row.row.id,
        severity: isTight ? "caution" : "note",
        value: width ?? 0,
        limit: 2 * cost.value,
        place: null,
        text: `balloon ${m.number}${width === null ? "" : `, ${showLength(width, c.unit)} wide,`} lies between setups ${m.setups.join(" and ")}; a turn-over costs ±${showLength(cost.value, c.unit)} in this shop`,
        source: cost.source,
      };
    });
  return { reach, routing, findings: (c: CheckContext) => [...findings(c), ...marks(c)] };
}

/** One setup: how it holds, and its checks. */
class Checking {
  private readonly crib;
  private readonly plans: PathPlan[];
  constructor(
    private readonly work: Work,
    private readonly parts: EvaluatedPart[],
    private readonly c: CheckContext,
    private readonly standing: StandingSetup,
    private readonly reach: Reach,
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
    const unseen = this.unreachable();
    if (!held.ok)
      return { ...base, hold: null, lying: [], findings: [refused(setup, held.problems[0]), ...this.own(unseen)] };
    const { figures, lying, found } = held.value;
    return { ...base, hold: figures, lying, findings: this.own([...found, ...unseen]) };
  }

  private own(found: (Found & { rule: string })[]): SetupFinding[] {
    return found.map((f) => ({ row: null, rowId: null, ...f, setup: this.standing.setup.op }));
  }

  /** Rows of this setup of which nothing at all is seen from its side. */
  private unreachable(): (Found & { rule: string })[] {
    const direction = directionOf(this.standing);
    return this.standing.piece.rows.flatMap((row) => {
      const faces = this.reach.facesOf(row);
      if (!faces.length) return [];
      const seen = this.reach.seen(faces, direction);
      if (faces.some((f) => seen.faces.has(f))) return [];
      const why = seen.why.get(faces[0]);
      return [
        {
          rule: "row-unreachable",
          severity: "stop" as const,
          row: row.number,
          rowId: row.row.id,
          value: 0,
          limit: faces.length,
          place: null,
          text: `row ${row.number} cannot be cut in setup ${this.standing.setup.op}: ${why === "in the way" ? "something of the part is in the way" : "it looks away from the cutter"}`,
          source: "geometry: from where the row is seen",
        },
      ];
    });
  }

  private length(text: NumberText, what: string): Result<number> {
    const r = valueOf(text, "length", this.work.scope);
    if (!r.ok) return fail(`${what}: ${r.problems[0].message}`, { path: what, expected: r.problems[0].expected });
    return r.value.value > CONTACT
      ? ok(r.value.value)
      : fail(`the ${what} is nothing: the piece is not held`, { path: what, expected: `a ${what} over 0` });
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
    const found = gripFindings(c, standing, grip.value, area, (text) => ({ hold: { ...hold, grip: text } }));
    return ok({ figures: this.figures(hold, null, grip.value, area), lying: [], found });
  }

  private figures(hold: Holding, part: string | null, grip: number | null, area: number | null): HoldFigures {
    const { box } = this.standing;
    const above = grip === null ? null : box.max.z - box.min.z - grip;
    return { kind: hold.fixture, part, grip, gripArea: area, above, diameter: null };
  }

  private inJaws(hold: Extract<Holding, { fixture: "jaws" }>) {
    const grip = this.length(hold.grip, "grip");
    if (!grip.ok) return grip;
    const stations = this.stations(hold.part);
    if (!stations.ok) return stations;
    const { standing, work, c } = this;
    const area = gripArea(work.kernel, standing.piece.before, this.band(hold.across, grip.value), true);
    const found = [
      ...gripFindings(c, standing, grip.value, area, (text) => ({ hold: { ...hold, grip: text } })),
      ...stations.value.flatMap((lying) => this.fixture(lying, hold.part)),
    ];
    return ok({ figures: this.figures(hold, hold.part, grip.value, area), lying: stations.value, found });
  }

  private onPlate(hold: Extract<Holding, { fixture: "plate" }>) {
    const stations = this.stations(hold.part);
    if (!stations.ok) return stations;
    const largest = Math.max(0, ...this.plans.map((p) => p.cutter?.diameter ?? 2 * p.drillRadius));
    const found = [
      ...stations.value.flatMap((lying) => this.fixture(lying, hold.part)),
      ...stationFindings(this.c, this.allStations(hold.part), hold.part, largest),
    ];
    const [first] = stations.value;
    const depth = first.holderBox.max.z - first.box.min.z;
    const figures = { ...this.figures(hold, hold.part, depth, null), grip: null };
    return ok({ figures, lying: stations.value, found });
  }

  private inChuck(hold: Extract<Holding, { fixture: "chuck" | "index" }>) {
    const grip = this.length(hold.grip, "grip");
    if (!grip.ok) return grip;
    const { standing, work, c } = this;
    const axis = axisOfBox(standing.frame, standing.box);
    const round = roundGrip(
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
    const bored = hold.fixture === "chuck" && hold.bored ? this.stations(hold.bored) : ok<Lying[]>([]);
    if (!bored.ok) return bored;
    const boredTo = bored.value.length ? boredRadius(work.kernel, bored.value[0].holder) : null;
    const found = [
      ...chuckFindings(c, standing, work, hold, grip.value, round, boredTo),
      ...bored.value.flatMap((lying) => this.fixture(lying, (hold as { bored: string }).bored)),
    ];
    return ok({ figures, lying: bored.value, found });
  }

  private fixture(lying: Lying, part: string): (Found & { rule: string })[] {
    const held: Held = { standing: this.standing, lying, part, rows: this.standing.piece.rows, crib: this.crib };
    return [...nestFindings(this.c, held), ...standsFindings(this.c, held), ...cutterFindings(this.c, held)];
  }

  /** The stations of a holder that serve this setup: where the piece lies as the setup before it left it. */
  private stations(name: string): Result<Lying[]> {
    const all = this.allStations(name);
    const holder = holderNamed(this.parts, name);
    if (!holder.ok) return holder;
    const { setup } = this.standing;
    const before = this.before();
    const own = all.filter((l) => (l.placement.setup ?? before) === before && this.isUpright(l));
    return own.length
      ? ok(own)
      : fail(`"${name}" has no place for the piece of setup ${setup.op}`, {
          expected: `PLACE "${this.parts[0].name}" IN "${name}" AT x,y,z with ${this.upWords()} up`,
        });
  }
  private before(): number {
    const setups = this.work.job.setups ?? [];
    const i = setups.indexOf(this.standing.setup);
    return i > 0 ? setups[i - 1].op : 0;
  }
  private upWords(): string {
    const { up } = this.standing.setup;
    return typeof up === "string" ? `UP ${up.toUpperCase()}` : "that side";
  }
  private isUpright(l: Lying): boolean {
    return dot(l.frame.normal, this.standing.frame.normal) > 0.999;
  }

  /** Every station of a holder, each with the piece as it comes there. */
  private allStations(name: string): Lying[] {
    const holder = holderNamed(this.parts, name);
    const states = pieceStates(this.work);
    if (!holder.ok || !states.ok) return [];
    const own = this.parts[0].name.toLowerCase();
    const part = this.work.part;
    return holder.value.part.places
      .filter((p) => p.part.toLowerCase() === own)
      .flatMap((p) => {
        const key =
          p.setup === undefined ? part.evaluation.solved.finalKey : states.value.find((s) => s.op === p.setup)?.after;
        const laid = key ? lay(this.work.kernel, p, key, holder.value.key, this.work.scope) : null;
        return laid?.ok ? [laid.value] : [];
      });
  }
}
