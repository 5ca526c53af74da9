import { compoundOf, crossingOf, kept, planeName, wayName } from "./crossing";
import { problems } from "./problems";
import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { fail, ok, type Result } from "@/core/base/result";
import { type Box, length, sub, v3, type Frame, type Vec3 } from "@/core/geometry/vec";
import type { MeasuredEdge } from "@/core/outline/fromPart";
import type {
  BodyStep,
  CopiesStep,
  DrawnLine,
  EdgeInfo,
  FaceInfo,
  KernelStep,
  Mesh,
  SingleStep,
  SolidKernel,
  StateMeasure,
  View,
} from "@/core/engine/kernel";
import { copiesOf, plateOf, type Tagged } from "./bodies";
import { hiddenLineDrawing } from "./drawing";
import { boolean } from "./booleans";
import { copied } from "./copied";
import { treatEdges } from "./edgeTreatment";
import { volumeOfGaps } from "./gaps";
import { insert } from "./insertion";
import { boxIn } from "./fitted";
import { Library } from "./library";
import { levelFrame, passagesOf, stretchesOf } from "./passages";
import { hollowed } from "./shell";
import { emptyMesh, extractMesh, joinMeshes } from "./meshing";
import { kernelMessage, scope, type OC } from "./oc";
import { cannotBe } from "./resultCheck";
import { boxBefore } from "./sectionBox";
import { State } from "./state";
import { boxOfTools, toolSolids, type Tools } from "./toolSolids";
import { laidAt, writeStep } from "./stepFile";
import {
  boxOfShape,
  countShells,
  countSolids,
  edgesOf,
  facesOf,
  freeEdges,
  measureCurve,
  samples,
  ShapeMap,
} from "./topology";
import { COINCIDENT } from "@/core/geometry/tolerance";

/** What a step made, and the most volume its tools can have taken or added. */
type Made = Tagged & { most?: number };

interface KernelOptions {
  /** Whether cuts wholly inside a flat are put in without a boolean. Off for what both ways are compared by. */
  inserts: boolean;
}

/** States kept besides those of the job as it is: what undo, redo and stepping come back to. */
const SPARE_STATES = 120;
const MOST_MEMORY = 1.2e9;

/** Copies drawn of rows that are being typed. */
const MOST_GHOSTS = 200;

/** The solid kernel on OpenCASCADE's own classes. One instance holds the states of one worker or server. */
export class OpenCascadeKernel implements SolidKernel {
  private states = new Map<string, State>();
  private brokenDown = false;
  /**
   * The library has run into its own memory, or has grown past what a bench PC spares: a new one must take its
   * place.
   */
  get broken(): boolean {
    return (
      this.brokenDown || (this.oc as { wasmMemory: WebAssembly.Memory }).wasmMemory.buffer.byteLength > MOST_MEMORY
    );
  }
  private library: Library;
  constructor(
    private oc: OC,
    private options: KernelOptions = { inserts: true },
  ) {
    this.library = new Library(oc);
  }

  has(key: string): boolean {
    return this.states.has(key);
  }
  private state(key: string): State {
    const s = this.states.get(key);
    if (!s) throw new Error(`no state ${key}`);
    // The least recently used state is the first to go.
    this.states.delete(key);
    this.states.set(key, s);
    return s;
  }

  apply(key: string, from: string | null, step: KernelStep): Result<StateMeasure> {
    const known = this.states.get(key);
    if (known) return ok(known.measure);
    try {
      const before = from === null ? null : this.state(from);
      const made = step.op === "copies" ? this.copied(before, step) : this.stepped(before, step);
      if (!made.ok) return made;
      this.states.set(key, made.value);
      return ok(made.value.measure);
    } catch (e) {
      this.brokenDown ||= e instanceof WebAssembly.RuntimeError || e instanceof RangeError;
      return fail(problems.cannotDo(kernelMessage(this.oc, e)), {
        expected: "other sizes or another place",
      });
    }
  }

