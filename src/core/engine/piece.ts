import { problems } from "./problems";
import { keyOf } from "../base/key";
import { fail, ok, type Result } from "../base/result";
import { COINCIDENT, CONTACT } from "../geometry/tolerance";
import { axisDirections, turnAbout } from "../geometry/motion";
import { boxInFrame, dot, fromFrame, scale, sideFrame, v2, v3, type Box, type Frame, type Vec3 } from "../geometry/vec";
import type { Job, Setup } from "../job/schema";
import { evaluateNumber, type NumberScope } from "../number";
import { circle, polygonCorners, rectangleBetween, type Outline } from "../outline";
import type { BodyStep, SingleStep, SolidKernel } from "./kernel";
import { planeSource, withNamedPlanes } from "./namedPlanes";
import { placeStock, type PlacedStock } from "./placedStock";
import { frameOf, type Seat } from "./planes";
import type { SolvedRow } from "./solve";
import { planeOf } from "../rows/extent";

/** The piece at the start and at the end of a setup: keys of states. */
export interface PieceState {
  op: number;
  before: string;
  after: string;
  /** Rows it cuts, in order, those that can be made alone. */
  rows: SolvedRow[];
  /** Rows of it that could not be taken off the piece, and why. */
  missed: { row: SolvedRow; why: string }[];
}

/** What the piece is worked out from. */
export interface PieceInput {
  kernel: SolidKernel;
  job: Pick<Job, "setups" | "stock" | "planes" | "solids">;
  scope: NumberScope;
  rows: SolvedRow[];
  finalKey: string;
  nameOf: (id: string) => string;
}

const stepsOf = (row: SolvedRow): SingleStep[] =>
  row.placed?.step ? [row.placed.step, ...(row.placed.more ?? [])] : [];
const leaves = (row: SolvedRow): boolean => {
  const [step] = stepsOf(row);
  return step !== undefined && step.op === "leave";
};

/** A frame whose normal is up in a setup, its origin the job's zero dropped onto that plane. */
export function upFrame(up: Setup["up"], input: Omit<PieceInput, "rows"> & { rows: SolvedRow[] }): Result<Frame> {
  if (typeof up === "string") return ok(sideFrame(up, 0));
  if ("index" in up) {
    const angle = evaluateNumber(up.index, "angle", input.scope);
    if (!angle.ok) return angle;
    const back = turnAbout(v3(0, 0, 0), axisDirections[up.about], -angle.value.value);
    const { x, y, normal, origin } = sideFrame("top", 0);
    return ok({ origin, x: back.direction(x), y: back.direction(y), normal: back.direction(normal) });
  }
  const place = withNamedPlanes(planeOf(up.plane as object), planeSource(input.job, input.scope));
  if (!place.ok) return place;
  const { kernel, finalKey: key, nameOf } = input;
  const earlier: Seat["earlier"] = new Map(
    input.rows.flatMap((r) => (r.planes ? [[r.row.id, r.planes] as const] : [])),
  );
  const frame = frameOf(place.value, { kernel, key, earlier, nameOf });
  return frame.ok ? ok({ ...frame.value, origin: v3(0, 0, 0) }) : frame;
}

/** The section of a bar, seen along it. */
function sectionOf(stock: PlacedStock): Outline {
  const { box, diameter, flats, bore } = stock;
  const c = v2((box.min.x + box.max.x) / 2, (box.min.y + box.max.y) / 2);
  const at = (outer: Outline["outer"]): Outline["outer"] =>
    outer.map((s) =>
      s.kind === "arc"
        ? { ...s, centre: { x: s.centre.x + c.x, y: s.centre.y + c.y } }
        : {
            ...s,
            from: { x: s.from.x + c.x, y: s.from.y + c.y },
            to: { x: s.to.x + c.x, y: s.to.y + c.y },
          },
    );
  const holes = bore ? [at(circle(bore / 2))] : [];
  if (diameter !== undefined) return { outer: at(circle(diameter / 2)), holes };
  if (flats !== undefined) {
    const corners = polygonCorners(6, flats);
    return { outer: at(corners.map((from, i) => ({ kind: "line", from, to: corners[(i + 1) % 6] }))), holes };
  }
  return { outer: rectangleBetween(v2(box.min.x, box.min.y), v2(box.max.x, box.max.y)), holes };
}

/** Works the piece through its setups. */
class Piece {
  private readonly kernel: SolidKernel;
  constructor(private readonly input: PieceInput) {
    this.kernel = input.kernel;
  }

  /** A step on a state, under the key of both. */
  private put(from: string | null, step: SingleStep): Result<string> {
    const key = keyOf(from, step);
    const made = this.kernel.apply(key, from, step);
    return made.ok ? ok(key) : made;
  }
  /** One state less another; null where nothing is left of it. */
  private less(from: string, taken: string): Result<string | null> {
    const key = keyOf(from, { less: taken });
    const made = this.kernel.without(key, from, taken);
    return made.ok ? ok(made.value.volume > COINCIDENT ? key : null) : made;
  }

  /** All that is left, without any cut: what the leave rows stand for. */
  body(): Result<string> {
    let key: string | null = null;
    for (const row of this.input.rows.filter((r) => r.state === "ok" && leaves(r)))
      for (const step of stepsOf(row)) {
        const made = this.put(key, step);
        if (made.ok) key = made.value;
      }
    return key === null ? fail(problems.noPartToCut()) : ok(key);
  }

