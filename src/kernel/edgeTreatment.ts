import { saidMost, saidPoint } from "@/core/number";
import { problems } from "./problems";
import type { TopoDS_Edge, TopoDS_Face } from "replicad-opencascadejs";
import { fail, ok, type Result } from "@/core/base/result";
import type { EdgeInfo, FaceTag, KernelStep } from "@/core/engine/kernel";
import type { Tagged } from "./bodies";
import { boolean, follow } from "./booleans";
import { cornerPieces } from "./chamferCorners";
import type { KnownEdge } from "./edgeCache";
import { fullRoundTools } from "./fullRound";
import type { Library } from "./library";
import { scope, type OC } from "./oc";
import { ringEdges, ringsFit, ringTool, type RingEdge } from "./ringChamfer";
import type { State } from "./state";
import { ROUNDING } from "@/core/geometry/tolerance";
import { distanceToStretch } from "@/core/geometry/vec";

type EdgeStep = Extract<KernelStep, { op: "edges" }>;
type Maker = InstanceType<OC["BRepFilletAPI_MakeChamfer"]> | InstanceType<OC["BRepFilletAPI_MakeFillet"]>;

/** Times its size that two treated edges lie apart at most where one may be in the other's way: generous, our own. */
const NEAR = 4;
/** Edges that are tried one by one when a chamfer or round has failed. */
const MOST_TRIED = 60;

/** A maker of one treatment, and how an edge is given to it. */
function makerOf(
  oc: OC,
  state: State,
  step: Pick<EdgeStep, "treatment" | "angle">,
): { maker: Maker; add: (size: number, edge: TopoDS_Edge, face: TopoDS_Face) => void } {
  if (step.treatment === "round") {
    const maker = new oc.BRepFilletAPI_MakeFillet(state.shape);
    return { maker, add: (size, edge) => maker.Add(size, edge) };
  }
  const maker = new oc.BRepFilletAPI_MakeChamfer(state.shape);
  const even = Math.abs(step.angle - Math.PI / 4) < ROUNDING;
  return {
    maker,
    add: (size, edge, face) => (even ? maker.Add(size, edge) : maker.AddDA(size, step.angle, edge, face)),
  };
}

/** Chamfers or rounds edges of a state. The caller frees the result. */
export function treatEdges(library: Library, from: State, step: EdgeStep): Result<Tagged> {
  const made = treatAll(library, from, step);
  if (made.ok || !step.fitting || step.edges.length > MOST_TRIED) return made;
  const fit = fittingEdges(library, from, step);
  return fit.length && fit.length < step.edges.length ? treatAll(library, from, { ...step, edges: fit }) : made;
}

type TreatedEdge = EdgeStep["edges"][number];

/** The edges that take a treatment alone, less those of which two that lie near do not take it together. */
function fittingEdges(library: Library, from: State, step: EdgeStep): TreatedEdge[] {
  const raw = library.edges.edgesOf(from.faces);
  const take = (edges: TreatedEdge[]) => fits(library, from, step, edges, raw, step.size);
  const alone = step.edges.filter((e) => take([e]));
  const infos = alone.map((e) => library.edges.info(raw[e.edge], from.faces));
  const clashes = new Set<TreatedEdge>();
  alone.forEach((a, i) =>
    alone.slice(i + 1).forEach((b, k) => {
      const [p, q] = [infos[i], infos[i + 1 + k]];
      if (p && q && apart(p, q) > NEAR * step.size) return;
      if (!take([a, b])) [a, b].forEach((e) => clashes.add(e));
    }),
  );
  return alone.filter((e) => !clashes.has(e));
}

/** How far two edges are apart at least, about: of bent ones as much less as they may bulge from their chords. */
function apart(a: EdgeInfo, b: EdgeInfo): number {
  const points = (e: EdgeInfo) => [e.from, e.middle, e.to];
  const bulge = 2 * ((a.radius ?? 0) + (b.radius ?? 0));
  return (
    Math.min(
      ...points(a).map((p) => distanceToStretch(p, b.from, b.to)),
      ...points(b).map((p) => distanceToStretch(p, a.from, a.to)),
    ) - bulge
  );
}

function treatAll(library: Library, from: State, step: EdgeStep): Result<Tagged> {
  const raw = library.edges.edgesOf(from.faces);
  const rings = ringEdges(library, from, step, raw);
  if (!rings.size) return treatByLibrary(library, from, step, raw);
  if (!ringsTake(library, from, step.edges, rings, raw, step.size)) return doesNotFit(library, from, step, raw);
  const rest = step.edges.filter((e) => !rings.has(e.edge));
  const made = rest.length ? treatByLibrary(library, from, { ...step, edges: rest }, raw) : ok<Tagged>(from);
  if (!made.ok) return made;
  const tag: FaceTag = { row: step.row, role: step.treatment, instance: 0 };
  const tools = [...rings.values()].map((ring) => ringTool(library, ring, step.size, tag));
  const cut = boolean(library.oc, "cut", made.value, tools);
  for (const t of rest.length ? [...tools, made.value] : tools) t.shape.delete();
  return cut;
}

