import { dot, length, sub } from "../../geometry/vec";
import { numberScope, reportNumbers } from "../../engine/numbers";
import type { EdgeInfo, FaceInfo } from "../../engine/kernel";
import type { Solved, SolvedRow } from "../../engine/solve";
import type { Balloon, Job } from "../../job/schema";
import { drivingValue } from "../../balloons/tolerance";
import type { Claim } from "../claims";
import { chamferLegs, pieceOf, treatedFaces, type NumberSlope } from "./edgeDimensions";
import { arcAngles, circlesOf, isEven } from "./circles";
import { growsBothWays } from "./halves";
import { waysOfOne, waysOfTwo, type Between, type Family, type Measure } from "./measure";
import { modelOf, type PartModel } from "./model";
import { depthFromCrest } from "./crest";
import { Mouths } from "./mouths";
import { Moves, stepOf, type Use } from "./moves";
import { realOf, Solid, type Real } from "./real";
import type { Shape, Surface } from "./surfaces";
import { isFigured, rowFigures } from "./rowFigures";
import { isMiddle, isSameCopy, pairOf, isCornerOf, isSameFlat, axisKey } from "./pairs";
import { isZero, zeroEnds, zeroSurfaces, type ZeroEnd } from "./zero";
import { COINCIDENT, CONTACT, DISPLAY, PARALLEL } from "../../geometry/tolerance";

/** Something on the solid that was measured, and how it answers to one balloon. */
export interface Dimension {
  /** Measured on the solid, mm or radians. */
  value: number;
  family: Family | "leg" | "depth";
  between: Between;
  words: string;
  /** Rows whose faces it took, and the same in words. */
  rows: string[];
  rowWords: string;
  /** Surfaces it took; a copy counts once. */
  of: (Pick<Surface, "id" | "row" | "instance" | "role"> & Real & { looksBack: boolean })[];
  /** Whether it is taken to an axis or to a middle: half of such a one can be a place, half of a size is none. */
  centred: boolean;
  /** How much it grows when the balloon grows by one, all else as it is. */
  slope: number;
  /** Between corners: whether no two of the same body are farther apart. */
  widest: boolean;
  /** Whether it changes when these surfaces move, all else as it is. */
  answersTo(moved: Map<string, Shape>): boolean;
  /** Whether no other balloon has a part in it. Worked out when it is asked for. */
  alone(): boolean;
}

const MOST_COPIES = 16;
const MOST_MOVING = 48;
/**
 * What the numbers of a job size on its solid. A measurement is a balloon's dimension when it grows with that
 * balloon, one for one,
 * and with no other: then it is that dimension and nothing that merely agrees. What moves is worked out on the rows'
 * own geometry
 * with the balloon's number moved a little; what is measured is measured on the solid's faces, found by the row and
 * copy that made them.
 */
export class Dimensions {
  private readonly model: PartModel;
  private readonly numbers: Map<string, number>;
  readonly solid: Solid;
  private readonly real = new Map<string, Real | null>();
  private readonly inModel = new Map<number, boolean>();
  private readonly usable: Surface[];
  private readonly moves: Moves;
  private readonly mouths: Mouths;
  private readonly driving = new Map<number, number | null>();
  private readonly rowIds = new Map<number, Set<string>>();
  private readonly zeros: Surface[];
  private readonly zero: Map<string, ZeroEnd | null>;
  private readonly byCopy = new Map<string, Surface[]>();

  constructor(
    private readonly job: Job,
    solved: Solved,
    faces: FaceInfo[],
    edges: EdgeInfo[],
    private readonly citing: Map<number, SolvedRow[]>,
    private readonly ancestors: Map<number, Set<number>>,
  ) {
    this.model = modelOf(solved.rows);
    this.numbers = new Map(solved.rows.map((r) => [r.row.id, r.number]));
    this.solid = new Solid(faces, edges);
    this.moves = new Moves(job, solved, this.model, citing);
    this.mouths = new Mouths(this.model, this.solid);
    for (const s of this.model.surfaces.values()) {
      const copy = `${s.row}/${s.instance}`;
      this.byCopy.set(copy, [...(this.byCopy.get(copy) ?? []), s]);
    }
    this.zeros = zeroSurfaces(this.model);
    this.zero = zeroEnds(this.zeros, this.model, this.solid, (id) => this.standing(id) !== null);
    this.usable = [...this.model.surfaces.values()].filter(
      (s) => s.instance < MOST_COPIES && this.standing(s.id) !== null,
    );
  }