  hasFile(content: string): boolean {
    return this.library.stepSolids.has(content);
  }
  giveFile(content: string, bytes: Uint8Array): void {
    this.library.stepSolids.give(content, bytes);
  }
  fileBox(content: string, file: string): Result<Box> {
    try {
      return this.library.stepSolids.box(content, file);
    } catch (e) {
      this.brokenDown ||= e instanceof WebAssembly.RuntimeError || e instanceof RangeError;
      return fail(problems.cannotDo(kernelMessage(this.oc, e)), { path: "file" });
    }
  }

  without(key: string, from: string, taken: string): Result<StateMeasure> {
    const known = this.states.get(key);
    if (known) return ok(known.measure);
    try {
      const made = boolean(this.oc, "cut", this.state(from), [this.state(taken)]);
      if (!made.ok) return made;
      const measure = this.measureShape(made.value.shape);
      if (measure.solids > 0) this.states.set(key, State.ofShape(this.oc, this.library.handles, made.value, measure));
      else made.value.shape.delete();
      return ok(measure);
    } catch (e) {
      this.brokenDown ||= e instanceof WebAssembly.RuntimeError || e instanceof RangeError;
      return fail(problems.cannotTakeOff(kernelMessage(this.oc, e)));
    }
  }

  together(key: string, bodies: { key: string; place: Frame }[]): void {
    if (this.states.has(key)) return;
    const shape = scope((own) =>
      compoundOf(
        this.oc,
        bodies.map((b) => own(laidAt(this.oc, this.state(b.key).shape, b.place))),
      ),
    );
    const faces = facesOf(this.oc, shape);
    faces.forEach((f) => f.delete());
    const made = { shape, tags: faces.map(() => null) };
    this.states.set(key, State.ofShape(this.oc, this.library.handles, made, this.measureShape(shape)));
  }

  /** A state with a cut put in by topology; null where only a boolean will do. */
  private inserted(from: State, step: BodyStep): State | null {
    if (!this.options.inserts) return null;
    if (from.host === undefined) {
      const single = from.measure.solids === 1 && countShells(this.oc, from.shape) === 1;
      from.host = single ? { faces: from.faces, tags: from.tags, around: new Map() } : null;
    }

    const put = from.host && insert(this.library, from.host, step);
    if (!put) return null;
    const { tags, faces, around } = put;
    const measure = { ...from.measure, volume: from.measure.volume - put.removed };
    const state = State.ofFaces(this.oc, this.library.handles, faces, tags, measure);
    state.flats = from.flats?.concat(this.flatsOf(faces, from.tags.length));
    state.host = { faces, tags, around };
    this.library.faces.atHand = Math.max(this.library.faces.atHand, faces.length);
    return state;
  }
  private flatsOf(faces: TopoDS_Face[], start: number) {
    return faces.slice(start).flatMap((f, i) => {
      const flat = this.library.faces.flat(f);
      return flat ? [{ ...flat, face: start + i }] : [];
    });
  }

  /** One step, put in by topology where it can be, checked against what it can have taken or added. */
  private stepped(before: State | null, step: SingleStep): Result<State> {
    const put = before && step.op === "cut" ? this.inserted(before, step) : null;
    if (put) return ok(put);
    const made = this.make(before, step);
    return made.ok ? this.checked(before, step, made.value) : made;
  }

  private checked(before: State | null, step: Pick<KernelStep, "op">, made: Made): Result<State> {
    const measure = this.measureShape(made.shape);
    const wrong = before === null ? null : cannotBe(step, before.measure, measure, made.most);
    const nothing = measure.solids === 0 || !(measure.volume > COINCIDENT);
    if (!wrong && !nothing) return ok(State.ofShape(this.oc, this.library.handles, made, measure));
    made.shape.delete();
    return wrong ?? fail(problems.nothingLeft());
  }

  private copied(from: State | null, { steps }: CopiesStep): Result<State> {
    if (!from) return fail(problems.noPartYet());
    const ways = {
      inserted: (at: State, step: BodyStep) => this.inserted(at, step),
      joined: (at: State, some: BodyStep[]) => this.addedOrTaken(at, some),
      boxOf: (step: BodyStep) => boxOfTools(this.library, step),
    };
    return copied(ways, from, steps);
  }