/** Whether edges all round take a chamfer of a size together with the others. */
function ringsTake(
  library: Library,
  from: State,
  edges: TreatedEdge[],
  rings: Map<number, RingEdge>,
  raw: KnownEdge[],
  size: number,
): boolean {
  const treated = edges.flatMap((e) => library.edges.info(raw[e.edge], from.faces) ?? []);
  return ringsFit(
    edges.flatMap((e) => rings.get(e.edge) ?? []),
    treated,
    size,
  );
}

function treatByLibrary(library: Library, from: State, step: EdgeStep, raw: KnownEdge[]): Result<Tagged> {
  const { oc } = library;
  return scope((own) => {
    const { maker, add } = makerOf(oc, from, step);
    own(maker);
    try {
      for (const { edge, face } of step.edges) {
        // Tangent neighbours are taken along with the first edge of their chain.
        if (maker.Contour(raw[edge].edge) > 0) continue;
        add(step.size, raw[edge].edge, from.faces[face]);
      }
      maker.Build(own(new oc.Message_ProgressRange()));
    } catch {
      /* IsDone tells */
    }
    const tag: FaceTag = { row: step.row, role: step.treatment, instance: 0 };
    if (!maker.IsDone()) return fullRounds(library, from, step, raw, tag) ?? doesNotFit(library, from, step, raw);
    const shape = maker.Shape();
    const check = own(new oc.BRepCheck_Analyzer(shape, true, false, false));
    if (!check.IsValid()) {
      shape.delete();
      return fullRounds(library, from, step, raw, tag) ?? doesNotFit(library, from, step, raw);
    }
    const made = follow(oc, shape, maker, [from], tag);
    return step.treatment === "chamfer" ? pointedCorners(library, made, tag) : ok(made);
  });
}

/** By how much less a round has to fit for the size itself to be one that uses its face up, as a share: a hair. */
const HARDLY_LESS = 1e-6;

/** Rounds that would fit if they were a hair smaller, cut by tools of their own; null where they are none. */
function fullRounds(
  library: Library,
  from: State,
  step: EdgeStep,
  raw: KnownEdge[],
  tag: FaceTag,
): Result<Tagged> | null {
  if (step.treatment !== "round") return null;
  if (!fits(library, from, step, step.edges, raw, step.size * (1 - HARDLY_LESS))) return null;
  const edges = step.edges.map((e) => raw[e.edge]);
  const tools = fullRoundTools(library, from, edges, raw, step.size, tag);
  if (!tools) return null;
  const cut = boolean(library.oc, "cut", from, tools);
  for (const t of tools) t.shape.delete();
  return cut.ok ? cut : null;
}

/** Corners where three chamfers meet brought to a point, as a cutter leaves them. */
function pointedCorners(library: Library, made: Tagged, tag: FaceTag): Result<Tagged> {
  const pieces = cornerPieces(library.oc, made, library.faces, tag);
  if (!pieces.length) return ok(made);
  const joined = boolean(library.oc, "leave", made, pieces);
  for (const p of [made, ...pieces]) p.shape.delete();
  return joined;
}

/** Whether edges take a treatment of a size together. */
function fits(
  library: Library,
  from: State,
  step: EdgeStep,
  edges: TreatedEdge[],
  raw: KnownEdge[],
  size: number,
): boolean {
  const { oc } = library;
  const rings = ringEdges(library, from, { ...step, edges }, raw);
  if (!ringsTake(library, from, edges, rings, raw, size)) return false;
  const rest = edges.filter((e) => !rings.has(e.edge));
  if (!rest.length) return true;
  try {
    return scope((own) => {
      const { maker, add } = makerOf(oc, from, step);
      own(maker);
      for (const { edge, face } of rest)
        if (maker.Contour(raw[edge].edge) === 0) add(size, raw[edge].edge, from.faces[face]);
      maker.Build(own(new oc.Message_ProgressRange()));
      return maker.IsDone() && own(new oc.BRepCheck_Analyzer(own(maker.Shape()), true, false, false)).IsValid();
    });
  } catch {
    return false;
  }
}

/**
 * Which edge a chamfer or round does not fit on, and the largest that does: found by trying that edge alone. Only
 * when it has failed.
 */
function doesNotFit(library: Library, from: State, step: EdgeStep, raw: KnownEdge[]): Result<Tagged> {
  const fit = (e: TreatedEdge, size: number) => fits(library, from, step, [e], raw, size);
  const bad = step.edges.slice(0, MOST_TRIED).find((e) => !fit(e, step.size));
  if (!bad)
    return fail(problems.edgesDoNotFit(step.treatment), {
      path: "size",
    });
  let [low, high] = [0, step.size];
  for (let i = 0; i < 12; i++) {
    const middle = (low + high) / 2;
    if (fit(bad, middle)) low = middle;
    else high = middle;
  }
  const info = library.edges.info(raw[bad.edge], from.faces);
  const where = info ? ` at ${saidPoint(info.middle)}` : "";
  return fail(problems.edgeDoesNotFit(step.treatment, where), {
    path: "size",
    expected: low > step.size / 100 ? `at most ${saidMost(low)} there` : "fewer edges",
  });
}