  /** Surfaces that a number moves and that stand: all copies where they are few, else the first of them. */
  private movingOf(moved: Map<string, Shape>): Surface[] {
    const all = [...moved.keys()].map((id) => this.model.surfaces.get(id)!);
    if (all.length > MOST_MOVING) return this.usable.filter((s) => moved.has(s.id));
    return all.filter((s) => this.standing(s.id) !== null);
  }

  /** Faces a dimension was read from; of an edge that was treated, all that row made. */
  facesOf(d: Dimension): Claim["on"] {
    const tags = d.of.length
      ? d.of.flatMap((o) => o.tags)
      : d.rows.flatMap((r) => this.solid.ofRow(r).map((f) => f.tag!));
    return [...new Map(tags.map((t) => [`${t.row}/${t.instance}/${t.role}`, t])).values()];
  }
  rowsOfDimension = (d: Dimension): string[] => d.rows;
  rowNumber = (id: string): number | null => this.mouths.rowOf(id)?.row.number ?? this.numbers.get(id) ?? null;

  /** The numbers that a balloon alone makes. */
  uses = (balloon: Balloon, rows: SolvedRow[]): Use[] => this.moves.uses(balloon, rows);

  /** All that answers to a balloon: surfaces its number moves, measured alone and against all others. */
  of(balloon: Balloon): Dimension[] {
    const move = this.moves.move(balloon);
    if (!move) return [];
    const moving = this.movingOf(move.shapes);
    const movingIds = new Set(moving.map((s) => s.id));
    const ends = [...this.usable, ...this.zeros.filter((z) => this.zero.get(z.id))];
    const measures: Measure[] = [];
    for (const s of moving) {
      measures.push(
        ...waysOfOne(s.shape).map((w): Measure => ({ ...w, ids: [s.id], of: (get) => w.of(get(s.id), get(s.id)) })),
      );
      if (balloon.kind === "angle") measures.push(...arcAngles(this.model, s, this.copyOf(s)));
      const isHalf = growsBothWays(s, this.copyOf(s), move.shapes);
      for (const t of ends) {
        if (t === s || (movingIds.has(t.id) && t.id < s.id) || !this.mouths.mayPair(s, t)) continue;
        if (isHalf && !movingIds.has(t.id) && (isMiddle(t) || isSameCopy(s, t))) continue;
        if (t.role === "middle" && isSameCopy(s, t)) continue;
        if (this.isOfItsWalls(s, t) || this.isOfItsWalls(t, s)) continue;
        if (isSameCopy(s, t) && isCornerOf(s, t, this.copyOf(s))) continue;
        measures.push(
          ...pairOf(s, t).filter((m) => m.between !== "overRound" || !(this.isBored(s) || this.isBored(t))),
        );
      }
    }
    const flats = ends.filter((t) => t.shape.is === "plane" && t.role !== "middle");
    measures.push(
      ...circlesOf(this.model, movingIds, (id) => this.standing(id) !== null, flats),
      ...this.depths(moving),
    );
    const found = measures.flatMap((m) => this.dimension(m, balloon, move.step, move.shapes));
    return [...found, ...this.ofRows(balloon)];
  }

