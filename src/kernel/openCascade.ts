import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { fail, ok, type Result } from "@/core/result";
import { length, sub, v3, type Vec3 } from "@/core/geometry/vec";
import type { MeasuredEdge } from "@/core/outline/fromPart";
import type {
  BodyStep,
  DrawnLine,
  EdgeInfo,
  FaceInfo,
  FaceTag,
  KernelStep,
  Mesh,
  SolidKernel,
  StateMeasure,
  View,
} from "@/core/engine/kernel";
import { copiesOf, plateOf, type Tagged } from "./bodies";
import { cornerPieces } from "./chamferCorners";
import { hiddenLineDrawing } from "./drawing";
import { EdgeCache } from "./edgeCache";
import { FaceCache } from "./faceCache";
import { emptyMesh, extractMesh, joinMeshes } from "./meshing";
import { kernelMessage, scope, type OC } from "./oc";
import { cannotBe } from "./resultCheck";
import { boxBefore } from "./sectionBox";
import { writeStep } from "./stepFile";
import {
  boxOfShape,
  countSolids,
  edgesOf,
  facesOf,
  freeEdges,
  isClosed,
  measureCurve,
  samples,
  ShapeMap,
  type RawEdge,
} from "./topology";

interface State extends Tagged {
  measure: StateMeasure;
  faces?: TopoDS_Face[];
  flats?: { normal: Vec3; point: Vec3; face: number }[];
  faceInfo?: FaceInfo[];
  edgeInfo?: EdgeInfo[];
  mesh?: Mesh;
}

/** What a step made, and the most volume its tools can have taken or added. */
type Made = Tagged & { most?: number };

/** States kept besides those of the job as it is: what undo, redo and stepping come back to. */
const SPARE_STATES = 120;
const MOST_MEMORY = 1.2e9;