  /** Steps of one kind by one boolean. */
  private addedOrTaken(from: State, steps: BodyStep[]): Result<State> {
    const sets: Tools[] = [];
    try {
      for (const step of steps) {
        const made = toolSolids(this.library, from, step, this.options.inserts);
        if (!made.ok) return made;
        sets.push(made.value);
      }
      const made = boolean(
        this.oc,
        steps[0].op,
        from,
        sets.flatMap((s) => s.tools),
      );
      const most = sets.reduce((sum, s) => sum + s.most, 0);
      return made.ok ? this.checked(from, steps[0], { ...made.value, most }) : made;
    } finally {
      for (const set of sets) set.free();
    }
  }

  private make(from: State | null, step: SingleStep): Result<Made> {
    const { oc } = this;
    if (step.op === "plate") return ok(plateOf(oc, step));
    if (step.op === "shell") return from ? hollowed(oc, from, step) : fail(problems.noPartYet());
    if (step.op === "edges") return from ? treatEdges(this.library, from, step) : fail(problems.noPartYet());
    const made = toolSolids(this.library, from, step, this.options.inserts);
    if (!made.ok) return made;
    const { tools, most, free } = made.value;
    if (!from) return this.begun(step, tools);
    try {
      const joined = boolean(oc, step.op, from, tools);
      return joined.ok ? ok({ ...joined.value, most }) : joined;
    } finally {
      free();
    }
  }

  /** The first body of a part. */
  private begun(step: BodyStep, [first, ...rest]: Tagged[]): Result<Made> {
    if (step.op === "cut") return fail(problems.nothingToCut());
    return rest.length ? boolean(this.oc, "leave", first, rest) : ok(first);
  }

  private measureShape(shape: TopoDS_Shape): StateMeasure & { precision?: number } {
    const { oc } = this;
    const solids = countSolids(oc, shape);
    if (solids === 0) return { volume: 0, solids, box: { min: v3(0, 0, 0), max: v3(0, 0, 0) } };
    const faces = facesOf(oc, shape);
    const intricate = faces.some((f) => this.library.faces.isIntricate(f));
    const gaps = faces.flatMap((f) => this.library.faces.gaps(f));
    faces.forEach((f) => f.delete());
    const volume = scope((own) => {
      const p = own(new oc.GProp_GProps());
      if (intricate) oc.BRepGProp.VolumeProperties(shape, p, VOLUME_PRECISION, false, false);
      else oc.BRepGProp.VolumeProperties(shape, p, false, false, false);
      return p.Mass() + volumeOfGaps(oc, shape, gaps);
    });
    return { volume, solids, box: boxOfShape(oc, shape), ...(intricate ? { precision: VOLUME_TRUSTED } : {}) };
  }
  measure(key: string): StateMeasure {
    return this.state(key).measure;
  }
  reach(key: string, direction: Vec3): number {
    const state = this.state(key);
    return kept((state.reaches ??= new Map()), wayName(direction), () => {
      return boxIn(this.oc, state.shape, levelFrame(direction)).max.z;
    });
  }
  passages(key: string, step: BodyStep): { from: number; to: number }[][] {
    return passagesOf(this.oc, this.state(key), step);
  }
  stretches(key: string, start: Vec3, direction: Vec3): { from: number; to: number }[] {
    const { shape, measure } = this.state(key);
    return stretchesOf(this.oc, shape, measure.box, start, direction);
  }
  surfaceArea(key: string): number {
    return this.faces(key).reduce((sum, f) => sum + f.area, 0);
  }