  /** A hole that is round all about: nothing on a print is measured over its far side. */
  private isBored = (s: Surface): boolean =>
    (s.shape.is === "cylinder" || s.shape.is === "ring") &&
    this.mouths.rowOf(s.row)?.recipe.op === "cut" &&
    this.standing(s.id)?.whole === true;
  /**
   * Whether a flat or a round edge lies where a wall of a middle's own body stands: half of that body's size is between
   * them.
   */
  private isOfItsWalls(middle: Surface, other: Surface): boolean {
    if (middle.role !== "middle") return false;
    const { shape } = other;
    return this.flatsOf(middle).some((w) => {
      if (shape.is !== "plane")
        return (
          Math.abs(dot(w.normal, shape.direction)) > PARALLEL &&
          Math.abs(dot(shape.origin, w.normal) - w.offset) < CONTACT
        );
      const c = dot(w.normal, shape.normal);
      return Math.abs(c) > PARALLEL && Math.abs(c * w.offset - shape.offset) < CONTACT;
    });
  }
  /** Whether the face of a flat looks against the flat's own direction: walls of cuts, undersides of what is left. */
  private looksBack(row: string, role: Surface["role"]): boolean {
    const op = this.mouths.rowOf(row)?.recipe.op;
    return (role === "wall" && op === "cut") || (role === "start" && op === "leave");
  }
  private copyOf = (s: Surface): Surface[] => this.byCopy.get(`${s.row}/${s.instance}`) ?? [];

  private dimension(m: Measure, balloon: Balloon, step: number, shapes: Map<string, Shape>): Dimension[] {
    const base = (id: string): Shape => this.shape(id);
    const now = m.of(base);
    const then = m.of((id) => shapes.get(id) ?? base(id));
    if (now === null || then === null) return [];
    const slope = (then - now) / step;
    if (Math.abs(slope) < 1e-3) return [];
    const value = m.of((id) => this.standing(id)!.shape);
    if (value === null) return [];
    const of = m.ids
      .filter((id) => !isZero(id))
      .map((id) => {
        const { row, instance, role } = this.model.surfaces.get(id)!;
        return { id, row, instance, role, looksBack: this.looksBack(row, role), ...this.standing(id)! };
      });
    if (!this.isMeant(m, now, balloon) || !this.reaches(m, value)) return [];
    const centred =
      m.ids.some((id) => {
        const s = this.model.surfaces.get(id);
        return s !== undefined && (s.role === "middle" || (s.shape.is !== "plane" && s.shape.is !== "corner"));
      }) && m.ids.length > 1;
    return [
      {
        value,
        family: m.family,
        between: m.between,
        words: m.words,
        rows: [...new Set(of.map((o) => o.row))],
        rowWords: this.rowWords(
          of.map((o) => o.row),
          m.ids.find(isZero),
        ),
        of,
        centred,
        slope,
        widest: m.between === "corners" && this.isWidest(m.ids, now),
        answersTo: (moved) => {
          if (!m.ids.some((id) => moved.has(id))) return false;
          const then = m.of((id) => moved.get(id) ?? base(id));
          // A circle that one of its holes has left is changed as well.
          return then === null || Math.abs(then - now) > 1e-3 * step;
        },
        ...lazily(() => this.alone(m, balloon, now)),
      },
    ];
  }

  /** Whether a round wall that is measured over goes as far as that: a corner's round does not. */
  private reaches(m: Measure, value: number): boolean {
    if (m.between !== "overRound") return true;
    const ends = m.ids.map((id) => this.standing(id));
    const box = ends.find((e) => e?.box)?.box;
    const flat = ends.find((e) => e?.shape.is === "plane")?.shape;
    if (!box || flat?.is !== "plane") return true;
    const { normal, offset } = flat;
    const far = (towards: 1 | -1) =>
      (["x", "y", "z"] as const).reduce(
        (sum, k) => sum + normal[k] * box[normal[k] * towards > 0 ? "max" : "min"][k],
        0,
      );
    return [far(1), far(-1)].some((level) => Math.abs(Math.abs(level - offset) - value) < DISPLAY);
  }

  private isWidest(ids: string[], now: number): boolean {
    const [first] = ids.map((id) => this.model.surfaces.get(id));
    const corners = first
      ? this.copyOf(first).flatMap(({ shape }) => (shape.is === "corner" ? [shape.origin] : []))
      : [];
    return corners.every((p) => corners.every((q) => length(sub(p, q)) < now + CONTACT));
  }