type History = {
  Modified(s: TopoDS_Shape): { IsEmpty(): boolean; First(): TopoDS_Shape; RemoveFirst(): void; delete(): void };
  IsDeleted(s: TopoDS_Shape): boolean;
};

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
      this.brokenDown ||
      (this.oc as unknown as { wasmMemory: WebAssembly.Memory }).wasmMemory.buffer.byteLength > MOST_MEMORY
    );
  }
  private cache: FaceCache;
  private edgeCache: EdgeCache;
  constructor(private oc: OC) {
    this.cache = new FaceCache(oc);
    this.edgeCache = new EdgeCache(oc, this.cache);
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
      const made = this.make(from === null ? null : this.state(from), step);
      if (!made.ok) return made;
      const measure = this.measureShape(made.value.shape);
      const wrong = from === null ? null : cannotBe(step, this.state(from).measure, measure, made.value.most);
      if (wrong) {
        made.value.shape.delete();
        return wrong;
      }
      if (measure.solids === 0 || !(measure.volume > 1e-9)) {
        made.value.shape.delete();
        return fail("nothing is left of the part", { expected: "a cut that leaves material" });
      }
      this.states.set(key, { shape: made.value.shape, tags: made.value.tags, measure });
      return ok(measure);
    } catch (e) {
      this.brokenDown ||= e instanceof WebAssembly.RuntimeError || e instanceof RangeError;
      return fail(`the solid kernel could not do this (${kernelMessage(this.oc, e)})`, {
        expected: "other sizes or another place",
      });
    }
  }

  private make(from: State | null, step: KernelStep): Result<Made> {
    const { oc } = this;
    if (step.op === "plate") return ok(plateOf(oc, step));
    if (step.op === "edges") return from ? this.treatEdges(from, step) : fail("there is no part yet");
    const tools = this.toolsOf(step);
    try {
      if (!from) {
        if (step.op === "cut") return fail("there is nothing to cut yet", { expected: "a LEAVE row first" });
        const [first, ...rest] = tools;
        if (rest.length === 0) return ok(first);
        return this.boolean("leave", first, rest);
      }
      // All tools of a step are copies of one, but for the grooves of a pointed cutter.
      const most = step.body.body === "vee" ? Infinity : quickVolume(oc, tools[0].shape) * tools.length;
      const made = this.boolean(step.op, from, tools);
      return made.ok ? ok({ ...made.value, most }) : made;
    } finally {
      if (from) for (const t of tools) t.shape.delete();
    }
  }

  /**
   * The tool solids of a step. Grooves of a pointed cutter are joined chain by chain first: hundreds of small tools
   * at once in one face take many times longer.
   */
  private toolsOf(step: BodyStep): Tagged[] {
    const { body } = step;
    if (body.body !== "vee") return copiesOf(this.oc, step);
    return step.places.flatMap((place, instance) =>
      body.chains.flatMap((chain) => {
        const pieces = copiesOf(this.oc, { ...step, places: [place], body: { ...body, chains: [chain] } }).map((t) => ({
          ...t,
          tags: t.tags.map((g) => g && { ...g, instance }),
        }));
        if (pieces.length < 2) return pieces;
        const [first, ...rest] = pieces;
        const joined = this.boolean("join", first, rest);
        if (!joined.ok) return pieces;
        for (const t of pieces) t.shape.delete();
        return [joined.value];
      }),
    );
  }

  private boolean(op: "leave" | "cut" | "join", base: Tagged, tools: Tagged[]): Result<Tagged> {
    const { oc } = this;
    return scope((own) => {
      const b = own(op === "cut" ? new oc.BRepAlgoAPI_Cut() : new oc.BRepAlgoAPI_Fuse());
      const args = own(new oc.NCollection_List_TopoDS_Shape()),
        list = own(new oc.NCollection_List_TopoDS_Shape());
      args.Append(base.shape);
      for (const t of tools) list.Append(t.shape);
      b.SetArguments(args);
      b.SetTools(list);
      b.SetNonDestructive(true);
      b.Build(own(new oc.Message_ProgressRange()));
      if (b.HasErrors())
        return fail("the solid kernel could not join these shapes", { expected: "other sizes or another place" });
      if (op === "leave") b.SimplifyResult(true, true, 1e-6);
      const made = this.follow(b.Shape(), b as unknown as History, [base, ...tools], null);
      if (isClosed(oc, made.shape)) return ok(made);
      made.shape.delete();
      return fail("what the solid kernel made of this is no closed solid", {
        expected: "another size or place, a little larger or deeper",
      });
    });
  }

  /** Carries the tags through an operation by its own record of what became of each face. */
  private follow(shape: TopoDS_Shape, history: History, sources: Tagged[], fresh: FaceTag | null): Tagged {
    const { oc } = this;
    return scope((own) => {
      const map = new ShapeMap<FaceTag | null>(oc);
      for (const source of sources) {
        const faces = facesOf(oc, source.shape);
        faces.forEach((f, i) => {
          own(f);
          if (history.IsDeleted(f)) return;
          const modified = own(history.Modified(f));
          if (modified.IsEmpty()) map.set(f, source.tags[i]);
          for (; !modified.IsEmpty(); modified.RemoveFirst()) map.set(own(modified.First()), source.tags[i]);
        });
      }
      const result = facesOf(oc, shape).map((f) => own(f));
      const tags = result.map((f) => map.get(f) ?? fresh);
      return { shape, tags };
    });
  }

  private treatEdges(from: State, step: Extract<KernelStep, { op: "edges" }>): Result<Tagged> {
    const { oc } = this;
    const faces = this.facesOfState(from);
    const raw = edgesOf(oc, faces);
    try {
      return scope((own) => {
        const maker = own(
          step.treatment === "chamfer"
            ? new oc.BRepFilletAPI_MakeChamfer(from.shape)
            : new oc.BRepFilletAPI_MakeFillet(from.shape),
        );
        for (const { edge, face } of step.edges) {
          const e: TopoDS_Edge = raw[edge].edge;
          // Tangent neighbours are taken along with the first edge of their chain.
          if (maker.Contour(e) > 0) continue;
          if (step.treatment === "round") (maker as InstanceType<OC["BRepFilletAPI_MakeFillet"]>).Add(step.size, e);
          else if (Math.abs(step.angle - Math.PI / 4) < 1e-12)
            (maker as InstanceType<OC["BRepFilletAPI_MakeChamfer"]>).Add(step.size, e);
          else (maker as InstanceType<OC["BRepFilletAPI_MakeChamfer"]>).AddDA(step.size, step.angle, e, faces[face]);
        }
        try {
          maker.Build(own(new oc.Message_ProgressRange()));
        } catch {
          /* IsDone tells */
        }
        if (!maker.IsDone()) return this.doesNotFit(from, step, raw, faces);
        const shape = maker.Shape();
        const check = own(new oc.BRepCheck_Analyzer(shape, true, false, false));
        if (!check.IsValid()) {
          shape.delete();
          return this.doesNotFit(from, step, raw, faces);
        }
        const tag: FaceTag = { row: step.row, role: step.treatment, instance: 0 };
        const made = this.follow(shape, maker as unknown as History, [from], tag);
        return step.treatment === "chamfer" ? this.pointedCorners(made, tag) : ok(made);
      });
    } finally {
      freeEdges(raw);
    }
  }

  /** Corners where three chamfers meet brought to a point, as a cutter leaves them. */
  private pointedCorners(made: Tagged, tag: FaceTag): Result<Tagged> {
    const pieces = cornerPieces(this.oc, made, this.cache, tag);
    if (!pieces.length) return ok(made);
    const joined = this.boolean("leave", made, pieces);
    for (const p of [made, ...pieces]) p.shape.delete();
    return joined;
  }

  /**
   * Which edge a chamfer or round does not fit on, and the largest that does: found by trying that edge alone. Only
   * when it has failed.
   */
  private doesNotFit(
    from: State,
    step: Extract<KernelStep, { op: "edges" }>,
    raw: RawEdge[],
    faces: TopoDS_Face[],
  ): Result<Tagged> {
    const fits = ({ edge, face }: { edge: number; face: number }, size: number): boolean => {
      try {
        return scope((own) => {
          const e = raw[edge].edge;
          const maker = own(
            step.treatment === "chamfer"
              ? new this.oc.BRepFilletAPI_MakeChamfer(from.shape)
              : new this.oc.BRepFilletAPI_MakeFillet(from.shape),
          );
          if (step.treatment === "round") (maker as InstanceType<OC["BRepFilletAPI_MakeFillet"]>).Add(size, e);
          else (maker as InstanceType<OC["BRepFilletAPI_MakeChamfer"]>).AddDA(size, step.angle, e, faces[face]);
          maker.Build(own(new this.oc.Message_ProgressRange()));
          return (
            maker.IsDone() && own(new this.oc.BRepCheck_Analyzer(own(maker.Shape()), true, false, false)).IsValid()
          );
        });
      } catch {
        return false;
      }
    };
    const bad = step.edges.slice(0, MOST_TRIED).find((e) => !fits(e, step.size));
    if (!bad)
      return fail(`a ${step.treatment} of this size does not fit on all of these edges together`, {
        path: "size",
        expected: "a smaller size or fewer edges",
      });
    let [low, high] = [0, step.size];
    for (let i = 0; i < 12; i++) {
      const middle = (low + high) / 2;
      if (fits(bad, middle)) low = middle;
      else high = middle;
    }
    const info = this.edgeCache.info(raw[bad.edge], faces);
    const where = info
      ? ` at X ${info.middle.x.toFixed(2)} Y ${info.middle.y.toFixed(2)} Z ${info.middle.z.toFixed(2)} mm`
      : "";
    const most = Math.floor(low * 100) / 100;
    return fail(`a ${step.treatment} of this size does not fit on every edge: not on the one${where}`, {
      path: "size",
      expected: most > 0 ? `at most ${most} mm there` : "fewer edges",
    });
  }

  private measureShape(shape: TopoDS_Shape): StateMeasure {
    const { oc } = this;
    const solids = countSolids(oc, shape);
    if (solids === 0) return { volume: 0, solids, box: { min: v3(0, 0, 0), max: v3(0, 0, 0) } };
    const faces = facesOf(oc, shape);
    const intricate = faces.some((f) => this.cache.isIntricate(f));
    faces.forEach((f) => f.delete());
    const volume = scope((own) => {
      const p = own(new oc.GProp_GProps());
      if (intricate) oc.BRepGProp.VolumeProperties(shape, p, VOLUME_PRECISION, false, false);
      else oc.BRepGProp.VolumeProperties(shape, p, false, false, false);
      return p.Mass();
    });
    return { volume, solids, box: boxOfShape(oc, shape) };
  }
  measure(key: string): StateMeasure {
    return this.state(key).measure;
  }
  surfaceArea(key: string): number {
    return this.faces(key).reduce((sum, f) => sum + f.area, 0);
  }

  private facesOfState(s: State): TopoDS_Face[] {
    return (s.faces ??= facesOf(this.oc, s.shape));
  }
  flats(key: string): { normal: Vec3; point: Vec3; face: number }[] {
    const s = this.state(key);
    return (s.flats ??= this.facesOfState(s).flatMap((f, face) => {
      const flat = this.cache.flat(f);
      return flat ? [{ ...flat, face }] : [];
    }));
  }
  faces(key: string): FaceInfo[] {
    const s = this.state(key);
    return (s.faceInfo ??= this.facesOfState(s).map((f, i) => ({ ...this.cache.info(f), tag: s.tags[i] })));
  }
  edges(key: string): EdgeInfo[] {
    const s = this.state(key);
    if (s.edgeInfo) return s.edgeInfo;
    const faces = this.facesOfState(s);
    const raw = edgesOf(this.oc, faces);
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
    s.edgeInfo = raw.map((e) => this.edgeCache.info(e, faces) ?? none);
    freeEdges(raw);
    return s.edgeInfo;
  }
  /** Edges a draughtsman would draw: smooth joins and seams are left out. Pairs of points. */
  private drawnEdges(faces: TopoDS_Face[], known?: EdgeInfo[]): Float32Array {
    const raw = edgesOf(this.oc, faces);
    const out: number[] = [];
    raw.forEach((e, k) => {
      const info = known ? known[k] : this.edgeCache.info(e, faces);
      if (!info || info.angle < 0.02) return;
      const p = this.edgeCache.points(e);
      for (let i = 0; i + 1 < p.length; i++) out.push(p[i].x, p[i].y, p[i].z, p[i + 1].x, p[i + 1].y, p[i + 1].z);
    });
    freeEdges(raw);
    return new Float32Array(out);
  }
  outerWires(key: string, wanted: number[]): { edges: number[]; pieces: [Vec3, Vec3][] }[] {
    const { oc } = this;
    const faces = this.facesOfState(this.state(key));
    const raw = edgesOf(oc, faces);
    const wires = scope((own) => {
      const index = new ShapeMap<number>(oc);
      raw.forEach((e, i) => index.set(e.edge, i));
      return wanted.map((f) => {
        const mine = edgesOf(oc, [own(oc.BRepTools.OuterWire(faces[f])) as unknown as TopoDS_Face]);
        const pieces = mine.flatMap((e) => {
          const p = samples(oc, e.edge);
          return p.slice(1).map((q, i): [Vec3, Vec3] => [p[i], q]);
        });
        const edges = mine.flatMap((e) => index.get(e.edge) ?? []);
        freeEdges(mine);
        return { edges, pieces };
      });
    });
    freeEdges(raw);
    return wires;
  }
  mesh(key: string): Mesh {
    const s = this.state(key);
    if (!s.mesh) {
      const faces = this.facesOfState(s),
        deflection = deflectionFor(s.measure);
      s.mesh = joinMeshes(
        faces.map((f) => this.cache.mesh(f, deflection)),
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
      return this.boolean("cut", s, [{ shape, tags: faces.map(() => ({ row: "", role: "section", instance: 0 })) }]);
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
        faces.map((f) => this.cache.mesh(f, deflection)),
        this.drawnEdges(faces),
      );
      return { mesh, area: sectionFaces.reduce((sum, i) => sum + this.cache.info(faces[i]).area, 0), sectionFaces };
    });
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

  ghost(step: KernelStep): Mesh | null {
    if (step.op !== "cut" && step.op !== "leave") return null;
    try {
      const tools = copiesOf(this.oc, { ...step, places: step.places.slice(0, 200) });
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

  drawing(key: string, view: View, hidden: boolean): DrawnLine[] {
    return hiddenLineDrawing(this.oc, this.state(key).shape, view, hidden);
  }
  step(key: string): Uint8Array {
    return writeStep(this.oc, this.state(key).shape);
  }

  trim(keep: Set<string>): void {
    const last = this.states.get([...keep].pop() ?? "");
    this.cache.atHand = last?.faces?.length ?? 0;
    this.edgeCache.atHand = last?.edgeInfo?.length ?? 0;
    for (const [key, s] of this.states) {
      if (this.states.size <= keep.size + SPARE_STATES) return;
      if (keep.has(key)) continue;
      s.faces?.forEach((f) => f.delete());
      s.shape.delete();
      this.states.delete(key);
    }
  }

  /** Does a throw-away part: the first booleans after loading are several times slower than warm ones. */
  warmUp(): void {
    const frame = { origin: v3(0, 0, 0), x: v3(1, 0, 0), y: v3(0, 1, 0), normal: v3(0, 0, 1) };
    const loop = (s: number) =>
      [
        [-s, -s],
        [s, -s],
        [s, s],
        [-s, s],
      ].map(([x, y], i, a) => ({
        kind: "line" as const,
        from: { x, y },
        to: { x: a[(i + 1) % 4][0], y: a[(i + 1) % 4][1] },
      }));
    this.apply("warm-1", null, {
      op: "leave",
      row: "warm",
      frame,
      body: { body: "prism", outline: { outer: loop(10), holes: [] }, from: 0, to: -10 },
      places: [{ x: 0, y: 0 }],
    });
    this.apply("warm-2", "warm-1", {
      op: "cut",
      row: "warm",
      frame: { ...frame, origin: v3(0, 0, 10) },
      body: {
        body: "revolved",
        profile: [
          { r: 2, z: 0 },
          { r: 2, z: 5 },
          { r: 0, z: 6 },
        ],
      },
      places: [
        { x: 0, y: 0 },
        { x: 5, y: 5 },
      ],
    });
    this.mesh("warm-2");
    for (const key of ["warm-1", "warm-2"]) this.states.delete(key);
  }
}

/** Volume of a tool solid, as near as a bound wants it. Its faces are not kept: they go with it. */
const quickVolume = (oc: OC, shape: TopoDS_Shape): number =>
  scope((own) => {
    const p = own(new oc.GProp_GProps());
    oc.BRepGProp.VolumeProperties(shape, p, false, false, false);
    return Math.abs(p.Mass());
  });

/** Chord error of a picture: a four-thousandth of the part, and never coarser than a tenth of a millimetre. */
const deflectionFor = (m: StateMeasure): number =>
  Math.min(0.1, Math.max(0.001, length(sub(m.box.max, m.box.min)) / 4000));

/** Edges that are tried one by one when a chamfer or round has failed. */
const MOST_TRIED = 60;

/** Relative precision asked of the volume of a solid with intricate edges. */
const VOLUME_PRECISION = 1e-6;