  flats(key: string): { normal: Vec3; point: Vec3; face: number }[] {
    const s = this.state(key);
    return (s.flats ??= this.flatsOf(s.faces, 0));
  }
  faces(key: string): FaceInfo[] {
    const s = this.state(key);
    return (s.faceInfo ??= s.faces.map((f, i) => ({ ...this.library.faces.info(f), tag: s.tags[i] })));
  }
  skins(key: string): number {
    return countShells(this.oc, this.state(key).shape);
  }
  edges(key: string): EdgeInfo[] {
    const s = this.state(key);
    if (s.edgeInfo) return s.edgeInfo;
    const faces = s.faces;
    const raw = this.library.edges.edgesOf(faces);
    // Seams keep their place as zero-length smooth edges, so that an index means the same here and in treatEdges.
    const none: EdgeInfo = {
      curve: "other",
      from: v3(0, 0, 0),
      to: v3(0, 0, 0),
      middle: v3(0, 0, 0),
      length: 0,
      faces: [0, 0],
      turn: "smooth",
      angle: 0,
    };
    s.edgeInfo = raw.map((e) => this.library.edges.info(e, faces) ?? none);
    return s.edgeInfo;
  }
  /** Edges a draughtsman would draw: smooth joins and seams are left out. Pairs of points. */
  private drawnEdges(faces: TopoDS_Face[], known?: EdgeInfo[]): Float32Array {
    const ways: Float32Array[] = [];
    this.library.edges.edgesOf(faces).forEach((e, k) => {
      const info = known ? known[k] : this.library.edges.info(e, faces);
      if (info && info.angle >= 0.02) ways.push(this.library.edges.piecesOf(e));
    });
    const out = new Float32Array(ways.reduce((sum, p) => sum + p.length, 0));
    let n = 0;
    for (const p of ways) {
      out.set(p, n);
      n += p.length;
    }
    return out;
  }
  outerWires(key: string, wanted: number[]): { edges: number[]; pieces: [Vec3, Vec3][] }[] {
    const { oc } = this;
    const faces = this.state(key).faces;
    const raw = this.library.edges.edgesOf(faces);
    const wires = scope((own) => {
      const index = new ShapeMap<number>(oc);
      raw.forEach((e, i) => index.set(e.edge, i));
      return wanted.map((f) => {
        const mine = edgesOf(oc, [own(oc.BRepTools.OuterWire(faces[f])) as TopoDS_Face]);
        const pieces = mine.flatMap((e) => {
          const p = samples(oc, e.edge);
          return p.slice(1).map((q, i): [Vec3, Vec3] => [p[i], q]);
        });
        const edges = mine.flatMap((e) => index.get(e.edge) ?? []);
        freeEdges(mine);
        return { edges, pieces };
      });
    });
    return wires;
  }
  private pointsOf = (edge: TopoDS_Edge, deflection: number): Vec3[] =>
    this.library.edges.coarsePointsOf(edge, deflection);
  mesh(key: string): Mesh {
    const s = this.state(key);
    if (!s.mesh) {
      const faces = s.faces,
        deflection = deflectionFor(s.measure);
      s.mesh = joinMeshes(
        faces.map((f) => this.library.faces.mesh(f, deflection, this.pointsOf)),
        this.drawnEdges(faces, this.edges(key)),
      );
    }
    return s.mesh;
  }
  closedMesh(key: string): Mesh {
    // In one go over the whole shape, so that neighbours share the points of their edges.
    const s = this.state(key);
    return joinMeshes([extractMesh(this.oc, s.shape, deflectionFor(s.measure) / 2)], new Float32Array());
  }