  /**
   * Whether a measure is meant by a balloon and does not only answer to it. Between faces of the rows made from it,
   * it is. To a face of another row,
   * or from the job's zero, it is when the model has just that figure there, or that face stands where one of its
   * own has gone;
   * and where the model has that figure nowhere, the number is used wrongly and all that answers may tell.
   */
  private isMeant(m: Measure, now: number, balloon: Balloon): boolean {
    const own = this.rowsOf(balloon);
    const others = m.ids.filter((id) => !own.has(this.model.surfaces.get(id)?.row ?? ""));
    if (!others.length || m.family === "depth" || this.isDriven(now, balloon) || !this.standsInModel(balloon))
      return true;
    return others.every((id) => this.replacesOwn(this.model.surfaces.get(id), own));
  }

  private rowsOf(balloon: Balloon): Set<string> {
    const known = this.rowIds.get(balloon.number);
    if (known) return known;
    // A repeat's own numbers size what it takes again.
    const made = new Set(
      (this.citing.get(balloon.number) ?? []).flatMap((r) =>
        r.recipe?.op === "repeat" ? [r.row.id, ...r.recipe.rows] : [r.row.id],
      ),
    );
    this.rowIds.set(balloon.number, made);
    return made;
  }
  private isDriven(figure: number, balloon: Balloon): boolean {
    if (!this.driving.has(balloon.number)) {
      const made = drivingValue(balloon, this.job, numberScope(this.job));
      this.driving.set(balloon.number, made.ok ? made.value : null);
    }
    const driven = this.driving.get(balloon.number);
    return driven !== null && driven !== undefined && Math.abs(figure - driven) < CONTACT;
  }

  /** Whether the rows made from a balloon have its figure somewhere in the model, on the solid or cut away since. */
  private standsInModel(balloon: Balloon): boolean {
    const known = this.inModel.get(balloon.number);
    if (known !== undefined) return known;
    const move = this.moves.move(balloon)!;
    const own = this.rowsOf(balloon);
    const mine = [...this.model.surfaces.values()].filter((s) => own.has(s.row) && s.instance < MOST_COPIES);
    const ways = mine
      .filter((s) => move.shapes.has(s.id))
      .flatMap((s) => [
        ...waysOfOne(s.shape).map((w): Measure => ({ ...w, ids: [s.id], of: (get) => w.of(get(s.id), get(s.id)) })),
        ...[...mine, ...this.zeros]
          .filter((t) => t !== s)
          .flatMap((t) =>
            waysOfTwo(s.shape, t.shape).map((w): Measure => ({
              ...w,
              ids: [s.id, t.id],
              of: (get) => w.of(get(s.id), get(t.id)),
            })),
          ),
      ]);
    const found = ways.some((m) => {
      const now = m.of((id) => this.shape(id));
      if (now === null || !this.isDriven(now, balloon)) return false;
      const then = m.of((id) => move.shapes.get(id) ?? this.shape(id));
      return then !== null && Math.abs((then - now) / move.step - 1) < 2e-3;
    });
    this.inModel.set(balloon.number, found);
    return found;
  }

  /** Whether a flat looks the way a flat of these rows looked that is no longer there. */
  private replacesOwn(s: Surface | undefined, own: Set<string>): boolean {
    const shape = s?.shape;
    if (shape?.is !== "plane") return false;
    return [...this.model.surfaces.values()].some(
      (o) =>
        own.has(o.row) &&
        o.shape.is === "plane" &&
        dot(o.shape.normal, shape.normal) > PARALLEL &&
        this.standing(o.id) === null,
    );
  }

  private rowWords(ids: string[], zero: string | undefined): string {
    const numbers = [...new Set(ids)].map((id) => this.mouths.rowOf(id)?.row.number ?? 0).sort((a, b) => a - b);
    return `row ${numbers.join(" and ")}${zero ? `, from the job's zero: ${this.zero.get(zero)?.words}` : ""}`;
  }

  private shape(id: string): Shape {
    return (this.model.surfaces.get(id) ?? this.zeros.find((z) => z.id === id)!).shape;
  }

  /** The surface as it stands on the solid; null when nothing of it is left. */
  private standing(id: string): Real | null {
    if (isZero(id)) {
      const shape = this.shape(id);
      const end = this.zero.get(id);
      return end && shape.is === "plane" ? { shape: { ...shape, offset: end.offset }, whole: true, tags: [] } : null;
    }
    const known = this.real.get(id);
    if (known !== undefined) return known;
    const s = this.model.surfaces.get(id)!;
    const found = realOf(s, this.solid, (other) => this.standing(other)) ?? this.merged(s);
    this.real.set(id, found);
    return found;
  }