  stock(body: string): Result<string> {
    const { job, scope } = this.input;
    if (!job.stock) return ok(body);
    const from = { kernel: this.kernel, solids: job.solids };
    const placed = placeStock(job.stock, scope, this.kernel.measure(this.input.finalKey).box, from);
    if (!placed.ok) return placed;
    if (placed.value.solid) return this.put(null, placed.value.solid.step);
    const { min, max } = placed.value.box;
    return this.put(null, leaveOf(sideFrame("top", min.z), sectionOf(placed.value), max.z - min.z));
  }

  /**
   * What a setup takes of the stock round the part: all that stands over the part's lower side as it lies, whatever is
   * left of it below comes off when the piece is turned over.
   */
  surplus(piece: string, body: string, up: Frame): Result<string> {
    const box = boxInFrame(up, this.kernel.measure(piece).box);
    const low = -this.kernel.reach(body, scale(up.normal, -1));
    if (box.max.z <= low + CONTACT) return ok(piece);
    const at: Frame = { ...up, origin: fromFrame(up, v2(0, 0), -low) };
    const outer = rectangleBetween(v2(box.min.x - 1, box.min.y - 1), v2(box.max.x + 1, box.max.y + 1));
    const over = this.put(null, leaveOf(at, { outer, holes: [] }, box.max.z - low + 1));
    if (!over.ok) return over;
    const waste = this.less(over.value, body);
    if (!waste.ok) return waste;
    if (waste.value === null) return ok(piece);
    const left = this.less(piece, waste.value);
    return left.ok ? ok(left.value ?? piece) : left;
  }

  /** What a row takes off a piece: its tools, or where it has none of its own what it took from the part. */
  cut(piece: string, row: SolvedRow, before: string | null): Result<string> {
    const steps = stepsOf(row);
    if (steps.length && steps.every((s): s is BodyStep => s.op === "cut")) {
      let key = piece;
      for (const step of steps) {
        const made = this.put(key, step);
        if (!made.ok) return made;
        key = made.value;
      }
      return ok(key);
    }
    if (!before || !row.key || before === row.key) return ok(piece);
    const taken = this.less(before, row.key);
    if (!taken.ok) return taken;
    if (taken.value === null) return ok(piece);
    const left = this.less(piece, taken.value);
    return left.ok ? ok(left.value ?? piece) : left;
  }
}

const leaveOf = (frame: Frame, outline: Outline, height: number): BodyStep => ({
  op: "leave",
  row: "stock",
  frame,
  body: { body: "prism", outline, from: 0, to: -height },
  places: [v2(0, 0)],
});

/** The rows of a setup: those it names, or where it names none all that no other one does. */
export function rowsOfSetup(setup: Setup, setups: Setup[], rows: SolvedRow[]): SolvedRow[] {
  const made = rows.filter((r) => r.state === "ok");
  if (setup.rows) return setup.rows.flatMap((id) => made.filter((r) => r.row.id === id));
  const others = new Set(setups.flatMap((s) => s.rows ?? []));
  return made.filter((r) => !others.has(r.row.id));
}

/** Whether a row is engraved with tools of its own, that take the same whatever was cut before. */
const isEngraving = (row: SolvedRow): boolean => {
  const steps = stepsOf(row);
  return row.feature?.is === "engraving" && steps.length > 0 && steps.every((s) => s.op === "cut");
};

/** The piece from setup to setup, the stock first (as setup 0): each starts from what the one before it left. */
export function pieceStates(input: PieceInput): Result<PieceState[]> {
  const piece = new Piece(input);
  const body = piece.body();
  if (!body.ok) return body;
  const stock = piece.stock(body.value);
  if (!stock.ok) return stock;
  const states: PieceState[] = [{ op: 0, before: stock.value, after: stock.value, rows: [], missed: [] }];
  const setups = input.job.setups ?? [];
  // Engraving is put on last of all, however early it is cut: whatever else is cut meets far fewer faces so.
  const engraved: SolvedRow[] = [];
  let bare = stock.value;
  let before = stock.value;
  for (const setup of setups) {
    const rows = rowsOfSetup(setup, setups, input.rows);
    const missed: PieceState["missed"] = [];
    const up = upFrame(setup.up, input);
    if (up.ok)
      for (const row of rows) {
        if (isEngraving(row)) {
          if (!engraved.includes(row)) engraved.push(row);
          continue;
        }
        const made = leaves(row)
          ? piece.surplus(bare, body.value, up.value)
          : piece.cut(bare, row, keyBefore(row, input.rows));
        // What cannot be worked out is left standing, and said.
        if (made.ok) bare = made.value;
        else missed.push({ row, why: made.problems[0].message });
      }
    let after = bare;
    for (const row of engraved) {
      const made = piece.cut(after, row, keyBefore(row, input.rows));
      if (made.ok) after = made.value;
      else if (rows.includes(row)) missed.push({ row, why: made.problems[0].message });
    }
    states.push({ op: setup.op, before, after, rows, missed });
    before = after;
  }
  return ok(states);
}

const keyBefore = (row: SolvedRow, rows: SolvedRow[]): string | null => rows[rows.indexOf(row) - 1]?.key ?? null;

/** How far a state reaches, as a box in a frame: asked in each direction, so that it is exact however it is turned. */
export function boxOfState(kernel: SolidKernel, key: string, frame: Frame): Box {
  const most = (d: Vec3) => kernel.reach(key, d) - dot(frame.origin, d);
  const least = (d: Vec3) => -kernel.reach(key, scale(d, -1)) - dot(frame.origin, d);
  const { x, y, normal } = frame;
  return { min: v3(least(x), least(y), least(normal)), max: v3(most(x), most(y), most(normal)) };
}