  /** A state without what stands before a plane; its cut faces are tagged `section`. The caller frees the shape. */
  private cutAway(key: string, origin: Vec3, normal: Vec3): Result<Tagged> {
    const s = this.state(key);
    return scope((own) => {
      const shape = own(boxBefore(this.oc, s.measure.box, origin, normal));
      const faces = facesOf(this.oc, shape);
      faces.forEach((f) => f.delete());
      return boolean(this.oc, "cut", s, [
        { shape, tags: faces.map(() => ({ row: "", role: "section", instance: 0 })) },
      ]);
    });
  }
  section(key: string, origin: Vec3, normal: Vec3): { mesh: Mesh; area: number; sectionFaces: number[] } {
    return scope((own) => {
      const cut = this.cutAway(key, origin, normal);
      if (!cut.ok) return { mesh: emptyMesh(), area: 0, sectionFaces: [] };
      const faces = facesOf(this.oc, own(cut.value.shape)).map((f) => own(f));
      const sectionFaces = cut.value.tags.flatMap((t, i) => (t?.role === "section" ? [i] : []));
      const deflection = deflectionFor(this.state(key).measure);
      const mesh = joinMeshes(
        faces.map((f) => this.library.faces.mesh(f, deflection, this.pointsOf)),
        this.drawnEdges(faces),
      );
      return {
        mesh,
        area: sectionFaces.reduce((sum, i) => sum + this.library.faces.info(faces[i]).area, 0),
        sectionFaces,
      };
    });
  }
  crossing(key: string, origin: Vec3, normal: Vec3): MeasuredEdge[] {
    // The same plane looked at from either side, and from any point of it, is one.
    const [way, level] = planeName(origin, normal);
    return kept((this.state(key).crossings ??= new Map()), `${way}/${level}`, () =>
      crossingOf(this.oc, this.state(key).faces, this.faces(key), { origin, normal }),
    );
  }
  sectionEdges(key: string, origin: Vec3, normal: Vec3): MeasuredEdge[] {
    return scope((own) => {
      const cut = this.cutAway(key, origin, normal);
      if (!cut.ok) return [];
      const faces = facesOf(this.oc, own(cut.value.shape)).map((f) => own(f));
      const raw = edgesOf(
        this.oc,
        faces.filter((_, i) => cut.value.tags[i]?.role === "section"),
      );
      const edges = raw.filter((e) => e.uses.length === 1).map((e) => measureCurve(this.oc, e.edge));
      freeEdges(raw);
      return edges;
    });
  }

  ghost(steps: KernelStep[]): Mesh | null {
    try {
      const tools = this.ghostTools(steps);
      if (!tools.length) return null;
      const lines: number[] = [];
      const pieces = tools.map((t) =>
        scope((own) => {
          const faces = facesOf(this.oc, own(t.shape)).map((f) => own(f));
          lines.push(...this.drawnEdges(faces));
          return extractMesh(this.oc, t.shape, 0.05);
        }),
      );
      return joinMeshes(pieces, new Float32Array(lines));
    } catch {
      return null;
    }
  }

  /** Tool solids of steps, as many as can be told apart on a picture. The caller frees them. */
  private ghostTools(steps: KernelStep[]): Tagged[] {
    let left = MOST_GHOSTS;
    return steps.flatMap((step) => {
      if ((step.op !== "cut" && step.op !== "leave") || left === 0) return [];
      const few = { ...step, places: step.places.slice(0, left) };
      left -= few.places.length;
      try {
        if (step.body.body !== "imported") return copiesOf(this.oc, few);
        const read = this.library.stepSolids.copies(few, step.body);
        return read.ok ? read.value : [];
      } catch {
        // One that cannot be drawn hides none of the others.
        return [];
      }
    });
  }

  drawing(key: string, view: View, hidden: boolean): DrawnLine[] {
    return hiddenLineDrawing(this.oc, this.state(key).shape, view, hidden);
  }
  step(solids: { key: string; name: string; place?: Frame }[]): Uint8Array {
    return scope((own) =>
      writeStep(
        this.oc,
        solids.map(({ key, name, place }) => {
          const { shape } = this.state(key);
          return { shape: place ? own(laidAt(this.oc, shape, place)) : shape, name };
        }),
      ),
    );
  }

  private pinned = new Set<string>();
  pin(keys: string[]): void {
    this.pinned = new Set(keys);
  }

  trim(keep: Set<string>): void {
    this.library.grooves.trim();
    this.library.insertTools.trim();
    const last = this.states.get([...keep].pop() ?? "");
    this.library.faces.atHand = last?.faces?.length ?? 0;
    this.library.edges.atHand = last?.edgeInfo?.length ?? 0;
    for (const [key, s] of this.states) {
      if (this.states.size <= keep.size + SPARE_STATES) return;
      if (keep.has(key) || this.pinned.has(key)) continue;
      s.free();
      this.states.delete(key);
    }
  }
}

/** Chord error of a picture: a four-thousandth of the part, and never coarser than a tenth of a millimetre. */
const deflectionFor = (m: StateMeasure): number =>
  Math.min(0.1, Math.max(0.001, length(sub(m.box.max, m.box.min)) / 4000));

/** Relative precision asked of the volume of a solid with intricate edges, and what it is trusted to. */
const VOLUME_PRECISION = 1e-8;
const VOLUME_TRUSTED = 1e-6;