  /**
   * A flat that has become one with that of another body that was left beside it: the kernel keeps one face for both.
   * Only bodies that have flats in two directions in common are taken for that.
   */
  private merged(s: Surface): Real | null {
    const own = this.isLeft(s) && s.shape.is === "plane" && s.role !== "middle" ? this.flatsOf(s) : [];
    if (!own.length) return null;
    for (const t of this.model.surfaces.values()) {
      if (t.row === s.row || !isSameFlat(s.shape, t.shape) || !this.isLeft(t)) continue;
      const shared = own.filter((a) => this.flatsOf(t).some((b) => isSameFlat(a, b)));
      const isBeside = shared.some((a) => shared.some((b) => Math.abs(dot(a.normal, b.normal)) < PARALLEL));
      const real = isBeside ? realOf(t, this.solid, () => null) : null;
      if (real) return real;
    }
    return null;
  }
  private isLeft = (s: Surface): boolean => this.mouths.rowOf(s.row)?.recipe.op === "leave";
  private flatsOf = (s: Surface) =>
    this.copyOf(s).flatMap(({ shape, role }) => (shape.is === "plane" && role !== "middle" ? [shape] : []));

  /**
   * How many round walls a balloon sizes, all copies: those that go all round for a diameter. @returns null when it
   * sizes none
   */
  count(balloon: Balloon, family: "diameter" | "radius", right: (value: number) => boolean): number | null {
    const move = this.moves.move(balloon);
    if (!move) return null;
    // Pieces of one wall that a row makes twice (both arcs of a round end) are one.
    const there = new Set<string>();
    let any = false;
    for (const id of move.shapes.keys()) {
      const s = this.model.surfaces.get(id)!;
      if (s.shape.is !== "cylinder") continue;
      const factor = family === "diameter" ? 2 : 1;
      const moved = move.shapes.get(id)!;
      if (moved.is !== "cylinder" || Math.abs((factor * (moved.radius - s.shape.radius)) / move.step - 1) > 2e-3)
        continue;
      any = true;
      const real = this.standing(id);
      if (real?.shape.is === "cylinder" && right(factor * real.shape.radius) && (family === "radius" || real.whole))
        there.add(`${s.row}/${s.instance}/${axisKey(s.shape)}`);
    }
    return any ? there.size : null;
  }

  /** Whether the copies of a row stand evenly round a circle; null where they stand on none. */
  spacing = (row: string): boolean | null => isEven(this.model, row, (id) => this.standing(id) !== null);

  /** Both legs of every chamfer a balloon sizes: of edges, or of an outline's corners. */
  chamfers(balloon: Balloon, rows: SolvedRow[]): [number, number][] {
    const treated = rows.filter((r) => r.recipe?.op === "edges").flatMap((r) => treatedFaces(r.row.id, this.solid));
    const cut = [...(this.moves.move(balloon)?.shapes.keys() ?? [])].flatMap((id) => {
      const s = this.model.surfaces.get(id)!;
      return s.shape.is === "plane" && s.role === "wall" ? this.solid.faceAt(s) : [];
    });
    return [...treated, ...cut].flatMap((f): [number, number][] => {
      const legs = chamferLegs(f, this.solid);
      return legs.length === 2 ? [[legs[0].size, legs[1].size]] : [];
    });
  }

  /** How many rounds of edges have a radius that is right. */
  rounds = (rows: string[], right: (value: number) => boolean): number =>
    rows.reduce(
      (n, row) =>
        n +
        new Set(
          treatedFaces(row, this.solid).flatMap((f) => (f.radius !== undefined && right(f.radius) ? [pieceOf(f)] : [])),
        ).size,
      0,
    );
  /** What a row of edges made: how many faces, and how many runs of faces that go on into one another. */
  treated(row: string): { faces: number; runs: number } {
    const faces = treatedFaces(row, this.solid);
    const open = new Set(faces);
    let runs = 0;
    for (const f of faces) {
      if (!open.delete(f)) continue;
      runs++;
      const next = [f];
      while (next.length)
        for (const { face } of this.solid.besides(next.pop()!)) if (open.delete(face)) next.push(face);
    }
    return { faces: new Set(faces.map(pieceOf)).size, runs };
  }

  /** Whether no other balloon moves a measure; one that a balloon is itself made from does not count. */
  private alone(m: Measure, balloon: Balloon, now: number): boolean {
    const own = this.ancestors.get(balloon.number);
    return this.job.balloons.every((b) => {
      if (b.number === balloon.number || own?.has(b.number)) return true;
      const move = this.moves.move(b);
      if (!move || !m.ids.some((id) => move.shapes.has(id))) return true;
      const then = m.of((id) => move.shapes.get(id) ?? this.shape(id));
      return then !== null && Math.abs(then - now) < 1e-3 * move.step;
    });
  }

  /** Depths: from the mouth down to a floor or to the end of a round wall; out of a round from where the axis meets it. */
  private depths(moving: Surface[]): Measure[] {
    return moving.flatMap((s): Measure[] => {
      const frame = this.mouths.frameOf(s.row);
      const op = this.mouths.rowOf(s.row)?.recipe.op;
      if (!frame || s.role !== "floor" || (op !== "cut" && op !== "step")) return [];
      const levels = this.mouths.mouths(s);
      if (!levels.length) return depthFromCrest(s, this.usable, this.solid.crestOf(s.row, s.instance));
      return levels.flatMap((mouth): Measure[] => {
        const top = this.usable.find(
          (t) =>
            t.shape.is === "plane" &&
            t.role !== "middle" &&
            Math.abs(Math.abs(dot(t.shape.normal, frame.normal)) - 1) < COINCIDENT &&
            Math.abs(dot(t.shape.normal, frame.normal) * t.shape.offset - mouth) < CONTACT &&
            this.solid.looksAlong(t, frame.normal),
        );
        if (!top) return [];
        const level = (shape: Shape) =>
          shape.is === "plane" ? dot(shape.normal, frame.normal) * shape.offset : dot(shape.origin, frame.normal);
        return [
          {
            family: "depth",
            between: "mouth",
            words: "from its mouth",
            ids: [s.id, top.id],
            of: (get) => level(get(top.id)) - level(get(s.id)),
          },
        ];
      });
    });
  }

  private ofRows(balloon: Balloon): Dimension[] {
    const rows = (this.citing.get(balloon.number) ?? []).filter((r) => isFigured(r.recipe));
    if (!rows.length || balloon.kind === "count" || balloon.reference) return [];
    const slopeOf = (r: SolvedRow, b: Balloon): NumberSlope[] => {
      const { step, by } = stepOf(b, this.job);
      const moved = reportNumbers(r.row.body, numberScope(this.job, { balloon: b.number, by }));
      return r.numbers.map((n, i) => ({
        path: n.path,
        value: n.value?.value ?? 0,
        slope: ((moved[i]?.value?.value ?? 0) - (n.value?.value ?? 0)) / step,
      }));
    };
    const own = this.ancestors.get(balloon.number);
    return rows.flatMap((r) => {
      const others = this.job.balloons.filter(
        (b) =>
          b.number !== balloon.number &&
          !own?.has(b.number) &&
          this.citing.get(b.number)?.includes(r) &&
          b.kind !== "count" &&
          b.kind !== "thread",
      );
      const shared = new Set(
        others.flatMap((b) =>
          slopeOf(r, b)
            .filter((n) => Math.abs(n.slope) > CONTACT)
            .map((n) => n.path),
        ),
      );
      return slopeOf(r, balloon).flatMap((n) =>
        rowFigures(r, n, this.solid).map((d): Dimension => ({
          ...d,
          rowWords: `row ${r.number}`,
          widest: false,
          answersTo: () => true,
          alone: () => !shared.has(n.path),
        })),
      );
    });
  }
}

/** Worked out once, and only when somebody asks: most measurements are set aside before. */
function lazily(work: () => boolean): { alone: () => boolean } {
  let known: boolean | null = null;
  return { alone: () => (known ??= work()) };
}
